"""The low liner: one hole reads low, and something explains it. Readings, swaps, calls and new parts have their price.

Three things may be behind it: limits that belong to another land than the one that was read, which then lifts every
hole; a ledge cut too deep; a liner with a thin flange. Only the first makes the other five read wrong as well.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

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
LEAST_UM, GREATEST_UM = 50, 150
LANDS = ("outer flat", "inner lip")
CLAMPS = ("to the card", "free")
LAND, LEDGE, FLANGE = "read on another land than the limits", "ledge too deep there", "flange too thin there"
CAUSES = (LAND, LEDGE, FLANGE)
# Minutes and money of each thing. Common practice, no published source; a house choice of round numbers.
COSTS = {"read": (5, 0), "swap": (90, 0), "flange": (15, 0), "ledge": (10, 0), "zero": (2, 0), "call": (20, 5),
         "buy": (30, 180), "cut": (240, 80), "skim": (360, 300)}  # fmt: skip
MOST_MINUTES, MOST_MONEY = 240, 60


@dataclass(frozen=True, slots=True)
class DetectiveTruth:
    """Six holes on a grid of nanometres: flange on its lip, ledge, the lip over the flat, which hole is low. [nm]"""

    cause: str
    low: int
    lip_nm: int
    flange_nm: tuple[int, ...]
    ledge_nm: tuple[int, ...]
    free_nm: int
    noise_nm: tuple[int, ...]

    def stands(self, liner: int, hole: int) -> int:
        """Return how far the lip of a liner stands over the deck in a hole. [nm] By definition: flange less ledge."""
        return self.flange_nm[liner - 1] - self.ledge_nm[hole - 1]

    @property
    def card_land(self) -> str:
        """The land that the limits belong to."""
        return "inner lip"

    @property
    def first_land(self) -> str:
        """The land that was read as found."""
        return "outer flat" if self.cause == LAND else "inner lip"

    def reads(self, at: int, liner: int, hole: int, land: str, clamp: str) -> float:
        """Return what a gauge reads there. [m] Stands, less the lip on the flat, more where nothing holds it down.

        House rule.
        """
        flat = self.lip_nm if land == "outer flat" else 0
        free = self.free_nm if clamp == "free" else 0
        return NM * (self.stands(liner, hole) - flat + free + self.noise_nm[at % len(self.noise_nm)])


def draw(of: Draws) -> DetectiveTruth:
    """Draw a block whose low hole, and whose other five, all lie clear of the limits, read or true. House rule."""
    cause = of.pick("cause", (LAND, LAND, LEDGE, FLANGE))
    low = of.whole("low", 1, 6)
    lip = of.nm("lip", 46, 60)
    shift = lip if cause == LAND else 0
    # As found: clear of both limits, and clear of them again once the lip is added.
    turned = tuple(range(166 - shift // 1000, 135)) if cause == LAND else tuple(range(66, 135))
    kept = tuple(range(66, 134 - shift // 1000)) if cause == LAND else turned
    flips = of.pick("flips", [hole for hole in HOLES if hole != low])
    shown = {hole: of.pick(f"shown {hole}", turned if hole == flips or of.whole(f"turn {hole}", 0, 2) == 0 else kept)
             for hole in HOLES}  # fmt: skip
    shown[low] = of.whole("so low", 22, 33)
    ledge = [of.nm(f"ledge {hole}", 8_880, 8_900) for hole in HOLES]
    flange = [ledge[hole - 1] + shown[hole] * 1000 + shift for hole in HOLES]
    if cause == LEDGE:
        deep = of.nm("deep", 60, 80)
        ledge[low - 1] += deep
        flange[low - 1] += deep
    return DetectiveTruth(cause, low, lip, tuple(flange), tuple(ledge), of.nm("free", 20, 30),
                          tuple(of.whole(f"noise {at}", -1500, 1500) for at in range(31)))  # fmt: skip


@dataclass(frozen=True, slots=True)
class Read:
    """The newest reading of a hole: where in the moves, land and clamp, what it said. [m]"""

    at: int
    land: str
    clamp: str
    value_m: float


@dataclass(frozen=True, slots=True)
class Now:
    """What stands after some moves: which liner is where, the newest reading of each hole, what was said and spent."""

    liner: dict[int, int]
    read: dict[int, Read]
    said: tuple[Phrase, ...]
    spent: Spent
    traps: tuple[TrapMet, ...]


def _after(truth: DetectiveTruth, moves: Sequence[Move]) -> Now:
    liner = {hole: hole for hole in HOLES}
    read = {hole: Read(-1, truth.first_land, "to the card",
                       truth.reads(hole, hole, hole, truth.first_land, "to the card")) for hole in HOLES}  # fmt: skip
    said: list[Phrase] = []
    traps: list[TrapMet] = []
    minutes = money = 0.0
    unread: set[int] = set()
    for at, move in enumerate(moves):
        cost = COSTS.get(move.name, (0, 0))
        minutes, money = minutes + cost[0], money + cost[1]
        if move.name == "read":
            hole, land, clamp = int(move.word("hole")), move.word("land"), move.word("clamp")
            read[hole] = Read(at, land, clamp, truth.reads(at + 7, liner[hole], hole, land, clamp))
            unread.discard(hole)
            said.append(say(f"hole {hole} on the {land}, {clamp}: {{v}}", v=read[hole].value_m))
        elif move.name == "swap":
            one, other = int(move.word("one")), int(move.word("other"))
            if unread:
                traps.append(TrapMet("T32", at, say("Swapped again before the first swap was read: what went with the "
                                                    "liner and what stayed with the hole is lost.")))  # fmt: skip
            liner[one], liner[other] = liner[other], liner[one]
            unread |= {one, other}
            said.append(say(f"the liners of {one} and {other} change places"))
        else:
            said.append(_found(truth, move, liner, at))
            traps += list(_spoiled(truth, move, at))
    return Now(liner, read, tuple(said), Spent(minutes, money), tuple(traps))


def _found(truth: DetectiveTruth, move: Move, liner: dict[int, int], at: int) -> Phrase:
    noise = truth.noise_nm[(at + 3) % len(truth.noise_nm)]
    if move.name == "flange":
        hole = int(move.word("hole"))
        return say(f"flange of the liner in {hole}, on its lip: {{v}} over 8.9 mm",
                   v=NM * (truth.flange_nm[liner[hole] - 1] - 8_900_000 + noise))  # fmt: skip
    if move.name == "ledge":
        hole = int(move.word("hole"))
        return say(f"ledge of {hole}: {{v}} under 8.9 mm deep", v=NM * (8_900_000 - truth.ledge_nm[hole - 1] + noise))
    return say({
        "zero": "the gauge stands at nought on the deck",
        "call": f"the maker's desk: the limits belong to the {truth.card_land}, held down to the card",
        "buy": "a new liner of the same make reads like the old one within a hair, in the same hole"
               if truth.cause != FLANGE else "a new liner in that hole reads higher than the old one",
        "cut": "the ledge is cut and shimmed: the hole is lifted for good",
        "skim": "the deck is skimmed: every hole stands prouder for good",
    }.get(move.name, ""))  # fmt: skip


def _spoiled(truth: DetectiveTruth, move: Move, at: int) -> Iterator[TrapMet]:
    if move.name in ("cut", "skim") and truth.cause == LAND:
        yield TrapMet("T30", at, say("On the land of the limits that hole was in: this lifts it out. Try a cure on the "
                                     "true land first."))  # fmt: skip
    if move.name == "buy" and truth.cause != FLANGE:
        yield TrapMet("T31", at, say("No part was bad: what all readings share comes first."))


def position(truth: DetectiveTruth, moves: Sequence[Move]) -> Position:
    """Show the block as it was read last, and everything that can be done about it. House rule."""
    if moves and moves[-1].name == "judge":
        return Position(say("Judged."), (), (), ())
    now = _after(truth, moves)
    head = say("Hole {hole} reads low: {v}, where {least} to {most} is asked for. The other five read in.".replace(
        "{hole}", str(truth.low)), v=_after(truth, ()).read[truth.low].value_m, least=LEAST_UM * 1e-6,
        most=GREATEST_UM * 1e-6)  # fmt: skip
    row = HolesPicture("As read last", tuple(_part(hole, one) for hole, one in now.read.items()), LEAST_UM * 1e-6,
                       GREATEST_UM * 1e-6)  # fmt: skip
    return Position(head, now.said, (row,), OFFERS, now.spent)


def state_of(value_m: float) -> State:
    """Say how a height stands to the limits. [m] House rule."""
    return "in" if LEAST_UM * 1e-6 <= value_m <= GREATEST_UM * 1e-6 else "out"


def _part(hole: int, one: Read) -> HolePart:
    return HolePart(hole, one.value_m, state_of(one.value_m), f"{one.land}, {one.clamp}")


_WHICH = [str(hole) for hole in HOLES]


def _price(name: str) -> str:
    minutes, money = COSTS[name]
    return f"{minutes} min" + (f", {money} of money" if money else "")


OFFERS = (
    Offer("read", "Read it", (choice("hole", "Hole", _WHICH), choice("land", "Land", LANDS),
                              choice("clamp", "Held", CLAMPS)), _price("read")),
    Offer("ledge", "Measure its ledge", (choice("hole", "Hole", _WHICH),), _price("ledge")),
    Offer("flange", "Draw the liner, measure its flange", (choice("hole", "Hole", _WHICH),), _price("flange"),
          "A liner is heavy and its edges are sharp: lift it with somebody or with the hoist."),
    Offer("call", "Ring the maker's desk", (), _price("call")),
    Offer("zero", "Look at the zero of the gauge", (), _price("zero")),
    Offer("swap", "Change two liners", (choice("one", "Of hole", _WHICH), choice("other", "With hole", _WHICH, "2")),
          _price("swap"), "Lift with the hoist; keep fingers out from under the flange."),
    Offer("buy", "Buy a new liner", (), _price("buy")),
    Offer("cut", "Cut and shim that hole", (), _price("cut"), "A spinning cutter grabs: guard, gloves off, chips away "
          "with a brush."),
    Offer("skim", "Skim the deck", (), _price("skim"), "A surfacer throws chips: glasses, guard."),
    Offer("judge", "That is how it is", (choice("cause", "What it was", CAUSES),
                                         *(choice(f"hole {hole}", f"Hole {hole}", ("in", "out")) for hole in HOLES)),
          last=True),
)  # fmt: skip


def judged(truth: DetectiveTruth, moves: Sequence[Move]) -> Judged:
    """Hold cause and six verdicts against the truth; count what it took. House rule for what may be spent."""
    now, answer = _after(truth, moves), moves[-1]
    true = {hole: NM * truth.stands(now.liner[hole], hole) for hole in HOLES}
    given = {hole: answer.word(f"hole {hole}") for hole in HOLES}
    right = [hole for hole in HOLES if given[hole] == state_of(true[hole])]
    spoiled = [move.name for move in moves if move.name in ("cut", "skim")]
    scored = (
        scored_word("cause found", "what it was", answer.word("cause"), truth.cause),
        Scored("every hole judged again", "holes judged right", say(f"{len(right)}"), say("6"), NOTHING, NOTHING,
               10 if len(right) == 6 else 0),
        scored_word("nothing spoiled", "metal taken for good", ", ".join(spoiled) or "none", "none"),
        _within("money left", "money", now.spent.money, MOST_MONEY, ""),
        _within("time left", "time", now.spent.minutes, MOST_MINUTES, " min"),
    )  # fmt: skip
    row = HolesPicture(
        "The block, now shown",
        tuple(
            HolePart(hole, one.value_m, state_of(true[hole]), f"yours: {given[hole]}", true[hole])
            for hole, one in now.read.items()
        ),
        LEAST_UM * 1e-6,
        GREATEST_UM * 1e-6,
        "dot: read last, bar: true",
    )
    step = Step("what stands", "flange − ledge, on the land of the limits", (
        Term("lip", truth.lip_nm * NM, note="over the outer flat"),), Term(f"hole {truth.low}", true[truth.low]),
        "by definition")  # fmt: skip
    full = all(one.is_full for one in scored)
    head = say("Found, and every hole judged on the right land.") if full else say(f"It was: {truth.cause}.")
    return Judged(head, scored, (*now.traps, *_traps(truth, now, answer, len(moves) - 1)), (row,), (step,))


def _within(skill: str, name: str, spent: float, most: float, unit: str) -> Scored:
    return Scored(skill, name, say(f"{spent:.0f}{unit}"), NOTHING, NOTHING, say(f"{most:.0f}{unit}"),
                  10 if spent <= most else 0)  # fmt: skip


def _traps(truth: DetectiveTruth, now: Now, answer: Move, end: int) -> Iterator[TrapMet]:
    if truth.cause == LAND and answer.word("cause") != LAND:
        yield TrapMet("T2", end, say("Limits on the lip, readings on the flat: {lip} apart, the same at every hole.",
                                     lip=truth.lip_nm * NM))  # fmt: skip
    for hole in HOLES:
        is_wrong = answer.word(f"hole {hole}") != state_of(NM * truth.stands(now.liner[hole], hole))
        one = now.read[hole]
        if is_wrong and one.clamp == "free":
            yield TrapMet("T51", end, say(f"Hole {hole} was read free: {{f}} higher than held down.",
                                          f=truth.free_nm * NM))  # fmt: skip
        elif is_wrong and truth.cause == LAND and hole != truth.low and one.land != truth.card_land:
            yield TrapMet(
                "T3",
                end,
                say(
                    f"Hole {hole} was read in on the flat: on the land of the limits it is over the "
                    "greatest. Another land opens every verdict again."
                ),
            )


DETECTIVE = Exercise(
    "low-liner-detective", Area.CUT, "The low liner",
    "One hole of six reads low. Find what is behind it without spending more than you must, and say at the end how "
    "each of the six stands. What is cut stays cut.", 12,
    ("cause found", "every hole judged again", "nothing spoiled", "money left", "time left"),
    ("T2", "T3", "T30", "T31", "T32", "T51"), draw, position, judged,
)  # fmt: skip
