"""Who plays at the counterbore: the detective and the cutter."""

from collections.abc import Sequence

from tests.core.practice.players import NM, Player
from vallostasis.core.practice.cutter import CLOCK, CUTTER, CutterTruth
from vallostasis.core.practice.detective import DETECTIVE, FLANGE, HOLES, LAND, LEDGE, DetectiveTruth, state_of
from vallostasis.core.practice.exercise import Move


def _read(hole: int, land: str = "inner lip", clamp: str = "to the card") -> Move:
    return Move("read", {"hole": str(hole), "land": land, "clamp": clamp})


def _judge(truth: DetectiveTruth, cause: str, values_m: dict[int, float]) -> Move:
    return Move("judge", {"cause": cause, **{f"hole {hole}": state_of(values_m[hole]) for hole in HOLES}})


def _true(truth: DetectiveTruth) -> dict[int, float]:
    return {hole: truth.stands(hole, hole) * NM for hole in HOLES}


def find(truth: DetectiveTruth) -> list[Move]:
    """Ask which land the limits belong to, read every hole there, measure the parts of the low one."""
    parts = [Move("ledge", {"hole": str(truth.low)}), Move("flange", {"hole": str(truth.low)})]
    return [Move("call"), *(_read(hole) for hole in HOLES), *parts, _judge(truth, truth.cause, _true(truth))]


def _other(truth: DetectiveTruth) -> str:
    """What somebody takes it for who reads on one land only."""
    return LEDGE if truth.cause == LAND else LAND


def believe_the_flat(truth: DetectiveTruth) -> list[Move]:
    first = {hole: truth.reads(hole, hole, hole, truth.first_land, "to the card") for hole in HOLES}
    return [Move("ledge", {"hole": str(truth.low)}), _judge(truth, _other(truth), first)]


def keep_the_others(truth: DetectiveTruth) -> list[Move]:
    """The right land for the low hole, and the first verdicts for the rest."""
    first = {hole: truth.reads(hole, hole, hole, truth.first_land, "to the card") for hole in HOLES}
    true = _true(truth)
    return [Move("call"), _read(truth.low), _judge(truth, truth.cause, {**first, truth.low: true[truth.low]})]


def cure(truth: DetectiveTruth) -> list[Move]:
    return [Move("cut"), *find(truth)]


def buy(truth: DetectiveTruth) -> list[Move]:
    return [Move("buy"), *find(truth)]


def swap_twice(truth: DetectiveTruth) -> list[Move]:
    swaps = [Move("swap", {"one": "1", "other": "2"}), Move("swap", {"one": "1", "other": "2"})]
    return [*swaps, *find(truth)]


def read_free(truth: DetectiveTruth) -> list[Move]:
    """Every hole read free: a hole near its limit is judged by what lifts it."""
    moves = [Move("call"), *(_read(hole, clamp="free") for hole in HOLES)]
    off = {hole: value + truth.free_nm * NM for hole, value in _true(truth).items()}
    return [*moves, _judge(truth, truth.cause, off)]


def cut_right(truth: CutterTruth) -> list[Move]:
    """Allow for what the stop lets through, cut to the stop, stone, measure at four points."""
    return [
        Move("touch", {"datum": "deck"}),
        Move("stop", {"gap": (truth.to_cut_nm - truth.stop_nm) * NM}),
        *_cuts(10, 60e-6),
        Move("vacuum"),
        *_cuts(10, 60e-6),
        Move("stone"),
        *(Move("measure", {"clock": clock}) for clock in CLOCK),
        Move("done", {"to cut": truth.to_cut_nm * NM}),
    ]


def _cuts(passes: int, feed_m: float) -> Sequence[Move]:
    return (Move("cut", {"passes": float(passes), "feed": feed_m}),)


def from_the_worn_ledge(truth: CutterTruth) -> list[Move]:
    return [Move("touch", {"datum": "worn ledge"}), *cut_right(truth)[1:]]


def trust_the_stop(truth: CutterTruth) -> list[Move]:
    moves = cut_right(truth)
    moves[1] = Move("stop", {"gap": truth.to_cut_nm * NM})
    return [*moves[:5], Move("stone"), moves[-1]]


def count(truth: CutterTruth) -> list[Move]:
    far = Move("stop", {"gap": 2e-3})
    feed = truth.to_cut_nm * NM / 20
    return [Move("touch", {"datum": "deck"}), far, *_cuts(10, feed), Move("vacuum"), *_cuts(10, feed), Move("stone"),
            Move("done", {"to cut": truth.to_cut_nm * NM})]  # fmt: skip


def measure_over_the_burr(truth: CutterTruth) -> list[Move]:
    feed = (truth.to_cut_nm + truth.burr_nm) * NM / (1 + truth.feeds_permille / 1000) / 20
    far = Move("stop", {"gap": 2e-3})
    return [
        Move("touch", {"datum": "deck"}),
        far,
        *_cuts(10, feed),
        Move("vacuum"),
        *_cuts(10, feed),
        *(Move("measure", {"clock": clock}) for clock in CLOCK),
        Move("done", {"to cut": truth.to_cut_nm * NM}),
    ]


def no_lock(truth: CutterTruth) -> list[Move]:
    moves = cut_right(truth)
    return [moves[0], *moves[2:]]


PLAYERS = (
    Player(DETECTIVE, "perfect", find),
    Player(DETECTIVE, "another cause", believe_the_flat, skill="cause found"),
    Player(DETECTIVE, "buys a liner", buy, skill="money left"),
    Player(DETECTIVE, "cuts first", cure, skill="nothing spoiled"),
    Player(DETECTIVE, "swaps twice", swap_twice, "T32"),
    Player(CUTTER, "perfect", cut_right),
    Player(CUTTER, "from the worn ledge", from_the_worn_ledge, "T1"),
    Player(CUTTER, "trusts the stop", trust_the_stop, "T24"),
    Player(CUTTER, "counts", count, "T29"),
    Player(CUTTER, "over the burr", measure_over_the_burr, "T28"),
    Player(CUTTER, "collar open", no_lock, skill="stop locked"),
)
# Traps of the detective that are there only where their cause is: who steps into each, and where it counts.
WHERE_IT_IS = (
    ("T2", believe_the_flat, lambda truth: truth.cause == LAND),
    ("T3", keep_the_others, lambda truth: truth.cause == LAND),
    ("T30", cure, lambda truth: truth.cause == LAND),
    ("T31", buy, lambda truth: truth.cause != FLANGE),
    ("T51", read_free, lambda truth: any(
        state_of(value) != state_of(value + truth.free_nm * NM) for value in _true(truth).values())),
)  # fmt: skip
