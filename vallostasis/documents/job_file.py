"""A whole job as one JSON document, and the schema that describes it."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any, Literal

from pydantic import TypeAdapter

from vallostasis.core.job_facts import JobFacts
from vallostasis.core.protrusion.rules import BlockJudgement

FORMAT: Literal["vallostasis job"] = "vallostasis job"
FORMAT_VERSION: Literal[1] = 1
SCHEMA_ID = "urn:vallostasis:job:1"


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
class JobFile:
    """Everything recorded about a job, and how it was judged when the file was written."""

    format: Literal["vallostasis job"]
    format_version: Literal[1]
    written_at: datetime
    facts: JobFacts
    judged: tuple[JudgedHole, ...]


_ADAPTER = TypeAdapter(JobFile)


def job_file(facts: JobFacts, judgement: BlockJudgement, written_at: datetime) -> bytes:
    """Write a job as JSON; exact lengths are decimal strings in µm."""
    judged = tuple(
        JudgedHole(hole.hole, hole.state.value, hole.reason, hole.mean_m, hole.mean_expanded_m, hole.variation_m)
        for hole in judgement.holes
    )
    return _ADAPTER.dump_json(JobFile(FORMAT, FORMAT_VERSION, written_at, facts, judged), indent=1)


def job_file_schema() -> dict[str, Any]:
    """Return the JSON Schema of a job file."""
    schema = _ADAPTER.json_schema(mode="serialization")
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "$id": SCHEMA_ID,
        "title": "A job of Vallostasis: everything recorded, and how it was judged when written",
        **schema,
    }
