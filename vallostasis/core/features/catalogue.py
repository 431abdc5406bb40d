"""The feature catalogue: everything about a measured feature that is a fact of its kind stands in its row here.

What it belongs to, how its readings lie, the gauges made for it, how it is held, which limits a card can set for it.
A new feature is a row of ``FEATURES``, its name in ``records.Quantity`` and a line of migration.
All of it is common practice, no published source.
"""

from dataclasses import dataclass
from decimal import Decimal
from enum import StrEnum

from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import Construction


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
    LEVELS_AND_CLOCK = "levels and clock"
    LEVELS = "levels"
    AXES = "axes"
    GRID = "grid"
    ONCE = "one place"


class MadeOf(StrEnum):
    """Whose material a feature expands with."""

    BLOCK = "block"
    LINER = "liner"
    PISTON = "piston"


class Drawing(StrEnum):
    """How a survey of a feature is drawn."""

    TRACKS = "tracks"
    GRID = "grid"
    START = "start"


@dataclass(frozen=True, slots=True)
class CardLimit:
    """A limit that a card can set for a feature: its field on the sheet, and how it is called there."""

    field: str
    label: str

    @property
    def is_of_readings(self) -> bool:
        """Whether single readings are held against it, not a difference between them."""
        return self.field in ("nominal", "least", "greatest")


NOMINAL, LEAST, GREATEST = (
    CardLimit("nominal", "Nominal"),
    CardLimit("least", "Least"),
    CardLimit("greatest", "Greatest"),
)
OUT_OF_ROUND, TAPER = CardLimit("out_of_round", "Out of round"), CardLimit("taper", "Taper")
_WINDOW = (LEAST, GREATEST)
_SIZE_AND_FORM = (NOMINAL, *_WINDOW, OUT_OF_ROUND, TAPER)

_ON_DECK = ("free, no plate", "torque plate on, gasket in", "torque plate on, no gasket", "head on")
_CAPS = ("main caps torqued", "main caps off")
_UNLINED = (Construction.PARENT_BORE, Construction.COATED)
_WET = (Construction.WET_TOP_FLANGE, Construction.WET_BOTTOM_SEAT, Construction.INSERT)
_ACROSS_AND_ALONG = (0.0, 90.0)
_ENDS = (("top", "0.08"), ("middle", "0.5"), ("bottom", "0.92"))
_INSERT = (("upper edge", Decimal(2000)), ("lower edge", Decimal(8000)))
_OUTSIDE = (("top", "0.08"), ("upper quarter", "0.3"), ("middle", "0.5"), ("lower quarter", "0.7"), ("bottom", "0.92"))


@dataclass(frozen=True, slots=True)
class Feature:
    """A feature: ``is_size`` when it is read as a size (inch, mm), else as a small length (thou, µm).

    Parameters
    ----------
    is_diameter : bool
        A reading is a two-point diameter.
    usual_spread_um : Decimal
        How far a reading may stand from the nearest of its set without being asked about. [µm]
    made_of : MadeOf
        Whose material it expands with.
    gauges : tuple of str
        Words in the kind of a gauge that is made for it.
    loads, also_loads, methods : tuple of str
        How the part is held, what else loads it at the same time, and in which ways it is read.
    limits : tuple of CardLimit
        Limits that a card can set; none where it has no sheet of its own.
    tight, deep : int
        Sign that the word gives a reading; nought where it is asked about.
    own_axes_deg : tuple of float
        Axes that it is read on whatever the risk; empty where the plan chooses. [deg]
    own_levels : tuple of (str, Decimal)
        Levels that it is read at whatever the engine; empty where they follow from its size. [µm]
    level_shares : tuple of (str, str)
        Levels as shares of the length, of the bore where ``shares_of_bore``; empty where the plan chooses. [1]
    after_cut : bool
        A cut of the hole makes another thing of it: what was read before stays with what was there.
    stays : bool
        What was read stays what it was when gauge, land or load are changed: it is read of a part by itself.
    not_in : tuple of Construction
        Constructions that do not have it.
    drawing, axis_names, asks_liner
        How a survey is drawn, what its axes are called, and whether the liner tried is asked for.
    """

    quantity: Quantity
    part: PartKind
    pattern: PatternKind
    is_size: bool
    usual_spread_um: Decimal
    is_diameter: bool = False
    made_of: MadeOf = MadeOf.LINER
    gauges: tuple[str, ...] = ()
    loads: tuple[str, ...] = ()
    also_loads: tuple[str, ...] = ()
    methods: tuple[str, ...] = ()
    limits: tuple[CardLimit, ...] = ()
    tight: int = 0
    deep: int = 0
    own_axes_deg: tuple[float, ...] = ()
    own_levels: tuple[tuple[str, Decimal], ...] = ()
    level_shares: tuple[tuple[str, str], ...] = ()
    shares_of_bore: bool = False
    after_cut: bool = False
    stays: bool = False
    not_in: tuple[Construction, ...] = ()
    drawing: Drawing = Drawing.TRACKS
    axis_names: tuple[str, str] = ("front", "90°")
    asks_liner: bool = False


