"""What the parts predict: flange plus shims less ledge depth, and whether the reading agrees."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from vallostasis.core.errors import OutOfDomain, require_finite
from vallostasis.core.shapes.plane import PlaneFit, different_positions, fit_plane, plane_weights
from vallostasis.core.trail import Step, Term
from vallostasis.core.uncertainty.budget import (
    Estimate,
    Shape,
    Source,
    Stated,
    difference_of,
    estimate,
    exactly,
    stated,
    value_of,
    weighted,
)
from vallostasis.core.uncertainty.half_widths import rectangular

PLANE_SOURCE = "least squares; plane moved up to its highest reading"


@dataclass(frozen=True, slots=True)
class StackPart:
    """One part of a stack: its size with every error it carries. [m]"""

    name: str
    estimate: Estimate

    @property
    def size_m(self) -> float:
        """Its size, half of a move of the zero taken off. [m]"""
        return value_of(self.estimate)

    def stated(self, coverage_factor: float) -> Stated:
        """Its size with the budget of its ±. [m] GUM 6.2.1."""
        return stated(self.name, self.estimate, coverage_factor)


def stack_part(name: str, size_m: float, standard_m: float = 0.0) -> StackPart:
    """Make a part of one number and its standard uncertainty. [m]"""
    return StackPart(name, exactly(size_m, standard_m, name))


@dataclass(frozen=True, slots=True)
class Ledge:
    """Where a flange comes to rest: supporting depth with its errors, plane through the depth readings. [m]

    ``plane`` is None where fewer than three positions were read; then the highest reading supports.
    """

    estimate: Estimate
    depth: Stated
    fitted_m: float
    plane: PlaneFit | None
    planes_differ: bool

    @property
    def depth_m(self) -> float:
        """Depth of the plane that supports the flange, at its centre. [m]"""
        return self.depth.value_m


@dataclass(frozen=True, slots=True)
class StackPrediction:
    """Protrusion predicted from parts, with every error they carry. [m]"""

    estimate: Estimate
    stated: Stated
    trail: tuple[Step, ...]

    @property
    def protrusion_m(self) -> float:
        """What the parts give. [m]"""
        return self.stated.value_m


@dataclass(frozen=True, slots=True)
class StackResidual:
    """Measured less predicted protrusion, with the budget of both. [m]"""

    stated: Stated

    @property
    def residual_m(self) -> float:
        """Measured less predicted. [m]"""
        return self.stated.value_m

    @property
    def expanded_m(self) -> float:
        """Joint expanded uncertainty. [m]"""
        return self.stated.expanded_m

    @property
    def agrees(self) -> bool:
        """Whether the two can be true together."""
        return abs(self.residual_m) <= self.expanded_m


@dataclass(frozen=True, slots=True)
class LandSlip:
    """A land that would explain why parts and reading disagree, and which of the two was taken there."""

    land: str
    raised_m: float
    taken_there: Literal["flange thickness", "protrusion"]


@dataclass(frozen=True, slots=True)
class ShimSlip:
    """A shim as written down, and the thickness under the flange that would explain the reading; 0 is none. [m]"""

    written_m: float
    really_m: float


def predict_protrusion(
    flange: StackPart,
    shims: tuple[StackPart, ...],
    ledge: StackPart,
    between: tuple[StackPart, ...] = (),
    coverage_factor: float = 2.0,
) -> StackPrediction:
    """Predict protrusion from the parts of the stack.

    Parameters
    ----------
    flange : StackPart
        Flange thickness at the land on which protrusion is read. [m]
    shims : tuple of StackPart
        Shims under the flange, measured thickness where known. [m]
    ledge : StackPart
        Depth from the deck of the plane on which the flange rests. [m]
    between : tuple of StackPart
        What lies between deck and measuring face, each once. [m]
    coverage_factor : float
        k.

    Returns
    -------
    StackPrediction
        P = f + Σs − c − t, positive above the datum. [m]

    Raises
    ------
    OutOfDomain
        If a size is not finite or an uncertainty is negative.

    Notes
    -----
    Sum of the stack; errors that two parts share add with their signs, all others in squares (GUM 5.1.2, F.1.2.3).
    """
    signed = [(1.0, flange), *((1.0, s) for s in shims), (-1.0, ledge), *((-1.0, t) for t in between)]
    for _, one in signed:
        require_finite(**{one.name: one.estimate.value_m})
    total = weighted((sign, one.estimate) for sign, one in signed)
    value = stated("protrusion that the parts give", total, coverage_factor)
    terms = (
        Term("f", flange.size_m, "size", flange.name),
        *(Term("s", s.size_m, "size", s.name) for s in shims),
        Term("c", ledge.size_m, "size", ledge.name),
        *(Term("t", t.size_m, "size", t.name) for t in between),
    )
    formula = f"P = f{' + s' * len(shims)} − c{' − t' * len(between)}"
    step = Step("Protrusion predicted from the parts", formula, terms, Term("P", value.value_m), "sum of the stack")
    return StackPrediction(total, value, (step,))


def ledge_from_depths(depths: Sequence[Estimate], angles_deg: Sequence[float], coverage_factor: float) -> Ledge:
    """Find the depth at which a flange comes to rest on a ledge.

    Parameters
    ----------
    depths : sequence of Estimate
        Depths from the deck downwards, one for each position. [m]
    angles_deg : sequence of float
        Their directions. [deg]
    coverage_factor : float
        k of the expanded uncertainty U = k·u.

    Returns
    -------
    Ledge
        The fitted plane moved up until no reading stands above it; that shift is carried as a rectangular half
        width, since scatter moves the plane as a real high spot does. [m]

    Raises
    ------
    OutOfDomain
        If there is no reading or a value is not finite.

    Notes
    -----
    With fewer than three different positions there is no plane and the highest reading supports. A stiff flange and a
    stiff ledge are assumed; clamping does not bend either. Least squares and a parallel shift; house rule.
    """
    if not depths:
        raise OutOfDomain("measure the counterbore depth first", "depths_m")
    values = [value_of(one) for one in depths]
    angles = np.asarray(angles_deg, dtype=np.float64)
    if different_positions(angles) < 3:
        highest = depths[int(np.argmin(values))]
        return Ledge(highest, _rests(highest, coverage_factor), float(np.mean(values)), None, False)
    plane = fit_plane(angles, values)
    weights, design = plane_weights(angles)
    at = int(np.argmin(plane.residuals_m))
    shift = plane.mean_m - plane.supporting_mean_m
    # Centre of the plane and what its highest reading stands above it, as one sum of the readings.
    moved_up = weights[0] - design[at] @ weights
    moved_up[at] += 1.0
    total = weighted((float(weight), one) for weight, one in zip(moved_up, depths, strict=True))
    one = _rests(depths[at], coverage_factor).expanded_m
    carried = Source("fitted and supporting plane differ", rectangular(shift), shape=Shape.RECTANGULAR,
                     basis="half width: the shift itself", error=("shift", at, tuple(values)))  # fmt: skip
    whole = weighted(((1.0, total), (1.0, estimate(0.0, (carried,)))))
    return Ledge(whole, _rests(whole, coverage_factor), plane.mean_m, plane, shift > one)


def _rests(depth: Estimate, coverage_factor: float) -> Stated:
    return stated("ledge the flange rests on", depth, coverage_factor)


def compare_with_measured(measured: Estimate, predicted: StackPrediction, coverage_factor: float) -> StackResidual:
    """Hold the measured protrusion against the predicted one, both at the centre of the hole.

    Parameters
    ----------
    measured : Estimate
        Centre of the plane through the readings. [m]
    predicted : StackPrediction
        What the parts give. [m]
    coverage_factor : float
        k of U = k·u.

    Returns
    -------
    StackResidual
        Measured − predicted and the joint U; they agree while |residual| ≤ U. [m]

    Notes
    -----
    Errors that both carry cancel; GUM F.1.2.3.
    """
    off = difference_of(measured, predicted.estimate)
    return StackResidual(stated("reading less parts", off, coverage_factor))


def land_slips(residual: StackResidual, lands: tuple[tuple[str, float], ...]) -> tuple[LandSlip, ...]:
    """Find lands that would explain a disagreement between parts and reading.

    Parameters
    ----------
    residual : StackResidual
        Measured less predicted, with its joint U. [m]
    lands : tuple of (str, float)
        Name of each land and how far it stands above the land the reading is recorded for. [m]

    Returns
    -------
    tuple of LandSlip
        Empty when the two agree. A thickness taken over a raised land predicts too much, a
        protrusion read there measures too much, by the height of the land.

    Notes
    -----
    A land explains the residual when the remainder is within the joint U. Common practice, no
    published source; two lands closer together than U cannot be told apart.
    """
    if residual.agrees:
        return ()
    slips: list[LandSlip] = []
    for land, raised in lands:
        if raised == 0:
            continue
        if abs(residual.residual_m + raised) <= residual.expanded_m:
            slips.append(LandSlip(land, raised, "flange thickness"))
        if abs(residual.residual_m - raised) <= residual.expanded_m:
            slips.append(LandSlip(land, raised, "protrusion"))
    return tuple(slips)


def shim_slip(residual: StackResidual, written_m: tuple[float, ...], sizes_m: tuple[float, ...]) -> ShimSlip | None:
    """Find the shim that would explain why parts and reading disagree.

    Parameters
    ----------
    residual : StackResidual
        Measured less predicted, positive where the liner stands prouder than its parts. [m]
    written_m : tuple of float
        Thickness of each shim as written down. [m]
    sizes_m : tuple of float
        Thicknesses that can be had. [m]

    Returns
    -------
    ShimSlip or None
        The exchange of one written shim for another size, for two of its own or for none, that comes nearest
        to the residual; None where none comes within its expanded uncertainty. [m]

    Notes
    -----
    A shim of another size, two for one, or none: common practice, no published source.
    """
    require_finite(**{f"shim {place}": size for place, size in enumerate((*written_m, *sizes_m))})
    slips = [
        ShimSlip(written, really)
        for written in written_m
        for really in (*sizes_m, 2 * written, 0.0)
        if really != written and abs(residual.residual_m - (really - written)) <= residual.expanded_m
    ]
    return min(slips, key=lambda slip: abs(residual.residual_m - (slip.really_m - slip.written_m)), default=None)
