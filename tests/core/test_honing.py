"""Honing round by round: rate and its band, stops, strokes, where a hole stands, when it is done."""

from datetime import timedelta
from decimal import Decimal
from uuid import uuid4

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import stats

from tests.core.facts import WHEN, Story, level
from tests.core.test_boring import told
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.honing.now import HoneNow, HoneState, hone_now
from vallostasis.core.honing.rate import FIRST_STROKES, Rate, rate_of, stop_after, strokes_to_go
from vallostasis.core.honing.rounds import rounds_of
from vallostasis.core.honing.stroke import plan_stroke
from vallostasis.core.records.honing import (
    HoneAim,
    HoneDrive,
    HoneMark,
    HoneMarkKind,
    HoneMethod,
    HoneRound,
    HoneSetting,
    HoneStage,
)
from vallostasis.core.records.rows import Quantity
from vallostasis.core.surveys.survey import survey_of
from vallostasis.core.trail import Phrase

# Piston 100.400 and the middle of 0.070 to 0.110.
WANTED = 100_490.0


def test_a_rate_and_its_band_are_those_of_a_prediction_interval() -> None:
    """Against SciPy's t distribution: one more of five values lies within t·s·√(1 + 1/5) nine times of ten."""
    per = [0.8, 0.9, 0.85, 0.75, 0.9]
    strokes = [20.0, 30.0, 40.0, 25.0, 50.0]
    rate = rate_of([one * many * 1e-6 for one, many in zip(per, strokes, strict=True)], strokes)
    assert rate is not None
    assert rate.is_learned
    assert rate.per_stroke_m == pytest.approx(np.mean(per) * 1e-6)
    half = stats.t.ppf(0.95, 4) * np.std(per, ddof=1) * np.sqrt(1.2) * 1e-6
    assert rate.within_m == pytest.approx(half)
    # Without a ± of what is left the edges are left over the fastest and the slowest.
    band = strokes_to_go(rate, 40e-6, 0.0)
    assert band is not None
    assert band.fast == pytest.approx(40e-6 / (rate.per_stroke_m + half))
    assert band.middle == pytest.approx(40e-6 / rate.per_stroke_m)
    assert band.slow == pytest.approx(40e-6 / (rate.per_stroke_m - half))
    wider = strokes_to_go(rate, 40e-6, 2e-6)
    assert wider is not None and wider.slow is not None
    assert wider.fast < band.fast
    assert wider.slow > 40e-6 / (rate.per_stroke_m - half)


def test_what_readings_scatter_by_is_no_scatter_of_the_stones() -> None:
    """Variances add up (GUM 5.1.2): of 1, 1.2 and 0.8 a stroke, readings of 1 in 10 strokes make 0.1² of the 0.2²."""
    taken = [10e-6, 12e-6, 8e-6]
    seen = rate_of(taken, [10.0] * 3)
    parted = rate_of(taken, [10.0] * 3, [1e-6] * 3)
    assert seen is not None and parted is not None
    assert seen.spread_m == pytest.approx(0.2e-6)
    assert parted.spread_m == pytest.approx(np.sqrt(0.04 - 0.01) * 1e-6)
    # Few rounds tell a scatter badly: never below half of what is seen.
    drowned = rate_of(taken, [10.0] * 3, [5e-6] * 3)
    assert drowned is not None
    assert drowned.spread_m == pytest.approx(0.1e-6)


def test_a_rate_is_of_the_newest_rounds_and_of_none_that_took_nothing() -> None:
    assert rate_of([], []) is None
    assert rate_of([-1e-6, -2e-6], [10.0, 10.0]) is None
    worn = rate_of([2e-5] * 5 + [1e-5] * 8, [10.0] * 13)
    assert worn is not None
    assert (worn.per_stroke_m, worn.rounds) == (pytest.approx(1e-6), 8)
    with pytest.raises(OutOfDomain):
        rate_of([1e-6], [0.0])


def test_nothing_is_foretold_from_two_rounds_or_from_rates_all_over_the_place() -> None:
    two = rate_of([1e-5, 1.2e-5], [10.0, 10.0])
    assert two is not None and not two.is_learned
    assert strokes_to_go(two, 4e-5, 0.0) is None
    wild = rate_of([1e-6, 3e-5, 1e-5], [10.0] * 3)
    assert wild is not None
    band = strokes_to_go(wild, 4e-5, 0.0)
    assert band is not None and band.slow is None and band.fast > 0
    assert strokes_to_go(wild, -1e-6, 0.0) is not None


