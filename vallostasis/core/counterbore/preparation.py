"""A block made ready to be cut: what was done to its deck, and plugs that went in and have to come out again."""

import re
from collections import defaultdict
from dataclasses import dataclass
from datetime import datetime

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.preparation import PrepKind, PrepStep
from vallostasis.core.records.route_marks import MarkKind, Operation

# Where plugs go before chips are made. Common practice, no published source.
PLUG_PLACES = ("bores", "oil holes", "journals")
# What a deck may be worked with by hand. Common practice, no published source.
DECK_TOOLS = ("scraper and solvent", "flat stone", "flat sanding block")
NOT_TOLD = "place not told"
_POWERED = re.compile(
    r"grind|\bdisc\b|\bdisk\b|flap|rotary|power(ed)? (tool|brush|sander)|wheel|orbital", re.IGNORECASE
)
NO_POWER_TOOL = (
    "No power tool on a deck: a disc takes it hollow between the bolts, takes off the marks that grip the gasket, and "
    "throws grit into the oil. Scrape it by hand with solvent, finish it with a flat stone."
)


@dataclass(frozen=True, slots=True)
class PlugsAt:
    """Plugs of one place: how many went in, and how many came out again."""

    place: str
    went_in: int
    came_out: int


@dataclass(frozen=True, slots=True)
class Preparation:
    """What was done to make a block ready; a count is None where nobody wrote it down."""

    scraped: int
    tools: tuple[str, ...]
    bolt_holes: int | None
    dowels: int | None
    plugs: tuple[PlugsAt, ...]
    steps: tuple[PrepStep, ...]

    @property
    def uncleaned(self) -> tuple[str, ...]:
        """What of cleaning the deck is not written down."""
        missing = [
            ("the deck is not scraped", self.scraped == 0),
            ("bolt holes are not chased", self.bolt_holes is None),
            ("nothing said of the dowels", self.dowels is None),
        ]
        return tuple(words for words, is_missing in missing if is_missing)

    @property
    def unplugged(self) -> tuple[str, ...]:
        """Places of which nobody said how many plugs went in."""
        told = {one.place for one in self.plugs}
        return () if NOT_TOLD in told else tuple(place for place in PLUG_PLACES if place not in told)

    @property
    def still_in(self) -> tuple[PlugsAt, ...]:
        """Places whose plugs in and out differ; by their sum where one side was counted without its place."""
        if not any(one.place == NOT_TOLD for one in self.plugs):
            return tuple(one for one in self.plugs if one.went_in != one.came_out)
        total = PlugsAt("in all", sum(one.went_in for one in self.plugs), sum(one.came_out for one in self.plugs))
        return () if total.went_in == total.came_out else (total,)

    @property
    def plugs_missing(self) -> str:
        """What differs between plugs in and out, in words; empty where nothing does."""
        return ", ".join(f"{one.place}: {one.went_in} plugs went in, {one.came_out} came out" for one in self.still_in)

    def newest(self, *kinds: PrepKind) -> tuple[datetime | None, str]:
        """When the newest step of those kinds was noted, and by whom."""
        own = [step for step in self.steps if step.kind in kinds]
        return (own[-1].noted_at, own[-1].noted_by) if own else (None, "")


@once
def preparation_of(facts: JobFacts) -> Preparation:
    """Return what was written down of making a block ready.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.

    Returns
    -------
    Preparation
        Counts are sums over the steps; a plug count that was given with the mark of an operation has no place.

    Notes
    -----
    What went in must come out, place by place: common practice, no published source.
    """
    steps = facts.standing(facts.prep_steps)

    def total(kind: PrepKind) -> int | None:
        own = [step.count for step in steps if step.kind is kind]
        return sum(own) if own else None

    went_in: dict[str, int] = defaultdict(int)
    came_out: dict[str, int] = defaultdict(int)
    for step in steps:
        if step.kind in (PrepKind.PLUGS_IN, PrepKind.PLUGS_OUT):
            (went_in if step.kind is PrepKind.PLUGS_IN else came_out)[step.place] += step.count
    for operation, counted in ((Operation.PLUG, went_in), (Operation.WASH, came_out)):
        mark = _counted_mark(facts, operation)
        if mark is not None:
            counted[NOT_TOLD] += mark
    places = [*PLUG_PLACES, *sorted((set(went_in) | set(came_out)) - set(PLUG_PLACES))]
    plugs = tuple(PlugsAt(one, went_in[one], came_out[one]) for one in places if one in went_in or one in came_out)
    scraped = [step for step in steps if step.kind is PrepKind.SCRAPED]
    return Preparation(
        scraped=sum(step.count for step in scraped),
        tools=tuple(dict.fromkeys(step.place for step in scraped)),
        bolt_holes=total(PrepKind.BOLT_HOLES),
        dowels=total(PrepKind.DOWELS),
        plugs=plugs,
        steps=steps,
    )


def _counted_mark(facts: JobFacts, operation: Operation) -> int | None:
    """Plugs counted with the newest mark of an operation; None where none were, or they were counted by place."""
    marks = [
        one
        for one in facts.standing(facts.operation_marks)
        if one.operation is operation and one.kind is MarkKind.DONE and one.count is not None
    ]
    return marks[-1].count if marks else None


def refuse_power_tool(tool: str) -> None:
    """Refuse a power tool on a deck.

    Raises
    ------
    OutOfDomain
        If what is named is one.

    By its name; common practice, no published source.
    """
    if _POWERED.search(tool):
        raise OutOfDomain(NO_POWER_TOOL, "place")
