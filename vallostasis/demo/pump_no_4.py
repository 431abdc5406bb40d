"""Pump No. 4: a fire pump's four-cylinder engine of aluminium, whose wet iron liners are held by a pressed collar.

Everything here is invented. The deliberate mistake: collar one was honed once more after it was read, and nobody read
it since.
"""

from decimal import Decimal
from math import cos, radians

from vallostasis.core.operations import schools
from vallostasis.core.records.conversion_terms import ConversionTerms, GrooveIn, SealRing
from vallostasis.core.records.fit_terms import FitTerms, FitWindow, Holder, RunningState, SeatAt
from vallostasis.core.records.heat_runs import HeatMarkKind as Mark
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
from vallostasis.demo.heat_play import DropMarkPlay, DropPlay
from vallostasis.demo.hidden_truth import Bench, BlockTruth, DemoJob, HoleTruth, LinerTruth
from vallostasis.demo.route_play import (
    ClockPlay,
    FindingPlay,
    MarkPlay,
    RoutePlay,
    SchoolPlay,
    WaitPlay,
    WaiverPlay,
    found,
)
from vallostasis.demo.survey_play import BAR_INDICATOR, BORE_GAUGE, LONG_MICROMETER, SurveyPlay, TypedPlace

SEED = 26049
NUMBER = "26-049"
INCH_UM, THOU_UM = 25400.0, 25.4
DECK_RING = (CardLevel("upper edge", Length("2 mm")), CardLevel("lower edge", Length("8 mm")))
BOOK = "Corvane Four service book, 2nd edition, page 23"
AXES = (0.0, 45.0, 90.0, 135.0)
LEVELS = (("upper collar", "0.4"), ("lower seal land", "5.6"))
COLLAR_UM = 4.5 * INCH_UM
LINERS = tuple(LinerTruth(f"P{number}", "Aldmoor", "A-44", 6350.0) for number in range(1, 5))
BLOCK = BlockTruth(tuple(HoleTruth(6210.0) for _ in range(4)), LINERS, {})
# How much over the nominal of the hole each liner's collar is. [thou]
COLLAR_OVER_THOU = (1.9, 2.0, 1.8, 2.1)
# How far each lower land stands off its collar, and towards which clock position. [thou], [h]
OFF_LINE_THOU = ((0.3, 2.0), (0.4, 7.0), (2.6, 11.0), (0.5, 4.0))
# How much over its pocket each deck ring was turned. [thou]
RING_OVER_THOU = (2.1, 1.9, 2.2)
# How far each collar is from its size as found and after honing. [thou]
AS_FOUND, HONED = (-0.9, -0.7, -0.8, -1.1), (0.4, 0.5, 0.4, -1.1)


def truth_um(number: int, place: Place, honed: bool) -> float:
    """What a perfect gauge at 20 °C would find of a collar. [µm]"""
    off = (HONED if honed else AS_FOUND)[number - 1] * THOU_UM
    oval = 0.12 * THOU_UM * cos(2 * radians((place.axis_deg or 0) - 80))
    return COLLAR_UM + off + oval


def demo_job() -> DemoJob:
    """Return the job as people recorded it up to now."""
    bench = Bench(SEED)
    return DemoJob(
        number=NUMBER,
        name="Pump No. 4",
        customer="Marrowdale Volunteer Fire Company",
        complaint="Coolant in the oil after every drill; one liner could be turned by hand.",
        serial="C4-0733",
        card=spec_card(),
        block=BLOCK,
        before_fitting=(),
        shims={},
        after_fitting=(),
        surveys=(
            _collars(bench, (1, 2, 3, 4), honed=False, ago_h=52),
            _collars(bench, (1, 2, 3), honed=True, ago_h=6),
            _outsides(),
            _registers(),
            _deck_rings(Quantity.INSERT_POCKET),
            _deck_rings(Quantity.INSERT_OUTSIDE),
        ),
        route=_route(),
    )


def _collars(bench: Bench, numbers: tuple[int, ...], *, honed: bool, ago_h: float) -> SurveyPlay:
    typed = []
    for number in numbers:
        for name, depth in LEVELS:
            for axis in AXES:
                place = Place(level_um=Decimal(depth) * 25400, axis_deg=axis)
                off = bench.read(truth_um(number, place, honed) - COLLAR_UM, BORE_GAUGE) / THOU_UM
                typed.append(TypedPlace("Tobiah", f"hole-{number}", place, f"{off:+.1f}", "thou"))
                assert name
    return SurveyPlay(Quantity.BLOCK_BORE, BORE_GAUGE.name, ZeroedOn.NOMINAL, tuple(typed), block_c="20.5",
                      load="main caps torqued", ago_h=ago_h)  # fmt: skip


