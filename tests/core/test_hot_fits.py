"""Fits at temperature against worked figures of the trade, by constant expansions told with each."""

import numpy as np
import pytest

from tests.core.card import dry_card, length, limit
from tests.core.facts import Story, level
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.fits.fit import Fit, fit_of
from vallostasis.core.fits.hot import Grows, gap_change, height_change, press_at, vanishes_at
from vallostasis.core.fits.hot_hold import HotHold, hot_hold
from vallostasis.core.records.fit_terms import FitTerms, Holder, RunningState, SeatAt
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import CardLevel, FeatureSheet
from vallostasis.core.uncertainty.decision import State

ALLOY = Grows(10.5e-6, 21.5e-6)
THOU = 25.4e-6


def test_an_iron_liner_in_aluminium_is_free_at_56_and_with_the_liner_35_k_hotter_at_91() -> None:
    """38 µm on 95 mm; worked beforehand in two ways (closed form and a root finder)."""
    assert vanishes_at(38e-6, 0.095, ALLOY) == pytest.approx(56.4, abs=0.1)
    assert vanishes_at(38e-6, 0.095, ALLOY, 35.0) == pytest.approx(90.0, abs=1.5)
    gone = vanishes_at(38e-6, 0.095, ALLOY, 35.0)
    assert gone is not None
    assert press_at(38e-6, 0.095, ALLOY, gone + 35, gone) == pytest.approx(0.0, abs=1e-12)


def test_heat_never_loosens_alike_metals_and_a_fit_without_size_is_refused() -> None:
    assert vanishes_at(25e-6, 0.1, Grows(11e-6, 10.5e-6)) is None
    with pytest.raises(OutOfDomain):
        vanishes_at(25e-6, 0.0, ALLOY)


def test_hotter_liner_tightens_hotter_block_loosens() -> None:
    cold = press_at(30e-6, 0.1, ALLOY, 20, 20)
    assert cold == pytest.approx(30e-6)
    assert press_at(30e-6, 0.1, ALLOY, 60, 20) == pytest.approx(30e-6 + 0.1 * 10.5e-6 * 40)
    assert press_at(30e-6, 0.1, ALLOY, 20, 60) == pytest.approx(30e-6 - (0.1 - 30e-6) * 21.5e-6 * 40)


def test_a_liner_of_130_mm_sinks_by_4_9_thou_at_80_k() -> None:
    """Iron 11.0e-6, aluminium 23.0e-6, +80 K alike: 0.125 mm. Closed form with those coefficients."""
    drop = height_change(0.130, Grows(11.0e-6, 23.0e-6), 100, 100)
    assert drop / THOU == pytest.approx(-4.9, abs=0.05)


def test_a_uniformly_hot_aluminium_block_opens_the_gap_and_a_hot_sleeve_closes_it() -> None:
    """Iron 89 mm at 90 mm pitch, both at 90 °C: +0.076 mm; it begins to close with the sleeve at about 168 °C."""
    grows = Grows(11.0e-6, 23.0e-6)
    assert gap_change(0.090, 0.089, grows, 90, 90) == pytest.approx(0.076e-3, abs=0.5e-6)
    assert gap_change(0.090, 0.089, grows, 168, 90) == pytest.approx(0.0, abs=0.6e-6)


def _collar(repeat_um: float = 0.2, gap_um: float | None = None, **terms: object) -> tuple[HotHold, Story]:
    levels = (CardLevel("collar", length("10")),)
    card = dry_card(
        FeatureSheet(Quantity.BLOCK_BORE, limit("95"), levels=levels, axes_deg=(0.0, 90.0)),
        FeatureSheet(Quantity.LINER_OUTSIDE, limit("95"), levels=levels, axes_deg=(0.0, 90.0)),
        block_material="cast aluminium",
        liner_material="cast iron",
        fits=FitTerms(boss_outside=limit("108"), liner_inside=limit("86"), **terms),  # type: ignore[arg-type]
    )
    story = Story(card=card, resolution_um=repeat_um, repeatability_um=repeat_um)
    hole, liner = story.hole_rows[0].hole_id, story.liner("A")
    story.survey(Quantity.BLOCK_BORE, {level(10, axis): (94_962.0,) for axis in (0.0, 90.0)}, hole_id=hole)
    story.survey(Quantity.LINER_OUTSIDE, {level(10, axis): (95_000.0,) for axis in (0.0, 90.0)}, liner_id=liner)
    if gap_um is not None:
        story.survey(Quantity.NEIGHBOUR_GAP, {level(10): (gap_um,)}, part="gap-1-2")
    facts = story.facts()
    fit = fit_of(facts, facts.holes[0], "A")
    assert isinstance(fit, Fit)
    found = hot_hold(facts, fit)
    assert isinstance(found, HotHold)
    return found, story


def test_what_holds_it_hot_is_named_or_said_to_be_unknown() -> None:
    found, _ = _collar()
    assert found.gone_alike_c is not None
    assert found.gone_alike_c.value_m == pytest.approx(20 + 38e-6 / (0.094962 * 22e-6 - 0.095 * 10.5e-6), rel=1e-3)
    assert found.moments[0].grip is State.IN
    assert [one.grip for one in found.moments][-1] is State.OUT
    assert "is not known" in found.says[0].text
    nothing, _ = _collar(holder=Holder.NOTHING)
    assert "nothing holds" in nothing.says[0].text
    compound, _ = _collar(holder=Holder.COMPOUND)
    assert any("maker's sheet" in one.text for one in compound.says)
    untold, _ = _collar(holder=Holder.HEAD)
    assert any("nobody told with what load" in one.text for one in untold.says)


