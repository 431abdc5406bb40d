"""A whole job as one JSON document, the schema that describes it, and reading it back."""

from dataclasses import dataclass, replace
from datetime import datetime
from typing import Any, Literal

from pydantic import TypeAdapter, ValidationError

from vallostasis.core.hole_now import HoleNow, hole_now
from vallostasis.core.job_facts import JobFacts
from vallostasis.core.job_marks import CardChosen, StageMark
from vallostasis.core.records import CardVersion, Strike, ZeroCorrection
from vallostasis.core.spec_card import SpecCard

FORMAT: Literal["vallostasis job"] = "vallostasis job"
FORMAT_VERSION: Literal[1] = 1
SCHEMA_ID = "urn:vallostasis:job:1"
# Parts of the facts whose rows carry an event number.
EVENTFUL = ("fittings", "fitting_outs", "cuts", "setups", "sets", "readings", "strikes", "corrections", "unreadables",
            "notes", "zero_checks", "temperatures", "stamps")  # fmt: skip


class NotAJobFile(Exception):
    """The file is no job file; the text says where and why."""


@dataclass(frozen=True, slots=True)
class JudgedHole:
    """State of a hole when the file was written. [m]"""

    hole: int
    state: str
    reason: str
    mean_m: float | None
    mean_expanded_m: float | None
    variation_m: float | None


@dataclass(frozen=True, slots=True)
class CardOnFile:
    """A card version that judged the job at some time."""

    version: CardVersion
    card: SpecCard


@dataclass(frozen=True, slots=True)
class JobHistory:
    """What was marked and chosen on the way, with the cards that were chosen."""

    stage_marks: tuple[StageMark, ...]
    cards_chosen: tuple[CardChosen, ...]
    cards: tuple[CardOnFile, ...]


@dataclass(frozen=True, slots=True)
class JobFile:
    """Everything recorded about a job, and how it was judged when the file was written."""

    format: Literal["vallostasis job"]
    format_version: Literal[1]
    written_at: datetime
    facts: JobFacts
    history: JobHistory
    judged: tuple[JudgedHole, ...]


_ADAPTER = TypeAdapter(JobFile)


def job_file(facts: JobFacts, history: JobHistory, written_at: datetime) -> bytes:
    """Write a job as JSON; exact lengths are decimal strings in µm, events are counted from 1."""
    judged = tuple(_judged(hole_now(facts, hole)) for hole in facts.holes)
    numbers = sorted(event_numbers(facts, history))
    places = {number: place for place, number in enumerate(numbers, start=1)}
    facts, history = with_events(facts, history, places)
    # What gauges showed on the shop's masters belongs to the shop, not to the job; marks and choices are its history.
    facts = replace(facts, master_readings=(), stage_marks=(), cards_chosen=())
    return _ADAPTER.dump_json(JobFile(FORMAT, FORMAT_VERSION, written_at, facts, history, judged), indent=1)


def _judged(now: HoleNow) -> JudgedHole:
    return JudgedHole(
        now.hole.number,
        now.state.value,
        now.reason,
        None if now.mean is None else now.mean.value_m,
        None if now.mean is None else now.mean.expanded_m,
        None if now.variation is None else now.variation.value_m,
    )


def read_job_file(content: bytes) -> JobFile:
    """Read a job file; raise NotAJobFile naming the first place that is wrong."""
    try:
        return _ADAPTER.validate_json(content)
    except ValidationError as error:
        first = error.errors()[0]
        place = ".".join(str(part) for part in first["loc"]) or "the beginning"
        raise NotAJobFile(f"This is no job file: at {place}, {first['msg']}.") from None


def event_numbers(facts: JobFacts, history: JobHistory) -> set[int]:
    """Return the number of every event of a job."""
    rows = [row for part in EVENTFUL for row in getattr(facts, part)]
    return {row.event for row in (*rows, *history.stage_marks, *history.cards_chosen)}


def with_events(facts: JobFacts, history: JobHistory, numbers: dict[int, int]) -> tuple[JobFacts, JobHistory]:
    """Give every event another number."""

    def renumbered(rows: tuple[Any, ...]) -> tuple[Any, ...]:
        return tuple(replace(row, event=numbers[row.event]) for row in rows)

    # A correction that follows from a look at the zero names two other events; they keep their places.
    facts = replace(facts, corrections=tuple(_between(row, numbers) for row in facts.corrections))
    facts = replace(facts, strikes=tuple(_of_event(row, numbers) for row in facts.strikes))
    parts: dict[str, Any] = {part: renumbered(getattr(facts, part)) for part in EVENTFUL}
    return (
        replace(facts, **parts),
        replace(
            history,
            stage_marks=renumbered(history.stage_marks),
            cards_chosen=renumbered(history.cards_chosen),
        ),
    )


def _of_event(strike: Strike, numbers: dict[int, int]) -> Strike:
    """A strike that names what it strikes by its event."""
    return strike if strike.of_event is None else replace(strike, of_event=numbers.get(strike.of_event))


def _between(correction: ZeroCorrection, numbers: dict[int, int]) -> ZeroCorrection:
    if correction.after_event is None or correction.until_event is None:
        return correction
    after, until = numbers.get(correction.after_event), numbers.get(correction.until_event)
    return replace(correction, after_event=after, until_event=until)


def job_file_schema() -> dict[str, Any]:
    """Return the JSON Schema of a job file."""
    schema = _ADAPTER.json_schema(mode="serialization")
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "$id": SCHEMA_ID,
        "title": "A job of Vallostasis: everything recorded, and how it was judged when written",
        **schema,
    }
