"""Signing in by name and password, where the shop wants it: as soon as one person has a password, all are asked."""

import functools
import threading
from datetime import timedelta
from uuid import UUID

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError

from vallostasis.core.records.roles import Role
from vallostasis.services.refused import Refused
from vallostasis.services.tokens import hashed, new_token
from vallostasis.store import passwords, people
from vallostasis.store.passwords import Password, SignedIn
from vallostasis.store.rows import Conn

# A shift, with what comes after it.
SIGNED_IN_FOR = timedelta(hours=12)
SHORTEST, LONGEST = 10, 200
# Argon2id with 64 MiB, three passes and four lanes: the second recommended option of RFC 9106, section 4.
_HASHER = PasswordHasher(time_cost=3, memory_cost=64 * 1024, parallelism=4)
# Each takes 64 MiB: two are worked out at once, others wait.
_AT_ONCE = threading.BoundedSemaphore(2)


@functools.cache
def _nobodys() -> str:
    """Whose password is asked where there is nobody, so that it takes as long as a wrong one. It is nobody's."""
    return _HASHER.hash(new_token())


def set_password(conn: Conn, person_id: UUID, role: Role, password: str) -> None:
    """Give somebody a password and a role; the first one of all has to be an owner's."""
    person = people.get_person(conn, person_id)
    if not SHORTEST <= len(password) <= LONGEST:
        raise Refused(f"A password has {SHORTEST} to {LONGEST} characters: take a sentence.", "password")
    if len(set(password)) < 5 or person.name.casefold() in password.casefold():
        raise Refused("That is guessed at once: take a sentence of your own, without the name.", "password")
    passwords.hold_passwords(conn)
    others = [one for one in passwords.list_passwords(conn) if one.person_id != person_id]
    if role is not Role.OWNER and not _has_owner(others):
        raise Refused("Somebody has to be the owner: give an owner's password first.", "role")
    with _AT_ONCE:
        password_hash = _HASHER.hash(password)
    passwords.add_password(conn, person_id, role, password_hash)


def take_password_away(conn: Conn, person_id: UUID) -> None:
    """Take a password away; the last one ends signing in, and the last owner goes last."""
    passwords.hold_passwords(conn)
    standing = passwords.list_passwords(conn)
    mine = next((one for one in standing if one.person_id == person_id), None)
    if mine is None:
        return
    others = [one for one in standing if one is not mine]
    if others and not _has_owner(others):
        raise Refused(f"{mine.name} is the last owner: take the others' passwords away first.", "person_id")
    passwords.add_password(conn, person_id, mine.role, "")


def _has_owner(standing: list[Password]) -> bool:
    return any(one.role == Role.OWNER for one in standing)


def sign_in(conn: Conn, person_id: UUID, password: str) -> str:
    """Let somebody in who knows the password; return the token shown from now on, of which only the hash is kept."""
    mine = next((one for one in passwords.list_passwords(conn) if one.person_id == person_id), None)
    with _AT_ONCE:
        # Worked out before it is known whether it is wanted: the first to ask learns nothing from how long it takes.
        nobodys = _nobodys()
        try:
            right = _HASHER.verify(nobodys if mine is None else mine.password_hash, password) and mine is not None
        except (VerificationError, InvalidHashError):
            right = False
    if mine is None or not right:
        raise Refused("Name and password do not go together.", "password")
    token = new_token()
    passwords.add_signed_in(conn, hashed(token), mine.password_id, SIGNED_IN_FOR)
    return token


def signed_in(conn: Conn, token: str) -> SignedIn | None:
    """Return who shows a token, or None."""
    return passwords.find_signed_in(conn, hashed(token)) if token else None
