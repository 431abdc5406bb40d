"""Heat and chill: the block cools and the liner warms while everything is carried; it drops, or it grabs.

Sizes, what was laid out, frost, grease and a square start decide how much room is left at the moment it goes in.

References
----------
.. [1] ISO 1:2022: sizes hold at 20 °C; free expansion and Newton's law of cooling in closed form, as in `core.thermal`.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from vallostasis.core.fits.hot import Grows, height_change
from vallostasis.core.practice.draws import NM, Draws
from vallostasis.core.practice.exercise import (
    Area,
    Exercise,
    Judged,
    Move,
    Offer,
    Position,
    Scored,
    Spent,
    TrapMet,
    choice,
    length,
    number,
    say,
    scored_length,
    scored_word,
    shown,
)
from vallostasis.core.practice.pictures import DropPicture, Fact, FactsPicture, Line, Picture, PlotPicture, Spot
from vallostasis.core.practice.pictures import Level as PlotLevel
from vallostasis.core.thermal.drop import cooled
from vallostasis.core.thermal.shrink import Pair, course_of
from vallostasis.core.trail import Phrase, Step, Term

ROOM_C, IRON_PER_K, ALUMINIUM_PER_K = 20.0, 11.0e-6, 23.0e-6
FREEZER, DRY_ICE = "freezer, overnight", "dry ice"
COLD_C = {FREEZER: -18.0, DRY_ICE: -78.5}
# A liner wants so much room to slide. Frost grows on bare cold metal. House choices for this exercise.
NEEDS_M, FROST_M_S, MOST_FROST_M = 20e-6, 0.15e-6, 25e-6
RATE, WITHIN_M = 12.0, 6e-6
TIMES = tuple(float(second) for second in range(0, 1801, 30))
GUIDED, BY_EYE = "with guide bars", "by eye"
COLD, NOW = "when all is cold", "now, while it is hot"


@dataclass(frozen=True, slots=True)
class DropTruth:
    """A liner, a hole and how fast they change, on a grid of nanometres. [nm], [s]"""

    hole_nm: int
    press_nm: int
    stands_nm: int
    height_nm: int
    block_s: int
    liner_s: int
    lifts_nm: int

    @property
    def pair(self) -> Pair:
        """Hole and liner at 20 °C."""
        return _pair(self.hole_nm, self.press_nm)

    def temperatures(self, block_c: float, chill: str, seconds: float) -> tuple[float, float]:
        """Return how warm block and liner are so long after they were taken out. [°C], [s] Closed form."""
        return (cooled(block_c, ROOM_C, self.block_s, seconds), cooled(COLD_C[chill], ROOM_C, self.liner_s, seconds))

    def room(self, block_c: float, chill: str, bagged: bool, seconds: float) -> float:
        """Return the room between liner and hole. [m], [s] Free expansion, ISO 1; less frost on a bare liner."""
        block, liner = self.temperatures(block_c, chill, seconds)
        frost = 0.0 if bagged else min(MOST_FROST_M, FROST_M_S * seconds)
        return self.pair.clearance(block, liner) - 2 * frost

    def rooms(self, block_c: float, chill: str, bagged: bool, later_s: float = 0.0) -> tuple[float, ...]:
        """Return the room at each of the times that are drawn, so much later. [m], [s] As :meth:`room`, ISO 1."""
        both = [self.temperatures(block_c, chill, second + later_s) for second in TIMES]
        hole = self.pair.hole_m * (1 + self.pair.block.strains(np.array([block for block, _ in both])))
        liner = self.pair.liner_m * (1 + self.pair.liner.strains(np.array([liner for _, liner in both])))
        frost = np.zeros(len(TIMES)) if bagged else np.minimum(MOST_FROST_M, FROST_M_S * (np.array(TIMES) + later_s))
        return tuple(float(one) for one in hole - liner - 2 * frost)

    def reads_hot(self, block_c: float) -> float:
        """Return how high the liner reads while everything is warm. [m] ISO 1, on its seat so far below the deck."""
        grows = Grows(IRON_PER_K, ALUMINIUM_PER_K)
        warm = (block_c + ROOM_C) / 2
        return self.height_nm * NM + height_change(self.stands_nm * NM, grows, warm, warm)


@lru_cache(maxsize=64)
def _pair(hole_nm: int, press_nm: int) -> Pair:
    hole = hole_nm * NM
    return Pair(hole, hole + press_nm * NM, course_of("aluminium", ALUMINIUM_PER_K), course_of("cast iron", IRON_PER_K))


def draw(of: Draws) -> DropTruth:
    """Draw a press and a height whose mistakes show by more than three times what would still do. House rule."""
    return DropTruth(
        of.whole("hole", 90_000_000, 105_000_000, 50_000),
        of.nm("press", 45, 70),
        of.whole("stands", 120_000_000, 150_000_000, 1_000_000),
        of.nm("height", 60, 120),
        of.whole("block s", 800, 1100),
        of.whole("liner s", 200, 300),
        of.nm("lifts", 30, 50),
    )


@dataclass(slots=True)
class _Bench:
    """What was done so far."""

    measured: int = -1
    marked: int = -1
    laid_out: bool = False
    aired: bool = False
    heated: int = -1
    hot_at_s: float = 0.0
    block_c: float = ROOM_C
    chill: str = FREEZER
    bagged: bool = False
    greased: bool = False
    guided: bool = False
    lowered: int = -1
    room_m: float = 0.0
    driven: int = -1
    held: bool | None = None
    read_m: float | None = None
    read_hot: int = -1
    again: int = 0
    minutes: float = 0.0


# What each step takes. Common practice, no published source. [min]
MINUTES = {"measure": 15, "mark": 1, "lay out": 10, "air": 3, "heat": 60, "grease": 2, "lower": 1, "again": 60,
           "drive": 20, "hold": 5, "read": 10}  # fmt: skip


def _after(truth: DropTruth, moves: Sequence[Move]) -> _Bench:
    now = _Bench()
    for at, move in enumerate(moves):
        now.minutes += MINUTES.get(move.name, 0)
        if move.name == "measure":
            now.measured = at
        elif move.name == "mark":
            now.marked = at
        elif move.name == "lay out":
            now.laid_out = True
        elif move.name == "air":
            now.aired = True
        elif move.name in ("heat", "again"):
            _heat(now, at, move)
        elif move.name == "grease":
            now.greased = True
        elif move.name == "lower":
            now.lowered, now.guided = at, move.word("start") == GUIDED
            # What is not laid out is looked for while everything cools.
            waits = move.at_s - now.hot_at_s + (0.0 if now.laid_out else 240.0)
            now.room_m = truth.room(now.block_c, now.chill, now.bagged, waits)
        elif move.name == "drive":
            now.driven = at
        elif move.name == "hold":
            now.held = move.word("held") == "until all is cold"
        elif move.name == "read":
            now.read_hot = at if move.word("when") == NOW else -1
            now.read_m = truth.reads_hot(now.block_c) if now.read_hot >= 0 else _stands(truth, now)
    return now


def _heat(now: _Bench, at: int, move: Move) -> None:
    now.heated, now.hot_at_s = (at if now.heated < 0 else now.heated), move.at_s
    now.again += move.name == "again"
    now.block_c, now.chill = move.number("block"), move.word("chill")
    now.bagged, now.lowered = move.word("bag") == "yes", -1


def _stands(truth: DropTruth, now: _Bench) -> float:
    """How high it stands once cold: a liner that was let go of lifts as the block shrinks back, a driven one too."""
    lifts = truth.lifts_nm if not now.held or now.driven >= 0 else 0
    return (truth.height_nm + lifts) * NM


def position(truth: DropTruth, moves: Sequence[Move]) -> Position:
    """Show hole and liner, with the clock running from the moment they are taken out. [s] House rule."""
    if moves and moves[-1].name == "done":
        return Position(say("Done."), (), (), ())
    now = _after(truth, moves)
    runs = now.heated >= 0 and now.lowered < 0
    return Position(_head(now), tuple(_said(truth, now)), tuple(_pictures(truth, now)), tuple(_offers(now)),
                    Spent(now.minutes, 0.0), RATE if runs else 0.0, moves[-1].at_s if moves else 0.0)  # fmt: skip


def _head(now: _Bench) -> Phrase:
    if now.heated < 0:
        return say("Get everything ready: once it is hot and cold, the clock runs.")
    if now.lowered < 0:
        return say("Block hot, liner cold: set it down while there is room.")
    if now.room_m < NEEDS_M and now.driven < 0:
        return say("It grabs half way down.")
    return say("It is down.")


def _said(truth: DropTruth, now: _Bench) -> Iterator[Phrase]:
    if now.measured >= 0:
        yield say("press at 20 °C: {p}", p=truth.press_nm * NM)
    if now.heated >= 0:
        yield say(f"block {now.block_c:.0f} °C, liner from {now.chill}{', bagged' if now.bagged else ''}")
    if now.again:
        yield say("drawn out, heated and chilled again")
    if now.lowered >= 0:
        grabs = now.room_m < NEEDS_M
        yield say("it would not go: it grabbed" if grabs else "it dropped by its own weight, one clean knock")
    if now.read_m is not None:
        yield say("the gauge on the flange says {h}", h=now.read_m)


def _pictures(truth: DropTruth, now: _Bench) -> Iterator[Picture]:
    if now.heated < 0:
        name = "Hole, aluminium block" if now.measured >= 0 else "Hole, aluminium block, by the drawing"
        yield FactsPicture("The pair", (
            Fact(name, shown(truth.hole_nm * NM, "size")),
            Fact("Liner, iron", shown((truth.hole_nm + truth.press_nm) * NM, "size")) if now.measured >= 0
            else Fact("Liner, iron", say("not measured")),
            Fact("room in the shop", say("20 °C")),
        ))  # fmt: skip
        return
    late = 0.0 if now.laid_out else 240.0
    clear = truth.rooms(now.block_c, now.chill, now.bagged, late)
    entered = 0.0 if now.lowered < 0 else 1.0 if now.room_m >= NEEDS_M or now.driven >= 0 else 0.5
    yield DropPicture("Room round the liner", TIMES, clear, now.hot_at_s, RATE, now.lowered < 0, entered,
                      f"from {now.block_c:.0f} °C", f"from {COLD_C[now.chill]:.0f} °C",
                      0.0 if now.lowered < 0 or now.guided else 1.2)  # fmt: skip


_HOT = "Hot aluminium looks like cold: gloves, nothing that burns near the oven, no solvent or oil vapour in it."
_COLD = "Dry ice takes the air out of a pit or a small room and burns skin: air it, gloves, never in a closed vessel."


def _heating(name: str, label: str) -> Offer:
    return Offer(name, label, (
        number("block", "Block", 40, 120, "°C", "80"), choice("chill", "Liner", (FREEZER, DRY_ICE)),
        choice("bag", "Bagged against frost", ("no", "yes"))), caution=f"{_HOT} {_COLD}")  # fmt: skip


def _offers(now: _Bench) -> Iterator[Offer]:
    if now.heated < 0:
        if now.measured < 0:
            yield Offer("measure", "Measure hole and liner at 20 °C")
        if now.marked < 0:
            yield Offer("mark", "Mark front and hole on both")
        if not now.laid_out:
            yield Offer("lay out", "Lay out hoist, guide bars, grease, weight")
        if not now.aired:
            yield Offer("air", "Open the doors, air the pit")
        if not now.greased:
            yield Offer("grease", "Grease the seals, wipe seat and lead-in")
        yield _heating("heat", "Heat and chill")
    elif now.lowered < 0:
        if now.marked < 0:
            yield Offer("mark", "Which way is the front? Look it up and mark it")
        if not now.greased:
            yield Offer("grease", "Grease the seals, wipe seat and lead-in")
        yield Offer("lower", "Let it down", (choice("start", "Square", (BY_EYE, GUIDED)),),
                    caution="A liner that drops takes fingers with it: hold it by the lifter.")  # fmt: skip
    elif now.room_m < NEEDS_M and now.driven < 0:
        yield Offer("drive", "Drive it home",
                    caution="Hammer and press throw parts: glasses, nobody in line.")  # fmt: skip
        yield _heating("again", "Draw it out, heat and chill again")
    elif now.held is None:
        yield Offer("hold", "Go on", (choice("held", "Held down", ("not held", "until all is cold")),))
    else:
        yield Offer("read", "Read its height", (choice("when", "When", (NOW, COLD)),))
        yield Offer("done", "That is its height", (length("height", "Height", 3e-3),), last=True)


def judged(truth: DropTruth, moves: Sequence[Move]) -> Judged:
    """Say how it went in, how it stands, and what was left out before. [m] House rule for tolerances."""
    now = _after(truth, moves)
    seated = now.driven < 0 and bool(now.held)
    ok_air = now.chill != DRY_ICE or now.aired
    scored = (
        scored_word("fit measured first", "hole and liner measured before heat",
                    "yes" if now.measured >= 0 and now.measured < now.heated else "no", "yes"),
        scored_word("marked before heat", "front marked before heat",
                    "yes" if 0 <= now.marked < now.heated else "no", "yes"),
        _room(now),
        scored_word("seals whole", "greased, and started square",
                    "yes" if now.greased and now.guided else "no", "yes"),
        scored_word("seated", "on its seat", "yes" if seated else "lifted", "yes"),
        scored_length("height cold", "height, cold", moves[-1].number("height"), _stands(truth, now), WITHIN_M),
        scored_word("cautions kept", "dry ice in aired rooms only", "yes" if ok_air else "no", "yes"),
    )  # fmt: skip
    full = all(one.is_full for one in scored)
    head = (
        say("Down by its own weight, seated, and read cold.")
        if full
        else say("It had to be driven.")
        if now.driven >= 0
        else say(f"It is in; {next(one.name for one in scored if not one.is_full)}: not as it should be.")
    )
    return Judged(head, scored, tuple(_traps(truth, now, moves)), (_window(truth, now, moves),), (_step(truth, now),))


def _room(now: _Bench) -> Scored:
    yours = shown(now.room_m) if now.driven < 0 else say("driven")
    right = now.room_m >= NEEDS_M and now.driven < 0 and now.again == 0
    return Scored(
        "room at entry", "room as it went in", yours, shown(NEEDS_M), Phrase(""), Phrase(""), 10 if right else 0
    )


def _window(truth: DropTruth, now: _Bench, moves: Sequence[Move]) -> PlotPicture:
    late = 0.0 if now.laid_out else 240.0
    ys = truth.rooms(now.block_c, now.chill, now.bagged, late)
    best = truth.rooms(100.0, FREEZER, True)
    took = next((move.at_s for move in reversed(moves) if move.name == "lower"), 0.0) - now.hot_at_s
    return PlotPicture("The window", "seconds", "small", "out of oven and freezer", "room", (
        Line("yours", "yours", TIMES, ys), Line("100 °C, bagged, laid out", "truth", TIMES, best)),
        (Spot(took, now.room_m, "let down", "yours" if now.room_m >= NEEDS_M else "wrong"),),
        (PlotLevel(NEEDS_M, "room it needs", "limit"),))  # fmt: skip


def _step(truth: DropTruth, now: _Bench) -> Step:
    return Step("room as it was taken out", "hole·(1 + α·ΔT) − liner·(1 + α·ΔT)", (
        Term("press", truth.press_nm * NM), Term("block", now.block_c, "count", "°C"),
        Term("liner", COLD_C[now.chill], "count", "°C")),
        Term("room", truth.room(now.block_c, now.chill, True, 0.0)), "free expansion, ISO 1")  # fmt: skip


def _traps(truth: DropTruth, now: _Bench, moves: Sequence[Move]) -> Iterator[TrapMet]:
    if not 0 <= now.measured < now.heated:
        yield TrapMet("T22", now.heated, say("No heat before hole and liner are measured: the press was {p}.",
                                             p=truth.press_nm * NM))  # fmt: skip
    if not 0 <= now.marked < now.heated:
        yield TrapMet("T52", now.heated, say("Which end is the front is asked before anything is hot."))
    if now.driven >= 0:
        yield TrapMet("T8", now.driven, say("There was {r} of room as it went in, where {n} is needed: it should have "
                                            "dropped. Temperatures at that moment say so; stop, and heat again.",
                                            r=now.room_m, n=NEEDS_M))  # fmt: skip
    off = abs(moves[-1].number("height") - _stands(truth, now))
    if now.read_hot >= 0 and off > WITHIN_M:
        yield TrapMet(
            "T42",
            now.read_hot,
            say("Read hot it said {h}; cold it stands {c}.", h=truth.reads_hot(now.block_c), c=_stands(truth, now)),
        )


DROP = Exercise(
    "heat-and-chill", Area.FIT, "Heat, chill, drop",
    "An iron liner into an aluminium block. Make ready, heat and chill, and let it down while there is room: block and "
    "liner change by the second. Then say how high it stands.", 8,
    ("fit measured first", "marked before heat", "room at entry", "seals whole", "seated", "height cold",
     "cautions kept"), ("T8", "T22", "T42", "T52"), draw, position, judged,
)  # fmt: skip
