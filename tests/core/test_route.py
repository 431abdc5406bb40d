"""The route of a job, for every construction and school. Operations, order and re-opening: common practice, as written
down with the trade (no published source); what is expected here is written out by hand, not taken from the catalogue.
"""

import itertools
import random
from dataclasses import replace
from datetime import timedelta
from decimal import Decimal
from uuid import uuid4

import pytest

from tests.core.card import wet_card
from tests.core.facts import HOURS, Story, level
from vallostasis.core.features.parts import part_with_key
from vallostasis.core.operations import schools
from vallostasis.core.operations.catalogue import OPERATIONS, Scope
from vallostasis.core.operations.disturbances import doings_of
from vallostasis.core.operations.schools import SCHOOLS, schools_of
from vallostasis.core.protrusion.measured import judge_job
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import FindingKind, MarkKind, Operation
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import (
    UNLINED,
    CardLevel,
    Construction,
    FeatureSheet,
    Length,
    Limit,
    SpecCard,
)
from vallostasis.core.route.evidence import evidence_of_route
from vallostasis.core.route.plan import plan_of
from vallostasis.core.route.route import route_of
from vallostasis.core.surveys.survey import survey_of
from vallostasis.core.uncertainty.decision import State

O = Operation  # noqa: E741
MINUTE = timedelta(minutes=1)
BORE_PLACES = {level(depth, axis): (100_005.0,) for depth in (20, 80) for axis in (0.0, 60.0, 120.0)}
DRY = (Construction.DRY_FLANGED, Construction.DRY_PLAIN)


def _limit(mm: str) -> Limit:
    return Limit(Length(mm, Decimal(mm) * 1000))


def _sheet(quantity: Quantity, least: str, greatest: str) -> FeatureSheet:
    levels = (CardLevel("top", Length("20", Decimal(20_000))), CardLevel("low", Length("80", Decimal(80_000))))
    return FeatureSheet(quantity, least=_limit(least), greatest=_limit(greatest), levels=levels,
                        axes_deg=(0.0, 60.0, 120.0))  # fmt: skip


def card_of(construction: Construction) -> SpecCard:
    """A card that asks for bores, mains and deck, whatever the construction."""
    features = (
        _sheet(Quantity.BLOCK_BORE, "99.9", "100.1"),
        *(() if construction in UNLINED else (_sheet(Quantity.LINER_BORE, "99.9", "100.1"),)),
        _sheet(Quantity.MAIN_BORE, "99.9", "100.1"),
    )
    return replace(wet_card(), construction=construction, main_bores=1, features=features)


def story_of(construction: Construction, holes: int = 2) -> Story:
    return Story(holes=holes, card=card_of(construction), pace=MINUTE)


def _route(facts: JobFacts) -> list[Operation]:
    return [leg.operation for leg in plan_of(facts)]


COMBINATIONS = [
    (construction, school.question, side.name)
    for construction in Construction
    for school in SCHOOLS
    if construction in school.constructions
    for side in school.sides
]


@pytest.mark.parametrize(("construction", "question", "side"), COMBINATIONS)
def test_every_route_goes_forward_and_ends_with_the_release(
    construction: Construction, question: str, side: str
) -> None:
    """No circle, nothing before what has to be done first, every operation once and with hours."""
    story = story_of(construction)
    story.choose(question, side)
    legs = plan_of(story.facts())
    order = [leg.operation for leg in legs]
    assert len(set(order)) == len(order)
    for place, leg in enumerate(legs):
        assert all(order.index(first) < place for first in leg.after)
        assert bool(leg.holes) is (OPERATIONS[leg.operation].scope is Scope.HOLE)
    assert order[0] is O.TAKE_IN
    assert order[-2:] == [O.PROVE, O.RELEASE]
    # Every operation can be told: from facts or from a mark, never from nothing.
    far = evidence_of_route(story.facts())
    assert {operation for operation, _ in far} == set(order) - {O.PROVE}
    assert all(one.words for one in far.values())


@pytest.mark.parametrize("construction", list(Construction))
def test_every_pair_of_schools_leaves_a_route_without_a_circle(construction: Construction) -> None:
    asked = schools_of(card_of(construction))
    for first, second in itertools.combinations(asked, 2):
        for one, other in itertools.product(first.sides, second.sides):
            story = story_of(construction)
            story.choose(first.question, one.name)
            story.choose(second.question, other.name)
            assert _route(story.facts())[-1] is O.RELEASE


