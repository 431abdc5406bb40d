"""The chain over everything recorded about a job: each entry's digest holds all that was recorded before it.

Entry 0 is the job with its holes; every later entry is what one event recorded, in order, with what it names for the
first time of what has no event of its own: liners, shims, gauges, masters, cards. An entry is one canonical JSON text,
and its link is SHA-256 over the link before and that text. So a head that is kept outside, such as on a printed proof,
tells whether anything before it was changed, taken out or put in; what holds both can be made anew by whoever owns
the machine, and tells nothing.

References
----------
.. [1] FIPS 180-4, Secure Hash Standard: SHA-256.
.. [2] RFC 8259, JSON; canonical here: keys in order of their code points, no space, decimals as plain strings without
   closing noughts, moments in UTC, fields at their defaults left out, house rule.
"""

import hashlib
import json
from collections.abc import Iterable, Mapping
from dataclasses import MISSING, Field, dataclass, fields, is_dataclass
from datetime import UTC, date, datetime
from decimal import Decimal
from enum import Enum
from typing import Any
from uuid import UUID

from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.tape.fact_kinds import EVENTFUL, FACT_KINDS

# Whether a photo came with the job is no matter of the record: its digest is.
_LEFT_OUT = frozenset(("event", "photo_here"))
_BEFORE_THE_FIRST = "0" * 64
WITHOUT_EVENT = tuple(kind.rows for kind in FACT_KINDS if kind.rows not in EVENTFUL and kind.rows != "holes")


@dataclass(frozen=True, slots=True)
class Link:
    """One entry of the chain: its number counted from 0, its event (0 for the job itself), its digest in hex."""

    entry: int
    event: int
    sha256: str


def links_of(facts: JobFacts, shared: Mapping[UUID, Any]) -> tuple[Link, ...]:
    """Chain everything recorded about a job.

    Parameters
    ----------
    facts : JobFacts
        The job.
    shared : mapping of UUID to row
        Gauge, master and card versions by id: what they say is chained where they are first named.

    Returns
    -------
    tuple of Link
        One for the job itself and one for each event, oldest first. The sums are those of [1]_ over texts as in [2]_.
    """
    rows = sorted(
        ((row.event, kind, row) for kind in EVENTFUL for row in getattr(facts, kind)), key=lambda one: (one[0], one[1])
    )
    places = {event: place for place, event in enumerate(sorted({event for event, _, _ in rows}), start=1)}
    unnamed = _without_event(facts) | {key: [("shared", row)] for key, row in shared.items()}
    head = _linked(_BEFORE_THE_FIRST, {"job": _plain(facts.job), "holes": [_plain(one) for one in facts.holes]})
    links = [Link(0, 0, head)]
    for event, kind, row in rows:
        body = {"kind": kind, "row": _plain(row, places), "with": _named_first(row, unnamed)}
        head = _linked(head, body)
        links.append(Link(len(links), event, head))
    return tuple(links)


def _without_event(facts: JobFacts) -> dict[UUID, list[tuple[str, Any]]]:
    """Rows without an event, by the id they begin with: they are chained with the first row that names it."""
    kept: dict[UUID, list[tuple[str, Any]]] = {}
    for kind in WITHOUT_EVENT:
        for row in getattr(facts, kind):
            kept.setdefault(getattr(row, fields(row)[0].name), []).append((kind, row))
    return kept


def _named_first(row: Any, unnamed: dict[UUID, list[tuple[str, Any]]]) -> list[Any]:  # noqa: ANN401
    found = []
    for field in fields(row):
        value = getattr(row, field.name)
        if isinstance(value, UUID):
            found += [{"kind": kind, "row": _plain(one)} for kind, one in unnamed.pop(value, ())]
    return found


def _linked(before: str, body: Mapping[str, Any]) -> str:
    return hashlib.sha256(f"{before}\n{canonical(body)}".encode()).hexdigest()


def canonical(body: Any) -> str:  # noqa: ANN401
    """Write plain values as the one JSON text they have; [2]_."""
    return json.dumps(body, ensure_ascii=False, sort_keys=True, separators=(",", ":"), allow_nan=False)


def _plain(value: Any, places: Mapping[int, int] | None = None) -> Any:  # noqa: ANN401
    """What JSON holds of a value; an event that is named stands by its place among those of the job."""
    if is_dataclass(value):
        return {
            field.name: _place(getattr(value, field.name), places)
            if field.name.endswith("_event")
            else _plain(getattr(value, field.name), places)
            for field in fields(value)
            if field.name not in _LEFT_OUT and not _says_nothing(field, getattr(value, field.name))
        }
    if isinstance(value, Enum):
        return value.value
    if isinstance(value, Decimal):
        return f"{value.normalize():f}" if value else "0"
    if isinstance(value, datetime):
        return value.astimezone(UTC).isoformat()
    if isinstance(value, UUID | date):
        return str(value)
    if isinstance(value, tuple | list | frozenset | set):
        return [_plain(one, places) for one in _in_order(value)]
    if isinstance(value, Mapping):
        return {str(_plain(key)): _plain(one, places) for key, one in value.items()}
    return value


def _says_nothing(field: Field[Any], value: Any) -> bool:  # noqa: ANN401
    """What stands at its default is left out: a field that a later version adds changes no link of before."""
    default = field.default_factory() if field.default_factory is not MISSING else field.default
    return default is not MISSING and bool(value == default)


def _place(event: int | None, places: Mapping[int, int] | None) -> int | None:
    return None if event is None else (places or {}).get(event, 0)


def _in_order(values: Iterable[Any]) -> list[Any]:
    return sorted(values, key=str) if isinstance(values, frozenset | set) else list(values)


def first_difference(kept: Iterable[str], now: Iterable[Link]) -> int | None:
    """Return the first entry whose link is not the one that was kept; None where all that was kept still stands.

    By definition of a chain; an entry that is there no more differs too.
    """
    links = tuple(now)
    for entry, sha256 in enumerate(kept):
        if entry >= len(links) or links[entry].sha256 != sha256:
            return entry
    return None
