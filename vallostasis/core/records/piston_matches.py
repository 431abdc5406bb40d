"""Which piston runs in which hole, as it was marked."""

from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum
from uuid import UUID


class PistonRun(StrEnum):
    """Whether a piston has run before."""

    NEW = "new"
    USED = "used"


class PinStyle(StrEnum):
    """How the pin of a piston is held."""

    CLIPS = "held by clips"
    PLUGS = "held by end plugs"
    PRESSED = "pressed in the rod"
    BOLTED = "clamped in the rod"


@dataclass(frozen=True, slots=True)
class PistonMatch:
    """A piston in its hole: the mark on the part, which way it faces, new or used, how its pin is held."""

    match_id: UUID
    hole_id: UUID
    mark: str
    faces: str
    run: PistonRun
    pin: PinStyle
    words: str
    matched_at: datetime
    matched_by: str
    event: int
