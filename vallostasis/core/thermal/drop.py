"""A cold liner in a warm hole, each as warm all through: what the gap of air conducts as it closes.

References
----------
.. [1] Incropera and DeWitt, lumped capacitance, from memory: holds while the Biot number is below 0.1.
.. [2] SciPy ``integrate.solve_ivp`` (LSODA), events by root finding.
.. [3] ISO 1: free sizes at temperature with a mean expansion.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from math import exp, inf, log, pi

import numpy as np
from numpy.typing import NDArray
from scipy.integrate import solve_ivp
from scipy.optimize import brentq

from vallostasis.core.errors import OutOfDomain, require_finite
from vallostasis.core.thermal.films import biot

# How long anything in a bore is followed. [s]
LONGEST_S = 6 * 3600.0


@dataclass(frozen=True, slots=True)
class Stuff:
    """What a part is made of. [kg/m³], [J/(kg K)], [W/(m K)], [1/K]"""

    rho: float
    c: float
    k: float
    alpha: float

    def __post_init__(self) -> None:
        """Refuse what holds or conducts no heat."""
        for name, value in (("rho", self.rho), ("c", self.c), ("k", self.k)):
            require_finite(**{name: value})
            if value <= 0:
                raise OutOfDomain(f"{name} above nought is needed", name)


@dataclass(frozen=True, slots=True)
class Drop:
    """A liner, the hole it drops into, and what lies between them, at the reference. [m], [°C], [W/(m K)]"""

    inside_m: float
    outside_m: float
    hole_m: float
    length_m: float
    liner: Stuff
    block: Stuff
    reference_c: float = 20.0
    air_k: float = 0.025

    def __post_init__(self) -> None:
        """Refuse a liner without a wall, and gaps that conduct nothing."""
        require_finite(liner_id_m=self.inside_m, liner_od_m=self.outside_m, hole_diameter_m=self.hole_m,
                       length_m=self.length_m)  # fmt: skip
        if not 0 <= self.inside_m < self.outside_m or min(self.hole_m, self.length_m) <= 0:
            raise OutOfDomain("a liner has a wall, a hole and a length above nought", "liner_id_m")
        if self.air_k <= 0:
            raise OutOfDomain("air conducts", "k_air_w_mk")

    @property
    def liner_j_k(self) -> float:
        """Heat that the liner takes for each degree. [J/K] By definition."""
        return self.liner.rho * self.liner.c * pi / 4 * (self.outside_m**2 - self.inside_m**2) * self.length_m

    def ring_j_k(self, outside_m: float) -> float:
        """Heat that the block takes as a ring round the hole. [J/K] By definition."""
        if outside_m <= self.hole_m:
            raise OutOfDomain("a boss is larger than its hole", "boss_od_m")
        return self.block.rho * self.block.c * pi / 4 * (outside_m**2 - self.hole_m**2) * self.length_m

    def clearance(self, liner_c: float, block_c: float) -> float:
        """Free hole less free liner. [m] ISO 1 [3]_ of the module."""
        hole = self.hole_m * (1 + self.block.alpha * (block_c - self.reference_c))
        return hole - self.outside_m * (1 + self.liner.alpha * (liner_c - self.reference_c))

    def conducts(self, clearance_m: float) -> float:
        """What a concentric gap of air conducts: k·A over half the clearance [m]. [W/K] By definition."""
        return self.air_k * pi * self.outside_m * self.length_m / (clearance_m / 2)

    def gap_film(self, clearance_m: float) -> float:
        """The same for each area of the face. [W/(m² K)] By definition."""
        return self.air_k / (clearance_m / 2)


@dataclass(frozen=True, slots=True)
class Lost:
    """When a clearance is lost, and how warm both are then; all None where it never is. [s], [°C]"""

    seconds: float | None
    liner_c: float | None
    block_c: float | None


@dataclass(frozen=True, slots=True)
class InTheBore:
    """A liner after it is in its hole. [m], [s], [°C]"""

    entered_m: float
    lost: Lost
    held_constant_s: float | None
    at_times_m: tuple[float, ...]
    settles_m: float
    biot_block: float | None


def cooled(start_c: float, air_c: float, time_constant_s: float, seconds: float) -> float:
    """Return the temperature of a part of one node in air. [°C] Exponential, [1]_ of the module."""
    if time_constant_s <= 0:
        raise OutOfDomain("a time constant above nought is needed", "time_constant_s")
    return air_c + (start_c - air_c) * exp(-seconds / time_constant_s)


def cools_to(start_c: float, air_c: float, time_constant_s: float, until_c: float) -> float | None:
    """Return when it is there; None where it never is. [s] The same exponential, closed form."""
    share = (until_c - air_c) / (start_c - air_c) if start_c != air_c else inf
    return -time_constant_s * log(share) if 0 < share <= 1 else None


def in_the_bore(
    drop: Drop, liner_c: float, block_c: float, boss_m: float | None, times_s: Sequence[float]
) -> InTheBore:
    """Follow a liner that is in its hole, with nothing lost to the air.

    Parameters
    ----------
    drop : Drop
        Liner and hole.
    liner_c, block_c : float
        As it enters. [°C]
    boss_m : float or None
        Outside of the block taken as a ring; None for a block whose temperature stays. [m]
    times_s : sequence of float
        When the clearance is asked for. [s]

    Returns
    -------
    InTheBore
        Two nodes over a concentric gap that closes as both change [1]_, [2]_ of the module; ``held_constant_s`` is
        what the gap at entering would give if it stayed: two to three times too long.

    Raises
    ------
    OutOfDomain
        If nothing is clear as it enters.
    """
    require_finite(liner_temperature_at_insertion_c=liner_c, block_temperature_at_insertion_c=block_c)
    entered = drop.clearance(liner_c, block_c)
    if entered <= 0:
        raise OutOfDomain("it does not enter: liner and hole touch at these temperatures", "interference_diametral_m")
    liner_j, block_j = drop.liner_j_k, None if boss_m is None else drop.ring_j_k(boss_m)

    def slopes(_t: float, both: NDArray[np.float64]) -> list[float]:
        flows = drop.conducts(max(drop.clearance(both[0], both[1]), 1e-9)) * (both[1] - both[0])
        return [flows / liner_j, 0.0 if block_j is None else -flows / block_j]

    ends = liner_j * liner_c + (0 if block_j is None else block_j * block_c)
    settles_c = block_c if block_j is None else ends / (liner_j + block_j)
    settles = drop.clearance(settles_c, settles_c)
    lost, at_times = _followed(slopes, lambda both: drop.clearance(both[0], both[1]), (liner_c, block_c), times_s,
                               LONGEST_S)  # fmt: skip
    film = drop.gap_film(entered)
    wall = None if boss_m is None else (boss_m - drop.outside_m) / 2
    return InTheBore(entered, lost, _held_constant(drop, liner_c, block_c, settles_c, liner_j, block_j), at_times,
                     settles, None if wall is None else biot(film, wall, drop.block.k))  # fmt: skip


def _held_constant(drop: Drop, liner_c: float, block_c: float, settles_c: float, liner_j: float,
                   block_j: float | None) -> float | None:  # fmt: skip
    """When a gap that stays as it was at entering would have lost the clearance; None where it never does. [s]"""
    if drop.clearance(settles_c, settles_c) >= 0:
        return None
    conducts = drop.conducts(drop.clearance(liner_c, block_c))
    constant = 1 / (conducts * (1 / liner_j + (0 if block_j is None else 1 / block_j)))

    def left(seconds: float) -> float:
        share = exp(-seconds / constant)
        return drop.clearance(settles_c + (liner_c - settles_c) * share, settles_c + (block_c - settles_c) * share)

    # What settles a hair below touching is not there in any time that counts.
    return float(brentq(left, 0.0, 60 * constant)) if left(60 * constant) < 0 else None


def _followed(
    slopes: Callable[[float, NDArray[np.float64]], list[float]],
    clearance: Callable[[NDArray[np.float64]], float],
    start: tuple[float, float],
    times_s: Sequence[float],
    longest_s: float,
) -> tuple[Lost, tuple[float, ...]]:
    """Follow both nodes until the clearance is gone, and say what it was at each time; nought once it is gone."""

    def gone(_t: float, both: NDArray[np.float64]) -> float:
        return clearance(both)

    gone.terminal = True  # type: ignore[attr-defined]
    until = max([longest_s, *times_s])
    found = solve_ivp(slopes, (0.0, until), start, method="LSODA", events=gone, dense_output=True, rtol=1e-9, atol=1e-9)
    assert found.t_events is not None and found.y_events is not None and found.sol is not None
    end, lost = None, Lost(None, None, None)
    if len(found.t_events[0]):
        end = float(found.t_events[0][0])
        lost = Lost(end, float(found.y_events[0][0][0]), float(found.y_events[0][0][1]))
    at = [0.0 if end is not None and one >= end else clearance(found.sol(one)) for one in times_s]
    return lost, tuple(float(one) for one in at)


@dataclass(frozen=True, slots=True)
class Losses:
    """What the air takes: from each face of the liner [W/(m² K)], from the block as a whole [W/K]; its mass [kg]."""

    liner_film: float
    block_w_k: float
    block_kg: float
    air_c: float

    def __post_init__(self) -> None:
        """Refuse what loses nothing: it would stay as it is."""
        if min(self.liner_film, self.block_w_k, self.block_kg) <= 0:
            raise OutOfDomain("films and a mass above nought are needed", "h_liner_w_m2k")


@dataclass(frozen=True, slots=True)
class Carried:
    """A liner carried to its hole and dropped in. [m], [°C], [s]"""

    if_after_m: tuple[float, ...]
    liner_c: float
    block_c: float
    entered_m: float
    lost_s: float | None
    too_late_s: float | None


def carry_and_drop(drop: Drop, losses: Losses, start_c: tuple[float, float], carry_s: float,
                   tabled_s: Sequence[float]) -> Carried:  # fmt: skip
    """Carry a liner for a time, drop it in, and follow it.

    Parameters
    ----------
    drop : Drop
        Liner and hole.
    losses : Losses
        What the air takes.
    start_c : tuple of float
        Liner and block as the liner leaves its cold place. [°C]
    carry_s : float
        How long it is carried. [s]
    tabled_s : sequence of float
        Other times, for the clearance that it would enter with. [s]

    Returns
    -------
    Carried
        Exponentials in air, then two nodes with the whole block as one [1]_, [2]_ of the module. ``too_late_s`` is
        when nothing would be clear any more, None where that never comes.

    Raises
    ------
    OutOfDomain
        If it does not enter after that time.
    """
    face = pi * drop.length_m * losses.liner_film
    liner_w, bore_w = face * (drop.outside_m + drop.inside_m), face * drop.inside_m
    block_j = losses.block_kg * drop.block.c
    constants = (drop.liner_j_k / liner_w, block_j / losses.block_w_k)

    def then(seconds: float) -> tuple[float, float]:
        return (cooled(start_c[0], losses.air_c, constants[0], seconds),
                cooled(start_c[1], losses.air_c, constants[1], seconds))  # fmt: skip

    def clear(seconds: float) -> float:
        return drop.clearance(*then(seconds))

    at = then(carry_s)
    if drop.clearance(*at) <= 0:
        raise OutOfDomain("after that time it does not enter any more: liner and hole touch", "carry_time_s")

    def slopes(_t: float, both: NDArray[np.float64]) -> list[float]:
        flows = drop.conducts(max(drop.clearance(both[0], both[1]), 1e-9)) * (both[1] - both[0])
        liner = (flows + bore_w * (losses.air_c - both[0])) / drop.liner_j_k
        return [liner, (-flows + losses.block_w_k * (losses.air_c - both[1])) / block_j]

    lost, _ = _followed(slopes, lambda both: drop.clearance(both[0], both[1]), at, (), LONGEST_S)
    late = float(brentq(clear, 0.0, LONGEST_S)) if clear(0.0) > 0 > clear(LONGEST_S) else None
    return Carried(tuple(clear(one) for one in tabled_s), at[0], at[1], drop.clearance(*at), lost.seconds, late)


def wall_mean_c(hole_m: float, outside_m: float, faces_c: tuple[float, float]) -> float:
    """Return the area mean of a wall in a steady flow of heat: that is what its hole grows by. [°C]

    Parameters
    ----------
    hole_m, outside_m : float
        Both diameters of the wall. [m]
    faces_c : tuple of float
        Temperatures at the hole and outside. [°C]

    Returns
    -------
    float
        Of a logarithmic profile T = T_i + (T_o − T_i)·ln(r/a)/ln(b/a), integrated over the ring in closed form; the
        free ring grows by its area mean (Timoshenko, thermal stresses in a hollow cylinder).

    Raises
    ------
    OutOfDomain
        If it has no wall.
    """
    if not 0 < hole_m < outside_m:
        raise OutOfDomain("a wall has an outside larger than its hole", "boss_od_m")
    ratio = outside_m / hole_m
    share = ratio**2 / (ratio**2 - 1) - 1 / (2 * log(ratio))
    return faces_c[0] + (faces_c[1] - faces_c[0]) * share
