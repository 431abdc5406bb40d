"""Six cylinders with hidden one-sided damage: which to bore first, and when 20, 40 or a sleeve do."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from vallostasis.core.bores.clean_up import smallest_step
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
    say,
    scored_word,
)
from vallostasis.core.practice.pictures import HolePart, HolesPicture, State
from vallostasis.core.trail import Phrase, Step, Term

HOLES = (1, 2, 3, 4, 5, 6)
THOU = 25_400
TWENTY, FORTY, SLEEVE = "20 over", "40 over", "a sleeve"
STEPS_NM = {TWENTY: 20 * THOU, FORTY: 40 * THOU}
HONE_NM = 2 * THOU
# Common practice, no published source; round numbers of this exercise. [min], money
COSTS = {"look": (10, 0), TWENTY: (60, 0), FORTY: (60, 0), SLEEVE: (240, 130)}


@dataclass(frozen=True, slots=True)
class CleanUpTruth:
    """How deep the damage goes on one side of each cylinder. [nm]"""

    depth_nm: tuple[int, ...]

    def needs_nm(self, hole: int) -> int:
        """Return the oversize that cleans a hole on its old centre: twice its depth, and hone. [nm] Common practice."""
        return 2 * self.depth_nm[hole - 1] + HONE_NM

    @property
    def worst(self) -> int:
        """The hole that decides."""
        return max(HOLES, key=self.needs_nm)

    @property
    def size(self) -> str:
        """The smallest step that cleans every hole but what is sleeved. By definition of the ladder."""
        over = [hole for hole in HOLES if self.needs_nm(hole) > STEPS_NM[FORTY]]
        rest = max(self.needs_nm(hole) for hole in HOLES if hole not in over)
        step = smallest_step(0.0, [one * NM for one in STEPS_NM.values()], rest * NM)
        return next(name for name, one in STEPS_NM.items() if step is not None and abs(one * NM - step) < 1e-9)

    def right(self, hole: int) -> str:
        """What is right for a hole."""
        return SLEEVE if self.needs_nm(hole) > STEPS_NM[FORTY] else self.size


def draw(of: Draws) -> CleanUpTruth:
    """Draw six depths, each clear of the steps by more than three times a look's ±; in a third one wants a sleeve."""
    kind = of.pick("kind", (TWENTY, FORTY, SLEEVE))
    # A depth under these cleans at twenty, or at forty; the look is good to a fifth of a thou.
    shallow = [of.nm(f"depth {hole}", 60, 205) for hole in HOLES]
    worst = of.whole("worst", 0, 5)
    if kind == TWENTY:
        shallow[worst] = of.nm("deep", 208, 212)
    if kind != TWENTY:
        shallow[worst] = of.nm("deep", 290, 455)
    if kind == SLEEVE:
        other = of.pick("other", [at for at in range(6) if at != worst])
        shallow[other] = of.nm("deeper", 520, 640)
    return CleanUpTruth(tuple(shallow))


@dataclass(frozen=True, slots=True)
class _Now:
    done: dict[int, str]
    first: int | None
    wasted: tuple[tuple[int, int, str], ...]
    seen: frozenset[int]
    minutes: float
    money: float
    said: tuple[Phrase, ...]


def _after(truth: CleanUpTruth, moves: Sequence[Move]) -> _Now:
    done: dict[int, str] = {}
    wasted: list[tuple[int, int, str]] = []
    said: list[Phrase] = []
    seen: set[int] = set()
    first: int | None = None
    minutes = money = 0.0
    for at, move in enumerate(moves):
        if move.name == "look":
            hole = int(move.word("hole"))
            seen.add(hole)
            minutes += COSTS["look"][0]
            words = f"{hole}: deepest on one side {{d}}; the bore gauge across says {{g}} of wear"
            said.append(say(words, d=truth.depth_nm[hole - 1] * NM, g=truth.depth_nm[hole - 1] / 2 * NM))
        elif move.name == "bore":
            hole, to = int(move.word("hole")), move.word("to")
            first = first or hole
            minutes, money = minutes + COSTS[to][0], money + COSTS[to][1]
            done[hole] = to
            cleans = to == SLEEVE or truth.needs_nm(hole) <= STEPS_NM[to]
            if not cleans:
                wasted.append((at, hole, to))
            said.append(say(f"{hole} to {to}: {'clean' if cleans else 'a mark is left'}"))
    return _Now(done, first, tuple(wasted), frozenset(seen), minutes, money, tuple(said))


