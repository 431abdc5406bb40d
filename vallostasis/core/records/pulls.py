"""A liner as it is pulled or pressed in: the pull, what was looked at first, every depth, force and feel on the way."""

from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from enum import StrEnum
from uuid import UUID

from vallostasis.core.records.fit_terms import StopRule


class Slides(StrEnum):
    """What a liner slides on."""

    OILED = "oiled"
    DRY = "dry"
    COMPOUND = "compound"


class PullMarkKind(StrEnum):
    """What is written down of a pull. Common practice, no published source."""

    CLEAN = "hole, seat and liner clean"
    SEAT_DRY = "seat and flange dry"
    ON_LINER = "oil or compound on the liner, none in the hole"
    LEAD_IN = "lead-in smooth, no edge"
    FRONT = "mark and front where they belong"
    SQUARE = "pushed in 10 mm, square on two bars"
    CLEAR = "nobody in line with the screw"
    TURN = "one turn"
    DEPTH = "flange to ledge"
    SMOOTH = "smooth"
    POPS = "pops"
    TWISTS = "twists"
    STOPPED = "stopped half-way"
    FREED = "goes on"
    TOUCHES = "touches"
    HELD = "held under load"
    HOME = "home"
    DRAWN = "drawn out again"
    FEELER_NOWHERE = "feeler enters nowhere"
    FEELER_ENTERS = "feeler enters"
    SECOND_STILL = "pressed again, nothing moved"
    SECOND_MOVED = "pressed again, it moved"
    LABELLED = "marked for its hole"


# What is looked at before the first turn, in its order. Common practice, no published source.
FIRST = (PullMarkKind.CLEAN, PullMarkKind.SEAT_DRY, PullMarkKind.ON_LINER, PullMarkKind.LEAD_IN, PullMarkKind.FRONT,
         PullMarkKind.SQUARE, PullMarkKind.CLEAR)  # fmt: skip
# What is looked at once it is home, and what of it needs words. Common practice, no published source.
AFTER = (PullMarkKind.FEELER_NOWHERE, PullMarkKind.FEELER_ENTERS, PullMarkKind.SECOND_STILL, PullMarkKind.SECOND_MOVED,
         PullMarkKind.LABELLED)  # fmt: skip
AGAINST = (PullMarkKind.FEELER_ENTERS, PullMarkKind.SECOND_MOVED)
FEELS = (PullMarkKind.SMOOTH, PullMarkKind.POPS, PullMarkKind.TWISTS)


@dataclass(frozen=True, slots=True)
class Pull:
    """A pull: which liner into which hole, with what tool, by whom, and what is done at the end.

    ``from_um`` is how far the flange stood from its ledge when it began, ``turn_um`` what one turn of the tool takes it
    in [µm], ``capacity_kn`` what the tool gives at the most; two people have two roles.
    """

    pull_id: UUID
    hole_id: UUID
    liner_id: UUID
    tool: str
    capacity_kn: Decimal | None
    turn_um: Decimal | None
    from_um: Decimal
    slides: Slides
    stop: StopRule
    cranks: str
    watches: str
    began_at: datetime
    began_by: str
    event: int


@dataclass(frozen=True, slots=True)
class PullMark:
    """Something looked at, measured or felt on a pull: flange to ledge [µm], force where a gauge shows it [kN]."""

    pull_mark_id: UUID
    pull_id: UUID
    kind: PullMarkKind
    to_go_um: Decimal | None
    force_kn: Decimal | None
    typed: str
    words: str
    noted_at: datetime
    noted_by: str
    event: int


class ToolKind(StrEnum):
    """What gets a liner in."""

    PULLER = "screw puller"
    PRESS = "press"
    JACK = "hydraulic jack"


@dataclass(frozen=True, slots=True)
class PressTool:
    """A puller or press of the shop; the newest row of a name holds. [kN], [µm] a turn"""

    name: str
    kind: ToolKind
    capacity_kn: Decimal
    turn_um: Decimal | None
    force_shown: bool
    note: str
    saved_at: datetime
    saved_by: str
