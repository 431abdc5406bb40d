"""What is worked out from the readings of a survey, each value with the budget of its ±.

References
----------
.. [1] JCGM 100:2008 (GUM), 5.1.2 and F.1.2.3: sums of readings and what they share. Ranges and amplitudes: extremes.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum
from math import degrees

import numpy as np
from numpy.typing import NDArray

from vallostasis.core.shapes.bore_form import form_weights
from vallostasis.core.shapes.ovality import ELLIPSE_FROM_AXES, different_axes, ellipse_weights
from vallostasis.core.shapes.plane import different_positions, plane_weights
from vallostasis.core.uncertainty.budget import Estimate, Stated, mean_of, stated, value_of, weighted
from vallostasis.core.uncertainty.extremes import amplitude_of, direction_within, range_of


class DerivedKind(StrEnum):
    """What is worked out."""

    MEAN = "mean"
    VARIATION = "variation"
    TILT = "high to low"
    OUT_OF_ROUND = "out of round"
    TAPER = "taper"
    END_TO_END = "taper end to end"
    FITTED_TAPER = "fitted taper"
    BARREL = "barrel"
    BELL_TOP = "bell-mouth at the top"
    BELL_BOTTOM = "bell-mouth at the bottom"
    OVALITY = "ovality"
    FOUR_LOBES = "four lobes"
    FLATNESS = "flatness"


@dataclass(frozen=True, slots=True)
class Derived:
    """One value worked out, where on the part, and for an amplitude its direction. [m], [deg]

    ``direction_deg`` is None where it has none, ``within_deg`` where scatter alone would show as much.
    """

    kind: DerivedKind
    where: str
    stated: Stated
    readings: int = 1
    direction_deg: float | None = None
    within_deg: float | None = None

    @property
    def per_side_m(self) -> float | None:
        """Half of it where it is a difference of diameters: people confuse the two. [m] By definition."""
        return self.stated.value_m / 2 if self.kind is DerivedKind.OUT_OF_ROUND else None


def _weighed(weights: NDArray[np.float64], estimates: Sequence[Estimate]) -> Estimate:
    return weighted((float(weight), one) for weight, one in zip(weights, estimates, strict=True))


def centre_of(estimates: Sequence[Estimate], angles_deg: Sequence[float]) -> Estimate:
    """Value at the middle of a circle: centre of the plane from three different positions on, else the mean. [m]

    Notes
    -----
    Round evenly spaced positions the two are one; where they are not, a mean would carry the tilt. Weights of the
    least-squares plane.
    Common practice where they are not.
    """
    angles = np.asarray(angles_deg, dtype=np.float64)
    if different_positions(angles) < 3:
        return mean_of(estimates)
    return _weighed(plane_weights(angles)[0][0], estimates)


def round_the_clock(
    estimates: Sequence[Estimate], angles_deg: Sequence[float], least_count: int, k: float
) -> Iterator[Derived]:
    """Mean, variation and tilt of readings round a circle. Least squares; ± by extremes."""
    if not estimates:
        return
    yield Derived(DerivedKind.MEAN, "", stated("mean", centre_of(estimates, angles_deg), k), least_count)
    if len(estimates) > 1:
        yield Derived(DerivedKind.VARIATION, "", range_of("variation round", estimates, k), least_count)
    angles = np.asarray(angles_deg, dtype=np.float64)
    if different_positions(angles) < 3:
        return
    weights = plane_weights(angles)[0]
    parts = (_weighed(weights[1], estimates), _weighed(weights[2], estimates))
    yield _amplitude(DerivedKind.TILT, "", parts, 1, k, least_count)


def _amplitude(
    kind: DerivedKind, where: str, parts: tuple[Estimate, Estimate], order: int, k: float, readings: int = 1
) -> Derived:
    """High to low of a plane (order 1), greatest less least of an oval (2) or of four lobes (4)."""
    value = amplitude_of(kind.value, parts, 2.0, k)
    within = direction_within(parts, k)
    b, c = (value_of(one) for one in parts)
    direction = None if within is None else float(degrees(np.arctan2(c, b)) % 360) / order % (360 / order)
    return Derived(kind, where, value, readings, direction, None if within is None else degrees(within) / order)


@dataclass(frozen=True, slots=True)
class BoreTable:
    """Estimates of a bore by level and axis, None where none was read, and the names of its levels. [m], [deg]

    ``repeats`` is how many readings stand at each place at the least.
    """

    cells: tuple[tuple[Estimate | None, ...], ...]
    axes_deg: tuple[float, ...]
    depths_m: tuple[float, ...]
    names: tuple[str, ...]
    repeats: int = 1

    @property
    def there(self) -> NDArray[np.bool_]:
        """Which were read."""
        return np.array([[cell is not None for cell in row] for row in self.cells])

    def read(self) -> list[Estimate]:
        """Every estimate, level by level."""
        return [cell for row in self.cells for cell in row if cell is not None]

    def by_level(self) -> dict[str, list[Estimate]]:
        """What was read at each level."""
        return {
            name: [cell for cell in row if cell is not None] for name, row in zip(self.names, self.cells, strict=True)
        }

    def by_axis(self) -> dict[str, list[Estimate]]:
        """What was read along each axis."""
        return {
            f"{axis:g}°": [row[number] for row in self.cells if row[number] is not None]  # type: ignore[misc]
            for number, axis in enumerate(self.axes_deg)
        }


def of_a_bore(table: BoreTable, k: float) -> Iterator[Derived]:
    """Everything that a survey of diameters says, level by level and between levels. ± by GUM 5.1.2 and extremes."""
    yield Derived(DerivedKind.MEAN, "", stated("mean", mean_of(table.read()), k), table.repeats)
    yield from _ranges(DerivedKind.OUT_OF_ROUND, table.by_level(), k, table.repeats)
    yield from _ranges(DerivedKind.TAPER, table.by_axis(), k, table.repeats)
    yield from _between_levels(table, k)
    yield from _ovals(table, k)


def _ranges(kind: DerivedKind, groups: Mapping[str, Sequence[Estimate]], k: float, readings: int) -> Iterator[Derived]:
    """Greatest less least of each group; each ± covers that the widest of them may be picked to be judged."""
    wide = {where: values for where, values in groups.items() if len(values) > 1}
    for where, values in wide.items():
        yield Derived(kind, where, range_of(f"{kind.value}, {where}", values, k, len(wide)), readings)


def _between_levels(table: BoreTable, k: float) -> Iterator[Derived]:
    weights = form_weights(table.there, table.depths_m)
    flat = [cell for row in table.cells for cell in row]
    for kind, one in (
        (DerivedKind.END_TO_END, weights.end_to_end),
        (DerivedKind.FITTED_TAPER, weights.fitted_taper),
        (DerivedKind.BARREL, weights.barrel),
        (DerivedKind.BELL_TOP, weights.bell_top),
        (DerivedKind.BELL_BOTTOM, weights.bell_bottom),
    ):
        if one is not None:
            pairs = zip(one.ravel(), flat, strict=True)
            value = weighted((float(weight), cell) for weight, cell in pairs if cell is not None and weight)
            yield Derived(kind, "", stated(kind.value, value, k), table.repeats)


def _ovals(table: BoreTable, k: float) -> Iterator[Derived]:
    for (name, values), row in zip(table.by_level().items(), table.cells, strict=True):
        axes = [axis for axis, cell in zip(table.axes_deg, row, strict=True) if cell is not None]
        if different_axes(axes) < ELLIPSE_FROM_AXES:
            continue
        weights = ellipse_weights(axes)[0]
        pairs = [(_weighed(weights[i], values), _weighed(weights[i + 1], values)) for i in range(1, len(weights), 2)]
        for kind, parts, order in zip((DerivedKind.OVALITY, DerivedKind.FOUR_LOBES), pairs, (2, 4), strict=False):
            yield _amplitude(kind, name, parts, order, k)


# What a form is told by: one line each, the greatest where there are several.
_TOLD = (DerivedKind.VARIATION, DerivedKind.TILT, DerivedKind.OUT_OF_ROUND, DerivedKind.TAPER, DerivedKind.END_TO_END,
         DerivedKind.BARREL, DerivedKind.OVALITY, DerivedKind.FLATNESS)  # fmt: skip


def worst(derived: Sequence[Derived], kind: DerivedKind) -> Derived | None:
    """The greatest of a kind; None where there is none."""
    return max((one for one in derived if one.kind is kind), key=lambda one: abs(one.stated.value_m), default=None)


def worst_of_each(derived: Sequence[Derived]) -> tuple[Derived, ...]:
    """The greatest of each kind that a form is told by, in their order."""
    found = (worst(derived, kind) for kind in _TOLD)
    return tuple(one for one in found if one is not None)


def flatness_of(flatness_m: float, heights: Sequence[Estimate], k: float) -> Derived:
    """Range of heights about their plane, with the ± of a range of them: the plane takes some of it away. [m]"""
    return Derived(DerivedKind.FLATNESS, "", Stated(flatness_m, range_of("flatness", heights, k).budget))
