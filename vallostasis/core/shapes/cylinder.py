"""Reference cylinders over all levels of a bore: the same four methods as for circles, with an axis that may lean."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike
from scipy.optimize import least_squares

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.shapes.circles import points_of
from vallostasis.core.shapes.reference_fit import Array, Distances, Reference, lay_by_programme


@dataclass(frozen=True, slots=True)
class CylinderFit:
    """A reference cylinder: its axis at the mean depth, the lean of the axis, its diameter, the spread of the points.

    ``lean_x``, ``lean_y`` are what the axis moves over a length of depth. [m], [1]
    """

    reference: Reference
    x_m: float
    y_m: float
    lean_x: float
    lean_y: float
    diameter_m: float
    cylindricity_m: float


def reference_cylinder(points_m: ArrayLike, reference: Reference = Reference.LEAST_SQUARES) -> CylinderFit:
    """Lay a cylinder through points of a wall by the method named.

    Parameters
    ----------
    points_m : array_like, shape (n, 3)
        x, y and depth z of each point. [m]
    reference : Reference
        The method.

    Returns
    -------
    CylinderFit
        Axis x = x_m + lean_x·z', y = y_m + lean_y·z' with z' = z less the mean depth.

    Raises
    ------
    OutOfDomain
        If there are fewer than six points, all lie at one depth, or not round one axis.

    References
    ----------
    .. [1] ISO 12180-1: reference cylinders and cylindricity; distances are true, at right angles to the axis.
    """
    points = points_of(points_m, columns=3, least=6)
    depth = points[:, 2] - points[:, 2].mean()
    if not np.ptp(depth) > 0:
        raise OutOfDomain("a cylinder needs points at two depths or more", "points_m")
    middle = points[:, :2].mean(axis=0)
    near = np.column_stack([points[:, :2] - middle, depth])
    start = np.append(_least_squares(near), 0.0)[:4]
    axis = start
    if reference is not Reference.LEAST_SQUARES:
        axis = lay_by_programme(lambda at: distances_from(near, at), start, reference)
    values = distances_from(near, axis).values_m
    radius = {
        Reference.LEAST_SQUARES: float(values.mean()),
        Reference.MINIMUM_ZONE: float(values.min() + values.max()) / 2,
        Reference.MAXIMUM_INSCRIBED: float(values.min()),
        Reference.MINIMUM_CIRCUMSCRIBED: float(values.max()),
    }[reference]
    return CylinderFit(reference, float(axis[0] + middle[0]), float(axis[1] + middle[1]), float(axis[2]),
                       float(axis[3]), 2 * radius, float(np.ptp(values)))  # fmt: skip


def distances_from(points: Array, axis: Array) -> Distances:
    """Return true distances of points from a leaning axis, and their slopes.

    Parameters
    ----------
    points : array, shape (n, 3)
        x, y, depth. [m]
    axis : array, shape (4,)
        x, y [m] and lean in x, y [1].

    Notes
    -----
    With t the direction of the axis and q a point seen from its foot, the distance is |q − (q·t)t|; the distance falls
    by the unit vector away from the axis as the foot moves, and by that times the way along it as it leans.
    Closed form.
    """
    length = float(np.sqrt(1 + axis[2] ** 2 + axis[3] ** 2))
    direction = np.array([axis[2], axis[3], 1.0]) / length
    seen = points - np.array([axis[0], axis[1], 0.0])
    along = seen @ direction
    away = seen - along[:, None] * direction
    values = np.linalg.norm(away, axis=1)
    unit = away[:, :2] / values[:, None]
    return Distances(values, np.column_stack([-unit, -unit * (along / length)[:, None]]))


def _least_squares(points: Array) -> Array:
    scale = float(np.hypot(points[:, 0], points[:, 1]).mean())
    if not scale > 0:
        raise OutOfDomain("these points do not lie round one axis", "points_m")
    scaled = points / scale

    def residuals(at: Array) -> Array:
        return np.asarray(distances_from(scaled, at[:4]).values_m - at[4], dtype=np.float64)

    def slopes(at: Array) -> Array:
        return np.column_stack([distances_from(scaled, at[:4]).slopes, -np.ones(len(scaled))])

    fit = least_squares(residuals, [0.0, 0.0, 0.0, 0.0, 1.0], slopes, xtol=1e-15, ftol=1e-15, gtol=1e-15)
    return np.array([fit.x[0] * scale, fit.x[1] * scale, fit.x[2], fit.x[3]])
