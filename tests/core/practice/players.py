"""Players written from the truth: one who does everything right, and those who make one mistake each."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from typing import Any

from vallostasis.core.practice.exercise import Exercise, FieldKind, Move, Position
from vallostasis.core.practice.rocking import LEVELS, ROCKING, RockTruth
from vallostasis.core.practice.slips import Slips

NM = 1e-9


@dataclass(frozen=True)
class Player:
    """Who plays an exercise: all right where ``trap`` is empty, else with the mistake of that trap, or of a skill."""

    exercise: Exercise[Any]
    name: str
    play: Callable[[Any], Sequence[Move]]
    trap: str = ""
    skill: str = ""

    @property
    def is_perfect(self) -> bool:
        return not self.trap and not self.skill


def slip_players(exercise: Exercise[Slips]) -> Iterator[Player]:
    """The right answers; and for each trap everything right but the one answer that it leads to."""
    yield Player(exercise, "perfect", answer_all)
    for trap in exercise.traps:
        yield Player(exercise, trap, lambda truth, trap=trap: answer_all(truth, trap), trap)


def answer_all(truth: Slips, trap: str = "") -> list[Move]:
    moves, made = [], False
    for slip in truth.slips:
        given: dict[str, float | str] = {}
        for one in slip.asked:
            wrong = next((wrong for wrong in one.wrong if wrong.trap == trap), None)
            given[one.name] = one.right if made or not trap or wrong is None else wrong.value
            made = made or (wrong is not None and bool(trap))
        moves.append(Move("answer", given, 0.0))
    return moves


def _read(truth: RockTruth, gauge: str, level: str, axis: int, off_deg: float = 0.0) -> list[Move]:
    return [
        Move("set", {"gauge": gauge, "level": level, "axis": str(axis)}),
        Move("take", {"tilt": truth.square_deg(level, axis) + off_deg}),
    ]


def rock(
    truth: RockTruth,
    axes: Sequence[int] = (0, 45, 90, 135),
    levels: Sequence[str] = LEVELS,
    ring: bool = True,
    three: bool = True,
    off_deg: float = 0.0,
) -> list[Move]:
    """Read the bore and answer what the readings say; what was not read is taken for granted, as people do."""
    moves = [Move("ring")] if ring else []
    for level in levels:
        for axis in axes:
            moves += _read(truth, "two-point", level, axis, off_deg)
    if three:
        for axis in (0, 30, 60, 90):
            moves += _read(truth, "three-point", "middle", axis, off_deg)
    zero = truth.zero_nm * NM if not ring else 0.0
    tilted = truth.shows("two-point", "middle", 0, truth.square_deg("middle", 0) + off_deg)
    grown = tilted - truth.shows("two-point", "middle", 0, truth.square_deg("middle", 0))
    across = [truth.across("two-point", "middle", axis) for axis in axes]
    sees_oval, sees_taper = len(axes) >= 3, set(levels) == set(LEVELS)
    taper = (truth.mean_nm[0] - truth.mean_nm[2]) * NM
    given: dict[str, float | str] = {
        "size": truth.mean_nm[1] * NM + zero + grown,
        "out of round": truth.oval_nm[1] * NM if sees_oval else max(across) - min(across),
        "widest": float(truth.axis_deg) if sees_oval else float(axes[across.index(max(across))]),
        "taper": taper if sees_taper else 0.0,
        "lobes": truth.lobed if three else "none",
    }
    return [*moves, Move("answer", given)]


ROCKERS = (
    Player(ROCKING, "perfect", rock),
    Player(ROCKING, "before the needle turns", lambda truth: rock(truth, off_deg=2.0), skill="turning point"),
    Player(ROCKING, "without the ring", lambda truth: rock(truth, ring=False), "T13"),
    Player(ROCKING, "two axes", lambda truth: rock(truth, axes=(0, 90)), "T38"),
    Player(ROCKING, "one level", lambda truth: rock(truth, levels=("middle",)), "T36"),
)


def typed(position: Position, move: Move) -> dict[str, str]:
    """What a person types for it: lengths with their unit."""
    kinds = {field.name: field.kind for offer in position.offers if offer.name == move.name for field in offer.fields}
    return {
        name: f"{float(value) * 1e6:.9f} µm" if kinds[name] is FieldKind.LENGTH else str(value)
        for name, value in move.given.items()
    }
