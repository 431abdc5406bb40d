"""What thermometers teach while a drop runs: starts and films anew, and with them the window.

What the gap conducts once the liner is in its hole cannot be learned in air: that part of the band stays as it was.

References
----------
.. [1] Gauss-Newton on normal priors: Tarantola, Inverse Problem Theory (2005), least-squares criterion with a priori
   values; scipy.optimize.least_squares.
.. [2] GUM F.2.3.5 (JCGM 100:2008): what is common to all readings of one instrument does not average out.
"""

from dataclasses import dataclass, replace
from math import exp

import numpy as np
from scipy.optimize import least_squares

from vallostasis.core.errors import require_finite
from vallostasis.core.heat.planner import HeatFit, spreads_of
from vallostasis.core.heat.run import DropNow, Warmth, enters_at
from vallostasis.core.heat.transient import Array, Sizes, liner_constant_s
from vallostasis.core.heat.window import Spreads, Window, drop_window
from vallostasis.core.records.heat_runs import HeatMarkKind

# A clipped thermometer: common to all its readings, and of each one, as standard deviations. [K] House rule.
THERMOMETER_OFF_K, NOISE_K = 0.5, 0.25
# What was read so long before the liner came out is still what it came out with. [s] House rule.
JUST_BEFORE_S = 30.0


@dataclass(frozen=True, slots=True)
class Learned:
    """A start [°C] with its ± (one standard deviation), a time constant as a factor, how both are tied together [1]."""

    start_c: float
    start_off_k: float
    factor: float
    factor_off: float
    tie: float


@dataclass(frozen=True, slots=True)
class LiveWindow:
    """The window as it stands now, with what it is worked out from. [°C], [s]

    ``liner_reads`` and ``block_reads`` are how many readings moved it.
    """

    window: Window
    spreads: Spreads
    planned: Spreads
    air_c: float
    enter_s: float
    liner_reads: int
    block_reads: int

    def block_c(self, seconds: float) -> float:
        """How warm the block is, away from the liner. [°C] Exponential, closed form."""
        return self.air_c + (self.spreads.block_c - self.air_c) * exp(-seconds / self.spreads.block_s)

    def liner_c(self, sizes: Sizes, seconds: float) -> float:
        """How warm the liner is in the air. [°C] Exponential, closed form."""
        constant = liner_constant_s(sizes, self.spreads.film)
        return self.air_c + (self.spreads.liner_c - self.air_c) * exp(-seconds / constant)


def learned_of(start_c: float, start_off_k: float, constant_s: float, constant_off: float, air_c: float,
               reads: tuple[Warmth, ...]) -> Learned:  # fmt: skip
    """Return what readings teach of a part that comes to the temperature of the room.

    Parameters
    ----------
    start_c, start_off_k : float
        Start expected at second nought, and how far off it may be, as a standard deviation. [°C], [K]
    constant_s, constant_off : float
        Time constant expected [s], and how far off its logarithm may be [1].
    air_c : float
        Of the room. [°C]
    reads : tuple of Warmth
        What was read, and when. [s], [°C]

    Returns
    -------
    Learned
        Most likely values and their covariance by least squares on priors and readings [1]_; what is wrong with the
        thermometer is common to all its readings [2]_ of the module.
    """
    require_finite(start_c=start_c, air_c=air_c)
    if not reads:
        return Learned(start_c, start_off_k, 1.0, constant_off, 0.0)
    seconds = np.array([one.seconds for one in reads])
    celsius = np.array([one.celsius for one in reads])

    def off(z: Array) -> Array:
        start, constant = start_c + start_off_k * z[0], constant_s * np.exp(constant_off * z[1])
        shown = air_c + (start - air_c) * np.exp(-seconds / constant) + THERMOMETER_OFF_K * z[2]
        return np.concatenate([z, (shown - celsius) / NOISE_K])

    found = least_squares(off, np.zeros(3))
    slopes: Array = np.asarray(found.jac, dtype=np.float64)
    spread = np.linalg.inv(slopes.T @ slopes)
    tie = spread[0, 1] / np.sqrt(spread[0, 0] * spread[1, 1])
    return Learned(float(start_c + start_off_k * found.x[0]), float(start_off_k * np.sqrt(spread[0, 0])),
                   float(np.exp(constant_off * found.x[1])), float(constant_off * np.sqrt(spread[1, 1])),
                   float(tie))  # fmt: skip


def spreads_learned(sizes: Sizes, spreads: Spreads, air_c: float, liner: tuple[Warmth, ...],
                    block: tuple[Warmth, ...]) -> Spreads:  # fmt: skip
    """Return the spreads of a drop with what its thermometers taught.

    Parameters
    ----------
    sizes : Sizes
        Liner and hole. [m]
    spreads : Spreads
        As planned.
    air_c : float
        Of the room. [°C]
    liner, block : tuple of Warmth
        What was read in the air; seconds count from leaving the cold, before that they are negative. [s], [°C]

    Returns
    -------
    Spreads
        Starts, films and how they are tied by least squares [1]_ of the module; all else as it was.
    """
    constant = liner_constant_s(sizes, spreads.film)
    cold = learned_of(spreads.liner_c, spreads.liner_off_k, constant, spreads.film_off, air_c, liner)
    hot = learned_of(spreads.block_c, spreads.block_off_k, spreads.block_s, spreads.block_s_off, air_c, block)
    return replace(
        spreads, liner_c=cold.start_c, liner_off_k=cold.start_off_k, film=spreads.film / cold.factor,
        # A film twice as good is half the time constant: what is tied to one is tied to the other the other way round.
        film_off=cold.factor_off, liner_tie=-cold.tie, block_c=hot.start_c, block_off_k=hot.start_off_k,
        block_s=spreads.block_s * hot.factor, block_s_off=hot.factor_off, block_tie=hot.tie,
    )  # fmt: skip


def live_window(fit: HeatFit, now: DropNow, now_s: float) -> LiveWindow:
    """Return the window of a drop that runs.

    Parameters
    ----------
    fit : HeatFit
        The fit.
    now : DropNow
        The drop as it stands.
    now_s : float
        Seconds since the liner left the cold. [s]

    Returns
    -------
    LiveWindow
        By what its thermometers read in the air up to now [1]_ of the module, entering when it did or as the run
        sheet has it. [m], [s]
    """
    run, rooms = now.run, now.warmths(HeatMarkKind.ROOM_READ)
    air_c = rooms[-1].celsius if rooms else float(run.air_c)
    enter_s = enters_at(now, now_s)
    planned = spreads_of(fit, float(run.liner_c), float(run.block_c), air_c, float(run.block_kg))
    # Once it is in its hole, the two tell of each other and no longer of the air.
    until = enter_s if now.entered_at is not None else float("inf")
    liner, block = (_in_air(now, kind, until) for kind in (HeatMarkKind.LINER_READ, HeatMarkKind.BLOCK_READ))
    spreads = spreads_learned(fit.sizes, planned, air_c, liner, block)
    window = drop_window(fit.sizes, spreads, air_c, min(enter_s, 3600.0), float(run.wanted_um) * 1e-6)
    return LiveWindow(window, spreads, planned, air_c, enter_s, len(liner), len(block))


def _in_air(now: DropNow, kind: HeatMarkKind, until_s: float) -> tuple[Warmth, ...]:
    """What was read of a part in the air, and just before as at the start: it rested in oven or cold. [s], [°C]"""
    read = now.warmths(kind)
    if now.out_at is None:
        return read[-1:]
    return tuple(Warmth(max(0.0, one.seconds), one.celsius) for one in read if -JUST_BEFORE_S <= one.seconds <= until_s)
