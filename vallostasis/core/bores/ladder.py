"""The ladder: which step each hole takes and which one the engine, how much wall each leaves, what is bored first.

The worst hole decides the size for all: common practice, no published source; wall left by wall_left.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from decimal import Decimal

import numpy as np

from vallostasis.core.bores.adds_up import disagreements
from vallostasis.core.bores.clean_up_of_hole import BoringTerms, CleanUpOfHole, WornWall, clean_up_of_hole
from vallostasis.core.bores.wall import Wall, part_of_bore, wall_of
from vallostasis.core.bores.wall_field import clock_lobes
from vallostasis.core.bores.wall_left import rebores_left, wall_left
from vallostasis.core.bores.wall_marks import WallMark, wall_marks
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.notation.lengths import metres
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.rows import Hole, Quantity
from vallostasis.core.records.spec_card import LadderStep, sheet_of
from vallostasis.core.shapes.clock import angle_of_hour
from vallostasis.core.surveys.loads import running_bore
from vallostasis.core.surveys.survey import survey_of
from vallostasis.core.uncertainty.budget import Estimate, Stated, exactly, stated, value_of, weighted
from vallostasis.core.uncertainty.decision import State, decide


@dataclass(frozen=True, slots=True)
class WallNow:
    """Walls of a hole a side as they were read, with the radius of the bore there; or the drawing alone. [m], [deg]"""

    walls: tuple[Estimate, ...]
    radii_m: tuple[float, ...]
    angles_deg: tuple[float, ...]
    depths_m: tuple[float, ...]
    by_drawing: bool


@dataclass(frozen=True, slots=True)
class WallAfter:
    """The thinnest wall a side, where it is, how many re-bores it leaves, and whether it keeps the least. [m], [deg]"""

    left: Stated
    angle_deg: float
    depth_m: float
    rebores: int | None
    keeps: State | None


@dataclass(frozen=True, slots=True)
class Rung:
    """One step of the ladder at one hole: does it clean up on the drawn centre, and on the best one. [m]

    ``finish_m`` is the finished diameter, ``bored_m`` what the bar leaves for the hone.
    """

    step: LadderStep
    finish_m: float
    bored_m: float
    drawn: State
    best: State
    wall: WallAfter | None

    @property
    def state(self) -> State:
        """What it comes to: on the better centre, and with wall enough. House rule."""
        if self.wall is not None and self.wall.keeps is State.OUT:
            return State.OUT
        if self.wall is not None and self.wall.keeps is State.CANNOT_TELL and self.best is State.IN:
            return State.CANNOT_TELL
        return self.best


@dataclass(frozen=True, slots=True)
class LadderOfHole:
    """A hole on the ladder. [m]

    ``why_not`` says why nothing can be told; ``chosen`` is the smallest step that clears, ``least_possible`` the
    smallest that may. ``exact`` is the wall after boring just to what it needs.
    """

    hole: Hole
    wall: Wall
    marks: tuple[WallMark, ...]
    clean_up: CleanUpOfHole | None
    why_not: str
    rungs: tuple[Rung, ...]
    now: WallAfter | None
    exact: WallAfter | None
    wall_by_drawing: bool = False

    @property
    def chosen(self) -> Rung | None:
        """The smallest step that clears; None where none does. By definition of the ladder."""
        return next((rung for rung in self.rungs if rung.state is State.IN), None)

    @property
    def least_possible(self) -> Rung | None:
        """The smallest step that is not ruled out. By definition of the ladder."""
        return next((rung for rung in self.rungs if rung.state is not State.OUT), None)

    @property
    def needs_sleeve(self) -> bool:
        """Whether no step of the ladder is left. By definition of the ladder."""
        return self.clean_up is not None and bool(self.rungs) and self.least_possible is None


@dataclass(frozen=True, slots=True)
class LadderOfEngine:
    """All holes together: the step that all take where all are alike, and the hole that decides. [m]

    ``step`` is the smallest that clears every hole, ``try_first`` the smallest that is not ruled out for any.
    """

    holes: tuple[LadderOfHole, ...]
    standard_m: float
    terms: BoringTerms
    worst: LadderOfHole | None
    step: LadderStep | None
    try_first: LadderStep | None
    unread: tuple[int, ...]
    sleeves: tuple[int, ...]


def boring_terms(facts: JobFacts) -> BoringTerms:
    """Return what the card says of boring; no stock and no move where it says nothing. [m] By the card."""
    bores = facts.card.bores
    return BoringTerms(
        bores.hone_stock.metres or 0.0, bores.centre_move.metres or 0.0, bores.ring_top.metres,
        facts.card.coverage_factor,
    )  # fmt: skip


def standard_of(facts: JobFacts) -> float:
    """Return the standard size that oversizes are counted from. [m] By the card: its nominal, else its bore."""
    sheet = sheet_of(facts.card, running_bore(facts.card))
    nominal = None if sheet is None else sheet.nominal.metres
    return facts.card.layout.bore.metres if nominal is None else nominal


@once
def ladder_of_hole(facts: JobFacts, hole: Hole) -> LadderOfHole:
    """Hold every step of the ladder against what one hole needs.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    hole : Hole
        The hole.

    Returns
    -------
    LadderOfHole
        Common practice, no published source: clean up at the first step, else the next, else sleeve.
    """
    wall = wall_of(facts, hole, running_bore(facts.card))
    marks = wall_marks(facts, hole)
    terms, standard = boring_terms(facts), standard_of(facts)
    worn = _worn(wall, marks)
    if worn is None:
        return LadderOfHole(hole, wall, marks, None, f"hole {hole.number}: {wall.wear.unworn_at}", (), None, None)
    found = clean_up_of_hole(worn, terms)
    if found is None:
        return LadderOfHole(hole, wall, marks, None, f"hole {hole.number}: no bore was read", (), None, None)
    slips = tuple(one.words for one in disagreements(wall.loads[-1], wall.wear, facts.card.coverage_factor)[:2])
    found = replace(found, doubts=(*found.doubts, *slips))
    walls = walls_now(facts, hole, wall)
    move = (found.best.move_m, found.best.move_deg)
    rungs = tuple(_rung(facts, step, standard, found, walls, move) for step in _steps(facts))
    return LadderOfHole(
        hole, wall, marks, found, "", rungs,
        _after(facts, walls, None, (0.0, 0.0)),
        _after(facts, walls, found.best.most.value_m + found.best.most.expanded_m, move),
        walls is not None and walls.by_drawing,
    )  # fmt: skip


def _steps(facts: JobFacts) -> list[LadderStep]:
    return sorted(facts.card.bores.ladder, key=lambda one: one.oversize.um)


def _worn(wall: Wall, marks: tuple[WallMark, ...]) -> WornWall | None:
    if wall.wear.unworn is None:
        return None
    cells = [
        (depth, cell)
        for load in wall.loads[-1:]
        for depth, row in zip(load.table.depths_m, load.table.cells, strict=True)
        for cell in row
        if cell is not None
    ]
    depth, greatest = max(cells, key=lambda one: value_of(one[1]), default=(0.0, None))
    return WornWall(wall.wear.unworn, wall.wear.levels, marks, greatest, depth)


def _rung(
    facts: JobFacts, step: LadderStep, standard_m: float, found: CleanUpOfHole, walls: WallNow | None,
    move: tuple[float, float],
) -> Rung:  # fmt: skip
    finish = standard_m + step.oversize.metres
    stock = facts.card.bores.hone_stock.metres or 0.0
    drawn, best = found.drawn.at(finish, found.doubts), found.best.at(finish, found.doubts)
    # Where the drawn centre clears, the bore is not moved.
    moved = (0.0, 0.0) if drawn is State.IN else move
    return Rung(step, finish, finish - stock, drawn, best, _after(facts, walls, finish, moved))


def walls_now(facts: JobFacts, hole: Hole, wall: Wall) -> WallNow | None:
    """Return the walls of a hole as they were read, each with the radius of the bore there; else by the drawing. [m]

    House rule: by the readings of wall thickness and wear; a drawing gives the wall at the standard size.
    """
    survey = survey_of(facts, Quantity.WALL_THICKNESS, part_of_bore(facts, hole, Quantity.WALL_THICKNESS))
    read = [row for row in survey.read if row.place.hour is not None and row.place.level_um is not None]
    if read:
        places = [(angle_of_hour(row.place.hour or 12.0), metres(row.place.level_um or Decimal(0))) for row in read]
        return WallNow(
            tuple(row.estimate for row in read if row.estimate is not None),
            tuple(_radius_at(facts, wall, angle, depth) for angle, depth in places),
            tuple(angle for angle, _ in places),
            tuple(depth for _, depth in places),
            False,
        )
    drawn = facts.card.bores.wall.metres
    if drawn is None:
        return None
    every = tuple(float(angle) for angle in range(0, 360, 15))
    return WallNow(tuple(exactly(drawn) for _ in every), tuple(standard_of(facts) / 2 for _ in every), every,
                   tuple(0.0 for _ in every), True)  # fmt: skip


def _radius_at(facts: JobFacts, wall: Wall, angle_deg: float, depth_m: float) -> float:
    """Radius of the bore as it is at a place: the unworn band and the wear there; the standard where none was read."""
    if wall.wear.unworn is None:
        return standard_of(facts) / 2
    radius = value_of(wall.wear.unworn) / 2
    if wall.wear.levels:
        near = min(wall.wear.levels, key=lambda level: abs(level.depth_m - depth_m))
        share = (clock_lobes(np.array([angle_deg])) @ near.weights)[0]
        radius += float(share @ np.array([value_of(one) for one in near.estimates]))
    return radius


def _after(
    facts: JobFacts, walls: WallNow | None, finish_m: float | None, move: tuple[float, float]
) -> WallAfter | None:
    """Thinnest wall after boring to a size, or as it is."""
    if walls is None:
        return None
    values = [
        value_of(one) - (0.0 if finish_m is None else finish_m / 2 - radius)
        for one, radius in zip(walls.walls, walls.radii_m, strict=True)
    ]
    left = wall_left(values, walls.angles_deg, 0.0, *move)
    change = exactly(left.least_m - value_of(walls.walls[left.at]))
    shown = stated("wall left", weighted([(1.0, walls.walls[left.at]), (1.0, change)]), facts.card.coverage_factor)
    least, step = facts.card.bores.least_wall.metres, facts.card.bores.rebore.metres
    rebores = None
    if least is not None and step is not None:
        try:
            rebores = rebores_left(left.least_m, least, step)
        except OutOfDomain:
            rebores = None
    keeps = None if least is None else decide(shown.value_m, shown.expanded_m, least, None).state
    return WallAfter(shown, walls.angles_deg[left.at], walls.depths_m[left.at], rebores, keeps)


@once
def ladder_of_engine(facts: JobFacts) -> LadderOfEngine:
    """Hold the ladder against every hole, and say which step the engine takes and which hole decides.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.

    Returns
    -------
    LadderOfEngine
        The worst hole is the one that needs most; where all holes are alike its step is that of all, and it is bored
        first. Common practice, no published source.
    """
    holes = tuple(ladder_of_hole(facts, hole) for hole in facts.holes)
    told = [one for one in holes if one.clean_up is not None]
    worst = max(told, key=_need, default=None)
    steps = _steps(facts)
    # A hole that no step clears is sleeved back: it binds the others no longer.
    stay = [one for one in told if not one.needs_sleeve]
    return LadderOfEngine(
        holes,
        standard_of(facts),
        boring_terms(facts),
        worst,
        _smallest(steps, stay, (State.IN,)),
        _smallest(steps, stay, (State.IN, State.CANNOT_TELL)),
        tuple(one.hole.number for one in holes if one.clean_up is None),
        tuple(one.hole.number for one in told if one.needs_sleeve),
    )


def _need(one: LadderOfHole) -> float:
    assert one.clean_up is not None
    return one.clean_up.best.most.value_m


def _smallest(
    steps: Sequence[LadderStep], holes: Sequence[LadderOfHole], states: tuple[State, ...]
) -> LadderStep | None:
    for at, step in enumerate(steps):
        if holes and all(one.rungs[at].state in states for one in holes):
            return step
    return None


def mark_clears(mark: WallMark, left_m: float) -> State:
    """Say whether a mark comes out with so much to go on the diameter.

    Common practice, no published source: half of what is to go comes off a side, so with 2 to go a mark cleans up only
    where it is less than 1 deep. [m]
    """
    if mark.depth_m is None:
        return State.CANNOT_TELL
    return decide(mark.depth_m, mark.depth_expanded_m or 0.0, None, left_m / 2).state