# Operations that are there for a construction with no school chosen, and ones that are not.
HAS: dict[Construction, tuple[set[Operation], set[Operation]]] = {
    Construction.WET_TOP_FLANGE: ({O.CLEAN, O.FIT, O.SEAT}, {O.BORE, O.BORE_BLOCK, O.DECK, O.HEAT, O.SOAK}),
    Construction.WET_BOTTOM_SEAT: ({O.CLEAN, O.HONE_BLOCK, O.FIT, O.SEAT, O.HONE}, {O.CUT, O.BORE, O.HEAT}),
    Construction.DRY_FLANGED: ({O.CAPS, O.HONE_BLOCK, O.FIT, O.SEAT, O.BORE, O.PLATE, O.HONE, O.FREE}, {O.BORE_BLOCK}),
    Construction.DRY_PLAIN: ({O.CAPS, O.HONE_BLOCK, O.FIT, O.BORE, O.HONE, O.MAINS}, {O.CUT, O.CLEAN, O.BORE_BLOCK}),
    Construction.PARENT_BORE: ({O.CAPS, O.BORE, O.PLATE, O.HONE, O.FREE}, {O.FIT, O.SEAT, O.CUT, O.HONE_BLOCK}),
    Construction.COATED: ({O.CAPS}, {O.BORE, O.HONE, O.FIT, O.SEAT, O.CUT}),
    Construction.INSERT: ({O.CLEAN, O.FIT, O.SEAT}, {O.BORE, O.BORE_BLOCK}),
}


@pytest.mark.parametrize("construction", list(Construction))
def test_a_construction_has_its_operations_and_no_others(construction: Construction) -> None:
    route = set(_route(story_of(construction).facts()))
    there, absent = HAS[construction]
    assert there <= route
    assert not absent & route
    assert {O.TAKE_IN, O.STRIP, O.MEASURE, O.DECIDE, O.WASH, O.PISTONS, O.PROVE, O.RELEASE} <= route


# What a side does to the route of a construction: what comes, what goes.
SIDES = [
    (Construction.WET_TOP_FLANGE, schools.GETTING_IN, schools.HEAT, {O.HEAT, O.SOAK}, set()),
    (Construction.WET_TOP_FLANGE, schools.HEIGHT, schools.LEFT_PROUD, {O.DECK}, set()),
    (Construction.WET_TOP_FLANGE, schools.WHICH_HOLES, schools.ALL_HOLES, {O.CUT, O.PLUG}, set()),
    (Construction.WET_TOP_FLANGE, schools.SUNK, schools.DECK_IT, {O.DECK}, set()),
    (Construction.DRY_FLANGED, schools.SEAT_BORE, schools.BORED, {O.BORE_BLOCK}, set()),
    (Construction.DRY_FLANGED, schools.SIZING, schools.SIZE_SLEEVE, set(), {O.HONE_BLOCK}),
    (Construction.DRY_PLAIN, schools.SLEEVES, schools.FINISHED, set(), {O.BORE, O.PLUG}),
    (Construction.DRY_PLAIN, schools.PLATE, schools.NO_PLATE, set(), {O.PLATE, O.FREE}),
    (Construction.PARENT_BORE, schools.FINISH, schools.BORED_FINISH, set(), {O.HONE, O.PLATE, O.FREE}),
    (Construction.PARENT_BORE, schools.CAPS, schools.FIXTURE_CAPS, set(), set()),
]


@pytest.mark.parametrize(("construction", "question", "side", "comes", "goes"), SIDES)
def test_a_school_changes_the_route_it_is_about(
    construction: Construction, question: str, side: str, comes: set[Operation], goes: set[Operation]
) -> None:
    story = story_of(construction)
    before = set(_route(story.facts()))
    story.choose(question, side)
    after = set(_route(story.facts()))
    assert (after - before, before - after) == (comes, goes)


def test_deck_before_or_after_honing_and_mains_first_or_last() -> None:
    story = story_of(Construction.DRY_FLANGED)
    story.choose(schools.HEIGHT, schools.LEFT_PROUD)
    order = _route(story.facts())
    assert order.index(O.DECK) < order.index(O.PLATE) < order.index(O.HONE)
    assert order.index(O.MAINS) > order.index(O.FIT)
    story.choose(schools.DECK_ORDER, schools.DECK_AFTER)
    story.choose(schools.MAINS, schools.MAINS_FIRST)
    order = _route(story.facts())
    assert order.index(O.DECK) > order.index(O.FREE) > order.index(O.HONE)
    assert order.index(O.MAINS) < order.index(O.DECIDE)


