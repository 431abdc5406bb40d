"""Causes by hand: bounds, priors, the check that tells, what is never claimed; experiments that move the weights."""

from dataclasses import replace
from decimal import Decimal
from uuid import UUID, uuid4

import numpy as np
import pytest

from tests.core.facts import WHEN, Story
from tests.core.test_matching_jobs import wet
from vallostasis.core.causes.candidates import Candidate, Spot, height_candidates
from vallostasis.core.causes.cases import likeness, shape_as_text, shape_from_text, shape_of
from vallostasis.core.causes.experiments import as_of, hold_of, look_at, why_not_buy
from vallostasis.core.causes.next_check import checks_worth
from vallostasis.core.causes.of_job import AddsUp, heights_add_up
from vallostasis.core.causes.table import HEIGHTS, Cause, Check, CheckAt, Known, Pattern
from vallostasis.core.causes.weigh import Finding, Residuals, far_off, weigh
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.records.experiments import Experiment, ExperimentResult, Matter
from vallostasis.core.records.rows import Quantity
from vallostasis.core.uncertainty.budget import Source, estimate, weighted
from vallostasis.core.uncertainty.joint import joint_covariance

UM = 1e-6
NONE = Cause("none", "", Pattern.NONE, 0, 0, 0.5)


def residuals(
    *um: float, causes: tuple[Cause, ...] = HEIGHTS.causes, makes: str = "", u_um: float = 3.0,
    shims_um: tuple[float, ...] = (), spacers_um: tuple[float, ...] = (),
) -> Residuals:  # fmt: skip
    count = len(um)
    spots = [Spot(at + 1, -1 + 2 * at / max(count - 1, 1), None, makes[at] if makes else "",
                  (shims_um[at] if shims_um else 0) * UM) for at in range(count)]  # fmt: skip
    return Residuals(np.array(um) * UM, np.eye(count) * (u_um * UM) ** 2,
                     height_candidates(spots, causes, [one * UM for one in spacers_um]))  # fmt: skip


def test_a_share_of_weights_is_worked_out_by_hand_for_two_causes() -> None:
    """Two holes of u 3 that stand 6 and 6: scatter costs (4 + 4) / 2, one offset fits all and costs half ln 2.

    An offset that can be either way is met each way half as often: ln of the ratio is 4 − ½·ln 2 − ln 2.
    """
    both = Cause("all", "", Pattern.ALL, -1e-3, 1e-3, 0.5)
    found = weigh(residuals(6, 6, causes=(NONE, both)), (), ())
    assert [one.name for one in found] == ["all", "none"]
    ratio = np.exp(4 - 0.5 * np.log(2) - np.log(2))
    assert found[0].weight == pytest.approx(ratio / (1 + ratio), abs=1e-6)
    assert found[0].effects_m[0] == pytest.approx(6e-6)
    # GUM 4.2.3: the mean of two of u 3 has u 3/√2.
    assert found[0].u_m[0] == pytest.approx(3e-6 / np.sqrt(2))
    # An odd prior of 1 to 9 takes ln 9 off, one way only takes none.
    odd = replace(both, low_m=0.0, prior=0.5 / 9)
    ratio = np.exp(4 - 0.5 * np.log(2) - np.log(9))
    assert weigh(residuals(6, 6, causes=(NONE, odd)), (), ())[0].weight == pytest.approx(ratio / (1 + ratio), abs=1e-6)


def test_a_prior_is_shared_by_the_places_where_a_cause_could_be() -> None:
    one = Cause("one", "", Pattern.ONE, 0.0, 1e-3, 0.4)
    places = [each for each in residuals(0, 0, 9, 9, causes=(one,)).candidates]
    assert [each.prior for each in places] == pytest.approx([0.1] * 4)
    assert [each.where for each in places] == [(1,), (2,), (3,), (4,)]


