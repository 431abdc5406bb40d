"""The plane through readings round a circle: mean, tilt, and which side is high."""

from dataclasses import dataclass
from functools import lru_cache
from math import atan2, cos, degrees, hypot, radians, sin

import numpy as np
from numpy.typing import ArrayLike, NDArray

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.shapes.clock import turned
from vallostasis.core.trail import Step, Term

# Angles closer than this are one position: two readings there cannot carry a tilt. [deg]
SAME_POSITION_DEG = 0.5
# Float noise of a fit to readings that are all alike. [m]
NO_TILT_M = 1e-12


@dataclass(frozen=True, slots=True)
class PlaneFit:
    """z = mean + b·cosθ + c·sinθ fitted to readings; lengths in m, angles in degrees."""

    mean_m: float
    b_m: float
    c_m: float
    residuals_m: NDArray[np.float64]

    @property
    def tilt_amplitude_m(self) -> float:
        """Half of high-to-low. [m] Closed form."""
        return hypot(self.b_m, self.c_m)

    @property
    def high_to_low_m(self) -> float:
        """From the highest to the lowest point of the plane on the circle. [m] Closed form."""
        return 2.0 * self.tilt_amplitude_m

    @property
    def high_side_deg(self) -> float | None:
        """Direction of the greatest value, in the sense in which the angles were given; None without a tilt. [deg]"""
        if self.tilt_amplitude_m < NO_TILT_M:
            return None
        return turned(degrees(atan2(self.c_m, self.b_m)), 360.0)

    @property
    def rms_residual_m(self) -> float:
        """Root of the mean squared residual, divided by the number of readings. [m] By definition."""
        return float(np.sqrt(np.mean(self.residuals_m**2)))

    def at(self, angle_deg: float) -> float:
        """Height of the plane in a direction, a + b·cosθ + c·sinθ in the sense of the fit. [m] Closed form."""
        theta = radians(angle_deg)
        return self.mean_m + self.b_m * cos(theta) + self.c_m * sin(theta)

    @property
    def supporting_mean_m(self) -> float:
        """Mean of the parallel plane moved towards smaller values until no reading lies below it. [m]

        For depths from the deck smaller is higher: this is the plane a flange comes to rest on.
        """
        return self.mean_m + float(np.min(self.residuals_m))


def fit_plane(angles_deg: ArrayLike, values_m: ArrayLike) -> PlaneFit:
    r"""Fit a plane to readings round a circle by least squares.

    Parameters
    ----------
    angles_deg : array_like, shape (n,)
        Positions; the high side comes back in the same sense. [deg]
    values_m : array_like, shape (n,)
        Heights or depths. [m]

    Returns
    -------
    PlaneFit
        Mean, tilt and residuals, shape (n,). [m]

    Raises
    ------
    OutOfDomain
        If shapes differ, a value is not finite, or fewer than three different positions are given:
        two positions leave the tilt open.

    Notes
    -----
    .. math:: z = a + b \cos\theta + c \sin\theta

    Solved by its pseudo-inverse. With unequally spaced positions the mean of the plane is
    not the mean of the readings.
    """
    angles = np.asarray(angles_deg, dtype=np.float64)
    values = np.asarray(values_m, dtype=np.float64)
    if angles.shape != values.shape or angles.ndim != 1:
        raise OutOfDomain("as many angles as readings are needed", "angles_deg")
    if not (np.isfinite(angles).all() and np.isfinite(values).all()):
        raise OutOfDomain("angles and readings must be finite numbers", "readings_m")
    if different_positions(angles) < 3:
        raise OutOfDomain("a plane needs readings at three different positions or more", "angles_deg")
    weights, columns = plane_weights(angles)
    solved = weights @ values
    return PlaneFit(float(solved[0]), float(solved[1]), float(solved[2]), values - columns @ solved)


def plane_weights(angles_deg: ArrayLike) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """What each reading weighs in centre, b and c of the plane, and the design behind it.

    Returns
    -------
    weights, design : array, shape (3, n) and (n, 3)
        The solution of least squares is weights @ readings. [1]

    Notes
    -----
    Pseudo-inverse of the design: G. Strang, Introduction to Linear Algebra, least squares (from memory).
    """
    return _weights_at(tuple(float(one) for one in np.asarray(angles_deg)))


@lru_cache(maxsize=512)
def _weights_at(angles_deg: tuple[float, ...]) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    theta = np.radians(angles_deg)
    columns = np.column_stack([np.ones_like(theta), np.cos(theta), np.sin(theta)])
    return np.linalg.pinv(columns), columns


def plane_step(plane: PlaneFit, direction: str) -> Step:
    """Write a plane out as one line of arithmetic; ``direction`` names its high side. Lengths in m."""
    towards = f": the high side lies towards {direction}" if direction else ": no high side can be told"
    return Step(
        f"Plane through the readings{towards}",
        "z = a + b·cosθ + c·sinθ, high to low = 2·√(b² + c²)",
        (Term("a", plane.mean_m), Term("b", plane.b_m), Term("c", plane.c_m)),
        Term("high to low", plane.high_to_low_m),
        "least squares; half of it is the tilt to either side",
    )


def different_positions(angles_deg: NDArray[np.float64]) -> int:
    """Count positions that are more than half a degree apart, taken round the circle."""
    around = np.sort(np.mod(angles_deg, 360.0))
    if around.size == 0:
        return 0
    gaps = np.diff(np.append(around, around[0] + 360.0))
    return max(1, int(np.count_nonzero(gaps > SAME_POSITION_DEG)))
