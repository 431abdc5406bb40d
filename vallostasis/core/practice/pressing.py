"""A press with a skewed bed: squared up or not, the curve of force tells tilt, dirt, shaving and true seating."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache
from math import hypot, pi, sin

import numpy as np
from numpy.typing import NDArray

from vallostasis.core.fits.thick_walled import Elastic, Rings, close_in_share, pressed
from vallostasis.core.practice.draws import NM, Draws
from vallostasis.core.practice.exercise import (
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
from vallostasis.core.practice.pictures import Fact, FactsPicture, Line, Picture, PlotPicture, Spot
from vallostasis.core.trail import Phrase, Step, Term

# Iron in iron, from memory; friction oiled, common practice.
IRON = Elastic(110e9, 0.26)
OILED = 0.12
# A bed may be off by so much over the foot; a liner may start by so much of its length. Common practice.
BED_WITHIN_M, WITHIN_M = 30e-6, 4e-6
STEP_MM = 10
SLICES = 60
TILT, DIRT, CLEAN = "tilt", "dirt under the flange", "true seating"


@dataclass(frozen=True, slots=True)
class PressTruth:
    """A dry liner, fatter in the middle, over a bed that is off; dirt on the seat. [nm], [mm]"""

    fit_nm: int
    wall_nm: int
    length_mm: int
    press_nm: int
    barrel_nm: int
    bed_nm: tuple[int, int]
    dirt_nm: int

    @property
    def rings(self) -> Rings:
        """Both walls; the block as a ring as thick as half the fit. House rule."""
        fit = self.fit_nm * NM
        return Rings(fit - 2 * self.wall_nm * NM, fit, fit * 1.5, IRON, IRON)

    def press_m(self, share: float) -> float:
        """Press at a share of the length: most in the middle. [m] A barrel, by definition a parabola here."""
        return NM * (self.press_nm + self.barrel_nm * 4 * share * (1 - share))

    @property
    def closes_m(self) -> float:
        """How far the bore closes in the middle. [m] Lamé."""
        return close_in_share(self.rings) * self.press_m(0.5)

    def force(self, depth_mm: float, tilt_m: float, dirty: bool) -> float:
        """Force at a depth. [N] Lamé's pressure and oiled friction over what is in; tilt shaves; the seat stops it."""
        force = float(np.interp(min(depth_mm, self.length_mm) / self.length_mm, *_pushes(self)))
        # A tilted liner rises and breaks loose in turns.
        force *= 1 + tilt_m / BED_WITHIN_M * 0.12 * (1 + sin(depth_mm / 6))
        stands = self.length_mm - (self.dirt_nm / 1e6 if dirty else 0.0) * 100
        return force + max(0.0, depth_mm - stands) * 12_000


@lru_cache(maxsize=8)
def _pushes(truth: PressTruth) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """Force by the share of the liner that is in. [1], [N]"""
    shares = (np.arange(SLICES) + 0.5) / SLICES
    pressures = pressed(truth.rings, [truth.press_m(share) for share in shares]).pressure_pa
    slices = pressures * pi * truth.fit_nm * NM * truth.length_mm / 1000 / SLICES * OILED
    return np.arange(SLICES + 1) / SLICES, np.concatenate(([0.0], np.cumsum(slices)))


def draw(of: Draws) -> PressTruth:
    """Draw a bed off by more than three times what may be, and a barrel whose close-in shows. House rule."""
    return PressTruth(
        of.whole("fit", 95_000_000, 115_000_000, 500_000), of.whole("wall", 2_500_000, 4_000_000, 250_000),
        of.whole("length", 180, 240, 10), of.nm("press", 20, 40), of.nm("barrel", 30, 40),
        (of.sign("x") * of.nm("bed x", 95, 180), of.sign("y") * of.nm("bed y", 95, 180)), of.nm("dirt", 40, 90),
    )  # fmt: skip


@dataclass(slots=True)
class _Bench:
    bed: tuple[float, float]
    wiped: int = -1
    oiled: bool = False
    started: str = ""
    depth_mm: float = 0.0
    pushed: int = -1
    over: bool = False
    measured: bool = False
    looked: bool = False