def test_an_effect_keeps_to_what_its_cause_can_be() -> None:
    """A lip lifts by 20 to 300: 9 is no lip, and its fit stands at the bound."""
    lip = tuple(one for one in HEIGHTS.causes if one.name in ("lip under the indicator", "nothing but scatter"))
    found = {one.name: one for one in weigh(residuals(0, 0, 9, 9, causes=lip, makes="AABB"), (), ())}
    assert found["lip under the indicator"].effects_m == pytest.approx((20e-6,))
    assert found["nothing but scatter"].weight > 0.5


def test_the_make_is_named_where_all_of_it_is_low_and_the_hole_where_only_one_is() -> None:
    both = weigh(residuals(0, 1, -93, 2, -1, -91, makes="PPQPPQ"), (), HEIGHTS.checks)
    assert (both[0].causes, both[0].where) == (("lip under the micrometer",), ((3, 6),))
    assert both[0].effects_m[0] == pytest.approx(-92e-6, abs=1e-6)
    one = weigh(residuals(0, 1, 60, 2, -1, 1, makes="PPQPPQ"), (), HEIGHTS.checks)
    assert (one[0].causes, one[0].where) == (("burr, dirt or compound under the flange",), ((3,),))
    shim = weigh(residuals(0, 1, -100, 2, makes="PPPP", shims_um=(0, 0, 100, 0)), (), HEIGHTS.checks)
    assert "shim counted, not there" in {each for found in shim[:3] for each in found.causes}
    spacer = weigh(residuals(-251, -249, -250, -250, spacers_um=(250,)), (), HEIGHTS.checks)
    assert spacer[0].causes == ("spacer counted, not there",)


def round_the_clock(hole_um: float, lean_um: float, high_deg: float, holes: int = 4) -> Residuals:
    """Hole 2 of some stands up by so much and leans so much to a side, read at four positions. By hand."""
    spots, values = [], []
    for hole in range(1, holes + 1):
        for angle in (0.0, 90.0, 180.0, 270.0):
            spots.append(Spot(hole, -1 + 2 * (hole - 1) / (holes - 1), angle, "P"))
            off = hole_um + lean_um * np.cos(np.radians(angle - high_deg)) if hole == 2 else 0.0
            values.append(off * UM)
    return Residuals(np.array(values), np.eye(len(values)) * (2 * UM) ** 2, height_candidates(spots, HEIGHTS.causes))


def test_a_lean_is_told_from_a_lift_with_its_high_side() -> None:
    lean = weigh(round_the_clock(0, 30, 120), (), HEIGHTS.checks)
    assert {lean[0].causes[0], lean[1].causes[0]} == {"flange not square to its liner",
                                                      "ledge not square where it was not read"}  # fmt: skip
    assert lean[0].effects_m[0] == pytest.approx(30e-6, abs=1e-9)
    assert lean[0].high_sides_deg[0] == pytest.approx(120, abs=0.01)
    side = weigh(round_the_clock(25, 25, 270), (), HEIGHTS.checks)
    assert (side[0].causes, side[0].where) == (("dirt on one side under the flange",), ((2,),))
    assert side[0].high_sides_deg[0] == pytest.approx(270, abs=0.01)
    up = weigh(round_the_clock(40, 0, 0), (), HEIGHTS.checks)
    assert up[0].causes == ("burr, dirt or compound under the flange",)
    assert up[0].high_sides_deg == (None,)


