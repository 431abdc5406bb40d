"""What holds now follows from what was recorded: fittings, cuts, strikes, sets."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.card import LIP
from tests.core.facts import Story
from vallostasis.core.hole_now import hole_now
from vallostasis.core.needs import Action
from vallostasis.core.protrusion.measured import depths_of, hole_parts, judge_job
from vallostasis.core.records.rows import Quantity
from vallostasis.core.subjects import need_of_hole
from vallostasis.core.surveys.places import protrusion_limits
from vallostasis.core.tape.fact_kinds import TapeKind, newest_event
from vallostasis.core.tape.tape import tape_of
from vallostasis.core.uncertainty.decision import State

GOOD = (90, 92, 88, 90)


def _fitted() -> tuple[Story, list[object]]:
    story = Story()
    ids: list[object] = []
    for number in (1, 2):
        fitting = story.fit(number, story.liner(f"L{number}"))
        ids += story.read(Quantity.PROTRUSION, fitting, GOOD)
    return story, ids


def _states(story: Story) -> list[State]:
    return [hole.state for hole in judge_job(story.facts()).holes]


def test_a_cut_takes_the_liner_out_and_striking_the_cut_puts_it_back() -> None:
    story, _ = _fitted()
    hole = story.hole_rows[0]
    before = story.facts().present_fitting(hole.hole_id)
    cut = story.cut(1, 8898, 100)
    assert story.facts().present_fitting(hole.hole_id) is None
    assert "cut, no liner" in hole_now(story.facts(), hole).reopened
    story.strike(cut_id=cut)
    assert story.facts().present_fitting(hole.hole_id) == before
    assert _states(story) == [State.IN, State.IN]


def test_another_liner_takes_the_place_of_the_first_and_gives_it_back_when_struck() -> None:
    story, _ = _fitted()
    first = story.facts().present_fitting(story.hole_rows[0].hole_id)
    other = story.fit(1, story.liner("L9"), 100)
    now = story.facts().present_fitting(story.hole_rows[0].hole_id)
    assert now is not None
    assert now.fitting_id == other
    assert _states(story)[0] is State.NOT_MEASURED, "readings belong to a fitting, not to a hole"
    story.strike(fitting_id=other)
    assert story.facts().present_fitting(story.hole_rows[0].hole_id) == first
    assert _states(story)[0] is State.IN


def test_depths_read_before_a_cut_do_not_count_after_it() -> None:
    story, _ = _fitted()
    hole = story.hole_rows[0]
    story.read(Quantity.COUNTERBORE_DEPTH, hole.hole_id, (8810, 8810, 8810, 8810))
    cut = story.cut(1, 8898, 100)
    assert not depths_of(story.facts(), hole).read
    story.read(Quantity.COUNTERBORE_DEPTH, hole.hole_id, (8899, 8899, 8899, 8899), after_cut=cut)
    ledge = hole_parts(story.facts(), hole).ledge
    assert ledge is not None
    assert ledge.depth_m == pytest.approx(8899e-6)


def test_the_newest_set_counts_alone() -> None:
    story, _ = _fitted()
    fitting = story.facts().present_fitting(story.hole_rows[0].hole_id)
    assert fitting is not None
    story.read(Quantity.PROTRUSION, fitting.fitting_id, (30, 30))
    now = hole_now(story.facts(), story.hole_rows[0])
    assert now.state is State.OUT
    assert now.missing_hours == (6.0, 9.0)


def test_a_flange_set_whose_readings_are_all_struck_gives_way_to_the_one_before() -> None:
    story, _ = _fitted()
    liner = story.facts().liners[0]
    story.read(Quantity.FLANGE_THICKNESS, liner.liner_id, (8900,))
    (wrong,) = story.read(Quantity.FLANGE_THICKNESS, liner.liner_id, (8990,))
    story.strike(reading_id=wrong)
    flange = hole_parts(story.facts(), story.hole_rows[0]).flange
    assert flange is not None
    assert flange.size_m == pytest.approx(8900e-6)


def test_limits_follow_the_shims_of_the_fitting_that_is_in() -> None:
    story, _ = _fitted()
    card = story.card
    assert hole_now(story.facts(), story.hole_rows[0]).limits == protrusion_limits(card, with_shim=False)
    story.fit(1, story.liner("L9"), 100, 50)
    assert hole_now(story.facts(), story.hole_rows[0]).limits == protrusion_limits(card, with_shim=True)
    shims = hole_parts(story.facts(), story.hole_rows[0]).shims
    assert [shim.size_m for shim in shims] == pytest.approx([100e-6, 50e-6])


def test_reading_on_another_land_opens_every_hole_until_it_is_read_there() -> None:
    story, _ = _fitted()
    story.change_land(LIP)
    assert _states(story) == [State.NOT_MEASURED, State.NOT_MEASURED]


def test_an_open_hole_asks_for_its_ledge_and_then_for_its_liner() -> None:
    story, _ = _fitted()
    hole = story.hole_rows[0]
    cut = story.cut(1, 8898, 100)

    def need() -> Action:
        facts = story.facts()
        return need_of_hole(facts, hole, judge_job(facts).holes[0]).action

    assert need() is Action.READ_DEPTH
    story.read(Quantity.COUNTERBORE_DEPTH, hole.hole_id, (8899, 8899, 8899, 8899), after_cut=cut)
    assert need() is Action.FIT
    story.fit(1, story.facts().liners[0].liner_id, 100)
    assert need() is Action.READ


@settings(max_examples=40)
@given(toggles=st.lists(st.integers(0, 7), max_size=20))
def test_striking_and_restoring_in_any_order_comes_back_to_the_same_states(toggles: list[int]) -> None:
    story, ids = _fitted()
    start = _states(story)
    struck: set[int] = set()
    for place in toggles:
        story.strike(struck=place not in struck, reading_id=ids[place])
        struck ^= {place}
    facts = story.facts()
    assert set(facts.struck) == {ids[place] for place in struck}
    for number, hole in enumerate(judge_job(facts).holes):
        missing = {place for place in struck if place // 4 == number}
        assert (hole.state is State.NOT_MEASURED) == bool(missing)
    for place in struck:
        story.strike(struck=False, reading_id=ids[place])
    assert _states(story) == start


def test_events_only_grow() -> None:
    story, ids = _fitted()
    seen = [newest_event(story.facts())]
    story.strike(reading_id=ids[0])
    seen.append(newest_event(story.facts()))
    story.cut(1, 8898, 100)
    seen.append(newest_event(story.facts()))
    assert seen == sorted(set(seen))


def test_a_liner_drawn_is_out_until_the_draw_is_struck() -> None:
    story, _ = _fitted()
    hole = story.hole_rows[0]
    before = story.facts().present_fitting(hole.hole_id)
    drawn = story.draw(1)
    now = story.facts()
    assert now.present_fitting(hole.hole_id) is None
    assert _states(story) == [State.NOT_MEASURED, State.IN]
    [row] = [one for one in tape_of(now) if one.kind is TapeKind.DRAWN]
    assert (row.words, row.where.hole, row.event) == ("L1 drawn", 1, drawn)
    story.strike(of_event=drawn)
    assert story.facts().present_fitting(hole.hole_id) == before
    assert _states(story) == [State.IN, State.IN]


def test_a_hole_is_as_found_until_something_is_done_to_it() -> None:
    story = Story()
    hole = story.hole_rows[0]
    assert story.facts().is_as_found(hole.hole_id)
    fitting = story.fit(1, story.liner("L1"))
    assert not story.facts().is_as_found(hole.hole_id)
    story.strike(fitting_id=fitting)
    assert story.facts().is_as_found(hole.hole_id)
    cut = story.cut(1, 8898, 100)
    assert not story.facts().is_as_found(hole.hole_id), "what was cut does not stand as it came in"
    assert "as found" not in hole_now(story.facts(), hole).reopened
    story.strike(cut_id=cut)
    assert "nothing read as found" in hole_now(story.facts(), hole).reopened
