"""What can be done about a hole that stands too low, side by side: every hole afterwards, and what moves with it.

References
----------
.. [1] JCGM 101:2008, Supplement 1 to the GUM: what holes share is drawn once for all of them.
.. [2] JCGM 100:2008 (GUM), 5.1.2: a height afterwards is what was read and what comes off or on.
"""

from dataclasses import dataclass, replace
from enum import StrEnum
from math import ceil

from vallostasis.core.block_plans.of_job import plans_of_block
from vallostasis.core.block_plans.plan import HOURS_A_PASS, PlanRule
from vallostasis.core.counterbore.cut_plan import CutParts, SeatLimits
from vallostasis.core.counterbore.cutter_in_hand import cutter_trust
from vallostasis.core.counterbore.dependents import DependentAfter, compression_after, dependents_of
from vallostasis.core.counterbore.hole_plan import cut_parts, present_liner, seat_limits
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.fits.fit import worst_state
from vallostasis.core.matching.of_job import BlockMatching, MatchWishes, chances_of, matching_of
from vallostasis.core.matching.ways import PROTRUSION, doubt_about
from vallostasis.core.notation.lengths import both_small, micrometres
from vallostasis.core.options.heights import Height, OtherLand, height_of, lifted_standing, other_lands
from vallostasis.core.protrusion.measured import rule_book
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.prices import PriceKind, PriceList
from vallostasis.core.records.rows import Hole, Quantity
from vallostasis.core.records.spec_card import CONSTRUCTIONS_WITH_LEDGE
from vallostasis.core.surveys.places import protrusion_limits
from vallostasis.core.uncertainty.budget import (
    Shape,
    Source,
    Stated,
    estimate,
    stated,
    weighted,
)
from vallostasis.core.uncertainty.decision import State, decide, state_of
from vallostasis.core.uncertainty.half_widths import rectangular

# What a surfacer's feed repeats within, as a standard deviation. House rule. [m]
FEED_M = 5e-6
# A skim is set in whole steps of that. House rule. [m]
SKIM_STEP_M = 10e-6
# A ring is let in that deep. Common practice, no published source. [m]
RING_M = 7e-3
# From that chance on an option counts as sure enough to be told by its cost. House rule. [1]
SURE = 0.9


class OptionKind(StrEnum):
    """What can be done. Common practice, no published source."""

    LEAVE = "leave it"
    EXCHANGE = "exchange liners"
    CUT = "cut and shim"
    RING = "let a ring in"
    SKIM = "skim the deck"
    BLOCK = "another block"


# What can never be taken back. Common practice, no published source.
FINAL = {
    OptionKind.LEAVE: "nothing, but the head comes off again if it weeps",
    OptionKind.EXCHANGE: "nothing: they go back the way they came",
    OptionKind.CUT: "the ledge stays cut; a ring is still possible",
    OptionKind.RING: "the old ledge is gone, no second ring",
    OptionKind.SKIM: "the deck: every hole, piston and injector moves for good",
    OptionKind.BLOCK: "this block is given up",
}


@dataclass(frozen=True, slots=True)
class HoleThen:
    """A hole afterwards: its height, what that is called, the chance that it is in; no state before it is read."""

    hole: int
    value: Stated
    state: State | None
    chance: float
    least_m: float
    greatest_m: float


@dataclass(frozen=True, slots=True)
class Cost:
    """Hours, money beside the hours, days of waiting, and all of it in money; None while a price is not known."""

    hours: float
    parts: float | None
    days: float
    money: float | None


@dataclass(frozen=True, slots=True)
class Option:
    """One thing that can be done: every hole, what moves with it, what it costs, what can never be taken back. [m]

    ``why_not`` says why it cannot be done or told, then ``holes`` is empty; ``chance`` is that all holes are in.
    """

    kind: OptionKind
    detail: str
    why_not: str
    holes: tuple[HoleThen, ...]
    chance: float | None
    dependents: tuple[DependentAfter, ...]
    compression: tuple[float, float] | None
    spent_m: float
    skim_m: float
    cost: Cost
    final: str

    @property
    def keeps(self) -> bool:
        """Whether piston, injector and valve keep to their limits, as far as they are known."""
        return all(one.keeps is not False for one in self.dependents[1:])

    @property
    def out(self) -> int:
        """How many holes are proven outside."""
        return sum(one.state is State.OUT for one in self.holes)

    @property
    def unsure(self) -> int:
        """How many holes cannot be told."""
        return sum(one.state is State.CANNOT_TELL for one in self.holes)


