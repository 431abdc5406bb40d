"""A programme of passes begins: probe and zero are looked at again. Common practice, no published source."""

from datetime import datetime, timedelta

from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import MarkKind, Operation
from vallostasis.core.records.rows import Hole

# After such a rest a machine has another temperature, and somebody may have touched the dial. House rule.
REST = timedelta(hours=4)


def zero_due(facts: JobFacts, hole: Hole, now: datetime) -> str:
    """Say why probe and zero are to be looked at again before the next pass; empty where somebody did.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    hole : Hole
        The hole that is bored next.
    now : datetime
        The time that a rest of the machine is counted to.

    Returns
    -------
    str
        A new setting of the bar, a pass of another hole and a rest of four hours each begin a programme. House rule
        on common practice: no published source.
    """
    looked = [
        one.done_at
        for one in facts.standing(facts.operation_marks)
        if one.operation is Operation.BORE and one.kind is MarkKind.ZERO_LOOKED and one.hole_id in (None, hole.hole_id)
    ]
    if not looked:
        return "nobody looked at probe and zero of the dial yet"
    last = max(looked)
    settings = [one.set_at for one in facts.standing(facts.bar_settings) if one.hole_id == hole.hole_id]
    passes = facts.standing(facts.boring_passes)
    if any(one > last for one in settings):
        return "the bar was set anew since probe and zero were looked at"
    if any(one.passed_at > last and one.hole_id != hole.hole_id for one in passes):
        return "another hole was bored since probe and zero were looked at"
    own = [one.passed_at for one in passes if one.hole_id == hole.hole_id]
    if now - max((last, *own)) > REST:
        return "the machine stood since: look at probe and zero again"
    return ""
