"""What a card says of how its liners are held: the press wanted, walls, what holds them hot, how they go in."""

from dataclasses import dataclass
from enum import StrEnum

from vallostasis.core.records.limits import NO_LIMIT, Limit


@dataclass(frozen=True, slots=True)
class FitWindow:
    """A press that is wanted, on the diameter: least, what is aimed at, greatest."""

    least: Limit = NO_LIMIT
    aim: Limit = NO_LIMIT
    greatest: Limit = NO_LIMIT


class StopRule(StrEnum):
    """What is done when the flange touches."""

    AT_CONTACT = "stop at contact"
    DWELL = "hold under load"


class Holder(StrEnum):
    """What holds a liner down once its press is gone."""

    UNKNOWN = "not known"
    HEAD = "the head clamps it"
    COMPOUND = "retaining compound"
    NOTHING = "nothing"


class SeatAt(StrEnum):
    """Where a liner stands in its block."""

    TOP = "top flange"
    MIDDLE = "landing part-way"
    BOTTOM = "bottom seat"


@dataclass(frozen=True, slots=True)
class RunningState:
    """How warm block and liner are at a moment of running that the card names. [°C]"""

    name: str
    block_c: float
    liner_c: float


@dataclass(frozen=True, slots=True)
class FitTerms:
    """What a card says of its fits.

    ``boss_outside`` is the outside of the block's wall taken as a ring, ``*_rz`` the roughness of both faces,
    ``lead_in`` how much of the liner's foot is tapered, walls are a side; ``dwell_*`` is the load held when home [kN],
    [min]; ``clamp_kn`` is what the head presses a liner down with and ``clamp_loss_kn`` what of it is lost for every
    hundredth of a mm that the liner grows less than the block [kN], ``drag_kn`` what a piston pulls at it; ``seat`` and
    ``seat_depth`` say where it stands below the deck.
    """

    light: FitWindow = FitWindow()
    firm: FitWindow = FitWindow()
    boss_outside: Limit = NO_LIMIT
    liner_length: Limit = NO_LIMIT
    liner_inside: Limit = NO_LIMIT
    bore_rz: Limit = NO_LIMIT
    liner_rz: Limit = NO_LIMIT
    lead_in: Limit = NO_LIMIT
    least_liner_wall: Limit = NO_LIMIT
    least_boss_wall: Limit = NO_LIMIT
    stop: StopRule = StopRule.AT_CONTACT
    dwell_kn: float | None = None
    dwell_min: float | None = None
    holder: Holder = Holder.UNKNOWN
    clamp_kn: float | None = None
    clamp_loss_kn: float | None = None
    drag_kn: float | None = None
    holding_source: str = ""
    seat: SeatAt = SeatAt.TOP
    seat_depth: Limit = NO_LIMIT
    neighbour_gap: Limit = NO_LIMIT
    running: tuple[RunningState, ...] = ()
    compound: str = ""
    compound_cure_h: float | None = None
    seals: str = ""
