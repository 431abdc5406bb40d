"""Hold points, clocks, open points and forks of a route. Common practice, no published source."""

from dataclasses import replace
from datetime import timedelta
from decimal import Decimal
from uuid import uuid4

import pytest

from tests.core.facts import WHEN, Story, level
from tests.core.test_route import BORE_PLACES, MINUTE, card_of, story_of
from vallostasis.core.needs import Action
from vallostasis.core.operations import schools
from vallostasis.core.operations.wording import COMPOUND, DUST, asks_of, cautions_of
from vallostasis.core.protrusion.measured import judge_job
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import (
    ClockMark,
    FindingKind,
    HoldPass,
    HoldPoint,
    MarkKind,
    Operation,
    Wait,
    WaitCause,
    WaitEnd,
    Waiver,
)
from vallostasis.core.records.rows import Hole, Quantity, ZeroedOn
from vallostasis.core.records.spec_card import Construction
from vallostasis.core.route.as_found import as_found_left
from vallostasis.core.route.clocks import clocks_of
from vallostasis.core.route.evidence import evidence_of_route
from vallostasis.core.route.foresight import foresee
from vallostasis.core.route.forks import fork_of, forks_of
from vallostasis.core.route.hold_points import HoldNow, HoldState, in_the_way, worst_hole
from vallostasis.core.route.plan import Leg, plan_of
from vallostasis.core.route.route import route_of
from vallostasis.core.subjects import need_of_hole
from vallostasis.core.uncertainty.decision import State

O = Operation  # noqa: E741
BY = "Wren"


def _held(facts: JobFacts, operation: Operation, hole: int | None = None, by: str = BY) -> dict[HoldPoint, str]:
    at: Hole | None = None if hole is None else facts.hole_numbered(hole)
    held = in_the_way(facts, operation, at, by, evidence_of_route(facts))
    return {one.hold: one.missing for one in held}


def _pass(story: Story, hold: HoldPoint, before: Operation, hole: int | None) -> None:
    story._add("hold_passes", HoldPass(hold, before, story.hole_id(hole), "a customer on the quay", story.now, BY,
                                       story._next()))  # fmt: skip


def _hold(facts: JobFacts, hold: HoldPoint, hole: int | None = None) -> HoldNow:
    return next(one for one in route_of(facts).holds if one.hold is hold and one.hole == hole)


def test_no_boring_before_the_piston_is_measured() -> None:
    story = story_of(Construction.PARENT_BORE)
    assert HoldPoint.PISTON_FIRST in _held(story.facts(), O.BORE, 1)
    assert HoldPoint.PISTON_FIRST in _held(story.facts(), O.HONE, 1)
    skirt = {level(depth, axis): (99_900.0,) for depth in (32, 58) for axis in (0.0, 90.0)}
    story.survey(Quantity.PISTON_SKIRT, skirt, part="piston-1")
    assert HoldPoint.PISTON_FIRST not in _held(story.facts(), O.BORE, 1)
    assert HoldPoint.PISTON_FIRST in _held(story.facts(), O.BORE, 2)


def test_the_hole_that_wore_most_is_bored_first() -> None:
    story = story_of(Construction.PARENT_BORE, holes=3)
    for hole, size in ((1, 100_020.0), (2, 100_180.0), (3, 100_050.0)):
        story.survey(Quantity.BLOCK_BORE, {place: (size,) for place in BORE_PLACES}, hole_id=story.hole_id(hole))
    worst = worst_hole(story.facts())
    assert worst is not None
    assert worst.number == 2
    assert HoldPoint.WORST_FIRST not in _held(story.facts(), O.BORE, 2)
    assert _held(story.facts(), O.BORE, 1)[HoldPoint.WORST_FIRST] == "hole 2 wore most, and has not cleaned up yet"
    story.mark(O.BORE, 2)
    assert HoldPoint.WORST_FIRST in _held(story.facts(), O.BORE, 1)
    story.survey(Quantity.BLOCK_BORE, {place: (100_500.0,) for place in BORE_PLACES}, hole_id=story.hole_id(2))
    assert HoldPoint.WORST_FIRST not in _held(story.facts(), O.BORE, 1)


