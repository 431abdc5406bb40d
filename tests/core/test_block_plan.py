"""The plan of a block, against brute force over every way to leave or cut each hole, and against drawn cuts."""

from dataclasses import replace
from itertools import product

import numpy as np
import pytest

from tests.deep import DEEP
from vallostasis.core.block_plans.chance import chance_of
from vallostasis.core.block_plans.plan import PlanRule, cutting_order, hours_of, plan_block
from vallostasis.core.block_plans.problem import (
    BlockProblem,
    BlockRules,
    Choice,
    HoleToPlan,
    LockKind,
    ShimStock,
    choices_of,
    neighbours_of,
)
from vallostasis.core.block_plans.solver import solve_best, solve_given, solve_one_depth
from vallostasis.core.counterbore.cut_plan import CutParts, CutterTrust, SeatLimits, landed
from vallostasis.core.protrusion.stack import stack_part
from vallostasis.core.records.spec_card import Acceptance
from vallostasis.core.uncertainty.budget import Source, estimate, exactly, value_of
from vallostasis.core.uncertainty.decision import State

UM = 1e-6
MM = 1e-3
LIMITS = SeatLimits(75 * UM, 125 * UM, 100 * UM, 25 * UM, 9.6 * MM)
CUTTER = CutterTrust(20 * UM, 10 * UM, 0.02)


def hole(
    number: int,
    depth_um: float = 8_850,
    flange_um: float = 8_900,
    state: State | None = None,
    *,
    tilt_um: float = 6,
    own_um: float = 2,
    zero: str = "zero",
    **more: object,
) -> HoleToPlan:
    """A hole whose ledge is read at four positions, each with an error of its own and the zero of its gauge."""

    def read(um: float, at: object) -> object:
        sources = (Source("own", own_um * UM, error=("own", number, at)), Source("zero", UM, error=("zero", zero)))
        return estimate(um * UM, sources)

    depths = tuple(read(depth_um + tilt_um * turn, at) for at, turn in enumerate((-1, 0, 1, 0)))
    now = flange_um - depth_um
    state = state or (State.IN if 54 <= now <= 121 else State.OUT)
    parts = CutParts(depths, stack_part(f"flange {number}", flange_um * UM, UM), (), 0.0, read(0, "after"))  # type: ignore[arg-type]
    return HoleToPlan(
        number, exactly(now * UM, 2 * UM, f"now {number}"), state, f"{now} µm", parts, "", 100 * UM, **more
    )  # type: ignore[arg-type]


def block(holes: list[HoleToPlan], shims: tuple[ShimStock, ...], **more: object) -> BlockProblem:
    rules = {"heads": (tuple(one.hole for one in holes),), "limits": LIMITS, "neighbour_m": 50 * UM}
    own = {name: more.pop(name) for name in list(more) if name in BlockRules.__dataclass_fields__}
    return BlockProblem(tuple(holes), shims, BlockRules(**{**rules, **own}), CUTTER, **more)  # type: ignore[arg-type]


SHIMS = (ShimStock(0.1 * MM, 2, 300), ShimStock(0.2 * MM, 2, 350), ShimStock(0.5 * MM, 1, 500))


def _open_of(problem: BlockProblem, ways: tuple[Choice, ...]) -> list[bool]:
    """Whether each hole stays open, written out again from the rules of the card."""
    k = problem.rules.coverage_factor
    found = [way.open for way in ways]
    place = {one.hole: at for at, one in enumerate(problem.holes)}

    def spread(one: Choice, other: Choice) -> float:
        assert one.protrusion is not None
        assert other.protrusion is not None
        names = set(one.protrusion.errors) | set(other.protrusion.errors)
        total = 0.0
        for name in names:
            a, b = one.protrusion.errors.get(name), other.protrusion.errors.get(name)
            size = (a or b)[0].contribution_m  # type: ignore[index]
            total += (size * ((a[1] if a else 0.0) - (b[1] if b else 0.0))) ** 2
        return k * total**0.5

    for first, second in neighbours_of(problem.rules.heads):
        one, other = ways[place[first]], ways[place[second]]
        if problem.rules.neighbour_m is None or one.protrusion is None or other.protrusion is None:
            continue
        apart = abs(value_of(one.protrusion) - value_of(other.protrusion))
        if apart > problem.rules.neighbour_m - spread(one, other) + 1e-12:
            found[place[first]] = found[place[second]] = True
    return found


