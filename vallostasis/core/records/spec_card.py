"""The spec card: what the engine's book asks for, with the source of every limit.

A saved card is one version and never changes. Each length keeps the text as typed beside its
exact value; a limit also keeps where it comes from and how far that may be trusted.
"""

import itertools
from collections.abc import Iterator
from dataclasses import dataclass, fields
from decimal import Decimal
from enum import StrEnum

from vallostasis.core.notation.lengths import metres
from vallostasis.core.notation.typed_lengths import as_entered
from vallostasis.core.records.rows import Quantity


class Acceptance(StrEnum):
    """Decision rule of a card: proof beyond the uncertainty, or simple acceptance by the value."""

    GUARDED = "guarded"
    SIMPLE = "simple"


class SourceStatus(StrEnum):
    """How a limit is known."""

    SPECIFICATION = "specification"
    COMMON_PRACTICE = "common practice"
    OWN_EXPERIENCE = "own experience"
    UNVERIFIED = "unverified"


class Construction(StrEnum):
    """How the bore is lined; it decides which measurements and plans make sense."""

    WET_TOP_FLANGE = "wet liner, top flange"
    WET_BOTTOM_SEAT = "wet liner, bottom seat"
    DRY_FLANGED = "dry sleeve, flanged"
    DRY_PLAIN = "dry sleeve, plain"
    PARENT_BORE = "parent bore"
    COATED = "coated bore"
    INSERT = "counterbore insert"


class Arrangement(StrEnum):
    """How the holes stand in the block."""

    IN_LINE = "in-line"
    V = "V"


class CardUnit(StrEnum):
    """The unit in which the card's lengths are written."""

    MM = "mm"
    INCH = "inch"


@dataclass(frozen=True, slots=True)
class Length:
    """A length as typed on the card and its exact value [µm]."""

    typed: str
    um: Decimal = Decimal(0)

    @property
    def metres(self) -> float:
        """The length as the core computes with it. [m]"""
        return metres(self.um)


@dataclass(frozen=True, slots=True)
class Limit:
    """A length the card asks for, or None when it asks for none, with its source."""

    length: Length | None
    source: str = ""
    status: SourceStatus = SourceStatus.UNVERIFIED

    @property
    def metres(self) -> float | None:
        """The limit as the core computes with it; None when the card sets none. [m]"""
        return None if self.length is None else self.length.metres


@dataclass(frozen=True, slots=True)
class Layout:
    """Where the holes stand: arrangement, numbering, heads by hole number, what lies at 12 h.

    ``banks`` of a V list the hole numbers of each bank from the front, which is also the numbering
    scheme; the second bank stands ``bank_offset`` further back.
    """

    arrangement: Arrangement
    holes: int
    heads: tuple[tuple[int, ...], ...]
    numbering: str
    twelve_o_clock: str
    bore_pitch: Length
    bore: Length
    bank_angle_deg: float | None = None
    banks: tuple[tuple[int, ...], ...] = ()
    bank_offset: Length = Length("0")


@dataclass(frozen=True, slots=True)
class Limits:
    """Protrusion limits: single readings without and with shim, and what holds between readings."""

    least_without_shim: Limit
    greatest_without_shim: Limit
    least_with_shim: Limit
    greatest_with_shim: Limit
    target_with_shim: Limit
    variation_round: Limit
    neighbour_difference: Limit
    head_average_least: Limit
    head_average_greatest: Limit


@dataclass(frozen=True, slots=True)
class Seat:
    """Flange and counterbore as drawn, and how much of the ledge may be spent."""

    flange_nominal: Limit
    counterbore_nominal: Limit
    ledge_at_nominal: Limit
    ledge_least: Limit
    cleanup_least: Limit


@dataclass(frozen=True, slots=True)
class Land:
    """A named face on top of the flange: how far it stands above the flat land, how wide it is, 0 if not known."""

    name: str
    raised: Length
    note: str = ""
    width: Length = Length("0")


@dataclass(frozen=True, slots=True)
class Between:
    """What lies between deck and measuring face, such as a spacer plate; counted once."""

    name: str
    thickness: Length


@dataclass(frozen=True, slots=True)
class Measuring:
    """How protrusion is to be measured: land, datum, what lies between, hold-down, positions."""

    land: str
    datum: str
    between: tuple[Between, ...]
    hold_down: str
    hold_down_torque_nm: float | None
    required_hours: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class ShimSize:
    """A shim that can be had: thickness, how many lie on the shelf, price each."""

    thickness: Length
    stock: int
    price: Decimal | None = None


