"""The counterbore cutter: touch, set the stop, lock, cut, stone the burr, measure. An over-cut cannot be undone.

Graduations are about what they say, a stop is about where it was set, and a burr reads shallow; only the gauge on a
stoned ledge says where the metal is.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise

from vallostasis.core.practice.draws import NM, Draws
from vallostasis.core.practice.exercise import (
    Area,
    Exercise,
    Judged,
    Move,
    Offer,
    Position,
    Spent,
    TrapMet,
    choice,
    length,
    number,
    say,
    scored_length,
    scored_number,
    scored_word,
)
from vallostasis.core.practice.pictures import CutPicture, Fact, FactsPicture
from vallostasis.core.trail import Phrase, Step, Term

CLOCK = ("12", "3", "6", "9")
DATUMS = ("deck", "worn ledge")
# A pass takes about as much; after ten of them chips are in the way. Common practice, no published source.
MOST_FEED_M, PASSES_TO_VACUUM = 60e-6, 10
WITHIN_M = 8e-6


@dataclass(frozen=True, slots=True)
class CutterTruth:
    """A hole to cut on a grid of nanometres: ledge, flange, shim, aim, and what the cutter really does. [nm], [1]

    ``feeds_permille`` is what a graduation takes more or less than it says, ``stop_nm`` what a stop lets through.
    """

    ledge_nm: int
    flange_nm: int
    shim_nm: int
    aim_nm: int
    worn_nm: int
    feeds_permille: int
    stop_nm: int
    burr_nm: int
    tilt_nm: int

    @property
    def wanted_nm(self) -> int:
        """Return how deep the ledge ought to lie under the deck. [nm] Flange and shim less what is to stand proud.

        House rule.
        """
        return self.flange_nm + self.shim_nm - self.aim_nm

    @property
    def to_cut_nm(self) -> int:
        """Return what is to come off. [nm] By definition."""
        return self.wanted_nm - self.ledge_nm


def draw(of: Draws) -> CutterTruth:
    """Draw a hole: feed, stop, burr and datum each mislead by more than three times what would still do. House rule."""
    ledge, sunk = of.nm("ledge", 8_800, 9_000), of.nm("sunk", 60, 140)
    shim = of.pick("shim", (760_000, 810_000, 860_000))
    return CutterTruth(
        ledge_nm=ledge, flange_nm=ledge - sunk, shim_nm=shim, aim_nm=of.nm("aim", 100, 130),
        worn_nm=of.nm("worn", 40, 70), feeds_permille=of.sign("feed") * of.whole("feeds", 60, 80),
        stop_nm=of.sign("stop") * of.nm("stop off", 26, 34), burr_nm=of.nm("burr", 28, 40),
        tilt_nm=of.nm("tilt", 0, 3),
    )  # fmt: skip


class _Bench:
    """The hole as it is cut, move after move."""

    def __init__(self, truth: CutterTruth) -> None:
        self.truth = truth
        self.gone = self.counted = 0.0
        # Where the cutter stood when it was set to nought, below the ledge that is to be cut. [nm]
        self.base = 0.0
        self.stop: float | None = None
        self.locked = self.touched = self.burr = self.loose = self.read_burr = False
        self.read: dict[str, float] = {}
        self.stops_at: list[str] = []
        self.read_at = -1
        self.said: list[Phrase] = []
        self.minutes = 0.0
        self.passes = 0

    @property
    def same_place(self) -> int:
        """How often a cut was stopped where the one before it was. By definition."""
        return sum(one == other for one, other in pairwise(self.stops_at))

    def do(self, at: int, move: Move) -> None:
        """Do one thing."""
        if move.name == "touch":
            self.touched, self.minutes = True, self.minutes + 3
            self.base = self.truth.worn_nm if move.word("datum") == "worn ledge" else 0.0
            self.said.append(say(f"the cutter touches; zero set on the {move.word('datum')}"))
        elif move.name == "stop":
            # The collar is opened to set it.
            self.stop = max(self.gone, self.base) + move.number("gap") / NM
            self.locked, self.minutes = False, self.minutes + 2
            self.said.append(say("stop set {g} on, collar open", g=move.number("gap")))
        elif move.name == "lock":
            self.locked = True
            self.said.append(say("collar locked"))
        elif move.name == "cut":
            self._cut(move)
        elif move.name == "vacuum":
            self.passes, self.minutes = 0, self.minutes + 2
            self.said.append(say("chips out"))
        elif move.name == "stone":
            self.burr, self.minutes = False, self.minutes + 2
            self.said.append(say("the burr is off"))
        elif move.name == "measure":
            self._measure(at, move)

    def _cut(self, move: Move) -> None:
        passes, feed = int(move.number("passes")), move.number("feed") / NM
        self.minutes += passes
        self.counted += passes * feed
        reaches = max(self.gone, self.base) + passes * feed * (1 + self.truth.feeds_permille / 1000)
        if self.stop is not None and self.locked:
            reaches = min(reaches, self.stop + self.truth.stop_nm)
        else:
            # An open collar runs along: nothing stops the cutter.
            self.loose = True
        self.stops_at.append(move.word("stopped"))
        wants = max(0.0, reaches - self.gone)
        self.gone += wants
        self.passes += passes
        self.burr = self.burr or wants > 0
        if wants > 0:
            self.read = {}
        self.said.append(say(f"{passes} passes; {{c}} counted in all", c=self.counted * NM))

    def _measure(self, at: int, move: Move) -> None:
        self.minutes += 1
        clock = move.word("clock")
        tilt = self.truth.tilt_nm * (1 if clock in ("12", "3") else -1)
        depth = self.truth.ledge_nm + self.gone + tilt - (self.truth.burr_nm if self.burr else 0)
        self.read[clock], self.read_at, self.read_burr = depth * NM, at, self.burr
        words = f"ledge at {clock} o'clock: {{v}} under the deck"
        self.said.append(Phrase(words, (Term("v", depth * NM, "size"),)))


def _after(truth: CutterTruth, moves: Sequence[Move]) -> _Bench:
    bench = _Bench(truth)
    for at, move in enumerate(moves):
        bench.do(at, move)
    return bench


def _facts(truth: CutterTruth) -> FactsPicture:
    def size(name: str, nm: int) -> Fact:
        return Fact(name, Phrase("{v}", (Term("v", nm * NM, "size"),)))

    return FactsPicture(
        "Measured before the cut",
        (
            size("ledge under the deck", truth.ledge_nm),
            size("worn ledge deeper inside by", truth.worn_nm),
            size("flange", truth.flange_nm),
            size("shim", truth.shim_nm),
            size("to stand proud", truth.aim_nm),
        ),
    )


def position(truth: CutterTruth, moves: Sequence[Move]) -> Position:
    """Show cutter and ledge as they are seen from above: what was counted and read, not where the metal is. [m]

    House rule.
    """
    if moves and moves[-1].name == "done":
        return Position(say("Done."), (), (), ())
    now = _after(truth, moves)
    left = 0.0 if now.stop is None else max(0.0, now.stop - now.counted)
    picture = CutPicture("Under the cutter", 0.0, now.counted * NM, left * NM, now.locked, now.burr)
    return Position(say("Cut this ledge so that the liner stands as proud as the card wants it on its shim."),
                    tuple(now.said), (picture, _facts(truth)), _offers(now), Spent(now.minutes, 0.0))  # fmt: skip


def _offers(now: _Bench) -> tuple[Offer, ...]:
    measure = Offer("measure", "Measure the ledge", (choice("clock", "At, o'clock", CLOCK),))
    done = Offer("done", "The ledge is done", (length("to cut", "What came off it in all", 5e-3),), last=True)
    if not now.touched:
        return (Offer("touch", "Bring the cutter down", (choice("datum", "Zero set on the", DATUMS),)), measure)
    cut = Offer(
        "cut",
        "Cut",
        (
            number("passes", "Passes", 1, 40, usual="10"),
            length("feed", "Feed a pass", MOST_FEED_M),
            choice("stopped", "Stop turning at, o'clock", CLOCK),
        ),
        caution="The handle swings past the front of the engine: hands and sleeves clear of it.",
    )
    stop = Offer("stop", "Set the stop", (length("gap", "Feeler between the collars", 3e-3),))
    lock = () if now.stop is None or now.locked else (Offer("lock", "Lock the collar"),)
    return (*lock, stop, cut, Offer("vacuum", "Vacuum the chips"), Offer("stone", "Stone the burr off"), measure, done)


def judged(truth: CutterTruth, moves: Sequence[Move]) -> Judged:
    """Hold the depth reached against the one wanted, and how it was reached. [m] House rule for tolerances."""
    now = _after(truth, moves)
    depth = truth.ledge_nm + now.gone
    chips = _most_passes(moves)
    scored = (
        scored_length("depth reached", "ledge under the deck", depth * NM, truth.wanted_nm * NM, WITHIN_M, "size"),
        scored_length(
            "what came off", "what came off, as you say", moves[-1].number("to cut"), now.gone * NM, WITHIN_M
        ),
        scored_number("four points", "measured on the finished ledge", len(now.read), 4, 0, "of 4"),
        scored_word("burr off", "burr", "left on" if now.burr else "off", "off"),
        scored_word("stop locked", "turned with the collar", "open" if now.loose else "locked", "locked"),
        scored_number("stops moved on", "stopped where the last cut was", float(now.same_place), 0, 0, "times"),
        scored_number(
            "chips out",
            "passes before the vacuum, at most",
            float(max(0, chips - PASSES_TO_VACUUM)),
            0,
            0,
            f"over {PASSES_TO_VACUUM}",
        ),
    )
    over = depth - truth.wanted_nm
    head = (say("As deep as it ought to be, and known to be.") if all(one.is_full for one in scored)
            else say("Too deep by {v}: no metal comes back.", v=over * NM) if over > WITHIN_M / NM
            else say("Too shallow by {v}: there is metal left to take.", v=-over * NM) if over < -WITHIN_M / NM
            else say("The depth is right; how it was reached is not."))  # fmt: skip
    picture = CutPicture("The ledge, now shown", now.gone * NM, now.gone * NM, 0.0, not now.loose, now.burr,
                         truth.to_cut_nm * NM, now.gone * NM)  # fmt: skip
    step = Step("depth wanted", "flange + shim − proud", (
        Term("flange", truth.flange_nm * NM, "size"), Term("shim", truth.shim_nm * NM, "size"),
        Term("proud", truth.aim_nm * NM)), Term("depth", truth.wanted_nm * NM, "size"), "by definition")  # fmt: skip
    return Judged(head, scored, tuple(_traps(truth, now, moves)), (picture,), (step,))


def _most_passes(moves: Sequence[Move]) -> int:
    since = most = 0
    for move in moves:
        since = 0 if move.name == "vacuum" else since + (int(move.number("passes")) if move.name == "cut" else 0)
        most = max(most, since)
    return most


def _traps(truth: CutterTruth, now: _Bench, moves: Sequence[Move]) -> Iterator[TrapMet]:
    over = abs(truth.ledge_nm + now.gone - truth.wanted_nm) * NM
    end = len(moves) - 1
    if over <= WITHIN_M:
        return
    datum = next((move.word("datum") for move in moves if move.name == "touch"), "")
    if datum == "worn ledge":
        yield TrapMet("T1", 0, say("Counted from the worn ledge every cut is {w} out: declare the datum, and predict "
                                   "the height before the first pass.", w=truth.worn_nm * NM))  # fmt: skip
    elif now.read_burr:
        yield TrapMet("T28", now.read_at, say("The burr read {b} shallow: stone it off before the gauge goes on.",
                                              b=truth.burr_nm * NM))  # fmt: skip
    elif now.read_at < 0 and now.stop is not None and abs(now.stop + truth.stop_nm - now.gone) < 1:
        yield TrapMet("T24", end, say("The stop let {s} through: a stop good to so much does not hold a window "
                                      "of {w}.", s=truth.stop_nm * NM, w=2 * WITHIN_M))  # fmt: skip
    elif now.read_at < 0:
        yield TrapMet("T29", end, say("Counted {c}, took {g}: graduations are about what they say. The depth comes "
                                      "from a measurement.", c=now.counted * NM, g=now.gone * NM))  # fmt: skip


CUTTER = Exercise(
    "counterbore-cutter", Area.CUT, "Under the cutter",
    "Cut one ledge for its shim: zero on a datum, stop, lock, feed, vacuum, stone, measure at four points, and say "
    "what came off in all. There is a shaving more in every step than it says, and what is cut stays cut.", 10,
    ("depth reached", "what came off", "four points", "burr off", "stop locked", "stops moved on", "chips out"),
    ("T1", "T24", "T28", "T29"), draw, position, judged,
)  # fmt: skip