def test_the_check_that_tells_most_a_minute_is_proposed_and_its_reading_moves_the_weights() -> None:
    """One cause in two, found by a check that is sure: a whole bit; the quick one before the thorough one."""
    causes = tuple(Cause(name, "", Pattern.ALL, 20 * UM, 100 * UM, 0.5) for name in "ab")
    slow = Check("slow", "", 40, "", CheckAt.BLOCK, (("a", 1.0),), 2 * UM)
    quick = Check("quick", "", 4, "", CheckAt.BLOCK, (("b", 0.5),), 2 * UM)
    found = weigh(residuals(50, 50, 50, causes=causes), (), (slow, quick))
    singles = [one for one in found if len(one.causes) == 1]
    assert [one.weight / sum(each.weight for each in singles) for one in singles] == pytest.approx([0.5, 0.5])
    worth = checks_worth(found, (slow, quick))
    assert [one.check.name for one in worth] == ["quick", "slow"]
    assert worth[0].bits > 0.5
    assert worth[0].bits_a_minute == pytest.approx(worth[0].bits / 4)
    # Two causes alike, and a check that is sure of one: a whole bit, no more (Shannon).
    even = [replace(one, weight=0.5) for one in singles]
    assert checks_worth(even, (slow,))[0].bits == pytest.approx(1.0, abs=1e-3)
    # One that reads no better than the effect is large leaves most of it open.
    vague = Check("vague", "", 4, "", CheckAt.BLOCK, (("a", 1.0),), 50 * UM)
    assert 0.05 < checks_worth(even, (vague,))[0].bits < 0.4
    # Half of the effect shows in it.
    assert worth[0].expected_m == pytest.approx(25e-6, abs=1e-6)
    after = weigh(residuals(50, 50, 50, causes=causes), (Finding("quick", (), 0.0),), (slow, quick))
    assert after[0].causes == ("a",)
    assert after[0].weight > 0.99
    done = (Finding("quick", (), 0.0), Finding("slow", (), 50e-6))
    assert checks_worth(after, (slow, quick), done) == ()


def test_how_surely_an_effect_is_known_counts_in_what_a_check_would_read() -> None:
    """GUM 5.1.2: an effect of u 3/√3 halved, and a check that reads within 2."""
    causes = (Cause("a", "", Pattern.ALL, 20 * UM, 100 * UM, 0.5), NONE)
    found = weigh(residuals(50, 50, 50, causes=causes), (), ())[0]
    half = Check("half", "", 4, "", CheckAt.BLOCK, (("a", 0.5),), 2 * UM)
    means, within = found.expected(half, ())
    assert (means, within) == pytest.approx((25e-6, np.hypot(0.5 * 3 / np.sqrt(3), 2) * UM))
    # At one hole it would read the same: the cause is in all of them; at a hole it is not in, nothing.
    assert found.expected(half, (2,))[0] == pytest.approx(25e-6)
    assert found.expected(half, (9,)) == pytest.approx((0.0, 2e-6))


def test_a_flange_is_read_on_the_bench_only_where_a_liner_of_that_make_lies_there() -> None:
    found = weigh(residuals(0, 1, -93, 2, -1, -91, makes="PPQPPQ"), (), HEIGHTS.checks)
    bench = "read a flange of that make on its flat land"
    assert bench in {one.check.name for one in checks_worth(found, HEIGHTS.checks, on_bench=((3, 6),))}
    assert bench not in {one.check.name for one in checks_worth(found, HEIGHTS.checks, on_bench=((1, 2, 4, 5),))}


def test_far_off_is_the_worst_single_one_or_a_pattern_of_all_of_them() -> None:
    """By hand: one of 9 is three u of 3; four of 4.5 are each 1.5 u and together 3."""
    assert far_off(residuals(9, 0, 0, causes=(NONE,))) == pytest.approx(3.0)
    assert far_off(residuals(4.5, 4.5, 4.5, 4.5)) == pytest.approx(3.0)
    assert far_off(residuals(4.5, 4.5, 4.5, 4.5, causes=(NONE,))) == pytest.approx(1.5)
    # A lean of 6 round four positions of u 2 is √(2·3²), by chance alone √2: three, as its highest reading is.
    assert far_off(round_the_clock(0, 6, 0)) == pytest.approx(3.0)