@dataclass(frozen=True, slots=True)
class Cutter:
    """The counterbore cutter: one graduation, and how truly its stop stands (± half width)."""

    name: str
    graduation: Length
    stop_accuracy: Length
    graduation_error_percent: float = 5.0


NO_LIMIT = Limit(None)
# How a numbering begins that counts from the rear of the block forward.
ONE_AT_THE_FLYWHEEL = "number one at the flywheel end"
NAME_THE_SOURCE = "A limit from the specification names its book, edition and page: type the source."


@dataclass(frozen=True, slots=True)
class CardLevel:
    """A named level of a capture pattern: its depth below the deck, or its height on a part."""

    name: str
    depth: Length


@dataclass(frozen=True, slots=True)
class FeatureSheet:
    """One feature that the card has measured: its limits, and its capture pattern.

    Axes count clockwise from the front in degrees, 0 along the crank. Which lists hold the pattern depends on the
    feature; all empty, it is read at one place.
    """

    quantity: Quantity
    nominal: Limit = NO_LIMIT
    least: Limit = NO_LIMIT
    greatest: Limit = NO_LIMIT
    out_of_round: Limit = NO_LIMIT
    taper: Limit = NO_LIMIT
    levels: tuple[CardLevel, ...] = ()
    axes_deg: tuple[float, ...] = ()
    along: tuple[Length, ...] = ()
    across: tuple[Length, ...] = ()


@dataclass(frozen=True, slots=True)
class SpecCard:
    """Everything one version of a card says."""

    name: str
    engine: str
    unit: CardUnit
    construction: Construction
    block_material: str
    liner_material: str
    layout: Layout
    limits: Limits
    seat: Seat
    measuring: Measuring
    lands: tuple[Land, ...]
    shims: tuple[ShimSize, ...]
    cutter: Cutter
    currency: str = ""
    acceptance: Acceptance = Acceptance.GUARDED
    coverage_factor: float = 2.0
    features: tuple[FeatureSheet, ...] = ()
    main_bores: int = 0
    # What most pistons are made of; cards saved before it could be said have this one.
    piston_material: str = "aluminium"


@dataclass(frozen=True, slots=True)
class FieldProblem:
    """What is wrong at one field of the card; the field is a path such as ``limits.variation_round``."""

    field: str
    message: str


def typed_with_unit(length: Length, unit: CardUnit, *, is_size: bool = False) -> str:
    """A length of a card as typed, with the unit a bare number takes there."""
    inch_card = "inch" if is_size else "thou"
    return as_entered(length.typed, "mm" if unit is CardUnit.MM else inch_card)


UNLINED = (Construction.PARENT_BORE, Construction.COATED)
CONSTRUCTIONS_WITH_PROTRUSION = (
    Construction.WET_TOP_FLANGE,
    Construction.WET_BOTTOM_SEAT,
    Construction.DRY_FLANGED,
    Construction.INSERT,
)
CONSTRUCTIONS_WITH_LEDGE = (
    Construction.WET_TOP_FLANGE,
    Construction.DRY_FLANGED,
    Construction.INSERT,
)


def sheet_of(card: SpecCard, quantity: Quantity) -> FeatureSheet | None:
    """What the card says of a feature; None where it says nothing."""
    return next((sheet for sheet in card.features if sheet.quantity is quantity), None)


def hole_numbers(card: SpecCard) -> tuple[int, ...]:
    """Numbers of the holes of a block built to this card."""
    return tuple(range(1, card.layout.holes + 1))


def bank_rows(layout: Layout) -> tuple[tuple[int, ...], ...]:
    """Hole numbers bank by bank from the front; one row for a block in line, as its numbering says."""
    if layout.arrangement is Arrangement.V and layout.banks:
        return layout.banks
    row = tuple(range(1, layout.holes + 1))
    return (row[::-1] if layout.numbering.casefold().startswith(ONE_AT_THE_FLYWHEEL) else row,)


def between_m(card: SpecCard) -> float:
    """Thickness of all that lies between deck and measuring face, each part once. [m]"""
    return sum(part.thickness.metres for part in card.measuring.between)


