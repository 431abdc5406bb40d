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


def _touch(datum: str = "deck") -> Move:
    return Move("touch", {"datum": datum})


def _stop(gap_m: float) -> list[Move]:
    return [Move("stop", {"gap": gap_m}), Move("lock")]


def _cut(feed_m: float, stopped: Sequence[str] = ("12", "3")) -> list[Move]:
    """Twenty passes, chips out after ten, stopped at another place each time."""
    first, then = (Move("cut", {"passes": 10.0, "feed": feed_m, "stopped": where}) for where in stopped)
    return [first, Move("vacuum"), then]


def _measured(truth: CutterTruth, stone: bool = True, read: bool = True) -> list[Move]:
    points = [Move("measure", {"clock": clock}) for clock in CLOCK]
    said = Move("done", {"to cut": truth.to_cut_nm * NM})
    return [*([Move("stone")] if stone else []), *(points if read else []), said]


def cut_right(truth: CutterTruth, datum: str = "deck", stopped: Sequence[str] = ("12", "3")) -> list[Move]:
    """Allow for what the stop lets through, cut to the stop, stone, measure at four points."""
    stop = _stop((truth.to_cut_nm - truth.stop_nm) * NM)
    return [_touch(datum), *stop, *_cut(60e-6, stopped), *_measured(truth)]


def trust_the_stop(truth: CutterTruth) -> list[Move]:
    return [_touch(), *_stop(truth.to_cut_nm * NM), *_cut(60e-6), *_measured(truth, read=False)]


def count(truth: CutterTruth) -> list[Move]:
    return [_touch(), *_stop(2e-3), *_cut(truth.to_cut_nm * NM / 20), *_measured(truth, read=False)]


def measure_over_the_burr(truth: CutterTruth) -> list[Move]:
    feed = (truth.to_cut_nm + truth.burr_nm) * NM / (1 + truth.feeds_permille / 1000) / 20
    return [_touch(), *_stop(2e-3), *_cut(feed), *_measured(truth, stone=False)]


def no_lock(truth: CutterTruth) -> list[Move]:
    return [move for move in cut_right(truth) if move.name != "lock"]


PLAYERS = (
    Player(DETECTIVE, "perfect", find),
    Player(DETECTIVE, "another cause", believe_the_flat, skill="cause found"),
    Player(DETECTIVE, "buys a liner", buy, skill="money left"),
    Player(DETECTIVE, "cuts first", cure, skill="nothing spoiled"),
    Player(DETECTIVE, "swaps twice", swap_twice, "T32"),
    Player(CUTTER, "perfect", cut_right),
    Player(CUTTER, "from the worn ledge", lambda truth: cut_right(truth, "worn ledge"), "T1"),
    Player(CUTTER, "always at twelve", lambda truth: cut_right(truth, stopped=("12", "12")), skill="stops moved on"),
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
