"""How the columns of a scan's file are read: what each is, in which unit, and what cannot be meant.

Which column holds what is the file's own; angles, depths and units by definition, their order by common practice.
"""

from dataclasses import dataclass
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

from vallostasis.core.bores.scan_levels import FrontAxis, Turn, polar_of
from vallostasis.core.errors import OutOfDomain

Array = NDArray[np.float64]
METRES = {"m": 1.0, "mm": 1e-3, "µm": 1e-6, "inch": 25.4e-3, "thou": 25.4e-6}
# A bore that is read lies this near to the one of the card; another unit is at least ten times off. [1]
WITHIN = 0.1
# Depths from the deck that a bore of this engine can have, in bores. [1] Common practice, no published source.
DEEPEST_IN_BORES = 4.0


class ScanKind(StrEnum):
    """What the three columns of a file are."""

    POLAR = "angle, level, radius"
    CARTESIAN = "x, y, z"


@dataclass(frozen=True, slots=True)
class ScanLayout:
    """How a file is read: its columns in the order of the kind, its units, and how its axes lie."""

    kind: ScanKind
    columns: tuple[int, int, int]
    unit: str
    depth_unit: str
    front: FrontAxis = FrontAxis.PLUS_X
    turn: Turn = Turn.CLOCKWISE
    depth_is_up: bool = False
    front_deg: float = 0.0

    @property
    def words(self) -> str:
        """Say how it was read. As chosen."""
        way = f"front at {self.front_deg:g}°" if self.kind is ScanKind.POLAR else f"front at {self.front.value}"
        return f"{self.kind.value} in {self.unit}, depth in {self.depth_unit}, {way}, {self.turn.value}"


def points_of_file(table: Array, layout: ScanLayout) -> tuple[Array, Array, Array]:
    """Return angle [deg], depth [m] and radius [m] of every row of a file.

    Raises
    ------
    OutOfDomain
        If a column is not there, or a number is missing. Factors of the units by definition.
    """
    if max(layout.columns) >= table.shape[1] or len(set(layout.columns)) < 3:
        raise OutOfDomain("choose three different columns of the file", "columns")
    first, second, third = (table[:, at] for at in layout.columns)
    if not (np.isfinite(first).all() and np.isfinite(second).all() and np.isfinite(third).all()):
        row = int(np.flatnonzero(~np.isfinite(first + second + third))[0]) + 1
        raise OutOfDomain(f"row {row} lacks a number: put it right in the file, or choose other columns", "columns")
    size, deep = METRES[layout.unit], METRES[layout.depth_unit]
    if layout.kind is ScanKind.POLAR:
        angle = first - layout.front_deg
        angles = np.mod(angle if layout.turn is Turn.CLOCKWISE else -angle, 360.0)
        depths, radii = second * deep, third * size
    else:
        angles, radii = polar_of(first * size, second * size, layout.front, layout.turn)
        depths = third * deep
    return angles, -depths if layout.depth_is_up else depths, radii


def refuse_another_unit(radii_m: Array, depths_m: Array, layout: ScanLayout, bore_m: float) -> None:
    """Refuse points [m] that make no bore of this engine, and say in which unit they would.

    Raises
    ------
    OutOfDomain
        If the mean diameter is far from the bore of the card, or the depths from what a bore can have. House rule.
    """
    diameter = 2 * float(np.mean(radii_m))
    if not abs(diameter / bore_m - 1) <= WITHIN:
        ratio = bore_m / diameter if diameter > 0 else float("inf")
        meant = [unit for unit, size in METRES.items() if abs(size / METRES[layout.unit] / ratio - 1) <= WITHIN]
        hint = f" In {meant[0]} it would be the bore of the card: choose {meant[0]}." if meant else (
            " Check which column is the radius, and whether it is a deviation from a size.")  # fmt: skip
        raise OutOfDomain(f"these points make a bore of {diameter * 1e3:.4g} mm, the card has {bore_m * 1e3:.4g} mm."
                          + hint, "unit")  # fmt: skip
    deepest, least = float(np.max(depths_m)), float(np.min(depths_m))
    if least < -0.02 or deepest > DEEPEST_IN_BORES * bore_m:
        raise OutOfDomain(f"their depths run from {least * 1e3:.4g} to {deepest * 1e3:.4g} mm below the deck: check "
                          "the unit of the depth, and whether it is counted upwards.", "depth_unit")  # fmt: skip
