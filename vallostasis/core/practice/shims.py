"""Shim arithmetic against the clock, and the sums round a counterbore that go wrong by one word."""

from vallostasis.core.practice.draws import NM, Draws
from vallostasis.core.practice.exercise import Area, say, shown
from vallostasis.core.practice.pictures import Fact
from vallostasis.core.practice.slips import Asked, Slip, Slips, Wrong, slips_exercise
from vallostasis.core.trail import Phrase, Step, Term

THOU = 25_400
# Shims come in steps; the thinnest that lets the cut clean the ledge up costs least metal. Common practice.
SHIMS = tuple(thou * THOU for thou in (30, 35, 40, 45))
SECONDS = 300.0


def cut_for(height_nm: int, shim_nm: int, wanted_nm: int) -> int:
    """Return what to cut so that a liner stands so high on its shim. [nm] By definition."""
    return height_nm + shim_nm - wanted_nm


def draw_shims(of: Draws) -> Slips:
    """Draw four holes that start apart by more than three times what would still do. House rule."""
    starts = of.shuffled("starts", (-2, -4, -6, -8))
    first = starts[0]
    return Slips(tuple(_hole(of, at, start, first) for at, start in enumerate(starts, start=1)), SECONDS)


def _hole(of: Draws, hole: int, start: int, first: int) -> Slip:
    height = start * THOU + of.whole(f"more {hole}", -4, 4) * 1_000
    aim = 4 * THOU + 19_000
    worn = of.whole(f"worn {hole}", 16, 32) * THOU
    spacer = of.whole(f"spacer {hole}", 9, 12) * THOU
    shim = next(one for one in SHIMS if cut_for(height, one, aim) >= worn)
    right = cut_for(height, shim, aim)
    facts = (
        Fact("protrusion from the deck, on the spacer plate", shown((height - spacer) * NM)),
        Fact("spacer plate: the card's limits are without it", shown(spacer * NM)),
        Fact("the worn ledge cleans up from", shown(worn * NM)),
        Fact("shims on the shelf", Phrase(", ".join(f"{{s{at}}}" for at in range(len(SHIMS))), tuple(
            Term(f"s{at}", one * NM) for at, one in enumerate(SHIMS)))),
        Fact("to stand proud, on a shim", shown(aim * NM), "truth"),
    )  # fmt: skip
    wrong = [
        Wrong("T33", cut_for(-height, shim, aim) * NM, say("Sunk was taken for proud: say sunk {h}.", h=-height * NM)),
        Wrong(
            "T49",
            cut_for(height - spacer, shim, aim) * NM,
            say("The spacer of {s} belongs to the stack once: it was left out.", s=spacer * NM),
        ),
        Wrong(
            "T1",
            (shim - aim) * NM,
            say("Cut and shim count from where the liner stands now, {h}, not from the deck.", h=height * NM),
        ),
    ]
    if hole > 1:
        same = cut_for(first * THOU, shim, aim)
        wrong.append(Wrong("T25", same * NM, say("The cut of hole 1 does not fit a hole that starts elsewhere.")))
    asked = (
        Asked("cut of each hole", "cut", "Cut", right * NM, 8e-6, wrong=tuple(wrong)),
        Asked("shim of each hole", "shim", "Shim", shim * NM, 5e-6, wrong=_thicker(shim, height, aim)),
    )
    step = Step(f"hole {hole}", "height + shim − proud", (Term("height", height * NM), Term("shim", shim * NM),
                Term("proud", aim * NM)), Term("cut", right * NM), "by definition")  # fmt: skip
    return Slip(say(f"Hole {hole}: which shim, and how deep is it cut?"), facts, asked, steps=(step,),
                title=f"Hole {hole}, cold and held down")  # fmt: skip


def _thicker(shim: int, height: int, aim: int) -> tuple[Wrong, ...]:
    thickest = SHIMS[-1]
    if thickest == shim:
        return ()
    more = cut_for(height, thickest, aim) - cut_for(height, shim, aim)
    return (Wrong("T56", thickest * NM, say("A thicker shim than the ledge needs takes {m} more of it for good.",
                                            m=more * NM)),)  # fmt: skip


SHIM_DRILL = slips_exercise(
    "shim-drill", Area.CUT, "Shims against the clock",
    "Four sunk holes, a shelf of shims, a spacer plate. For each hole the thinnest shim that lets the cut clean the "
    "ledge up, and the cut. Five minutes for all four.", 5, draw_shims,
)  # fmt: skip


def draw_sums(of: Draws) -> Slips:
    """Draw the sums round a deck: targets, skims, stops, levels, feelers, lists, and litres. House rule."""
    return Slips((_target(of), _skim(of), _level(of), _feeler(of), _blade(of), _list(of)))


