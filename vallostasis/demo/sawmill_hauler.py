"""Sawmill Hauler: the V-eight of a log lorry, its counterbores cut before and shimmed with what lay on the shelf.

Everything here is invented. The deliberate mistake: the shim under hole 3 was written down as 6
thou and is one of 8. Number six sinks; numbers seven and eight are not read to the end yet.
"""

from vallostasis.core.records.preparation import InspectionKind
from vallostasis.core.records.route_marks import FindingKind, Operation, WaitCause
from vallostasis.core.records.rows import Place, Quantity, ZeroedOn
from vallostasis.core.records.spec_card import (
    Acceptance,
    Arrangement,
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
    ShimWritten,
    TypedReading,
)
from vallostasis.demo.route_play import ClockPlay, FindingPlay, LookPlay, MarkPlay, RoutePlay, WaitPlay, found
from vallostasis.demo.survey_play import HEIGHT_GAUGE, SurveyPlay, TypedPlace

SEED = 26044
FLAT = "flat land"
HOURS = (12.0, 3.0, 6.0, 9.0)
BOOK = "Brennock V8 overhaul book, 1st edition, page 88"
INCH_UM = 25_400.0
THOU_UM = 25.4

HOLES = (
    HoleTruth(8802.0, 3, -2),
    HoleTruth(8942.0, -3, 1, shim_um=152.4),
    HoleTruth(8995.0, 2, 2, shim_um=203.2),
    HoleTruth(8798.0, -4, 3),
    HoleTruth(8806.0, 5, -4),
    HoleTruth(8853.0, 7, 1),
    HoleTruth(9049.0, 1, -3, shim_um=254.0),
    HoleTruth(8800.0, 0, 2),
)
LINERS = tuple(
    LinerTruth(f"S{number}", make, batch, flange)
    for number, make, batch, flange in (
        (1, "Pellerby", "P-1990", 8890.0),
        (2, "Pellerby", "P-1990", 8891.0),
        (3, "Pellerby", "P-1990", 8889.0),
        (4, "Aldmoor", "A-7", 8887.0),
        (5, "Aldmoor", "A-7", 8892.0),
        (6, "Pellerby", "P-1993", 8890.0),
        (7, "Pellerby", "P-1993", 8891.0),
        (8, "Pellerby", "P-1993", 8890.0),
    )
)
# From an engine that was broken up: its flange was made thicker, for a ledge that had been cut.
SPARE = LinerTruth("S9", "Aldmoor", "A-9", 8938.0)
FITTED = {number: f"S{number}" for number in range(1, len(HOLES) + 1)}
BLOCK = BlockTruth(HOLES, (*LINERS, SPARE), FITTED)
# As written down: under hole 3 lies a shim of 0.008 in.
SHIMS = {2: ShimWritten("0.006 in", "0.0060 in"), 3: ShimWritten("0.006 in"), 7: ShimWritten("0.010 in", "0.0100 in")}
# From the line of the mains to the face of each half, as it is. [µm]
DECK_HEIGHT_UM = {"deck-A": 317_420.0, "deck-B": 317_360.0}
# Where the tip has not been yet.
NOT_READ = {(7, 6.0), (7, 9.0)} | {(8, hour) for hour in HOURS}


def demo_job() -> DemoJob:
    """Return the job with everything that was read up to now, in the order in which it was typed."""
    bench = Bench(SEED)
    before = [_flange(bench, liner) for liner in LINERS]
    before += [_depth(bench, number, hour) for number in FITTED for hour in HOURS]
    # Read by itself, so that no other reading of the job moves with it.
    before.append(_flange(Bench(SEED + 2), SPARE))
    places = [(number, hour) for number in FITTED for hour in HOURS if (number, hour) not in NOT_READ]
    return DemoJob(
        number="26-044",
        name="Sawmill Hauler",
        customer="Upper Tarn Timber",
        complaint="Two head gaskets in a year; somebody had shimmed it before, nobody wrote down what with.",
        serial="BV8-2207",
        card=spec_card(),
        block=BLOCK,
        before_fitting=tuple(before),
        shims=SHIMS,
        after_fitting=tuple(_protrusion(bench, number, hour) for number, hour in places),
        surveys=(_deck_heights(),),
        route=_route(),
    )


def _deck_heights() -> SurveyPlay:
    """Each half of the V over the line of its mains: bank A was skimmed less than bank B, some day."""
    bench, typed = Bench(SEED + 1), []
    for part, height_um in DECK_HEIGHT_UM.items():
        typed.append(TypedPlace("Tobiah", part, Place(), f"{bench.read(height_um, HEIGHT_GAUGE) / 1000:.3f}", "mm"))
    return SurveyPlay(Quantity.DECK_HEIGHT, HEIGHT_GAUGE.name, ZeroedOn.DATUM, tuple(typed),
                      method="from the line of the mains", ago_h=2)  # fmt: skip