def test_the_worst_hole_is_told_by_sizes_whatever_the_gauges_were_zeroed_on() -> None:
    """By hand: +30 on a zero of 100.000 is 100.030 mm, less than 100.060 read whole."""
    story = story_of(Construction.PARENT_BORE, holes=2)
    story.survey(Quantity.BLOCK_BORE, {place: (100_060.0,) for place in BORE_PLACES}, hole_id=story.hole_id(1))
    story.set_up(Quantity.BLOCK_BORE, zeroed_on=ZeroedOn.NOMINAL, zero_um=Decimal(100_000), zero_typed="100")
    story.survey(Quantity.BLOCK_BORE, {place: (30.0,) for place in BORE_PLACES}, hole_id=story.hole_id(2))
    assert worst_hole(story.facts()) == story.hole_rows[0]
    other = story_of(Construction.PARENT_BORE, holes=2)
    other.survey(Quantity.BLOCK_BORE, {place: (100_020.0,) for place in BORE_PLACES}, hole_id=other.hole_id(1))
    other.set_up(Quantity.BLOCK_BORE, zeroed_on=ZeroedOn.NOMINAL, zero_um=Decimal(100_000), zero_typed="100")
    other.survey(Quantity.BLOCK_BORE, {place: (30.0,) for place in BORE_PLACES}, hole_id=other.hole_id(2))
    assert worst_hole(other.facts()) == other.hole_rows[1]


def test_a_contradiction_is_let_pass_at_the_release_by_name() -> None:
    """Parts that give 90 µm against a reading of 20: the verdict stays, and who releases it answers for it."""
    story = story_of(Construction.WET_TOP_FLANGE, holes=1)
    liner = story.liner("L1")
    fitting = story.fit(1, liner)
    story.read(Quantity.PROTRUSION, fitting, (90, 91, 90, 89))
    story.read(Quantity.FLANGE_THICKNESS, liner, (9_060,))
    story.read(Quantity.COUNTERBORE_DEPTH, story.hole_rows[0].hole_id, (8_900, 8_900, 8_900, 8_900))
    assert "disagree" in _held(story.facts(), O.RELEASE)[HoldPoint.PARTS_AGREE]
    _pass(story, HoldPoint.PARTS_AGREE, O.RELEASE, 1)
    assert HoldPoint.PARTS_AGREE not in _held(story.facts(), O.RELEASE)
    assert judge_job(story.facts()).holes[0].state is State.CANNOT_TELL


def test_nothing_is_fitted_that_was_not_made_ready_nor_hot_without_temperatures() -> None:
    story = story_of(Construction.WET_BOTTOM_SEAT)
    assert HoldPoint.READY_TO_FIT in _held(story.facts(), O.FIT, 1)
    story.mark(O.FIT_PREP, 1)
    assert HoldPoint.READY_TO_FIT not in _held(story.facts(), O.FIT, 1)
    story.choose(schools.GETTING_IN, schools.HEAT)
    assert "temperatures" in _held(story.facts(), O.FIT, 1)[HoldPoint.READY_TO_FIT]
    story.mark(O.HEAT)
    story.take_temperature("part", 80)
    assert HoldPoint.READY_TO_FIT not in _held(story.facts(), O.FIT, 1)


def test_no_finish_hone_without_the_plate_unless_the_school_says_so() -> None:
    story = story_of(Construction.PARENT_BORE)
    assert HoldPoint.PLATE in _held(story.facts(), O.HONE, 1)
    story.mark(O.PLATE)
    assert HoldPoint.PLATE not in _held(story.facts(), O.HONE, 1)
    without = story_of(Construction.PARENT_BORE)
    without.choose(schools.PLATE, schools.NO_PLATE)
    assert HoldPoint.PLATE not in _held(without.facts(), O.HONE, 1)


