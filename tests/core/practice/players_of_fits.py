"""Who plays at fits and heat: the drop, the hot fit, the press."""

from dataclasses import replace

from tests.core.practice.players import NM, Player
from vallostasis.core.fits.thick_walled import close_in_share
from vallostasis.core.practice.drop import BY_EYE, COLD, DROP, DRY_ICE, FREEZER, GUIDED, NEEDS_M, NOW, TIMES, DropTruth
from vallostasis.core.practice.exercise import Move
from vallostasis.core.practice.hot_fit import CLOSES, HOT_FIT, OPENS, HotTruth
from vallostasis.core.practice.pressing import CLEAN, DIRT, PRESSING, TILT, PressTruth

READY = ("measure", "mark", "lay out", "grease")


def drop(truth: DropTruth, ready: tuple[str, ...] = READY, start: str = GUIDED, held: str = "until all is cold",
         when: str = COLD, chill: str = FREEZER) -> list[Move]:  # fmt: skip
    """Everything ready, 100 °C, bagged, down after half a minute, held, read cold."""
    lifts = truth.lifts_nm * NM if held == "not held" else 0.0
    height = truth.reads_hot(100.0) if when == NOW else truth.height_nm * NM + lifts
    return [
        *(Move(name) for name in ready),
        Move("heat", {"block": 100.0, "chill": chill, "bag": "yes"}),
        Move("lower", {"start": start}, 30.0),
        Move("hold", {"held": held}, 40.0),
        Move("read", {"when": when}, 40.0),
        Move("done", {"height": height}, 40.0),
    ]


def too_late(truth: DropTruth) -> list[Move]:
    """Waits until it grabs, and drives it."""
    late = next(time for time in TIMES if truth.room(100.0, FREEZER, True, time) < NEEDS_M)
    moves = drop(truth)
    lowered = next(at for at, move in enumerate(moves) if move.name == "lower")
    after = [replace(move, at_s=late + 10) for move in moves[lowered + 1 :]]
    return [*moves[:lowered], Move("lower", {"start": GUIDED}, late), Move("drive", {}, late + 5), *after]


def mark_it_hot(truth: DropTruth) -> list[Move]:
    moves = drop(truth, ("measure", "lay out", "grease"))
    return [*moves[:4], Move("mark", {}, 20.0), *moves[4:]]


def hot(truth: HotTruth, **otherwise: float | str) -> list[Move]:
    looked = {"block": float(truth.block_c), "liner": float(truth.liner_c), "fit": truth.fit_nm * NM,
              "press": truth.press_nm * NM, "stands": truth.stands_nm * NM}  # fmt: skip
    right: dict[str, float | str] = {"press": truth.press_hot_m, "gone": truth.gone_at_c, "flush": truth.sinks_m,
                                     "gap": OPENS, "piston": truth.clearance_m}  # fmt: skip
    return [Move("look", looked), Move("answer", {**right, **otherwise})]


def press(truth: PressTruth, shim: bool = True, wipe: bool = True, judged: str = "right: about a third of its length",
          measure: bool = True, barrel: bool = True, on_mm: float = 0.0) -> list[Move]:  # fmt: skip
    along, across = (-one * NM for one in truth.bed_nm)
    closes = truth.closes_m if barrel else close_in_share(truth.rings) * truth.press_m(0.0)
    rise = TILT if not shim else DIRT if not wipe else CLEAN
    return [
        Move("look"),
        *([Move("shim", {"along": along, "across": across})] if shim else []),
        *([Move("wipe")] if wipe else []),
        Move("oil"),
        Move("start", {"judged": judged}),
        Move("push", {"by": float(truth.length_mm)}),
        *([Move("push", {"by": on_mm})] if on_mm else []),
        *([Move("measure")] if measure else []),
        Move("done", {"curve": rise, "close in": closes}),
    ]


PLAYERS = (
    Player(DROP, "perfect", drop),
    Player(DROP, "too late", too_late, "T8"),
    Player(DROP, "not measured", lambda truth: drop(truth, ("mark", "lay out", "grease")), "T22"),
    Player(DROP, "marked hot", mark_it_hot, "T52"),
    Player(DROP, "read hot", lambda truth: drop(truth, when=NOW), "T42"),
    Player(DROP, "let go", lambda truth: drop(truth, held="not held"), skill="seated"),
    Player(DROP, "by eye", lambda truth: drop(truth, start=BY_EYE), skill="seals whole"),
    Player(DROP, "dry ice, doors shut", lambda truth: drop(truth, chill=DRY_ICE), skill="cautions kept"),
    Player(HOT_FIT, "perfect", hot),
    Player(HOT_FIT, "cold press", lambda truth: hot(truth, press=truth.press_nm * NM), "T7"),
    Player(HOT_FIT, "flush stays flush", lambda truth: hot(truth, flush=0.0), "T9"),
    Player(HOT_FIT, "the gap closes", lambda truth: hot(truth, gap=CLOSES), "T14"),
    Player(HOT_FIT, "by habit", lambda truth: hot(truth, piston=truth.cold_clearance_nm * NM), "T47"),
    Player(HOT_FIT, "gone at nothing", lambda truth: hot(truth, gone=20.0), skill="press gone at"),
    Player(PRESSING, "perfect", press),
    Player(PRESSING, "by the ends", lambda truth: press(truth, barrel=False), "T6"),
    Player(PRESSING, "a start in mm", lambda truth: press(truth, judged="too loose: it went in 30 mm and more"), "T40"),
    Player(PRESSING, "bed as it was", lambda truth: press(truth, shim=False), "T54"),
    Player(PRESSING, "never measured", lambda truth: press(truth, measure=False), "T55"),
    Player(PRESSING, "dirt left", lambda truth: press(truth, wipe=False), skill="clean and oiled"),
    Player(PRESSING, "forced", lambda truth: press(truth, on_mm=2.0), skill="stops at the seat"),
)