@dataclass(frozen=True, slots=True)
class SunkHole:
    """A hole with everything that can be done about it; ``hold`` is why nothing final may be done yet."""

    hole: int
    land: str
    other_lands: tuple[OtherLand, ...]
    hold: str
    options: tuple[Option, ...]
    suggested: OptionKind | None


def options_for(facts: JobFacts, hole: Hole, prices: PriceList) -> SunkHole | str:
    """Lay side by side what can be done about a hole.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    hole : Hole
        The hole that stands too low.
    prices : PriceList
        Hours, money and days of the shop.

    Returns
    -------
    SunkHole or str
        Or why nothing can be told. Everything stands on the land of the card, where the gasket bears: a deck skimmed, a
        ledge cut for what was read over a lip cannot be undone. [m] House rule.
    """
    card = facts.card
    if card.construction not in CONSTRUCTIONS_WITH_LEDGE:
        return f"A {card.construction.value} has no ledge under a top flange: nothing can sink."
    limits = protrusion_limits(card, with_shim=False)
    if limits.least_m is None or limits.greatest_m is None:
        return "Write the limits of the protrusion without shim on the card first."
    heights = {one.number: height for one in facts.holes if (height := height_of(facts, one)) is not None}
    if hole.number not in heights:
        return f"Read the protrusion of hole {hole.number}, or its ledge and its flange, first."
    setup = facts.present_setup(Quantity.PROTRUSION)
    if setup is not None and setup.land != card.measuring.land:
        return (
            f"The holes are read over the {setup.land}; the card judges the {card.measuring.land}. "
            "Read them there first: what is cut for the wrong land is cut for good."
        )
    hold = doubt_about(facts, hole, card.measuring.land)
    made = _Making(facts, hole, heights, prices, hold)
    options = (made.leave(), made.exchange(), made.cut(), made.ring(), made.skim(), made.block())
    return SunkHole(hole.number, card.measuring.land, other_lands(facts, hole, heights[hole.number]), hold, options,
                    _suggested(options))  # fmt: skip


def _suggested(options: tuple[Option, ...]) -> OptionKind | None:
    """The cheapest of those that are sure enough and keep to every limit, else the surest. House rule."""
    told = [one for one in options if not one.why_not and one.chance is not None]
    sure = [one for one in told if (one.chance or 0.0) >= SURE and one.keeps]
    if sure:
        best = min(sure, key=lambda one: (one.cost.money is None, one.cost.money or 0.0, one.cost.hours, one.cost.days))
        return best.kind
    keeping = [one for one in told if one.keeps] or told
    return max(keeping, key=lambda one: one.chance or 0.0).kind if keeping else None