def _outsides() -> SurveyPlay:
    """The collars of the new liners, each a little different."""
    bench, typed = Bench(SEED + 3), []
    for liner, over in zip(LINERS, COLLAR_OVER_THOU, strict=True):
        for axis in (0.0, 90.0):
            off = bench.read(over * THOU_UM, LONG_MICROMETER) / THOU_UM
            place = Place(level_um=Decimal("0.4") * 25400, axis_deg=axis)
            typed.append(TypedPlace("Ines", f"liner-{liner.mark}", place, f"{off:+.1f}", "thou"))
    return SurveyPlay(Quantity.LINER_OUTSIDE, LONG_MICROMETER.name, ZeroedOn.NOMINAL, tuple(typed), block_c="20.5",
                      ago_h=5)  # fmt: skip


def _registers() -> SurveyPlay:
    """The lower lands swept from a bar in the collars; the third was bored out of line."""
    bench, typed = Bench(SEED + 5), []
    for number, (off, towards) in enumerate(OFF_LINE_THOU, 1):
        for hour in (12.0, 3.0, 6.0, 9.0):
            swept = off * cos(radians(30 * (hour - towards))) * THOU_UM
            typed.append(TypedPlace("Tobiah", f"hole-{number}", Place(hour=hour),
                                    f"{bench.read(swept, BAR_INDICATOR) / THOU_UM:+.1f}", "thou"))  # fmt: skip
    return SurveyPlay(Quantity.REGISTER_LINE, BAR_INDICATOR.name, ZeroedOn.DATUM, tuple(typed), block_c="20.5",
                      ago_h=4.5, method="bar centred in the upper register")  # fmt: skip


def _deck_rings(quantity: Quantity) -> SurveyPlay:
    """Pockets and deck rings of three holes; the fourth ring is still being turned."""
    is_pocket = quantity is Quantity.INSERT_POCKET
    gauge = BORE_GAUGE if is_pocket else LONG_MICROMETER
    bench, typed = Bench(SEED + (7 if is_pocket else 8)), []
    for number, over in enumerate(RING_OVER_THOU, 1):
        for depth in (2000, 8000):
            for axis in (0.0, 90.0):
                off = bench.read(0.0 if is_pocket else over * THOU_UM, gauge) / THOU_UM
                typed.append(TypedPlace("Ines", f"hole-{number}", Place(level_um=Decimal(depth), axis_deg=axis),
                                        f"{off:+.1f}", "thou"))  # fmt: skip
    return SurveyPlay(quantity, gauge.name, ZeroedOn.NOMINAL, tuple(typed), block_c="20.5", ago_h=4)


