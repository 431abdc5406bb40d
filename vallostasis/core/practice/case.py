"""An invented case in full: the same readings in the same order, a decision at each fork, then what the sums say.

A block comes in for one low hole. Its flanges were measured over a lip, its heights read on the flat outside.
"""

from vallostasis.core.practice.draws import NM, Draws
from vallostasis.core.practice.exercise import Area, say, shown
from vallostasis.core.practice.pictures import Fact, HolePart, HolesPicture
from vallostasis.core.practice.slips import Asked, Slip, Slips, Wrong, slips_exercise
from vallostasis.core.trail import Step, Term

HOLES = (1, 2, 3, 4, 5, 6)
LEAST, GREATEST = 60_000, 150_000
COMMON, PARTS, CUT = "look for what all readings share", "buy six new liners", "cut and shim the low hole now"
WITH_LINER, WITH_HOLE, WITH_NEITHER = "with the liner", "with the hole", "with neither: it is in the reading"
FINE, OPEN, AGAIN = "near enough: release it", "open until it is confirmed", "skim the deck by the difference"


def draw(of: Draws) -> Slips:
    """Draw six heights, a lip and a low hole; on the flat all but one read in, on the lip two are over. House rule."""
    lip, low = of.nm("lip", 48, 58), of.whole("low", 1, 6)
    over = of.shuffled("over", [hole for hole in HOLES if hole != low])[:2]
    true = {
        hole: of.nm(f"over {hole}", 166, 178) if hole in over else of.nm(f"height {hole}", 128, 134) for hole in HOLES
    }
    true[low] = of.nm("low height", 78, 84)
    read = {hole: true[hole] - lip for hole in HOLES}
    return Slips(
        (
            _complaint(of, low, read),
            _swap(of, low, lip),
            _land(low, read, lip),
            _again(true, read),
            _confirm(of, true),
        ),
        shows_all=True,
    )


def _row(title: str, values: dict[int, int]) -> HolesPicture:
    parts = tuple(HolePart(hole, value * NM, "in" if LEAST <= value <= GREATEST else "out")
                  for hole, value in values.items())  # fmt: skip
    return HolesPicture(title, parts, LEAST * NM, GREATEST * NM)


def _complaint(of: Draws, low: int, read: dict[int, int]) -> Slip:
    facts = (Fact("complaint", say(f"coolant between head and block at number {low}")),
             Fact("read with the blunt tip, outside on the flange", say("{v} at {h}".replace("{h}", str(low)),
                  v=read[low] * NM)),
             Fact("what flange less ledge gave", say("in at every hole")))  # fmt: skip
    wrong = (
        Wrong("T31", PARTS, say("Every part measures right and every hole reads low by the same: no part is bad.")),
        Wrong("T30", CUT, say("Predicted in and read low: until the two agree nothing is cut.")),
    )
    return Slip(say("Flange less ledge says in, the gauge says low. What first?"), facts, (
        Asked("common cause first", "first", "You", COMMON, choices=of.shuffled("ways", (PARTS, CUT, COMMON)),
              wrong=wrong),), (_row("As found", read),))  # fmt: skip


def _swap(of: Draws, low: int, lip: int) -> Slip:
    other = of.pick("other", [hole for hole in HOLES if hole != low])
    noise = of.whole("noise", -2, 2) * 1_000
    facts = (
        Fact(f"liners of {low} and {other} changed places, written down", say("both read again")),
        Fact(f"residual at {low}, before and after", say("{a} and {b}", a=-lip * NM, b=(noise - lip) * NM)),
        Fact(f"residual at {other}, before and after", say("{a} and {b}", a=-lip * NM, b=(-lip - noise) * NM)),
    )
    wrong = (Wrong("T32", WITH_LINER, say("Liner for liner and hole for hole the table says: it went with neither.")),)
    return Slip(say("Read less reckoned stays the same everywhere. What does it go with?"), facts, (
        Asked("reads the swap", "with", "It goes", WITH_NEITHER,
              choices=of.shuffled("goes", (WITH_LINER, WITH_HOLE, WITH_NEITHER)), wrong=wrong),))  # fmt: skip


def _land(low: int, read: dict[int, int], lip: int) -> Slip:
    facts = (Fact("the micrometer that took the flanges", say("stood over the lip")),
             Fact("the lip stands over the flat by", shown(lip * NM)),
             Fact(f"read on the flat at {low}", shown(read[low] * NM)),
             Fact("the card's limits belong to", say("the lip")))  # fmt: skip
    right = (read[low] + lip) * NM
    wrong = (Wrong("T2", read[low] * NM, say("Thickness over the lip, height on the flat: {l} between them.",
                                             l=lip * NM)),)  # fmt: skip
    step = Step(f"height of {low}", "read on the flat + lip", (Term("read", read[low] * NM), Term("lip", lip * NM)),
                Term("height", right), "by definition")  # fmt: skip
    return Slip(say(f"How high does {low} stand on the land that counts?"), facts, (
        Asked("the land that counts", "height", "Height", right, 4e-6, wrong=wrong),), steps=(step,))  # fmt: skip


def _again(true: dict[int, int], read: dict[int, int]) -> Slip:
    out = sum(not LEAST <= value <= GREATEST for value in true.values())
    facts = (Fact("so the low hole is in, on the lip", say("and the other five were in before")),
             Fact("the lip lies over every flat alike", say("it is one make")))  # fmt: skip
    wrong = (Wrong("T3", 0.0, say("Another land opens every verdict again: what was in may be over the greatest.")),)
    return Slip(say("How many of the six are out on the land that counts?"), facts, (
        Asked("every hole again", "out", "Holes out", float(out), 0.4, "holes", wrong=wrong),),
        (_row("On the flat, as read", read),))  # fmt: skip


def _confirm(of: Draws, true: dict[int, int]) -> Slip:
    spoiled = next(hole for hole in HOLES if not LEAST <= true[hole] <= GREATEST)
    facts = (Fact(f"ledge of {spoiled} to be cut, reckoned to bring it", say("into the middle")),
             Fact("after the cut", say("nobody has read it yet")))  # fmt: skip
    wrong = (
        Wrong("T55", FINE, say("Reckoned is not read: it stays open until a gauge on the lip says so.")),
        Wrong("T30", AGAIN, say("A deck skim lifts every hole for good, to cure what was a reading.")),
    )
    return Slip(
        say("What is that hole now?"),
        facts,
        (Asked("open until read", "now", "It is", OPEN, choices=of.shuffled("now", (FINE, AGAIN, OPEN)), wrong=wrong),),
    )


CASE = slips_exercise(
    "case-low-hole", Area.WHOLE, "A case: one hole low",
    "Months of somebody's trouble in five forks: the same readings in the same order. Decide at each; afterwards it "
    "stands there what the sums say.", 6, draw,
)  # fmt: skip
