"""Ferry Lanthorn: a harbour ferry's six-cylinder engine that loses coolant at number five.

Everything here is invented. What is typed comes from a hidden truth (ledges, flanges) plus gauge
noise from a fixed seed. The deliberate mistake: the flange of L2 was measured over its lip and
written down as the flat land.
"""

import random
from dataclasses import dataclass, field
from math import cos, radians, sin

from vallostasis.core.measuring.clock import angle_of_hour
from vallostasis.core.measuring.decision import Acceptance
from vallostasis.core.records import Quantity
from vallostasis.core.spec_card import (
    Arrangement,
    CardUnit,
    Construction,
    Cutter,
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

SEED = 26031
PEOPLE = ("Wren", "Tobiah", "Ines")
JOB_NUMBER = "26-031"
JOB_NAME = "Ferry Lanthorn"
CUSTOMER = "Basin Ferry Trust"
COMPLAINT = "Loses coolant from between head and block at number five, worse when hot."
SERIAL = "FW6-0418-P"
FLAT, LIP = "flat land", "lip"
HOURS = (12.0, 3.0, 6.0, 9.0)
BOOK = "Fennick 6W workshop book, 3rd edition, page 41"


@dataclass(frozen=True, slots=True)
class GaugeTruth:
    """A gauge of the shop as entered; noise is its repeatability. [µm]"""

    name: str
    kind: str
    resolution_um: float
    repeatability_um: float
    tip: str
    note: str = ""


GAUGES = (
    GaugeTruth("Depth sled 2", "depth gauge", 2, 2.5, "fine, radius 0.4 mm", "on a 160 mm sled, zeroed on the deck"),
    GaugeTruth("Old depth dial", "depth gauge", 25.4, 10, "blunt, radius 3 mm", "rides on a lip first"),
    GaugeTruth("Bench micrometer", "micrometer", 1, 1.5, "flat 6 mm", "checked on its 25 mm setting rod"),
)


@dataclass(frozen=True, slots=True)
class HoleTruth:
    """Hidden truth of a hole: mean ledge depth and its tilt towards 12 h and 3 h. [µm]"""

    depth_um: float
    deeper_at_6h_um: float = 0.0
    deeper_at_3h_um: float = 0.0


@dataclass(frozen=True, slots=True)
class LinerTruth:
    """Hidden truth of a liner: flange thickness at the flat land, height of its lip. [µm]"""

    mark: str
    make: str
    batch: str
    flange_um: float
    lip_um: float = 0.0
    measured_over_lip: bool = False
    measured: bool = True


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
# The stop of the shop's cutter leaves the ledge a little high. [µm]
CUT_SHORT_UM = -3.0
TALKING_GAUGE = GAUGES[0].name
GAUGE_LINE_PATTERN = "{value} {unit}"
DONE_STAGES = ("Take in", "Strip & measure", "Decide", "Prepare")


@dataclass(frozen=True, slots=True)
class TypedReading:
    """One reading as it was typed: where, by whom, in which words."""

    quantity: Quantity
    by: str
    text: str
    hole: int | None = None
    hour: float | None = None
    liner_mark: str = ""
    corrects: bool = False


@dataclass
class _Bench:
    """People reading gauges: truth plus noise, rounded to the graduation."""

    noise: random.Random = field(default_factory=lambda: random.Random(SEED))

    def read(self, truth_um: float, gauge: GaugeTruth) -> float:
        value = truth_um + self.noise.gauss(0, gauge.repeatability_um * 0.8)
        return round(value / gauge.resolution_um) * gauge.resolution_um


def ledge_depth_um(hole: HoleTruth, hour: float) -> float:
    """True depth of a ledge at a clock position. [µm]"""
    theta = radians(angle_of_hour(hour))
    # 6 h lies at 270°, 3 h at 180° from the front.
    return hole.depth_um - hole.deeper_at_6h_um * sin(theta) - hole.deeper_at_3h_um * cos(theta)


def standing_truth_um(
    hole: int, hour: float, protrusion: bool, liner: str, cut_um: float | None, shim_um: float
) -> float:
    """What a perfect gauge would read: on the block as found, or on a ledge cut flat since. [µm]"""
    truth = HOLES[(hole - 1) % len(HOLES)]
    depth = ledge_depth_um(truth, hour) if cut_um is None else cut_um + CUT_SHORT_UM
    if not protrusion:
        return depth
    flange = next((one.flange_um for one in LINERS if one.mark == liner), LINERS[0].flange_um)
    return flange + shim_um - depth


def readings_typed() -> list[TypedReading]:
    """Everything that was read up to now, in the order in which it was typed."""
    bench = _Bench()
    sled, micrometer = GAUGES[0], GAUGES[2]
    typed = [_flange(bench, liner, micrometer) for liner in LINERS if liner.measured]
    for number, hole in enumerate(HOLES, start=1):
        for hour in HOURS:
            depth = bench.read(ledge_depth_um(hole, hour), sled)
            typed.append(TypedReading(Quantity.COUNTERBORE_DEPTH, "Tobiah", f"{depth / 1000:.3f}", number, hour))
    liners = {liner.mark: liner for liner in LINERS}
    for number, hole in enumerate(HOLES, start=1):
        for hour in HOURS:
            truth = liners[FITTED[number]].flange_um - ledge_depth_um(hole, hour)
            typed.append(_protrusion(bench, number, hour, truth, sled))
    slip = next(i for i, one in enumerate(typed) if one.hole == 4 and one.hour == 3 and "thou" in one.text)
    return [*typed[:slip], _with_lost_digit(typed[slip]), _as_correction(typed[slip]), *typed[slip + 1 :]]


def _flange(bench: _Bench, liner: LinerTruth, micrometer: GaugeTruth) -> TypedReading:
    over = liner.lip_um if liner.measured_over_lip else 0.0
    thickness = bench.read(liner.flange_um + over, micrometer)
    return TypedReading(Quantity.FLANGE_THICKNESS, "Ines", f"{thickness / 1000:.3f}", liner_mark=liner.mark)


def _protrusion(bench: _Bench, number: int, hour: float, truth_um: float, sled: GaugeTruth) -> TypedReading:
    value = bench.read(truth_um, sled)
    # Wren thinks in hundredths of a millimetre, Tobiah calls thou.
    if number == 4:
        return TypedReading(Quantity.PROTRUSION, "Tobiah", f"{value / 25.4:.1f} thou", number, hour)
    return TypedReading(Quantity.PROTRUSION, "Wren", f"{value / 10:.1f}", number, hour)


def _with_lost_digit(reading: TypedReading) -> TypedReading:
    """Return what was typed first: the whole number was lost."""
    return TypedReading(reading.quantity, reading.by, "2.1 thou", reading.hole, reading.hour)


def _as_correction(reading: TypedReading) -> TypedReading:
    return TypedReading(reading.quantity, reading.by, reading.text, reading.hole, reading.hour, corrects=True)


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
        cutter=Cutter("portable counterbore cutter", Length("0.020"), Length("0.025"), 5.0),
        currency="",
        acceptance=Acceptance.GUARDED,
        coverage_factor=2.0,
    )  # fmt: skip
