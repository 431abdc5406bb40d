"""Rock a bore gauge: the size stands where the needle turns back, and the shape asks for axes and levels.

The gauge is set on a ring; its dial shows some value there. A two-point gauge sees an oval and no three lobes; a
three-point gauge sees three lobes and no oval.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from math import cos, radians
from statistics import mean

from vallostasis.core.gauges.turning_point import chord_at_tilt
from vallostasis.core.practice.draws import NM, Draws
from vallostasis.core.practice.exercise import (
    NOTHING,
    Area,
    Exercise,
    Judged,
    Move,
    Offer,
    Position,
    Scored,
    TrapMet,
    choice,
    length,
    number,
    say,
    scored_length,
    scored_word,
    shown,
)
from vallostasis.core.practice.pictures import (
    DialMark,
    DialPicture,
    Line,
    Picture,
    PlotPicture,
    RingCurve,
    RingMark,
    RingPicture,
    RockCurve,
    Spot,
)
from vallostasis.core.shapes.ovality import different_axes, fit_ellipse, share_seen
from vallostasis.core.trail import Phrase, Step, Term

LEVELS = ("top", "middle", "bottom")
AXES = tuple(range(0, 180, 15))
GAUGES = ("two-point", "three-point")
TILT_DEG, TILT_STEP_DEG = 4.0, 0.1
ROUND = tuple(float(angle) for angle in range(0, 360, 5))
# Dials: division, divisions a turn, from number to number, what each number adds, its unit. House choice.
DIALS = (
    (12_700, 40, 2, 1, "thou"),
    (2_540, 100, 10, 10, "tenths"),
    (10_000, 100, 10, 10, "0.01 mm"),
    (5_000, 100, 10, 5, "0.01 mm"),
    (2_000, 100, 10, 20, "µm"),
)
# What would still do: a size read by eye on the coarsest of these dials, and an axis by twelve of them. House rule.
WITHIN_M, WITHIN_DEG = 5e-6, 12.0
YES, NO = "three lobes", "none"


@dataclass(frozen=True, slots=True)
class RockTruth:
    """A bore on a grid of nanometres: its ring, its dial, and what shape it has at each level. [nm], [deg]

    ``mean_nm`` and so on are of the diameter, less the ring; ``lobe_nm`` is the height of three lobes on the radius.
    """

    ring_nm: int
    dial: tuple[int, int, int, int, str]
    zero_nm: int
    mean_nm: tuple[int, ...]
    oval_nm: tuple[int, ...]
    axis_deg: int
    lobe_nm: tuple[int, ...]
    lobe_deg: int
    square_tenths: tuple[int, ...]

    def across(self, gauge: str, level: str, axis_deg: float) -> float:
        """Return the diameter of a place less the ring. [m] An oval by definition; three feet meet three lobes."""
        at = LEVELS.index(level)
        if gauge == "three-point":
            return NM * (self.mean_nm[at] + 2 * self.lobe_nm[at] * cos(3 * radians(axis_deg - self.lobe_deg)))
        return NM * (self.mean_nm[at] + self.oval_nm[at] / 2 * cos(2 * radians(axis_deg - self.axis_deg)))

    def square_deg(self, level: str, axis_deg: int) -> float:
        """Return how the hand holds the gauge when it stands square there. [deg] House rule."""
        many = len(self.square_tenths)
        return self.square_tenths[(LEVELS.index(level) * len(AXES) + AXES.index(axis_deg)) % many] / 10

    def shows(self, gauge: str, level: str, axis_deg: int, tilt_deg: float) -> float:
        """Return what the dial shows at a tilt: chord less ring, and what it shows on the ring. [m] By definition."""
        across = self.ring_nm * NM + self.across(gauge, level, axis_deg)
        tilt = radians(tilt_deg - self.square_deg(level, axis_deg))
        return chord_at_tilt(across, tilt) - self.ring_nm * NM + self.zero_nm * NM

    @property
    def lobed(self) -> str:
        """Whether the middle of the bore has three lobes."""
        return YES if self.lobe_nm[1] else NO


def draw(of: Draws) -> RockTruth:
    """Draw a bore whose oval, taper and lobes all show by more than three times what would still do. House rule."""
    middle = of.nm("middle", -40, 40)
    taper, belly = of.nm("taper", 20, 50), of.nm("belly", -8, 8)
    oval = of.nm("oval", 26, 60)
    lobe = of.nm("lobe", 12, 25) if of.whole("lobed", 0, 1) else 0
    # Off the two axes everybody reads: they see a third of it at most.
    axis = of.pick("quadrant", (0, 90)) + of.whole("axis", 36, 54)
    dial = of.pick("dial", DIALS)
    return RockTruth(
        ring_nm=of.whole("ring", 85_000_000, 130_000_000, 250_000),
        dial=dial,
        zero_nm=of.sign("side") * of.whole("zero", 4, 12) * max(dial[0], 5_000),
        mean_nm=(middle + belly + taper, middle, middle + belly - (taper - taper // 2)),
        oval_nm=(oval + of.nm("more", 0, 10), oval, oval // 2),
        axis_deg=axis,
        lobe_nm=(lobe // 2, lobe, lobe // 2),
        lobe_deg=of.whole("lobe at", 0, 119),
        square_tenths=tuple(of.whole(f"square {at}", -18, 18) for at in range(len(LEVELS) * len(AXES))),
    )


@dataclass(frozen=True, slots=True)
class Taken:
    """A reading: where, and how far from square the gauge stood; what the dial showed, and shows square. [m]"""

    at: int
    gauge: str
    level: str
    axis_deg: int
    tilt_deg: float
    shown_m: float
    square_m: float


def taken(truth: RockTruth, moves: Sequence[Move]) -> Iterator[Taken]:
    """Give every reading of the moves. House rule: taken where the gauge was set last, to a fifth of a division."""
    place: tuple[str, str, int] | None = None
    for at, move in enumerate(moves):
        if move.name == "set":
            place = (move.word("gauge"), move.word("level"), int(move.word("axis")))
        elif move.name == "take" and place is not None:
            tilt = move.number("tilt")
            eye_m = truth.dial[0] * NM / 5
            by_eye = round(truth.shows(*place, tilt) / eye_m) * eye_m
            yield Taken(at, *place, tilt, by_eye, truth.shows(*place, truth.square_deg(*place[1:])))


def position(truth: RockTruth, moves: Sequence[Move]) -> Position:
    """Say what the gauge shows where it stands, and what was read. [m] House rule."""
    if moves and moves[-1].name == "answer":
        return Position(say("Answered."), (), (), ())
    last = next((move for move in reversed(moves) if move.name in ("set", "ring")), None)
    read = list(taken(truth, moves))
    said = tuple(
        say("{gauge}, {level}, {axis}°: the dial showed {v}".replace("{gauge}", one.gauge)
            .replace("{level}", one.level).replace("{axis}", str(one.axis_deg)), v=one.shown_m)
        for one in read
    )  # fmt: skip
    if any(move.name == "ring" for move in moves):
        said = (say("On the ring the dial shows {v}", v=truth.zero_nm * NM), *said)
    text = "Ring {ring}. Set the gauge in the bore, rock it, and take what it shows where the needle turns back."
    head = Phrase(text, (Term("ring", truth.ring_nm * NM, "size"),))
    return Position(head, said, (_dial(truth, last, read),), _offers(last))


def _dial(truth: RockTruth, last: Move | None, read: Sequence[Taken]) -> DialPicture:
    division, per_turn, each, step, unit = truth.dial
    marks: tuple[DialMark, ...] = ()
    if last is None or last.name == "ring":
        title = "the gauge lies on the bench" if last is None else "on the ring"
        value, rock = (0.0 if last is None else truth.zero_nm * NM), None
    else:
        place = (last.word("gauge"), last.word("level"), int(last.word("axis")))
        many = round(2 * TILT_DEG / TILT_STEP_DEG) + 1
        tilts = [-TILT_DEG + at * TILT_STEP_DEG for at in range(many)]
        values = tuple(truth.shows(*place, tilt) for tilt in tilts)
        title, value = f"{place[0]}, {place[1]}, axis {place[2]}°", values[0]
        rock = RockCurve(-TILT_DEG, TILT_STEP_DEG, values)
        marks = tuple(DialMark(one.shown_m, "you", "yours") for one in read
                      if (one.gauge, one.level, one.axis_deg) == place)  # fmt: skip
    return DialPicture(title, division * NM, per_turn, each, step, unit, value, rock=rock, marks=marks)


def _offers(last: Move | None) -> tuple[Offer, ...]:
    most = 1e-3
    place = Offer("set", "Set it there", (
        choice("gauge", "Gauge", GAUGES, "" if last is None or last.name == "ring" else last.word("gauge")),
        choice("level", "Level", LEVELS, "middle" if last is None or last.name == "ring" else last.word("level")),
        choice("axis", "Axis, 0° along the crank", [str(axis) for axis in AXES]),
    ))  # fmt: skip
    answer = Offer("answer", "That is the bore", (
        length("size", "Mean at the middle, less the ring", most),
        length("out of round", "Out of round at the middle, greatest less least", most),
        number("widest", "Widest at the middle", 0, 180, "°"),
        length("taper", "Mean at the top less mean at the bottom", most),
        choice("lobes", "On three points at the middle", (NO, YES)),
    ), last=True,)  # fmt: skip
    ring = Offer("ring", "Look at the ring")
    take = (Offer("take", "Take what it shows", (number("tilt", "Tilt", -TILT_DEG, TILT_DEG, "°"),)),)
    return (*(take if last is not None and last.name == "set" else ()), place, ring, answer)


def judged(truth: RockTruth, moves: Sequence[Move]) -> Judged:
    """Hold the answer against the bore; say where the needle had not turned, and what the axes could not see. [m]

    House rule.
    """
    answer, read = moves[-1], list(taken(truth, moves))
    widest = answer.number("widest")
    turn = abs((widest - truth.axis_deg + 90) % 180 - 90)
    before = [one for one in read if abs(one.shown_m - one.square_m) > WITHIN_M]
    oval_m, taper_m = truth.oval_nm[1] * NM, (truth.mean_nm[0] - truth.mean_nm[2]) * NM
    looked = any(move.name == "ring" for move in moves)
    scored = (
        _turned(read, before),
        scored_word("zero on the ring", "the ring looked at", "yes" if looked else "no", "yes"),
        scored_length("mean size", "mean at the middle, less the ring", answer.number("size"), truth.mean_nm[1] * NM,
                      WITHIN_M),
        scored_length("out of round", "out of round at the middle", answer.number("out of round"), oval_m, WITHIN_M),
        Scored("direction", "widest", shown(widest, "angle"), shown(truth.axis_deg, "angle"), shown(turn, "angle"),
               shown(WITHIN_DEG, "angle"), 10 if turn <= WITHIN_DEG else 0),
        scored_length("taper", "top less bottom", answer.number("taper"), taper_m, WITHIN_M),
        scored_word("three lobes", "on three points at the middle", answer.word("lobes"), truth.lobed),
    )  # fmt: skip
    seen = share_seen((0, 90), truth.axis_deg)
    two = say("Two axes, 0° and 90°, show {seen} of {oval} out of round: they miss {missed}.",
              seen=seen * oval_m, oval=oval_m, missed=(1 - seen) * oval_m)  # fmt: skip
    step = Step("what two axes see", "oval·|cos 2φ|", (Term("oval", oval_m), Term("φ", truth.axis_deg, "angle")),
                Term("seen", seen * oval_m), "an ellipse over its axes, by definition")  # fmt: skip
    head = _head(scored)
    if before:
        one = before[0]
        text = f"You stopped before the needle turned: at {one.axis_deg}° you took {{a}}, it turns back at {{b}}."
        head = say(text, a=one.shown_m, b=one.square_m)
    return Judged(head, scored, tuple(_traps(truth, moves, read, scored)), tuple(_shown_after(truth, read, before)),
                  (step,), (two,))  # fmt: skip


def _head(scored: Sequence[Scored]) -> Phrase:
    missed = [one.name for one in scored if not one.is_full]
    if not missed:
        return say("The bore as it is: size, shape and direction found.")
    return say(f"Not yet sure: {missed[0]}.")


def _turned(read: Sequence[Taken], before: Sequence[Taken]) -> Scored:
    worst = max((abs(one.shown_m - one.square_m) for one in read), default=0.0)
    right = bool(read) and not before
    yours = shown(worst) if read else say("nothing read")
    return Scored("turning point", "farthest from where it turns", yours, shown(0.0), NOTHING,
                  shown(WITHIN_M, "within"), 10 if right else 0)  # fmt: skip


def _traps(truth: RockTruth, moves: Sequence[Move], read: Sequence[Taken], scored: Sequence[Scored],
           ) -> Iterator[TrapMet]:  # fmt: skip
    end = len(moves) - 1
    missed = {one.skill for one in scored if not one.is_full}
    middle = [one.axis_deg for one in read if one.level == "middle" and one.gauge == "two-point"]
    if "zero on the ring" in missed:
        yield TrapMet("T13", end, say("The dial shows {z} on the ring: without a look at it these are differences, "
                                      "no sizes.", z=truth.zero_nm * NM))  # fmt: skip
    if "out of round" in missed and different_axes(middle) < 3:
        yield TrapMet("T38", end, say("Fewer than three axes at the middle: an oval between them is not seen. Read one "
                                      "at 45° as well."))  # fmt: skip
    if "taper" in missed and not {"top", "bottom"} <= {one.level for one in read}:
        yield TrapMet("T36", end, say("A size at one level says nothing of the others: read top, middle and bottom."))
    if "three lobes" in missed and not any(one.gauge == "three-point" for one in read):
        yield TrapMet("T37", end, say("Three lobes read round on two points: turn a three-point gauge round."))


def _shown_after(truth: RockTruth, read: Sequence[Taken], before: Sequence[Taken]) -> Iterator[Picture]:
    if before:
        one = before[0]
        division, per_turn, each, step, unit = truth.dial
        yield DialPicture(
            f"{one.level}, axis {one.axis_deg}°", division * NM, per_turn, each, step, unit, one.shown_m,
            marks=(DialMark(one.square_m, "turns", "truth"), DialMark(one.shown_m, "you", "wrong")),
        )  # fmt: skip
        yield _by_tilt(truth, one)
    zero = truth.zero_nm * NM
    middle = [one for one in read if one.level == "middle" and one.gauge == "two-point"]
    curves = [RingCurve("truth", "truth", tuple(truth.across("two-point", "middle", angle) for angle in ROUND)),
              RingCurve("ring", "limit", (0.0,) * len(ROUND))]  # fmt: skip
    if different_axes([one.axis_deg for one in middle]) >= 3:
        fit = fit_ellipse([one.axis_deg for one in middle], [one.shown_m - zero for one in middle])
        curves.insert(1, RingCurve("through yours", "yours", tuple(
            fit.mean_m + fit.a2_m * cos(2 * radians(angle - fit.phi2_deg)) for angle in ROUND)))  # fmt: skip
    marks = tuple(RingMark(one.axis_deg, one.shown_m - zero, "wrong" if one in before else "yours", f"{one.axis_deg}°")
                  for one in middle)  # fmt: skip
    yield RingPicture("The bore, now shown: the middle", tuple(curves), marks, f"widest at {truth.axis_deg}°")
    if truth.lobe_nm[1]:
        off = mean([truth.across("three-point", "middle", angle) for angle in ROUND])
        lobes = tuple(truth.across("three-point", "middle", angle) - off for angle in ROUND)
        yield RingPicture("On three points", (RingCurve("truth", "truth", lobes),), (), "three lobes")


def _by_tilt(truth: RockTruth, one: Taken) -> PlotPicture:
    """What the dial shows by tilt at a place, where it was taken and where it turns. [m]"""
    square = truth.square_deg(one.level, one.axis_deg)
    tilts = tuple(at / 5 for at in range(-20, 21))
    curve = Line("what it shows", "yours", tilts, tuple(
        truth.shows(one.gauge, one.level, one.axis_deg, tilt) for tilt in tilts))  # fmt: skip
    spots = (Spot(one.tilt_deg, one.shown_m, "you", "wrong"), Spot(square, one.square_m, "square: smallest", "truth"))
    return PlotPicture("Reading by tilt", "tilt", "small", "tilt", "dial", (curve,), spots)


ROCKING = Exercise(
    "rock-a-bore-gauge", Area.MEASURE, "Rock a bore gauge",
    "A bore, a ring, a gauge with a dial of its own. Find its mean size at the middle, how far out of round it is and "
    "which way, its taper, and whether three points see lobes. You choose gauges, levels and axes.",
    8, ("turning point", "zero on the ring", "mean size", "out of round", "direction", "taper", "three lobes"),
    ("T13", "T36", "T37", "T38"), draw, position, judged,
)  # fmt: skip
