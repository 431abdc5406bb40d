"""Plate on, plate off: which of the two is to be round, and what happens if the other one is honed."""

from math import cos, radians

from vallostasis.core.practice.draws import NM, Draws
from vallostasis.core.practice.exercise import Area, say, shown
from vallostasis.core.practice.pictures import Fact, RingCurve, RingPicture
from vallostasis.core.practice.slips import Asked, Slip, Slips, Wrong, slips_exercise
from vallostasis.core.trail import Step, Term

CLAMPED, FREE = "with the plate torqued", "free, plate off"
ROUND = tuple(float(angle) for angle in range(0, 360, 5))
AS_BUILT, OTHER_BOLTS, NO_GASKET, HALF = (
    "studs and gasket as built, at the head's torque", "bolts instead of the studs of the build",
    "without the gasket", "at half of the torque",
)  # fmt: skip


def draw(of: Draws) -> Slips:
    """Draw how a plate distorts a bore: four bolts pull four lobes and an oval. [nm] House rule."""
    oval, axis, four = of.nm("oval", 18, 28), of.whole("axis", 0, 179), of.nm("four", 4, 7)
    pulls = tuple(
        NM * (oval / 2 * cos(2 * radians(angle - axis)) + four / 2 * cos(4 * radians(angle))) for angle in ROUND
    )
    out = max(pulls) - min(pulls)
    return Slips((_which(pulls, out), _honed_free(out), _set_up(of)))


def _ring(title: str, free: tuple[float, ...], clamped: tuple[float, ...]) -> RingPicture:
    return RingPicture(title, (RingCurve(CLAMPED, "yours", clamped), RingCurve(FREE, "soft", free)))


def _which(pulls: tuple[float, ...], out: float) -> Slip:
    nought = (0.0,) * len(pulls)
    wrong = Wrong("T60", FREE, say("Limits of a clamped bore and limits of a free one are never held against each "
                                   "other: what runs is clamped."))  # fmt: skip
    asked = Asked(
        "which is to be round", "which", "It is to be round", CLAMPED, choices=(FREE, CLAMPED), wrong=(wrong,)
    )
    facts = (Fact("honed under a plate, then the plate came off", say("free it reads {o} out of round", o=out)),
             Fact("card, out of round when clamped, at most", shown(8e-6)))  # fmt: skip
    return Slip(say("The same bore twice. Which of the two is to be round?"), facts, (asked,),
                (_ring("One bore, twice", tuple(-one for one in pulls), nought),), title="The map")  # fmt: skip


def _honed_free(out: float) -> Slip:
    wrong = Wrong("T60", 0.0, say("Round when free, it is pulled {o} out of round by the head.", o=out))
    asked = Asked("honed free", "out", "Out of round under the head", out, 3e-6, wrong=(wrong,))
    step = Step("under the head", "free + what the plate pulls", (Term("free", 0.0), Term("pulls", out)),
                Term("out of round", out), "by definition")  # fmt: skip
    facts = (Fact("somebody honed it until it was round with the plate off", shown(0.0)),
             Fact("measured before: free round, the plate pulled it", shown(out)))  # fmt: skip
    return Slip(say("Then the head goes on. How far out of round is it?"), facts, (asked,), steps=(step,),
                title="Honed free")  # fmt: skip


def _set_up(of: Draws) -> Slip:
    facts = (Fact("the build", say("studs, composite gasket, torque and angle by the book")),
             Fact("what the plate is for", say("the bore as the head will pull it")))  # fmt: skip
    ways = of.shuffled("ways", (AS_BUILT, OTHER_BOLTS, NO_GASKET, HALF))
    wrong = tuple(
        Wrong("T53", way, say(f"A plate {way} pulls another shape than the build: fasteners, gasket and torque as "
                              "built."))
        for way in (OTHER_BOLTS, NO_GASKET, HALF)
    )  # fmt: skip
    return Slip(say("How is the plate put on?"), facts, (
        Asked("plate as built", "plate", "The plate goes on", AS_BUILT, choices=ways, wrong=wrong),),
        caution="Bolts under torque let go: stand beside the bar, never in its way.", title="The plate")  # fmt: skip


PLATES = slips_exercise(
    "plate-on-plate-off", Area.BORE, "Plate on, plate off",
    "One bore with its plate torqued and without. Say which of the two is to be round, what comes of honing the other, "
    "and how the plate goes on.", 3, draw,
)  # fmt: skip
