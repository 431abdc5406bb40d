"""Hill Tractor Marram: a four-cylinder tractor engine with parent bores, worn on one side, one of them scored.

Everything here is invented. The rings wore a cone, deepest on the thrust side; bore three has a score that
+20 clears only with its centre moved. The deliberate mistake: one wear step of bore
four was written down on the diameter.
"""

from decimal import Decimal
from math import cos, radians

from vallostasis.core.features.plan import pattern_of
from vallostasis.core.records.route_marks import FindingKind, Operation
from vallostasis.core.records.rows import Place, Quantity, ZeroedOn
from vallostasis.core.records.spec_card import (
    Acceptance,
    Arrangement,
    BoreTerms,
    CardLevel,
    CardUnit,
    Construction,
    Cutter,
    FeatureSheet,
    Judged,
    LadderStep,
    Land,
    Layout,
    Length,
    Limit,
    Limits,
    Measuring,
    Seat,
    SourceStatus,
    SpecCard,
    StepKind,
)
from vallostasis.core.shapes.clock import angle_of_hour
from vallostasis.core.spec_cards.card_lengths import read_typed_card
from vallostasis.demo.hidden_truth import Bench, BlockTruth, DemoJob, GaugeTruth
from vallostasis.demo.route_play import ClockPlay, FindingPlay, MarkPlay, RoutePlay, found
from vallostasis.demo.survey_play import (
    BAR_INDICATOR,
    BORE_GAUGE,
    BORE_RING,
    LONG_MICROMETER,
    WALL_GAUGE,
    SurveyPlay,
    TypedPlace,
    master_um,
)

SEED = 26063
NUMBER = "26-063"
INCH_UM, THOU_UM = 25400.0, 25.4
BOOK = "Tarrick Four workshop handbook, 1951, page 22"
HOLES = (1, 2, 3, 4)
LEVELS = (("unworn band", "0.4"), ("top of travel", "0.9"), ("upper travel", "1.6"), ("middle", "2.6"),
          ("lower travel", "3.8"), ("end of travel", "5.0"), ("below the rings", "6.4"))  # fmt: skip
RING_TOP, RING_BOTTOM = "0.62", "5.3"
HOURS = tuple(float(hour) for hour in (12, *range(1, 12)))
EIGHT = (12.0, 1.5, 3.0, 4.5, 6.0, 7.5, 9.0, 10.5)
AXES = (0.0, 30.0, 60.0, 90.0, 120.0, 150.0)
# Wear a side at the top of the travel, on the thrust side at 6 h and opposite to it. [thou]
WEAR = {1: (4.7, 3.4), 2: (5.7, 4.1), 3: (7.0, 3.2), 4: (5.5, 3.7)}
UNWORN_UM = 3.7501 * INCH_UM
CLAMPED = "torque plate on, gasket in; main caps torqued"
FREE = "free, no plate; main caps torqued"
STUDS = "head studs of the engine"
BAND_UM = 0.4 * INCH_UM
THRUST = radians(angle_of_hour(6.0))


def cone(depth_um: float) -> float:
    """How much of the wear at the top of the travel is there at a depth. [1]"""
    inch = depth_um / INCH_UM
    if inch < float(RING_TOP) or inch > 5.5:
        return 0.0
    return max(0.1, 1.0 - 0.42 * (inch - 0.9) + 0.048 * (inch - 0.9) ** 2) if inch > 0.9 else 1.0


def clamped_um(depth_um: float, axis_rad: float) -> float:
    """What plate and studs do to a diameter: they close it in at the top and pull it to four lobes. [µm]"""
    fades = max(0.0, 1 - depth_um / (3.4 * INCH_UM)) ** 2
    return (
        THOU_UM * fades * (-0.35 + 0.55 * cos(4 * (axis_rad - radians(45))) + 0.3 * cos(2 * (axis_rad - radians(10))))
    )


def wear_um(hole: int, depth_um: float, angle_rad: float) -> float:
    """How deep the wall lies below the unworn band. [µm]"""
    thrust, opposite = WEAR[hole]
    share = ((1 + cos(angle_rad - THRUST)) / 2) ** 2
    return cone(depth_um) * (opposite + (thrust - opposite) * share) * THOU_UM


def truth_um(quantity: Quantity, part: str, place: Place) -> float | None:
    """What a perfect gauge at 20 °C would find; None for what this engine does not have. [µm]"""
    hole, depth = int(part[-1]), float(place.level_um or 0)
    if quantity is Quantity.BLOCK_BORE:
        axis = radians(place.axis_deg or 0)
        return UNWORN_UM + wear_um(hole, depth, axis) + wear_um(hole, depth, axis + radians(180))
    angle = radians(angle_of_hour(place.hour)) if place.hour is not None else 0.0
    if quantity is Quantity.WEAR_STEP:
        return wear_um(hole, depth, angle)
    if quantity is Quantity.WALL_THICKNESS:
        # The core had shifted towards the front when this block was cast.
        return (0.236 - 0.018 * cos(angle) - 0.004 * cos(2 * angle)) * INCH_UM - wear_um(hole, depth, angle)
    if quantity is Quantity.PISTON_SKIRT:
        return 3.7660 * INCH_UM - (1.2 * THOU_UM if place.axis_deg == 0.0 else 0.0)
    return None


