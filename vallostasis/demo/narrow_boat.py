"""Narrow-boat Quillet: a two-cylinder canal-boat engine whose dry liners come new, in an inch block.

Everything here is invented. Bore two is squeezed egg-shaped near its middle, at an angle that two axes would miss.
The deliberate mistake: the long micrometer was knocked while liner two was read, and its zero moved.
"""

from decimal import Decimal
from math import cos, radians

from vallostasis.core.features.pattern import Pattern
from vallostasis.core.features.plan import pattern_of
from vallostasis.core.records.fit_terms import FitTerms, FitWindow
from vallostasis.core.records.route_marks import FindingKind, Operation, WaitCause
from vallostasis.core.records.rows import Place, Quantity, ZeroedOn
from vallostasis.core.records.spec_card import (
    Acceptance,
    Arrangement,
    CardLevel,
    CardUnit,
    Construction,
    Cutter,
    FeatureSheet,
    Land,
    Layout,
    Length,
    Limit,
    Limits,
    Measuring,
    Seat,
    SourceStatus,
    SpecCard,
)
from vallostasis.demo.hidden_truth import Bench, BlockTruth, DemoJob, GaugeTruth, HoleTruth, LinerTruth
from vallostasis.demo.route_play import ClockPlay, FindingPlay, MarkPlay, RoutePlay, WaitPlay, found
from vallostasis.demo.survey_play import (
    BORE_GAUGE,
    INDICATOR,
    LONG_MICROMETER,
    MAIN_RING,
    RULE,
    SLEEVE_RING,
    SurveyPlay,
    TypedPlace,
    master_um,
)

SEED = 26057
NUMBER = "26-057"
INCH_UM, THOU_UM = 25400.0, 25.4
BOOK = "Ostrel Twin handbook, 1936, page 17"
AXES = (0.0, 45.0, 90.0, 135.0)
LEVELS = (("top", "0.6"), ("ring travel", "2.2"), ("middle", "4.7"), ("below the rings", "7.3"), ("bottom", "8.9"))
OUTSIDE_LEVELS = (
    ("top", "0.7"),
    ("upper quarter", "2.6"),
    ("middle", "4.7"),
    ("lower quarter", "6.8"),
    ("bottom", "8.8"),
)
# The block stands 3.5 K above 20 °C, and is of iron.
WARM_BLOCK = 1 + 10.5e-6 * 3.5
KNOCKED_BY_UM = 1.2 * THOU_UM
BLOCK = BlockTruth((HoleTruth(7_925.0), HoleTruth(7_930.0)),
                   (LinerTruth("Q1", "Aldmoor", "A-31", 7_950.0), LinerTruth("Q2", "Aldmoor", "A-31", 7_945.0)),
                   {})  # fmt: skip


def truth_um(quantity: Quantity, part: str, place: Place) -> float | None:
    """What a perfect gauge at 20 °C would find; None for what this engine does not have. [µm]"""
    number = int(part.rsplit("-", 1)[-1][-1]) if part[-1].isdigit() else 1
    level, axis = float(place.level_um or 0), radians(place.axis_deg or 0)
    share = level / (9.5 * INCH_UM)
    if quantity is Quantity.BLOCK_BORE:
        egg = (1.25 * THOU_UM if number == 2 else 0.15 * THOU_UM) * max(0.0, 1 - 3.2 * (share - 0.5) ** 2)
        bell = 0.25 * THOU_UM * max(0.0, share - 0.8) / 0.15
        return 5.0 * INCH_UM + 0.15 * THOU_UM + egg * cos(2 * (axis - radians(52))) + bell
    if quantity is Quantity.LINER_OUTSIDE:
        barrel = 0.9 * THOU_UM * (1 - (2 * share - 1) ** 2)
        return 5.0012 * INCH_UM + barrel + (0.2 * THOU_UM if number == 2 else 0.0)
    if quantity is Quantity.MAIN_BORE:
        return 2.6254 * INCH_UM + (-0.7 * THOU_UM if number == 2 and place.axis_deg == 90.0 else 0.0)
    if quantity is Quantity.PISTON_SKIRT:
        return 4.7445 * INCH_UM - (1.5 * THOU_UM if place.axis_deg == 0.0 else 0.0)
    if quantity is Quantity.PISTON_CROWN:
        return 4.7290 * INCH_UM
    if quantity is Quantity.DECK_FLATNESS:
        along, across = float(place.along_um or 0) / INCH_UM, float(place.across_um or 0) / INCH_UM
        return THOU_UM * (0.11 * along - 0.05 * across - 0.9 * (1 - ((along - 6.5) / 6.5) ** 2))
    if quantity is Quantity.NEIGHBOUR_GAP:
        return 21 * THOU_UM
    if quantity is Quantity.RING_GAP:
        return 18 * THOU_UM
    if quantity is Quantity.TRIAL_FIT:
        return (0.45 if number == 1 else 0.3) * INCH_UM
    if quantity is Quantity.LINER_BORE:
        return 4.75 * INCH_UM
    return None


