"""What the parts predict: flange plus shims less ledge depth, and whether the reading agrees."""

from dataclasses import dataclass
from math import hypot
from typing import Literal

import numpy as np

from vallostasis.core.errors import require_finite, require_not_negative
from vallostasis.core.measuring.clock import angle_of_hour
from vallostasis.core.measuring.uncertainty import rectangular
from vallostasis.core.protrusion.plane import PlaneFit, different_positions, fit_plane
from vallostasis.core.trail import Step, Term

PLANE_SOURCE = "least squares; plane moved up to its highest reading"


@dataclass(frozen=True, slots=True)
class Part:
    """One part of a stack: its size and standard uncertainty. [m]"""

    name: str
    size_m: float
    standard_m: float = 0.0


@dataclass(frozen=True, slots=True)
class Ledge:
    """Where a flange comes to rest: supporting depth and plane through the depth readings. [m]

    ``plane`` is None where fewer than three positions were read; then the highest reading supports.
    """

    depth_m: float
    standard_m: float
    fitted_m: float
    plane: PlaneFit | None
    planes_differ: bool


@dataclass(frozen=True, slots=True)
class StackPrediction:
    """Protrusion predicted from parts. [m]"""

    protrusion_m: float
    standard_m: float
    trail: tuple[Step, ...]


@dataclass(frozen=True, slots=True)
class StackResidual:
    """Measured less predicted protrusion, and whether the two can be true together. [m]"""

    residual_m: float
    expanded_m: float
    agrees: bool


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
    flange: Part, shims: tuple[Part, ...], ledge: Part, between: tuple[Part, ...] = ()
) -> StackPrediction:
    """Predict protrusion from the parts of the stack.

    Parameters
    ----------
    flange : Part
        Flange thickness at the land on which protrusion is read. [m]
    shims : tuple of Part
        Shims under the flange, measured thickness where known. [m]
    ledge : Part
        Depth from the deck of the plane on which the flange rests. [m]
    between : tuple of Part
        What lies between deck and measuring face, each once. [m]

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
    Standard uncertainties are independent and add in squares (GUM 5.1.2).
    """
    for part in (flange, *shims, ledge, *between):
        require_finite(**{part.name: part.size_m})
        require_not_negative(**{f"u of {part.name}": part.standard_m})
    protrusion = flange.size_m + sum(s.size_m for s in shims) - ledge.size_m - sum(t.size_m for t in between)
    standard = hypot(*(part.standard_m for part in (flange, *shims, ledge, *between)))
    terms = (
        Term("f", flange.size_m, "size", flange.name),
        *(Term("s", s.size_m, "size", s.name) for s in shims),
        Term("c", ledge.size_m, "size", ledge.name),
        *(Term("t", t.size_m, "size", t.name) for t in between),
    )
    formula = f"P = f{' + s' * len(shims)} − c{' − t' * len(between)}"
    step = Step("Protrusion predicted from the parts", formula, terms, Term("P", protrusion), "sum of the stack")
    return StackPrediction(protrusion, standard, (step,))


def ledge_from_depths(
    hours: tuple[float, ...], depths_m: tuple[float, ...], standard_m: float, coverage_factor: float
) -> Ledge:
    """Find the depth at which a flange comes to rest on a ledge.

    Parameters
    ----------
    hours : tuple of float
        Clock positions of the depth readings. [h]
    depths_m : tuple of float
        Depths from the deck downwards. [m]
    standard_m : float
        Standard uncertainty of one depth reading. [m]
    coverage_factor : float
        k of the expanded uncertainty U = k·u.

    Returns
    -------
    Ledge
        The fitted plane moved up until no reading stands above it. When that shift is greater than
        U it is carried as a rectangular half width. [m]

    Raises
    ------
    OutOfDomain
        If there is no reading or a value is not finite.

    Notes
    -----
    With fewer than three different positions there is no plane and the highest reading supports.
    A stiff flange and a stiff ledge are assumed; clamping does not bend either.
    """
    angles = np.array([angle_of_hour(hour) for hour in hours])
    if different_positions(angles) < 3:
        highest = min(depths_m)
        return Ledge(highest, standard_m, float(np.mean(depths_m)), None, False)
    plane = fit_plane(angles, depths_m)
    shift = plane.mean_m - plane.supporting_mean_m
    differ = shift > coverage_factor * standard_m
    standard = hypot(standard_m, rectangular(shift)) if differ else standard_m
    return Ledge(plane.supporting_mean_m, standard, plane.mean_m, plane, differ)


def compare_with_measured(
    measured_m: float, measured_standard_m: float, predicted: StackPrediction, coverage_factor: float
) -> StackResidual:
    """Hold the measured mean protrusion against the predicted one.

    Parameters
    ----------
    measured_m, measured_standard_m : float
        Mean of the readings and its standard uncertainty. [m]
    predicted : StackPrediction
        What the parts give. [m]
    coverage_factor : float
        k of U = k·u.

    Returns
    -------
    StackResidual
        Measured − predicted, the joint U, and whether |residual| ≤ U. [m]

    Raises
    ------
    OutOfDomain
        If a value is not finite or an uncertainty is negative.
    """
    require_finite(measured=measured_m)
    require_not_negative(u_of_measured=measured_standard_m)
    residual = measured_m - predicted.protrusion_m
    expanded = coverage_factor * hypot(measured_standard_m, predicted.standard_m)
    return StackResidual(residual, expanded, abs(residual) <= expanded)


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
    A spacer counted once, twice or not at all: common practice, no published source.
    """
    require_finite(**{f"shim {place}": size for place, size in enumerate((*written_m, *sizes_m))})
    slips = [
        ShimSlip(written, really)
        for written in written_m
        for really in (*sizes_m, 2 * written, 0.0)
        if really != written and abs(residual.residual_m - (really - written)) <= residual.expanded_m
    ]
    return min(slips, key=lambda slip: abs(residual.residual_m - (slip.really_m - slip.written_m)), default=None)
