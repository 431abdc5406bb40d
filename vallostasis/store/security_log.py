"""Who got in, who was sent away, and what was brought back."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from enum import StrEnum

from vallostasis.store.rows import Conn, fetch_all, fetch_value


class SecurityKind(StrEnum):
    """What happened at the door."""

    CODE_MADE = "code made"
    PAIRED = "paired"
    WRONG_CODE = "wrong code"
    TOO_MANY = "too many codes"
    SIGNED_OUT = "signed out"
    RESTORED = "restored"
    LINK_MADE = "link made"
    LINK_ENDED = "link ended"
    WRONG_LINK = "wrong link"
    PASSWORD_SET = "password set"
    PASSWORD_TAKEN = "password taken away"
    SIGNED_IN = "signed in"
    WRONG_PASSWORD = "wrong password"
    TOO_MANY_PASSWORDS = "too many passwords"
    REFUSED = "refused"
    BROUGHT_IN = "brought in"


@dataclass(frozen=True, slots=True)
class SecurityEvent:
    """One thing that happened: what, in words, from which address, when."""

    kind: SecurityKind
    words: str
    address: str
    at: datetime


def note(conn: Conn, kind: SecurityKind, words: str, address: str = "") -> None:
    """Record that something happened."""
    conn.execute(
        "INSERT INTO security_event (kind, words, address) VALUES (%(kind)s, %(words)s, %(address)s)",
        {"kind": kind.value, "words": words[:200], "address": address},
    )


def count_since(
    conn: Conn, within: timedelta, kinds: Sequence[SecurityKind], *, address: str | None = None,
    words: str | None = None,
) -> int:  # fmt: skip
    """Count what happened of late, from an address or by what was said where one is named."""
    query = """
        SELECT count(*) FROM security_event
         WHERE at > clock_timestamp() - %(within)s
           AND kind = ANY(%(kinds)s)
           AND (%(address)s::text IS NULL OR address = %(address)s)
           AND (%(words)s::text IS NULL OR words = %(words)s)
    """
    params = {"within": within, "kinds": [one.value for one in kinds], "address": address, "words": words}
    return int(fetch_value(conn, query, params))


def list_security_events(conn: Conn, most: int) -> tuple[SecurityEvent, ...]:
    """Return what happened, the newest first."""
    query = "SELECT kind, words, address, at FROM security_event ORDER BY event DESC LIMIT %(most)s"
    return fetch_all(conn, SecurityEvent, query, {"most": most})
