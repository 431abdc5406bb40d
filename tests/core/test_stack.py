"""The stack of parts, against the uncertainties package (GUM linear propagation)."""

from math import hypot

import pytest
from hypothesis import given
from hypothesis import strategies as st
from uncertainties import ufloat

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.protrusion.stack import (
    Ledge,
    StackPart,
    StackResidual,
    compare_with_measured,
    land_slips,
    ledge_from_depths,
    predict_protrusion,
    shim_slip,
    stack_part,
)
from vallostasis.core.shapes.clock import angle_of_hour
from vallostasis.core.uncertainty.budget import Estimate, exactly

# Sums of a few lengths near 10 mm in doubles.
ROUNDING_M = 1e-15
sizes = st.floats(0, 20e-3)
# The package warns of a standard deviation of zero.
trusts = st.floats(1e-9, 20e-6)
known = st.tuples(sizes, trusts)


@given(flange=known, shims=st.lists(known, max_size=3), ledge=known, between=st.lists(known, max_size=2))
def test_prediction_agrees_with_linear_propagation(
    flange: tuple[float, float],
    shims: list[tuple[float, float]],
    ledge: tuple[float, float],
    between: list[tuple[float, float]],
) -> None:
    theirs = ufloat(*flange) + sum(ufloat(*one) for one in shims) - ufloat(*ledge) - sum(ufloat(*b) for b in between)
    predicted = predict_protrusion(
        stack_part("f", *flange),
        tuple(stack_part(f"s{at}", *one) for at, one in enumerate(shims)),
        stack_part("c", *ledge),
        tuple(stack_part(f"t{at}", *one) for at, one in enumerate(between)),
        3.0,
    )
    assert predicted.protrusion_m == pytest.approx(theirs.nominal_value, abs=ROUNDING_M)
    assert predicted.stated.standard_m == pytest.approx(theirs.std_dev, rel=1e-9, abs=ROUNDING_M)
    assert predicted.stated.expanded_m == pytest.approx(3 * theirs.std_dev, rel=1e-9, abs=ROUNDING_M)
    assert predicted.trail[-1].result.value == predicted.protrusion_m


@given(thickness=st.floats(0.1e-3, 2e-3))
def test_a_shim_lifts_and_a_spacer_lowers_by_its_own_thickness(thickness: float) -> None:
    flange, ledge, extra = stack_part("f", 8.9e-3), stack_part("c", 8.8e-3), stack_part("x", thickness)
    plain = predict_protrusion(flange, (), ledge).protrusion_m
    assert predict_protrusion(flange, (extra,), ledge).protrusion_m == pytest.approx(plain + thickness, abs=ROUNDING_M)
    assert predict_protrusion(flange, (), ledge, (extra,)).protrusion_m == pytest.approx(
        plain - thickness, abs=ROUNDING_M
    )


def _ledge(hours: tuple[float, ...], depths_m: tuple[float, ...], standard_m: float) -> Ledge:
    """A ledge from depths that share nothing."""
    depths = [exactly(depth, standard_m, "depth", at) for at, depth in enumerate(depths_m)]
    return ledge_from_depths(depths, [angle_of_hour(hour) for hour in hours], 2.0)


def test_a_tilted_but_flat_ledge_supports_at_its_mean() -> None:
    ledge = _ledge((12, 3, 6, 9), (8.80e-3, 8.82e-3, 8.84e-3, 8.82e-3), 2e-6)
    assert ledge.depth_m == pytest.approx(8.82e-3, abs=1e-12)
    assert not ledge.planes_differ


def test_a_saddle_lets_the_flange_ride_on_its_high_spots_and_says_so() -> None:
    # ±10 µm saddle: the fitted plane is flat at the mean, the high spots stand 10 µm above it.
    ledge = _ledge((12, 3, 6, 9), (8.81e-3, 8.83e-3, 8.81e-3, 8.83e-3), 2e-6)
    assert ledge.fitted_m == pytest.approx(8.82e-3, abs=1e-12)
    assert ledge.depth_m == pytest.approx(8.81e-3, abs=1e-12)
    assert ledge.planes_differ
    # The flange rides on two of the four readings: u/√2; the shift as a rectangular half width, a/√3 (GUM 4.3.7).
    assert ledge.depth.standard_m == pytest.approx(hypot(2e-6 / 2**0.5, 10e-6 / 3**0.5), rel=1e-9)


def test_fewer_than_three_positions_rest_on_the_highest_reading() -> None:
    ledge = _ledge((12, 6), (8.80e-3, 8.84e-3), 2e-6)
    assert ledge.plane is None
    assert ledge.depth_m == 8.80e-3


def _residual(value: float) -> StackResidual:
    predicted = predict_protrusion(stack_part("flange", 8.8e-3, 3e-6), (), stack_part("ledge", 8.8e-3))
    return compare_with_measured(exactly(value, 4e-6, "reading"), predicted, 2.0)


def test_what_reading_and_parts_share_cancels_between_them() -> None:
    one: Estimate = exactly(8.9e-3, 5e-6, "one gauge")
    predicted = predict_protrusion(StackPart("flange", one), (), stack_part("ledge", 8.8e-3, 1e-6))
    assert compare_with_measured(one, predicted, 2.0).expanded_m == pytest.approx(2e-6)


def test_reading_and_parts_agree_up_to_their_joint_uncertainty() -> None:
    # Joint U = 2·√(3² + 4²) = 10 µm.
    assert _residual(9.9e-6).expanded_m == pytest.approx(10e-6)
    assert _residual(9.9e-6).agrees
    assert not _residual(10.1e-6).agrees
    assert not _residual(-10.1e-6).agrees


def test_a_lip_explains_the_disagreement_whichever_number_was_taken_there() -> None:
    # Thickness over a raised lip predicts too much: the reading stands lower. Common practice, no published source.
    lands = (("flat land", 0.0), ("lip", 90e-6))
    assert [s.taken_there for s in land_slips(_residual(-92e-6), lands)] == ["flange thickness"]
    assert [s.taken_there for s in land_slips(_residual(88e-6), lands)] == ["protrusion"]
    assert land_slips(_residual(40e-6), lands) == ()
    assert land_slips(_residual(5e-6), lands) == ()


def test_a_shim_written_down_wrongly_is_named() -> None:
    """A shim of another size, two for one, or none: common practice, no published source."""
    sizes = (100e-6, 150e-6, 200e-6)
    other = shim_slip(_residual(52e-6), (150e-6,), sizes)
    assert other is not None
    assert (other.written_m, other.really_m) == (150e-6, 200e-6)
    none = shim_slip(_residual(-151e-6), (150e-6,), sizes)
    assert none is not None
    assert none.really_m == 0
    twice = shim_slip(_residual(149e-6), (150e-6,), sizes)
    assert twice is not None
    assert twice.really_m == 300e-6
    assert shim_slip(_residual(75e-6), (150e-6,), sizes) is None
    assert shim_slip(_residual(52e-6), (), sizes) is None


def test_impossible_parts_are_refused() -> None:
    with pytest.raises(OutOfDomain, match="finite"):
        predict_protrusion(stack_part("f", float("nan")), (), stack_part("c", 1e-3))
    with pytest.raises(OutOfDomain, match="negative"):
        predict_protrusion(stack_part("f", 1e-3, -1e-6), (), stack_part("c", 1e-3))