def clamped_um(place: Place) -> float:
    """What the plate does to a block bore: it pulls it oval across the studs at the top, less and less below. [µm]"""
    fades = max(0.0, 1 - float(place.level_um or 0) / (6.0 * INCH_UM))
    return THOU_UM * fades * (-0.2 + 0.6 * cos(2 * (radians(place.axis_deg or 0) - radians(100))))


def demo_job() -> DemoJob:
    """Return the job as people recorded it up to now."""
    bench = Bench(SEED)
    return DemoJob(
        number=NUMBER,
        name="Narrow-boat Quillet",
        customer="Hollin Wharf Boat Club",
        complaint="Smokes under load; a piston scuffed on one side in number two, again.",
        serial="OT-1127",
        card=spec_card(),
        block=BLOCK,
        before_fitting=(),
        shims={},
        after_fitting=(),
        surveys=_surveys(bench),
        route=_route(),
    )


def _route() -> RoutePlay:
    return RoutePlay(
        findings=(
            *found("Wren", FindingKind.CONDITION, "bore", "sound", "worn one-sided"),
            FindingPlay(FindingKind.CONDITION, "Wren", "piston", "scuffed", 2, "both skirts, along the crank"),
            FindingPlay(FindingKind.RING, "Ines", "top ring", "weak", 2, "bronze-band ring of the 1930s", "0.21 in"),
            FindingPlay(FindingKind.LEAK_DOWN, "Tobiah", "cylinder", "past the rings", 1, figure="14 %"),
            FindingPlay(FindingKind.LEAK_DOWN, "Tobiah", "cylinder", "past the rings", 2, figure="33 %"),
        ),
        marks=(
            MarkPlay(Operation.STRIP, "Wren", 50, "class letters on the deck: B and C"),
            MarkPlay(Operation.CAPS, "Tobiah", 30, "all three, book torque"),
        ),
        clocks=(ClockPlay(Operation.STRIP, "Wren", 51.5, 50), ClockPlay(Operation.MEASURE, "Tobiah", 30, 27.5)),
        waits=(WaitPlay(Operation.HONE, WaitCause.PART, "two pistons on order", "Ines", 6, 12),),
    )


def _surveys(bench: Bench) -> tuple[SurveyPlay, ...]:
    plate = _read(Bench(SEED + 1), Quantity.BLOCK_BORE, ("hole-1", "hole-2"), BORE_GAUGE, "Tobiah", SLEEVE_RING, True)
    bores = _read(bench, Quantity.BLOCK_BORE, ("hole-1", "hole-2"), BORE_GAUGE, "Tobiah", SLEEVE_RING)
    outside = _read(bench, Quantity.LINER_OUTSIDE, ("liner-Q1", "liner-Q2"), LONG_MICROMETER, "Ines", SLEEVE_RING)
    second = next(at for at, one in enumerate(outside) if one.part == "liner-Q2") + 8
    knocked = tuple(_shifted(one) if at >= second else one for at, one in enumerate(outside))
    mains = _read(bench, Quantity.MAIN_BORE, ("main-1", "main-2", "main-3"), BORE_GAUGE, "Tobiah", MAIN_RING)
    deck = _read(bench, Quantity.DECK_FLATNESS, ("deck",), INDICATOR, "Wren", None)
    return (
        SurveyPlay(Quantity.BLOCK_BORE, BORE_GAUGE.name, ZeroedOn.MASTER, plate, SLEEVE_RING, "21.0", block_c="23.5",
                   load="torque plate on, gasket in; main caps torqued"),
        SurveyPlay(Quantity.BLOCK_BORE, BORE_GAUGE.name, ZeroedOn.MASTER, bores, SLEEVE_RING, "21.0", block_c="23.5",
                   load="free, no plate; main caps torqued"),
        SurveyPlay(Quantity.LINER_OUTSIDE, LONG_MICROMETER.name, ZeroedOn.MASTER, knocked, SLEEVE_RING, "21.0",
                   part_c="21.5", zero_found=f"{round(KNOCKED_BY_UM / THOU_UM, 1)} thou"),
        SurveyPlay(Quantity.MAIN_BORE, BORE_GAUGE.name, ZeroedOn.MASTER, mains, MAIN_RING, "21.0",
                   load="caps torqued"),
        SurveyPlay(Quantity.DECK_FLATNESS, INDICATOR.name, ZeroedOn.PART, deck[:5], method="indicator grid"),
        SurveyPlay(Quantity.TRIAL_FIT, RULE.name, ZeroedOn.DATUM,
                   (TypedPlace("Wren", "hole-1", Place(), "0.45", "inch", "Q1"),), load="oiled"),
    )  # fmt: skip


def _read(
    bench: Bench,
    quantity: Quantity,
    parts: tuple[str, ...],
    gauge: GaugeTruth,
    by: str,
    master: str | None,
    clamped: bool = False,
) -> tuple[TypedPlace, ...]:
    pattern: Pattern = pattern_of(spec_card_read(), quantity)[0]
    zero_um = 0.0 if master is None else master_um(master)
    warm = WARM_BLOCK if quantity is Quantity.BLOCK_BORE else 1.0
    typed = []
    for part in parts:
        for place in pattern.places:
            truth = truth_um(quantity, part, place)
            assert truth is not None
            held = clamped_um(place) if clamped else 0.0
            thou = bench.read(truth * warm + held - zero_um, gauge) / THOU_UM
            typed.append(TypedPlace(by, part, place, f"{thou:+.1f}", "thou"))
    return tuple(typed)


