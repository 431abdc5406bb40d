"""Ferry Lanthorn: a harbour ferry's six-cylinder engine that loses coolant at number five.

Everything here is invented. The deliberate mistake: the flange of L2 was measured over its lip and
written down as the flat land.
"""

from dataclasses import replace
from decimal import Decimal

from vallostasis.core.records.preparation import InspectionKind, PrepKind
from vallostasis.core.records.route_marks import FindingKind, Operation, WaitCause
from vallostasis.core.records.rows import Place, Quantity, ZeroedOn
from vallostasis.core.records.spec_card import (
    Acceptance,
    Arrangement,
    CardUnit,
    Construction,
    Cutter,
    DependentHeight,
    FeatureSheet,
    HeightKind,
    Land,
    Layout,
    Length,
    Limit,
    Limits,
    Measuring,
    Obstruction,
    Seat,
    ShimSize,
    SourceStatus,
    SpecCard,
)
from vallostasis.demo.hidden_truth import (
    MICROMETER,
    SLED,
    Bench,
    BlockTruth,
    DemoJob,
    HoleTruth,
    LinerTruth,
    TypedReading,
)
from vallostasis.demo.route_play import ClockPlay, FindingPlay, LookPlay, MarkPlay, RoutePlay, StepPlay, WaitPlay, found
from vallostasis.demo.survey_play import INDICATOR, SurveyPlay, TypedPlace

SEED = 26031
FLAT, LIP = "flat land", "lip"
GRID_ALONG = ("0", "168", "336", "504", "672", "840", "1008")
GRID_ACROSS = ("-110", "0", "110")
HOURS = (12.0, 3.0, 6.0, 9.0)
BOOK = "Fennick 6W workshop book, 3rd edition, page 41"
TALKING_GAUGE = SLED.name
GAUGE_LINE_PATTERN = "{value} {unit}"

HOLES = (
    HoleTruth(8814.0, 2, -3),
    HoleTruth(8821.0, -4, 2),
    HoleTruth(8818.0, 3, 4),
    HoleTruth(8819.0, -2, -4),
    HoleTruth(8859.0, 12, 0),
    HoleTruth(8838.0, 11, -2),
)
LINERS = (
    LinerTruth("L1", "Pellerby", "P-2207", 8901.0),
    LinerTruth("L2", "Quarnforth", "Q-118", 8902.0, 90.0, measured_over_lip=True),
    LinerTruth("L3", "Pellerby", "P-2207", 8899.0),
    LinerTruth("L4", "Pellerby", "P-2207", 8900.0),
    LinerTruth("L5", "Pellerby", "P-2209", 8900.0),
    LinerTruth("L6", "Pellerby", "P-2209", 8900.0),
    LinerTruth("L7", "Quarnforth", "Q-118", 8901.0, 90.0, measured=False),
)
FITTED = {1: "L1", 2: "L4", 3: "L2", 4: "L3", 5: "L6", 6: "L5"}
BLOCK = BlockTruth(HOLES, LINERS, FITTED)


def demo_job() -> DemoJob:
    """Return the job with everything that was read up to now, in the order in which it was typed."""
    bench = Bench(SEED)
    before = [_flange(bench, liner) for liner in LINERS if liner.measured]
    for number, hole in enumerate(HOLES, start=1):
        for hour in HOURS:
            depth = bench.read(hole.ledge_depth_um(hour), SLED)
            before.append(TypedReading(Quantity.COUNTERBORE_DEPTH, "Tobiah", f"{depth / 1000:.3f}", "mm", number, hour))
    after = [_protrusion(bench, number, hour) for number in FITTED for hour in HOURS]
    slip = next(i for i, one in enumerate(after) if (one.hole, one.hour) == (4, 3.0))
    after[slip : slip + 1] = [_with_lost_digit(after[slip]), _as_correction(after[slip])]
    return DemoJob(
        number="26-031",
        name="Ferry Lanthorn",
        customer="Basin Ferry Trust",
        complaint="Loses coolant from between head and block at number five, worse when hot.",
        serial="FW6-0418-P",
        card=spec_card(),
        block=BLOCK,
        before_fitting=tuple(before),
        shims={},
        after_fitting=tuple(after),
        surveys=(_deck(bench),),
        route=_route(),
    )


def deck_um(place: Place) -> float:
    """True height of the deck at a point of its grid: a little hollow along the middle. [µm]"""
    along, across = float(place.along_um or 0) / 1e6, float(place.across_um or 0) / 1e5
    return 9.0 * (2 * along - 1) ** 2 + 3.0 * across - 4.0 * across**2


