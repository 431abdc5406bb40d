"""Walls of the invented jobs as a roundness instrument would find them."""

from collections.abc import Callable
from decimal import Decimal
from math import cos, radians

from vallostasis.core.records.rows import Place, Quantity
from vallostasis.core.records.spec_card import SpecCard
from vallostasis.demo import hill_tractor, narrow_boat

Radius = Callable[[float, float], float]
LEVELS = 8
STEPS = 720


def wall_of(number: str, card: SpecCard, hole: int, clamped: bool) -> Radius:
    """Return the radius of a bore of an invented job by depth [µm] and angle [rad], free or clamped. [µm]"""
    if number == hill_tractor.NUMBER:
        return lambda depth, angle: (
            hill_tractor.UNWORN_UM / 2
            + hill_tractor.wear_um(hole, depth, angle)
            + (hill_tractor.clamped_um(depth, angle) / 2 if clamped else 0.0)
        )
    if number == narrow_boat.NUMBER:
        return lambda depth, angle: _quillet(hole, depth, angle, clamped)
    # Liners as they come: round within a few µm, three lobes that a two-point gauge reads round.
    bore = float(card.layout.bore.um)

    def wall(depth: float, angle: float) -> float:
        fades = max(0.0, 1 - depth / bore)
        lobes = 2.4 * cos(3 * (angle - radians(20 * hole))) + 1.1 * cos(2 * (angle - radians(35)))
        pulled = fades * (5.5 * cos(4 * (angle - radians(45))) + 2.0 * cos(2 * angle) - 3.0) if clamped else 0.0
        return bore / 2 + 4.0 + lobes + pulled

    return wall


def _quillet(hole: int, depth: float, angle: float, clamped: bool) -> float:
    degrees = angle * 180 / 3.141592653589793 % 180
    place = Place(level_um=Decimal(repr(depth)), axis_deg=degrees)
    truth = narrow_boat.truth_um(Quantity.BLOCK_BORE, f"hole-{hole}", place) or 0.0
    return (truth + (narrow_boat.clamped_um(place) if clamped else 0.0)) / 2


def levels_of(card: SpecCard) -> list[float]:
    """Levels that the instrument steps to: from near the deck to below the rings. [µm]"""
    bore = float(card.layout.bore.um)
    return [round(bore * (0.1 + 1.4 * at / (LEVELS - 1)), -2) for at in range(LEVELS)]
