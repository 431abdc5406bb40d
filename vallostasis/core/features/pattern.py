"""Capture patterns: where on a part a feature is read, in an order that suits the hand."""

from collections.abc import Iterable
from dataclasses import dataclass
from decimal import Decimal
from functools import cached_property
from typing import TypeVar

from vallostasis.core.notation.lengths import both_depth
from vallostasis.core.records.rows import Place
from vallostasis.core.shapes.clock import hour_name


@dataclass(frozen=True, slots=True)
class PatternLevel:
    """A named depth below the deck, or height on a part. [µm]"""

    name: str
    depth_um: Decimal


@dataclass(frozen=True)
class Pattern:
    """Places to read: levels × axes, levels × clock, levels alone, clock positions, or a grid. [µm], [deg], [h]

    ``axes_deg`` count clockwise from the front: 0 lies along the crank, 90 across it.
    """

    levels: tuple[PatternLevel, ...] = ()
    axes_deg: tuple[float, ...] = ()
    hours: tuple[float, ...] = ()
    along_um: tuple[Decimal, ...] = ()
    across_um: tuple[Decimal, ...] = ()

    @cached_property
    def places(self) -> tuple[Place, ...]:
        """Every place in the order of the hand.

        A bore gauge is run down one axis and up the next; a grid is walked forth and back; the clock goes round.
        """
        if self.along_um and self.across_um:
            rows = _forth_and_back(self.across_um, self.along_um)
            return tuple(Place(along_um=along, across_um=across) for across, along in rows)
        depths = tuple(level.depth_um for level in self.levels)
        if depths and self.axes_deg:
            return tuple(Place(level_um=depth, axis_deg=axis) for axis, depth in _forth_and_back(self.axes_deg, depths))
        if depths and self.hours:
            return tuple(Place(hour=hour, level_um=depth) for hour, depth in _forth_and_back(self.hours, depths))
        if depths:
            return tuple(Place(level_um=depth) for depth in depths)
        if self.axes_deg:
            return tuple(Place(axis_deg=axis) for axis in self.axes_deg)
        if self.hours:
            return tuple(Place(hour=hour) for hour in self.hours)
        return (Place(),)

    def name_of(self, place: Place) -> str:
        """Name a place in words of the trade, without a unit of length. SI prefix, by definition."""
        if place.along_um is not None and place.across_um is not None:
            along = _nth(self.along_um, place.along_um)
            return f"row {_nth(self.across_um, place.across_um)}, point {along}"
        if place.level_um is None:
            return axis_words(place.axis_deg) if place.hour is None else hour_name(place.hour)
        level = next((one.name for one in self.levels if one.depth_um == place.level_um), "")
        name = level or f"{both_depth(place.level_um)} down"
        if place.hour is not None:
            return f"{name}, {hour_name(place.hour)}"
        return name if place.axis_deg is None else f"{name}, {place.axis_deg:g}°"


Outer = TypeVar("Outer")
Inner = TypeVar("Inner")


def _forth_and_back(outer: tuple[Outer, ...], inner: tuple[Inner, ...]) -> Iterable[tuple[Outer, Inner]]:
    for number, one in enumerate(outer):
        for other in inner if number % 2 == 0 else reversed(inner):
            yield one, other


def _nth(values: tuple[Decimal, ...], value: Decimal) -> str:
    return str(values.index(value) + 1) if value in values else f"at {both_depth(value)}"


def place_words(place: Place) -> str:
    """Name a place by itself, without its pattern, depths in both units. By definition of the units."""
    if place.hour is not None:
        hour = hour_name(place.hour)
        return hour if place.level_um is None else f"{both_depth(place.level_um)}, {hour}"
    if place.along_um is not None and place.across_um is not None:
        return f"{both_depth(place.along_um)} along, {both_depth(place.across_um)} across"
    if place.level_um is None:
        return axis_words(place.axis_deg)
    level = both_depth(place.level_um)
    return level if place.axis_deg is None else f"{level}, {place.axis_deg:g}°"


def axis_words(axis_deg: float | None) -> str:
    """Name an axis by itself [deg]: along the crank, across it, or by its angle."""
    if axis_deg is None:
        return ""
    return {0.0: "along the block", 90.0: "across the block"}.get(axis_deg, f"{axis_deg:g}°")