def test_a_clamp_loses_what_the_liner_shrinks_back_and_is_held_against_the_drag() -> None:
    states = (RunningState("hot", 100, 100),)
    terms = {"holder": Holder.HEAD, "clamp_kn": 20.0, "clamp_loss_kn": 2.0, "drag_kn": 1.0, "seat": SeatAt.MIDDLE,
             "seat_depth": limit("60"), "running": states}  # fmt: skip
    found, _ = _collar(**terms)
    hot = found.moments[1]
    drop = 0.060 * (22e-6 - 10.5e-6) * 80
    assert hot.height.value_m == pytest.approx(-drop)
    assert hot.by_clamp_n == pytest.approx((20.0 - 2.0 * drop / 1e-5) * 1000)
    assert hot.holds is State.IN
    # Of 12.2 kN 1.16 is left, of 11.2 0.16: against a drag of one, each good to 15 %.
    assert _collar(**{**terms, "clamp_kn": 12.2})[0].moments[1].holds is State.CANNOT_TELL
    assert _collar(**{**terms, "clamp_kn": 11.2})[0].moments[1].holds is State.OUT
    assert _collar(**{**terms, "drag_kn": None})[0].moments[1].holds is State.NOT_MEASURED
    assert any("sunk hot" in one.text for one in found.says)


def test_a_press_whose_own_plus_minus_reaches_nought_is_not_said_to_hold() -> None:
    """Held by the press alone: what is sure with a fine gauge is not told with a coarse one."""
    terms = {"holder": Holder.NOTHING, "drag_kn": 0.9, "liner_length": limit("130")}
    assert _collar(**terms)[0].moments[0].holds is State.IN
    coarse, _ = _collar(repeat_um=15.0, **terms)
    assert coarse.moments[0].press.expanded_m > coarse.moments[0].press.value_m
    assert coarse.moments[0].holds is State.CANNOT_TELL


def test_the_plus_minus_of_where_it_lets_go_holds_hidden_expansions() -> None:
    """Expansions drawn within what a handbook is good to, the press by its ±; with the liner hotter too. JCGM 101."""
    rng = np.random.default_rng(3)
    states = (RunningState("hot", 95, 130),)
    found, _ = _collar(running=states)
    for told, hotter in ((found.gone_alike_c, 0.0), (found.gone_hotter_c, 35.0)):
        assert told is not None
        presses = 38e-6 + rng.normal(0, found.moments[0].press.standard_m, 2000)
        grows = [Grows(10.5e-6 + liner, 22e-6 + block) for liner, block in rng.uniform(-1e-6, 1e-6, (2000, 2))]
        drawn = [vanishes_at(press, 0.095, one, hotter) for press, one in zip(presses, grows, strict=True)]
        inside = np.mean([one is not None and abs(one - told.value_m) <= told.expanded_m for one in drawn])
        assert 0.93 <= inside <= 1.0
        spread = np.std([one for one in drawn if one is not None])
        assert told.budget.standard_m == pytest.approx(spread, rel=0.1)


def test_sleeves_that_touch_hot_are_named_as_side_loading() -> None:
    found, story = _collar(running=(RunningState("sleeve far hotter", 90, 400),), neighbour_gap=limit("0.01"))
    # The pitch of the card leaves 73 mm between them: no touch.
    assert story.card.layout.bore_pitch.metres == pytest.approx(0.168)
    assert not any(one.gap_state is State.OUT for one in found.moments)
    assert found.moments[1].gap.value_m == pytest.approx(
        0.168 - 0.095 + 0.168 * 22e-6 * 70 - 0.095 * 10.5e-6 * 380, rel=1e-4
    )


def test_the_plus_minus_of_heights_and_gaps_holds_hidden_expansions() -> None:
    """Expansions drawn within what a handbook is good to: height by the seat, gap by pitch and outside. JCGM 101."""
    rng = np.random.default_rng(5)
    state = RunningState("hot", 95, 160)
    found, _ = _collar(running=(state,), seat=SeatAt.MIDDLE, seat_depth=limit("60"))
    hot = found.moments[1]
    assert hot.gap is not None
    heights, gaps = [], []
    for liner, block in rng.uniform(-1e-6, 1e-6, (2000, 2)):
        grows = Grows(10.5e-6 + liner, 22e-6 + block)
        heights.append(0.060 * (grows.liner_per_k * 140 - grows.block_per_k * 75))
        gaps.append(0.168 - 0.095 + 0.168 * grows.block_per_k * 75 - 0.095 * grows.liner_per_k * 140)
    for told, drawn in ((hot.height, heights), (hot.gap, gaps)):
        assert 0.93 <= np.mean([abs(one - told.value_m) <= told.expanded_m for one in drawn]) <= 1.0
        assert told.budget.standard_m == pytest.approx(np.std(drawn), rel=0.1)


def test_sleeves_a_thou_apart_touch_hot_or_may_touch_by_their_plus_minus() -> None:
    """Closed form: an iron sleeve that is 40 K hotter than its aluminium block closes what the pitch does not open."""
    states = (RunningState("sleeve hotter", 20, 200),)
    closing = 0.095 * 10.5e-6 * 180
    for cold_um, state in ((closing * 1e6 - 60, State.OUT), (closing * 1e6 + 5, State.CANNOT_TELL),
                           (closing * 1e6 + 120, State.IN)):  # fmt: skip
        found, _ = _collar(running=states, gap_um=cold_um)
        hot = found.moments[1]
        assert hot.gap is not None
        assert hot.gap.value_m == pytest.approx(cold_um * 1e-6 - closing, abs=1e-9)
        assert hot.gap_state is state
        touch = [one.text for one in found.says if "sleeves" in one.text]
        assert touch == [] if state is State.IN else "touch" in touch[0]
    assert "may touch" in _collar(running=states, gap_um=closing * 1e6 + 5)[0].says[-1].text