def _deck(bench: Bench) -> SurveyPlay:
    typed = []
    for along in GRID_ALONG:
        for across in GRID_ACROSS:
            place = Place(along_um=Decimal(along) * 1000, across_um=Decimal(across) * 1000)
            typed.append(
                TypedPlace("Wren", "deck", place, f"{bench.read(deck_um(place), INDICATOR) / 10:.1f}", "0.01 mm")
            )
    return SurveyPlay(Quantity.DECK_FLATNESS, INDICATOR.name, ZeroedOn.PART, tuple(typed), method="indicator grid",
                      load="block level on the machine", ago_h=24, before_fitting=True)  # fmt: skip


def _route() -> RoutePlay:
    return RoutePlay(
        findings=(
            *found("Wren", FindingKind.CONDITION, "liner", "sound", "sound", "sound", "sound", "stands low", "sound"),
            *found("Wren", FindingKind.GASKET, "fire ring", "sound", "sound", "sound", "carbon passing",
                   "burnt through", "sound"),
            FindingPlay(FindingKind.LEAK_DOWN, "Tobiah", "cylinder", "into the coolant", 5, figure="42 %"),
            FindingPlay(FindingKind.LEAK_DOWN, "Tobiah", "cylinder", "past the rings", 4, figure="9 %"),
            FindingPlay(FindingKind.PRIOR_WORK, "Ines", "liner", "sleeved before", None,
                        "two makes of liner in one block, no papers"),
            FindingPlay(FindingKind.MARK, "Wren", "deck", "pit", 2, "where the old gasket leaked", "0.06 mm", 4.0,
                        "3 mm", "2 mm"),
            FindingPlay(FindingKind.MARK, "Wren", "deck", "pit", 4, "by the water port", "0.4 mm", 8.0, "15 mm",
                        "4 mm"),
            FindingPlay(FindingKind.WEAR, "Tobiah", "liner below the flange", "cavitation line", 5,
                        "a row of pits down the exhaust side", "0.3 mm", 12.0, "", "12 mm"),
        ),
        steps=(
            StepPlay(PrepKind.SCRAPED, "Wren", 3, "scraper and solvent"),
            StepPlay(PrepKind.SCRAPED, "Wren", 1, "flat stone", "machining marks kept"),
            StepPlay(PrepKind.BOLT_HOLES, "Wren", 14),
            StepPlay(PrepKind.DOWELS, "Wren", 0, words="left in, clear of the cutter"),
            StepPlay(PrepKind.PLUGS_IN, "Tobiah", 6, "bores"),
            StepPlay(PrepKind.PLUGS_IN, "Tobiah", 9, "oil holes"),
            StepPlay(PrepKind.PLUGS_IN, "Tobiah", 7, "journals"),
        ),
        looks=(
            LookPlay(InspectionKind.CRACK_LEDGE, "Tobiah", "dye, all six, ten minutes"),
            LookPlay(InspectionKind.CRACK_DECK, "Tobiah", "dye, between the bores"),
            LookPlay(InspectionKind.PRESSURE, "Ines", "2 bar, warm water, half an hour"),
            LookPlay(InspectionKind.CORNER, "Tobiah", "radius gauge, all six", "0.4 mm"),
        ),
        marks=(
            MarkPlay(Operation.STRIP, "Wren", 74, "head nuts on the exhaust side were slack"),
            MarkPlay(Operation.DECIDE, "Ines", 29, "cut and shim number five, agreed with the Trust"),
        ),
        clocks=(
            ClockPlay(Operation.STRIP, "Wren", 75.5, 74),
            ClockPlay(Operation.MEASURE, "Tobiah", 52, 49),
            ClockPlay(Operation.CLEAN, "Wren", 28, 25),
        ),
        waits=(
            WaitPlay(Operation.ORDER, WaitCause.PART, "shims of 0.10 and 0.15 mm", "Ines", 3, 2, "all six came"),
            WaitPlay(Operation.CUT, WaitCause.PERSON, "Wren for the cutter, back from the ferry", "Tobiah", 1, 1),
        ),
    )  # fmt: skip


def _flange(bench: Bench, liner: LinerTruth) -> TypedReading:
    over = liner.lip_um if liner.measured_over_lip else 0.0
    thickness = bench.read(liner.flange_um + over, MICROMETER)
    return TypedReading(Quantity.FLANGE_THICKNESS, "Ines", f"{thickness / 1000:.3f}", "mm", liner_mark=liner.mark)


