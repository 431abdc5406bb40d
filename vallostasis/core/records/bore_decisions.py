"""What is decided for each bore, by name, and what was seen of it after it was cut."""

from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from enum import StrEnum
from uuid import UUID


class BoreChoice(StrEnum):
    """What a bore is given."""

    LEAVE = "leave as it is"
    HONE = "hone"
    OVERSIZE = "bore to a step"
    SLEEVE = "sleeve"
    SCRAP = "scrap"


class UseProfile(StrEnum):
    """What the engine is to do: it says how far a concession may go."""

    STOCK = "stock"
    HEAVY = "heavy duty"
    BOOST = "high boost"
    NATURAL = "naturally aspirated"
    SHOW = "show"
    LIGHT = "low duty"


@dataclass(frozen=True, slots=True)
class BoreDecision:
    """What is decided for one hole; the newest one holds.

    ``oversize_um`` is the step on the diameter, ``move_um`` how far the centre is moved towards ``toward_hour`` [h];
    ``concession`` is what is accepted below book, ``use_limit`` what the engine must not be asked for.
    """

    decision_id: UUID
    hole_id: UUID
    choice: BoreChoice
    oversize_um: Decimal | None
    move_um: Decimal | None
    toward_hour: float | None
    reason: str
    concession: str
    profile: UseProfile
    use_limit: str
    decided_at: datetime
    decided_by: str
    event: int


class LookOutcome(StrEnum):
    """What is seen after the cut to the decided step."""

    CLEAN = "bright all round"
    DARK = "a dark patch is left"


@dataclass(frozen=True, slots=True)
class BoreLook:
    """One look at a bore after it was cut to a step: bright all round, or where a patch is left. [µm], [h]"""

    look_id: UUID
    hole_id: UUID
    oversize_um: Decimal
    outcome: LookOutcome
    words: str
    hour: float | None
    from_um: Decimal | None
    looked_at: datetime
    looked_by: str
    event: int
