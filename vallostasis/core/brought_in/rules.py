"""What a job's file must keep to before it is taken. House rule: nothing comes in by a file that nobody can type.

The ranges are common practice, no published source; that nothing is colder than -273.15 °C is by definition.
"""

from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import fields, is_dataclass
from datetime import date, datetime, timedelta
from decimal import Decimal
from typing import Any
from uuid import UUID

from vallostasis.core.errors import CoreError
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.tape.fact_kinds import EVENTFUL, FACT_KINDS

LARGEST_NUMBER = Decimal(10) ** 9
LONGEST_TEXT = 2_000
# What the levels of a scan or of probed points hold, written out.
LONGEST_PROFILE = 600_000
# A clock that runs ahead in another shop is no lie; a day is.
AHEAD = timedelta(days=1)
EARLIEST_YEAR = 1970
MOST_HOLES = 64
DIGEST_CHARACTERS = 64
# Ranges by what the name of a field ends in; what may be typed into such a field lies in between.
_RANGES: tuple[tuple[str, float, float], ...] = (
    ("part_temp_c", -60, 300),
    # Liners go into nitrogen at -196 °C.
    ("_c", -273.15, 1_000),
    ("celsius", -273.15, 1_000),
    ("hour", 0, 12),
    ("_deg", -360, 360),
    ("_nm", 0, 5_000),
    ("_kn", 0, 5_000),
    ("_kg", 0, 100_000),
    ("_um", -10_000_000, 10_000_000),
    ("strokes", 0, 100_000),
    ("grit", 0, 10_000),
    ("_grit", 0, 10_000),
    ("minutes", 0, 100_000),
    ("count", 0, 100_000),
    ("version", 0, 1_000_000),
    ("photo_bytes", 0, 100_000_000),
    ("tax_percent", 0, 100),
    ("humidity", 0, 100),
)
# Sizes and steps that are nothing, or less than nothing, are no gauge's.
_ABOVE_NOTHING = ("resolution_um",)
_NOT_BELOW_NOTHING = ("repeatability_um", "reproducibility_um", "standard_um", "tip_radius_um", "points", "place")


class Contradicts(CoreError):
    """A file says what nobody can have typed, or what it contradicts itself elsewhere; the text says where."""


def refuse_what_nobody_typed(part: Any, path: str = "") -> None:  # noqa: ANN401
    """Raise Contradicts at the first text or number of a file that nobody can have typed. House rule."""
    name = path.rpartition(".")[2]
    if isinstance(part, bool) or part is None:
        return
    if isinstance(part, str):
        _refuse_text(part, path)
    elif isinstance(part, Decimal | float | int):
        _refuse_number(Decimal(part), name, path)
    elif is_dataclass(part):
        for field in fields(part):
            refuse_what_nobody_typed(getattr(part, field.name), f"{path}.{field.name}".lstrip("."))
    elif isinstance(part, tuple):
        for place, one in enumerate(part):
            refuse_what_nobody_typed(one, f"{path}.{place}")


def _refuse_text(text: str, path: str) -> None:
    longest = LONGEST_PROFILE if path.endswith(".profile") else LONGEST_TEXT
    if len(text) > longest or any(not (one.isprintable() or one in "\n\t\xa0") for one in text if ord(one) < 160):
        raise Contradicts(f"{path} is longer than any text here, or holds a character that cannot be kept.")


def _refuse_number(number: Decimal, name: str, path: str) -> None:
    if not (number.is_finite() and abs(number) < LARGEST_NUMBER):
        raise Contradicts(f"{path} is no number that can be measured.")
    if name in _ABOVE_NOTHING and number <= 0:
        raise Contradicts(f"{path} must be above 0, it is {number}.")
    if name in _NOT_BELOW_NOTHING and number < 0:
        raise Contradicts(f"{path} must not be below 0, it is {number}.")
    for end, least, greatest in _RANGES:
        if name.endswith(end) and not least <= number <= greatest:
            raise Contradicts(f"{path} lies between {least:g} and {greatest:g}, it is {number}.")


def refuse_what_contradicts_itself(facts: JobFacts, now: datetime) -> None:
    """Raise Contradicts where rows of a job name what it does not hold, or stand in no order. House rule."""
    _refuse_foreign_rows(facts)
    _refuse_disorder(facts)
    _refuse_times(facts, now)
    _refuse_holes(facts)
    _refuse_versions("gauge", ((one.gauge_id, one.version) for one in facts.gauge_versions))
    _refuse_versions("setting master", ((one.setting_master_id, one.version) for one in facts.masters))