def test_no_wash_while_honing_may_come() -> None:
    story = story_of(Construction.PARENT_BORE, holes=1)
    assert _held(story.facts(), O.WASH)[HoldPoint.HONING_FROZEN] == "hole 1 may still be bored or honed"
    for operation in (O.BORE, O.HONE):
        story.mark(operation, 1)
        story.survey(Quantity.BLOCK_BORE, BORE_PLACES, hole_id=story.hole_id(1))
    # Honed since it was bored: the bore stands by what was read last.
    assert HoldPoint.HONING_FROZEN not in _held(story.facts(), O.WASH)


def test_two_axes_at_one_level_are_not_round() -> None:
    card = card_of(Construction.PARENT_BORE)
    sheet = replace(card.features[0], out_of_round=card.features[0].greatest)
    card = replace(card, features=(replace(sheet, levels=sheet.levels[:1], axes_deg=(0.0, 90.0)), *card.features[1:]))
    story = Story(holes=1, card=card, pace=MINUTE)
    story.survey(Quantity.BLOCK_BORE, {level(20, axis): (100_000.0,) for axis in (0.0, 90.0)},
                 hole_id=story.hole_id(1))  # fmt: skip
    assert "called round from 2 axes at 1 levels" in _hold(story.facts(), HoldPoint.THREE_AXES, 1).missing
    assert any("2 axes" in one.words for one in route_of(story.facts()).open_points)


def test_no_cut_before_datum_and_prediction_and_no_machining_on_a_contradiction() -> None:
    story = story_of(Construction.WET_TOP_FLANGE, holes=1)
    fitting = story.fit(1, story.liner("L1"))
    story.read(Quantity.PROTRUSION, fitting, (20, 21, 20, 19))
    held = _held(story.facts(), O.CUT, 1)
    assert HoldPoint.DATUM_AND_PREDICTION in held
    assert HoldPoint.COMMON_CAUSES not in held
    # The parts would stand 90 µm proud, the reading says 20: the parts are looked into before metal goes.
    liner = story.rows["liners"][0].liner_id
    story.read(Quantity.FLANGE_THICKNESS, liner, (8_990,))
    story.read(Quantity.COUNTERBORE_DEPTH, story.hole_rows[0].hole_id, (8_900, 8_900, 8_900, 8_900))
    assert "disagree" in _held(story.facts(), O.CUT, 1)[HoldPoint.COMMON_CAUSES]
    assert "disagree" in _hold(story.facts(), HoldPoint.PARTS_AGREE, 1).missing


def test_no_release_before_heights_are_read_cold() -> None:
    story = story_of(Construction.WET_TOP_FLANGE, holes=1)
    fitting = story.fit(1, story.liner("L1"))
    assert HoldPoint.HEIGHTS_COLD in _held(story.facts(), O.RELEASE)
    story.read(Quantity.PROTRUSION, fitting, (100, 101, 99, 100))
    assert HoldPoint.HEIGHTS_COLD not in _held(story.facts(), O.RELEASE)


def test_a_second_person_is_another_person_and_looks_each_time() -> None:
    story = story_of(Construction.PARENT_BORE)
    story.choose(schools.SECOND, schools.TWO_PERSONS)
    assert HoldPoint.SECOND_PERSON in _held(story.facts(), O.BORE, 1)
    story.mark(O.BORE, 1, MarkKind.LOOKED_OVER)
    assert "another person looks" in _held(story.facts(), O.BORE, 1)[HoldPoint.SECOND_PERSON]
    assert HoldPoint.SECOND_PERSON not in _held(story.facts(), O.BORE, 1, by="Ines")
    story.mark(O.BORE, 1)
    assert HoldPoint.SECOND_PERSON in _held(story.facts(), O.BORE, 1, by="Ines")


def test_a_pass_is_for_one_hole_one_operation_and_the_next_time_only() -> None:
    story = story_of(Construction.PARENT_BORE)
    _pass(story, HoldPoint.PISTON_FIRST, O.BORE, 1)
    assert HoldPoint.PISTON_FIRST not in _held(story.facts(), O.BORE, 1)
    assert HoldPoint.PISTON_FIRST in _held(story.facts(), O.BORE, 2)
    assert HoldPoint.PISTON_FIRST in _held(story.facts(), O.HONE, 1)
    assert _hold(story.facts(), HoldPoint.PISTON_FIRST, 1).state is HoldState.PASSED
    story.mark(O.BORE, 1)
    story.mark(O.BORE, 1, MarkKind.AGAIN)
    assert HoldPoint.PISTON_FIRST in _held(story.facts(), O.BORE, 1)


