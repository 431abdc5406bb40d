"""Letting other screens of the shop in: a short code shown here opens a session there."""

import secrets
from dataclasses import dataclass
from datetime import datetime, timedelta
from uuid import UUID

from vallostasis.core.records.roles import Role
from vallostasis.services.refused import Refused
from vallostasis.services.tokens import hashed, new_token
from vallostasis.store import pairing
from vallostasis.store.pairing import PairedDevice
from vallostasis.store.rows import Conn

# No letters that look like digits. Eight of 29 are 39 bits: with one code good for ten minutes and used once,
# guessing at a thousand tries a second finds it in less than one of 800,000 codes.
ALPHABET = "23456789ABCDEFGHJKMNPQRTUVWXY"
LENGTH = 8
CODE_GOOD_FOR = timedelta(minutes=10)
SESSION_GOOD_FOR = timedelta(days=30)


@dataclass(frozen=True, slots=True)
class PairingCode:
    """A code to type or scan, and when it runs out."""

    code: str
    expires_at: datetime


@dataclass(frozen=True, slots=True)
class Session:
    """A device let in, and the token it shows from now on; only the token's hash is kept."""

    device: PairedDevice
    token: str


def make_code(conn: Conn, role: Role = Role.MACHINIST) -> PairingCode:
    """Make a code that lets one device in, to do what a role may."""
    code = "".join(secrets.choice(ALPHABET) for _ in range(LENGTH))
    return PairingCode(f"{code[:4]}-{code[4:]}", pairing.add_code(conn, hashed(code), CODE_GOOD_FOR, role))


def open_session(conn: Conn, code: str, device: str) -> Session:
    """Let a device in by a code; refuses codes that were never made, used before or run out, all in one way."""
    code_hash = hashed("".join(sign for sign in code.upper() if sign.isalnum()))
    if not pairing.code_is_open(conn, code_hash):
        raise Refused(
            "That code lets nobody in: it is used once and runs out after ten minutes. Take the one shown now.", "code"
        )
    token = new_token()
    return Session(pairing.add_device(conn, code_hash, hashed(token), device, SESSION_GOOD_FOR), token)


def device_of(conn: Conn, token: str) -> PairedDevice | None:
    """Return the device that shows a token, or None when it is not let in."""
    return pairing.find_device(conn, hashed(token)) if token else None


def sign_out(conn: Conn, paired_device_id: UUID) -> None:
    """Let a device in no longer."""
    pairing.end_device(conn, paired_device_id)
