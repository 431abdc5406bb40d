"""Lobes of a bore by harmonics: what a scan of one level holds, filtered or not, and what a load does to it."""

from dataclasses import dataclass
from math import log, pi

import numpy as np
from numpy.typing import ArrayLike, NDArray

from vallostasis.core.errors import OutOfDomain

Array = NDArray[np.float64]
# Orders told of a scan: two lobes to fifteen.
FIRST_ORDER, LAST_ORDER = 2, 15
# Even steps that a scan is read off at before its harmonics are taken: enough for twice the highest cut-off.
EVEN_STEPS = 3600
# Cut-offs in undulations per revolution that instruments offer. ISO 12181-2 (from memory).
CUT_OFFS_UPR = (15, 50, 150, 500)


@dataclass(frozen=True, slots=True)
class Lobe:
    """One order of a profile: its amplitude and where it is greatest first. [m], [deg]"""

    order: int
    amplitude_m: float
    direction_deg: float


def even_profile(angles_deg: ArrayLike, radii_m: ArrayLike, steps: int = EVEN_STEPS) -> Array:
    """Read a profile off at even angles, by straight lines between its points. [m]

    Parameters
    ----------
    angles_deg, radii_m : array_like, shape (n,)
        Points in any order; angles of one turn or several. [deg], [m]
    steps : int
        How many even angles, from 0 on.

    Raises
    ------
    OutOfDomain
        If there are fewer than three different angles, or as many radii are not given.

    Linear interpolation, by definition.
    """
    angles, radii = np.asarray(angles_deg, dtype=np.float64) % 360.0, np.asarray(radii_m, dtype=np.float64)
    if angles.shape != radii.shape or angles.ndim != 1:
        raise OutOfDomain("there is one radius for each angle", "radii_m")
    there, back = np.unique(angles, return_inverse=True)
    if len(there) < 3:
        raise OutOfDomain("a profile needs three different angles or more", "angles_deg")
    means = np.bincount(back, weights=radii) / np.bincount(back)
    return np.interp(np.arange(steps) * 360.0 / steps, there, means, period=360.0)


def lobes_of(even_m: Array, first: int = FIRST_ORDER, last: int = LAST_ORDER) -> tuple[Lobe, ...]:
    """Return the orders of an even profile by fast Fourier transform.

    Parameters
    ----------
    even_m : array, shape (n,)
        Radii at even angles from 0 on; order 1 is left out: where the centre lay while it was read. [m]
    first, last : int
        Orders told.

    Notes
    -----
    r(θ) = r0 + Σ A_k cos k(θ − φ_k). Definition of the Fourier series; numpy.fft.
    """
    parts = np.fft.rfft(even_m) / len(even_m) * 2
    told = []
    for order in range(first, min(last, (len(even_m) - 1) // 2) + 1):
        phase = float(np.degrees(-np.angle(parts[order]))) / order
        told.append(Lobe(order, float(abs(parts[order])), phase % (360.0 / order)))
    return tuple(told)


def filtered(even_m: Array, cut_off_upr: int) -> Array:
    """Pass an even profile through the Gaussian filter of roundness. [m]

    Parameters
    ----------
    even_m : array, shape (n,)
        Radii at even angles. [m]
    cut_off_upr : int
        Undulations per revolution that pass by half. [1]

    Raises
    ------
    OutOfDomain
        If the cut-off is not above nought.

    References
    ----------
    .. [1] ISO 16610-21: transmission exp(−π(α·f/fc)²) with α = √(ln 2/π), so that half passes at the cut-off.
    """
    if cut_off_upr <= 0:
        raise OutOfDomain("a cut-off is above nought", "cut_off_upr")
    parts = np.fft.rfft(even_m)
    orders = np.arange(len(parts))
    passes = np.exp(-pi * (log(2) / pi) * (orders / cut_off_upr) ** 2)
    return np.asarray(np.fft.irfft(parts * passes, len(even_m)), dtype=np.float64)


@dataclass(frozen=True, slots=True)
class Distortion:
    """What a load does to one level. [m]

    ``shape_m`` is clamped less free at even angles without its mean and without order 1, ``range_m`` its greatest less
    least, ``raw_range_m`` that of the bare difference; ``size_m`` the change of the mean on the diameter.
    """

    shape_m: Array
    lobes: tuple[Lobe, ...]
    size_m: float
    range_m: float
    raw_range_m: float


def distortion_of(angles_deg: ArrayLike, free_m: ArrayLike, clamped_m: ArrayLike) -> Distortion:
    """Return what a load does to a level read by radius at the same angles with and without it. [deg], [m]

    Parameters
    ----------
    angles_deg : array_like, shape (n,)
        Even steps of one turn. [deg]
    free_m, clamped_m : array_like, shape (n,)
        Radii. [m]

    Raises
    ------
    OutOfDomain
        If the angles are not even steps of one turn, or numbers differ.

    Notes
    -----
    Order 0 is size, order 1 where the gauge stood in the bore: neither is shape. By definition of the Fourier series.
    """
    angles = np.asarray(angles_deg, dtype=np.float64)
    free, clamped = np.asarray(free_m, dtype=np.float64), np.asarray(clamped_m, dtype=np.float64)
    if not (angles.shape == free.shape == clamped.shape) or angles.ndim != 1 or len(angles) < 5:
        raise OutOfDomain("give the same angles for both, five or more, with one radius each", "angles_deg")
    order = np.argsort(angles % 360.0)
    steps = np.diff(angles[order] % 360.0)
    if np.abs(steps - 360.0 / len(angles)).max() > 1e-3:
        raise OutOfDomain("the angles are not even steps of one turn: read a scan off at even angles first",
                          "angles_deg")  # fmt: skip
    change = (clamped - free)[order]
    turns = np.radians(angles[order])
    design = np.column_stack([np.ones(len(turns)), np.cos(turns), np.sin(turns)])
    size, *_ = parts = design.T @ change / np.array([len(turns), len(turns) / 2, len(turns) / 2])
    shape = change - design @ parts
    begins = float(angles[order][0] % 360.0)
    lobes = tuple(Lobe(one.order, one.amplitude_m, (one.direction_deg + begins) % (360.0 / one.order))
                  for one in lobes_of(shape))  # fmt: skip
    return Distortion(shape, lobes, 2 * float(size), float(np.ptp(shape)), float(np.ptp(change)))
