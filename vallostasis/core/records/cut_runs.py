"""A counterbore as it is cut: the run, every pass that was counted, what was looked at and measured on the way."""

from dataclasses import dataclass
from datetime import date, datetime
from decimal import Decimal
from enum import StrEnum
from uuid import UUID


class RunMarkKind(StrEnum):
    """What is written down of a run beside its passes. Common practice, no published source."""

    OIL = "oil drops in the tool"
    BOLTS = "bolts by hand, then torque while turning"
    WITNESS = "even witness all round"
    COLLAR = "collar locked"
    STOP_SET = "stop set"
    TOUCH_OFF = "touched off on the high spot"
    VACUUM = "vacuumed"
    PAUSED = "stopped"
    MEASURED = "measured on the way"
    STOP_REACHED = "stop reached"
    DEBURRED = "burr knocked off"
    WIDTH = "shim lies in the counterbore"
    FINISHED = "finished"
    GIVEN_UP = "given up"


# What is looked at before the first pass, in its order. Common practice, no published source.
CHECKS = (RunMarkKind.OIL, RunMarkKind.BOLTS, RunMarkKind.WITNESS, RunMarkKind.COLLAR, RunMarkKind.STOP_SET,
          RunMarkKind.TOUCH_OFF)  # fmt: skip


@dataclass(frozen=True, slots=True)
class CutRun:
    """A run: what it is to reach, counted from touch-off, in graduations of which cutter. [µm]

    ``start_um`` is the depth of the spot that is touched, as read before.
    """

    run_id: UUID
    hole_id: UUID
    depth_um: Decimal
    start_um: Decimal
    shim_um: Decimal
    graduation_um: Decimal
    cutter: str
    vacuum_every: int
    started_at: datetime
    started_by: str
    event: int


@dataclass(frozen=True, slots=True)
class RunPass:
    """One pass that was ended: its number as named by the tap, and where round the clock it stopped. [h]"""

    pass_id: UUID
    run_id: UUID
    number: int
    stop_hour: float
    noted_at: datetime
    noted_by: str
    event: int


@dataclass(frozen=True, slots=True)
class RunMark:
    """Something looked at, measured or decided on a run; the depth from the deck where it was measured. [µm]"""

    run_mark_id: UUID
    run_id: UUID
    kind: RunMarkKind
    words: str
    depth_um: Decimal | None
    typed: str
    noted_at: datetime
    noted_by: str
    event: int


@dataclass(frozen=True, slots=True)
class Lesson:
    """What a finished run taught, for every job of the shop: passes [1], change and error [µm], times of passes [s]."""

    run_id: UUID
    job: str
    hole: int
    cutter: str
    material: str
    passes: Decimal
    change_um: Decimal
    off_um: Decimal
    pass_s: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class CutterVersion:
    """The card of a counterbore cutter of the shop; the newest version holds. [µm], [N·m]"""

    cutter_id: UUID
    name: str
    version: int
    bit: str
    bit_projection_um: Decimal | None
    oil: str
    collars: str
    stop_set: str
    graduation_um: Decimal
    stop_accuracy_um: Decimal
    graduation_error_percent: Decimal
    torque_nm: Decimal | None
    bore_least_um: Decimal | None
    bore_greatest_um: Decimal | None
    vacuum_every: int
    note: str
    saved_at: datetime
    saved_by: str

    def suits(self, bore_um: Decimal) -> bool:
        """Whether it is made for a bore of that size. [µm] By what its card says."""
        least = self.bore_least_um is None or bore_um >= self.bore_least_um
        return least and (self.bore_greatest_um is None or bore_um <= self.bore_greatest_um)


@dataclass(frozen=True, slots=True)
class CutterService:
    """What was done to a cutter: sharpened, serviced, a part exchanged."""

    cutter_id: UUID
    kind: str
    words: str
    done_on: date
    noted_by: str