def test_what_cannot_be_weighed_is_refused() -> None:
    with pytest.raises(OutOfDomain):
        weigh(residuals(9), (), ())
    with pytest.raises(OutOfDomain):
        weigh(residuals(9, 9), (Finding("no such check", (1,), 0.0),), HEIGHTS.checks)
    with pytest.raises(OutOfDomain):
        weigh(Residuals(np.zeros(2), np.zeros((2, 2)), ()), (), ())


def test_every_check_finds_causes_of_the_table_and_a_shop_writes_its_own() -> None:
    names = {one.name for one in HEIGHTS.causes}
    assert all({name for name, _ in one.finds} <= names and one.finds for one in HEIGHTS.checks)
    assert names - {"nothing but scatter"} == {name for one in HEIGHTS.checks for name, share in one.finds if share}
    paint = Cause("paint on the deck", "low where it was painted", Pattern.ALL, -60 * UM, -20 * UM, 0.2)
    look = Check("scrape a corner", "scraper", 3, "How thick it was", CheckAt.BLOCK, ((paint.name, 1.0),), 2 * UM)
    known = HEIGHTS.with_own((paint, replace(HEIGHTS.causes[1], prior=0.0)), (look,))
    assert (known.cause(paint.name), known.check(look.name)) == (paint, look)
    assert known.cause(HEIGHTS.causes[1].name) == replace(HEIGHTS.causes[1], prior=0.0)
    assert len(known.causes) == len(HEIGHTS.causes) + 1


def test_the_joint_covariance_is_that_of_drawn_errors() -> None:
    """GUM F.1.2.3, by drawing: a zero that two readings share, and one of their own each."""
    zero, a, b = Source("zero", 4 * UM, error="zero"), Source("a", 3 * UM, error="a"), Source("b", 2 * UM, error="b")
    one, other = estimate(0.0, (zero, a)), weighted(((-2.0, estimate(0.0, (zero, b))),))
    rng = np.random.default_rng(4)
    z, x, y = (rng.normal(0, u, 400_000) for u in (4, 3, 2))
    drawn = np.cov(np.vstack([z + x, -2 * (z + y)]))
    assert joint_covariance([one, other]) / UM**2 == pytest.approx(drawn, rel=0.02)


def over_the_lip(*, at_3_um: float = 80) -> Story:
    """Four holes that stand as their parts say, but for hole 3, whose flange was read 60 too thick."""
    story = wet((8_900,) * 4, (8_980, 8_980, 9_040, 8_980))
    for hole, height in zip(story.hole_rows, (80, 81, at_3_um, 79), strict=True):
        fitting = story.facts().present_fitting(hole.hole_id)
        assert fitting is not None
        story.read(Quantity.PROTRUSION, fitting.fitting_id, (height,) * 4)
    return story


def test_a_job_whose_liner_was_read_over_its_lip_says_so() -> None:
    story = over_the_lip()
    found = heights_add_up(story.facts())
    assert isinstance(found, AddsUp)
    assert [one.adds_up for one in found.holes] == [True, True, False, True]
    middle = found.holes[2].middle
    assert middle is not None
    assert round(middle.value_m * 1e6) == -60
    assert [round(one.off.value_m * 1e6) for one in found.holes[2].spots] == [-60] * 4
    assert found.far_off > 3
    assert found.explained[0].where == ((3,),)
    assert found.checks
    story.read(Quantity.FLANGE_THICKNESS, story.facts().liners[2].liner_id, (8_980,) * 4)
    again = heights_add_up(story.facts())
    assert isinstance(again, AddsUp)
    assert (again.explained, again.checks) == ((), ())
    few = heights_add_up(wet((8_900,), (8_980,)).facts())
    assert isinstance(few, str) and "hole 1" in few


