"""The spec card: what the engine's book asks for, with the source of every limit.

A saved card is one version and never changes. Each length keeps the text as typed beside its
exact value; a limit also keeps where it comes from and how far that may be trusted.
"""

import itertools
from dataclasses import dataclass
from decimal import Decimal
from enum import StrEnum

from vallostasis.core.records.conversion_terms import ConversionTerms
from vallostasis.core.records.fit_terms import FitTerms
from vallostasis.core.records.limits import NO_LIMIT as NO_LIMIT
from vallostasis.core.records.limits import CardUnit as CardUnit
from vallostasis.core.records.limits import Length as Length
from vallostasis.core.records.limits import Limit as Limit
from vallostasis.core.records.limits import SourceStatus as SourceStatus
from vallostasis.core.records.limits import typed_with_unit as typed_with_unit
from vallostasis.core.records.rows import Quantity


class Acceptance(StrEnum):
    """Decision rule of a card: proof beyond the uncertainty, or simple acceptance by the value."""

    GUARDED = "guarded"
    SIMPLE = "simple"


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
    """Flange and counterbore as drawn, and how much of the ledge may be spent.

    ``sealing_land`` is the width of the deck that seals, outward from the edge of the counterbore; ``flange_edge`` how
    far the lower edge of the flange is broken off.
    """

    flange_nominal: Limit
    counterbore_nominal: Limit
    ledge_at_nominal: Limit
    ledge_least: Limit
    cleanup_least: Limit
    sealing_land: Limit = NO_LIMIT
    flange_edge: Limit = NO_LIMIT


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
    """The counterbore cutter: one graduation, how truly its stop stands (± half width), the corner its bit leaves."""

    name: str
    graduation: Length
    stop_accuracy: Length
    graduation_error_percent: float = 5.0
    bit_corner: Limit = NO_LIMIT


class HeightKind(StrEnum):
    """Heights that depend on where the deck stands."""

    STAND_OUT = "piston stand-out"
    INJECTOR = "piston to injector"
    VALVE = "piston to valve"


@dataclass(frozen=True, slots=True)
class DependentHeight:
    """A height that a skim of the deck changes: what it is now, and its limits."""

    kind: HeightKind
    present: Length
    least: Limit = NO_LIMIT
    greatest: Limit = NO_LIMIT


@dataclass(frozen=True, slots=True)
class Obstruction:
    """Something that keeps the handle of the cutter from going round at a hole, between two clock positions. [h]"""

    hole: int
    what: str
    from_hour: float
    until_hour: float
    remedy: str = ""


# How a numbering begins that counts from the rear of the block forward.
ONE_AT_THE_FLYWHEEL = "number one at the flywheel end"


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
    hours: tuple[float, ...] = ()
    along: tuple[Length, ...] = ()
    across: tuple[Length, ...] = ()


class StepKind(StrEnum):
    """How a step of the ladder is to be had."""

    ON_SHELF = "on the shelf"
    TO_ORDER = "to order"
    OLD_BOOK = "in an old book, to be made"


@dataclass(frozen=True, slots=True)
class LadderStep:
    """One step of the ladder: so much over standard on the diameter, how it is to be had, in how many weeks."""

    oversize: Length
    kind: StepKind = StepKind.TO_ORDER
    weeks: float | None = None
    note: str = ""


class Judged(StrEnum):
    """How a bore has to be held for its limits to mean anything."""

    AS_READ = "as read"
    CLAMPED = "clamped"
    FREE = "free"


@dataclass(frozen=True, slots=True)
class BoreTerms:
    """What a card says of its bores beyond the sheet of what is read.

    ``ring_top`` and ``ring_bottom`` bound the travel of the rings below the deck, ``thrust_hour`` is the thrust side
    [h]; ``plate_*`` is how the head is held in the build; ``hone_stock`` and the steps are on the diameter, walls a
    side; ``centre_move`` is how far a bore may be moved. Bore and piston run at ``bore_runs_c`` and ``piston_runs_c``
    [°C], and are to have at least ``runs_with`` between them then.
    """

    ring_top: Limit = NO_LIMIT
    ring_bottom: Limit = NO_LIMIT
    thrust_hour: float | None = None
    judged: Judged = Judged.AS_READ
    plate_fasteners: str = ""
    plate_gasket: str = ""
    plate_torque_nm: float | None = None
    hone_stock: Limit = NO_LIMIT
    centre_move: Limit = NO_LIMIT
    wall: Limit = NO_LIMIT
    least_wall: Limit = NO_LIMIT
    rebore: Limit = NO_LIMIT
    all_alike: bool = True
    bore_runs_c: float | None = None
    piston_runs_c: float | None = None
    runs_with: Limit = NO_LIMIT
    ladder: tuple[LadderStep, ...] = ()


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
    stroke: Limit = NO_LIMIT
    clearance_volume_cm3: float | None = None
    heights: tuple[DependentHeight, ...] = ()
    # Why no surfacer may touch the deck: rings of wire let in, a face matched to another part. Empty where it may.
    deck_kept: str = ""
    obstructions: tuple[Obstruction, ...] = ()
    bores: BoreTerms = BoreTerms()
    fits: FitTerms = FitTerms()
    conversion: ConversionTerms = ConversionTerms()


@dataclass(frozen=True, slots=True)
class FieldProblem:
    """What is wrong at one field of the card; the field is a path such as ``limits.variation_round``."""

    field: str
    message: str


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
