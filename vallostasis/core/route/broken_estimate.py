"""What a finding does to an agreed estimate: work that costs more than was agreed waits until it is agreed anew."""

from vallostasis.core.records.bore_decisions import BoreDecision, LookOutcome
from vallostasis.core.records.estimates import Answered
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.route.shown import holes_words


def broken_by(facts: JobFacts) -> str:
    """Say what broke the estimate that was agreed last; empty where nothing did, or nothing was agreed.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.

    Returns
    -------
    str
        A bore that did not clean up since, or was decided otherwise since. Common practice, no published source.
    """
    agreed = [one for one in facts.standing(facts.estimate_answers) if one.answer is Answered.AGREED]
    if not agreed:
        return ""
    since = agreed[-1].event
    numbers = {hole.hole_id: hole.number for hole in facts.holes}
    dark = sorted({numbers[one.hole_id] for one in facts.standing(facts.bore_looks)
                   if one.event > since and one.outcome is LookOutcome.DARK})  # fmt: skip
    if dark:
        return f"{holes_words([str(one) for one in dark])} did not clean up since the estimate was agreed"
    other = sorted({numbers[one.hole_id] for one in facts.standing(facts.bore_decisions)
                    if one.event > since and _differs(facts, one, since)})  # fmt: skip
    if other:
        return f"{holes_words([str(one) for one in other])} decided otherwise since the estimate was agreed"
    return ""


def _differs(facts: JobFacts, decided: BoreDecision, since: int) -> bool:
    before = [one for one in facts.standing(facts.bore_decisions)
              if one.hole_id == decided.hole_id and one.event < since]  # fmt: skip
    return bool(before) and (before[-1].choice, before[-1].oversize_um) != (decided.choice, decided.oversize_um)
