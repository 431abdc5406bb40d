"""The measuring plan: what the card asks to be read, and what is proposed where it says nothing.

Levels and axes follow from the kind of cylinder and the risk: common practice, no published source.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from decimal import Decimal
from enum import StrEnum

from vallostasis.core.features.catalogue import Feature, PatternKind, feature_of, is_surveyed
from vallostasis.core.features.pattern import Pattern, PatternLevel
from vallostasis.core.records.card_checks import NAME_THE_SOURCE
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import (
    Construction,
    FeatureSheet,
    FieldProblem,
    Limit,
    SourceStatus,
    SpecCard,
    sheet_of,
)
from vallostasis.core.shapes.ovality import cannot_see

MOST_PLACES = 240
# A liner of unknown length is taken as this many bores long.
LENGTH_IN_BORES = Decimal("1.7")
# Clock positions that place one-sided wear: eight tell an oval from it, twelve three lobes and more too. [h]
EIGHT_HOURS = (12.0, 1.5, 3.0, 4.5, 6.0, 7.5, 9.0, 10.5)
TWELVE_HOURS = tuple(float(hour) for hour in (12, *range(1, 12)))
DRY = (Construction.DRY_FLANGED, Construction.DRY_PLAIN)


class Risk(StrEnum):
    """How much a wrong answer would cost: it decides how closely a part is read."""

    USUAL = "usual"
    RAISED = "raised"


# Share of the length at which a bore is read: name and share.
_USUAL_LEVELS = (("below the ridge", "0.06"), ("ring travel", "0.22"), ("middle", "0.5"), ("below the rings", "0.78"),
                 ("bottom", "0.94"))  # fmt: skip
_RAISED_LEVELS = (
    ("below the ridge", "0.06"), ("top of ring travel", "0.14"), ("ring travel", "0.28"), ("middle", "0.46"),
    ("lower ring travel", "0.64"), ("below the rings", "0.8"), ("bottom", "0.94"),
)  # fmt: skip
_SEATS = (("upper collar", "0.08"), ("lower seal land", "0.85"))


def pattern_on_card(sheet: FeatureSheet) -> Pattern:
    """Return the capture pattern that a card's sheet writes down."""
    levels = sorted((PatternLevel(level.name, level.depth.um) for level in sheet.levels), key=lambda one: one.depth_um)
    return Pattern(
        levels=tuple(levels),
        axes_deg=tuple(sorted(sheet.axes_deg)),
        hours=tuple(sorted(sheet.hours, key=lambda hour: hour % 12)),
        along_um=tuple(sorted(one.um for one in sheet.along)),
        across_um=tuple(sorted(one.um for one in sheet.across)),
    )


@dataclass(frozen=True, slots=True)
class Cylinder:
    """What a plan follows from: how the bore is lined, bore, pitch and length [µm], bores in a row, positions [h].

    ``length_um`` is that of the liner, None where it is not known.
    """

    construction: Construction
    bore_um: Decimal
    pitch_um: Decimal
    in_row: int
    length_um: Decimal | None = None
    hours: tuple[float, ...] = (12.0, 3.0, 6.0, 9.0)


def cylinder_of(card: SpecCard) -> Cylinder:
    """Take from a card what a plan follows from."""
    sheet, layout = sheet_of(card, Quantity.TRIAL_FIT), card.layout
    length = None if sheet is None or sheet.nominal.length is None else sheet.nominal.length.um
    in_row = len(layout.banks[0]) if layout.banks else layout.holes
    return Cylinder(card.construction, layout.bore.um, layout.bore_pitch.um, in_row, length,
                    card.measuring.required_hours)  # fmt: skip