def test_a_flange_is_proposed_on_the_bench_where_the_job_has_a_spare_of_that_make() -> None:
    story, bench = over_the_lip(), "read a flange of that make on its flat land"
    makes = ("P", "P", "Q", "P")
    story.rows["liners"] = [replace(one, make=make) for one, make in zip(story.rows["liners"], makes, strict=True)]
    for spare, proposed in (("P", False), ("Q", True)):
        story.liner(f"L{spare}")
        story.rows["liners"][-1] = replace(story.rows["liners"][-1], make=spare)
        found = heights_add_up(story.facts())
        assert isinstance(found, AddsUp)
        told = [one.where for one in found.checks if one.check.name == bench]
        assert told == ([(3,)] if proposed else [])


def test_a_ledge_that_was_read_out_of_square_makes_no_lean() -> None:
    """By hand: the ledge of hole 1 is 20 deeper at 6 h than at 12 h, and its liner stands as much lower there."""
    story = wet((8_900,) * 3, (8_980,) * 3)
    story.read(Quantity.COUNTERBORE_DEPTH, story.hole_rows[0].hole_id, (8_890, 8_900, 8_910, 8_900))
    for hole, heights in zip(story.hole_rows, ((90, 80, 70, 80), (80,) * 4, (80,) * 4), strict=True):
        fitting = story.facts().present_fitting(hole.hole_id)
        assert fitting is not None
        story.read(Quantity.PROTRUSION, fitting.fitting_id, heights)
    found = heights_add_up(story.facts())
    assert isinstance(found, AddsUp)
    assert [round(one.off.value_m * 1e6) for one in found.holes[0].spots] == [0, 0, 0, 0]
    assert found.explained == ()


def tried(story: Story, check: str, places: str, um: float | None) -> UUID:
    """An experiment, and what came of it unless it is still open."""
    one = Experiment(uuid4(), Matter.HEIGHTS, check, places, check, "something", WHEN, "Wren", story._next())
    story._add("experiments", one)
    if um is not None:
        story._add("experiment_results", ExperimentResult(one.experiment_id, Decimal(str(um)), str(um), "µm", "",
                                                          Decimal(4), None, WHEN, "Wren", story._next()))  # fmt: skip
    return one.experiment_id


def test_experiments_on_record_move_the_weights_until_what_they_were_about_is_read_otherwise() -> None:
    story = over_the_lip()
    before = look_at(story.facts(), Matter.HEIGHTS)
    assert "nothing was looked at yet" in before.hold
    tried(story, "read the mark on the liner", "3", 0.0)
    after = look_at(story.facts(), Matter.HEIGHTS)
    assert isinstance(before.found, AddsUp)
    assert isinstance(after.found, AddsUp)

    def weight(found: AddsUp, cause: str) -> float:
        return sum(one.weight for one in found.explained if cause in one.causes)

    assert weight(after.found, "wrong liner written down") < 0.1 * weight(before.found, "wrong liner written down")
    draw = "draw the liner, look under its flange, read it on its flat land"
    tried(story, draw, "3", -60.0)
    told = look_at(story.facts(), Matter.HEIGHTS)
    assert [one.finding is not None for one in told.tried] == [True, True]
    assert told.open_one is None
    # Hole 3 is read once more, 25 higher: what was found was about another reading.
    fitting = story.facts().present_fitting(story.hole_rows[2].hole_id)
    assert fitting is not None
    story.read(Quantity.PROTRUSION, fitting.fitting_id, (105,) * 4)
    late = look_at(story.facts(), Matter.HEIGHTS)
    assert [one.overtaken for one in late.tried] == ["hole 3 was read otherwise since"] * 2
    assert "nothing was looked at yet" in late.hold
    # Once another hole gets another liner, what was found at hole 3 is as it was.
    again = over_the_lip()
    tried(again, draw, "3", -60.0)
    again.fit(4, again.liner("L9"))
    assert [one.overtaken for one in look_at(again.facts(), Matter.HEIGHTS).tried] == [""]
    again.draw(3)
    assert ["another liner" in one.overtaken for one in look_at(again.facts(), Matter.HEIGHTS).tried] == [True]
    tried(story, "", "", None)
    begun = look_at(story.facts(), Matter.HEIGHTS).open_one
    assert begun is not None and begun.check_name == ""