def test_a_hold_waits_when_its_operation_is_at_hand_and_is_open_before() -> None:
    story = story_of(Construction.WET_TOP_FLANGE, holes=1)
    assert _hold(story.facts(), HoldPoint.READY_TO_FIT, 1).state is HoldState.OPEN
    fitting = story.fit(1, story.liner("L1"))
    story.read(Quantity.PROTRUSION, fitting, (100, 101, 99, 100))
    assert _hold(story.facts(), HoldPoint.READY_TO_FIT, None).state is HoldState.CLEAR


# -- clocks ---------------------------------------------------------------------------------------------------------


def _clock(story: Story, hours: float, running: bool, by: str = BY, operation: Operation = O.STRIP) -> None:
    at = WHEN + timedelta(hours=hours)
    story._add("clock_marks", ClockMark(operation, None, running, at, at, by, story._next()))


def _wait(story: Story, since_h: float, until_h: float | None) -> None:
    wait = Wait(uuid4(), O.ORDER, None, WaitCause.PART, "liners", WHEN + timedelta(hours=since_h), None, WHEN, BY,
                story._next())  # fmt: skip
    story._add("waits", wait)
    if until_h is not None:
        story._add("wait_ends", WaitEnd(wait.wait_id, WHEN + timedelta(hours=until_h), "", WHEN, BY, story._next()))


def test_work_of_each_person_counts_and_a_second_start_ends_the_first() -> None:
    story = Story(holes=1)
    _clock(story, 0, True)
    _clock(story, 2, True, operation=O.CLEAN)
    _clock(story, 3, False, operation=O.CLEAN)
    _clock(story, 1, True, by="Ines")
    _clock(story, 5, False)
    clocks = clocks_of(story.facts(), WHEN + timedelta(hours=4))
    assert clocks.worked_by_operation == {O.STRIP: 2 + 3, O.CLEAN: 1}
    assert clocks.worked_h == 6
    assert [(one.by, one.since) for one in clocks.running] == [("Ines", WHEN + timedelta(hours=1))]


@pytest.mark.parametrize(
    ("waits", "hours", "waiting"),
    [
        ([(0, 10)], 10, False),
        ([(0, 10), (4, 6)], 10, False),
        ([(0, 4), (2, 8), (20, None)], 12, True),
        ([(3, 3)], 0, False),
        ([], 0, False),
    ],
)
def test_time_two_things_were_waited_for_counts_once(
    waits: list[tuple[float, float | None]], hours: float, waiting: bool
) -> None:
    story = Story(holes=1)
    for since, until in waits:
        _wait(story, since, until)
    clocks = clocks_of(story.facts(), WHEN + timedelta(hours=24))
    assert (clocks.waited_h, clocks.is_waiting) == (hours, waiting)


# -- open points, forks, needs --------------------------------------------------------------------------------------


def test_what_is_not_read_is_open_until_it_is_waived_by_name() -> None:
    story = story_of(Construction.PARENT_BORE, holes=1)
    assert [(one.quantity, one.part) for one in as_found_left(story.facts())] == [
        (Quantity.BLOCK_BORE, "hole-1"),
        (Quantity.MAIN_BORE, "main-1"),
    ]
    waived = Waiver(Quantity.MAIN_BORE, "main-1", True, "crank stays in", story.now, BY, story._next())
    story._add("waivers", waived)
    story.survey(Quantity.BLOCK_BORE, BORE_PLACES, hole_id=story.hole_id(1))
    assert as_found_left(story.facts()) == ()
    # Bored since, it was still read as found.
    story.mark(O.BORE, 1)
    assert as_found_left(story.facts()) == ()
    story._add("waivers", replace(waived, waived=False, event=story._next()))
    assert [one.quantity for one in as_found_left(story.facts())] == [Quantity.MAIN_BORE]