def _brute_force(problem: BlockProblem) -> tuple[int, ...]:
    best = None
    for ways in product(*(choices_of(problem, one) for one in problem.holes)):
        used = [way.shim for way in ways if way.shim is not None]
        short = [max(0, used.count(at) - shim.stock) for at, shim in enumerate(problem.shims)]
        if sum(short) and not problem.may_order:
            continue
        cuts = sum(way.cut is not None for way in ways)
        spent, price = sum(way.spent_nm for way in ways), sum(problem.shims[at].price for at in used)
        ordered = (sum(short),) if problem.may_order else ()
        locked = (sum(way.unwanted for way in ways),) if any(
            way.unwanted for one in problem.holes for way in choices_of(problem, one)) else ()  # fmt: skip
        value = (*locked, sum(_open_of(problem, ways)), cuts, *ordered, spent, len(set(used)), price)
        best = value if best is None or value < best else best
    assert best is not None
    return best


def _random_block(rng: np.random.Generator) -> BlockProblem:
    count = int(rng.integers(2, 5))
    holes = []
    for number in range(1, count + 1):
        lock = LockKind(rng.choice([one.value for one in LockKind], p=[0.8, 0.1, 0.1]))
        holes.append(hole(number, float(rng.integers(8_780, 8_900)), float(rng.integers(8_890, 8_912)),
                          tilt_um=float(rng.integers(0, 12)), lock=lock))  # fmt: skip
    sizes = rng.choice([0.1, 0.15, 0.2, 0.25, 0.3, 0.5], size=int(rng.integers(1, 4)), replace=False)
    shims = tuple(ShimStock(float(size) * MM, int(rng.integers(0, 3)), int(rng.integers(100, 600))) for size in sizes)
    heads = (tuple(range(1, count + 1)),) if rng.random() < 0.6 else ((1,), tuple(range(2, count + 1)))
    return block(holes, shims, heads=heads, neighbour_m=float(rng.integers(15, 60)) * UM,
                 may_order=bool(rng.random() < 0.5))  # fmt: skip


@pytest.mark.parametrize("seed", range(10 if DEEP else 3))
def test_the_best_plan_equals_brute_force(seed: int) -> None:
    """Fifty small blocks a seed: five hundred in a deep run."""
    rng = np.random.default_rng(seed)
    for _ in range(50):
        problem = _random_block(rng)
        solved = solve_best(problem)
        assert solved.proven_best
        assert tuple(aim.value for aim in solved.aims) == _brute_force(problem)
        assert list(solved.open) == _open_of(problem, solved.choices)


def test_the_average_under_a_head_can_ask_for_a_cut_of_a_hole_that_is_in() -> None:
    holes = [hole(1, 8_840, state=State.IN), hole(2, 8_838, state=State.IN)]
    without = solve_best(block(holes, SHIMS))
    assert [way.cut is None for way in without.choices] == [True, True]
    asked = solve_best(block(holes, SHIMS, head_least_m=75 * UM))
    assert sum(way.cut is not None for way in asked.choices) == 1
    assert not any(asked.open)
    too_much = solve_best(block(holes, (), head_least_m=75 * UM))
    assert too_much.open == (True, True)


def test_simple_acceptance_needs_no_guard() -> None:
    near = replace(hole(1, 8_870), target_m=124.9 * UM)
    assert solve_best(block([near], SHIMS)).open == (True,)
    assert solve_best(block([near], SHIMS, acceptance=Acceptance.SIMPLE)).open == (False,)