def test_nothing_is_cut_or_bought_before_common_causes_are_tested() -> None:
    """All of one make: a lip of it, a moved zero and a light clamp look alike; the hole with the shim is not alone."""
    story = over_the_lip()
    for hole in (0, 1, 3):
        story.read(Quantity.FLANGE_THICKNESS, story.facts().liners[hole].liner_id, (9_040,) * 4)
    assert "nothing was looked at yet" in hold_of(story.facts())
    assert "hole 2 disagree" in why_not_buy(story.facts(), (2,))
    assert why_not_buy(story.facts(), ()) == ""
    tried(story, "lay a straightedge along the deck", "", 0.0)
    assert "was not tested" in hold_of(story.facts())
    tried(story, "look at the zero of the gauge again", "", 0.0)
    tried(story, "read again in the morning, all cold", "", 0.0)
    tried(story, "draw the liner, look under its flange, read it on its flat land", "2", -60.0)
    assert hold_of(story.facts()) == ""
    assert why_not_buy(story.facts(), (2,)) == ""
    assert hold_of(wet((8_900,), (8_980,)).facts()) != "", "what cannot be told is held"


def test_a_job_as_it_stood_has_what_was_recorded_by_then() -> None:
    story = over_the_lip()
    then = story.facts()
    last = max(one.event for one in then.readings)
    tried(story, "look at the zero of the gauge again", "", 0.0)
    story.read(Quantity.FLANGE_THICKNESS, then.liners[2].liner_id, (8_980,) * 4)
    again = as_of(story.facts(), last)
    assert again.experiments == ()
    assert again.readings == then.readings
    assert as_of(again, last) is again


def test_cases_lie_alike_by_their_pattern_and_not_by_their_size_or_how_many_holes() -> None:
    """By hand: one make low is like one make low on a longer block; not like one hole high, nor like it turned up."""

    def shape(values: dict[int, float], makes: str) -> str:
        return "\n".join(f"{hole}\t{makes[hole - 1]}\t\t{um}" for hole, um in values.items())

    low = shape_from_text(shape({1: 0, 2: 1, 3: -93, 4: 2, 5: -1, 6: -91}, "PPQPPQ"))
    longer = shape_from_text(shape({1: 0, 2: -60, 3: 1, 4: -58, 5: 0, 6: -1, 7: -61, 8: 2}, "PQPQPPQP"))
    up = shape_from_text(shape({1: 0, 2: -1, 3: 93, 4: -2, 5: 1, 6: 91}, "PPQPPQ"))
    single = shape_from_text(shape({1: 0, 2: 60, 3: 0, 4: 1}, "PPPP"))
    assert likeness(low, low) == pytest.approx(1.0)
    assert likeness(low, longer) > 0.9
    assert likeness(low, up) == 0.0
    assert likeness(low, single) < 0.3
    assert likeness(low, ()) == 0.0
    found = heights_add_up(over_the_lip().facts())
    assert isinstance(found, AddsUp)
    rows = shape_of(found.holes)
    assert shape_from_text(shape_as_text(rows)) == rows
    with pytest.raises(OutOfDomain):
        shape_from_text("hole three, low")


def test_candidates_that_no_reading_can_show_are_left_out() -> None:
    spots = [Spot(1, -1.0), Spot(2, 1.0)]
    names = {one.cause for one in height_candidates(spots, HEIGHTS.causes)}
    assert "flange not square to its liner" not in names
    assert "deck bowed under the gauge" not in names, "two holes show no bow"
    assert "shim counted, not there" not in names
    assert isinstance(height_candidates(spots, HEIGHTS.causes)[0], Candidate)
    assert isinstance(HEIGHTS, Known)
