"""Who plays at bores: the hone, the bar, the clean-up; and who puts the work in order."""

from collections.abc import Sequence

from tests.core.practice.players import NM, Player
from vallostasis.core.practice.centring import CENTRE, DEPTHS, BoreTruth
from vallostasis.core.practice.clean_up_game import CLEAN_UP, FORTY, HOLES, SLEEVE, TWENTY, CleanUpTruth
from vallostasis.core.practice.exercise import Move
from vallostasis.core.practice.hone import (
    ALL,
    CLEAN,
    HONE,
    IRON_PER_K,
    LEVELS,
    ROOM_C,
    STRIPED,
    TAKES_NM,
    HoneTruth,
    begun,
    done,
)
from vallostasis.core.practice.sequence import (
    BORE,
    DECK,
    GAP,
    HEAT,
    LIST,
    MAINS,
    MARK,
    MATCH,
    PRESS,
    SEQUENCE,
    WASH,
    SequenceTruth,
)
from vallostasis.core.practice.sequence import HONE as HONED


def _stroke(strokes: float, grit: str, where: str, above: float = 25.0, below: float = 25.0) -> Move:
    given = {"strokes": strokes, "grit": grit, "where": where, "tension": "light", "above": above, "below": below}
    return Move("hone", given)


class _Honing:
    """Somebody at the hone, who knows how much is left."""

    def __init__(self, truth: HoneTruth) -> None:
        self.truth, self.now = truth, begun(truth)
        self.moves: list[Move] = []

    def do(self, move: Move) -> None:
        done(self.truth, self.now, len(self.moves), move)
        self.moves.append(move)

    def down_to(self, level: str, until_nm: float, grit: str) -> None:
        """Short strokes at a level until so much is left; stones dressed as they load."""
        at = LEVELS.index(level)
        while (left := self.now.left_nm[at] - until_nm) > TAKES_NM[grit] / 2:
            if self.now.loaded > 0.5:
                self.do(Move("dress"))
            takes = TAKES_NM[grit] * (1 - 0.6 * min(1.0, self.now.loaded))
            self.do(_stroke(float(max(1, min(60, int(left / takes)))), grit, level))

    def ended(self, wait: bool = True, call: str | None = None) -> list[Move]:
        if wait:
            self.do(Move("wait", {"minutes": 180.0}))
        for level in LEVELS:
            self.do(Move("measure", {"level": level}))
        return [*self.moves, Move("done", {"call": call or (STRIPED if self.truth.is_deep else CLEAN)})]


def hone(truth: HoneTruth, grit: str = "220", call: str | None = None) -> list[Move]:
    """Each level down with 70, the last of it with 220, and measured cold."""
    hand = _Honing(truth)
    for level in LEVELS:
        hand.down_to(level, 12_000, "70")
    for level in LEVELS:
        hand.down_to(level, 0.0, grit)
    return hand.ended(call=call)


def hone_warm(truth: HoneTruth) -> list[Move]:
    """Down to what the warm gauge calls size."""
    hand = _Honing(truth)
    for level in LEVELS:
        hand.down_to(level, 30_000, "70")
    heat_nm = truth.size_nm * IRON_PER_K * (hand.now.celsius - ROOM_C)
    for level in LEVELS:
        hand.down_to(level, heat_nm, "220")
    return hand.ended(wait=False)


def hone_far_out_above(truth: HoneTruth) -> list[Move]:
    """Even first, then the rest with the stones far out at the top and not at all below."""
    hand = _Honing(truth)
    for level in LEVELS:
        hand.down_to(level, 40_000, "70")
    while hand.now.left_nm[1] > 1_000:
        hand.do(Move("dress"))
        hand.do(_stroke(20.0, "70", ALL, 60.0, 0.0))
    return hand.ended()


