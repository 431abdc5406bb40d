"""Numbers as they are called over the noise: thou and tenths, sixteenths, mil in both meanings, per side or across."""

from vallostasis.core.practice.draws import NM, Draws
from vallostasis.core.practice.exercise import Area, say
from vallostasis.core.practice.pictures import Fact
from vallostasis.core.practice.slips import Asked, Slip, Slips, Wrong, slips_exercise

THOU, TENTH, INCH, MM = 25_400, 2_540, 25_400_000, 1_000_000
_ONES = ("nought", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve")
_SIXTEENTHS = {1: "a sixteenth", 3: "three sixteenths", 5: "five sixteenths", 7: "seven sixteenths"}


def draw(of: Draws) -> Slips:
    """Draw seven calls, in an order of the seed."""
    calls = (_thou_and_half(of), _tenths(of), _sixteenth(of), _mil_here(of), _mil_there(of), _side(of), _tolerance(of))
    return Slips(of.shuffled("order", calls))


def _call(words: str, from_: str, asked: Asked) -> Slip:
    facts = (Fact("called by", say(from_)),)
    return Slip(say("What was called?"), facts, (asked,), say=words, title="Heard")


def _asked(right_nm: int, at_most_nm: int, *wrong: Wrong, skill: str = "numbers aloud") -> Asked:
    return Asked(skill, "value", "The value", right_nm * NM, at_most_nm * NM, wrong=wrong)


def _thou_and_half(of: Draws) -> Slip:
    n = of.whole("half", 1, 9)
    right = n * THOU + THOU // 2
    wrong = Wrong(
        "T20", (n * 10_000 + 5_000) * NM, say("A thou is a thousandth of an inch, no hundredth of a millimetre.")
    )
    return _call(f"plus {_ONES[n]} and a half thou" if n > 1 else "plus a thou and a half", "the man at the gauge",
                 _asked(right, 300, wrong))  # fmt: skip


def _tenths(of: Draws) -> Slip:
    n = of.whole("tenths", 3, 9)
    wrong = Wrong("T20", n * 100_000 * NM, say("Tenths are tenths of a thou here, not of a millimetre: {v}.",
                                               v=n * TENTH * NM))  # fmt: skip
    return _call(f"{_ONES[n]} tenths", "the man at the gauge, in thou all day", _asked(n * TENTH, 200, wrong))


def _sixteenth(of: Draws) -> Slip:
    n, part = of.whole("inches", 3, 9), of.pick("sixteenth", (1, 3, 5, 7))
    right = n * INCH + part * INCH // 16
    wrong = Wrong("T20", (n + part / 10) * INCH * NM, say("Sixteenths are no tenths of an inch."))
    asked = Asked("numbers aloud", "value", "The value", right * NM, 5e-6, wrong=(wrong,), shown_as="size")
    return _call(f"{_ONES[n]} and {_SIXTEENTHS[part]}", "an old drawing, in inches", asked)


def _mil_here(of: Draws) -> Slip:
    n = of.whole("mil", 2, 9)
    right = n * 100_000
    wrong = Wrong("T23", n * THOU // 10 * NM, say("Over there a mil is a thou; here it is a millimetre. Ask which."))
    return _call(f"point {_ONES[n]} of a mil", "a shop that says mil for millimetre", _asked(right, 500, wrong))


def _mil_there(of: Draws) -> Slip:
    n = of.whole("mils", 2, 9)
    wrong = Wrong("T23", n * MM * NM, say("Here a mil is a thousandth of an inch, no millimetre. Ask which."))
    return _call(f"{_ONES[n]} mils", "a shop that says mil for a thou", _asked(n * THOU, 500, wrong))


def _side(of: Draws) -> Slip:
    n = of.whole("side", 3, 12)
    right = 2 * n * THOU
    wrong = Wrong("T20", n * THOU * NM, say("Said per side, asked across: it counts twice."))
    slip = _call(f"take {_ONES[n]} off the wall", "the man who set the tool",
                 _asked(right, 500, wrong, skill="per side or across"))  # fmt: skip
    return Slip(say("How much does the diameter grow?"), slip.facts, slip.asked, say=slip.say, title="Heard")


def _tolerance(of: Draws) -> Slip:
    n = of.whole("limit", 2, 6)
    right = n * THOU // 2
    wrong = Wrong("T23", n * THOU * NM, say("Half of it was said: a limit that is heard is repeated with its unit."))
    return _call(f"no more than half of {_ONES[n]} thou out of round", "over the telephone",
                 _asked(right, 200, wrong, skill="a limit repeated"))  # fmt: skip


NUMBERS_ALOUD = slips_exercise(
    "numbers-aloud", Area.MEASURE, "Numbers aloud",
    "Seven figures as they are called in a shop: heard where this machine has a voice, else read. Type each with its "
    "unit. Per side or across, tenths, sixteenths, and mil in both its meanings.", 4, draw,
)  # fmt: skip
