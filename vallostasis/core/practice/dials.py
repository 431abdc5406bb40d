"""Dials to read: divisions in inch or metric, several turns, readings below nought, zeros set on different masters."""

from vallostasis.core.practice.draws import NM, Draws
from vallostasis.core.practice.exercise import Area, say, shown
from vallostasis.core.practice.pictures import DialPicture, Fact
from vallostasis.core.practice.slips import Asked, Slip, Slips, Wrong, slips_exercise
from vallostasis.core.trail import Phrase, Step, Term

# Division, divisions a turn, between numbers, what a number adds, how it is said. House choice of common dials.
DIALS = (
    (25_400, 100, 10, 10, "0.001 in"),
    (12_700, 100, 10, 5, "0.0005 in"),
    (2_540, 100, 10, 10, "0.0001 in"),
    (10_000, 100, 10, 10, "0.01 mm"),
    (1_000, 200, 20, 20, "0.001 mm"),
)
MANY = 5
TIMES = {1: "once", 2: "twice"}
REFERENCES = ("a master ring", "the low limit", "the nominal size")


def draw(of: Draws) -> Slips:
    """Draw five dials, each with a size its zero was set on; a turn, a sign and the reference all matter."""
    return Slips(tuple(_slip(of, at) for at in range(MANY)))


def _slip(of: Draws, at: int) -> Slip:
    division, per_turn, each, step, words = of.pick(f"dial {at}", DIALS)
    turn = division * per_turn
    turns = of.whole(f"turns {at}", 1, 2)
    sign = of.sign(f"sign {at}")
    # Between an eighth and three eighths of a turn: neither its nought nor where both ways read alike.
    part = of.whole(f"part {at}", per_turn // 8, 3 * per_turn // 8)
    reading = sign * (turns * turn + part * division)
    reference = REFERENCES[at % len(REFERENCES)]
    nominal = of.whole(f"size {at}", 60_000_000, 160_000_000, 500_000)
    low = nominal - of.whole(f"low {at}", 20, 40) * 2 * division
    base = low if reference == "the low limit" else nominal
    right = base + reading
    by_eye = division / 2
    facts = (
        Fact("the zero was set on", Phrase(f"{reference}, {{s}}", (Term("s", base * NM, "size"),)), "truth"),
        *((Fact("the nominal size is", shown(nominal * NM, "size")),) if base == low else ()),
        Fact("the long hand has gone past nought", say(f"{TIMES[turns]}, {'forward' if sign > 0 else 'back'}")),
    )  # fmt: skip
    wrong = [
        Wrong("", (base + sign * part * division) * NM, say("The small hand counts whole turns: they were left out.")),
        Wrong("", (base - reading) * NM, say(f"The hand went {'back' if sign < 0 else 'forward'}.")),
    ]  # fmt: skip
    if base == low:
        wrong.append(Wrong("T18", (nominal + reading) * NM,
                           say("So much over the low limit, not over the nominal: they lie {d} apart.",
                               d=(nominal - low) * NM)))  # fmt: skip
    dial = DialPicture(words, division * NM, per_turn, each, step, "each division", reading * NM, inner=True)
    asked = Asked("sizes off dials", "size", "The size", right * NM, by_eye * NM, wrong=tuple(wrong), shown_as="size")
    sums = Step(f"dial {at + 1}", "set + turns + part", (Term("set", base * NM, "size"), Term("reading", reading * NM)),
                Term("size", right * NM, "size"), "by definition")  # fmt: skip
    return Slip(say("What size is it?"), facts, (asked,), (dial,), (sums,), title="What the dial was set on")


READ_DIALS = slips_exercise(
    "read-dials", Area.MEASURE, "Dials to read",
    "Five dials, each set on something else. Say the size, with its unit: whole turns, the way the hand went and what "
    "the zero was set on all count.", 4, draw,
)  # fmt: skip
