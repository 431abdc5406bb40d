"""The plane through readings round a circle: mean, tilt, and which side is high."""

from dataclasses import dataclass
from math import atan2, degrees, hypot

import numpy as np
from numpy.typing import ArrayLike, NDArray

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.trail import Step, Term

# Angles closer than this are one position: two readings there cannot carry a tilt. [deg]
SAME_POSITION_DEG = 0.5


@dataclass(frozen=True, slots=True)
class PlaneFit:
    """z = mean + b·cosθ + c·sinθ fitted to readings; lengths in m, angles in degrees."""

    mean_m: float
    b_m: float
    c_m: float
    residuals_m: NDArray[np.float64]

    @property
    def tilt_amplitude_m(self) -> float:
        """Half of high-to-low. [m]"""
        return hypot(self.b_m, self.c_m)

    @property
    def high_to_low_m(self) -> float:
        """From the highest to the lowest point of the plane on the circle. [m]"""
        return 2.0 * self.tilt_amplitude_m

    @property
    def high_side_deg(self) -> float:
        """Direction of the greatest value, in the sense in which the angles were given. [deg]"""
        return degrees(atan2(self.c_m, self.b_m)) % 360.0

    @property
    def rms_residual_m(self) -> float:
        """Root of the mean squared residual, divided by the number of readings. [m]"""
        return float(np.sqrt(np.mean(self.residuals_m**2)))

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

    Solved by ``numpy.linalg.lstsq``. With unequally spaced positions the mean of the plane is
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
    theta = np.radians(angles)
    columns = np.column_stack([np.ones_like(theta), np.cos(theta), np.sin(theta)])
    (mean, b, c), *_ = np.linalg.lstsq(columns, values, rcond=None)
    return PlaneFit(float(mean), float(b), float(c), values - columns @ np.array([mean, b, c]))


def plane_step(plane: PlaneFit, direction: str) -> Step:
    """Write a plane out as one line of arithmetic; ``direction`` names its high side. Lengths in m."""
    return Step(
        f"Plane through the readings: the high side lies towards {direction}",
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
