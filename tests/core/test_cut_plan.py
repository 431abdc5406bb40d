"""Cut plans: the trade's own arithmetic, exact fractions, and drawn stops."""

from decimal import Decimal
from fractions import Fraction

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from vallostasis.core.counterbore.cut_plan import (
    Caution,
    CutParts,
    CutPlan,
    CutRefusal,
    CutterTrust,
    SeatLimits,
    depth_by_the_stop,
    plan_cut,
)
from vallostasis.core.counterbore.fixed_cuts import fixed_cut_outcomes
from vallostasis.core.counterbore.passes import count_passes
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.protrusion.stack import stack_part
from vallostasis.core.uncertainty.budget import exactly

THOU = 25.4e-6
CUTTER = CutterTrust(THOU, THOU, 0.05)
# Sums of lengths near 10 mm in doubles.
ROUNDING_M = 1e-14


def _plan(depths: list[float], flange: float, shims: list[float], **other: float) -> CutPlan | CutRefusal:
    limits = SeatLimits(other.get("least", 3.5) * THOU, other.get("greatest", 6) * THOU,
                        other.get("target", 5) * THOU, other.get("cleanup", 1) * THOU,
                        other.get("deepest"))  # fmt: skip
    known = tuple(exactly(d * THOU, 0.0, "depth", at) for at, d in enumerate(depths))
    parts = CutParts(known, stack_part("flange", flange * THOU), (), 0.0, exactly(0.0))
    return plan_cut(parts, tuple(s * THOU for s in shims), limits, CUTTER)


# "Cut 29, fit 30" gains one thou only from the high spot of a square seat: from -5 it makes -4, from -2 it
# makes -1. Common practice, no published source.
@pytest.mark.parametrize(("start", "after"), [(-5, -4), (-2, -1)])
def test_cut_29_fit_30_gains_one_thou(start: float, after: float) -> None:
    limits = SeatLimits(3.5 * THOU, 6 * THOU, 5 * THOU, THOU)
    depth = 350.0 - start
    outcomes = fixed_cut_outcomes((depth * THOU,) * 4, 350 * THOU, 0.0, 29 * THOU, 30 * THOU, limits)
    assert [o.protrusion_m for o in outcomes] == pytest.approx([after * THOU] * 3, abs=ROUNDING_M)
    assert {o.verdict for o in outcomes} == {"below minimum"}


# With the same 30 thou shim, a window of 3.5 to 6 needs a cut of 19 to 21.5 from -5, and 22 to 24.5 from -2.
# Common practice, no published source.
@pytest.mark.parametrize(("start", "least_cut", "greatest_cut"), [(-5, 19, 21.5), (-2, 22, 24.5)])
def test_cut_for_a_30_thou_shim(start: float, least_cut: float, greatest_cut: float) -> None:
    depth = 350.0 - start
    cuts = []
    for target in (3.5, 6):
        plan = _plan([depth] * 4, 350, [30], target=target)
        assert isinstance(plan, CutPlan)
        cuts.append(plan.from_touch_off_m / THOU)
    assert sorted(cuts) == pytest.approx([least_cut, greatest_cut])


depth_lists = st.lists(st.integers(340, 370), min_size=1, max_size=8)
shim_lists = st.lists(st.integers(2, 60), min_size=1, max_size=6, unique=True)


@given(depths=depth_lists, flange=st.integers(345, 360), shims=shim_lists)
def test_a_plan_cleans_up_everywhere_with_the_thinnest_shim(depths: list[int], flange: int, shims: list[int]) -> None:
    plan = _plan(depths, flange, shims)
    # The same in exact thou: D = f + s - P*, every cut at least the clean-up of 1.
    fitting = [s for s in sorted(shims) if flange + s - 5 - max(depths) >= 1]
    if not fitting:
        assert isinstance(plan, CutRefusal)
        assert {round(t.shim_m / THOU) for t in plan.tried} == set(shims)
        return
    assert isinstance(plan, CutPlan)
    assert round(plan.shim_m / THOU) == fitting[0]
    assert plan.depth_m == pytest.approx((flange + fitting[0] - 5) * THOU, abs=ROUNDING_M)
    assert plan.protrusion_m == pytest.approx(5 * THOU, abs=ROUNDING_M)
    assert plan.from_touch_off_m == pytest.approx(max(plan.cuts_m), abs=ROUNDING_M)
    assert plan.passes.whole == flange + fitting[0] - 5 - min(depths)


