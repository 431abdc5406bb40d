"""What a fit leads to: which part is sized, the bore that the press leaves, whether the liner is seated."""

from dataclasses import replace
from uuid import UUID

import pytest

from tests.core.card import limit
from tests.core.facts import Story, level
from tests.core.test_fits import AXES, LEVELS, OUTSIDE, found
from tests.core.test_fits import TERMS as THIN
from tests.core.test_fits import told as tell
from tests.core.test_pulls import Puller
from vallostasis.core.fits.effects import FitWalls, walls_of
from vallostasis.core.fits.expected_bore import expected_bore
from vallostasis.core.fits.seated import SeatLook, seat_checks
from vallostasis.core.fits.sizing import Sizings, sizings_of
from vallostasis.core.fits.thick_walled import pressed
from vallostasis.core.fits.wanted import Sizing
from vallostasis.core.records.fit_terms import FitTerms
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.pulls import PullMarkKind as K
from vallostasis.core.records.rows import Quantity
from vallostasis.core.uncertainty.decision import State

TERMS = replace(THIN, least_boss_wall=limit("10"))


def told(terms: FitTerms = TERMS) -> tuple[Story, UUID, UUID]:
    return tell(terms)


def ways(facts: JobFacts, school: str | None = None) -> Sizings:
    fit = found(facts, school=school)
    walls = walls_of(facts, fit)
    assert isinstance(walls, FitWalls)
    both = sizings_of(facts.card, fit, walls)
    assert both is not None
    return both


def egg(story: Story, hole: object, by_um: float) -> None:
    read = {level(d, a): (103_980.0 - (by_um if a else 0.0),) for _, d in LEVELS for a in AXES}
    story.survey(Quantity.BLOCK_BORE, read, hole_id=hole)  # type: ignore[arg-type]


def test_both_ways_take_the_same_and_each_from_its_own_wall() -> None:
    """16 µm off at the middle: block (125 − 103.998)/2 and liner (103.998 − 100)/2 less half of it a side."""
    block, sleeve = ways(told()[0].facts()).ways
    assert block.takes_off is not None and sleeve.takes_off is not None
    assert block.takes_off.value_m == sleeve.takes_off.value_m == pytest.approx(16e-6)
    mean = sum(OUTSIDE.values()) / 3e6
    assert block.wall_m == pytest.approx((0.125 - mean) / 2 - 8e-6)
    assert sleeve.wall_m == pytest.approx((mean - 0.100) / 2 - 8e-6)
    assert (block.is_chosen, sleeve.is_chosen) == (True, False)
    assert (block.is_thin, sleeve.is_thin) == (False, False)


def test_a_hone_can_dwell_where_one_level_gives() -> None:
    both = ways(told()[0].facts())
    assert both.better is Sizing.BLOCK
    assert "only 1 of 3 levels" in both.says.text


def test_a_ground_sleeve_keeps_what_the_hole_is_out_of_round_by() -> None:
    story, hole, _ = told()
    egg(story, hole, 20.0)
    both = ways(story.facts())
    assert (both.ways[0].egg_m, both.ways[1].egg_m) == (0.0, pytest.approx(20e-6))
    assert both.better is Sizing.BLOCK
    assert "a ground sleeve is round" in both.says.text


def test_a_wall_that_would_be_too_thin_decides() -> None:
    def better(**terms: object) -> Sizing | None:
        return ways(told(replace(TERMS, **terms))[0].facts()).better  # type: ignore[arg-type]

    assert better(least_boss_wall=limit("10.498")) is Sizing.SLEEVE
    assert better(least_liner_wall=limit("1.998")) is Sizing.BLOCK


def test_where_metal_is_missing_neither_way_helps_and_a_whole_length_may_go_either_way() -> None:
    neither = ways(told()[0].facts(), "firm")
    assert neither.better is None
    assert "metal is missing" in neither.says.text
    story, hole, _ = told()
    egg(story, hole, 0.0)
    tight = {level(d, a): (103_950.0,) for _, d in LEVELS for a in AXES}
    story.survey(Quantity.BLOCK_BORE, tight, hole_id=hole)
    both = ways(story.facts())
    assert both.better is None
    assert "Either way" in both.says.text
    bare = told(replace(TERMS, light=FitTerms().light, firm=FitTerms().firm))[0].facts()
    assert sizings_of(bare.card, found(bare), None) is None


def test_the_bore_that_a_press_leaves_is_the_inside_less_what_it_closes_in() -> None:
    """Lamé turned into sizes: inside as read, level by level; finished size 100 by the sheet."""
    story, _, liner = told()
    story.survey(Quantity.LINER_INSIDE, {level(d, a): (99_970.0,) for _, d in LEVELS for a in AXES}, liner_id=liner)
    facts = story.facts()
    fit = found(facts)
    walls = walls_of(facts, fit)
    assert isinstance(walls, FitWalls)
    bore = expected_bore(facts, facts.holes[0], "A")
    assert bore is not None and bore.inside_was_read
    for row, depth in zip(bore.levels, OUTSIDE, strict=True):
        closed = float(pressed(walls.rings, (OUTSIDE[depth] - 103_980) * 1e-6 - walls.lost_m).close_in_m)
        assert row.bore.value_m == pytest.approx(0.09997 - closed, abs=1e-9)
        assert row.to_hone is not None
        assert row.to_hone.value_m == pytest.approx(30e-6 + closed, abs=1e-9)
        assert row.to_hone.expanded_m > 0


def test_an_inside_nobody_read_is_as_drawn_and_wider() -> None:
    story, _, liner = told()
    facts = story.facts()
    drawn = expected_bore(facts, facts.holes[0], "A")
    assert drawn is not None and not drawn.inside_was_read
    story.survey(Quantity.LINER_INSIDE, {level(d, a): (100_000.0,) for _, d in LEVELS for a in AXES}, liner_id=liner)
    facts = story.facts()
    read = expected_bore(facts, facts.holes[0], "A")
    assert read is not None
    assert drawn.levels[0].bore.expanded_m > read.levels[0].bore.expanded_m
    story.fit(1, liner)
    facts = story.facts()
    assert expected_bore(facts, facts.holes[0], "A") is None, "it is in: its bore is read, not expected"


def states(story: Story) -> dict[SeatLook, State]:
    facts = story.facts()
    return {one.look: one.state for one in seat_checks(facts, facts.holes[0])}


def test_a_seat_is_what_somebody_looked_at() -> None:
    story, _, liner = told()
    assert states(story) == {}
    puller = Puller(story, liner).looked()
    puller.note(K.TOUCHES)
    puller.note(K.HOME)
    story.fit(1, liner)
    open_ones = states(story)
    assert set(open_ones) == {SeatLook.FEELER, SeatLook.SECOND_PRESS, SeatLook.LABEL}
    assert set(open_ones.values()) == {State.NOT_MEASURED}
    puller.note(K.FEELER_ENTERS)
    assert states(story)[SeatLook.FEELER] is State.OUT
    puller.note(K.SECOND_STILL)
    puller.note(K.FEELER_NOWHERE)
    puller.note(K.LABELLED)
    assert set(states(story).values()) == {State.IN}, "the newest look holds"
    facts = story.facts()
    assert seat_checks(facts, facts.holes[0])[0].by == "Wren"
