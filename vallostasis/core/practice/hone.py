"""The hone: stripes fade, stones load, the bore warms and misleads; what counts is its size and shape when cold.

Three levels, twelve places round each. Stones cut what stands highest; places that lie lower stay dark until the rest
has come down to them.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field

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
    Spent,
    TrapMet,
    choice,
    number,
    say,
    scored_length,
    scored_word,
    shown,
)
from vallostasis.core.practice.pictures import Fact, FactsPicture, Level, Line, PlotPicture, Spot, WallPicture
from vallostasis.core.thermal.drop import cooled
from vallostasis.core.trail import Phrase, Step, Term

LEVELS, PLACES = ("top", "middle", "bottom"), 12
ALL = "whole length"
ROOM_C, IRON_PER_K = 20.0, 11.0e-6
# What a stroke takes off the diameter, by grit. Common practice, no published source; 400 takes next to nothing. [nm]
TAKES_NM = {"70": 500.0, "220": 150.0, "400": 4.0}
# A stroke warms the wall, a minute's pause lets it cool; forty strokes load the stones half. House choices.
WARMS_K, COOLS_S, LOADS = 0.055, 1500.0, 1 / 80
EVEN_MM, STROKES_MIN = 25.0, 40.0
# Firm stones take more and warm the wall more still. Common practice; house figures.
LIGHT, FIRM = "light", "firm"
FIRM_TAKES, FIRM_WARMS = {LIGHT: 1.0, FIRM: 1.5}, {LIGHT: 1.0, FIRM: 2.2}
WITHIN_M, TAPER_M, MOST_MINUTES = 4e-6, 5e-6, 420.0
FINISH_NM = 8_000
CLEAN, STRIPED = "clean and round", "stripes remain: not round"


@dataclass(frozen=True, slots=True)
class HoneTruth:
    """A bore before its hone, on a grid of nanometres: what is to go at each level, and where the wall dips. [nm]"""

    size_nm: int
    to_go_nm: tuple[int, int, int]
    dips_nm: tuple[tuple[int, ...], ...]

    @property
    def is_deep(self) -> bool:
        """Whether a dip lies deeper than what is to go: stripes remain at size."""
        return any(max(dips) > to_go for dips, to_go in zip(self.dips_nm, self.to_go_nm, strict=True))


def draw(of: Draws) -> HoneTruth:
    """Draw a tapered bore; in half of the seeds one place lies deeper than the finished size. House rule."""
    low = of.nm("to go", 46, 60)
    taper = of.nm("taper", 18, 30)
    dips = [[of.nm(f"dip {level} {at}", 0, 18) for at in range(PLACES)] for level in LEVELS]
    if of.whole("deep", 0, 1):
        dips[of.whole("deep level", 0, 2)][of.whole("deep place", 0, PLACES - 1)] = of.nm("deepest", 110, 130)
    return HoneTruth(of.whole("size", 95_000_000, 115_000_000, 250_000), (low, low + taper // 2, low + taper),
                     tuple(tuple(row) for row in dips))  # fmt: skip


@dataclass(slots=True)
class _Bench:
    """The bore as it stands: how far each level is still to go, warmth, stones."""

    left_nm: list[float]
    celsius: float = ROOM_C
    loaded: float = 0.0
    strokes: int = 0
    minutes: float = 0.0
    finished_nm: float = 0.0
    grit: str = ""
    uneven: int = -1
    read_at: int = -1
    read_c: float = ROOM_C
    said: list[Phrase] = field(default_factory=list)


def begun(truth: HoneTruth) -> "_Bench":
    """Return the bore as it comes to the hone."""
    return _Bench([float(one) for one in truth.to_go_nm])


def done(truth: HoneTruth, now: "_Bench", at: int, move: Move) -> None:
    """Do one thing to the bore. House rule."""
    if move.name == "hone":
        _hone(now, at, move)
    elif move.name == "dress":
        now.loaded, now.minutes = 0.0, now.minutes + 4
        now.said.append(say("stones dressed"))
    elif move.name == "wait":
        pause = move.number("minutes")
        now.minutes += pause
        now.celsius = cooled(now.celsius, ROOM_C, COOLS_S, pause * 60)
        now.said.append(say(f"{pause:.0f} min: the wall is at {now.celsius:.0f} °C"))
    elif move.name == "measure":
        now.read_at, now.read_c, now.minutes = at, now.celsius, now.minutes + 2
        now.said.append(_reading(truth, now, move))


def after(truth: HoneTruth, moves: Sequence[Move]) -> "_Bench":
    """Return the bore after some moves. House rule."""
    now = begun(truth)
    for at, move in enumerate(moves):
        done(truth, now, at, move)
    return now


def _hone(now: _Bench, at: int, move: Move) -> None:
    strokes, grit, where = int(move.number("strokes")), move.word("grit"), move.word("where")
    tension = move.word("tension")
    outs = (move.number("above"), EVEN_MM, move.number("below"))
    if where == ALL and abs(outs[0] - outs[2]) > 5:
        now.uneven = at
    for _ in range(strokes):
        takes = TAKES_NM[grit] * (1 - 0.6 * min(1.0, now.loaded)) * FIRM_TAKES[tension]
        for level, name in enumerate(LEVELS):
            if where == ALL:
                now.left_nm[level] -= takes * (1 + (outs[level] - EVEN_MM) / 100) / len(LEVELS)
            elif where == name:
                now.left_nm[level] -= takes
        now.loaded += LOADS * (0.4 if grit != "70" else 1.0)
        now.celsius += WARMS_K * (1.0 if grit == "70" else 0.5) * FIRM_WARMS[tension]
        if grit == "220":
            now.finished_nm += takes / len(LEVELS)
    now.strokes += strokes
    now.minutes += strokes / STROKES_MIN
    now.grit = grit
    now.said.append(say(f"{strokes} strokes, {grit} grit, {where}"))


def _stripes(truth: HoneTruth, now: _Bench) -> tuple[tuple[float, ...], ...]:
    """How dark each place still is: by how much its dip lies under what was cut. [1]"""
    rows = []
    for level, dips in enumerate(truth.dips_nm):
        gone = truth.to_go_nm[level] - now.left_nm[level]
        rows.append(tuple(max(0.0, min(1.0, (dip - gone) / 12_000)) if dip > gone else 0.0 for dip in dips))
    return tuple(rows)


def _reading(truth: HoneTruth, now: _Bench, move: Move) -> Phrase:
    level = LEVELS.index(move.word("level"))
    warm = truth.size_nm * NM * IRON_PER_K * (now.celsius - ROOM_C)
    words = f"{move.word('level')}: the gauge, set to the finished size, says {{v}}"
    return say(words, v=-now.left_nm[level] * NM + warm)


def position(truth: HoneTruth, moves: Sequence[Move]) -> Position:
    """Show the wall with its stripes, what was read, and what may be done. House rule."""
    if moves and moves[-1].name == "done":
        return Position(say("Done."), (), (), ())
    now = after(truth, moves)
    wall = WallPicture("The wall, unrolled", _stripes(truth, now), min(1.0, now.loaded), now.celsius, now.strokes)
    facts = FactsPicture("On the card", (
        Fact("finished size, at 20 °C", shown(truth.size_nm * NM, "size"), "truth"),
        Fact("last of it with", say("220 grit, {f} at least", f=FINISH_NM * NM)),
        Fact("the stones may run out", say("25 mm above and below")),
    ))  # fmt: skip
    return Position(say("Hone it to its size: as it is cold, the same at every level."), tuple(now.said), (wall, facts),
                    OFFERS, Spent(now.minutes, 0.0))  # fmt: skip


OFFERS = (
    Offer(
        "hone",
        "Hone",
        (
            number("strokes", "Strokes", 1, 120, usual="20"),
            choice("grit", "Grit", tuple(TAKES_NM), "70"),
            choice("where", "Where", (ALL, *LEVELS)),
            choice("tension", "Tension", (LIGHT, FIRM)),
            number("above", "Out above", 0, 60, "mm", "25"),
            number("below", "Out below", 0, 60, "mm", "25"),
        ),
        caution="A drill-driven hone grabs: two hands, stop block below, nothing loose, oil mist out of the air.",
    ),
    Offer("measure", "Measure", (choice("level", "Level", LEVELS, "middle"),)),
    Offer("wait", "Wait", (number("minutes", "Minutes", 1, 240, "min", "20"),)),
    Offer("dress", "Dress the stones"),
    Offer("done", "The bore is done", (choice("call", "It is", (CLEAN, STRIPED)),), last=True),
)


def judged(truth: HoneTruth, moves: Sequence[Move]) -> Judged:
    """Hold size, taper and stripes against the card, cold. [m] House rule for tolerances."""
    now = after(truth, moves)
    mean = sum(now.left_nm) / len(LEVELS) * NM
    taper = (max(now.left_nm) - min(now.left_nm)) * NM
    remain = any(any(row) for row in _stripes(truth, now))
    scored = (
        scored_length("size when cold", "size less the finished size", -mean, 0.0, WITHIN_M),
        scored_length("same at every level", "greatest less least level", taper, 0.0, TAPER_M),
        scored_word("stripes called", "the wall", moves[-1].word("call"), STRIPED if remain else CLEAN),
        Scored("finish", "taken with 220", shown(now.finished_nm * NM), say("{f} and more", f=FINISH_NM * NM), NOTHING,
               NOTHING, 10 if now.finished_nm >= FINISH_NM and now.grit == "220" else 0),
        Scored("time", "time", say(f"{now.minutes:.0f} min"), NOTHING, NOTHING, say(f"{MOST_MINUTES:.0f} min"),
               10 if now.minutes <= MOST_MINUTES else 0),
    )  # fmt: skip
    missed = [one.name for one in scored if not one.is_full]
    head = say("To size cold, straight, and called as it is.") if not missed else say(f"Not there: {missed[0]}.")
    heat = truth.size_nm * NM * IRON_PER_K * (now.read_c - ROOM_C)
    step = Step("a warm bore", "size·α·(T − 20 °C)", (Term("T", now.read_c, "count", "°C"),),
                Term("reads large by", heat), "free expansion, ISO 1")  # fmt: skip
    wall = WallPicture("The wall at the end", _stripes(truth, now), min(1.0, now.loaded), now.celsius, now.strokes)
    return Judged(head, scored, tuple(_traps(truth, now, moves, mean, taper, remain)), (_course(truth, moves), wall),
                  (step,))  # fmt: skip


def _course(truth: HoneTruth, moves: Sequence[Move]) -> PlotPicture:
    """What was left of the middle, cold, and what the gauge said of it, move after move."""
    cold: list[float] = []
    warm: list[float] = []
    strokes: list[int] = []
    now = begun(truth)
    for at, move in enumerate(moves):
        if not strokes or now.strokes != strokes[-1]:
            strokes.append(now.strokes)
            cold.append(-now.left_nm[1] * NM)
            warm.append(cold[-1] + truth.size_nm * NM * IRON_PER_K * (now.celsius - ROOM_C))
        done(truth, now, at, move)
    end = Spot(float(strokes[-1]), cold[-1], "cold", "truth")
    return PlotPicture("The middle, stroke by stroke", "strokes", "small", "", "less the finished size", (
        Line("cold", "truth", tuple(map(float, strokes)), tuple(cold)),
        Line("as it would read", "yours", tuple(map(float, strokes)), tuple(warm))), (end,),
        (Level(0.0, "finished", "limit"),))  # fmt: skip


def _traps(truth: HoneTruth, now: _Bench, moves: Sequence[Move], mean: float, taper: float, remain: bool
           ) -> Iterator[TrapMet]:  # fmt: skip
    if remain and moves[-1].word("call") == CLEAN:
        yield TrapMet(
            "T5",
            len(moves) - 1,
            say("Dark places are left: the stones have not been there, and no gauge that spans them says round."),
        )
    heat = truth.size_nm * NM * IRON_PER_K * (now.read_c - ROOM_C)
    if mean > WITHIN_M and now.read_at >= 0 and heat > WITHIN_M:
        yield TrapMet("T39", now.read_at, say("At {t} °C it read {h} large: cold it is that much short.".replace(
            "{t}", f"{now.read_c:.0f}"), h=heat))  # fmt: skip
    if now.uneven >= 0 and taper > TAPER_M:
        yield TrapMet("T50", now.uneven, say("The stones ran out further at one end than at the other: that end is cut "
                                             "more, {t} of taper.", t=taper))  # fmt: skip


HONE = Exercise(
    "hone-to-size",
    Area.BORE,
    "Hone to size",
    "A bore with taper and dark places. Choose grit, strokes, tension, where, and how far the stones run out; dress "
    "them, let the bore cool, measure. It counts as it is cold; say at the end whether the wall is clean.",
    12,
    ("size when cold", "same at every level", "stripes called", "finish", "time"),
    ("T5", "T39", "T50"),
    draw,
    position,
    judged,
)
