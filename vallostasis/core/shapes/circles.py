"""Reference circles of one level of a bore: least squares, minimum zone, maximum inscribed, minimum circumscribed."""

from collections.abc import Callable
from dataclasses import dataclass
from math import hypot

import numpy as np
from numpy.typing import ArrayLike
from scipy.optimize import least_squares
from scipy.spatial import ConvexHull, Delaunay, QhullError

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.shapes.reference_fit import Array, Distances, Reference, lay_by_programme

# More points than this are thinned before the empty circle is looked for; its last step takes them all again.
MOST_TRIANGLES = 2000
SECTORS = 1440


@dataclass(frozen=True, slots=True)
class Circle:
    """A reference circle: its centre and diameter, and how far the points lie apart about that centre. [m]"""

    reference: Reference
    x_m: float
    y_m: float
    diameter_m: float
    roundness_m: float


def points_of(points_m: ArrayLike, columns: int = 2, least: int = 3) -> Array:
    """Read points of a wall. [m]

    Raises
    ------
    OutOfDomain
        If there are too few, or a coordinate is missing or not finite. By definition of the circle and the cylinder.
    """
    points: Array = np.asarray(points_m, dtype=np.float64)
    if points.ndim != 2 or points.shape[1] != columns:
        raise OutOfDomain(f"every point has {columns} coordinates", "points_m")
    if len(points) < least:
        raise OutOfDomain(f"this takes {least} points or more", "points_m")
    if not np.isfinite(points).all():
        raise OutOfDomain("a coordinate is no number", "points_m")
    return points


def least_squares_circle(points_m: ArrayLike) -> Circle:
    """Lay the circle with the least sum of squared distances of the points from it. [m]

    Parameters
    ----------
    points_m : array_like, shape (n, 2)
        Points of the wall.

    Raises
    ------
    OutOfDomain
        If there are fewer than three points, or they lie on a line.

    References
    ----------
    .. [1] ISO 12181-1: least squares reference circle. Found by scipy.optimize.least_squares from the algebraic circle.
    """
    points = points_of(points_m)
    middle = points.mean(axis=0)
    off = points - middle
    scale = float(np.abs(off).max()) or 1.0
    off = off / scale
    design = np.column_stack([2 * off, np.ones(len(off))])
    if np.linalg.matrix_rank(design, tol=1e-9) < 3:
        raise OutOfDomain("points on a line have no circle", "points_m")
    algebraic = np.linalg.lstsq(design, (off**2).sum(axis=1), rcond=None)[0]
    radius = float(np.sqrt(algebraic[2] + algebraic[0] ** 2 + algebraic[1] ** 2))

    def residuals(at: Array) -> Array:
        return np.asarray(np.hypot(off[:, 0] - at[0], off[:, 1] - at[1]) - at[2], dtype=np.float64)

    def slopes(at: Array) -> Array:
        away = off - at[:2]
        return np.column_stack([-away / np.linalg.norm(away, axis=1)[:, None], -np.ones(len(off))])

    fit = least_squares(residuals, [algebraic[0], algebraic[1], radius], slopes, method="lm", xtol=1e-15, ftol=1e-15,
                        gtol=1e-15)  # fmt: skip
    x, y = fit.x[:2] * scale + middle
    return _circle(Reference.LEAST_SQUARES, points, float(x), float(y), 2 * float(fit.x[2]) * scale)


def minimum_circumscribed_circle(points_m: ArrayLike) -> Circle:
    """Lay the smallest circle that holds every point. [m]

    Parameters
    ----------
    points_m : array_like, shape (n, 2)
        Points of the wall.

    Notes
    -----
    Points are taken in one by one: where one lies outside, the circle is laid anew through it.

    References
    ----------
    .. [1] E. Welzl, Smallest enclosing disks (balls and ellipsoids), 1991; ISO 12181-1: minimum circumscribed circle.
    """
    points = points_of(points_m)
    x, y, radius = enclosing(points)
    return _circle(Reference.MINIMUM_CIRCUMSCRIBED, points, x, y, 2 * radius)


def enclosing(points: Array) -> tuple[float, float, float]:
    """Return centre and radius of the smallest circle that holds every point. [m]

    By [1]_ of minimum_circumscribed_circle.
    """
    return _of_the_farthest(points, _enclosing)