def _after(truth: PressTruth, moves: Sequence[Move]) -> _Bench:
    now = _Bench((truth.bed_nm[0] * NM, truth.bed_nm[1] * NM))
    for at, move in enumerate(moves):
        if move.name == "look":
            now.looked = True
        elif move.name == "shim":
            now.bed = (now.bed[0] + move.number("along"), now.bed[1] + move.number("across"))
        elif move.name == "wipe":
            now.wiped = at
        elif move.name == "oil":
            now.oiled = True
        elif move.name == "start":
            now.started = move.word("judged")
        elif move.name == "push":
            now.pushed = at
            now.depth_mm = min(now.depth_mm + move.number("by"), truth.length_mm + 2.0)
            now.over = now.over or now.depth_mm > truth.length_mm + 1.0
        elif move.name == "measure":
            now.measured = True
    return now


def _tilt(now: _Bench) -> float:
    return hypot(*now.bed)


def _curve(truth: PressTruth, now: _Bench) -> PlotPicture:
    depths = tuple(float(mm) for mm in range(0, int(now.depth_mm) + 1, 2)) or (0.0,)
    tilt = max(0.0, _tilt(now) - BED_WITHIN_M)
    forces = tuple(truth.force(mm, tilt, now.wiped < 0) for mm in depths)
    return PlotPicture("Force as it goes in", "count", "force", "depth in mm", "force",
                       (Line("gauge of the press", "yours", depths, forces),),
                       (Spot(depths[-1], forces[-1], f"{now.depth_mm:.0f} mm", "yours"),))  # fmt: skip


def position(truth: PressTruth, moves: Sequence[Move]) -> Position:
    """Show bed, liner and the curve so far. [m] House rule."""
    if moves and moves[-1].name == "done":
        return Position(say("Done."), (), (), ())
    now = _after(truth, moves)
    bed = (Fact("bed, along the frame", shown(now.bed[0])), Fact("bed, across the frame", shown(now.bed[1])))
    facts = FactsPicture("Before it is pressed", (
        Fact("liner, as long as", say(f"{truth.length_mm} mm")),
        Fact("press at its ends", shown(truth.press_nm * NM)),
        Fact("press in its middle", shown((truth.press_nm + truth.barrel_nm) * NM)),
        *(bed if now.looked else (Fact("bed", say("not looked at")),)),
    ))  # fmt: skip
    pictures: tuple[Picture, ...] = (_curve(truth, now), facts) if now.depth_mm else (facts,)
    said = (say(f"it goes in by hand for {truth.length_mm * 0.3:.0f} mm, oiled"),) if now.started else ()
    if now.measured:
        said = (*said, say("the bore has closed in the middle by {c}", c=truth.closes_m))
    return Position(say("Press this liner home, square and no further."), said, pictures, tuple(_offers(truth, now)))


_PRESS = "A press stores force: stand aside, glasses, nothing brittle in line, hands off while it moves."


def _offers(truth: PressTruth, now: _Bench) -> Iterator[Offer]:
    if now.depth_mm == 0:
        yield Offer("look", "Indicator across the bed")
        yield Offer(
            "shim", "Shim the bed", (length("along", "Raise along", 1e-3), length("across", "Raise across", 1e-3))
        )
        if now.wiped < 0:
            yield Offer("wipe", "Wipe seat and flange, look under a light")
        if not now.oiled:
            yield Offer("oil", "Oil it thinly")
        if not now.started:
            yield Offer(
                "start",
                "Start it by hand",
                (
                    choice(
                        "judged",
                        "That is",
                        ("too loose: it went in 30 mm and more", "right: about a third of its length", "too tight"),
                    ),
                ),
            )
    yield Offer("push", "Press on", (number("by", "By", 1, 250, "mm", str(STEP_MM)),), caution=_PRESS)
    if now.depth_mm >= truth.length_mm - 5:
        yield Offer("measure", "Measure its bore, every depth and axis")
    if now.depth_mm > 0:
        yield Offer(
            "done",
            "It is home",
            (
                choice("curve", "The last rise was", (TILT, DIRT, CLEAN)),
                length("close in", "Its bore closed in the middle by", 1e-3),
            ),
            last=True,
        )


