"""The invented shop's time: hours, absences, what was promised to whom, what came when. Days count from today."""

from dataclasses import dataclass
from datetime import time

from vallostasis.core.records.calendar import Machine
from vallostasis.core.records.route_marks import Bill, Operation, WaitCause

ZONE = "Europe/London"


@dataclass(frozen=True, slots=True)
class PromisePlay:
    """A job promised for so many open days from now; the owner's own last day, what a day after it costs him."""

    number: str
    in_days: int
    told: str
    by: str = "Ines"
    last_in_days: int | None = None
    day_cost: str = ""


@dataclass(frozen=True, slots=True)
class WorkPlay:
    """Somebody at work on an operation, so many open days ago, from an hour on, for so long. [h]"""

    number: str
    operation: Operation
    by: str
    days_ago: int
    at: time
    hours: float
    bill: Bill = Bill.AGREED


@dataclass(frozen=True, slots=True)
class MovedPlay:
    """What is waited for, since so many days, was expected in so many open days and comes in so many."""

    number: str
    operation: Operation
    cause: WaitCause
    words: str
    by: str
    since_days: int
    expected_in: int
    comes_in: int | None = None
    because: str = ""


@dataclass(frozen=True, slots=True)
class AwayPlay:
    """Somebody or something that cannot be had for so many open days from a day on."""

    what: str
    in_days: int
    days: int
    words: str


PROMISES = (
    PromisePlay("26-031", 4, "Basin Ferry Trust, by telephone", last_in_days=6, day_cost="240"),
    PromisePlay("26-044", 6, "told at the counter"),
    PromisePlay("26-049", 9, "Canalside Fire Brigade, in writing"),
    PromisePlay("26-057", 13, "told that pistons may be late"),
    PromisePlay("26-071", 3, "mine museum, before the open day", last_in_days=10),
    PromisePlay("26-063", 18, "nothing before the pistons are here", "Wren"),
)
WORK = (
    WorkPlay("26-031", Operation.TAKE_IN, "Ines", 6, time(8, 30), 0.6),
    WorkPlay("26-044", Operation.TAKE_IN, "Ines", 8, time(13, 0), 0.4),
    WorkPlay("26-049", Operation.TAKE_IN, "Ines", 7, time(9, 0), 0.5),
    WorkPlay("26-057", Operation.TAKE_IN, "Ines", 5, time(10, 0), 0.75),
    WorkPlay("26-063", Operation.TAKE_IN, "Wren", 4, time(8, 0), 0.5),
    WorkPlay("26-071", Operation.TAKE_IN, "Ines", 7, time(15, 0), 0.3),
    WorkPlay("26-071", Operation.BORE, "Tobiah", 4, time(9, 0), 4.5),
    WorkPlay("26-039", Operation.TAKE_IN, "Ines", 6, time(13, 30), 0.5),
    WorkPlay("26-039", Operation.CUT, "Wren", 3, time(8, 0), 6.0),
    WorkPlay("26-061", Operation.FIT, "Tobiah", 5, time(13, 0), 1.0),
    WorkPlay("26-061", Operation.HONE, "Tobiah", 2, time(13, 0), 1.25),
)
WAITS = (
    MovedPlay("26-044", Operation.FIT_PREP, WaitCause.PART, "four liners from Aldmoor", "Ines", 12, 2, 7,
              "the foundry has one more heat to pour"),
    MovedPlay("26-063", Operation.BORE, WaitCause.PART, "pistons of the next oversize", "Wren", 3, 14),
)  # fmt: skip
AWAY = (
    AwayPlay("Wren", 4, 1, "cutting at the ferry stage"),
    AwayPlay(Machine.HONE.value, 3, 1, "new stones being bedded in"),
    AwayPlay("", 19, 2, "shut between the years"),
)