def _of_the_farthest(points: Array, solve: Callable[[Array], tuple[float, float, float]]) -> tuple[float, float, float]:
    """Solve for few points, and take in whichever lies farthest outside, until none does."""
    middle = points.mean(axis=0)
    near = points - middle
    taken = [int(np.argmax((near**2).sum(axis=1)))]
    while True:
        x, y, radius = solve(points[taken])
        far = np.hypot(points[:, 0] - x, points[:, 1] - y)
        farthest = int(far.argmax())
        if farthest in taken or far[farthest] <= radius * (1 + 1e-13):
            return x, y, float(far[farthest])
        taken.append(farthest)


def _enclosing(points: Array) -> tuple[float, float, float]:
    circle = (float(points[0, 0]), float(points[0, 1]), 0.0)
    for i in range(1, len(points)):
        if _holds(circle, points[i]):
            continue
        circle = (float(points[i, 0]), float(points[i, 1]), 0.0)
        for j in range(i):
            if _holds(circle, points[j]):
                continue
            circle = _on_two(points[i], points[j])
            for k in range(j):
                if not _holds(circle, points[k]):
                    circle = _on_three(points[i], points[j], points[k])
    return circle


def _holds(circle: tuple[float, float, float], point: Array) -> bool:
    return hypot(point[0] - circle[0], point[1] - circle[1]) <= circle[2] * (1 + 1e-13) + 1e-18


def _on_two(one: Array, other: Array) -> tuple[float, float, float]:
    x, y = (one + other) / 2
    return float(x), float(y), float(np.hypot(*(one - other))) / 2


def _on_three(one: Array, two: Array, three: Array) -> tuple[float, float, float]:
    (bx, by), (cx, cy) = two - one, three - one
    twice = 2 * (bx * cy - by * cx)
    if twice == 0:
        ends = max(((one, two), (one, three), (two, three)), key=lambda pair: float(np.hypot(*(pair[0] - pair[1]))))
        return _on_two(*ends)
    x = (cy * (bx**2 + by**2) - by * (cx**2 + cy**2)) / twice
    y = (bx * (cx**2 + cy**2) - cx * (bx**2 + by**2)) / twice
    return float(one[0] + x), float(one[1] + y), hypot(x, y)


def reference_circle(points_m: ArrayLike, reference: Reference, start_m: tuple[float, float] | None = None) -> Circle:
    """Lay a circle through the points of one level by the method named. [m]

    Parameters
    ----------
    points_m : array_like, shape (n, 2)
        Points of the wall.
    reference : Reference
        The method.
    start_m : tuple of float or None
        A centre near by to begin with; that of least squares where none is given.

    Raises
    ------
    OutOfDomain
        If there are fewer than three points, they lie on a line, or not round one centre.

    References
    ----------
    .. [1] ISO 12181-1: reference circles and the deviation from each.
    """
    points = points_of(points_m)
    if reference is Reference.MINIMUM_CIRCUMSCRIBED:
        return minimum_circumscribed_circle(points)
    if start_m is None or reference is Reference.LEAST_SQUARES:
        squares = least_squares_circle(points)
        if reference is Reference.LEAST_SQUARES:
            return squares
        start_m = (squares.x_m, squares.y_m)

    def distances_at(centre: Array) -> Distances:
        away = points - centre
        values = np.hypot(away[:, 0], away[:, 1])
        return Distances(values, -away / values[:, None])

    start = np.array(start_m)
    inscribed = reference is Reference.MAXIMUM_INSCRIBED
    x, y = lay_by_programme(distances_at, _emptiest(points, start) if inscribed else start, reference)
    values = np.hypot(points[:, 0] - x, points[:, 1] - y)
    diameter = 2 * float(values.min()) if inscribed else float(values.min() + values.max())
    return _circle(reference, points, float(x), float(y), diameter)


