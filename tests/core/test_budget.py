"""Uncertainty budgets beside the `uncertainties` package and Monte Carlo; Student's t beside SciPy."""

from math import hypot, inf, sqrt

import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import stats
from uncertainties import ufloat
from uncertainties.core import Variable

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.thermal.expansion import Body, to_20c
from vallostasis.core.uncertainty.budget import (
    Estimate,
    Move,
    Shape,
    Source,
    combine,
    difference_of,
    estimate,
    exactly,
    mean_of,
    stated,
    student_widening,
    weighted,
)
from vallostasis.core.uncertainty.monte_carlo import monte_carlo_half_width, monte_carlo_of
from vallostasis.core.uncertainty.reading_errors import GaugeSources, Known, SizeInputs, size_budget

# Standard uncertainties agree with the package to this share of themselves.
TO_A_BILLIONTH = 1e-9
temperatures = st.floats(-20, 60)
alphas = st.floats(5e-6, 25e-6)


def _inputs(ring: float, dev: float, master_c: float, part_c: float, master_a: float, part_a: float) -> SizeInputs:
    return SizeInputs(Known(ring, 3e-7), dev, Known(master_c, 0.2), Known(master_a, 6e-7), Known(part_c, 0.3),
                      Known(part_a, 6e-7))  # fmt: skip


def _by_the_package(inputs: SizeInputs, gauge: GaugeSources) -> Variable:
    def known(one: Known) -> Variable:
        return ufloat(one.value, one.standard)

    # Once for the reading, once for the zero, which is a reading too.
    step = gauge.step_m / sqrt(12)
    deviation = inputs.deviation_m
    for _ in range(2):
        deviation = deviation + ufloat(0, step) + ufloat(0, gauge.repeatability_m)
    warm = known(inputs.set_size_m) * (1 + known(inputs.master_alpha) * (known(inputs.master_c) - 20))
    grown = 1 + known(inputs.part_alpha) * (known(inputs.part_c) - 20)
    return (warm + deviation) / grown


@given(ring=st.floats(0.02, 0.3), dev=st.floats(-3e-4, 3e-4), master_c=temperatures, part_c=temperatures,
       master_a=alphas, part_a=alphas, step=st.floats(1e-7, 2e-5), repeat=st.floats(1e-9, 1e-5))  # fmt: skip
def test_a_size_is_as_uncertain_as_the_package_says(
    ring: float, dev: float, master_c: float, part_c: float, master_a: float, part_a: float, step: float, repeat: float
) -> None:
    inputs, gauge = _inputs(ring, dev, master_c, part_c, master_a, part_a), GaugeSources(step, repeat)
    theirs = _by_the_package(inputs, gauge)
    ours = size_budget("size", inputs, gauge)
    assert inputs.size_at_20c_m() == pytest.approx(theirs.nominal_value, rel=1e-13)
    assert ours.standard_m == pytest.approx(theirs.std_dev, rel=TO_A_BILLIONTH)
    assert ours.expanded_m == pytest.approx(2 * theirs.std_dev, rel=TO_A_BILLIONTH)
    assert sum(ours.share(source) for source in ours.sources) == pytest.approx(1)


def _reading(number: int, own: float, shared: float) -> Estimate:
    """One of several readings on one zero. [m]"""
    sources = (Source("own", own, error=("own", number)), Source("zero", shared, shared=True, error="zero"))
    return estimate(0.0, sources)


@given(n=st.integers(1, 30), own=st.floats(1e-7, 1e-5), shared=st.floats(1e-7, 1e-5))
def test_means_and_differences_are_as_the_package_says(n: int, own: float, shared: float) -> None:
    zero = ufloat(0, shared)
    theirs = [ufloat(0, own) + zero for _ in range(n)]
    ours = [_reading(number, own, shared) for number in range(n)]
    assert mean_of(ours).standard_m == pytest.approx((sum(theirs) / n).std_dev, rel=TO_A_BILLIONTH)
    first, second = ufloat(0, own) + zero, ufloat(0, own) + zero
    same = stated("range", difference_of(_reading(1, own, shared), _reading(2, own, shared)))
    assert same.standard_m == pytest.approx((first - second).std_dev, rel=TO_A_BILLIONTH)
    assert same.expanded_m == pytest.approx(2 * sqrt(2) * own, rel=TO_A_BILLIONTH)
    other = estimate(0.0, (Source("own", own, error="o"), Source("zero", shared, error="another zero")))
    apart = difference_of(_reading(1, own, shared), other)
    assert apart.standard_m == pytest.approx(sqrt(2) * hypot(own, shared), rel=TO_A_BILLIONTH)