def _route() -> RoutePlay:
    sound = "sound"
    return RoutePlay(
        findings=(
            *found(
                "Tobiah",
                FindingKind.GASKET,
                "fire ring",
                sound,
                sound,
                "carbon passing",
                sound,
                sound,
                "burnt through",
                sound,
                sound,
            ),
            FindingPlay(
                FindingKind.PRIOR_WORK, "Ines", "liner", "shimmed before", None, "shims of three makes under 2, 3 and 7"
            ),
        ),
        looks=(LookPlay(InspectionKind.CORNER, "Tobiah", "radius gauge, all eight", "0.3 mm"),),
        marks=(MarkPlay(Operation.STRIP, "Tobiah", 98, "driver says it pulls to the left when hot"),),
        clocks=(ClockPlay(Operation.STRIP, "Tobiah", 100, 98), ClockPlay(Operation.MEASURE, "Tobiah", 4, 1)),
        waits=(WaitPlay(Operation.DECIDE, WaitCause.CUSTOMER, "number six, or all eight?", "Ines", 2),),
        fitted_with="fitted at the yard by the mill's own crew, before it came to us",
    )


def _flange(bench: Bench, liner: LinerTruth) -> TypedReading:
    inches = bench.read(liner.flange_um, MICROMETER) / INCH_UM
    return TypedReading(Quantity.FLANGE_THICKNESS, "Ines", f"{inches:.4f}", "inch", liner_mark=liner.mark)


def _depth(bench: Bench, number: int, hour: float) -> TypedReading:
    inches = bench.read(HOLES[number - 1].ledge_depth_um(hour), SLED) / INCH_UM
    return TypedReading(Quantity.COUNTERBORE_DEPTH, "Tobiah", f"{inches:.4f}", "inch", number, hour)


def _protrusion(bench: Bench, number: int, hour: float) -> TypedReading:
    thou = bench.read(BLOCK.standing_um(number, hour, True, FITTED[number], None, 0.0), SLED) / THOU_UM
    return TypedReading(Quantity.PROTRUSION, "Tobiah", f"{thou:.1f}", "thou", number, hour)


def _book(typed: str) -> Limit:
    return Limit(Length(typed), BOOK, SourceStatus.SPECIFICATION)


def spec_card() -> SpecCard:
    """Return the card of the Brennock V8: small lengths in thou, sizes in inches."""
    none = Limit(None)
    bank_a, bank_b = (1, 3, 5, 7), (2, 4, 6, 8)
    return SpecCard(
        name="Brennock V8, wet liners",
        engine="Brennock V8",
        unit=CardUnit.INCH,
        construction=Construction.WET_TOP_FLANGE,
        block_material="grey iron",
        liner_material="centrifugally cast iron",
        layout=Layout(
            arrangement=Arrangement.V,
            holes=8,
            heads=((1, 3), (5, 7), (2, 4), (6, 8)),
            numbering="odd numbers on the left bank, even ones on the right, from the front",
            twelve_o_clock="the valley",
            bore_pitch=Length("5.9"),
            bore=Length("4.6"),
            bank_angle_deg=90.0,
            banks=(bank_a, bank_b),
            bank_offset=Length("1.1"),
        ),
        limits=Limits(
            least_without_shim=_book("2.0"),
            greatest_without_shim=_book("5.0"),
            least_with_shim=_book("3.0"),
            greatest_with_shim=_book("5.0"),
            target_with_shim=Limit(Length("4.0"), "middle of the window", SourceStatus.OWN_EXPERIENCE),
            variation_round=_book("1.5"),
            neighbour_difference=_book("2.0"),
            head_average_least=none,
            head_average_greatest=none,
        ),
        seat=Seat(
            flange_nominal=_book("0.3500"),
            counterbore_nominal=_book("0.3465"),
            ledge_at_nominal=_book("0.240"),
            ledge_least=_book("0.205"),
            cleanup_least=Limit(Length("1.0"), "an even witness all round", SourceStatus.COMMON_PRACTICE),
        ),
        measuring=Measuring(
            land=FLAT,
            datum="the clean deck beside the hole",
            between=(),
            hold_down="three clamps and a ring",
            hold_down_torque_nm=60.0,
            required_hours=HOURS,
        ),
        lands=(Land(FLAT, Length("0"), "the whole top of the flange"),),
        shims=tuple(
            ShimSize(Length(size), stock, None) for size, stock in (("4", 3), ("6", 2), ("8", 1), ("10", 2), ("20", 1))
        ),
        cutter=Cutter("portable counterbore cutter", Length("0.8"), Length("1.0"), 5.0),
        currency="",
        features=(FeatureSheet(Quantity.DECK_HEIGHT, _book("12.500"), _book("12.480"), _book("12.505")),),
        acceptance=Acceptance.GUARDED,
        coverage_factor=2.0,
    )