class _Making:
    """Makes one option after the other from the heights as they are."""

    def __init__(self, facts: JobFacts, hole: Hole, heights: dict[int, Height], prices: PriceList, hold: str) -> None:
        self.facts, self.hole, self.heights, self.prices, self.hold = facts, hole, heights, prices, hold
        self.book, self.card = rule_book(facts.card), facts.card

    def leave(self) -> Option:
        """Nothing is done."""
        return self._option(OptionKind.LEAVE, "as it was read", list(self.heights.values()), self._cost())

    def exchange(self) -> Option:
        """The best arrangement of the liners without a cut."""
        found = matching_of(self.facts, MatchWishes(cuts=False))
        if isinstance(found, str):
            return self._not(OptionKind.EXCHANGE, found)
        if found.table.of != PROTRUSION or self.hole.number not in {one.hole for one in found.holes}:
            return self._not(OptionKind.EXCHANGE, "This hole is left out of the exchange: its parts do not add up.")
        if not found.moves:
            return self._not(OptionKind.EXCHANGE, "No exchange makes it better.")
        heights = {**self.heights, **self._exchanged(found)}
        moved = sum(one.to_hole is not None for one in found.moves)
        return self._option(OptionKind.EXCHANGE, f"{moved} liners moved", list(heights.values()),
                            self._cost((PriceKind.REFIT, moved)))  # fmt: skip

    def _exchanged(self, found: BlockMatching) -> dict[int, Height]:
        ways = ((one, next(way for way in one.ways if way.liner == one.then)) for one in found.holes
                if one.then != one.now)  # fmt: skip
        return {one.hole: Height(one.hole, way.estimate, way.least_m, way.greatest_m) for one, way in ways}

    def cut(self) -> Option:
        """The best plan of the block: holes cut for shims. Common practice, as ``plan_block``."""
        if self.hold:
            return self._not(OptionKind.CUT, self.hold)
        plans = plans_of_block(self.facts)
        plan = plans.by(PlanRule.BEST)
        if plan is None:
            return self._not(OptionKind.CUT, plans.why_not)
        cuts = [one for one in plan.holes if one.choice.cut is not None]
        if self.hole.number not in {one.hole.hole for one in cuts}:
            return self._not(OptionKind.CUT, "The plan of the block does not cut this hole.")
        limits, heights = seat_limits(self.card), dict(self.heights)
        for one in cuts:
            assert one.choice.cut is not None
            heights[one.hole.hole] = Height(one.hole.hole, one.choice.cut.by_stop_estimate, limits.least_m,
                                            limits.greatest_m)  # fmt: skip
        # A shim that the card prices is in the price of the plan already.
        ordered = sum(one.to_order for one in plan.shims)
        unpriced = sum(one.to_order for one in plan.shims if one.price == 0)
        cost = self._cost((PriceKind.REFIT, len(cuts)), (PriceKind.CUT, len(cuts)), (PriceKind.SHIM, unpriced),
                          more_hours=plan.passes * HOURS_A_PASS, parts=plan.price / 100)  # fmt: skip
        waits = float(self.prices.of(PriceKind.SHIM).days) if ordered else 0.0
        cost = replace(cost, days=max(cost.days, waits))
        numbers = ", ".join(str(one.hole.hole) for one in cuts)
        return self._option(
            OptionKind.CUT, f"holes {numbers}", list(heights.values()), cost, spent_m=plan.ledge_spent_m
        )

    def ring(self) -> Option:
        """A ring under each hole that is not in, its ledge cut so that it stands in the middle. [m] Common practice."""
        if self.hold:
            return self._not(OptionKind.RING, self.hold)
        try:
            limits = seat_limits(self.card)
        except OutOfDomain as missing:
            return self._not(OptionKind.RING, str(missing))
        plain = protrusion_limits(self.card, with_shim=False)
        assert plain.least_m is not None
        assert plain.greatest_m is not None
        window = SeatLimits(plain.least_m, plain.greatest_m, (plain.least_m + plain.greatest_m) / 2, limits.cleanup_m)
        low = [one for one in self.facts.holes if one.number in self.heights and self._is_low(self.heights[one.number])]
        if not low:
            return self._not(OptionKind.RING, "No hole is too low for a ring to help.")
        heights = dict(self.heights)
        for hole in low:
            parts = cut_parts(self.facts, hole, present_liner(self.facts, hole))
            if not isinstance(parts, CutParts):
                return self._not(OptionKind.RING, parts)
            heights[hole.number] = self._on_a_ring(hole, parts, window)
        numbers = ", ".join(str(one.number) for one in low)
        cost = self._cost((PriceKind.RING, len(low)), (PriceKind.REFIT, len(low)))
        return self._option(OptionKind.RING, f"holes {numbers}", list(heights.values()), cost,
                            spent_m=RING_M * len(low))  # fmt: skip

    def _on_a_ring(self, hole: Hole, parts: CutParts, window: SeatLimits) -> Height:
        """What a ledge faced into a ring gives: no shim in the stack, the stop and the gauge behind its depth. [m]

        GUM [2]_ of the module; the ring is faced from its own top, so that no graduation is counted.
        """
        depth = parts.flange_m - parts.between_m - window.target_m
        stop = Source("stop of the cutter", rectangular(cutter_trust(self.facts).stop_accuracy_m),
                      shape=Shape.RECTANGULAR, basis="card of the cutter", error=("ring", hole.number))  # fmt: skip
        ledge = weighted(((1.0, estimate(depth, (stop,))), (1.0, replace(parts.after, value_m=0.0))))
        between = ((-1.0, one.estimate) for one in parts.between)
        found = weighted(((1.0, parts.flange.estimate), (-1.0, ledge), *between))
        return Height(hole.number, found, window.least_m, window.greatest_m)

    def skim(self) -> Option:
        """The deck taken down until the lowest hole is proven in; every other one comes up alike. [m] Geometry; GUM."""
        if self.hold:
            return self._not(OptionKind.SKIM, self.hold)
        feed = Source("feed of the surfacer", FEED_M, basis="house rule", error="skim")
        lifted = {number: weighted(((1.0, one.estimate), (1.0, estimate(0.0, (feed,)))))
                  for number, one in self.heights.items()}  # fmt: skip
        short = [one.least_m + u.expanded_m - u.value_m for number, one in self.heights.items()
                 if (u := stated("skimmed", lifted[number], self.card.coverage_factor)) is not None]  # fmt: skip
        skim = max(0.0, ceil(max(short) / SKIM_STEP_M - 1e-9) * SKIM_STEP_M)
        if skim == 0.0:
            return self._not(OptionKind.SKIM, "No hole is too low for a skim to help.")
        heights = [replace(one, estimate=replace(lifted[number], value_m=lifted[number].value_m + skim),
                           standing=lifted_standing(one.standing, skim, self.card.acceptance))
                   for number, one in self.heights.items()]  # fmt: skip
        return self._option(OptionKind.SKIM, f"{both_small(micrometres(skim))} off", heights,
                            self._cost((PriceKind.SKIM, 1)), skim_m=skim)  # fmt: skip

    def block(self) -> Option:
        """Another block: nothing is known of its ledges before they are read."""
        option = self._not(OptionKind.BLOCK, "Nothing is known of its ledges until they are read.")
        return replace(option, cost=self._cost((PriceKind.BLOCK, 1)))

    def _is_low(self, height: Height) -> bool:
        value = stated("as it is", height.estimate, self.card.coverage_factor)
        return value.value_m < height.least_m + value.expanded_m

    def _cost(self, *items: tuple[PriceKind, int], more_hours: float = 0.0, parts: float = 0.0) -> Cost:
        """Hours, money and days of several things; waiting is side by side, so the longest counts. By hand."""
        used = [(self.prices.of(kind), count) for kind, count in items if count]
        hours = sum(float(price.hours) * count for price, count in used) + more_hours
        known: float | None = parts
        for price, count in used:
            known = None if known is None or price.money is None else known + float(price.money) * count
        rate = self.prices.of(PriceKind.HOUR).money
        money = None if known is None or (rate is None and hours > 0) else known + hours * float(rate or 0)
        return Cost(hours, known, max((float(price.days) for price, _ in used), default=0.0), money)

    def _not(self, kind: OptionKind, why: str) -> Option:
        return Option(kind, "", why, (), None, (), None, 0.0, 0.0, Cost(0.0, None, 0.0, None), FINAL[kind])

    def _option(
        self, kind: OptionKind, detail: str, heights: list[Height], cost: Cost, *, spent_m: float = 0.0,
        skim_m: float = 0.0,
    ) -> Option:  # fmt: skip
        heights = sorted(heights, key=lambda one: one.hole)
        chances, chance = chances_of(
            [one.hole for one in heights], [one.estimate for one in heights],
            {one.hole: (one.least_m, one.greatest_m) for one in heights}, self.book,
        )  # fmt: skip
        holes = tuple(self._then(one, own) for one, own in zip(heights, chances, strict=True))
        return Option(kind, detail, "", holes, chance, dependents_of(self.card, skim_m),
                      compression_after(self.card, skim_m), spent_m, skim_m, cost, FINAL[kind])  # fmt: skip

    def _then(self, one: Height, chance: float) -> HoleThen:
        value = stated(f"hole {one.hole} afterwards", one.estimate, self.card.coverage_factor)
        centre = decide(value.value_m, value.expanded_m, one.least_m, one.greatest_m, self.card.acceptance).state
        state = None if one.standing is None else worst_state([centre, state_of(one.standing)[0]])
        return HoleThen(one.hole, value, state, chance, one.least_m, one.greatest_m)