def _route() -> RoutePlay:
    sound = "sound"
    return RoutePlay(
        schools=(
            SchoolPlay(schools.GETTING_IN, schools.HEAT, "aluminium block: pressed cold it galls", "Ines"),
            SchoolPlay(schools.HEIGHT, schools.LEFT_PROUD, "the book leaves 8 thou and decks it", "Ines"),
            SchoolPlay(schools.SECOND, schools.TWO_PERSONS, "a pump that must start", "Ines"),
        ),
        findings=(
            *found("Wren", FindingKind.CONDITION, "liner", "loose", sound, sound, "corroded"),
            *found("Wren", FindingKind.GASKET, "lower seals", "coolant passing", sound, "hardened", "coolant passing"),
            FindingPlay(FindingKind.LEAK_DOWN, "Tobiah", "cylinder", "into the coolant", 1, figure="38 %"),
            FindingPlay(FindingKind.LEAK_DOWN, "Tobiah", "cylinder", "past the rings", 2, figure="12 %"),
            FindingPlay(FindingKind.LEAK_DOWN, "Tobiah", "cylinder", "past the rings", 3, figure="11 %"),
            FindingPlay(FindingKind.LEAK_DOWN, "Tobiah", "cylinder", "into the coolant", 4, figure="31 %"),
            FindingPlay(FindingKind.STUD_HOLE, "Wren", "stud hole", "through to water, not sealed", 2, figure="42 mm"),
            FindingPlay(FindingKind.RING, "Ines", "top ring", "weak", 1, "as old as the pump", "6.5 mm"),
            FindingPlay(FindingKind.PRIOR_WORK, "Ines", "liner", "bonded or with compound", None,
                        "grey compound on the collars, 1980s by the look of it"),
        ),
        marks=(
            MarkPlay(Operation.STRIP, "Wren", 76, "four liners drawn by hand"),
            MarkPlay(Operation.CAPS, "Tobiah", 54, "all caps, book torque, oiled threads"),
            MarkPlay(Operation.DECIDE, "Ines", 50, "four new liners, agreed with the captain by telephone"),
            MarkPlay(Operation.CLEAN, "Wren", 30, "bolt holes chased, two dowels drawn"),
            *(
                MarkPlay(Operation.HONE_BLOCK, "Tobiah", 9.5 - hole, "220 stones, wet", hole,
                         hold_reason="Ines looked it over at the machine, and did not sign")
                for hole in (1, 2, 3)
            ),
            MarkPlay(Operation.HONE_BLOCK, "Tobiah", 2, "ten strokes more, it felt tight", 1,
                     hold_reason="nobody else was in the shop"),
        ),
        clocks=(
            ClockPlay(Operation.STRIP, "Wren", 78, 76),
            ClockPlay(Operation.MEASURE, "Tobiah", 54, 51.5),
            ClockPlay(Operation.CLEAN, "Wren", 33.5, 30),
            ClockPlay(Operation.HONE_BLOCK, "Tobiah", 9, 6, 1),
            ClockPlay(Operation.HONE_BLOCK, "Tobiah", 0.5, 0, 4),
        ),
        waits=(
            WaitPlay(Operation.ORDER, WaitCause.PART, "four liners from Aldmoor", "Ines", 10, 9, "came a day early"),
            WaitPlay(Operation.HONE, WaitCause.PART, "piston 3: sent back, wrong size", "Ines", 4, 8, hole=3),
            WaitPlay(Operation.HEAT, WaitCause.MACHINE, "oven: Sawmill Hauler is in it", "Tobiah", 1, 3),
        ),
        waivers=(
            WaiverPlay(Quantity.LINER_BORE, ("hole-1", "hole-2", "hole-3", "hole-4"), "old liners go to scrap", "Ines"),
            WaiverPlay(Quantity.DECK_FLATNESS, ("deck",), "it is decked anyway", "Ines"),
            WaiverPlay(Quantity.PROTRUSION, ("hole-1", "hole-2", "hole-3", "hole-4"),
                       "liners were loose: no height as found to speak of", "Ines"),
        ),
    )  # fmt: skip


def _book(typed: str) -> Limit:
    return Limit(Length(typed), BOOK, SourceStatus.SPECIFICATION)


def _conversion() -> ConversionTerms:
    """What closes the open deck: inserts, liners left proud and decked, fire rings."""
    own, practice = SourceStatus.OWN_EXPERIENCE, SourceStatus.COMMON_PRACTICE
    drawn = "our drawing of the deck ring, sheet 2"

    def ours(typed: str) -> Limit:
        return Limit(Length(typed), drawn, own)

    def seal(name: str, material: str, warmest: float) -> SealRing:
        return SealRing(name, GrooveIn.LINER, Length("4.296"), Length("0.185"), Length("4.234"), Length("0.139"),
                        material, -25.0, warmest, "rubber grease")  # fmt: skip

    return ConversionTerms(
        proud_least=_book("7"), proud_greatest=_book("9"), clean_up=Limit(Length("4"), "as decks come", practice),
        upper_register=_book("0.4"), lower_register=_book("5.6"), register_length=_book("0.6"), off_line=_book("1.5"),
        insert_press=FitWindow(ours("1.0"), ours("2.0"), ours("3.0")), insert_inside=ours("4.560"),
        rod_length=_book("7.000"), rod_width=_book("1.10"), big_end=_book("3.10"), crank_depth=_book("10.600"),
        crank_offset=_book("0.200"), offset_hour=12.0,
        rod_clear=Limit(Length("0.060"), "as rods are cleared", practice),
        fire_ring=_book("55"), gasket_clamped=_book("45"), head_groove=_book("4"), crush_least=_book("4"),
        crush_greatest=_book("8"), studs=10, stud_kn=38.0, stud_diameter=_book("0.440"), stud_length=_book("5.60"),
        stud_clamped=_book("4.20"), stud_thread=_book("0.88"),
        seals=(seal("upper, red", "silicone", 200.0), seal("lower, black", "nitrile", 110.0)),
    )  # fmt: skip