class TestRules:
    HOLES = (hole(1), hole(2, 8_846), hole(3, 8_862), hole(4, 8_838, state=State.CANNOT_TELL))

    def _plan(self, rule: PlanRule, **more: bool):  # type: ignore[no-untyped-def]
        return plan_block(block(list(self.HOLES), SHIMS, may_order=True), rule, frozenset({3}), **more)

    def test_only_those_outside(self) -> None:
        plan = self._plan(PlanRule.ONLY_OUTSIDE)
        assert plan.order == (1, 3)
        cut = {one.hole.hole for one in plan.holes if one.choice.cut is not None}
        assert cut == {one.hole for one in self.HOLES if one.state is State.OUT}
        assert 4 in {one.hole.hole for one in plan.open_holes}
        also = self._plan(PlanRule.ONLY_OUTSIDE, undecided_too=True)
        assert 4 not in {one.hole.hole for one in also.open_holes}

    def test_all_to_one_depth_is_one_depth(self) -> None:
        plan = self._plan(PlanRule.ONE_DEPTH)
        depths = {one.choice.cut.depth_m for one in plan.holes if one.choice.cut is not None}
        assert len(depths) == 1
        assert plan.depth_m in depths
        assert len(plan.holes) == 4
        for one in plan.holes:
            cut = one.choice.cut
            assert cut is not None
            assert min(cut.cuts_m) >= LIMITS.cleanup_m - 1e-12
            # f + s − D, flanges of 8.900 all: every hole stands alike.
            assert cut.by_gauge.value_m == pytest.approx(8.9 * MM + cut.shim_m - cut.depth_m)
        assert plan.greatest_apart_m == pytest.approx(0, abs=1e-12)

    def test_one_depth_lies_midway_between_what_unequal_flanges_ask_for(self) -> None:
        """By hand: flanges 8.890 and 8.910, one shim; the depth in the middle leaves 90 and 110 µm."""
        holes = [hole(1, flange_um=8_890), hole(2, flange_um=8_910)]
        solved, depth = solve_one_depth(block(holes, (ShimStock(0.2 * MM, 5),)))
        assert depth == pytest.approx(9.0 * MM, abs=1e-9)
        stands = [way.cut.by_gauge.value_m for way in solved.choices if way.cut is not None]
        assert stands == pytest.approx([90 * UM, 110 * UM], abs=1e-9)

    def test_shims_beyond_the_shelf_are_ordered_or_stay_open(self) -> None:
        holes = [hole(number) for number in (1, 2)]
        shims = (ShimStock(0.1 * MM, 1),)
        assert sorted(solve_best(block(holes, shims, neighbour_m=None)).open) == [False, True]
        plan = plan_block(block(holes, shims, may_order=True), PlanRule.BEST)
        assert [(use.count, use.to_order) for use in plan.shims] == [(2, 1)]
        assert plan.open_holes == ()

    def test_a_locked_hole_a_locked_shim_and_a_target_are_kept(self) -> None:
        holes = [hole(1, lock=LockKind.LEAVE), hole(2, lock_shim_m=0.5 * MM), replace(hole(3), target_m=90 * UM)]
        plan = plan_block(block(holes, SHIMS, may_order=True, neighbour_m=None), PlanRule.BEST)
        first, second, third = plan.holes
        assert first.choice.cut is None
        assert first.why_open.startswith("left as it was decided")
        assert second.choice.cut is not None
        assert second.choice.cut.shim_m == 0.5 * MM
        assert third.choice.cut is not None
        assert third.choice.cut.protrusion_m == pytest.approx(90 * UM)

    def test_a_hole_that_cannot_be_cut_says_why(self) -> None:
        unmeasured = replace(hole(1), parts=None, why_not="The flange is not measured.")
        plan = plan_block(block([unmeasured], SHIMS), PlanRule.ONE_DEPTH)
        assert plan.holes[0].choice.cut is None
        assert plan.holes[0].why_open.endswith("It cannot be cut: The flange is not measured.")
        assert solve_given(block([unmeasured], SHIMS), [True]).choices[0].cut is None

    def test_neighbours_that_cannot_be_told_name_each_other(self) -> None:
        holes = [hole(1, 8_785, state=State.IN), hole(2, 8_850, lock=LockKind.LEAVE, state=State.IN)]
        plan = plan_block(block(holes, ()), PlanRule.BEST)
        assert [one.why_open for one in plan.holes] == [
            "the difference to hole 2 is too much, or too near to tell",
            "the difference to hole 1 is too much, or too near to tell",
        ]

    def test_the_first_to_be_cut_has_room_and_a_setting_is_kept(self) -> None:
        """Common practice: room for the handle first, then holes of one setting together, then the worst."""
        holes = [hole(1, 8_870), hole(2, 8_850), hole(3, 8_852), hole(4, 8_860, flange_um=8_905)]
        problem = block(holes, (ShimStock(0.2 * MM, 9),), neighbour_m=None)
        solved = solve_given(problem, [True] * 4)
        assert cutting_order(holes, solved.choices, frozenset()) == (2, 3, 1, 4)
        assert cutting_order(holes, solved.choices, frozenset({2})) == (3, 1, 4, 2)

    def test_hours_and_passes_add_up(self) -> None:
        plan = self._plan(PlanRule.ONLY_OUTSIDE)
        whole = [one.passes for one in plan.holes if one.passes is not None]
        assert plan.passes == sum(one.whole + (1 if one.rest_um else 0) for one in whole)
        assert hours_of(plan) == pytest.approx(len(whole) * 0.6 + plan.passes / 60)


