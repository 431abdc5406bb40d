"""A whole job as one JSON document, the schema that describes it, and reading it back.

A child that reads one file brings in what is here and no more: nothing judges a hole here.
"""

from dataclasses import dataclass, fields, replace
from datetime import datetime
from typing import Any, Literal

from pydantic import TypeAdapter, ValidationError

from vallostasis.core.records.cards_chosen import CardChosen
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import CardVersion
from vallostasis.core.records.spec_card import SpecCard
from vallostasis.core.tape.fact_kinds import EVENTFUL
from vallostasis.documents.job_file_before import with_marks_of_stages
from vallostasis.documents.not_read import NotRead

FORMAT: Literal["vallostasis job"] = "vallostasis job"
FORMAT_VERSION: Literal[2] = 2
SCHEMA_ID = "urn:vallostasis:job:2"


class NotAJobFile(NotRead):
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
    """What was chosen on the way, with the cards that were chosen."""

    cards_chosen: tuple[CardChosen, ...]
    cards: tuple[CardOnFile, ...]


@dataclass(frozen=True, slots=True)
class JobFile:
    """Everything recorded about a job, and how it was judged when the file was written."""

    format: Literal["vallostasis job"]
    format_version: Literal[1, 2]
    written_at: datetime
    facts: JobFacts
    history: JobHistory
    judged: tuple[JudgedHole, ...]
    # Head of the chain over all of it; files written before there was one have none.
    head: str = ""


_ADAPTER = TypeAdapter(JobFile)


def job_file(
    facts: JobFacts, judged: tuple[JudgedHole, ...], cards: tuple[CardOnFile, ...], written_at: datetime, head: str
) -> bytes:
    """Write a job as JSON; exact lengths are decimal strings in µm, events are counted from 1."""
    facts = with_events(facts, {number: place for place, number in enumerate(event_numbers(facts), start=1)})
    history = JobHistory(facts.cards_chosen, cards)
    # What gauges showed on the shop's masters, what runs taught and the shelf belong to the shop and not to the job;
    # the cards chosen are its history.
    facts = replace(facts, master_readings=(), cards_chosen=(), lessons=(), shelf=())
    return _ADAPTER.dump_json(JobFile(FORMAT, FORMAT_VERSION, written_at, facts, history, judged, head), indent=1)


def read_job_file(content: bytes) -> JobFile:
    """Read a job file; raise NotAJobFile naming the first place that is wrong."""
    try:
        return _ADAPTER.validate_json(with_marks_of_stages(content))
    except ValidationError as error:
        first = error.errors()[0]
        place = ".".join(str(part) for part in first["loc"]) or "the beginning"
        raise NotAJobFile(f"This is no job file: at {place}, {first['msg']}.") from None


def facts_on_file(file: JobFile) -> JobFacts:
    """Return everything recorded about the job of a file, its history among it."""
    return replace(file.facts, cards_chosen=file.history.cards_chosen)


def event_numbers(facts: JobFacts) -> list[int]:
    """Return the number of every event of a job, in order."""
    return sorted({row.event for rows in EVENTFUL for row in getattr(facts, rows)})


def with_events(facts: JobFacts, numbers: dict[int, int]) -> JobFacts:
    """Give every event another number, also where a row names that of another one."""
    parts: dict[str, Any] = {
        rows: tuple(_renumbered(row, numbers) for row in getattr(facts, rows)) for rows in EVENTFUL
    }
    return replace(facts, **parts)


def _renumbered(row: Any, numbers: dict[int, int]) -> Any:  # noqa: ANN401
    named = [field.name for field in fields(row) if field.name.endswith("_event") and getattr(row, field.name)]
    others = {name: numbers.get(getattr(row, name)) for name in named}
    return replace(row, event=numbers[row.event], **others)


def job_file_schema() -> dict[str, Any]:
    """Return the JSON Schema of a job file."""
    schema = _ADAPTER.json_schema(mode="serialization")
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "$id": SCHEMA_ID,
        "title": "A job of Vallostasis: everything recorded, and how it was judged when written",
        **schema,
    }
