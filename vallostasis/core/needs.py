"""What a hole needs next: one sentence, one number, one thing to do."""

from dataclasses import dataclass
from enum import StrEnum

from vallostasis.core.records.route_marks import Operation
from vallostasis.core.records.rows import Quantity
from vallostasis.core.trail import Phrase


class Action(StrEnum):
    """What the one button does."""

    NOTHING = "nothing"
    READ = "read"
    READ_DEPTH = "read depth"
    READ_FLANGE = "read flange"
    READ_SURVEY = "read survey"
    FIT = "fit"
    CUT = "cut"
    EXPLAIN = "explain"
    ROUTE = "route"


@dataclass(frozen=True, slots=True)
class Need:
    """The next step for one hole. ``hours`` are the positions to read, in order [h]; a survey is one of a part.

    ``operation`` is None where nothing is needed.
    """

    action: Action
    sentence: Phrase
    detail: Phrase = Phrase("")
    hours: tuple[float, ...] = ()
    liner_mark: str = ""
    quantity: Quantity | None = None
    part: str = ""
    operation: Operation | None = None
