"""What an invented job is made of: hidden truth of holes and liners, gauges with their noise, readings as typed.

Nothing here comes from a real engine. What is typed follows from the truth plus gauge noise from a
fixed seed, rounded to the gauge's graduation.
"""

import random
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date
from math import cos, radians, sin
from typing import TYPE_CHECKING

from vallostasis.core.notation.lengths import Unit
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import SpecCard
from vallostasis.core.shapes.clock import angle_of_hour
from vallostasis.demo.route_play import RoutePlay

if TYPE_CHECKING:
    from vallostasis.demo.survey_play import SurveyPlay

PEOPLE = ("Wren", "Tobiah", "Ines")
# People repeat a little better than the figure the shop gives its gauges.
NOISE_SHARE = 0.8
# The stop of the shop's cutter leaves a ledge a little high. [µm]
CUT_SHORT_UM = -3.0


@dataclass(frozen=True, slots=True)
class GaugeTruth:
    """A gauge of the shop as entered; noise follows from its repeatability. [µm]"""

    name: str
    kind: str
    resolution_um: float
    repeatability_um: float
    tip: str
    note: str = ""
    range_mm: tuple[str, str] = ("", "")
    tip_radius_mm: str = ""
    calibrated_on: date | None = None
    due_on: date | None = None
    owner: str = ""
    master: str = ""
    faults: str = ""


# Due dates lie far ahead, so that the demo looks the same whenever it is loaded.
SLED = GaugeTruth(
    "Depth sled 2", "depth gauge", 2, 2.5, "fine", "on a 160 mm sled, zeroed on the deck", ("-5", "25"), "0.4",
    date(2026, 3, 12), date(2099, 3, 12), master="gauge block set 1",
)  # fmt: skip
OLD_DIAL = GaugeTruth(
    "Old depth dial", "depth gauge", 25.4, 10, "blunt", "rides on a lip first", ("0", "12"), "3",
    date(2019, 5, 2), date(2021, 5, 2), owner="Tobiah", faults="sticks near the end of its travel",
)  # fmt: skip
MICROMETER = GaugeTruth(
    "Bench micrometer", "micrometer", 1, 1.5, "flat 6 mm", "checked on its 25 mm setting rod", ("0", "25"), "",
    date(2026, 3, 12), date(2099, 3, 12), master="gauge block set 1",
)  # fmt: skip
GAUGES = (SLED, OLD_DIAL, MICROMETER)


@dataclass(frozen=True, slots=True)
class HoleTruth:
    """Hidden truth of a hole: mean ledge depth, its tilt towards 6 h and 3 h, true shims under the flange. [µm]"""

    depth_um: float
    deeper_at_6h_um: float = 0.0
    deeper_at_3h_um: float = 0.0
    shim_um: float = 0.0

    def ledge_depth_um(self, hour: float) -> float:
        """True depth of the ledge at a clock position. [µm]"""
        theta = radians(angle_of_hour(hour))
        # 6 h lies at 270°, 3 h at 180° from the front.
        return self.depth_um - self.deeper_at_6h_um * sin(theta) - self.deeper_at_3h_um * cos(theta)


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


@dataclass(frozen=True, slots=True)
class BlockTruth:
    """Hidden truth of a block with the liners of its job, and which liner is in which hole."""

    holes: tuple[HoleTruth, ...]
    liners: tuple[LinerTruth, ...]
    fitted: Mapping[int, str]

    def hole(self, number: int) -> HoleTruth:
        """Truth of a hole; a block with more holes than that repeats them."""
        return self.holes[(number - 1) % len(self.holes)]

    def liner(self, mark: str) -> LinerTruth | None:
        """Truth of a liner by its mark; None for one that was added since."""
        return next((liner for liner in self.liners if liner.mark == mark), None)

    def standing_um(
        self, number: int, hour: float, protrusion: bool, mark: str, cut_um: float | None, shim_um: float
    ) -> float:
        """What a perfect gauge would read: on the block as found, or on a ledge cut flat since. [µm]"""
        hole = self.hole(number)
        depth = hole.ledge_depth_um(hour) if cut_um is None else cut_um + CUT_SHORT_UM
        if not protrusion:
            return depth
        liner = self.liner(mark) or self.liners[0]
        as_found = cut_um is None and self.fitted.get(number) == mark
        return liner.flange_um + (hole.shim_um or shim_um if as_found else shim_um) - depth


@dataclass(frozen=True, slots=True)
class TypedReading:
    """One reading as it was typed: where, by whom, in which words, in which unit where it is bare."""

    quantity: Quantity
    by: str
    text: str
    bare_unit: Unit
    hole: int | None = None
    hour: float | None = None
    liner_mark: str = ""
    corrects: bool = False


@dataclass(frozen=True, slots=True)
class ShimWritten:
    """A shim as it was written down when the liner went in; measured is empty where nobody did."""

    nominal: str
    measured: str = ""


@dataclass(frozen=True, slots=True)
class DemoJob:
    """An invented job as people recorded it up to now: everything read before and after the liners went in."""

    number: str
    name: str
    customer: str
    complaint: str
    serial: str
    card: SpecCard
    block: BlockTruth
    before_fitting: tuple[TypedReading, ...]
    shims: Mapping[int, ShimWritten]
    after_fitting: tuple[TypedReading, ...]
    surveys: "tuple[SurveyPlay, ...]" = ()
    route: RoutePlay = RoutePlay()


class Bench:
    """People reading gauges: truth plus noise, rounded to the graduation."""

    def __init__(self, seed: int) -> None:
        self._noise = random.Random(seed)

    def read(self, truth_um: float, gauge: GaugeTruth) -> float:
        """Read a gauge once. [µm]"""
        value = truth_um + self._noise.gauss(0, gauge.repeatability_um * NOISE_SHARE)
        return round(value / gauge.resolution_um) * gauge.resolution_um