def position(truth: CleanUpTruth, moves: Sequence[Move]) -> Position:
    """Show the six, what was seen and done. House rule."""
    if moves and moves[-1].name == "done":
        return Position(say("Done."), (), (), ())
    now = _after(truth, moves)
    row = HolesPicture("Six cylinders, one set of pistons", tuple(_part(truth, now, hole) for hole in HOLES),
                       note="deepest on one side, where looked at")  # fmt: skip
    which = [str(hole) for hole in HOLES]
    offers = (
        Offer("look", "Look at it", (choice("hole", "Cylinder", which),), "10 min"),
        Offer("bore", "Do it", (choice("hole", "Cylinder", which), choice("to", "To", (TWENTY, FORTY, SLEEVE))),
              "60 min, a sleeve 240 and money", "A spinning bar winds in sleeves and gloves: guard on."),
        Offer("done", "All six are done", (), last=True),
    )  # fmt: skip
    return Position(say("One oversize for all that are not sleeved: which, and where do you begin?"), now.said, (row,),
                    offers, Spent(now.minutes, now.money))  # fmt: skip


def _part(truth: CleanUpTruth, now: _Now, hole: int) -> HolePart:
    seen = truth.depth_nm[hole - 1] * NM if hole in now.seen else None
    to = now.done.get(hole)
    state: State = "not read"
    if to is not None:
        state = "in" if to == SLEEVE or truth.needs_nm(hole) <= STEPS_NM[to] else "out"
    return HolePart(hole, seen, state, to or "")


def judged(truth: CleanUpTruth, moves: Sequence[Move]) -> Judged:
    """Count what cleaned up, what was wasted, and whether the worst came first. House rule."""
    now = _after(truth, moves)
    right = [hole for hole in HOLES if now.done.get(hole) == truth.right(hole)]
    heavy = [hole for hole in HOLES if _is_over(truth, now, hole)]
    worst = {truth.worst}
    scored = (
        Scored("right size", "cylinders done right", say(f"{len(right)}"), say("6"), NOTHING, NOTHING,
               10 if len(right) == 6 else 0),
        scored_word("worst first", "begun with", str(now.first or "none"), str(truth.worst),
                    now.first in worst),
        Scored("no cut in vain", "cuts that left a mark", say(f"{len(now.wasted)}"), say("0"), NOTHING, NOTHING,
               0 if now.wasted else 10),
        Scored("metal kept", "cut more than needed", say(f"{len(heavy)}"), say("0"), NOTHING, NOTHING,
               0 if heavy else 10),
    )  # fmt: skip
    missed = [one.name for one in scored if not one.is_full]
    head = (
        say("All six clean at the smallest size.") if not missed else say(f"It cost more than it had to: {missed[0]}.")
    )
    row = HolesPicture("The damage, now shown", tuple(
        HolePart(hole, None, "in" if hole in right else "out",
                 f"yours: {now.done.get(hole, 'nothing')}; right: {truth.right(hole)}", truth.needs_nm(hole) * NM)
        for hole in HOLES), note="oversize each needs")  # fmt: skip
    step = Step(f"cylinder {truth.worst}", "2·depth + hone", (
        Term("depth", truth.depth_nm[truth.worst - 1] * NM), Term("hone", HONE_NM * NM)),
        Term("needs", truth.needs_nm(truth.worst) * NM), "common practice")  # fmt: skip
    return Judged(head, scored, tuple(_traps(truth, now)), (row,), (step,))


def _is_over(truth: CleanUpTruth, now: _Now, hole: int) -> bool:
    order = [TWENTY, FORTY, SLEEVE]
    to = now.done.get(hole)
    return to is not None and order.index(to) > order.index(truth.right(hole))


def _traps(truth: CleanUpTruth, now: _Now) -> Iterator[TrapMet]:
    for at, hole, to in now.wasted:
        yield TrapMet(
            "T17",
            at,
            say(
                f"Cylinder {hole} is {{d}} deep on one side: on the old centre that takes twice as "
                f"much, and the hone. {to} leaves a mark.",
                d=truth.depth_nm[hole - 1] * NM,
            ),
        )
    heavy = [hole for hole in HOLES if _is_over(truth, now, hole)]
    if heavy:
        yield TrapMet(
            "T46",
            len(now.said) - 1,
            say(f"Cylinder {heavy[0]} needs {{n}}: the larger size spends a re-bore.", n=truth.needs_nm(heavy[0]) * NM),
        )


CLEAN_UP = Exercise(
    "clean-up", Area.BORE, "Will it clean up?",
    "Six worn cylinders, scored on one side. Look, bore the one that decides first, and stop at 20, at 40, or at a "
    "sleeve: metal, time and money count.", 6,
    ("right size", "worst first", "no cut in vain", "metal kept"), ("T17", "T46"), draw, position, judged,
)  # fmt: skip
