"""Sizes far from room temperature: expansion that falls with the cold, and what pair of temperatures a drop needs.

References
----------
.. [1] Touloukian et al., Thermophysical Properties of Matter, vol. 12: linear expansion of iron, aluminium and copper,
   from memory; scaled to what a part has at room temperature.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache

import numpy as np
from numpy.typing import NDArray

from vallostasis.core.errors import OutOfDomain, require_finite
from vallostasis.core.records.temperatures import REFERENCE_C

KELVIN = 273.15
LIQUID_NITROGEN_C = -195.8
# Where a table begins and ends. [K]
COLDEST_K, WARMEST_K = 60.0, 500.0
_TEMPERATURES_K = (60.0, 77.0, 100.0, 150.0, 200.0, 250.0, 293.15, 350.0, 400.0, 500.0)
# Instantaneous expansion of pure metals at those. [1e-6/K] Touloukian, from memory.
_PURE = {
    "iron": (2.0, 3.6, 5.6, 8.4, 10.1, 11.1, 11.8, 12.6, 13.4, 14.8),
    "aluminium": (4.7, 8.2, 12.2, 17.4, 20.3, 22.0, 23.1, 24.2, 25.1, 26.6),
    "copper": (5.4, 8.2, 10.5, 13.6, 15.2, 16.1, 16.6, 17.1, 17.6, 18.3),
}
# Whose course a material follows, the telling words first.
_LIKE = (("bronze", "copper"), ("brass", "copper"), ("copper", "copper"), ("iron", "iron"), ("steel", "iron"),
         ("aluminium", "aluminium"), ("aluminum", "aluminium"), ("alloy", "aluminium"))  # fmt: skip


@dataclass(frozen=True, slots=True)
class Course:
    """How expansion goes with temperature: straight lines between points. [K], [1/K]"""

    temperatures_k: tuple[float, ...]
    per_k: tuple[float, ...]

    def __post_init__(self) -> None:
        """Refuse a course that does not rise in temperature, or has fewer than two points."""
        rises = all(a < b for a, b in zip(self.temperatures_k, self.temperatures_k[1:], strict=False))
        if len(self.temperatures_k) < 2 or len(self.temperatures_k) != len(self.per_k) or not rises:
            raise OutOfDomain(
                "a course has two temperatures at least, rising, with an expansion each", "temperatures_k"
            )

    def at(self, celsius: float) -> float:
        """Return the expansion at a temperature. [1/K] A straight line between points."""
        return float(np.interp(celsius + KELVIN, self.temperatures_k, self.per_k))

    def mean(self, celsius: float, reference_c: float = REFERENCE_C) -> float:
        """Return the mean expansion from the reference; that at it where both are alike. [1/K] By definition."""
        if celsius == reference_c:
            return self.at(celsius)
        return self.strain(celsius, reference_c) / (celsius - reference_c)

    def strain(self, celsius: float, reference_c: float = REFERENCE_C) -> float:
        """Return how much longer a part is than at the reference, as a share. [1]

        Raises
        ------
        OutOfDomain
            Beyond the ends of the course.

        Notes
        -----
        The integral of straight lines, exact by trapezoids over their points.
        """
        return float(self.strains(np.array([celsius]), reference_c)[0])

    def strains(self, celsius: NDArray[np.float64], reference_c: float = REFERENCE_C) -> NDArray[np.float64]:
        """Return :meth:`strain` of many temperatures at once. [1] By definition of its integral."""
        at, reference = np.asarray(celsius, float) + KELVIN, reference_c + KELVIN
        ends = (self.temperatures_k[0], self.temperatures_k[-1])
        if not (np.all(np.isfinite(at)) and ends[0] <= min(float(at.min()), reference)
                and max(float(at.max()), reference) <= ends[1]):  # fmt: skip
            raise OutOfDomain(f"expansion is known from {ends[0] - KELVIN:.0f} to {ends[1] - KELVIN:.0f} °C", "celsius")
        return self._grown(at) - self._grown(np.array([reference]))

    def _grown(self, at_k: NDArray[np.float64]) -> NDArray[np.float64]:
        """The integral from the first point. [1]"""
        knots, rates = np.array(self.temperatures_k), np.array(self.per_k)
        upto = np.concatenate([[0.0], np.cumsum(np.diff(knots) * (rates[1:] + rates[:-1]) / 2)])
        piece = np.clip(np.searchsorted(knots, at_k, side="right") - 1, 0, len(knots) - 2)
        here = np.interp(at_k, knots, rates)
        grown: NDArray[np.float64] = upto[piece] + (at_k - knots[piece]) * (rates[piece] + here) / 2
        return grown


def constant_course(per_k: float) -> Course:
    """Return a course that does not change with temperature: the usual shop sum. By definition."""
    return Course((COLDEST_K, WARMEST_K), (per_k, per_k))


def course_of(material: str, per_k: float) -> Course:
    """Return the course of a material that has a known expansion at room temperature.

    Parameters
    ----------
    material : str
        What it is called; the course of iron where no word of it is known.
    per_k : float
        Its expansion at 20 °C. [1/K]

    Returns
    -------
    Course
        That of the pure metal [1]_ of the module, scaled.
    """
    words = material.casefold()
    pure = np.array(_PURE[next((like for word, like in _LIKE if word in words), "iron")])
    at_room = float(np.interp(REFERENCE_C + KELVIN, _TEMPERATURES_K, pure))
    return Course(_TEMPERATURES_K, tuple(float(one) for one in pure * per_k / at_room))


@dataclass(frozen=True, slots=True)
class Pair:
    """A hole and the liner that goes into it, both at the reference. [m]"""

    hole_m: float
    liner_m: float
    block: Course
    liner: Course
    reference_c: float = REFERENCE_C

    def clearance(self, block_c: float, liner_c: float) -> float:
        """Return hole less liner at temperatures of their own. [m] Free expansion, ISO 1."""
        hole = self.hole_m * (1 + self.block.strain(block_c, self.reference_c))
        return hole - self.liner_m * (1 + self.liner.strain(liner_c, self.reference_c))


def block_needed(pair: Pair, clearance_m: float, liner_c: float) -> float | None:
    """Return how warm a block has to be for a clearance; None where its course ends before. [m], [°C]

    The strain that is asked for, looked up in its course; free expansion, ISO 1.
    """
    liner = pair.liner_m * (1 + pair.liner.strain(liner_c, pair.reference_c))
    return reaches(pair.block, (liner + clearance_m) / pair.hole_m - 1, pair.reference_c)


def liner_needed(pair: Pair, clearance_m: float, block_c: float) -> float | None:
    """Return how cold a liner has to be for a clearance; None where its course ends before. [m], [°C]

    The strain that is asked for, looked up in its course; free expansion, ISO 1.
    """
    hole = pair.hole_m * (1 + pair.block.strain(block_c, pair.reference_c))
    return reaches(pair.liner, (hole - clearance_m) / pair.liner_m - 1, pair.reference_c)


def reaches(course: Course, strain: float, reference_c: float = REFERENCE_C) -> float | None:
    """Return at which temperature a part has a strain; None beyond the ends of its course. [°C]

    Straight lines between half degrees of its integral: within a tenth of a nanometre on 100 mm; by definition.
    """
    celsius, strains = table_of(course)
    wanted = strain + float(np.interp(reference_c, celsius, strains))
    if not strains[0] <= wanted <= strains[-1]:
        return None
    return float(np.interp(wanted, strains, celsius))


@cache
def table_of(course: Course) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """Return the strains of a course at every half degree, from 20 °C. [°C], [1] By definition."""
    ends = (course.temperatures_k[0] - KELVIN, course.temperatures_k[-1] - KELVIN)
    celsius = np.linspace(*ends, int(2 * (ends[1] - ends[0])) + 1)
    return celsius, course.strains(celsius)


def temperature_by_sum(
    hole_m: float,
    liner_m: float,
    clearance_m: float,
    per_k: Sequence[float],
    block_c: float | None,
    liner_c: float | None,
    reference_c: float = REFERENCE_C,
) -> float:
    """Return the temperature that is asked for by constant expansions: the usual shop sum.

    Parameters
    ----------
    hole_m, liner_m, clearance_m : float
        Sizes at the reference, and the clearance wanted. [m]
    per_k : sequence of float
        Expansion of block and liner. [1/K]
    block_c, liner_c : float or None
        The one that is known; the other is asked for. [°C]
    reference_c : float
        Temperature of the sizes. [°C]

    Returns
    -------
    float
        Solved from hole·(1 + α_b·ΔT_b) − liner·(1 + α_l·ΔT_l) = clearance. [°C] ISO 1.

    Raises
    ------
    OutOfDomain
        If both or neither is known, or a part does not grow.
    """
    require_finite(hole_diameter_m=hole_m, liner_od_m=liner_m, wanted_clearance_m=clearance_m)
    if (block_c is None) == (liner_c is None):
        raise OutOfDomain("give the temperature of one of them: the other is asked for", "liner_temperature_c")
    if min(*per_k, hole_m, liner_m) <= 0:
        raise OutOfDomain("sizes and expansions above nought are needed", "alpha_block")
    if liner_c is not None:
        liner = liner_m * (1 + per_k[1] * (liner_c - reference_c))
        return reference_c + (liner + clearance_m - hole_m) / (hole_m * per_k[0])
    assert block_c is not None
    hole = hole_m * (1 + per_k[0] * (block_c - reference_c))
    return reference_c + (hole - clearance_m - liner_m) / (liner_m * per_k[1])
