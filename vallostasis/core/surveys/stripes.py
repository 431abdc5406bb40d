"""Stripes that a stone left: a bore with them is not round yet, whatever two diameters say."""

from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import Finding, FindingKind
from vallostasis.core.records.rows import Hole

# What is left where the stone has not been. Common practice, no published source.
STRIPES = ("stripe left", "dark area")


def newest_round(facts: JobFacts, hole: Hole) -> tuple[Finding, ...]:
    """Return what was drawn on the wall of a hole after the newest round of work that anything was drawn after.

    House rule: rounds follow each other in the order in which they were written down.
    """
    drawn = [
        one
        for one in facts.standing(facts.findings)
        if one.kind is FindingKind.WALL and one.hole_id == hole.hole_id and one.in_round
    ]
    return tuple(one for one in drawn if one.in_round == drawn[-1].in_round) if drawn else ()


def stripes_left(facts: JobFacts, number: int | None) -> str:
    """Say that stripes remain at a hole that nobody accepted by name since; empty where none do. Common practice."""
    hole = None if number is None else facts.hole_numbered(number)
    if hole is None:
        return ""
    left = [one for one in newest_round(facts, hole) if one.word in STRIPES]
    if not left:
        return ""
    accepted = [one for one in facts.standing(facts.bore_decisions) if one.hole_id == hole.hole_id and one.concession]
    if accepted and accepted[-1].event > left[-1].event:
        return ""
    return f"stripes remain after {left[-1].in_round}: it is not round yet, or it takes a concession by name"