# -- what disturbs what ---------------------------------------------------------------------------------------------


def _read_everything(story: Story) -> None:
    """Every feature that can be read on hole 1 and the block, and protrusion of both holes."""
    for number in (1, 2):
        fitting = story.fit(number, story.liner(f"A{number}")) if story.card.construction not in UNLINED else None
        if fitting is not None:
            story.read(Quantity.PROTRUSION, fitting, (100, 101, 99, 100))
            story.survey(Quantity.LINER_BORE, BORE_PLACES, fitting_id=fitting)
            story.survey(Quantity.RING_GAP, {level(depth): (400.0,) for depth in (14, 85, 156)}, fitting_id=fitting)
        story.survey(Quantity.BLOCK_BORE, BORE_PLACES, hole_id=story.hole_id(number))
        story.survey(Quantity.TRIAL_FIT, {level(0): (60_000.0,)}, hole_id=story.hole_id(number))
        story.survey(Quantity.PISTON_CLEARANCE, {level(0): (100.0,)}, part=f"piston-{number}")
    story.survey(Quantity.MAIN_BORE, BORE_PLACES, part="main-1")
    story.survey(Quantity.DECK_FLATNESS, {level(0): (3.0,)}, part="deck")
    story.survey(Quantity.NEIGHBOUR_GAP, {level(depth): (500.0,) for depth in (14, 85, 156)}, part="gap-1-2")


def _read_again(facts: JobFacts) -> set[tuple[str, str]]:
    """Features that are to be read again, with their part."""
    return {(one.quantity.value, one.part) for one in route_of(facts).reopened}


HOLE_1, HOLE_2, BLOCK = "hole-1", "hole-2", "block"
# What an operation at hole 1, or of the block, makes to be read again, as the route says it.
DISTURBS: list[tuple[Operation, int | None, set[tuple[str, str]]]] = [
    (O.BORE_BLOCK, 1, {("block bore", HOLE_1), ("trial fit", HOLE_1), ("main bore", "main-1"),
                       ("deck flatness", "deck")}),
    (O.HONE_BLOCK, 1, {("block bore", HOLE_1), ("trial fit", HOLE_1)}),
    (O.DECK, None, {("protrusion", HOLE_1), ("protrusion", HOLE_2), ("deck flatness", "deck")}),
    (O.BORE, 1, {("block bore", HOLE_1), ("liner bore", HOLE_1), ("piston clearance", "piston-1"),
                 ("ring gap", HOLE_1)}),
    (O.HONE, 1, {("block bore", HOLE_1), ("liner bore", HOLE_1), ("piston clearance", "piston-1"),
                 ("ring gap", HOLE_1)}),
    (O.ALIGN, None, {("main bore", "main-1")}),
    (O.CAPS, None, {("block bore", HOLE_1), ("block bore", HOLE_2), ("liner bore", HOLE_1), ("liner bore", HOLE_2),
                    ("main bore", "main-1")}),
    *((one, hole, set()) for one, hole in (
        (O.STRIP, None), (O.DECIDE, None), (O.CLEAN, None), (O.PLUG, None), (O.FIT_PREP, 1), (O.PLATE, None),
        (O.WASH, None), (O.PISTONS, 1), (O.RELEASE, None),
    )),
]  # fmt: skip


@pytest.mark.parametrize(("operation", "hole", "again"), DISTURBS)
def test_what_an_operation_disturbs_is_read_again_and_nothing_else(
    operation: Operation, hole: int | None, again: set[tuple[str, str]]
) -> None:
    story = story_of(Construction.DRY_FLANGED)
    _read_everything(story)
    assert _read_again(story.facts()) == set()
    story.mark(operation, hole)
    assert _read_again(story.facts()) == again


def test_bores_read_with_the_caps_torqued_stand_when_the_caps_go_on() -> None:
    story = story_of(Construction.DRY_FLANGED)
    story.set_up(Quantity.BLOCK_BORE, load="main caps torqued")
    _read_everything(story)
    story.mark(O.CAPS)
    again = _read_again(story.facts())
    assert ("block bore", HOLE_1) not in again
    assert ("liner bore", HOLE_1) in again


