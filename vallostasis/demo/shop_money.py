"""The invented shop's money: what parts cost, what was agreed, ordered and paid, one estimate broken, one job done."""

from dataclasses import dataclass, replace
from decimal import Decimal

from vallostasis.core.records.orders import OrderKind
from vallostasis.core.records.route_marks import Operation
from vallostasis.demo import hill_tractor, winding_engine
from vallostasis.demo.hidden_truth import DemoJob

# Name on a job's list, price of one, days until it comes.
PART_PRICES = (
    ("Gasket set", "86.40", 6),
    ("Liner", "148.00", 35),
    ("Liner seal set", "9.20", 5),
    ("Ring set", "38.50", 14),
    ("Piston and rings", "103.00", 21),
    ("Main and rod shells", "148.00", 9),
    ("Sleeve", "94.00", 12),
    ("Shim", "24.50", 6),
    ("Honing stones, rough and fine", "42.00", 7),
    ("Cutter bit", "18.60", 4),
    ("Boring inserts", "21.50", 4),
    ("Retaining compound", "12.40", 3),
)
TAX = Decimal(20)


@dataclass(frozen=True, slots=True)
class AgreedPlay:
    """An estimate as the job drafted it, agreed by whom and how, and parts paid for since: words of its line, money."""

    number: str
    said: str
    way: str
    paid: tuple[tuple[str, str], ...] = ()
    declined: tuple[tuple[str, str], ...] = ()


@dataclass(frozen=True, slots=True)
class OrderPlay:
    """An order: what, from whom, due in so many days; what became of it."""

    number: str
    kind: OrderKind
    what: str
    whom: str
    due_in: int
    words: str = ""
    price: str = ""
    wanted: str = ""
    within: str = ""
    measured: str = ""


AGREED = (
    AgreedPlay("26-031", "Osker Dray, ferry master", "by phone", (("Gasket set", "81.90"), ("Cutter bit", "18.60")),
               (("another block", "three weeks off the water, and dearer than six counterbores"),)),
    AgreedPlay("26-049", "Canalside Fire Brigade", "in writing", (("Gasket set", "86.40"),)),
)  # fmt: skip
ORDERS = (
    OrderPlay("26-066", OrderKind.PART, "Gasket set", "Tarn Motors", 5, price="86.40"),
    OrderPlay("26-031", OrderKind.LOAN, "Bridge with a longer foot", "Tarn Motors", 9, "no rust, foot lapped"),
    OrderPlay("26-049", OrderKind.OUTSIDE, "Head faced", "Kirkmoor Grinding", -2, "0.1 mm off at most",
              wanted="118.40 mm", within="0.05 mm", measured="118.37 mm"),
    OrderPlay("26-066", OrderKind.MADE, "Piston rings, cast and turned to size", "Hallam Foundry", 40,
              "gap 0.4 to 0.6 mm in the bore", wanted="102.62 mm", within="0.05 mm"),
)  # fmt: skip

BROKEN_NUMBER, DONE_NUMBER = "26-066", "26-058"


def broken_job() -> DemoJob:
    """Return the sister of the hill tractor: a third bore that will not clean up at the first step."""
    return replace(hill_tractor.demo_job(), number=BROKEN_NUMBER, name="Hill Tractor Sedge", customer="Jorun Aske",
                   complaint="Smokes, and oil in the coolant.", serial="TF-3402")  # fmt: skip


def done_job() -> DemoJob:
    """Return a small engine that went home: bored, washed, proved, released."""
    return replace(winding_engine.demo_job(), number=DONE_NUMBER, name="Winding Engine Hob", customer="Slate trust",
                   complaint="Blows past the piston.", serial="WH-118")  # fmt: skip


# Hours of the job that went home, operation by operation; the estimate stood above all of them.
DONE_HOURS = (
    (Operation.TAKE_IN, "Ines", 0.5),
    (Operation.STRIP, "Wren", 1.25),
    (Operation.MEASURE, "Tobiah", 2.0),
    (Operation.BORE, "Tobiah", 1.5),
    (Operation.WASH, "Wren", 1.5),
    (Operation.PROVE, "Ines", 0.75),
)