def propose_pattern(cylinder: Cylinder, quantity: Quantity, risk: Risk = Risk.USUAL) -> Pattern:
    """Propose where to read a feature.

    Parameters
    ----------
    cylinder : Cylinder
        Its construction, bore and, where it is known, the liner's length decide.
    quantity : Quantity
        The feature.
    risk : Risk
        Raised risk reads more levels and axes.

    Returns
    -------
    Pattern
        Depths in whole millimetres. [µm]

    Notes
    -----
    Common practice, no published source.
    """
    feature = feature_of(quantity)
    if feature.pattern is PatternKind.CLOCK:
        return Pattern(hours=cylinder.hours)
    if feature.pattern is PatternKind.ONCE:
        return Pattern()
    if feature.pattern is PatternKind.AXES:
        return Pattern(axes_deg=(0.0, 90.0))
    if feature.pattern is PatternKind.GRID:
        return _deck_grid(cylinder, risk)
    length = cylinder.bore_um * LENGTH_IN_BORES if cylinder.length_um is None else cylinder.length_um
    if feature.pattern is PatternKind.LEVELS:
        return Pattern(levels=_levels(feature.level_shares, length))
    if feature.pattern is PatternKind.LEVELS_AND_CLOCK:
        hours = EIGHT_HOURS if risk is Risk.USUAL else TWELVE_HOURS
        return Pattern(_diameter_levels(cylinder, feature, risk, length), hours=hours)
    axes = (0.0, 45.0, 90.0, 135.0) if risk is Risk.USUAL else (0.0, 30.0, 60.0, 90.0, 120.0, 150.0)
    return Pattern(_diameter_levels(cylinder, feature, risk, length), feature.own_axes_deg or axes)


def _diameter_levels(cylinder: Cylinder, feature: Feature, risk: Risk, length: Decimal) -> tuple[PatternLevel, ...]:
    if feature.own_levels:
        return tuple(PatternLevel(name, depth) for name, depth in feature.own_levels)
    if feature.level_shares:
        return _levels(feature.level_shares, cylinder.bore_um if feature.shares_of_bore else length)
    whole_bore = (*DRY, Construction.PARENT_BORE, Construction.COATED)
    if feature.quantity is Quantity.BLOCK_BORE and cylinder.construction not in whole_bore:
        return _levels(_SEATS, length)
    return _levels(_USUAL_LEVELS if risk is Risk.USUAL else _RAISED_LEVELS, length)


def _levels(shares: tuple[tuple[str, str], ...], length: Decimal) -> tuple[PatternLevel, ...]:
    return tuple(PatternLevel(name, _whole_mm(length * Decimal(share))) for name, share in shares)


def _deck_grid(cylinder: Cylinder, risk: Risk) -> Pattern:
    """Points between and beside the bores: along the deck at every web, across it at both edges and the middle."""
    along = tuple(_whole_mm(cylinder.pitch_um * web) for web in range(cylinder.in_row + 1))
    half = cylinder.bore_um * Decimal("0.6")
    across = (-half, half) if risk is Risk.USUAL else (-half, Decimal(0), half)
    return Pattern(along_um=along, across_um=tuple(_whole_mm(one) for one in across))


def _whole_mm(length_um: Decimal) -> Decimal:
    return round(length_um / 1000) * Decimal(1000)


def pattern_of(card: SpecCard, quantity: Quantity) -> tuple[Pattern, bool]:
    """Return where a feature is read, and whether the card says so; else it is proposed."""
    sheet = sheet_of(card, quantity)
    if sheet is not None and (sheet.levels or sheet.along or feature_of(quantity).pattern is PatternKind.ONCE):
        return pattern_on_card(sheet), True
    if quantity is Quantity.FLANGE_THICKNESS:
        return Pattern(), True
    if not is_surveyed(quantity):
        return Pattern(hours=card.measuring.required_hours), True
    return propose_pattern(cylinder_of(card), quantity), False


def blind_spots(feature: Feature, pattern: Pattern) -> tuple[str, ...]:
    """Say what a pattern cannot see."""
    if feature.is_diameter:
        return cannot_see(pattern.axes_deg, len(pattern.levels))
    if feature.pattern is PatternKind.LEVELS_AND_CLOCK:
        return cannot_place(len(pattern.hours), feature.quantity is Quantity.WEAR_STEP)
    if feature.pattern is PatternKind.GRID:
        return ("A grid sees no hollow between its points; a straightedge over them finds it.",)
    if feature.quantity is Quantity.NEIGHBOUR_GAP:
        return ("A blade finds the least gap along its own width, not between the levels.",)
    return ()