def test_fitting_disturbs_mains_and_the_gap_beside_it_but_not_what_came_with_the_engine() -> None:
    story = story_of(Construction.WET_TOP_FLANGE, holes=3)
    story.survey(Quantity.MAIN_BORE, BORE_PLACES, part="main-1")
    for pair in ("1-2", "2-3"):
        story.survey(Quantity.NEIGHBOUR_GAP, {level(depth): (500.0,) for depth in (14, 85, 156)}, part=f"gap-{pair}")
    story.fit(3, story.liner("as found 3"))
    assert _read_again(story.facts()) == set()
    story.fit(1, story.liner("L1"))
    assert _read_again(story.facts()) == {("main bore", "main-1"), ("neighbour gap", "gap-1-2")}


def test_a_late_cut_makes_its_hole_not_measured_and_no_other() -> None:
    story = story_of(Construction.WET_TOP_FLANGE)
    _read_everything(story)
    before = [hole.state for hole in judge_job(story.facts()).holes]
    story.cut(1, 8_900, 100)
    assert [hole.state for hole in judge_job(story.facts()).holes] == [State.NOT_MEASURED, before[1]]


def test_readings_after_it_stand_again_and_what_stood_before_stays_to_be_seen() -> None:
    story = story_of(Construction.PARENT_BORE)
    story.survey(Quantity.BLOCK_BORE, BORE_PLACES, hole_id=story.hole_id(1))
    story.mark(O.BORE, 1)
    facts = story.facts()
    part = part_with_key(facts, Quantity.BLOCK_BORE, HOLE_1)
    assert part is not None
    survey = survey_of(facts, Quantity.BLOCK_BORE, part)
    assert (survey.state, survey.read, len(survey.past)) == (State.READ_AGAIN, (), 6)
    assert [row.value_m for row in survey.past] == [pytest.approx(0.100005)] * 6
    assert survey.disturbed is not None
    assert survey.disturbed.operation is O.BORE
    story.survey(Quantity.BLOCK_BORE, BORE_PLACES, hole_id=story.hole_id(1))
    facts = story.facts()
    survey = survey_of(facts, Quantity.BLOCK_BORE, part)
    assert (survey.state, survey.past) == (State.IN, ())


def test_a_mark_written_down_late_counts_by_its_own_time() -> None:
    """Who writes down in the evening that the deck was cut in the morning disturbs nothing read at noon."""
    story = story_of(Construction.WET_TOP_FLANGE)
    morning = story.now
    story.event += 60
    fitting = story.fit(1, story.liner("L1"))
    story.read(Quantity.PROTRUSION, fitting, (100, 101, 99, 100))
    story.event += 60
    event = story.mark(O.DECK, at=morning)
    assert _read_again(story.facts()) == set()
    assert [one.operation for one in doings_of(story.facts())] == [O.DECK, O.FIT]
    story.strike(of_event=event)
    assert [one.operation for one in doings_of(story.facts())] == [O.FIT]
    story.mark(O.DECK)
    assert _read_again(story.facts()) == {("protrusion", HOLE_1)}


def test_a_set_that_was_read_in_part_before_is_no_result_of_now() -> None:
    """A reading that comes into the old set afterwards leaves its others what they are: read before."""
    story = story_of(Construction.WET_TOP_FLANGE)
    fitting = story.fit(1, story.liner("L1"))
    story.read(Quantity.PROTRUSION, fitting, (100, 101, 99, 100))
    story.mark(O.DECK)
    late = replace(story.rows["readings"][-1], reading_id=uuid4(), taken_at=story.now, event=story._next())
    story.rows["readings"].append(late)
    assert _read_again(story.facts()) == {("protrusion", HOLE_1)}


def test_a_struck_mark_disturbs_nothing() -> None:
    story = story_of(Construction.PARENT_BORE)
    story.survey(Quantity.BLOCK_BORE, BORE_PLACES, hole_id=story.hole_id(1))
    event = story.mark(O.HONE, 1)
    assert _read_again(story.facts()) == {("block bore", HOLE_1)}
    story.strike(of_event=event)
    assert _read_again(story.facts()) == set()


def test_heights_read_while_the_block_was_warm_are_read_again_cold() -> None:
    story = story_of(Construction.WET_BOTTOM_SEAT)
    story.choose(schools.GETTING_IN, schools.HEAT)
    story.mark(O.HEAT)
    fitting = story.fit(1, story.liner("L1"))
    story.read(Quantity.PROTRUSION, fitting, (100, 101, 99, 100))
    assert _read_again(story.facts()) == {("protrusion", HOLE_1)}
    story.mark(O.SOAK)
    # It was read warm, and stays so.
    assert _read_again(story.facts()) == {("protrusion", HOLE_1)}
    story.read(Quantity.PROTRUSION, fitting, (98, 99, 97, 98))
    assert _read_again(story.facts()) == set()