def _protrusion(bench: Bench, number: int, hour: float) -> TypedReading:
    value = bench.read(BLOCK.standing_um(number, hour, True, FITTED[number], None, 0.0), SLED)
    # Wren thinks in hundredths of a millimetre, Tobiah calls thou.
    if number == 4:
        return TypedReading(Quantity.PROTRUSION, "Tobiah", f"{value / 25.4:.1f} thou", "0.01 mm", number, hour)
    return TypedReading(Quantity.PROTRUSION, "Wren", f"{value / 10:.1f}", "0.01 mm", number, hour)


def _with_lost_digit(reading: TypedReading) -> TypedReading:
    """Return what was typed first: the whole number was lost."""
    return replace(reading, text="2.1 thou")


def _as_correction(reading: TypedReading) -> TypedReading:
    return replace(reading, corrects=True)


def _book(typed: str) -> Limit:
    return Limit(Length(typed), BOOK, SourceStatus.SPECIFICATION)


def spec_card() -> SpecCard:
    """Return the card of the Fennick 6W, in millimetres."""
    practice = SourceStatus.COMMON_PRACTICE
    none = Limit(None)
    return SpecCard(
        name="Fennick 6W, wet liners",
        engine="Fennick 6W",
        unit=CardUnit.MM,
        construction=Construction.WET_TOP_FLANGE,
        block_material="grey iron",
        liner_material="centrifugally cast iron",
        layout=Layout(
            arrangement=Arrangement.IN_LINE,
            holes=6,
            heads=((1, 2, 3), (4, 5, 6)),
            numbering="number one at the front, counted back",
            twelve_o_clock="the exhaust side",
            bore_pitch=Length("168"),
            bore=Length("128"),
        ),
        limits=Limits(
            least_without_shim=_book("0.050"),
            greatest_without_shim=_book("0.125"),
            least_with_shim=_book("0.075"),
            greatest_with_shim=_book("0.125"),
            target_with_shim=Limit(Length("0.100"), "middle of the window", SourceStatus.OWN_EXPERIENCE),
            variation_round=_book("0.040"),
            neighbour_difference=_book("0.050"),
            head_average_least=none,
            head_average_greatest=none,
        ),
        seat=Seat(
            flange_nominal=_book("8.900"),
            counterbore_nominal=_book("8.815"),
            ledge_at_nominal=_book("6.0"),
            ledge_least=_book("5.2"),
            cleanup_least=Limit(Length("0.025"), "an even witness all round", practice),
            sealing_land=_book("7"),
            flange_edge=_book("0.8"),
        ),
        measuring=Measuring(
            land=FLAT,
            datum="the clean deck beside the hole",
            between=(),
            hold_down="bar and two washers",
            hold_down_torque_nm=70.0,
            required_hours=HOURS,
        ),
        lands=(
            Land(FLAT, Length("0"), "outside the lip, 6 mm wide"),
            Land(LIP, Length("0.090"), "fire-ring lip on liners of Quarnforth only"),
        ),
        shims=tuple(
            ShimSize(Length(size), stock, price)
            for size, stock, price in (("0.10", 2, None), ("0.15", 0, None), ("0.20", 3, None), ("0.25", 3, None),
                                       ("0.50", 1, None))
        ),
        cutter=Cutter("portable counterbore cutter", Length("0.020"), Length("0.025"), 5.0,
                      Limit(Length("0.4"), "as ground", practice)),
        stroke=_book("146"),
        clearance_volume_cm3=125.0,
        heights=(
            DependentHeight(HeightKind.STAND_OUT, Length("0.62"), _book("0.45"), _book("0.75")),
            DependentHeight(HeightKind.INJECTOR, Length("2.10"), _book("1.90"), none),
            DependentHeight(HeightKind.VALVE, Length("1.35"), _book("1.20"), none),
        ),
        obstructions=(
            Obstruction(1, "gear case", 8.0, 10.0, "cut it late: the bar has to be turned back and forth"),
            Obstruction(6, "lifting eye", 2.0, 4.0, "take it off first"),
        ),
        currency="",
        features=(
            FeatureSheet(Quantity.DECK_FLATNESS, greatest=_book("0.05"),
                         along=tuple(Length(one) for one in GRID_ALONG),
                         across=tuple(Length(one) for one in GRID_ACROSS)),
        ),
        acceptance=Acceptance.GUARDED,
        coverage_factor=2.0,
    )  # fmt: skip