def cannot_place(positions: int, from_band: bool) -> tuple[str, ...]:
    """Say in words what readings round the clock cannot place. Sampling theorem, by definition: half as many lobes."""
    said = [f"From {positions} positions up to {(positions - 1) // 2} lobes are placed; a groove between two of them "
            "is not seen."]  # fmt: skip
    if from_band:
        said.append("The unworn band is taken as round: what it is out of round itself is not seen from it.")
    return tuple(said)


def surveyed_features(card: SpecCard) -> tuple[Quantity, ...]:
    """Features that a block of this card can have measured place by place."""
    return tuple(one for one in Quantity if is_surveyed(one) and card.construction not in feature_of(one).not_in)


def check_features(card: SpecCard) -> Iterator[FieldProblem]:
    """Find what contradicts itself in the features of a card, field by field."""
    seen: set[Quantity] = set()
    for index, sheet in enumerate(card.features):
        path = f"features.{index}"
        if sheet.quantity in seen or not is_surveyed(sheet.quantity):
            yield FieldProblem(f"{path}.quantity", f"{sheet.quantity.value.capitalize()} is on the card already.")
        seen.add(sheet.quantity)
        yield from _sheet_problems(path, sheet)
    if not 0 <= card.main_bores <= 20:
        yield FieldProblem("main_bores", "A block has up to 20 main bores: type their number.")


def _sheet_problems(path: str, sheet: FeatureSheet) -> Iterator[FieldProblem]:
    least, greatest = sheet.least.metres, sheet.greatest.metres
    if least is not None and greatest is not None and least >= greatest:
        yield FieldProblem(f"{path}.greatest", "This must be greater than the least: check both.")
    for name in ("out_of_round", "taper"):
        limit = getattr(sheet, name).metres
        if limit is not None and limit < 0:
            yield FieldProblem(f"{path}.{name}", "A difference cannot be negative: type its size.")
    for name in ("nominal", "least", "greatest", "out_of_round", "taper"):
        known: Limit = getattr(sheet, name)
        if known.length is not None and known.status is SourceStatus.SPECIFICATION and not known.source.strip():
            yield FieldProblem(f"{path}.{name}.source", NAME_THE_SOURCE)
            break
    depths = [level.depth.um for level in sheet.levels]
    if len(set(depths)) != len(depths):
        yield FieldProblem(f"{path}.levels", "Two levels lie at one depth: give each its own.")
    if not all(0 <= axis < 180 for axis in sheet.axes_deg) or len(set(sheet.axes_deg)) != len(sheet.axes_deg):
        yield FieldProblem(f"{path}.axes_deg", "Axes run from 0 to below 180 degrees, each once, such as 0 45 90 135.")
    if bool(sheet.along) is not bool(sheet.across):
        yield FieldProblem(f"{path}.along", "A grid has points along and across the deck: type both.")
    kind = feature_of(sheet.quantity).pattern
    if kind is PatternKind.LEVELS_AND_CLOCK and bool(sheet.levels) is not bool(sheet.hours):
        missing = "hours" if sheet.levels else "levels"
        yield FieldProblem(f"{path}.{missing}", "A wall is read at levels and clock positions: type both, or neither.")
    if len(set(sheet.hours)) != len(sheet.hours) or not all(0 < hour <= 12 for hour in sheet.hours):
        yield FieldProblem(f"{path}.hours", "List each clock position once, from 1 to 12, for example 12, 3, 6, 9.")
    if kind is PatternKind.LEVELS_AND_AXES and bool(sheet.levels) is not bool(sheet.axes_deg):
        missing = "axes_deg" if sheet.levels else "levels"
        yield FieldProblem(f"{path}.{missing}", "A diameter is read at levels and on axes: type both, or neither.")
    if len(pattern_on_card(sheet).places) > MOST_PLACES:
        yield FieldProblem(f"{path}.levels", f"More than {MOST_PLACES} readings of one part: leave some out.")
