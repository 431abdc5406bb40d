"""A liner going in, from both profiles: how far by hand, with what force, where it stiffens.

Pushed in to a depth x, the section of the liner that lies h below its top stands at block depth x − (L − h): the foot
meets the top of the hole first, and every part of the hole meets every part of the liner below it on the way.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from scipy.integrate import cumulative_trapezoid

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.fits.thick_walled import Array, Rings, press_force

# Slices along the liner: finer than readings at five levels ask for.
SLICES = 40
# A hand pushes so hard [N], within that share; friction dry and oiled within that share. Common practice, from memory.
PUSH_N, DRY, OILED = 250.0, 0.2, 0.1
PUSH_WITHIN, FRICTION_WITHIN = 0.4, 0.4
# Friction while a puller or a press slides a liner home. [1] From memory.
PULL_FRICTION = (0.08, 0.2)
# Where the slope of the force grows by half within a tenth of the length, whoever turns the screw feels it stiffen.
STIFFENS_BY, OVER_SHARE = 1.5, 0.1


@dataclass(frozen=True, slots=True)
class Insertion:
    """A liner on its way in. Arrays end with the depth; what stands before it are draws.

    ``depths_m`` is how far the foot has gone in [m], ``force_n`` what it then takes at that friction [N].
    """

    depths_m: Array
    force_n: Array

    @property
    def greatest_n(self) -> Array:
        """The greatest force on the way. [N] By definition."""
        return np.asarray(self.force_n.max(axis=-1), dtype=np.float64)

    @property
    def work_j(self) -> Array:
        """Work of going home: the integral of the force. [J] By definition."""
        return np.asarray(cumulative_trapezoid(self.force_n, self.depths_m, axis=-1)[..., -1], dtype=np.float64)


def profile_over(depths_m: Sequence[float], values_m: Array, length_m: float, slices: int = SLICES) -> Array:
    """Lay a profile over a length at even steps by straight lines between its levels. [m]

    Parameters
    ----------
    depths_m : sequence of float, shape (levels,)
        Levels from the top, rising. [m]
    values_m : array, shape (..., levels)
        Values there. [m]
    length_m : float
        Where the profile ends. [m]
    slices : int
        Steps.

    Returns
    -------
    array, shape (..., slices + 1)
        Beyond the outer levels as it is there: common practice, as for the interference between levels.
    """
    at = np.asarray(depths_m, dtype=np.float64)
    values = np.asarray(values_m, dtype=np.float64)
    wanted = np.clip(np.linspace(0.0, length_m, slices + 1), at[0], at[-1])
    if len(at) == 1:
        return np.repeat(values, slices + 1, axis=-1)
    upper = np.clip(np.searchsorted(at, wanted), 1, len(at) - 1)
    share = (wanted - at[upper - 1]) / (at[upper] - at[upper - 1])
    return np.asarray((1 - share) * values[..., upper - 1] + share * values[..., upper], dtype=np.float64)


def insert(rings: Rings, liner_m: Array, bore_m: Array, length_m: float, friction: Array | float,
           lead_in_m: float = 0.0) -> Insertion:  # fmt: skip
    """Push a liner in from its foot to home.

    Parameters
    ----------
    rings : Rings
        Both walls.
    liner_m, bore_m : array, shape (..., n + 1)
        Outside of the liner from its top, and bore of the block from the deck, at the same even steps. [m]
    length_m : float
        From the first to the last of them. [m]
    friction : array or float, shape (...)
        Coefficient of friction. [1]
    lead_in_m : float
        So much of the foot is tapered and touches nothing. [m]

    Returns
    -------
    Insertion

    Raises
    ------
    OutOfDomain
        If the two profiles do not have the same steps.

    Notes
    -----
    p of every slice by Lamé (thick_walled), force μ·p·π·d·Δz summed over what has gone in by the trapezium rule; each
    slice gives way by itself, and clearance presses nothing. Closed form of the sum.
    """
    liner, bore = np.asarray(liner_m, dtype=np.float64), np.asarray(bore_m, dtype=np.float64)
    n = liner.shape[-1] - 1
    if bore.shape[-1] != n + 1 or n < 1:
        raise OutOfDomain("both profiles must be told at the same depths", "depths_m")
    pushed, section = np.indices((n + 1, n + 1))
    block = pushed - (n - section)
    met = (block >= 0) & (section * length_m / n <= length_m - lead_in_m + 1e-12)
    press = liner[..., None, :] - bore[..., np.maximum(block, 0)]
    np.maximum(press, 0.0, out=press)
    # Trapezium rule: the two ends of what has gone in count half.
    edge = np.where((block == 0) | (section == n), 0.5, 1.0)
    slices = press
    slices *= met * edge / (rings.fit_m * rings.give())
    slices[..., 0, :] = 0.0
    force = press_force(slices.sum(axis=-1), rings.fit_m, length_m / n, np.asarray(friction)[..., None])
    return Insertion(np.linspace(0.0, length_m, n + 1), force)


def hand_depth(insertion: Insertion, push_n: Array | float) -> Array:
    """How far a push slides a liner in before it stops. [m]

    Parameters
    ----------
    insertion : Insertion
        The way in, shape (..., n + 1).
    push_n : array or float, shape (...)
        What the hands push with. [N]

    Returns
    -------
    array, shape (...)
        Where the force first goes beyond the push, by a straight line between the steps; the whole length where it
        never does. By definition.
    """
    push = np.broadcast_to(np.asarray(push_n, dtype=np.float64), insertion.force_n.shape[:-1])[..., None]
    over = insertion.force_n > push
    first = np.where(over.any(axis=-1), over.argmax(axis=-1), over.shape[-1])
    last = insertion.depths_m[-1]
    upper = np.clip(first, 1, over.shape[-1] - 1)
    high = np.take_along_axis(insertion.force_n, upper[..., None], -1)[..., 0]
    low = np.take_along_axis(insertion.force_n, upper[..., None] - 1, -1)[..., 0]
    steps = insertion.depths_m
    share = np.clip((push[..., 0] - low) / np.where(high > low, high - low, 1.0), 0.0, 1.0)
    there = steps[upper - 1] + share * (steps[upper] - steps[upper - 1])
    return np.asarray(np.where(first >= over.shape[-1], last, there), dtype=np.float64)


def stiffens_at(insertion: Insertion) -> tuple[float, ...]:
    """Where a single way in grows stiffer than it was, so that somebody should know beforehand. [m]

    The slope over a tenth of the length ahead against that over the tenth behind; house rule.
    """
    force, depths = insertion.force_n, insertion.depths_m
    n = len(force) - 1
    span = max(1, round(n * OVER_SHARE))
    least = float(force.max()) / n * 0.5
    found: list[float] = []
    for at in range(span, n - span + 1):
        behind = (force[at] - force[at - span]) / span
        ahead = (force[at + span] - force[at]) / span
        stiffer = behind > 0 and ahead > STIFFENS_BY * behind and ahead > least
        if stiffer and (not found or depths[at] - found[-1] > 2 * span * depths[1]):
            found.append(float(depths[at]))
    return tuple(found)