def _target(of: Draws) -> Slip:
    found, wanted = of.whole("found", 2, 4) * THOU // 2, of.whole("wanted", 7, 10) * THOU // 2
    step = Step("to take", "wanted − found", (Term("wanted", wanted * NM), Term("found", found * NM)),
                Term("more", (wanted - found) * NM), "by definition")  # fmt: skip
    two = 2 * THOU if wanted - found != 2 * THOU else THOU
    wrong = [Wrong("T4", wanted * NM, say("Found and taken add up: there would be {v}, not {w}.",
                                          v=(wanted + found) * NM, w=wanted * NM))]  # fmt: skip
    if abs(wanted - found - two) > 6_000:
        wrong.append(Wrong("T4", two * NM, say("{f} and that are {v}, where {w} is wanted.", f=found * NM,
                                               v=(found + two) * NM, w=wanted * NM)))  # fmt: skip
    facts = (Fact("clearance found", shown(found * NM)), Fact("clearance wanted", shown(wanted * NM)))
    return Slip(say("How much more comes out of the bore?"), facts, (
        Asked("targets", "more", "More on the diameter", (wanted - found) * NM, 1.5e-6, wrong=tuple(wrong)),),
        steps=(step,))  # fmt: skip


def _skim(of: Draws) -> Slip:
    proud, clean = of.whole("proud", 12, 22) * THOU, of.whole("clean", 2, 4) * THOU
    wrong = Wrong("T10", clean * NM, say("The liners stand {p} proud: that comes off before the deck is touched.",
                                         p=proud * NM))  # fmt: skip
    facts = (Fact("liners left proud", shown(proud * NM)), Fact("the deck cleans up at", shown(clean * NM)))
    return Slip(say("The cutter touches the liners first. How far down until liners and deck are one?"), facts, (
        Asked("skims", "skim", "From the first touch", (proud + clean) * NM, 5e-6, wrong=(wrong,)),))  # fmt: skip


def _level(of: Draws) -> Slip:
    out = of.whole("out", 4, 9) * THOU
    facts = (Fact("spirit level across the deck", say("level")),
             Fact("indicator from the main bores to the deck, end to end", shown(out * NM)))  # fmt: skip
    wrong = Wrong("T34", "the spirit level", say("Level is not square to the crank: the deck runs {o} off the mains.",
                                                 o=out * NM))  # fmt: skip
    return Slip(say("The bores are to stand square to the crank. What is the block set up from?"), facts, (
        Asked("datum of a set-up", "datum", "Set up from", "the main bores",
              choices=("the spirit level", "the main bores", "the old deck"), wrong=(wrong,)),))  # fmt: skip


def _feeler(of: Draws) -> Slip:
    blade = of.whole("blade", 2, 3) * THOU
    facts = (Fact("a feeler between the flanges of 2 and 3 shows a step of", say("less than {b}", b=blade * NM)),
             Fact("the block is", say("still hot from the washer, 70 °C")))  # fmt: skip
    wrong = Wrong("T42", "both stand in", say("A step between neighbours is no protrusion, and hot it is no height at "
                                             "all: read both cold, from the deck."))  # fmt: skip
    return Slip(
        say("What do you know of the heights of 2 and 3?"),
        facts,
        (
            Asked(
                "what a feeler says",
                "knows",
                "You know",
                "that they stand alike, no more",
                choices=("both stand in", "that they stand alike, no more", "that one stands out"),
                wrong=(wrong,),
            ),
        ),
    )


def _blade(of: Draws) -> Slip:
    low = of.whole("low", 3, 5)
    facts = (
        Fact("the blade that goes in", shown(low * THOU * NM)),
        Fact("the next blade does not; blades are a thou apart", shown((low + 1) * THOU * NM)),
        Fact("the clearance may be", say("{a} to {b}", a=(low - 1) * THOU * NM, b=(low + 1) * THOU * NM)),
    )
    wrong = Wrong("T59", low * THOU * NM, say("Between two blades lies a thou: what goes in says at least, the next "
                                              "says less than."))  # fmt: skip
    return Slip(say("The most it can be?"), facts, (
        Asked("steps of blades", "most", "At most", (low + 1) * THOU * NM, 1.5e-6, wrong=(wrong,)),))  # fmt: skip


def _list(of: Draws) -> Slip:
    skim = of.whole("skims", 4, 9) * THOU
    stands, greatest = of.whole("stands", 3, 4) * THOU, 6 * THOU
    after = stands + skim
    wrong = Wrong("T48", stands * NM, say("A deck skimmed by {s} leaves every liner that much prouder; injectors, "
                                          "pistons and gaskets hang on it too.", s=skim * NM))  # fmt: skip
    facts = (Fact("the deck alone is skimmed by", shown(skim * NM)), Fact("hole 4 stands proud", shown(stands * NM)),
             Fact("greatest by the card", shown(greatest * NM)))  # fmt: skip
    return Slip(say("Liners are drawn, the deck skimmed, liners back. How proud is hole 4?"), facts, (
        Asked("what hangs on the deck", "proud", "Proud", after * NM, 5e-6, wrong=(wrong,)),))  # fmt: skip


DECK_SUMS = slips_exercise(
    "deck-sums", Area.CUT, "Sums round a deck",
    "Six short sums that go wrong by one word: what is to go, a skim over proud liners, level and square, a feeler "
    "between flanges, a blade's step, what hangs on the deck.", 5, draw_sums,
)  # fmt: skip