def demo_job() -> DemoJob:
    """Return the job as people recorded it up to now: bores and walls read, nothing decided."""
    return DemoJob(
        number=NUMBER,
        name="Hill Tractor Marram",
        customer="Fellgate Farm",
        complaint="Burns oil, low on compression; number three knocks when it is warm.",
        serial="TF-3311",
        card=spec_card(),
        block=BlockTruth((), (), {}),
        before_fitting=(),
        shims={},
        after_fitting=(),
        surveys=_surveys(Bench(SEED)),
        route=_route(),
    )


def _route() -> RoutePlay:
    def wall(word: str, by: str, hole: int, **at: object) -> FindingPlay:
        return FindingPlay(FindingKind.WALL, by, "bore", word, hole, **at)  # type: ignore[arg-type]

    return RoutePlay(
        findings=(
            *found("Wren", FindingKind.CONDITION, "bore", "worn one-sided", "worn one-sided",
                   "score that catches a nail", "worn one-sided"),
            FindingPlay(FindingKind.LEAK_DOWN, "Ines", "cylinder", "past the rings", 3, figure="38 %"),
            wall("score", "Wren", 3, figure="5.8 thou", hour=5.67, from_depth="0.9 in", until_depth="3.2 in",
                 catches=True, width="0.04 in", words="by feeler"),
            wall("pitted area", "Wren", 3, figure="1.5 thou", hour=9.9, until_hour=10.8, from_depth="2.1 in",
                 until_depth="3.0 in", words="dark, dry"),
            wall("scuffed upwards", "Tobiah", 3, hour=11.5, until_hour=0.5, from_depth="1.2 in", until_depth="2.8 in",
                 words="metal dragged"),
            wall("water mark", "Tobiah", 1, hour=3.0, until_hour=4.0, from_depth="3.6 in", until_depth="3.9 in"),
        ),
        marks=(
            MarkPlay(Operation.STRIP, "Wren", 30, "stripped to the bare block"),
            MarkPlay(Operation.CAPS, "Tobiah", 26, "five caps, book torque"),
        ),
        clocks=(ClockPlay(Operation.STRIP, "Wren", 31, 30), ClockPlay(Operation.MEASURE, "Tobiah", 26, 22)),
    )  # fmt: skip


def _surveys(bench: Bench) -> tuple[SurveyPlay, ...]:
    holes = tuple(f"hole-{hole}" for hole in HOLES)
    free = _read(bench, Quantity.BLOCK_BORE, ("hole-3",), BORE_GAUGE, "Tobiah", BORE_RING)
    bores = _read(bench, Quantity.BLOCK_BORE, holes, BORE_GAUGE, "Tobiah", BORE_RING, clamped=True)
    steps = _read(bench, Quantity.WEAR_STEP, holes, BAR_INDICATOR, "Wren", None, clamped=True)
    steps = tuple(_on_the_diameter(one) if _is_the_slip(one) else one for one in steps)
    walls = _read(bench, Quantity.WALL_THICKNESS, holes, WALL_GAUGE, "Ines", None, "mm")
    skirt = _read(bench, Quantity.PISTON_SKIRT, ("piston-3",), LONG_MICROMETER, "Ines", BORE_RING)
    return (
        SurveyPlay(Quantity.BLOCK_BORE, BORE_GAUGE.name, ZeroedOn.MASTER, free, BORE_RING, "20.5", block_c="20.5",
                   load=FREE),
        SurveyPlay(Quantity.BLOCK_BORE, BORE_GAUGE.name, ZeroedOn.MASTER, bores, BORE_RING, "20.5", block_c="20.5",
                   load=CLAMPED, hold_down=STUDS, torque_nm=_NM),
        SurveyPlay(Quantity.WEAR_STEP, BAR_INDICATOR.name, ZeroedOn.DATUM, steps, load=CLAMPED, hold_down=STUDS,
                   torque_nm=_NM, method="indicator on the unworn band"),
        SurveyPlay(Quantity.WALL_THICKNESS, WALL_GAUGE.name, ZeroedOn.DATUM, walls),
        SurveyPlay(Quantity.PISTON_SKIRT, LONG_MICROMETER.name, ZeroedOn.MASTER, skirt, BORE_RING, "20.5",
                   part_c="20.5", load="piston new"),
    )  # fmt: skip