def test_a_job_is_proved_when_nothing_is_open() -> None:
    story = story_of(Construction.COATED, holes=1)
    assert route_of(story.facts()).open_points
    story.complaint = "smokes"
    story.survey(Quantity.BLOCK_BORE, BORE_PLACES, hole_id=story.hole_id(1))
    story.survey(Quantity.MAIN_BORE, BORE_PLACES, part="main-1")
    story.find(FindingKind.CONDITION, 1, "sound")
    for operation, hole in ((O.STRIP, None), (O.CAPS, None), (O.DECIDE, None), (O.WASH, None), (O.PISTONS, 1)):
        story.mark(operation, hole)
    # The caps went on after the bores were read without them.
    assert {one.state.value for one in route_of(story.facts()).open_points} == {"read again"}
    story.survey(Quantity.BLOCK_BORE, BORE_PLACES, hole_id=story.hole_id(1))
    story.survey(Quantity.MAIN_BORE, BORE_PLACES, part="main-1")
    assert route_of(story.facts()).open_points == ()
    following = route_of(story.facts()).next
    assert following is not None
    assert following.kind.operation is O.RELEASE
    _wait(story, 0, None)
    assert [one.words for one in route_of(story.facts()).open_points] == ["Order parts, wait waits for liners"]


def test_a_fork_says_what_comes_goes_and_moves() -> None:
    story = story_of(Construction.DRY_FLANGED)
    story.choose(schools.HEIGHT, schools.LEFT_PROUD)
    fork = fork_of(story.facts(), schools.DECK_ORDER, schools.DECK_AFTER)
    assert (fork.added, fork.removed, fork.moved, fork.hours) == ((), (), (O.DECK,), 0)
    hot = fork_of(story.facts(), schools.GETTING_IN, schools.HEAT)
    assert (hot.added, hot.removed, hot.moved) == ((O.HEAT, O.SOAK), (), ())
    assert hot.hours == pytest.approx(0.5)
    chosen = {school.question: side for school, side, _ in forks_of(story.facts())}
    assert chosen[schools.HEIGHT] == schools.LEFT_PROUD
    assert chosen[schools.GETTING_IN] == schools.COLD


def test_the_seat_of_a_liner_is_made_before_it_goes_in() -> None:
    story = story_of(Construction.WET_BOTTOM_SEAT, holes=1)
    facts = story.facts()
    need = need_of_hole(facts, facts.holes[0], judge_job(facts).holes[0])
    assert (need.action, need.operation) == (Action.ROUTE, O.HONE_BLOCK)
    story.mark(O.HONE_BLOCK, 1)
    story.survey(Quantity.BLOCK_BORE, BORE_PLACES, hole_id=story.hole_id(1))
    facts = story.facts()
    need = need_of_hole(facts, facts.holes[0], judge_job(facts).holes[0])
    assert (need.action, need.operation) == (Action.FIT, O.FIT)
    story.mark(O.HONE_BLOCK, 1)
    facts = story.facts()
    need = need_of_hole(facts, facts.holes[0], judge_job(facts).holes[0])
    assert (need.action, need.part, need.sentence.text) == (Action.READ_SURVEY, "hole-1", "Read the block bore again")


def test_the_arc_of_a_disturbance_costs_the_hours_of_reading_again() -> None:
    story = story_of(Construction.DRY_FLANGED)
    story.choose(schools.HEIGHT, schools.LEFT_PROUD)
    arc = next(one for one in route_of(story.facts()).arcs if one.disturbing is O.DECK)
    assert (arc.disturbed, arc.is_open, arc.hours) == (O.SEAT, False, pytest.approx(2 * 0.15))
    fitting = story.fit(1, story.liner("L1"))
    story.read(Quantity.PROTRUSION, fitting, (100, 101, 99, 100))
    story.mark(O.DECK)
    arc = next(one for one in route_of(story.facts()).arcs if one.disturbing is O.DECK)
    assert (arc.is_open, arc.hours) == (True, pytest.approx(0.15))
    again = route_of(story.facts()).reopened
    assert [(one.quantity, one.part, one.doing.operation) for one in again] == [(Quantity.PROTRUSION, "hole-1", O.DECK)]
    assert Decimal(str(again[0].hours)) == Decimal("0.15")