def _emptiest(points: Array, start: Array) -> Array:
    """Return the centre inside the hull that is farthest from its nearest point: a corner of the Voronoi diagram. [m]

    A largest empty circle touches three points, and is then the circumscribed circle of a triangle of Delaunay.
    """
    middle, scale = start, float(np.abs(points - start).max())
    near = (points - middle) / scale
    if len(near) > MOST_TRIANGLES:
        near = _innermost(near)
    try:
        triangles = near[Delaunay(near).simplices]
    except QhullError:
        return start
    (ax, ay), (bx, by) = (triangles[:, 1] - triangles[:, 0]).T, (triangles[:, 2] - triangles[:, 0]).T
    twice = 2 * (ax * by - ay * bx)
    there = twice != 0
    ax, ay, bx, by, twice = ax[there], ay[there], bx[there], by[there], twice[there]
    x = triangles[there, 0, 0] + (by * (ax**2 + ay**2) - ay * (bx**2 + by**2)) / twice
    y = triangles[there, 0, 1] + (ax * (bx**2 + by**2) - bx * (ax**2 + ay**2)) / twice
    centres = np.column_stack([x, y])
    # No point lies inside the circle of a triangle of Delaunay: its nearest point is its own corner.
    empty = np.hypot(*(centres - triangles[there, 0]).T)
    hull = ConvexHull(near)
    inside = (centres @ hull.equations[:, :2].T + hull.equations[:, 2] <= 0).all(axis=1)
    centres = centres[inside]
    if not len(centres):
        return start
    return np.asarray(centres[int(np.argmax(empty[inside]))] * scale + middle, dtype=np.float64)


def _innermost(near: Array) -> Array:
    """Keep the innermost point of each narrow sector: only those can touch a circle from outside."""
    sector = np.floor((np.arctan2(near[:, 1], near[:, 0]) + np.pi) / (2 * np.pi) * SECTORS).astype(int)
    order = np.lexsort(((near**2).sum(axis=1), sector))
    first = np.unique(sector[order], return_index=True)[1]
    return np.asarray(near[order[first]], dtype=np.float64)


def _circle(reference: Reference, points: Array, x: float, y: float, diameter: float) -> Circle:
    away = np.hypot(points[:, 0] - x, points[:, 1] - y)
    return Circle(reference, x, y, diameter, float(np.ptp(away)))


def enclosing_within(points: Array, about: tuple[float, float], move_m: float) -> tuple[float, float, float]:
    """Return the smallest circle that holds every point with its centre no further than so much from a place. [m]

    Parameters
    ----------
    points : array, shape (n, 2)
        Points of the wall.
    about : tuple of float
        Where the centre may move from.
    move_m : float
        How far, nought or more.

    Returns
    -------
    tuple of float
        Centre and radius.

    Notes
    -----
    Where the free centre lies too far off, the best one lies on the rim of the move: straight towards one point, or
    where two are equally far. All of those are looked at, so it is exact. Closed form.
    """
    x, y, radius = enclosing(points)
    if hypot(x - about[0], y - about[1]) <= move_m:
        return x, y, radius
    start = np.array(about)
    x, y, radius = _of_the_farthest(points - start, lambda few: _on_the_rim(few, move_m))
    return x + about[0], y + about[1], radius


def _on_the_rim(corners: Array, move_m: float) -> tuple[float, float, float]:
    """Return the best circle for few points with its centre on the rim of a move about nought."""
    if move_m == 0:
        return 0.0, 0.0, float(np.hypot(corners[:, 0], corners[:, 1]).max())
    rims = [move_m * corners / np.linalg.norm(corners, axis=1)[:, None]]
    first, second = np.triu_indices(len(corners), 1)
    # |c|² is the same all round the rim, so two corners are equally far where c·(p − q) = (|p|² − |q|²)/2.
    apart = corners[first] - corners[second]
    length = np.linalg.norm(apart, axis=1)
    there = length > 0
    apart, length = apart[there] / length[there][:, None], length[there]
    middle = ((corners[first][there] ** 2).sum(axis=1) - (corners[second][there] ** 2).sum(axis=1)) / (2 * length)
    meets = np.abs(middle) <= move_m
    along = np.sqrt(np.maximum(0, move_m**2 - middle[meets] ** 2))
    across = np.column_stack([-apart[meets][:, 1], apart[meets][:, 0]])
    foot = apart[meets] * middle[meets][:, None]
    centres = np.vstack([*rims, foot + across * along[:, None], foot - across * along[:, None]])
    farthest = np.hypot(corners[:, 0, None] - centres[:, 0], corners[:, 1, None] - centres[:, 1]).max(axis=0)
    best = int(farthest.argmin())
    return float(centres[best, 0]), float(centres[best, 1]), float(farthest[best])