def _shifted(one: TypedPlace) -> TypedPlace:
    thou = float(one.text) + KNOCKED_BY_UM / THOU_UM
    return TypedPlace(one.by, one.part, one.place, f"{thou:+.1f}", one.bare_unit)


def _book(typed: str) -> Limit:
    return Limit(Length(typed), BOOK, SourceStatus.SPECIFICATION)


def _own(typed: str) -> Limit:
    return Limit(Length(typed), "as this shop fits dry liners", SourceStatus.OWN_EXPERIENCE)


def spec_card_read() -> SpecCard:
    """Return the card with the exact values that its features' places are read at."""
    card = spec_card()
    inch = {"levels": INCH_UM, "along": INCH_UM, "across": INCH_UM}
    sheets = []
    for sheet in card.features:
        levels = tuple(CardLevel(level.name, _exact(level.depth, inch["levels"])) for level in sheet.levels)
        along = tuple(_exact(one, inch["along"]) for one in sheet.along)
        across = tuple(_exact(one, inch["across"]) for one in sheet.across)
        sheets.append(FeatureSheet(sheet.quantity, levels=levels, axes_deg=sheet.axes_deg, along=along, across=across))
    return SpecCard(**{name: getattr(card, name) for name in SpecCard.__slots__ if name != "features"},
                    features=tuple(sheets))  # fmt: skip


def _exact(length: Length, unit_um: float) -> Length:
    return Length(length.typed, Decimal(length.typed) * Decimal(unit_um))


def spec_card() -> SpecCard:
    """Return the card of the Ostrel Twin: inches and thou."""
    none = Limit(None)
    levels = tuple(CardLevel(name, Length(depth)) for name, depth in LEVELS)
    outside = tuple(CardLevel(name, Length(depth)) for name, depth in OUTSIDE_LEVELS)
    return SpecCard(
        name="Ostrel Twin, dry liners",
        engine="Ostrel Twin",
        unit=CardUnit.INCH,
        construction=Construction.DRY_FLANGED,
        block_material="grey iron",
        liner_material="cast iron",
        layout=Layout(Arrangement.IN_LINE, 2, ((1, 2),), "number one at the flywheel end", "the exhaust side",
                      Length("6.5"), Length("4.75")),
        limits=Limits(_own("0.0"), _own("2.0"), none, none, none, _own("1.0"), none, none, none),
        seat=Seat(_book("0.3130"), _book("0.3120"), _book("0.250"), _book("0.200"),
                  Limit(Length("1.0"), "an even witness all round", SourceStatus.COMMON_PRACTICE)),
        measuring=Measuring("flat top", "the clean deck beside the hole", (), "bar across the liner", None,
                            (12.0, 3.0, 6.0, 9.0)),
        lands=(Land("flat top", Length("0"), "the whole top of the flange"),),
        shims=(),
        cutter=Cutter("portable counterbore cutter", Length("0.8"), Length("1.0"), 5.0),
        acceptance=Acceptance.GUARDED,
        main_bores=3,
        piston_material="cast iron",
        features=(
            FeatureSheet(Quantity.BLOCK_BORE, _book("5.0000"), _own("4.9990"), _own("5.0010"), _own("1.0"), _own("1.0"),
                         levels, AXES),
            FeatureSheet(Quantity.LINER_OUTSIDE, _book("5.0010"), _own("5.0005"), _own("5.0025"), _own("0.6"),
                         levels=outside, axes_deg=AXES),
            FeatureSheet(Quantity.MAIN_BORE, _book("2.6250"), _book("2.6250"), _book("2.6260"),
                         levels=(CardLevel("middle of the web", Length("0")),), axes_deg=(45.0, 90.0, 135.0)),
            FeatureSheet(Quantity.PISTON_SKIRT, _book("4.7445"), _book("4.7440"), _book("4.7450"),
                         levels=(CardLevel("below the pin", Length("2.5")), CardLevel("bottom", Length("4.1"))),
                         axes_deg=(0.0, 90.0)),
            FeatureSheet(Quantity.DECK_FLATNESS, greatest=_own("2.0"),
                         along=tuple(Length(one) for one in ("0", "6.5", "13")),
                         across=tuple(Length(one) for one in ("-3", "0", "3"))),
            FeatureSheet(Quantity.TRIAL_FIT, _book("9.50")),
        ),
        fits=FitTerms(
            light=FitWindow(_own("0.2"), _own("0.5"), _own("0.8")),
            firm=FitWindow(_book("1.0"), _book("1.5"), _book("2.0")),
            boss_outside=_own("5.90"),
            liner_inside=_book("4.745"),
            bore_rz=_own("0.25"),
            liner_rz=_own("0.10"),
            lead_in=_book("0.12"),
            least_liner_wall=_book("0.110"),
            least_boss_wall=_own("0.300"),
        ),
    )  # fmt: skip