def test_what_cannot_be_undone_says_what_it_would_give() -> None:
    """By hand: a bore of 100.005 mm has 0.095 mm left to a greatest of 100.1 mm."""
    story = story_of(Construction.PARENT_BORE, holes=1)
    leg = next(one for one in plan_of(story.facts()) if one.operation is O.BORE)
    assert "not read" in foresee(story.facts(), leg, (1,))[0].text
    story.survey(Quantity.BLOCK_BORE, BORE_PLACES, hole_id=story.hole_id(1))
    said = foresee(story.facts(), leg, (1,))[0]
    assert said.text == "Hole 1: {D} ±{U} at its largest, {m} left to the greatest, on the diameter."
    terms = {term.symbol: term.value for term in said.terms}
    assert terms["D"] == pytest.approx(0.100005)
    assert terms["m"] == pytest.approx(95e-6)
    story.survey(Quantity.BLOCK_BORE, {place: (100_120.0,) for place in BORE_PLACES}, hole_id=story.hole_id(1))
    said = foresee(story.facts(), leg, (1,))[0]
    assert "beyond the greatest" in said.text
    assert said.terms[-1].value == pytest.approx(20e-6)
    assert foresee(story.facts(), leg, ()) == ()
    wash = next(one for one in plan_of(story.facts()) if one.operation is O.WASH)
    assert foresee(story.facts(), wash, ()) == ()


def test_a_cut_a_fit_and_a_deck_are_foreseen_from_parts_and_heights() -> None:
    """By hand: 8.990 less 8.900 is 90 µm proud; cut for the target of 100 it is 25 from 75 and from 125."""
    story = story_of(Construction.WET_TOP_FLANGE, holes=1)
    story.choose(schools.SUNK, schools.DECK_IT)
    deck = next(one for one in plan_of(story.facts()) if one.operation is O.DECK)
    assert "Nobody knows" in foresee(story.facts(), deck, ())[0].text
    liner = story.liner("L1")
    fitting = story.fit(1, liner)
    story.read(Quantity.FLANGE_THICKNESS, liner, (8_990,))
    story.read(Quantity.COUNTERBORE_DEPTH, story.hole_rows[0].hole_id, (8_900, 8_900, 8_900, 8_900))
    fit = Leg(O.FIT, story.facts().holes, ())
    said = foresee(story.facts(), fit, (1,))[0]
    assert {term.symbol: term.value for term in said.terms}["P"] == pytest.approx(90e-6)
    cut = foresee(story.facts(), Leg(O.CUT, story.facts().holes, ()), (1,))[0]
    terms = {term.symbol: term.value for term in cut.terms}
    assert terms["P"] == pytest.approx(100e-6)
    assert terms["m"] == pytest.approx(25e-6)
    assert terms["D"] == pytest.approx(8.990e-3 + terms["s"] - 100e-6)
    story.read(Quantity.PROTRUSION, fitting, (20, 90, 95, 85))
    terms = {term.symbol: term.value for term in foresee(story.facts(), deck, ())[0].terms}
    assert (terms["l"], terms["g"]) == (pytest.approx(20e-6), pytest.approx(95e-6))


def test_wording_and_cautions_follow_the_school_of_the_job() -> None:
    story = story_of(Construction.DRY_FLANGED)
    assert "which caps" not in asks_of(story.facts(), O.CAPS)
    assert DUST not in cautions_of(story.facts(), O.HONE)
    story.choose(schools.CAPS, schools.FIXTURE_CAPS)
    story.choose(schools.STONES, schools.DRY_STONES)
    story.choose(schools.COMPOUND, schools.WITH_COMPOUND)
    assert "which caps" in asks_of(story.facts(), O.CAPS)
    assert DUST in cautions_of(story.facts(), O.HONE_BLOCK)
    assert COMPOUND in cautions_of(story.facts(), O.FIT)
    assert DUST not in cautions_of(story.facts(), O.BORE)