def neighbours_under_one_head(card: SpecCard) -> tuple[tuple[int, int], ...]:
    """Pairs of holes next to each other under the same head."""
    return tuple(pair for head in card.layout.heads for pair in itertools.pairwise(head))


def check_card(card: SpecCard) -> tuple[FieldProblem, ...]:
    """Find what contradicts itself on a card, field by field; nothing found means it can be saved."""
    return (*_layout_problems(card.layout), *_limit_problems(card.limits), *_measuring_problems(card))


def _layout_problems(layout: Layout) -> Iterator[FieldProblem]:
    if not 1 <= layout.holes <= 16:
        yield FieldProblem("layout.holes", "A block has 1 to 16 holes: type the number of holes.")
        return
    grouped = [hole for head in layout.heads for hole in head]
    if sorted(grouped) != list(range(1, layout.holes + 1)):
        yield FieldProblem(
            "layout.heads", f"Every hole from 1 to {layout.holes} stands under exactly one head: list each once."
        )
    if layout.arrangement is Arrangement.V and layout.bank_angle_deg is None:
        yield FieldProblem("layout.bank_angle_deg", "A V block needs its bank angle: type it in degrees.")
    if layout.bank_angle_deg is not None and not 0 < layout.bank_angle_deg <= 180:
        yield FieldProblem("layout.bank_angle_deg", "Banks stand above 0 and up to 180 degrees apart.")
    numbered = sorted(hole for bank in layout.banks for hole in bank)
    if layout.arrangement is Arrangement.V and (len(layout.banks) != 2 or numbered != list(range(1, layout.holes + 1))):
        yield FieldProblem(
            "layout.banks",
            f"List the holes 1 to {layout.holes} of two banks from the front, such as 1 3 5 7 / 2 4 6 8.",
        )
    for name in ("bore_pitch", "bore"):
        if getattr(layout, name).um <= 0:
            yield FieldProblem(f"layout.{name}", "This drives the drawing: type a size above zero.")


def _limit_problems(limits: Limits) -> Iterator[FieldProblem]:
    pairs = (
        ("least_without_shim", "greatest_without_shim"),
        ("least_with_shim", "greatest_with_shim"),
        ("least_with_shim", "target_with_shim"),
        ("target_with_shim", "greatest_with_shim"),
        ("head_average_least", "head_average_greatest"),
    )
    for low_name, high_name in pairs:
        low, high = getattr(limits, low_name).metres, getattr(limits, high_name).metres
        if low is not None and high is not None and low >= high:
            yield FieldProblem(
                f"limits.{high_name}", f"This must be greater than the {low_name.replace('_', ' ')}: check both."
            )
    for name in ("variation_round", "neighbour_difference"):
        value = getattr(limits, name).metres
        if value is not None and value < 0:
            yield FieldProblem(f"limits.{name}", "A difference cannot be negative: type its size.")
    for field in fields(limits):
        limit: Limit = getattr(limits, field.name)
        if limit.length is not None and limit.status is SourceStatus.SPECIFICATION and not limit.source.strip():
            yield FieldProblem(
                f"limits.{field.name}",
                NAME_THE_SOURCE,
            )


def _measuring_problems(card: SpecCard) -> Iterator[FieldProblem]:
    hours = card.measuring.required_hours
    if not hours or len(set(hours)) != len(hours) or not all(0 < hour <= 12 for hour in hours):
        yield FieldProblem(
            "measuring.required_hours", "List each clock position once, from 1 to 12, for example 12, 3, 6, 9."
        )
    if card.measuring.land not in [land.name for land in card.lands]:
        yield FieldProblem("measuring.land", "Protrusion is read on a named land: choose one of the card's lands.")
    for index, shim in enumerate(card.shims):
        if shim.thickness.um <= 0:
            yield FieldProblem(f"shims.{index}.thickness", "A shim is thicker than nothing: type its thickness.")
        if shim.stock < 0:
            yield FieldProblem(f"shims.{index}.stock", "Stock cannot be negative: type how many lie on the shelf.")
    for name in ("graduation", "stop_accuracy"):
        if getattr(card.cutter, name).um <= 0:
            yield FieldProblem(f"cutter.{name}", "This is needed to plan a cut: type a value above zero.")
    if not 1 <= card.coverage_factor <= 4:
        yield FieldProblem("coverage_factor", "The coverage factor k is between 1 and 4, usually 2.")