def test_a_round_stops_at_its_fast_edge_at_the_latest_at_sixty_in_a_hundred() -> None:
    """A stroke takes 1 µm ± nothing: 100 µm to go is stopped at 60 strokes; 20 first where nobody knows."""
    sure = Rate(1e-6, 1e-9, 5)
    far = 1.0
    assert stop_after(None, 100e-6, 1e-6, far, 0.0) == FIRST_STROKES
    assert stop_after(Rate(1e-6, 0.0, 1), 20e-6, 1e-6, far, 0.0) == 12
    assert stop_after(sure, 100e-6, 1e-6, far, 0.0) == 60
    unsure = Rate(1e-6, 0.5e-6, 5)
    assert stop_after(unsure, 100e-6, 1e-6, far, 0.0) == int(100 / (1 + stats.t.ppf(0.95, 4) * 0.5 * np.sqrt(1.2)))
    # What would be left after the share is not worth a round of its own: to the fast edge.
    assert stop_after(Rate(1e-6, 1e-12, 9), 4.5e-6, 1e-6, far, 0.0) == 4
    assert stop_after(Rate(1e-6, 1e-12, 9), 5.5e-6, 1e-6, far, 0.0) == 3
    assert stop_after(sure, 0.0, 1e-6, far, 0.0) == 0
    # The greatest size is kept from by the whole doubt of what is left.
    assert stop_after(Rate(1e-6, 1e-12, 9), 100e-6, 1e-6, 30e-6, 5e-6) == int(30 - stats.norm.ppf(0.95) * 5)
    assert stop_after(sure, 100e-6, 1e-6, 0.0, 0.0) == 0
    assert stop_after(sure, 100e-6, 1e-6, 3e-6, 3e-6) == 0


@given(st.floats(0.05, 0.6), st.floats(0.01, 0.4), st.floats(0.0, 0.3))
def test_a_stroke_runs_out_equally_and_never_touches_what_stands_below(
    bore_m: float, stone_m: float, free_m: float
) -> None:
    """Closed form: both ends of the stroke put the stone the overrun beyond the bore."""
    try:
        plan = plan_stroke(bore_m, stone_m, free_m)
    except OutOfDomain:
        assert stone_m >= bore_m + 2 * min(free_m, stone_m / 3) - 1e-12
        return
    assert plan.above_m == plan.below_m
    assert plan.below_m <= free_m
    assert plan.above_m <= stone_m / 3 + 1e-12
    assert plan.stroke_m + stone_m == pytest.approx(bore_m + plan.above_m + plan.below_m)
    assert plan.stop_m == pytest.approx(free_m - plan.below_m)


def test_where_nothing_stands_below_a_third_of_the_stone_runs_out() -> None:
    """Common practice, no published source; unequal overrun bells the end that sees more stone, so it is equal."""
    free = plan_stroke(0.2, 0.09, None)
    assert (free.above_m, free.below_m, free.stop_m) == (pytest.approx(0.03), pytest.approx(0.03), None)
    for bore, stone in ((0.0, 0.09), (0.2, 0.0)):
        with pytest.raises(OutOfDomain):
            plan_stroke(bore, stone, None)


