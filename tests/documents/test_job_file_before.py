"""Job files of version 1 are still taken in: their marks of stages become marks of operations."""

import json
from typing import Any

import pytest
from pydantic import TypeAdapter

from tests.core.facts import Story
from vallostasis.core.records.route_marks import MarkKind, Operation
from vallostasis.documents.job_file import FORMAT, JobFile, JobHistory, NotAJobFile, facts_on_file, read_job_file
from vallostasis.documents.job_file_before import with_marks_of_stages

STAGES = ("Take in", "Strip & measure", "Decide", "Prepare", "Counterbore", "Fit", "Prove", "Finish")
WHEN = "2026-01-02T03:04:00Z"


def _old_file() -> dict[str, Any]:
    """A file as it was written before: stages in the facts, their marks in the history."""
    story = Story(holes=1)
    story.fit(1, story.liner("L1"))
    new = JobFile(FORMAT, 2, story.now, story.facts(), JobHistory((), ()), ())
    file: dict[str, Any] = json.loads(TypeAdapter(JobFile).dump_json(new))
    ids = [f"00000000-0000-0000-0000-{number:012d}" for number in range(len(STAGES))]
    file["format_version"] = 1
    file["facts"]["stages"] = [
        {"stage_id": one, "place": place, "name": name, "planned_hours": "1", "done": False}
        for place, (one, name) in enumerate(zip(ids, STAGES, strict=True))
    ]
    marks = [(0, True, 901), (1, True, 902), (3, True, 903), (3, False, 904), (4, True, 905), (7, True, 906)]
    file["history"]["stage_marks"] = [
        {"stage_id": ids[place], "done": done, "marked_at": WHEN, "marked_by": "Ines", "event": event}
        for place, done, event in marks
    ]
    del file["facts"]["operation_marks"]
    return file


def test_marks_that_leave_no_other_trace_are_carried_over() -> None:
    facts = facts_on_file(read_job_file(json.dumps(_old_file()).encode()))
    assert [(mark.operation, mark.kind, mark.event, mark.marked_by) for mark in facts.operation_marks] == [
        (Operation.STRIP, MarkKind.DONE, 902, "Ines"),
        (Operation.CLEAN, MarkKind.DONE, 903, "Ines"),
        (Operation.CLEAN, MarkKind.AGAIN, 904, "Ines"),
        (Operation.RELEASE, MarkKind.DONE, 906, "Ines"),
    ]
    assert len(facts.fittings) == 1


@pytest.mark.parametrize("broken", [b'{"stage_marks"', b'{"stage_marks": 3}', b'["stage_marks"]'])
def test_what_is_no_job_file_is_refused_as_before(broken: bytes) -> None:
    assert with_marks_of_stages(broken) == broken
    with pytest.raises(NotAJobFile, match="no job file"):
        read_job_file(broken)


def test_a_mark_of_a_stage_that_is_not_there_is_refused() -> None:
    file = _old_file()
    file["facts"]["stages"] = file["facts"]["stages"][:2]
    content = json.dumps(file).encode()
    assert with_marks_of_stages(content) == content
