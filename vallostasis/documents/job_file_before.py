"""Job files of version 1: marks on the fixed stages of that time become marks of the operations they were."""

import json
from typing import Any

from vallostasis.core.records.route_marks import MarkKind, Operation

# What leaves no other trace; the other stages are told by readings, cuts and fittings.
OPERATION_OF_STAGE = {
    "Strip & measure": Operation.STRIP,
    "Decide": Operation.DECIDE,
    "Prepare": Operation.CLEAN,
    "Finish": Operation.RELEASE,
}


def with_marks_of_stages(content: bytes) -> bytes:
    """Return a job file with its marks of stages as marks of operations; any other as it is."""
    if b'"stage_marks"' not in content:
        return content
    try:
        file = json.loads(content)
        stages = {one["stage_id"]: one["name"] for one in file["facts"]["stages"]}
        marks = [_mark(one, stages[one["stage_id"]]) for one in file["history"]["stage_marks"]]
    except (ValueError, LookupError, TypeError):
        # What is no such file is told so where it is read.
        return content
    file["facts"]["operation_marks"] = [one for one in marks if one is not None]
    return json.dumps(file).encode()


def _mark(mark: dict[str, Any], stage: str) -> dict[str, Any] | None:
    operation = OPERATION_OF_STAGE.get(stage)
    if operation is None:
        return None
    return {
        "operation": operation,
        "hole_id": None,
        "kind": MarkKind.DONE if mark["done"] else MarkKind.AGAIN,
        "words": "",
        "count": None,
        "done_at": mark["marked_at"],
        "marked_at": mark["marked_at"],
        "marked_by": mark["marked_by"],
        "event": mark["event"],
    }