class Hone:
    """A parent bore at a hone: told round by round, read by an exact gauge."""

    def __init__(self, *, fine_um: float = 25, brush_um: float = 0, drive: HoneDrive = HoneDrive.MACHINE,
                 method: HoneMethod = HoneMethod.OIL, **piston: float | None) -> None:  # fmt: skip
        self.story: Story = told(**piston)  # type: ignore[arg-type]
        self.story.pace = timedelta(seconds=1)
        self.story.take_temperature("part", 20.0)
        self.hole = self.story.hole_rows[0].hole_id
        event = self.story._next()
        self.story._add("hone_settings", HoneSetting(
            uuid4(), self.hole, HoneAim.PISTON, method, drive, 70, 220, Decimal(str(fine_um)), Decimal(str(brush_um)),
            Decimal(150_000), Decimal(75_000), None, Decimal(90), Decimal(36), Decimal(45), "", self.story.now, "Wren",
            event))  # fmt: skip

    def read(self, *levels_um: float) -> None:
        top, bottom = levels_um if len(levels_um) == 2 else (levels_um[0], levels_um[0])
        self.story.survey(Quantity.BLOCK_BORE, {level(d, a): (size,) for d, size in ((15.0, top), (135.0, bottom))
                                                for a in (0.0, 90.0)}, hole_id=self.hole)  # fmt: skip

    def begin(self, stage: HoneStage) -> HoneRound:
        event = self.story._next()
        grit = {HoneStage.ROUGH: 70, HoneStage.FINE: 220, HoneStage.BRUSH: 0}[stage]
        begun = HoneRound(uuid4(), self.hole, HoneAim.PISTON, stage, grit, HoneMethod.OIL, self.story.now, "Wren",
                          event)  # fmt: skip
        self.story._add("hone_rounds", begun)
        return begun

    def stop(self, begun: HoneRound, strokes: int) -> None:
        self.story._add("hone_marks", HoneMark(uuid4(), begun.round_id, HoneMarkKind.STOPPED, strokes, "",
                                               self.story.now, "Wren", self.story._next()))  # fmt: skip

    def round(self, stage: HoneStage, strokes: int, *after_um: float) -> None:
        self.stop(self.begin(stage), strokes)
        self.read(*after_um)

    @property
    def now(self) -> HoneNow:
        facts = self.story.facts()
        return hone_now(facts, facts.holes[0], HoneAim.PISTON)


def test_what_is_left_is_the_piston_and_its_clearance_less_the_mean_of_the_bore() -> None:
    hone = Hone()
    hone.read(WANTED - 60, WANTED - 50)
    now = hone.now
    assert now.left is not None
    assert now.left.value_m == pytest.approx(55e-6)
    assert [one.left.value_m for one in now.levels] == [pytest.approx(60e-6), pytest.approx(50e-6)]
    assert (now.state, now.stage, now.stop) == (HoneState.READY, HoneStage.ROUGH, FIRST_STROKES)
    # What the fine stones need stays: 25 µm; nobody knows a rate, so nothing is foretold.
    assert now.stage_end_m == pytest.approx(25e-6)
    assert now.to_stage_end is None and now.minutes is None
    assert [(one.stage, one.after_m) for one in now.ahead] == [(HoneStage.ROUGH, None), (HoneStage.FINE, None)]


def test_a_stopped_round_asks_for_a_reading_and_then_teaches_its_rate() -> None:
    hone = Hone()
    hone.read(WANTED - 120)
    begun = hone.begin(HoneStage.ROUGH)
    assert hone.now.state is HoneState.RUNNING
    hone.stop(begun, 20)
    assert hone.now.state is HoneState.MEASURE
    hone.read(WANTED - 102)
    for after in (84, 67):
        hone.round(HoneStage.ROUGH, 20, WANTED - after)
    now = hone.now
    assert [one.taken_m for one in now.made] == [pytest.approx(18e-6), pytest.approx(18e-6), pytest.approx(17e-6)]
    assert now.rate is not None and now.rate.is_learned
    assert now.rate.per_stroke_m == pytest.approx((18 + 18 + 17) / 60 * 1e-6)
    # 42 to the end of the stage at 0.883 a stroke: 60 in 100 of it are 28.5 strokes, its fast edge may be nearer.
    assert now.stop == 28
    assert now.ahead[0].after_m == pytest.approx(67e-6 - now.stop * now.rate.per_stroke_m)
    assert now.ahead[0].fast_m is not None and now.ahead[0].slow_m is not None
    assert now.ahead[0].fast_m < now.ahead[0].after_m < now.ahead[0].slow_m
    assert now.ahead[-1].stage is HoneStage.FINE
    assert now.minutes is None


def test_a_tight_level_is_given_short_strokes() -> None:
    hone = Hone()
    hone.read(WANTED - 60)
    hone.round(HoneStage.ROUGH, 20, WANTED - 46, WANTED - 34)
    tight, easy = hone.now.levels
    # 6 µm tighter than the mean at 1 µm a stroke.
    assert (tight.more_strokes, easy.more_strokes) == (6, 0)
    assert any("short strokes" in said.text for said in hone.now.says)