def _read(
    bench: Bench, quantity: Quantity, parts: tuple[str, ...], gauge: GaugeTruth, by: str, master: str | None,
    unit: str = "thou", clamped: bool = False,
) -> tuple[TypedPlace, ...]:  # fmt: skip
    pattern = pattern_of(read_typed_card(spec_card())[0], quantity)[0]
    zero_um = 0.0 if master is None else master_um(master)
    typed = []
    for part in parts:
        for place in pattern.places:
            truth = truth_um(quantity, part, place)
            assert truth is not None
            held = _held_um(quantity, place) if clamped else 0.0
            read = bench.read(truth + held - zero_um, gauge)
            if unit == "mm":
                typed.append(TypedPlace(by, part, place, f"{read / 1000:.3f}", "mm"))
            else:
                typed.append(TypedPlace(by, part, place, f"{read / THOU_UM:{'.1f' if master is None else '+.1f'}}",
                                        "thou"))  # fmt: skip
    return tuple(typed)


def _held_um(quantity: Quantity, place: Place) -> float:
    """What the plate adds to a reading: to a diameter, or to a wear step over what it does to the band itself. [µm]"""
    depth = float(place.level_um or 0)
    if place.hour is None or quantity is not Quantity.WEAR_STEP:
        return clamped_um(depth, radians(place.axis_deg or 0))
    angle = radians(angle_of_hour(place.hour))
    return (clamped_um(depth, angle) - clamped_um(BAND_UM, angle)) / 2


def _is_the_slip(one: TypedPlace) -> bool:
    return one.part == "hole-4" and one.place.hour == 3.0 and one.place.level_um == 1.6 * 25400


def _on_the_diameter(one: TypedPlace) -> TypedPlace:
    return TypedPlace(one.by, one.part, one.place, f"{2 * float(one.text):.1f}", one.bare_unit)


def _book(typed: str) -> Limit:
    return Limit(Length(typed), BOOK, SourceStatus.SPECIFICATION)


def _shop(typed: str, source: str) -> Limit:
    return Limit(Length(typed), source, SourceStatus.COMMON_PRACTICE)


_NM = Decimal(95)


def spec_card() -> SpecCard:
    """Return the card of the Tarrick Four: inches and thou."""
    none = Limit(None)
    levels = tuple(CardLevel(name, Length(depth)) for name, depth in LEVELS)
    return SpecCard(
        name="Tarrick Four, parent bores",
        engine="Tarrick Four",
        unit=CardUnit.INCH,
        construction=Construction.PARENT_BORE,
        block_material="grey iron",
        liner_material="grey iron",
        layout=Layout(Arrangement.IN_LINE, 4, ((1, 2, 3, 4),), "number one at the front, counted back",
                      "the manifold side", Length("4.5"), Length("3.75")),
        limits=Limits(none, none, none, none, none, none, none, none, none),
        seat=Seat(none, none, none, none, none),
        measuring=Measuring("deck", "the clean deck beside the hole", (), "", None, (12.0, 3.0, 6.0, 9.0)),
        lands=(Land("deck", Length("0")),),
        shims=(),
        cutter=Cutter("none", Length("1.0"), Length("1.0")),
        acceptance=Acceptance.GUARDED,
        main_bores=5,
        stroke=_book("4.75"),
        features=(
            FeatureSheet(Quantity.BLOCK_BORE, _book("3.7500"), _book("3.7495"), _book("3.7515"), _book("1.5"),
                         _book("2.0"), levels, AXES),
            FeatureSheet(Quantity.WEAR_STEP, levels=levels[1:6], hours=HOURS),
            FeatureSheet(Quantity.WALL_THICKNESS, least=_shop("0.180", "as this shop leaves tractor blocks"),
                         levels=(levels[2], levels[4]), hours=EIGHT),
            FeatureSheet(Quantity.PISTON_SKIRT, Limit(Length("3.7660"), "as measured on the first piston",
                                                      SourceStatus.OWN_EXPERIENCE),
                         levels=(CardLevel("below the pin", Length("2.0")), CardLevel("bottom", Length("3.1"))),
                         axes_deg=(0.0, 90.0)),
            FeatureSheet(Quantity.PISTON_CLEARANCE, least=_book("2.5"), greatest=_book("4.5")),
        ),
        bores=BoreTerms(
            ring_top=_book(RING_TOP),
            ring_bottom=_book(RING_BOTTOM),
            thrust_hour=6.0,
            judged=Judged.CLAMPED,
            plate_fasteners=STUDS,
            plate_gasket="copper and composition, new",
            plate_torque_nm=95.0,
            hone_stock=_shop("3.0", "left by the bar, on the diameter"),
            centre_move=_shop("5.0", "rod and pin follow so much"),
            wall=_book("0.236"),
            least_wall=_shop("0.180", "as this shop leaves tractor blocks"),
            rebore=_shop("20", "one step of the ladder"),
            ladder=(
                LadderStep(Length("20"), StepKind.ON_SHELF, None, "four pistons with rings"),
                LadderStep(Length("40"), StepKind.TO_ORDER, 3),
                LadderStep(Length("60"), StepKind.TO_ORDER, 5),
                LadderStep(Length("62.5"), StepKind.OLD_BOOK, None, "listed in 1951, to be made"),
            ),
        ),
    )  # fmt: skip
