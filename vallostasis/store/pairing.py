"""Pairing codes and the devices paired with them, known by the hashes of what they hold."""

from dataclasses import dataclass
from datetime import datetime, timedelta
from uuid import UUID

from vallostasis.core.records.roles import Role
from vallostasis.store.rows import Conn, fetch_all, fetch_one, fetch_value


@dataclass(frozen=True, slots=True)
class PairedDevice:
    """A screen that was let in, by the name it gave itself."""

    paired_device_id: UUID
    name: str
    role: Role
    paired_at: datetime
    expires_at: datetime


COLUMNS = "d.paired_device_id, d.name, d.role, d.paired_at, d.expires_at"
MOST_OPEN = 3
STANDING = """
    d.expires_at > now()
    AND coalesce((SELECT s.seen_at FROM device_seen s WHERE s.paired_device_id = d.paired_device_id), d.paired_at)
        > now() - interval '7 days'
    AND NOT EXISTS (SELECT 1 FROM paired_device_end e WHERE e.paired_device_id = d.paired_device_id)
"""


# Once an hour is often enough to tell a device that is used from one that is not.
NOTE_SEEN = """
    INSERT INTO device_seen (paired_device_id, seen_at) VALUES (%(paired_device_id)s, now())
        ON CONFLICT (paired_device_id) DO UPDATE SET seen_at = now()
     WHERE device_seen.seen_at < now() - interval '1 hour'
"""


def add_code(conn: Conn, code_hash: bytes, valid_for: timedelta, role: Role) -> datetime:
    """Make a code good for a while; return when it runs out."""
    query = """
        INSERT INTO pairing_code (code_hash, expires_at, role)
        VALUES (%(code_hash)s, now() + %(valid_for)s, %(role)s)
        RETURNING expires_at
    """
    expires_at: datetime = fetch_value(
        conn, query, {"code_hash": code_hash, "valid_for": valid_for, "role": role.value}
    )
    return expires_at


def code_is_open(conn: Conn, code_hash: bytes) -> bool:
    """Whether a code was made, has not run out and has paired nothing yet."""
    query = """
        SELECT 1 FROM pairing_code c
         WHERE c.code_hash = %(code_hash)s
           AND c.expires_at > now()
           -- Of codes that nobody used few stay open: the newest.
           AND (SELECT count(*) FROM pairing_code n WHERE n.expires_at > c.expires_at) < %(most)s
           AND NOT EXISTS (SELECT 1 FROM paired_device d WHERE d.code_hash = c.code_hash)
           FOR UPDATE
    """
    return fetch_value(conn, query, {"code_hash": code_hash, "most": MOST_OPEN}) is not None


def add_device(conn: Conn, code_hash: bytes, token_hash: bytes, name: str, valid_for: timedelta) -> PairedDevice:
    """Pair a device, to do what its code says; the database refuses a code used before."""
    query = """
        INSERT INTO paired_device AS d (code_hash, token_hash, name, expires_at, role)
        SELECT c.code_hash, %(token_hash)s, %(name)s, now() + %(valid_for)s, c.role
          FROM pairing_code c WHERE c.code_hash = %(code_hash)s
        RETURNING d.paired_device_id, d.name, d.role, d.paired_at, d.expires_at
    """
    params = {"code_hash": code_hash, "token_hash": token_hash, "name": name, "valid_for": valid_for}
    return fetch_one(conn, PairedDevice, query, params, "device")


def find_device(conn: Conn, token_hash: bytes) -> PairedDevice | None:
    """Return the device that holds a token, or None when it was signed out or ran out."""
    query = f"SELECT {COLUMNS} FROM paired_device d WHERE d.token_hash = %(token_hash)s AND {STANDING}"
    rows = fetch_all(conn, PairedDevice, query, {"token_hash": token_hash})
    if rows:
        conn.execute(NOTE_SEEN, {"paired_device_id": rows[0].paired_device_id})
    return rows[0] if rows else None


def list_devices(conn: Conn) -> tuple[PairedDevice, ...]:
    """Return every device that is let in now, the newest first."""
    return fetch_all(
        conn, PairedDevice, f"SELECT {COLUMNS} FROM paired_device d WHERE {STANDING} ORDER BY paired_at DESC"
    )


def end_device(conn: Conn, paired_device_id: UUID) -> None:
    """Let a device in no longer; saying it twice changes nothing."""
    conn.execute(
        """
        INSERT INTO paired_device_end (paired_device_id) VALUES (%(paired_device_id)s)
        ON CONFLICT (paired_device_id) DO NOTHING
        """,
        {"paired_device_id": paired_device_id},
    )
