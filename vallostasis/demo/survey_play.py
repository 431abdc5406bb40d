"""Surveys of the invented shop: more gauges, rings to set them on, and readings as they were typed."""

from dataclasses import dataclass
from datetime import date
from decimal import Decimal

from vallostasis.core.notation.lengths import Unit
from vallostasis.core.records.rows import Place, Quantity, ZeroedOn
from vallostasis.demo.hidden_truth import GaugeTruth

CHECKED, DUE = date(2026, 3, 12), date(2099, 3, 12)
BORE_GAUGE = GaugeTruth(
    "Long bore gauge", "bore gauge", 2.54, 1.8, "two-point, round", "rocked through its turning point",
    ("50", "160"), "4", CHECKED, DUE, master="ring set 4",
)  # fmt: skip
OLD_BORE_GAUGE = GaugeTruth(
    "Old bore gauge", "bore gauge", 12.7, 5, "two-point, worn", "half a thou to a division", ("50", "150"), "4",
    date(2018, 9, 4), date(2020, 9, 4), owner="Tobiah", faults="one anvil is worn flat",
)  # fmt: skip
LONG_MICROMETER = GaugeTruth(
    "Long micrometer", "micrometer", 2.54, 2, "flat 8 mm", "set on a rod or over a ring", ("100", "150"), "", CHECKED,
    DUE, master="ring set 4",
)  # fmt: skip
INDICATOR = GaugeTruth(
    "Deck indicator", "indicator", 2, 2, "ball 2 mm", "on a foot that slides over the deck", ("-1", "1"), "1", CHECKED,
    DUE, master="gauge block set 1",
)  # fmt: skip
FEELER = GaugeTruth("Feeler blades", "feeler", 12.7, 4, "13 mm wide", "steps of half a thou", ("0", "1"), "",
                    CHECKED, DUE)  # fmt: skip
INSIDE_MICROMETER = GaugeTruth(
    "Inside micrometer", "bore gauge, stick", 10, 8, "ball ends", "rods of 200 mm, set between blocks", ("100", "300"),
    "6", CHECKED, DUE, master="gauge block set 1",
)  # fmt: skip
BAR_INDICATOR = GaugeTruth(
    "Bar indicator", "indicator", 2.54, 2.2, "ball 2 mm", "on a bar that turns in the bore, zeroed on the unworn band",
    ("-0.5", "1.5"), "1", CHECKED, DUE, master="gauge block set 1",
)  # fmt: skip
WALL_GAUGE = GaugeTruth("Wall gauge", "ultrasonic gauge", 25.4, 25, "5 MHz, 6 mm", "set on a step of the same iron",
                        ("1.5", "50"), "", CHECKED, DUE)  # fmt: skip
RULE = GaugeTruth("Steel rule", "rule", 500, 300, "end of the rule", "", ("0", "300"))
HEIGHT_GAUGE = GaugeTruth(
    "Height gauge", "height gauge", 10, 8, "ball 3 mm", "on the surface plate, block on its mains' bar", ("0", "600"),
    "", CHECKED, DUE, master="gauge block set 1",
)  # fmt: skip
SURVEY_GAUGES = (
    BORE_GAUGE,
    OLD_BORE_GAUGE,
    LONG_MICROMETER,
    INSIDE_MICROMETER,
    INDICATOR,
    BAR_INDICATOR,
    WALL_GAUGE,
    FEELER,
    RULE,
    HEIGHT_GAUGE,
)


@dataclass(frozen=True, slots=True)
class MasterTruth:
    """A setting ring of the shop as entered."""

    name: str
    size: str
    size_um: float
    expanded: str
    calibrated_on: date = CHECKED
    due_on: date = DUE


SLEEVE_RING, MAIN_RING, BORE_RING = "Ring 5.000", "Ring 2.625", "Ring 3.750"
MASTERS = (
    MasterTruth(MAIN_RING, "2.62503 in", 2.62503 * 25400, "0.8 µm"),
    MasterTruth(BORE_RING, "3.75004 in", 3.75004 * 25400, "0.8 µm"),
    MasterTruth(SLEEVE_RING, "5.00008 in", 5.00008 * 25400, "1.2 µm"),
)


def master_um(name: str) -> float:
    """Size of a ring of the shop. [µm]"""
    return next(one.size_um for one in MASTERS if one.name == name)


@dataclass(frozen=True, slots=True)
class TypedPlace:
    """One reading of a survey as it was typed."""

    by: str
    part: str
    place: Place
    text: str
    bare_unit: Unit
    liner_mark: str = ""


@dataclass(frozen=True, slots=True)
class SurveyPlay:
    """A feature as people read it: how, how warm everything was, every reading, and what the zero showed after.

    One ``before_fitting`` was read while the block was bare, one ``anew`` after something was done to the part.
    """

    quantity: Quantity
    gauge: str
    zeroed_on: ZeroedOn
    readings: tuple[TypedPlace, ...]
    master: str = ""
    master_c: str = ""
    block_c: str = ""
    part_c: str = ""
    load: str = ""
    method: str = ""
    zero_found: str = ""
    ago_h: float = 0.0
    before_fitting: bool = False
    hold_down: str = ""
    torque_nm: Decimal | None = None
    anew: bool = False