@given(weights=st.lists(st.floats(-3, 3), min_size=1, max_size=6), own=st.floats(1e-7, 1e-5))
def test_any_sum_of_readings_is_as_uncertain_as_the_package_says(weights: list[float], own: float) -> None:
    zero, ours = ufloat(0, 2e-6), [_reading(number, own, 2e-6) for number in range(len(weights))]
    theirs = sum((weight * (ufloat(0, own) + zero) for weight in weights), start=ufloat(0, 1e-30))
    total = weighted(zip(weights, ours, strict=True))
    # What cancels leaves rounding of its parts.
    assert total.standard_m == pytest.approx(theirs.std_dev, rel=1e-7, abs=1e-14)


def test_what_one_estimate_of_a_spread_makes_wrong_is_wrong_together() -> None:
    """GUM G.4.1: two readings of a gauge known from five repeats have four degrees of freedom, not eight."""
    few = [estimate(0.0, (Source("repeats", 1e-6, freedom=4, error=("own", at), spread="gauge"),)) for at in range(2)]
    assert stated("difference", difference_of(*few)).budget.freedom == pytest.approx(4)
    own = [estimate(0.0, (Source("repeats", 1e-6, freedom=4, error=at, spread=at),)) for at in range(2)]
    assert stated("difference", difference_of(*own)).budget.freedom == pytest.approx(8)


def _moved(order: int, value_um: float, weight: float = 1.0) -> Estimate:
    """A reading on a zero that was found moved by 10 µm, taken in that order; no scatter at all."""
    return estimate(value_um * 1e-6, (), (Move("look", 10e-6, order, (), (), weight),))


def test_a_moved_zero_is_taken_off_by_half_with_its_sign() -> None:
    one = stated("one", _moved(1, 85))
    assert (one.value_m, one.expanded_m) == pytest.approx((80e-6, 5e-6))
    later_less_earlier = stated("difference", difference_of(_moved(2, 110), _moved(1, 85)))
    assert (later_less_earlier.value_m, later_less_earlier.expanded_m) == pytest.approx((20e-6, 5e-6))
    earlier_less_later = stated("difference", difference_of(_moved(1, 85), _moved(2, 110)))
    assert (earlier_less_later.value_m, earlier_less_later.expanded_m) == pytest.approx((-20e-6, 5e-6))
    mean = stated("mean", mean_of([_moved(1, 85), _moved(2, 110)]))
    assert (mean.value_m, mean.expanded_m) == pytest.approx((92.5e-6, 5e-6))
    before = exactly(85e-6)
    spans = stated("difference", difference_of(_moved(2, 110), before))
    assert (spans.value_m, spans.expanded_m) == pytest.approx((20e-6, 5e-6))


@given(jump=st.integers(0, 6), weights=st.lists(st.integers(-3, 3), min_size=6, max_size=6))
def test_wherever_a_zero_jumped_the_truth_lies_within_the_bound(jump: int, weights: list[int]) -> None:
    """The house rule of moved zeros, against every moment at which the jump may have come."""
    truths = [80.0, 90.0, 70.0, 85.0, 60.0, 75.0]
    shown = [truth + (10.0 if order >= jump else 0.0) for order, truth in enumerate(truths)]
    total = weighted((w, _moved(order, one)) for order, (w, one) in enumerate(zip(weights, shown, strict=True)))
    value = stated("sum", total)
    true = sum(w * truth for w, truth in zip(weights, truths, strict=True)) * 1e-6
    assert abs(value.value_m - true) <= value.expanded_m + 1e-12


