"""A liner as it drops hot and cold: what was looked at first, every moment, temperature and feel on the way."""

from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from enum import StrEnum
from uuid import UUID


class HeatMarkKind(StrEnum):
    """What is written down of a run. Common practice, no published source."""

    MARKED = "liner, hole and front marked"
    DRY = "hole, seat and liner clean and dry"
    SOAKED = "block and liner soaked through"
    GUARDED = "gloves and shields on, nobody under the load"
    CLAMP_READY = "clamp within reach"
    OUT = "liner out of the cold"
    BAG_OFF = "bag off"
    WIPED = "wiped and dried"
    GREASED = "compound or grease on"
    OVER = "over the hole, square"
    ENTERS = "enters"
    DROPPED = "dropped"
    PUSHED = "pushed"
    DROVE = "driven"
    STUCK = "stuck"
    FREED = "goes on"
    BACK = "taken back out"
    CLAMPED = "held down"
    RELEASED = "let go"
    BLOCK_READ = "block read"
    LINER_READ = "liner read"
    ROOM_READ = "room read"
    HEIGHT_WARM = "height at once"
    HEIGHT_COLD = "height cold"
    HEIGHT_AGAIN = "height after a second press"


_K = HeatMarkKind
# What is looked at before anything leaves oven or cold, in its order. Common practice, no published source.
READY = (_K.MARKED, _K.DRY, _K.SOAKED, _K.GUARDED, _K.CLAMP_READY)
# How a liner went home, as hands felt it.
FELT = (_K.DROPPED, _K.PUSHED, _K.DROVE)
TEMPERATURES = (_K.BLOCK_READ, _K.LINER_READ, _K.ROOM_READ)
HEIGHTS = (_K.HEIGHT_WARM, _K.HEIGHT_COLD, _K.HEIGHT_AGAIN)
# Steps of the run sheet that may be asked for, in their order, each with its share of the way to the hole: house rule.
STEPS = ((_K.BAG_OFF, 0.30), (_K.WIPED, 0.62), (_K.GREASED, 0.75), (_K.OVER, 0.88), (_K.ENTERS, 1.0))


@dataclass(frozen=True, slots=True)
class HeatRun:
    """A run as it was planned: which liner into which hole, temperatures [°C], clearance wanted [µm], seconds, roles.

    ``enter_s`` counts from leaving the cold, ``home_s`` from entering; ``humidity`` is a share; ``greased`` whether
    compound or grease goes on on the way; ``drops`` carries the liner, ``calls`` calls the clock.
    """

    heat_run_id: UUID
    hole_id: UUID
    liner_id: UUID
    block_c: Decimal
    liner_c: Decimal
    air_c: Decimal
    humidity: Decimal
    wanted_um: Decimal
    enter_s: Decimal
    home_s: Decimal
    block_kg: Decimal
    greased: bool
    drops: str
    calls: str
    began_at: datetime
    began_by: str
    event: int


@dataclass(frozen=True, slots=True)
class HeatMark:
    """Something looked at, done, felt or read on a run: a temperature [°C], a height over the deck [µm] as typed."""

    heat_mark_id: UUID
    heat_run_id: UUID
    kind: HeatMarkKind
    celsius: Decimal | None
    height_um: Decimal | None
    typed: str
    words: str
    noted_at: datetime
    noted_by: str
    event: int

    @property
    def was_taken_by_itself(self) -> bool:
        """Whether a thermometer that talks said it: its name stands in the words, and no step of a person is in it."""
        return self.kind in TEMPERATURES and bool(self.words)
