"""Passwords of people, as Argon2 hashes, and who is signed in with one."""

from dataclasses import dataclass
from datetime import datetime, timedelta
from uuid import UUID

from vallostasis.core.records.roles import Role
from vallostasis.store.rows import Conn, fetch_all, fetch_value


@dataclass(frozen=True, slots=True)
class Password:
    """The password of a person that counts now."""

    password_id: int
    person_id: UUID
    name: str
    role: Role
    password_hash: str
    set_at: datetime


@dataclass(frozen=True, slots=True)
class SignedIn:
    """Somebody who is signed in."""

    signed_in_id: UUID
    person_id: UUID
    name: str
    role: Role
    expires_at: datetime


NEWEST = """
    SELECT w.password_id, w.person_id, p.name, w.role, w.password_hash, w.set_at
      FROM password w JOIN person p USING (person_id)
     WHERE w.password_hash <> ''
       AND NOT EXISTS (SELECT 1 FROM password n WHERE n.person_id = w.person_id AND n.password_id > w.password_id)
"""


def list_passwords(conn: Conn) -> tuple[Password, ...]:
    """Return the password that counts of everybody who has one, in order of their names."""
    return fetch_all(conn, Password, f"{NEWEST} ORDER BY p.name")


def is_asked(conn: Conn) -> bool:
    """Whether anybody has a password: then whoever comes in signs in."""
    return fetch_value(conn, f"SELECT 1 WHERE EXISTS ({NEWEST})", {}) is not None


def hold_passwords(conn: Conn) -> None:
    """Let nobody else set one until this transaction ends: two owners do not take each other's away at once."""
    conn.execute("SELECT pg_advisory_xact_lock(hashtext('password'))")


def add_password(conn: Conn, person_id: UUID, role: Role, password_hash: str) -> None:
    """Set the password of a person; an empty one takes it away."""
    conn.execute(
        "INSERT INTO password (person_id, role, password_hash) VALUES (%(person_id)s, %(role)s, %(password_hash)s)",
        {"person_id": person_id, "role": str(role), "password_hash": password_hash},
    )


def add_signed_in(conn: Conn, token_hash: bytes, password_id: int, good_for: timedelta) -> None:
    """Sign somebody in who knew a password."""
    conn.execute(
        """
        INSERT INTO signed_in (token_hash, password_id, expires_at)
        VALUES (%(token_hash)s, %(password_id)s, now() + %(good_for)s)
        """,
        {"token_hash": token_hash, "password_id": password_id, "good_for": good_for},
    )


def find_signed_in(conn: Conn, token_hash: bytes) -> SignedIn | None:
    """Return who shows a token; None when it ran out, was ended, or the password was set anew since."""
    query = f"""
        SELECT s.signed_in_id, w.person_id, w.name, w.role, s.expires_at
          FROM signed_in s JOIN ({NEWEST}) w USING (password_id)
         WHERE s.token_hash = %(token_hash)s
           AND s.expires_at > now()
           AND NOT EXISTS (SELECT 1 FROM signed_in_end e WHERE e.signed_in_id = s.signed_in_id)
    """
    rows = fetch_all(conn, SignedIn, query, {"token_hash": token_hash})
    return rows[0] if rows else None


def end_signed_in(conn: Conn, signed_in_id: UUID) -> None:
    """Sign somebody out; saying it twice changes nothing."""
    conn.execute(
        "INSERT INTO signed_in_end (signed_in_id) VALUES (%(signed_in_id)s) ON CONFLICT (signed_in_id) DO NOTHING",
        {"signed_in_id": signed_in_id},
    )