def judged(truth: PressTruth, moves: Sequence[Move]) -> Judged:
    """Say how square and how far it went, what the curve told, and what its bore did. [m] House rule for tolerances."""
    now, answer = _after(truth, moves), moves[-1]
    tilt = _tilt(now)
    rise = TILT if tilt > BED_WITHIN_M else DIRT if now.wiped < 0 else CLEAN
    home = abs(now.depth_mm - truth.length_mm) <= 1.0 and now.wiped >= 0
    scored = (
        scored_length("square bed", "bed off square", tilt, 0.0, BED_WITHIN_M),
        scored_word(
            "clean and oiled", "seat wiped, liner oiled", "yes" if now.wiped >= 0 and now.oiled else "no", "yes"
        ),
        scored_word(
            "hand start", "hand start judged", now.started or "not started", "right: about a third of its length"
        ),
        _home(now, truth, home),
        scored_word("reads the curve", "the last rise", answer.word("curve"), rise),
        scored_length("close-in", "closed in the middle", answer.number("close in"), truth.closes_m, WITHIN_M),
        scored_word("measured after", "its bore measured after", "yes" if now.measured else "no", "yes"),
    )
    missed = [one.name for one in scored if not one.is_full]
    head = say("Square, clean, home, and measured.") if not missed else say(f"Not right yet: {missed[0]}.")
    depths = tuple(float(mm) for mm in range(0, truth.length_mm + 2, 2))
    clean = tuple(truth.force(mm, 0.0, False) for mm in depths)
    yours = _curve(truth, now).lines[0]
    plot = PlotPicture("Force, yours and square on a clean seat", "count", "force", "depth in mm", "force",
                       (Line("square and clean", "truth", depths, clean), yours))  # fmt: skip
    step = Step(
        "close-in",
        "share by Lamé × press in the middle",
        (Term("press", truth.press_m(0.5)), Term("share", close_in_share(truth.rings), "share")),
        Term("closes", truth.closes_m),
        "Lamé",
    )
    return Judged(head, scored, tuple(_traps(truth, now, answer, len(moves) - 1)), (plot,), (step,))


def _home(now: _Bench, truth: PressTruth, home: bool) -> Scored:
    return Scored(
        "stops at the seat",
        "how far it was pressed",
        say(f"{now.depth_mm:.0f} mm"),
        say(f"{truth.length_mm} mm"),
        Phrase(""),
        say("1 mm"),
        10 if home and not now.over else 0,
    )


def _traps(truth: PressTruth, now: _Bench, answer: Move, end: int) -> Iterator[TrapMet]:
    if now.started.startswith("too loose"):
        yield TrapMet(
            "T40",
            end,
            say(
                f"{truth.length_mm * 0.3:.0f} mm of {truth.length_mm} mm is a third: a start says "
                "nothing without the length."
            ),
        )
    flat = close_in_share(truth.rings) * truth.press_m(0.0)
    if abs(answer.number("close in") - flat) <= WITHIN_M:
        yield TrapMet("T6", end, say("The liner is fatter in the middle: there it closes {m}, not {e} as at its ends.",
                                     m=truth.closes_m, e=flat))  # fmt: skip
    if not now.measured:
        yield TrapMet("T55", end, say("Reckoned and never measured: it stays open until the bore was read again."))
    if _tilt(now) > BED_WITHIN_M:
        yield TrapMet("T54", now.pushed, say("What holds the liner was {t} out of line with what it goes into: it "
                                             "bends, and its bore with it.", t=_tilt(now)))  # fmt: skip


PRESSING = Exercise(
    "press-it-home", Area.FIT, "Press it home",
    "A dry liner, fatter in the middle, under a press whose bed is off. Square the bed, start it by hand, press to the "
    "seat and no further, and say what the curve told and how far the bore closed.", 8,
    ("square bed", "clean and oiled", "hand start", "stops at the seat", "reads the curve", "close-in",
     "measured after"), ("T6", "T40", "T54", "T55"), draw, position, judged,
)  # fmt: skip
