"""A liner through the air and into its hole, many times over with what nobody knows exactly drawn anew.

Walls stand as rings of cells; the gap of air conducts more as it closes, off centre more than centred,
and touching faces as much as dry contact does. One implicit step of all draws together is one call of LAPACK.

References
----------
.. [1] Patankar, Numerical Heat Transfer and Fluid Flow: finite volumes in radial coordinates, implicit in time.
.. [2] Eccentric annulus of a thin gap: the mean of 1/gap round the clock is 1/(g·√(1 − ε²)).
.. [3] Timoshenko: a free ring grows by the area mean of its temperature.
.. [5] Alexander, SIAM J. Numer. Anal. 14 (1977) 1006: diagonally implicit Runge-Kutta of two stages, from memory.
.. [4] SciPy ``integrate.solve_ivp`` (BDF) for the full solution that the steps are held against.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.integrate import solve_ivp
from scipy.linalg.lapack import dgtsv

from vallostasis.core.errors import OutOfDomain, require_finite
from vallostasis.core.thermal.drop import Stuff
from vallostasis.core.thermal.films import STEFAN
from vallostasis.core.thermal.shrink import Course, table_of

Array = NDArray[np.float64]
# Cells of the liner's wall and of the ring of block round it. House rule: their error is held in the tests.
LINER_CELLS, RING_CELLS = 2, 4
# Of a diagonally implicit step of two stages and second order, stable however stiff.
GAMMA = 1 - 0.5**0.5
# Conductivity of air between the faces, at about 0 °C. [W/(m K)] From memory.
AIR_K = 0.0245
# Both faces grey as machined: radiation across the gap at room temperature. [W/(m² K)] Stefan-Boltzmann.
RADIATES = 0.5 * 4 * STEFAN * 293.0**3


@dataclass(frozen=True, slots=True)
class Sizes:
    """Liner and hole at 20 °C, and how their metals grow. [m]"""

    inside_m: float
    outside_m: float
    length_m: float
    liner: Stuff
    block: Stuff
    liner_course: Course
    block_course: Course


@dataclass(frozen=True, slots=True)
class Draws:
    """What nobody knows exactly, each of shape (n,).

    ``press_m`` greatest liner less least hole at 20 °C [m]; starts and air [°C]; films of the liner's faces
    [W/(m² K)]; how long the block takes to cool in air [s]; how far off centre the liner hangs, as a share of the gap
    [1]; dry contact [W/(m² K)]; the wall of block that warms the gap [m]; shares by which both expansions are off [1].
    """

    press_m: Array
    liner_c: Array
    block_c: Array
    film: Array
    block_s: Array
    off_centre: Array
    contact: Array
    ring_m: Array
    liner_off: Array
    block_off: Array

    def __len__(self) -> int:
        """How many."""
        return len(self.press_m)


def _cells(inner_m: Array, outer_m: Array, count: int) -> tuple[Array, Array, Array]:
    """Radii of the faces (n, count+1) and middles (n, count), and cross sections (n, count). [m], [m²]"""
    share = np.linspace(0.0, 1.0, count + 1)
    faces = inner_m[:, None] + (outer_m - inner_m)[:, None] * share
    middles = (faces[:, 1:] + faces[:, :-1]) / 2
    return faces, middles, np.pi * (faces[:, 1:] ** 2 - faces[:, :-1] ** 2)


class Walls:
    """Cells of both walls for every draw, per metre of length: heat held [J/(m K)], what passes on [W/(m K)]."""

    def __init__(
        self, sizes: Sizes, draws: Draws, liner_cells: int = LINER_CELLS, ring_cells: int = RING_CELLS
    ) -> None:
        """Lay the cells out; refuse a liner without a wall."""
        if not 0 < sizes.inside_m < sizes.outside_m:
            raise OutOfDomain("a liner has a wall: check its inside and outside", "liner_id_m")
        n, self.liner_cells = len(draws), liner_cells
        out = np.full(n, sizes.outside_m / 2)
        parts = ((np.full(n, sizes.inside_m / 2), out, liner_cells, sizes.liner),
                 (out, out + draws.ring_m, ring_cells, sizes.block))  # fmt: skip
        holds, passes, self.areas = [], [], []
        for inner, outer, count, stuff in parts:
            faces, middles, areas = _cells(inner, outer, count)
            self.areas.append(areas)
            holds.append(stuff.rho * stuff.c * areas)
            passes.append(2 * np.pi * stuff.k / np.log(middles[:, 1:] / middles[:, :-1]))
            # From the middle of a cell to the face of the gap.
            at_gap = (middles[:, -1], faces[:, -1]) if count == liner_cells and stuff is sizes.liner else (
                faces[:, 0], middles[:, 0])  # fmt: skip
            passes.append((2 * np.pi * stuff.k / np.log(at_gap[1] / at_gap[0]))[:, None])
        self.holds = np.concatenate(holds, axis=1)
        self.within_liner, to_gap_liner, self.within_ring, to_gap_ring = passes
        self.half_cells = 1 / to_gap_liner[:, 0] + 1 / to_gap_ring[:, 0]
        self.bore_face, self.gap_face = np.pi * sizes.inside_m, np.pi * sizes.outside_m
        self.air_off_centre, self.rests = AIR_K / np.sqrt(1 - draws.off_centre**2), AIR_K / draws.contact
        self.fixed = self._fixed(draws)
        self.weights = [area / area.sum(axis=1, keepdims=True) for area in self.areas]

    def means(self, cells: Array) -> tuple[Array, Array]:
        """Area means of liner and ring. [°C] A free ring grows by that [3]_ of the module."""
        liner, ring = cells[:, : self.liner_cells], cells[:, self.liner_cells :]
        return (liner * self.weights[0]).sum(axis=1), (ring * self.weights[1]).sum(axis=1)

    def conduction(self, gap_m: Array, draws: Draws) -> Array:
        """What passes from the last cell of the liner to the first of the ring. [W/(m K)]

        Air between, off centre [2]_ of the module, and radiation; half cells on either side.
        """
        film = self.air_off_centre / (np.maximum(gap_m, 0.0) + self.rests) + RADIATES
        through: Array = 1 / (self.half_cells + 1 / (film * self.gap_face))
        return through

    def flows(self, through: Array) -> Array:
        """Bands of the matrix of what each cell gains by the others and by the air, for T' = A·T + b. [1/s]

        Shape (3, n·m), above, on and below the diagonal as LAPACK wants them, one draw after the other; finite
        volumes [1]_ of the module.
        """
        bands, last, count = self.fixed.copy(), self.liner_cells - 1, self.holds.shape[1]
        liner, ring = through / self.holds[:, last], through / self.holds[:, last + 1]
        bands[0, last + 1 :: count], bands[2, last::count] = liner, ring
        bands[1, last::count] -= liner
        bands[1, last + 1 :: count] -= ring
        return bands

    def _fixed(self, draws: Draws) -> Array:
        """What of that matrix stays as it is while the gap closes. [1/s]"""
        between = np.concatenate([self.within_liner, np.zeros((len(draws), 1)), self.within_ring], axis=1)
        to_next, to_last = np.zeros_like(self.holds), np.zeros_like(self.holds)
        to_next[:, :-1], to_last[:, 1:] = between / self.holds[:, :-1], between / self.holds[:, 1:]
        own = -to_next - to_last
        own[:, 0] -= draws.film * self.bore_face / self.holds[:, 0]
        own[:, self.liner_cells :] -= 1 / draws.block_s[:, None]
        bands = np.zeros((3, self.holds.size))
        bands[0, 1:], bands[1], bands[2, :-1] = to_next.ravel()[:-1], own.ravel(), to_last.ravel()[1:]
        return bands

    def gains(self, draws: Draws, air_c: float) -> Array:
        """What the air brings to each cell. [K/s], shape (n, m); finite volumes [1]_ of the module."""
        brings = np.zeros_like(self.holds)
        brings[:, 0] = draws.film * self.bore_face * air_c / self.holds[:, 0]
        brings[:, self.liner_cells :] = air_c / draws.block_s[:, None]
        return brings


def _flow(bands: Array, cells: Array) -> Array:
    """What cells gain by the others, for one matrix given by its bands. [K/s]"""
    flow: Array = bands[1] * cells
    flow[:-1] += bands[0, 1:] * cells[1:]
    flow[1:] += bands[2, :-1] * cells[:-1]
    return flow


def _back(bands: Array, step: float, wanted: Array) -> Array:
    """Solve (1 − step·A)·x for what is wanted: all draws are one tridiagonal system, one call of LAPACK."""
    implicit = -step * bands
    *_, found, failed = dgtsv(implicit[2, :-1], 1 + implicit[1], implicit[0, 1:], wanted)
    assert not failed, "what loses heat by itself is never singular"
    solved: Array = found
    return solved


def clearance_of(sizes: Sizes, draws: Draws, liner_c: Array, block_c: Array) -> Array:
    """Return hole less liner at their own temperatures. [m] Free expansion with both courses; ISO 1."""
    liner = sizes.outside_m * (1 + _strains(sizes.liner_course, liner_c) * draws.liner_off)
    return (sizes.outside_m - draws.press_m) * (1 + _strains(sizes.block_course, block_c) * draws.block_off) - liner


def _strains(course: Course, celsius: Array) -> Array:
    """What a course says of many temperatures, beyond its ends as at them: a draw may lie there by chance."""
    return np.interp(celsius, *table_of(course))


def carried(sizes: Sizes, draws: Draws, air_c: float, seconds: float) -> tuple[Array, Array]:
    """Return how warm liner and block are after some time in the air. [°C]

    Each as warm all through: a film of air is thousands of times weaker than their walls. Exponential,
    closed form.
    """
    liner = air_c + (draws.liner_c - air_c) * np.exp(-seconds * draws.film / liner_constant_s(sizes, 1.0))
    block = air_c + (draws.block_c - air_c) * np.exp(-seconds / draws.block_s)
    return liner, block


def liner_constant_s(sizes: Sizes, film: float) -> float:
    """Return the time constant of a liner whose faces both meet the air. [s] Lumped capacitance, closed form."""
    holds = sizes.liner.rho * sizes.liner.c * (sizes.outside_m**2 - sizes.inside_m**2) / 4
    return holds / (film * (sizes.outside_m + sizes.inside_m))


def followed(sizes: Sizes, draws: Draws, air_c: float, enter_s: float, times_s: Array) -> Array:
    """Return the clearance of every draw at times counted from leaving the cold, negative where it grabs.

    Parameters
    ----------
    sizes : Sizes
        Liner and hole.
    draws : Draws
        What is drawn.
    air_c : float
        Of the room. [°C]
    enter_s : float
        When it enters the hole. [s]
    times_s : ndarray, shape (m,)
        Rising. [s]

    Returns
    -------
    ndarray, shape (n, m)
        Exponentials in air, then finite volumes [1]_ of the module, implicit steps of second order [5]_ with the gap as
        it is half way. [m]
    """
    require_finite(air_c=air_c, enter_s=enter_s)
    found = np.empty((len(draws), len(times_s)))
    before = times_s < enter_s
    for at in np.flatnonzero(before):
        found[:, at] = clearance_of(sizes, draws, *carried(sizes, draws, air_c, float(times_s[at])))
    walls = Walls(sizes, draws)
    liner, block = carried(sizes, draws, air_c, enter_s)
    cells = np.concatenate(
        [np.repeat(liner[:, None], LINER_CELLS, 1), np.repeat(block[:, None], RING_CELLS, 1)], axis=1
    ).ravel()
    gains, here = walls.gains(draws, air_c).ravel(), enter_s
    clear, rate = clearance_of(sizes, draws, liner, block), np.zeros(len(draws))
    for at in np.flatnonzero(~before):
        step = float(times_s[at]) - here
        if step > 0:
            # The gap half way through the step, as it went in the one before.
            bands = walls.flows(walls.conduction((clear + rate * step / 2) / 2, draws))
            cells = cells + (1 - GAMMA) * step * _back(bands, GAMMA * step, _flow(bands, cells) + gains)
            cells = cells + GAMMA * step * _back(bands, GAMMA * step, _flow(bands, cells) + gains)
            now = clearance_of(sizes, draws, *walls.means(cells.reshape(len(draws), -1)))
            rate, clear, here = (now - clear) / step, now, float(times_s[at])
        found[:, at] = clear
    return found


def in_full(sizes: Sizes, draws: Draws, air_c: float, enter_s: float, times_s: Array) -> Array:
    """Return the clearance of one draw in full: fine cells, a stiff solver. [m]

    BDF [4]_ of the module on four times the cells; what the short way is held against, and too slow to follow a slider.
    """
    if len(draws) != 1:
        raise OutOfDomain("one draw at a time is solved in full", "draws")
    walls = Walls(sizes, draws, 4 * LINER_CELLS, 4 * RING_CELLS)
    liner, block = carried(sizes, draws, air_c, enter_s)
    gains = walls.gains(draws, air_c)[0]
    start = np.concatenate([np.full(4 * LINER_CELLS, liner[0]), np.full(4 * RING_CELLS, block[0])])

    def slopes(_t: float, cells: Array) -> Array:
        clear = clearance_of(sizes, draws, *walls.means(cells[None, :]))
        flow: Array = _flow(walls.flows(walls.conduction(clear / 2, draws)), cells) + gains
        return flow

    later = times_s[times_s >= enter_s]
    # What its differences of higher order hold before they are first worked out is whatever lay in memory.
    with np.errstate(invalid="ignore", over="ignore"):
        solved = solve_ivp(slopes, (enter_s, float(max(later.max(), enter_s + 1e-6))), start, method="BDF",
                           t_eval=later, rtol=1e-7, atol=1e-7)  # fmt: skip
    inside = clearance_of(sizes, _alike(draws, len(later)), *Walls(sizes, _alike(draws, len(later)), 4 * LINER_CELLS,
                                                                   4 * RING_CELLS).means(solved.y.T))  # fmt: skip
    early = [clearance_of(sizes, draws, *carried(sizes, draws, air_c, float(t)))[0] for t in times_s[times_s < enter_s]]
    return np.concatenate([early, inside])


def _alike(draws: Draws, many: int) -> Draws:
    """One draw, many times."""
    return Draws(**{name: np.repeat(getattr(draws, name), many) for name in Draws.__dataclass_fields__})
