"""Every feature of the job that is measured: what it belongs to, how its readings lie on the part."""

from dataclasses import dataclass
from decimal import Decimal
from enum import StrEnum

from vallostasis.core.records import Quantity


class PartKind(StrEnum):
    """What a feature belongs to."""

    FITTING = "liner in its hole"
    HOLE = "hole"
    LINER = "liner"
    PISTON = "piston"
    MAIN = "main bore"
    DECK = "deck"
    GAP = "gap between neighbours"


class PatternKind(StrEnum):
    """How the readings of a feature lie on the part."""

    CLOCK = "clock positions"
    LEVELS_AND_AXES = "levels and axes"
    LEVELS = "levels"
    AXES = "axes"
    GRID = "grid"
    ONCE = "one place"


@dataclass(frozen=True, slots=True)
class Feature:
    """A feature: ``is_size`` when it is read as a size (inch, mm), else as a small length (thou, µm).

    ``is_diameter`` when a reading is a two-point diameter; ``usual_spread_um`` is how far a reading may stand from
    the nearest of its set without being asked about. [µm] Common practice, no published source.
    """

    quantity: Quantity
    part: PartKind
    pattern: PatternKind
    is_size: bool
    usual_spread_um: Decimal
    is_diameter: bool = False


FEATURES: dict[Quantity, Feature] = {
    feature.quantity: feature
    for feature in (
        Feature(Quantity.PROTRUSION, PartKind.FITTING, PatternKind.CLOCK, False, Decimal(60)),
        Feature(Quantity.COUNTERBORE_DEPTH, PartKind.HOLE, PatternKind.CLOCK, True, Decimal(200)),
        Feature(Quantity.COUNTERBORE_DIAMETER, PartKind.HOLE, PatternKind.LEVELS_AND_AXES, True, Decimal(200), True),
        Feature(Quantity.FLANGE_THICKNESS, PartKind.LINER, PatternKind.ONCE, True, Decimal(50)),
        Feature(Quantity.BLOCK_BORE, PartKind.HOLE, PatternKind.LEVELS_AND_AXES, True, Decimal(150), True),
        Feature(Quantity.LINER_OUTSIDE, PartKind.LINER, PatternKind.LEVELS_AND_AXES, True, Decimal(100), True),
        Feature(Quantity.LINER_BORE, PartKind.FITTING, PatternKind.LEVELS_AND_AXES, True, Decimal(250), True),
        Feature(Quantity.PISTON_SKIRT, PartKind.PISTON, PatternKind.LEVELS_AND_AXES, True, Decimal(300), True),
        Feature(Quantity.PISTON_CROWN, PartKind.PISTON, PatternKind.LEVELS_AND_AXES, True, Decimal(200), True),
        Feature(Quantity.PISTON_CLEARANCE, PartKind.PISTON, PatternKind.ONCE, False, Decimal(300)),
        Feature(Quantity.MAIN_BORE, PartKind.MAIN, PatternKind.LEVELS_AND_AXES, True, Decimal(100), True),
        Feature(Quantity.DECK_FLATNESS, PartKind.DECK, PatternKind.GRID, False, Decimal(150)),
        Feature(Quantity.NEIGHBOUR_GAP, PartKind.GAP, PatternKind.LEVELS, False, Decimal(150)),
        Feature(Quantity.NEIGHBOUR_STEP, PartKind.GAP, PatternKind.ONCE, False, Decimal(60)),
        Feature(Quantity.RING_GAP, PartKind.FITTING, PatternKind.LEVELS, False, Decimal(400)),
        Feature(Quantity.TRIAL_FIT, PartKind.HOLE, PatternKind.ONCE, True, Decimal(60_000)),
        Feature(Quantity.LEVELLING, PartKind.DECK, PatternKind.AXES, False, Decimal(500)),
        Feature(Quantity.SETUP_INDICATOR, PartKind.HOLE, PatternKind.CLOCK, False, Decimal(200)),
    )
}


def feature_of(quantity: Quantity) -> Feature:
    """Return what is known of a feature."""
    return FEATURES[quantity]


def is_surveyed(quantity: Quantity) -> bool:
    """Whether a feature is captured place by place by its own pattern, not round the deck hole by hole."""
    return quantity not in (Quantity.PROTRUSION, Quantity.COUNTERBORE_DEPTH, Quantity.FLANGE_THICKNESS)