def test_drawing_lots_agrees_within_its_own_error() -> None:
    """200,000 draws find the half width of a 95 % interval to about half a per cent (from memory of its variance)."""
    inputs = _inputs(0.095, 5e-6, 20.3, 20.5, 11.5e-6, 10.5e-6)
    normal = GaugeSources(0.0, 2e-6)
    budget = size_budget("size", inputs, normal)
    drawn = monte_carlo_half_width(inputs, normal, seed=3)
    assert drawn == pytest.approx(stats.norm.ppf(0.975) * budget.standard_m, rel=0.012)
    assert monte_carlo_of(budget, seed=5) == pytest.approx(drawn, rel=0.015)
    # One rectangular source: 95 % of its width is 0.95·a, not 2·a/√3; the difference is shown to the user.
    flat = combine("flat", (Source("step", 1e-6 / sqrt(3), shape=Shape.RECTANGULAR),))
    assert monte_carlo_of(flat) == pytest.approx(0.95e-6, rel=0.01)
    assert flat.expanded_m == pytest.approx(2e-6 / sqrt(3))


@pytest.mark.parametrize("freedom", [1, 2, 4, 9, 30])
def test_few_repeats_widen_by_students_t(freedom: int) -> None:
    beyond = (1 + 0.9545) / 2
    assert student_widening(freedom) == pytest.approx(stats.t.ppf(beyond, freedom) / stats.norm.ppf(beyond))
    few = combine("few", (Source("repeats", 1e-6, freedom=freedom),))
    assert few.coverage == pytest.approx(2 * student_widening(freedom))
    assert few.freedom == pytest.approx(freedom)


def test_effective_freedom_of_the_guides_own_example() -> None:
    """GUM H.1.6: 25 nm with 18, 9.7 nm with 25.6, 2.9 nm with 50, 16.6 nm with 2 degrees give about 16."""
    parts = ((25, 18), (9.7, 25.6), (2.9, 50), (16.6, 2))
    budget = combine("end gauge", (Source(f"u{n}", u * 1e-9, freedom=v) for n, (u, v) in enumerate(parts)))
    assert budget.standard_m == pytest.approx(32e-9, abs=0.5e-9)
    assert budget.freedom == pytest.approx(16.7, abs=0.6)
    assert combine("known", (Source("u", 1e-6),)).freedom == inf


def test_what_is_no_uncertainty_is_refused() -> None:
    with pytest.raises(OutOfDomain, match="must not be negative"):
        combine("x", (Source("step", -1e-6),))
    with pytest.raises(OutOfDomain, match="at least one reading"):
        mean_of([])
    with pytest.raises(OutOfDomain, match="must not be negative"):
        exactly(1.0, -1e-6)
    with pytest.raises(OutOfDomain, match="two readings"):
        student_widening(0)


@pytest.mark.parametrize(
    ("alpha", "um"),
    # 10 K on 100 mm: iron 10.5 and aluminium 22 millionths per kelvin times a metre's tenth, by hand.
    [(10.5e-6, 10.5), (22e-6, 22.0)],
)
def test_a_warm_bore_reads_large(alpha: float, um: float) -> None:
    at = to_20c(0.1, 0.0, Body(20, 11.5e-6), Body(30, alpha))
    assert at.correction_m == pytest.approx(-um * 1e-6, rel=1e-3)
    assert at.as_read_m == 0.1


@given(c=temperatures, alpha=alphas, size=st.floats(0.01, 0.5), dev=st.floats(-1e-4, 1e-4))
def test_part_and_master_equally_warm_and_of_one_material_need_no_correction(
    c: float, alpha: float, size: float, dev: float
) -> None:
    """Temperature errors common to both cancel, to the second order: what is left is the deviation's own growth."""
    at = to_20c(size, dev, Body(c, alpha), Body(c, alpha))
    assert at.size_m == pytest.approx(size + dev, abs=abs(dev) * 2e-3 + 1e-15)
