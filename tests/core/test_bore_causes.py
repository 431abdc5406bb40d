"""Causes of a bore's shape by hand: oval, bell, waist, lobes, cone, tight spot, and bores that press each other."""

import numpy as np
import pytest

from tests.core.card import dry_card, length, limit
from tests.core.facts import Story, level
from vallostasis.core.causes.bore_candidates import BoreSpot, bore_candidates
from vallostasis.core.causes.bore_table import BORE_CAUSES, BORE_CHECKS
from vallostasis.core.causes.experiments import look_at
from vallostasis.core.causes.next_check import checks_worth
from vallostasis.core.causes.of_job import AddsUp, bores_add_up
from vallostasis.core.causes.weigh import Explained, Residuals, weigh
from vallostasis.core.records.experiments import Matter
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import CardLevel, Construction, FeatureSheet

UM = 1e-6
LEVELS, AXES = (0.0, 0.25, 0.5, 0.75, 1.0), (0.0, 45.0, 90.0, 135.0)


def told(*bores: object, u_um: float = 2.0, mean_um: float = 700.0) -> tuple[Explained, ...]:
    """What is said of bores whose diameters stand off their middle by a function of depth and axis. [µm], [rad]"""
    spots = [BoreSpot(hole + 1, deep, axis, f"{deep}, {axis}") for hole in range(len(bores)) for deep in LEVELS
             for axis in AXES]  # fmt: skip
    off = [bores[one.hole - 1](one.deep, np.radians(one.axis_deg)) + mean_um for one in spots]  # type: ignore[operator]
    same = np.array([[float(a.hole == b.hole) for b in spots] for a in spots])
    covariance = np.eye(len(spots)) * (u_um * UM) ** 2 + same * (1000 * UM) ** 2
    return weigh(Residuals(np.array(off) * UM, covariance, bore_candidates(spots)), (), BORE_CHECKS)


def flat(_deep: float, _axis: float) -> float:
    return 0.0


@pytest.mark.parametrize(
    ("shape", "cause", "effect_um"),
    [
        (lambda _deep, axis: 30 * np.cos(2 * (axis - 0.5)), "squeezed by an oval block bore", 30),
        (lambda deep, _axis: 25 * (2 * abs(deep - 0.5)) ** 4, "bell-mouth from overrun", 25),
        (lambda deep, _axis: -20 * np.exp(-(((deep - 0.25) / 0.15) ** 2)), "waist left by a torque plate", 20),
        (lambda deep, axis: 20 * np.exp(-deep / 0.3) * np.cos(4 * axis), "four lobes from the head bolts", 20),
        (lambda deep, _axis: 120 * (1 - deep) ** 2, "wear cone", 120),
        (lambda deep, axis: -25.0 * (deep == 0.5 and axis > 2), "tight spot, matching a scuff", 25),
    ],
)
def test_each_shape_is_told_by_its_name_in_its_bore(shape: object, cause: str, effect_um: float) -> None:
    found = told(flat, shape, flat)
    assert (found[0].causes, found[0].where) == ((cause,), ((2,),))
    assert found[0].effects_m[0] == pytest.approx(effect_um * UM, rel=0.02)
    assert found[0].weight > 0.8


def test_the_direction_of_an_oval_and_the_place_of_a_tight_spot_are_said() -> None:
    oval = told(flat, lambda _deep, axis: 30 * np.cos(2 * (axis - np.radians(20))))[0]
    # Of an oval at 20° the second term turns twice as far.
    assert oval.high_sides_deg[0] == pytest.approx(40, abs=0.1)
    tight = told(flat, lambda deep, axis: -25.0 * (deep == 0.5 and axis > 2))[0]
    assert tight.words == ("0.5, 135.0",)


def test_bores_that_are_all_narrow_along_the_block_press_each_other() -> None:
    """Sleeves side by side: narrow along the crank; all wide along it is another thing."""

    def narrow(_deep: float, axis: float) -> float:
        return float(-18 * np.cos(2 * axis))

    found = told(narrow, narrow, narrow)
    assert (found[0].causes, found[0].where) == (("side loading between sleeves",), ((1, 2, 3),))
    turned = told(*[lambda deep, axis: -narrow(deep, axis)] * 3)
    assert turned[0].causes != ("side loading between sleeves",)
    worth = checks_worth(found, BORE_CHECKS)
    assert worth == () or worth[0].where == (1,)


def test_how_large_a_bore_is_says_nothing_of_its_shape() -> None:
    small, large = told(flat, flat, mean_um=0.0), told(flat, flat, mean_um=900.0)
    assert small[0].name == large[0].name == "nothing but scatter"
    assert small[0].weight == pytest.approx(large[0].weight, rel=1e-3)


def test_priors_sum_to_one_and_every_cause_has_a_check() -> None:
    assert sum(one[-1] for one in BORE_CAUSES) == pytest.approx(1.0)
    names = {one[0] for one in BORE_CAUSES} - {"nothing but scatter"}
    assert names == {name for one in BORE_CHECKS for name, _ in one.finds}


def test_a_worn_bore_of_a_job_is_called_a_cone_and_looked_at() -> None:
    """A parent bore of 100, 90 wider at the top of the travel; too few places say nothing."""
    levels = tuple(CardLevel(str(depth), length(depth)) for depth in ("15", "55", "95", "135"))
    sheet = FeatureSheet(Quantity.BLOCK_BORE, limit("100"), levels=levels, axes_deg=AXES[::2])
    story = Story(card=dry_card(sheet, construction=Construction.PARENT_BORE), resolution_um=0.2, repeatability_um=0.2)
    few = bores_add_up(story.facts())
    assert isinstance(few, str) and "six places" in few
    worn = {15.0: 90.0, 55.0: 40.0, 95.0: 10.0, 135.0: 0.0}
    places = {level(depth, axis): (100_000 + um,) for depth, um in worn.items() for axis in AXES[::2]}
    story.survey(Quantity.BLOCK_BORE, places, hole_id=story.hole_rows[0].hole_id)
    found = bores_add_up(story.facts())
    assert isinstance(found, AddsUp)
    assert found.explained[0].causes == ("wear cone",)
    assert found.explained[0].effects_m[0] == pytest.approx(90e-6, rel=0.02)
    assert not found.holes[0].adds_up
    assert found.holes[0].middle is None
    # The mean of 90, 40, 10 and nothing is 35.
    assert round(found.holes[0].spots[0].off.value_m * 1e6) == 55
    looked = look_at(story.facts(), Matter.BORES)
    assert looked.hold == "", "a worn bore is bored, that is no anomaly"
    assert looked.tried == ()


def test_bores_that_wore_together_are_one_cause_each_by_its_own_amount() -> None:
    depths = (80, 120, 100)
    found = told(*[lambda deep, _axis, most=most: most * (1 - deep) ** 2 for most in depths])
    assert (found[0].causes, found[0].where) == (("wear cone",), ((1, 2, 3),))
    assert found[0].effects_m[0] == pytest.approx(100e-6, rel=0.01)
    assert found[0].weight > 0.9