def bore(truth: BoreTruth, how: str = "") -> list[Move]:
    """Feelers, shift, a light cut, read, and one cut that allows for the spring."""
    x, y = (-one * NM for one in truth.bar_nm)
    moves = [Move("feelers"), Move("shift", {"along": x, "across": y}), Move("measure", {"depth": DEPTHS[1]})]
    if how == "T15":
        moves[2] = Move("measure", {"depth": DEPTHS[0]})
    light = 100e-6
    moves.append(Move("cut", {"dial": light}))
    spring, start = truth.spring_permille / 1000, float(truth.start_nm)
    tool = start + 2 * light / NM
    size = tool - spring * 2 * light / NM
    if how == "T20":
        last = (truth.bored_nm - size) * NM
    elif how == "T15":
        last = (truth.bored_nm - start - truth.cone_nm) / 2 * NM - light
    elif how == "T19":
        last = (truth.bored_nm - start) / 2 * NM - light
    else:
        last = ((truth.bored_nm - spring * size) / (1 - spring) - tool) / 2 * NM
    moves.append(Move("cut", {"dial": last}))
    if how in ("", "T20"):
        moves += [Move("measure", {"depth": depth}) for depth in DEPTHS]
    return [*moves, Move("done")]


def by_one_indicator(truth: BoreTruth) -> list[Move]:
    """The bar stays where an indicator over pits has it."""
    return [Move("indicator", {"at": "0"}), *bore(truth)[2:]]


def clean(truth: CleanUpTruth, first: int | None = None, wasted: bool = False, larger: bool = False) -> list[Move]:
    moves = [Move("look", {"hole": str(hole)}) for hole in HOLES]
    order = sorted(HOLES, key=truth.needs_nm, reverse=True)
    if first is not None:
        order = sorted(HOLES, key=lambda hole: hole != first)
    if wasted:
        moves.append(Move("bore", {"hole": str(order[0]), "to": TWENTY}))
    up = {TWENTY: FORTY, FORTY: SLEEVE, SLEEVE: SLEEVE}
    for at, hole in enumerate(order):
        to = truth.right(hole)
        moves.append(Move("bore", {"hole": str(hole), "to": up[to] if larger and at == len(order) - 1 else to}))
    return [*moves, Move("done")]


RIGHT = (MARK, MATCH, HEAT, PRESS, MAINS, LIST, DECK, BORE, HONED, GAP, WASH)


def order(truth: SequenceTruth, steps: Sequence[str] = RIGHT) -> list[Move]:
    return [Move("put", {"step": step}) for step in steps]


def _changed(one: str, after_: str) -> tuple[str, ...]:
    """The right order, but for one step that comes right after another."""
    left = [step for step in RIGHT if step != one]
    at = left.index(after_) + 1
    return (*left[:at], one, *left[at:])


PLAYERS = (
    Player(HONE, "perfect", hone),
    Player(HONE, "to the warm gauge", hone_warm, "T39"),
    Player(HONE, "far out above", hone_far_out_above, "T50"),
    Player(HONE, "rough to the end", lambda truth: hone(truth, grit="70"), skill="finish"),
    Player(CENTRE, "perfect", bore),
    Player(CENTRE, "dial is diameter", lambda truth: bore(truth, "T20"), "T20"),
    Player(CENTRE, "starts at the top", lambda truth: bore(truth, "T15"), "T15"),
    Player(CENTRE, "adds up dials", lambda truth: bore(truth, "T19"), "T19"),
    Player(CENTRE, "one indicator", by_one_indicator, skill="centre"),
    Player(CLEAN_UP, "perfect", clean),
    Player(CLEAN_UP, "one larger", lambda truth: clean(truth, larger=True), "T46"),
    Player(CLEAN_UP, "any one first",
           lambda truth: clean(truth, first=min(HOLES, key=truth.needs_nm)), skill="worst first"),
    Player(SEQUENCE, "perfect", order),
    Player(SEQUENCE, "matched after", lambda truth: order(truth, _changed(MATCH, PRESS)), "T41"),
    Player(SEQUENCE, "mains first", lambda truth: order(truth, _changed(PRESS, MAINS)), "T11"),
    Player(SEQUENCE, "gapped early", lambda truth: order(truth, _changed(GAP, BORE)), "T45"),
    Player(SEQUENCE, "list after", lambda truth: order(truth, _changed(LIST, DECK)), "T48"),
    Player(SEQUENCE, "marked hot", lambda truth: order(truth, _changed(MARK, HEAT)), "T52"),
)  # fmt: skip
WHERE_IT_IS = (
    (HONE, "T5", lambda truth: hone(truth, call=CLEAN), lambda truth: truth.is_deep),
    (CLEAN_UP, "T17", lambda truth: clean(truth, wasted=True),
     lambda truth: max(truth.depth_nm) * 2 > 20 * 25_400),
)  # fmt: skip
