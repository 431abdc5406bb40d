"""Boring on the old centre: find the middle over pits, take a light cut, keep the ledger on the diameter, stop for the
hone.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from math import cos, hypot, radians

from vallostasis.core.boring.centring import offset_of_bar
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
    say,
    scored_length,
    scored_word,
    shown,
)
from vallostasis.core.practice.pictures import Fact, FactsPicture
from vallostasis.core.trail import Phrase, Step, Term

CLOCK = tuple(str(angle) for angle in range(0, 360, 45))
DEPTHS = ("near the top", "at the bottom")
# A bar may be off by so much; a first cut may go in by so much a side; a size within so much. House choices.
CENTRE_M, LIGHT_M, WITHIN_M = 25e-6, 120e-6, 8e-6
GAP_NM = 900_000


@dataclass(frozen=True, slots=True)
class BoreTruth:
    """A pitted bore, its cone of wear, a bar off its middle, a tool that springs. [nm], [1]"""

    start_nm: int
    cone_nm: int
    bar_nm: tuple[int, int]
    pits_nm: tuple[int, ...]
    finish_nm: int
    stock_nm: int
    spring_permille: int

    @property
    def bored_nm(self) -> int:
        """Return the size to bore to. [nm] Finished size less what is left for the hone. House rule."""
        return self.finish_nm - self.stock_nm


def gap_nm(bar_nm: tuple[float, float], degrees: float) -> float:
    """Gap of a feeler beside a bar that stands so far off the middle: it bridges the pits. [nm], [deg]

    By definition of an offset.
    """
    return GAP_NM - (bar_nm[0] * cos(radians(degrees)) + bar_nm[1] * cos(radians(degrees - 90)))


def draw(of: Draws) -> BoreTruth:
    """Draw an offset, pits, a cone and a spring that each mislead by more than three times what would still do.

    House rule.
    """
    start = of.whole("start", 100_000_000, 112_000_000, 500_000)
    pits = [0] * len(CLOCK)
    for at in of.shuffled("pits", range(len(CLOCK)))[:3]:
        pits[at] = of.nm(f"pit {at}", 200, 400)
    return BoreTruth(
        start,
        of.nm("cone", 150, 250),
        (of.sign("x") * of.nm("bar x", 120, 280), of.sign("y") * of.nm("bar y", 120, 280)),
        tuple(pits),
        start + of.nm("oversize", 980, 1060),
        of.nm("stock", 55, 70),
        of.whole("spring", 60, 80),
    )


@dataclass(slots=True)
class _Bench:
    bar_nm: tuple[float, float]
    tool_nm: float
    size_nm: float
    cuts: list[float] = field(default_factory=list)
    first_m: float = 0.0
    read_at: int = -1
    read_depths: set[str] = field(default_factory=set)
    cut_at: int = -1
    minutes: float = 0.0
    said: list[Phrase] = field(default_factory=list)
    last_m: float = 0.0
    before_nm: float = 0.0


def after(truth: BoreTruth, moves: Sequence[Move]) -> "_Bench":
    """Return bar and bore after some moves. House rule."""
    now = _Bench((float(truth.bar_nm[0]), float(truth.bar_nm[1])), truth.start_nm, truth.start_nm)
    for at, move in enumerate(moves):
        if move.name == "indicator":
            now.minutes += 1
            angle = int(move.word("at"))
            # An indicator falls into the pits.
            shows = gap_nm(now.bar_nm, angle) - GAP_NM + truth.pits_nm[angle // 45]
            now.said.append(say(f"indicator at {angle}°: {{v}}", v=shows * NM))
        elif move.name == "feelers":
            now.minutes += 6
            gaps = [gap_nm(now.bar_nm, angle) for angle in (0, 90, 180, 270)]
            words = "four feelers, at 0°, 90°, 180°, 270°: {a}, {b}, {c}, {d}"
            now.said.append(say(words, a=gaps[0] * NM, b=gaps[1] * NM, c=gaps[2] * NM, d=gaps[3] * NM))
        elif move.name == "shift":
            now.bar_nm = (now.bar_nm[0] + move.number("along") / NM, now.bar_nm[1] + move.number("across") / NM)
            now.minutes += 4
            now.said.append(say("bar shifted {x} and {y}", x=move.number("along"), y=move.number("across")))
        elif move.name == "cut":
            _cut(truth, now, at, move.number("dial"))
        elif move.name == "measure":
            _measure(truth, now, at, move.word("depth"))
    return now


def _cut(truth: BoreTruth, now: _Bench, at: int, dial_m: float) -> None:
    now.before_nm = now.size_nm
    now.tool_nm += 2 * dial_m / NM
    # The tool springs back by a share of what it takes; a pass at the same setting takes that too.
    now.size_nm = now.tool_nm - truth.spring_permille / 1000 * max(0.0, now.tool_nm - now.size_nm)
    now.first_m = now.first_m or dial_m
    now.last_m = dial_m
    now.cuts.append(dial_m)
    now.cut_at = at
    now.minutes += 18
    now.read_depths = set()
    now.said.append(say("the dial went in {d}; {s} in all", d=dial_m, s=sum(now.cuts)))


def _measure(truth: BoreTruth, now: _Bench, at: int, depth: str) -> None:
    now.minutes += 3
    now.read_at = at
    now.read_depths.add(depth)
    size = now.size_nm if depth == "at the bottom" else max(now.size_nm, truth.start_nm + truth.cone_nm)
    now.said.append(Phrase(f"{depth}: {{v}}", (Term("v", size * NM, "size"),)))


def position(truth: BoreTruth, moves: Sequence[Move]) -> Position:
    """Show what is on the card and in the ledger. House rule."""
    if moves and moves[-1].name == "done":
        return Position(say("Done."), (), (), ())
    now = after(truth, moves)
    sheet = FactsPicture("Card and ledger", (
        Fact("finished size", shown(truth.finish_nm * NM, "size"), "truth"),
        Fact("left for the hone", shown(truth.stock_nm * NM)),
        Fact("bore to", shown(truth.bored_nm * NM, "size")),
        Fact("the dial counts", say("the tool's way in: a side")),
        *(Fact(f"cut {at}", shown(cut)) for at, cut in enumerate(now.cuts, start=1)),
    ))  # fmt: skip
    offers = (
        Offer("feelers", "Four feelers round the bar"),
        Offer("indicator", "Indicator", (choice("at", "At, °", CLOCK),)),
        Offer("shift", "Shift the bar", (length("along", "Along 0°", 2e-3), length("across", "Along 90°", 2e-3))),
        Offer("cut", "Cut", (length("dial", "Dial in", 1e-3),), caution="A spinning bar winds in sleeves and gloves: "
              "guard on, chips with a brush, stop it to measure."),
        Offer("measure", "Measure the bore", (choice("depth", "Where", DEPTHS),)),
        Offer("done", "The hone may come", (), last=True),
    )  # fmt: skip
    return Position(say("Bore it out on its old centre, and stop where the hone begins."), tuple(now.said), (sheet,),
                    offers, Spent(now.minutes, 0.0))  # fmt: skip


def judged(truth: BoreTruth, moves: Sequence[Move]) -> Judged:
    """Hold centre, first cut and size against what they ought to be. [m] House rule for tolerances."""
    now = after(truth, moves)
    off = hypot(*now.bar_nm) * NM
    clean = now.size_nm >= truth.start_nm + truth.cone_nm + 2 * off / NM
    scored = (
        scored_length("centre", "bar off the middle", off, 0.0, CENTRE_M),
        scored_word("light first cut", "first cut", "light" if 0 < now.first_m <= LIGHT_M else "heavy", "light"),
        scored_length("bored size", "size at the end", now.size_nm * NM, truth.bored_nm * NM, WITHIN_M, "size"),
        scored_word("cleaned up", "cut all round, to the top", "yes" if clean else "no", "yes"),
        scored_word("read after the last cut", "read at both ends",
                    "yes" if now.read_depths == set(DEPTHS) else "no", "yes"),
    )  # fmt: skip
    missed = [one.name for one in scored if not one.is_full]
    head = say("On its centre, clean, and stock left for the hone.") if not missed else say(f"Not right: {missed[0]}.")
    x, y, _, _ = offset_of_bar([gap_nm(truth.bar_nm, angle) * NM for angle in (0, 90, 180, 270)])
    steps = (
        Step("bar off the middle", "(g180 − g0)/2, (g270 − g90)/2", (Term("x", x), Term("y", y)),
             Term("off", hypot(x, y)), "closed form"),
        Step("bored", "start + 2·Σ dial − spring", (Term("start", truth.start_nm * NM, "size"),
             Term("Σ dial", sum(now.cuts))), Term("size", now.size_nm * NM, "size"), "by definition"),
    )  # fmt: skip
    ledger = FactsPicture("The ledger, now whole", (
        Fact("start, at the bottom", shown(truth.start_nm * NM, "size")),
        Fact("worn near the top, larger by", shown(truth.cone_nm * NM)),
        Fact("dial in, in all, a side", shown(sum(now.cuts))),
        Fact("that is on the diameter", shown(2 * sum(now.cuts))),
        Fact("the tool sprang back", shown((now.tool_nm - now.size_nm) * NM), "truth"),
        Fact("bored size", shown(now.size_nm * NM, "size"), "truth"),
        Fact("left for the hone", shown((truth.finish_nm - now.size_nm) * NM), "truth"),
    ))  # fmt: skip
    return Judged(head, scored, tuple(_traps(truth, now, moves)), (ledger,), steps)


def _traps(truth: BoreTruth, now: _Bench, moves: Sequence[Move]) -> Iterator[TrapMet]:
    over = (now.size_nm - truth.bored_nm) * NM
    if abs(over) <= WITHIN_M:
        return
    wanted = (truth.bored_nm - now.before_nm) * NM
    firsts = [move.word("depth") for move in moves if move.name == "measure"]
    if abs(now.last_m - wanted) <= WITHIN_M:
        yield TrapMet("T20", now.cut_at, say("The dial counts a side: {d} in is {t} on the diameter.", d=now.last_m,
                                             t=2 * now.last_m))  # fmt: skip
    elif firsts and "at the bottom" not in firsts:
        yield TrapMet(
            "T15",
            now.cut_at,
            say(
                "Worn as a cone it starts at another size at each depth: {c} larger at the top than at the bottom.",
                c=truth.cone_nm * NM,
            ),
        )
    elif now.read_at < now.cut_at:
        yield TrapMet("T19", now.cut_at, say("The cuts add up to {s} on the diameter and the bore grew {g}: the tool "
                                             "springs. Read it before the last cut.", s=2 * sum(now.cuts),
                                             g=(now.size_nm - truth.start_nm) * NM))  # fmt: skip


CENTRE = Exercise(
    "bore-on-centre", Area.BORE, "Bore on the old centre",
    "A pitted bore and a bar that is off its middle. Find the middle, take a light cut, keep the ledger on the "
    "diameter, and stop with what the hone needs.", 10,
    ("centre", "light first cut", "bored size", "cleaned up", "read after the last cut"), ("T15", "T19", "T20"), draw,
    position, judged,
)  # fmt: skip
