"""Round the whole job: an honest worst case, and what surprises and returns do to it."""

from decimal import Decimal

from vallostasis.core.money.worth import returns_in_price
from vallostasis.core.practice.draws import Draws
from vallostasis.core.practice.exercise import Area, say
from vallostasis.core.practice.pictures import Fact
from vallostasis.core.practice.slips import Asked, Slip, Slips, Wrong, slips_exercise
from vallostasis.core.trail import Step, Term

RATE, TAX = 80, 20
ASK, DO_IT, FREE = (
    "stop, say what it is and what it costs, and ask",
    "do it and put it on the bill",
    "do it for nothing",
)


def draw_estimate(of: Draws) -> Slips:
    """Draw an estimate with its surprises; every usual slip shows by far. [money] House rule."""
    parts, outside = of.whole("parts", 14, 22) * 100, of.whole("outside", 5, 8) * 100
    hours = (of.whole("low", 34, 38), of.whole("high", 46, 52))
    used = of.whole("used", 39, 43)
    net = parts + outside + hours[1] * RATE
    return Slips(
        (_worst_case(parts, outside, hours, net), _surprise(of), _clocks(of), _refund(hours, used), _returns(of))
    )


def _worst_case(parts: int, outside: int, hours: tuple[int, int], net: int) -> Slip:
    gross = net * (100 + TAX) / 100
    facts = (Fact("parts", say(f"{parts}")), Fact("work that goes out", say(f"{outside}")),
             Fact("hours, from to", say(f"{hours[0]} to {hours[1]}")), Fact("an hour", say(f"{RATE}")),
             Fact("tax", say(f"{TAX} %")))  # fmt: skip
    low = (parts + outside + hours[0] * RATE) * (100 + TAX) / 100
    without = (parts + hours[1] * RATE) * (100 + TAX) / 100
    wrong = (Wrong("T27", float(net), say(f"{net} is without its tax: apart, and named.")),
             Wrong("T27", low, say("That is the best case: at most means the high end of the hours.")),
             Wrong("T27", without, say("The parts do not sum: what goes out was left out.")))  # fmt: skip
    step = Step("at most", "(parts + outside + high·rate)·(1 + tax)", (
        Term("parts", parts, "count"), Term("outside", outside, "count"), Term("high", hours[1], "count")),
        Term("at most", gross, "count"), "by definition")  # fmt: skip
    return Slip(say("What is the worst case that he signs, tax and all?"), facts, (
        Asked("worst case", "most", "At most", gross, 5.0, "in all", wrong=wrong),), steps=(step,))  # fmt: skip


def _surprise(of: Draws) -> Slip:
    hole = of.whole("hole", 1, 6)
    facts = (Fact("found", say(f"a crack from bore {hole} to a bolt hole; a sleeve and two days")),
             Fact("agreed", say("the sum of before, at most")))  # fmt: skip
    wrong = (
        Wrong("T27", DO_IT, say("Over what was agreed without a word: the estimate no longer sums to what he signed.")),
        Wrong("", FREE, say("Two days for nothing is not honest either: he has to know what his engine is.")),
    )
    return Slip(
        say("What now?"),
        facts,
        (Asked("surprises", "now", "You", ASK, choices=of.shuffled("ways", (DO_IT, FREE, ASK)), wrong=wrong),),
    )


def _clocks(of: Draws) -> Slip:
    work, wait = of.whole("work", 3, 6), of.whole("wait", 70, 110)
    facts = (Fact("stones ordered, arrived", say(f"after {wait} h")), Fact("at the hone", say(f"{work} h")),
             Fact("the card on the block says", say(f"honing: {work + wait} h")))  # fmt: skip
    wrong = Wrong("T43", float(work + wait), say(f"{wait} h of it were waiting: two clocks, one bill."))
    return Slip(say("How many hours of honing go on the bill?"), facts, (
        Asked("work and waiting", "hours", "Hours", float(work), 0.5, "h", wrong=(wrong,)),))  # fmt: skip


def _refund(hours: tuple[int, int], used: int) -> Slip:
    back = (hours[1] - used) * RATE * (100 + TAX) / 100
    facts = (Fact("hours in the worst case", say(f"{hours[1]}")), Fact("hours used", say(f"{used}")),
             Fact("an hour, and tax", say(f"{RATE}, {TAX} %")))  # fmt: skip
    wrong = (Wrong("T27", (hours[1] - used) * float(RATE), say("He paid tax on those hours too.")),)
    return Slip(say("What does he get back?"), facts, (
        Asked("unused hours", "back", "Back", back, 2.0, "in all", wrong=wrong),))  # fmt: skip


def _returns(of: Draws) -> Slip:
    cost = of.whole("cost", 20, 28) * 100
    worth = returns_in_price(6, 1, Decimal(0), Decimal(cost))
    right = round(float(worth.expected), 1)
    facts = (Fact("exchange builds that stayed away, for each that came back", say("6")),
             Fact("what one that comes back costs", say(f"{cost}")))  # fmt: skip
    wrong = Wrong("T44", round(cost / 6, 1), say("Six stayed away and one came back: one in seven."))
    step = Step(
        "in each price",
        "returned/(good + returned)·cost",
        (Term("good", 6, "count"), Term("back", 1, "count")),
        Term("each", right, "count"),
        "by definition",
    )
    return Slip(say("What must each of the cheap builds carry for the one that comes back?"), facts, (
        Asked("returns", "each", "Each", right, 12.0, "in each", wrong=(wrong,)),), steps=(step,))  # fmt: skip


ESTIMATE = slips_exercise(
    "estimate", Area.WHOLE, "An honest estimate",
    "Build the worst case, meet a surprise, keep two clocks, give back what was not used, and see what a cheap build "
    "costs that comes back one time in seven.", 6, draw_estimate,
)  # fmt: skip