# Rows begin with an id of their own, but for these, which begin with the row that they belong to.
BEGIN_WITH_ANOTHER = frozenset((
    "cards_chosen", "fitting_shims", "fitting_outs", "strikes", "corrections", "unreadables", "wait_ends",
    "waits_moved", "estimate_lines", "estimate_answers", "order_moves", "experiment_results",
))  # fmt: skip
_OF_SHOP = {
    "gauge_id": "gauge_versions",
    "gauge_version_id": "gauge_versions",
    "setting_master_version_id": "masters",
}
_ALSO_CALLED = {"because_cut_id": "cut_id", "because_fitting_id": "fitting_id", "after_cut_id": "cut_id",
                "corrects": "setup_id"}  # fmt: skip


def _own_ids() -> list[tuple[str, str]]:
    """Return the name of the id that each kind of row begins with where it is its own, and the kind."""
    first = {kind.rows: fields(kind.row_type)[0].name for kind in FACT_KINDS if kind.rows not in BEGIN_WITH_ANOTHER}
    return [(name, rows) for rows, name in first.items() if name.endswith("_id")]


def _named(facts: JobFacts) -> Iterator[tuple[str, str, UUID]]:
    """Every id that a row names: of which kind of row, as what, and the id."""
    for kind in FACT_KINDS:
        for row in getattr(facts, kind.rows):
            for field in fields(row):
                value = getattr(row, field.name)
                if isinstance(value, UUID):
                    yield kind.rows, _ALSO_CALLED.get(field.name, field.name), value


def _refuse_foreign_rows(facts: JobFacts) -> None:
    """A row that names one of another job would write into that job."""
    held: dict[str, set[UUID]] = {}
    for name, rows in (*_own_ids(), *_OF_SHOP.items()):
        held.setdefault(name, set()).update(getattr(row, name) for row in getattr(facts, rows))
    own = set(_own_ids())
    for rows, name, value in _named(facts):
        if name in held and (name, rows) not in own and value not in held[name]:
            raise Contradicts(f"{rows} name a {name.removesuffix('_id').replace('_', ' ')} that is not in the file.")


def _refuse_disorder(facts: JobFacts) -> None:
    events = Counter(row.event for rows in EVENTFUL for row in getattr(facts, rows))
    twice = next((event for event, count in events.items() if count > 1), None)
    if twice is not None:
        raise Contradicts(f"Two rows are both event {twice}.")
    if any(event < 1 for event in events):
        raise Contradicts("Events are counted from 1.")
    for rows in EVENTFUL:
        for row in getattr(facts, rows):
            for field in fields(row):
                named = getattr(row, field.name) if field.name.endswith("_event") else None
                if named is not None and (named not in events or named > row.event):
                    raise Contradicts(f"{rows} at event {row.event} rest on event {named}, which is no earlier one.")


def _refuse_times(facts: JobFacts, now: datetime) -> None:
    for rows in EVENTFUL:
        for row in getattr(facts, rows):
            for field in fields(row):
                value = getattr(row, field.name)
                if isinstance(value, datetime) and field.name.endswith("_at"):
                    _refuse_time(value, now, f"{rows}.{field.name}")
                elif isinstance(value, date) and not isinstance(value, datetime) and value.year < EARLIEST_YEAR:
                    raise Contradicts(f"{rows}.{field.name} is {value}: no such day is written down here.")


# A moment that is still to come may be pinned; everything else was.
_TO_COME = ("starts_at",)


def _refuse_time(value: datetime, now: datetime, path: str) -> None:
    if value.tzinfo is None:
        raise Contradicts(f"{path} does not say in which time zone it is.")
    if value.year < EARLIEST_YEAR or (value > now + AHEAD and not path.endswith(_TO_COME)):
        raise Contradicts(f"{path} is {value:%Y-%m-%d %H:%M}: that is no time at which it can have been recorded.")


def _refuse_holes(facts: JobFacts) -> None:
    numbers = [hole.number for hole in facts.holes]
    if not numbers or len(numbers) > MOST_HOLES or sorted(numbers) != sorted(set(numbers)) or min(numbers) < 1:
        raise Contradicts(f"A block has from 1 to {MOST_HOLES} holes, each with a number of its own.")


def _refuse_versions(what: str, versions: Iterable[tuple[UUID, int]]) -> None:
    counted = Counter(versions)
    if any(count > 1 for count in counted.values()) or any(version < 1 for _, version in counted):
        raise Contradicts(f"Versions of a {what} are counted from 1, each once.")


def refuse_photo_names(digests: Iterable[str]) -> None:
    """Raise Contradicts where a photo is named by anything but the SHA-256 of its bytes. House rule."""
    for digest in digests:
        if digest and (len(digest) != DIGEST_CHARACTERS or set(digest) - set("0123456789abcdef")):
            raise Contradicts("A photo is named by no digest.")