def test_a_ledge_that_would_be_cut_too_thin_refuses_the_plan() -> None:
    refusal = _plan([355, 365], 350, [10, 20, 30], deepest=360 * THOU)
    assert isinstance(refusal, CutRefusal)
    assert [t.what for t in refusal.tried] == [
        "clean-up at the deepest spot", "clean-up at the deepest spot", "depth that the ledge allows",
    ]  # fmt: skip
    assert "insert" in refusal.reason


def test_the_stop_is_as_uncertain_as_drawn_stops() -> None:
    """A cut of 30 thou by the stop, set from the one place read: what is not known of that place is in it too."""
    rng = np.random.default_rng(2)
    draws, cut = 100_000, 30 * THOU
    drawn = (
        rng.uniform(-THOU, THOU, draws) + rng.uniform(-0.05, 0.05, draws) * cut + rng.normal(0, 10e-6, draws)
    ).std()
    touched = [exactly(8.8e-3, 10e-6, "depth")]
    stopped = depth_by_the_stop(8.8e-3 + cut, touched, CUTTER, 2.0)
    # 1/√(2·100 000) = 0.22 % of the standard deviation; five times that.
    assert stopped.standard_m == pytest.approx(drawn, rel=0.011)


def test_a_plan_says_what_it_has_against_it() -> None:
    # ±1 thou and 5 % of the cut in a window of 2.5: nine cuts in ten. A window of one thou: far fewer.
    assert _cautions(least=3.5, greatest=6, target=4.75) == ()
    assert Caution.CHANCE in _cautions(least=4.5, greatest=5.5)
    # Stopped at the last whole pass it stands 0.15 higher: 5.05 is above a greatest of 5.
    assert Caution.WITHOUT_PART_PASS in _cautions(flange=350.15, least=3.5, greatest=5.1, target=5)


def _cautions(flange: float = 350, **limits: float) -> tuple[Caution, ...]:
    plan = _plan([351], flange, [22], **limits)
    assert isinstance(plan, CutPlan)
    return plan.cautions


def test_a_ledge_that_needs_no_cut_is_no_negative_one() -> None:
    """0.1 + 0.2 - 0.3 in doubles: a clean-up of nought is not refused for the noise of a difference."""
    plan = _plan([351.1], 333.1, [23], target=5, cleanup=0)
    assert isinstance(plan, CutPlan)
    assert plan.from_touch_off_m == pytest.approx(0, abs=ROUNDING_M)


@given(cut=st.integers(0, 10**6), step=st.integers(1, 10**5))
def test_passes_are_counted_as_in_exact_fractions(cut: int, step: int) -> None:
    passes = count_passes(Decimal(cut) / 1000, Decimal(step) / 1000)
    assert passes.whole == Fraction(cut, step).__floor__()
    assert Fraction(passes.whole) * Fraction(step, 1000) + Fraction(passes.rest_um) == Fraction(cut, 1000)


def test_six_passes_stay_six() -> None:
    # In doubles (0.357 - 0.351) / 0.001 is 6.000000000000005, which rounds up to seven.
    assert count_passes(Decimal("357") - Decimal("351"), Decimal(1)).whole == 6
    plan = _plan([351], 340, [22], target=5)
    assert isinstance(plan, CutPlan)
    assert (plan.passes.whole, plan.passes.rest_um) == (6, 0)


def test_what_cannot_be_planned_says_why() -> None:
    with pytest.raises(OutOfDomain, match="measure the counterbore"):
        _plan([], 350, [10])
    with pytest.raises(OutOfDomain, match="outside the with-shim window"):
        _plan([350], 350, [10], target=9)
    assert isinstance(_plan([350], 350, []), CutRefusal)
    with pytest.raises(OutOfDomain, match="negative"):
        count_passes(Decimal(-1), Decimal(1))