class TestChance:
    def test_holes_that_share_nothing_have_the_product(self) -> None:
        holes = [replace(hole(1, zero="a"), target_m=100 * UM), replace(hole(2, 8_861, zero="b"), target_m=101 * UM)]
        problem = replace(block(holes, SHIMS, neighbour_m=None), cutter=CutterTrust(20 * UM, 32 * UM, 0.0))
        solved = solve_given(problem, [True, True])
        chance = chance_of(problem, solved.choices)
        assert chance.error < 0.005
        one, other = chance.holes.values()
        assert chance.all_inside == pytest.approx(one * other, abs=4 * chance.error)
        assert 0.5 < one < 0.999

    def test_one_setting_moves_all_holes_together(self) -> None:
        """With nothing but one stop between them, two holes are in or out together."""
        holes = [hole(1, own_um=0.001), hole(2, own_um=0.001)]
        problem = replace(
            block(holes, (ShimStock(0.2 * MM, 9),), neighbour_m=None), cutter=CutterTrust(20 * UM, 40 * UM, 0.0)
        )
        chance = chance_of(problem, solve_given(problem, [True, True]).choices)
        assert chance.all_inside == pytest.approx(min(chance.holes.values()), abs=0.02)
        assert chance.all_inside > chance.holes[1] * chance.holes[2] + 0.05

    @pytest.mark.parametrize(
        "own",
        [{"neighbour_m": 12 * UM}, {"head_least_m": 100 * UM}, {"head_greatest_m": 96 * UM}, {"neighbour_m": 25 * UM}],
    )
    def test_neighbours_and_the_average_of_a_head_count_for_all(self, own: dict[str, float]) -> None:
        """Two holes drawn from their causes, 10 µm apart as planned: they are inside sooner than all is well."""
        rng = np.random.default_rng(3)
        holes = [replace(hole(1, zero="a"), target_m=93 * UM), replace(hole(2, 8_861, zero="b"), target_m=103 * UM)]
        planned = replace(block(holes, SHIMS, neighbour_m=None), cutter=CutterTrust(20 * UM, 20 * UM, 0.0))
        choices = solve_given(planned, [True, True]).choices
        chance = chance_of(replace(planned, rules=replace(planned.rules, **own)), choices)
        draws = 20_000
        true = []
        for one, way in zip(holes, choices, strict=True):
            assert one.parts is not None
            assert way.cut is not None
            # The zero of its gauge, what the gauge read at the high spot, the flange, and the stop of this setting.
            off = rng.normal(0, UM, draws) + rng.normal(0, 2 * UM, draws) + rng.normal(0, UM, draws)
            depth = way.cut.depth_m + off + rng.uniform(-20 * UM, 20 * UM, draws)
            true.append(one.parts.flange_m + way.cut.shim_m - depth)
        inside = [(one >= LIMITS.least_m) & (one <= LIMITS.greatest_m) for one in true]
        average = (true[0] + true[1]) / 2
        kept = (
            (np.abs(true[0] - true[1]) <= own.get("neighbour_m", np.inf))
            & (average >= own.get("head_least_m", -np.inf))
            & (average <= own.get("head_greatest_m", np.inf))
        )
        hits = np.mean(inside[0] & inside[1] & kept)
        assert hits == pytest.approx(chance.all_inside, abs=0.02)
        assert hits < np.mean(inside[0] & inside[1]) - 0.1

    @pytest.mark.parametrize("rule", list(PlanRule))
    def test_ten_thousand_drawn_cuts_land_inside_as_often_as_is_said(self, rule: PlanRule) -> None:
        """Cuts drawn from their causes: gauges, one zero, stop, screw; not from the plan's own estimates."""
        rng = np.random.default_rng(7)
        cutter = CutterTrust(20 * UM, 20 * UM, 0.04)
        holes = [hole(1), hole(2, 8_861), hole(3, 8_858, state=State.OUT)]
        problem = replace(block(holes, SHIMS, may_order=True), cutter=cutter)
        plan = plan_block(problem, rule)
        draws = 10_000
        zero, screw = rng.normal(0, UM, draws), rng.uniform(-0.04, 0.04, draws)
        stops: dict[int, np.ndarray] = {}
        true: dict[int, np.ndarray] = {}
        for one in plan.holes:
            cut, parts = one.choice.cut, one.hole.parts
            if cut is None or parts is None:
                true[one.hole.hole] = value_of(one.hole.now) + rng.normal(0, 2 * UM, draws)  # type: ignore[arg-type]
                continue
            # The cutter touches the highest spot; what the gauge read there was off by its zero and its own error.
            off_there = zero + rng.normal(0, 2 * UM, draws)
            setting = stops.setdefault(round(cut.depth_m * 1e9), rng.uniform(-20 * UM, 20 * UM, draws))
            depth = cut.depth_m + off_there + setting + screw * cut.from_touch_off_m
            true[one.hole.hole] = parts.flange_m + rng.normal(0, UM, draws) + cut.shim_m - depth
        inside = {one.hole.hole: (true[one.hole.hole] >= LIMITS.least_m) & (true[one.hole.hole] <= LIMITS.greatest_m)
                  for one in plan.holes if one.choice.cut is not None}  # fmt: skip
        for number, hits in inside.items():
            assert np.mean(hits) == pytest.approx(plan.chance.holes[number], abs=0.02)
        every = np.logical_and.reduce([*inside.values(), np.abs(true[1] - true[2]) <= 50 * UM,
                                       np.abs(true[2] - true[3]) <= 50 * UM])  # fmt: skip
        assert np.mean(every) == pytest.approx(plan.chance.all_inside, abs=0.02)

    def test_the_stated_plus_minus_by_the_stop_covers(self) -> None:
        """95 ± 2 % of drawn protrusions lie within the stated ± (k = 2), for a stop that is drawn evenly."""
        rng = np.random.default_rng(11)
        cutter = CutterTrust(20 * UM, 15 * UM, 0.03)
        problem = replace(block([hole(1)], SHIMS), cutter=cutter)
        (way,) = solve_given(problem, [True]).choices
        assert way.cut is not None
        cut = landed(way.cut, LIMITS, 2.0)
        n = 20_000
        reads = rng.normal(0, 2 * UM, (n, 4)) + rng.normal(0, UM, (n, 1))
        depths = np.array([8_844, 8_850, 8_856, 8_850]) * UM
        highest = np.argmin(depths + reads, axis=1)
        # Planned from what was read, cut from the spot that is really highest.
        setting = cut.depth_m - (depths + reads)[np.arange(n), highest]
        depth = depths.min() + setting * (1 + rng.uniform(-0.03, 0.03, n)) + rng.uniform(-15 * UM, 15 * UM, n)
        stands = 8_900 * UM + rng.normal(0, UM, n) + cut.shim_m - depth
        covered = np.mean(np.abs(stands - cut.by_stop.value_m) <= cut.by_stop.expanded_m)
        assert 0.93 <= covered <= 0.97