def spec_card() -> SpecCard:
    """Return the card of the Corvane Four: inches and thou."""
    none = Limit(None)
    practice = SourceStatus.COMMON_PRACTICE
    return SpecCard(
        name="Corvane Four, wet liners in aluminium",
        engine="Corvane Four",
        unit=CardUnit.INCH,
        construction=Construction.WET_BOTTOM_SEAT,
        block_material="cast aluminium",
        liner_material="cast iron",
        layout=Layout(Arrangement.IN_LINE, 4, ((1, 2, 3, 4),), "number one at the front, counted back",
                      "the exhaust side", Length("4.9"), Length("4.000")),
        limits=Limits(_book("-0.5"), _book("0.5"), none, none, none, _book("1.0"), _book("1.0"), none, none),
        seat=Seat(none, none, none, none, none),
        measuring=Measuring("flat top", "the clean deck beside the hole", (), "bar across the liner", None,
                            (12.0, 3.0, 6.0, 9.0)),
        lands=(Land("flat top", Length("0"), "the whole top of the liner"),),
        shims=(),
        cutter=Cutter("none", Length("1.0"), Length("1.0"), 5.0),
        acceptance=Acceptance.SIMPLE,
        main_bores=5,
        features=(
            FeatureSheet(Quantity.BLOCK_BORE, _book("4.5000"), _book("4.4997"), _book("4.5012"),
                         Limit(Length("1.0"), "as collars are honed", practice),
                         levels=tuple(CardLevel(name, Length(depth)) for name, depth in LEVELS), axes_deg=AXES),
            FeatureSheet(Quantity.LINER_OUTSIDE, _book("4.5000"), levels=(CardLevel("upper collar", Length("0.4")),),
                         axes_deg=(0.0, 90.0)),
            FeatureSheet(Quantity.LINER_BORE, _book("4.0000"), _book("3.9995"), _book("4.0010"), _book("1.0"),
                         _book("1.0")),
            FeatureSheet(Quantity.DECK_FLATNESS, greatest=_book("2.0")),
            FeatureSheet(Quantity.REGISTER_LINE, hours=(12.0, 3.0, 6.0, 9.0)),
            FeatureSheet(Quantity.INSERT_POCKET, _book("4.7800"), levels=DECK_RING, axes_deg=(0.0, 90.0)),
            FeatureSheet(Quantity.INSERT_OUTSIDE, _book("4.7800"), levels=DECK_RING, axes_deg=(0.0, 90.0)),
        ),
        fits=FitTerms(
            firm=FitWindow(_book("0.5"), _book("1.5"), _book("2.0")),
            liner_length=_book("7.4"),
            boss_outside=Limit(Length("4.88"), "half-way to the next collar", SourceStatus.OWN_EXPERIENCE),
            liner_inside=_book("4.000"),
            holder=Holder.HEAD,
            clamp_kn=21.0,
            clamp_loss_kn=0.9,
            drag_kn=1.4,
            holding_source=BOOK,
            seat=SeatAt.MIDDLE,
            seat_depth=_book("2.36"),
            running=(RunningState("warming, 3 min", 40, 75), RunningState("full load", 95, 130),
                     RunningState("just stopped", 100, 100)),
            compound="none: the book fits them dry",
            seals="two lower rings, the black one below, rubber grease",
        ),
        stroke=_book("4.25"),
        conversion=_conversion(),
    )  # fmt: skip


def drops() -> tuple[DropPlay, ...]:
    """The second liner went in and needed a push: a cold block, late, let go too early. The third is ready."""
    first = (
        (-12.0, Mark.BLOCK_READ, "74.6"), (-10.0, Mark.LINER_READ, "-16.1"), (0.0, Mark.OUT, ""),
        (5.0, Mark.BLOCK_READ, "74.3"), (6.0, Mark.LINER_READ, "-15.4"), (16.0, Mark.BAG_OFF, ""),
        (20.0, Mark.LINER_READ, "-13.4"), (34.0, Mark.WIPED, ""), (39.0, Mark.GREASED, ""), (46.0, Mark.OVER, ""),
        (47.0, Mark.BLOCK_READ, "72.9"), (50.0, Mark.ENTERS, ""), (59.0, Mark.PUSHED, ""), (66.0, Mark.CLAMPED, ""),
        (180.0, Mark.HEIGHT_WARM, "2.1"), (1500.0, Mark.BLOCK_READ, "43.5"),
    )  # fmt: skip
    later = (
        DropMarkPlay(1560.0, Mark.RELEASED, words="clamp wanted for the next liner"),
        DropMarkPlay(9000.0, Mark.BLOCK_READ, "23.4"),
        DropMarkPlay(9060.0, Mark.HEIGHT_COLD, "4.4"),
        DropMarkPlay(9200.0, Mark.HEIGHT_AGAIN, "3.5"),
    )
    went = tuple(DropMarkPlay(after_s, kind, read) for after_s, kind, read in first)
    return (
        DropPlay(2, "P2", "Tobiah", "Ines", 80.0, -18.0, 40.0, 5.0, 30.0, 3.0, (*went, *later)),
        DropPlay(3, "P3", "Tobiah", "Ines", 80.0, -18.0, 40.0, 5.0, 30.0, 0.2, ()),
    )