def test_short_strokes_are_counted_in_what_the_stones_at_hand_take() -> None:
    """6 µm tight: with rough stones of 1 µm a stroke six, whatever the fine ones take; with those, 0.2 a stroke, 30."""
    hone = Hone()
    hone.read(WANTED - 80)
    hone.round(HoneStage.ROUGH, 20, WANTED - 66, WANTED - 54)
    assert (hone.now.stage, hone.now.levels[0].more_strokes) == (HoneStage.ROUGH, 6)
    hone.round(HoneStage.ROUGH, 45, WANTED - 21, WANTED - 9)
    # Nothing is known of the fine stones yet.
    assert (hone.now.stage, hone.now.levels[0].more_strokes) == (HoneStage.FINE, 0)
    hone.round(HoneStage.FINE, 20, WANTED - 17, WANTED - 5)
    assert (hone.now.stage, hone.now.levels[0].more_strokes) == (HoneStage.FINE, 30)


def test_a_round_stops_before_the_widest_level_is_too_large() -> None:
    """60 in 100 of the 45 to the fine stones would be 27 strokes of 1 µm: the bottom may widen by 25 and no more."""
    hone = Hone()
    hone.read(WANTED - 195, WANTED - 65)
    for top in (175, 155, 135):
        hone.round(HoneStage.ROUGH, 20, WANTED - top, WANTED - top + 130)
    now = hone.now
    assert now.rate is not None and now.left is not None
    assert (now.rate.per_stroke_m, now.left.value_m) == (pytest.approx(1e-6), pytest.approx(70e-6))
    assert [one.left.value_m for one in now.levels] == [pytest.approx(135e-6), pytest.approx(5e-6)]
    assert now.stage is HoneStage.ROUGH
    assert 1 <= now.stop < 25


def test_a_bore_is_done_when_every_level_is_inside_and_nothing_is_left_beyond_its_uncertainty() -> None:
    hone = Hone(brush_um=2)
    hone.read(WANTED - 30)
    for after in (22, 15, 8, 3):
        hone.round(HoneStage.FINE, 20, WANTED - after)
    assert hone.now.stage is HoneStage.BRUSH
    assert hone.now.stop == 50
    hone.round(HoneStage.BRUSH, 50, WANTED - 1)
    assert (hone.now.state, hone.now.stage) == (HoneState.DONE, None)


def test_a_bore_over_its_greatest_is_too_large_and_says_by_how_much() -> None:
    hone = Hone()
    hone.read(WANTED - 10)
    hone.round(HoneStage.FINE, 40, WANTED + 15, WANTED + 59)
    now = hone.now
    assert now.state is HoneState.TOO_LARGE
    said = [one for one in now.says if "larger than the greatest" in one.text]
    # The greatest is 20 over the middle.
    assert [term.value for one in said for term in one.terms] == [pytest.approx(39e-6)]


def test_without_a_piston_no_size_is_named_and_without_stones_it_is_set_up_first() -> None:
    without = Hone(piston_um=None)
    assert without.now.state is HoneState.REFUSED
    assert isinstance(without.now.target, Phrase)
    bare = Hone()
    bare.story.rows["hone_settings"] = []
    assert bare.now.state is HoneState.SET_UP


def test_a_round_makes_what_was_read_before_it_to_be_read_again() -> None:
    hone = Hone()
    hone.read(WANTED - 60)
    facts = hone.story.facts()
    part = hone.now.survey.part
    assert survey_of(facts, Quantity.BLOCK_BORE, part).disturbed is None
    hone.stop(hone.begin(HoneStage.ROUGH), 20)
    assert survey_of(hone.story.facts(), Quantity.BLOCK_BORE, part).disturbed is not None


def test_a_round_that_nobody_read_after_teaches_nothing() -> None:
    hone = Hone()
    hone.read(WANTED - 60)
    hone.stop(hone.begin(HoneStage.ROUGH), 20)
    hone.stop(hone.begin(HoneStage.ROUGH), 20)
    hone.read(WANTED - 30)
    facts = hone.story.facts()
    first, second = rounds_of(facts, facts.holes[0], HoneAim.PISTON)
    assert first.taken_m is None and second.taken_m is None
    assert first.strokes == 20
    assert second.begun.begun_at > WHEN


@pytest.mark.parametrize(("drive", "method", "word"), [
    (HoneDrive.DRILL, HoneMethod.OIL, "grabs"), (HoneDrive.MACHINE, HoneMethod.DRY, "dust"),
    (HoneDrive.MACHINE, HoneMethod.OIL, "compressed air")])  # fmt: skip
def test_what_can_hurt_is_said_by_how_it_is_honed(drive: HoneDrive, method: HoneMethod, word: str) -> None:
    said = " ".join(Hone(drive=drive, method=method).now.cautions)
    assert word in said
    assert ("grabs" in said) == (drive is HoneDrive.DRILL)