@pytest.mark.parametrize("seed", range(12))
def test_whatever_order_facts_are_loaded_in_the_state_is_the_same(seed: int) -> None:
    """Rows come in any order; what happened when is told by them, not by where they stand."""
    shuffled = random.Random(seed)
    story = story_of(Construction.DRY_FLANGED)
    story.choose(schools.GETTING_IN, schools.HEAT)
    _read_everything(story)
    for operation, hole in shuffled.sample([(O.HONE_BLOCK, 1), (O.BORE, 2), (O.DECK, None), (O.WASH, None),
                                            (O.CAPS, None)], 4):  # fmt: skip
        story.mark(operation, hole)
        if shuffled.random() < 0.5:
            story.survey(Quantity.BLOCK_BORE, BORE_PLACES, hole_id=story.hole_id(1))
    story.cut(2, 8_900, 100)
    story.mark(O.WASH, kind=MarkKind.AGAIN)
    told = story.facts()
    for name, rows in list(story.rows.items()):
        story.rows[name] = shuffled.sample(rows, len(rows))
    mixed = story.facts()
    assert [hole.state for hole in judge_job(mixed).holes] == [hole.state for hole in judge_job(told).holes]
    assert _states(mixed) == _states(told)
    assert _read_again(mixed) == _read_again(told)


def _states(facts: JobFacts) -> dict[tuple[Operation, int | None], tuple[State, str]]:
    return {key: (one.state, one.words) for key, one in evidence_of_route(facts).items()}


# -- how far an operation is ----------------------------------------------------------------------------------------


def _far(story: Story, operation: Operation, hole: int | None = None) -> tuple[State, str]:
    found = evidence_of_route(story.facts())[operation, hole]
    return found.state, found.words


def test_stripped_is_what_was_looked_at_hole_by_hole() -> None:
    story = story_of(Construction.WET_TOP_FLANGE)
    assert _far(story, O.STRIP) == (State.NOT_MEASURED, "not done yet")
    story.mark(O.STRIP)
    story.find(FindingKind.CONDITION, 1, "sound")
    assert _far(story, O.STRIP) == (State.NOT_MEASURED, "nothing written down of hole 2")
    story.find(FindingKind.LEAK_DOWN, 2, "", Decimal(12))
    assert _far(story, O.STRIP)[0] is State.NOT_MEASURED
    story.find(FindingKind.GASKET, 2, "burnt through")
    assert _far(story, O.STRIP)[0] is State.IN


def test_plugs_that_went_in_come_out_and_grit_after_the_wash_wants_another() -> None:
    story = story_of(Construction.PARENT_BORE)
    story.mark(O.PLUG, count=9)
    story.mark(O.WASH, count=8)
    assert _far(story, O.WASH) == (State.OUT, "in all: 9 plugs went in, 8 came out")
    story.mark(O.WASH, count=9)
    assert _far(story, O.WASH)[0] is State.IN
    story.mark(O.HONE, 2)
    assert _far(story, O.WASH)[0] is State.READ_AGAIN


def test_made_ready_before_a_cut_is_not_ready_after_it() -> None:
    story = story_of(Construction.WET_TOP_FLANGE)
    story.cut(1, 8_900, 100)
    story.mark(O.FIT_PREP, 1)
    assert _far(story, O.FIT_PREP, 1)[0] is State.IN
    story.cut(1, 8_930, 100)
    assert _far(story, O.FIT_PREP, 1) == (State.READ_AGAIN, "cut since: make it ready again")


def test_a_cut_is_done_when_its_ledge_was_read_all_round() -> None:
    story = story_of(Construction.WET_TOP_FLANGE)
    cut = story.cut(1, 8_900, 100)
    assert _far(story, O.CUT, 1)[0] is State.NOT_MEASURED
    hole = story.hole_rows[0].hole_id
    story.read(Quantity.COUNTERBORE_DEPTH, hole, (8_900, 8_901, 8_900), after_cut=cut, hours=HOURS[:3])
    assert _far(story, O.CUT, 1)[0] is State.NOT_MEASURED
    story.read(Quantity.COUNTERBORE_DEPTH, hole, (8_900, 8_901, 8_900, 8_899), after_cut=cut)
    assert _far(story, O.CUT, 1)[0] is State.IN


