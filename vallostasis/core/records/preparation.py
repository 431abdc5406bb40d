"""What is written down as a block is made ready to be cut: steps that are counted, and looks that settle something."""

from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from enum import StrEnum
from uuid import UUID


class PrepKind(StrEnum):
    """A step of making a block ready. Common practice, no published source."""

    SCRAPED = "deck scraped"
    BOLT_HOLES = "bolt holes chased"
    DOWELS = "dowels drawn"
    PLUGS_IN = "plugs in"
    PLUGS_OUT = "plugs out"


@dataclass(frozen=True, slots=True)
class PrepStep:
    """One step: where or with what, and how many; nought where it was looked at and nothing was there."""

    prep_step_id: UUID
    kind: PrepKind
    place: str
    count: int
    words: str
    noted_at: datetime
    noted_by: str
    event: int


class InspectionKind(StrEnum):
    """What is looked at before metal is taken off. Common practice, no published source."""

    CRACK_LEDGE = "crack check of the ledge"
    CRACK_DECK = "crack check of the deck"
    PRESSURE = "pressure test"
    CORNER = "corner of the ledge"


class InspectionOutcome(StrEnum):
    """What a look gave; one that was not taken is waived, by name and reason."""

    SOUND = "sound"
    FAULT = "not sound"
    WAIVED = "waived"


@dataclass(frozen=True, slots=True)
class Inspection:
    """One look at a hole, or at the block or all its holes where none is named; the newest one of its kind holds.

    ``figure_um`` is the corner radius of a ledge, nought where it is undercut. [µm]
    """

    inspection_id: UUID
    kind: InspectionKind
    hole_id: UUID | None
    outcome: InspectionOutcome
    words: str
    figure_um: Decimal | None
    typed: str
    noted_at: datetime
    noted_by: str
    event: int