FEATURES: dict[Quantity, Feature] = {
    feature.quantity: feature
    for feature in (
        Feature(
            Quantity.PROTRUSION, PartKind.FITTING, PatternKind.CLOCK, False, Decimal(60), gauges=("depth", "indicator")
        ),
        Feature(
            Quantity.COUNTERBORE_DEPTH, PartKind.HOLE, PatternKind.CLOCK, True, Decimal(200),
            gauges=("depth", "indicator"), deep=1, after_cut=True, stays=True,
        ),
        Feature(
            Quantity.COUNTERBORE_DIAMETER, PartKind.HOLE, PatternKind.LEVELS_AND_AXES, True, Decimal(200), True,
            made_of=MadeOf.BLOCK, gauges=("bore",), limits=_SIZE_AND_FORM, tight=-1,
            not_in=(Construction.DRY_PLAIN, *_UNLINED),
            own_levels=(("above the ledge", Decimal(4000)),), after_cut=True,
        ),
        Feature(
            Quantity.FLANGE_THICKNESS, PartKind.LINER, PatternKind.ONCE, True, Decimal(50), gauges=("micrometer",),
            stays=True
        ),
        Feature(
            Quantity.BLOCK_BORE, PartKind.HOLE, PatternKind.LEVELS_AND_AXES, True, Decimal(150), True,
            made_of=MadeOf.BLOCK, gauges=("bore",), loads=_ON_DECK, also_loads=_CAPS, limits=_SIZE_AND_FORM, tight=-1,
        ),
        # How deep the wall lies below the unworn band, a side: it places wear that a two-point gauge cannot.
        Feature(
            Quantity.WEAR_STEP, PartKind.HOLE, PatternKind.LEVELS_AND_CLOCK, False, Decimal(300),
            made_of=MadeOf.BLOCK, gauges=("indicator", "depth"), loads=_ON_DECK, also_loads=_CAPS,
            methods=("indicator on the unworn band", "straightedge and feeler"), limits=(GREATEST,), deep=1,
        ),
        # From the bore to the outside or the core, a side; read with ultrasound or callipers.
        Feature(
            Quantity.WALL_THICKNESS, PartKind.HOLE, PatternKind.LEVELS_AND_CLOCK, True, Decimal(3000),
            made_of=MadeOf.BLOCK, gauges=("ultrasonic", "calliper"), limits=(LEAST,),
            level_shares=(("upper", "0.15"), ("middle", "0.5"), ("lower", "0.85")),
        ),
        Feature(
            Quantity.LINER_OUTSIDE, PartKind.LINER, PatternKind.LEVELS_AND_AXES, True, Decimal(100), True,
            gauges=("micrometer",), limits=_SIZE_AND_FORM, tight=1, not_in=_UNLINED, level_shares=_OUTSIDE,
        ),
        # The bore of a liner before it goes in: what it closes in by is told against it.
        Feature(
            Quantity.LINER_INSIDE, PartKind.LINER, PatternKind.LEVELS_AND_AXES, True, Decimal(250), True,
            gauges=("bore",), limits=_SIZE_AND_FORM, tight=-1, not_in=_UNLINED, level_shares=_OUTSIDE, stays=True,
        ),
        Feature(
            Quantity.LINER_BORE, PartKind.FITTING, PatternKind.LEVELS_AND_AXES, True, Decimal(250), True,
            gauges=("bore",), loads=_ON_DECK, also_loads=_CAPS, limits=_SIZE_AND_FORM, tight=-1, not_in=_UNLINED,
        ),
        Feature(
            Quantity.PISTON_SKIRT, PartKind.PISTON, PatternKind.LEVELS_AND_AXES, True, Decimal(300), True,
            made_of=MadeOf.PISTON, gauges=("micrometer",),
            loads=("piston new", "piston used", "skirt may have collapsed"), limits=_SIZE_AND_FORM, tight=1,
            own_axes_deg=_ACROSS_AND_ALONG, level_shares=(("below the pin", "0.25"), ("bottom of the skirt", "0.45")),
            shares_of_bore=True,
        ),
        Feature(
            Quantity.PISTON_CROWN, PartKind.PISTON, PatternKind.LEVELS_AND_AXES, True, Decimal(200), True,
            made_of=MadeOf.PISTON, gauges=("micrometer",), limits=_SIZE_AND_FORM, tight=1,
            own_axes_deg=_ACROSS_AND_ALONG, own_levels=(("above the rings", Decimal(5000)),),
        ),
        Feature(
            Quantity.PISTON_CLEARANCE, PartKind.PISTON, PatternKind.ONCE, False, Decimal(300), gauges=("feeler",),
            methods=("feeler, piston against the other wall", "feeler, piston hanging free"), limits=_WINDOW,
        ),
        # A main bore is read upright and on both diagonals, since the joint of its cap lies across.
        Feature(
            Quantity.MAIN_BORE, PartKind.MAIN, PatternKind.LEVELS_AND_AXES, True, Decimal(100), True,
            made_of=MadeOf.BLOCK, gauges=("bore",), loads=("caps torqued", "caps finger tight"),
            limits=_SIZE_AND_FORM, tight=-1, own_axes_deg=(45.0, 90.0, 135.0), axis_names=("cap joint", "upright"),
            own_levels=(("middle of the web", Decimal(0)),),
        ),
        # Each main bore swept round from a bar through all of them; its limit is for the line, not for a reading.
        Feature(
            Quantity.MAIN_LINE, PartKind.MAIN, PatternKind.CLOCK, False, Decimal(200), made_of=MadeOf.BLOCK,
            gauges=("indicator", "depth"), loads=("caps torqued", "caps finger tight"),
            methods=("bar through all main bores", "straightedge and feeler"),
            limits=(CardLimit("greatest", "In line within"),),
        ),
        Feature(
            Quantity.DECK_FLATNESS, PartKind.DECK, PatternKind.GRID, False, Decimal(150),
            gauges=("depth", "indicator", "feeler"), loads=("block level on the machine", "block on its feet"),
            methods=("indicator grid", "straightedge and feeler"), limits=(CardLimit("greatest", "Flat within"),),
            drawing=Drawing.GRID,
        ),
        # From the line of the mains to the face: what is left of the block, and whether both halves are alike.
        Feature(
            Quantity.DECK_HEIGHT, PartKind.DECK, PatternKind.ONCE, True, Decimal(500), made_of=MadeOf.BLOCK,
            gauges=("depth", "height"), methods=("from the line of the mains", "from the sump rail"),
            limits=(NOMINAL, *_WINDOW),
        ),
        Feature(
            Quantity.NEIGHBOUR_GAP, PartKind.GAP, PatternKind.LEVELS, False, Decimal(150), gauges=("feeler",),
            methods=("feeler blade", "gauge blocks"), limits=_WINDOW, level_shares=_ENDS, not_in=_UNLINED,
        ),
        Feature(
            Quantity.NEIGHBOUR_STEP, PartKind.GAP, PatternKind.ONCE, False, Decimal(60), gauges=("feeler",),
            not_in=_UNLINED,
        ),
        Feature(
            Quantity.RING_GAP, PartKind.FITTING, PatternKind.LEVELS, False, Decimal(400), gauges=("feeler",),
            methods=("feeler blade",), limits=_WINDOW, level_shares=_ENDS,
        ),
        Feature(
            Quantity.TRIAL_FIT, PartKind.HOLE, PatternKind.ONCE, True, Decimal(60_000), gauges=("rule",),
            loads=("dry", "oiled"), limits=(CardLimit("nominal", "Liner's length"),), not_in=(*_UNLINED, *_WET),
            drawing=Drawing.START, asks_liner=True,
        ),
        Feature(
            Quantity.LEVELLING, PartKind.DECK, PatternKind.AXES, False, Decimal(500), gauges=("level",),
            methods=("from the deck", "from the sump rail", "from the main bores"),
        ),
        Feature(
            Quantity.SETUP_INDICATOR, PartKind.HOLE, PatternKind.CLOCK, False, Decimal(200),
            gauges=("depth", "indicator"), methods=("rough set-up", "fine set-up"),
        ),
        # The lower register swept round from a bar that is centred in the upper one.
        Feature(
            Quantity.REGISTER_LINE, PartKind.HOLE, PatternKind.CLOCK, False, Decimal(300), made_of=MadeOf.BLOCK,
            gauges=("indicator", "depth"), not_in=_UNLINED,
            methods=("bar centred in the upper register", "liner turned in its collar"),
        ),
        # A ring that is set into the deck round a liner; its own fit, read before it goes in.
        Feature(
            Quantity.INSERT_POCKET, PartKind.HOLE, PatternKind.LEVELS_AND_AXES, True, Decimal(200), True,
            made_of=MadeOf.BLOCK, gauges=("bore",), limits=_SIZE_AND_FORM, tight=-1, not_in=_UNLINED,
            own_levels=_INSERT,
        ),
        Feature(
            Quantity.INSERT_OUTSIDE, PartKind.HOLE, PatternKind.LEVELS_AND_AXES, True, Decimal(100), True,
            gauges=("micrometer",), limits=_SIZE_AND_FORM, tight=1, not_in=_UNLINED, own_levels=_INSERT, stays=True,
        ),
    )
}  # fmt: skip
# Words that say of a gauge's kind what it is made for; a kind with none of them rules nothing out.
GAUGE_WORDS = frozenset(word for feature in FEATURES.values() for word in feature.gauges)


def feature_of(quantity: Quantity) -> Feature:
    """Return what is known of a feature."""
    return FEATURES[quantity]


def is_surveyed(quantity: Quantity) -> bool:
    """Whether a feature is captured place by place by its own pattern, not round the deck hole by hole."""
    return quantity not in (Quantity.PROTRUSION, Quantity.COUNTERBORE_DEPTH, Quantity.FLANGE_THICKNESS)