def test_soaked_is_within_five_kelvin_of_the_room() -> None:
    story = story_of(Construction.WET_BOTTOM_SEAT)
    story.choose(schools.GETTING_IN, schools.HEAT)
    story.mark(O.SOAK)
    assert _far(story, O.SOAK)[0] is State.NOT_MEASURED
    story.take_temperature("room", 20)
    story.take_temperature("part", 25.5)
    assert _far(story, O.SOAK)[0] is State.OUT
    story.take_temperature("part", 24.5)
    assert _far(story, O.SOAK)[0] is State.IN


def test_a_temperature_taken_before_the_oven_proves_neither_heat_nor_cold() -> None:
    story = story_of(Construction.WET_BOTTOM_SEAT)
    story.choose(schools.GETTING_IN, schools.HEAT)
    story.take_temperature("room", 20)
    story.take_temperature("part", 20)
    story.mark(O.HEAT)
    assert _far(story, O.HEAT)[0] is State.NOT_MEASURED
    story.mark(O.SOAK)
    assert _far(story, O.SOAK)[0] is State.NOT_MEASURED
    story.take_temperature("part", 80)
    assert _far(story, O.HEAT)[0] is State.IN
    assert _far(story, O.SOAK)[0] is State.OUT


def test_left_proud_is_proud_all_round_until_it_is_decked() -> None:
    story = story_of(Construction.WET_TOP_FLANGE, holes=1)
    story.choose(schools.HEIGHT, schools.LEFT_PROUD)
    fitting = story.fit(1, story.liner("L1"))
    story.read(Quantity.PROTRUSION, fitting, (400, 401, 399, 400))
    assert judge_job(story.facts()).holes[0].state is State.OUT
    assert _far(story, O.SEAT, 1)[0] is State.IN
    story.mark(O.DECK)
    assert _far(story, O.SEAT, 1)[0] is State.READ_AGAIN
    story.read(Quantity.PROTRUSION, fitting, (400, 401, 399, 400))
    assert _far(story, O.SEAT, 1)[0] is State.OUT
    sunk = story_of(Construction.WET_TOP_FLANGE, holes=1)
    sunk.choose(schools.HEIGHT, schools.LEFT_PROUD)
    fitting = sunk.fit(1, sunk.liner("L1"))
    sunk.read(Quantity.PROTRUSION, fitting, (20, -3, 20, 20))
    assert _far(sunk, O.SEAT, 1)[0] is State.OUT


def test_honed_is_read_since_and_in() -> None:
    story = story_of(Construction.PARENT_BORE)
    story.survey(Quantity.BLOCK_BORE, BORE_PLACES, hole_id=story.hole_id(1))
    assert _far(story, O.HONE, 1) == (State.NOT_MEASURED, "not done yet")
    story.mark(O.HONE, 1)
    assert _far(story, O.HONE, 1)[0] is State.READ_AGAIN
    story.survey(Quantity.BLOCK_BORE, {place: (101_000.0,) for place in BORE_PLACES}, hole_id=story.hole_id(1))
    assert _far(story, O.HONE, 1)[0] is State.OUT
    story.survey(Quantity.BLOCK_BORE, BORE_PLACES, hole_id=story.hole_id(1))
    assert _far(story, O.HONE, 1)[0] is State.IN


def test_the_plate_is_off_once_the_free_bore_was_read_after_honing() -> None:
    story = story_of(Construction.PARENT_BORE)
    story.set_up(Quantity.BLOCK_BORE, load="free, no plate")
    story.survey(Quantity.BLOCK_BORE, BORE_PLACES, hole_id=story.hole_id(1))
    story.mark(O.HONE, 1)
    assert _far(story, O.FREE, 1)[0] is State.NOT_MEASURED
    story.survey(Quantity.BLOCK_BORE, BORE_PLACES, hole_id=story.hole_id(1))
    assert _far(story, O.FREE, 1)[0] is State.IN
    assert _far(story, O.FREE, 2)[0] is State.NOT_MEASURED


def test_the_first_that_is_not_done_is_next_and_what_is_read_again_before_it() -> None:
    story = story_of(Construction.PARENT_BORE)
    nothing = route_of(story.facts()).next
    assert nothing is not None
    # The customer is known, the complaint is not.
    assert nothing.kind.operation is O.TAKE_IN
    story.complaint = "smokes"
    assert route_of(story.facts()).next.kind.operation is O.STRIP  # type: ignore[union-attr]
    assert route_of(story.facts()).operations[1].is_ready
    assert not route_of(story.facts()).operations[4].is_ready
