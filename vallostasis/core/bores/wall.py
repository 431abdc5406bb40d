"""The wall of one hole as it is known: its bore under every load, what a load changes, how far it is worn.

The ± of what is read by the GUM (uncertainty.budget); which load is judged: common practice, no published source.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal

import numpy as np

from vallostasis.core.bores.wall_field import (
    Array,
    FieldLevel,
    WallField,
    clock_lobes,
    clock_weights,
    columns_of_a_turn,
    diameter_levels,
    even_lobes,
    field_of,
)
from vallostasis.core.features.parts import Part, part_with_key
from vallostasis.core.features.plan import blind_spots
from vallostasis.core.notation.lengths import both_depth, metres
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.rows import Hole, Quantity
from vallostasis.core.records.spec_card import Judged
from vallostasis.core.shapes.clock import angle_of_hour
from vallostasis.core.surveys.derived import BoreTable, Derived, DerivedKind, of_a_bore
from vallostasis.core.surveys.loads import Held, held, held_otherwise, plate_differs, running_bore
from vallostasis.core.surveys.survey import Survey, bore_table, survey_of, surveys_by_load
from vallostasis.core.uncertainty.budget import Estimate, Stated, difference_of, mean_of, stated, value_of


@dataclass(frozen=True, slots=True)
class LoadWall:
    """A bore as it was read under one load; ``why_not`` says why it is not judged, ``differs`` what was not the build.

    [m]
    """

    load: str
    held: Held
    survey: Survey
    table: BoreTable
    field: WallField | None
    why_not: str
    differs: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class ChangeLevel:
    """What a load changes at one level: size, and the lobes of what is left. [m]"""

    depth_m: float
    name: str
    size: Stated
    lobes: tuple[Derived, ...]


@dataclass(frozen=True, slots=True)
class Change:
    """One load less another at the places that both were read at. [m]

    ``greatest_m`` is the greatest change of a diameter read, ``off_places`` how many places only one of them has.
    """

    of: LoadWall
    less: LoadWall
    table: BoreTable
    field: WallField | None
    levels: tuple[ChangeLevel, ...]
    greatest_m: float
    off_places: int


@dataclass(frozen=True, slots=True)
class Start:
    """What a bore starts from at one depth: its mean diameter. [m]"""

    depth_m: float
    name: str
    size: Stated
    in_travel: bool | None


@dataclass(frozen=True, slots=True)
class Wear:
    """How far a bore is worn. [m]

    ``steps`` is the survey of wear steps, ``field`` that over depth and angle, ``levels`` its levels; ``unworn`` the
    diameter of the band that no ring reaches, read at ``unworn_m``, ``ridge`` how much larger the top of the travel is
    than that, ``cone`` how much larger the top of the travel is than its end.
    """

    steps: Survey | None
    field: WallField | None
    levels: tuple[FieldLevel, ...]
    unworn: Estimate | None
    unworn_at: str
    unworn_m: float | None
    starts: tuple[Start, ...]
    ridge: Stated | None
    cone: Stated | None


@dataclass(frozen=True, slots=True)
class Wall:
    """Everything known of the wall of one hole."""

    hole: Hole
    quantity: Quantity
    part: Part
    loads: tuple[LoadWall, ...]
    changes: tuple[Change, ...]
    wear: Wear
    judged: str
    stale: tuple[str, ...]
    blind: tuple[str, ...]


def part_of_bore(facts: JobFacts, hole: Hole, quantity: Quantity) -> Part:
    """Return the part of a hole that a bore is read on. By its key."""
    part = part_with_key(facts, quantity, f"hole-{hole.number}")
    assert part is not None
    return part


@once
def wall_of(facts: JobFacts, hole: Hole, quantity: Quantity, with_expanded: bool = False) -> Wall:
    """Return what is known of the wall of a hole.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    hole : Hole
        The hole.
    quantity : Quantity
        Block bore or liner bore.
    with_expanded : bool
        Whether fields carry their ±.

    Returns
    -------
    Wall
        House rules: which of its readings say what stands with each function.
    """
    part, k = part_of_bore(facts, hole, quantity), facts.card.coverage_factor if with_expanded else None
    surveys = surveys_by_load(facts, quantity, part)
    loads = tuple(one for survey in surveys if (one := _load_wall(facts, survey, k)) is not None)
    stale = tuple(f"{_load_words(survey)}: {survey.reason}" for survey in surveys if survey.disturbed is not None)
    changes = tuple(
        change
        for of in loads
        for less in loads
        if of.held is Held.CLAMPED and less.held is Held.FREE and (change := change_of(of, less, k)) is not None
    )
    newest = loads[-1] if loads else None
    wear = wear_of(facts, hole, newest)
    return Wall(hole, quantity, part, loads, changes, wear, _judged(facts, quantity), stale,
                tuple(_blind(newest, wear)))  # fmt: skip


def _load_words(survey: Survey) -> str:
    return f"{survey.feature.quantity.value} as it was read before"


def _load_wall(facts: JobFacts, survey: Survey, k: float | None) -> LoadWall | None:
    table = bore_table(survey.pattern, survey.places)
    if survey.reading_set is None or survey.relative or table is None:
        return None
    setup = facts.setup(survey.reading_set.setup_id)
    field = _diameters(table, k)
    return LoadWall(setup.load, held(setup.load), survey, table, field, held_otherwise(facts, survey.reading_set),
                    plate_differs(facts.card, setup))  # fmt: skip


def _diameters(table: BoreTable, k: float | None) -> WallField | None:
    angles = columns_of_a_turn()
    return field_of(diameter_levels(table), table.depths_m, even_lobes(angles), angles, k)


def _judged(facts: JobFacts, quantity: Quantity) -> str:
    judged = facts.card.bores.judged
    if quantity is not running_bore(facts.card) or judged is Judged.AS_READ:
        return "The card does not say whether it is judged clamped or free: the newest reading is."
    if judged is Judged.CLAMPED:
        return "The card's limits are for the clamped bore: what is read free is only compared with it."
    return "The card's limits are for the free bore: what is read clamped is only compared with it."


def change_of(of: LoadWall, less: LoadWall, k: float | None = None) -> Change | None:
    """Return what a load changes, at the places that were read under both; None where there are none. [m]

    Differences of estimates: what both readings share cancels. GUM F.1.2.3; a place that only one has is left out.
    """
    pairs = {
        (depth, axis): (one, other)
        for depth, axis, one in _cells(of.table)
        for other_depth, other_axis, other in _cells(less.table)
        if depth == other_depth and axis == other_axis
    }
    if not pairs:
        return None
    depths = tuple(sorted({depth for depth, _ in pairs}))
    axes = tuple(sorted({axis for _, axis in pairs}))
    names = dict(zip(of.table.depths_m, of.table.names, strict=True))
    cells = tuple(
        tuple(difference_of(*pairs[depth, axis]) if (depth, axis) in pairs else None for axis in axes)
        for depth in depths
    )
    table = BoreTable(cells, axes, depths, tuple(names[depth] for depth in depths),
                      min(of.table.repeats, less.table.repeats))  # fmt: skip
    coverage = 2.0 if k is None else k
    told = tuple(of_a_bore(table, coverage))
    levels = tuple(
        ChangeLevel(
            depth,
            name,
            stated(f"size change {name}", mean_of([cell for cell in row if cell is not None]), coverage),
            tuple(one for one in told if one.where == name and one.kind in LOBES),
        )
        for depth, name, row in zip(depths, table.names, cells, strict=True)
    )
    greatest = max((stated("", cell).value_m for cell in table.read()), key=abs)
    only_one = len(list(_cells(of.table))) + len(list(_cells(less.table))) - 2 * len(pairs)
    return Change(of, less, table, _diameters(table, k), levels, greatest, only_one)


LOBES = (DerivedKind.OVALITY, DerivedKind.FOUR_LOBES)


def _cells(table: BoreTable) -> list[tuple[float, float, Estimate]]:
    return [
        (depth, axis, cell)
        for depth, row in zip(table.depths_m, table.cells, strict=True)
        for axis, cell in zip(table.axes_deg, row, strict=True)
        if cell is not None
    ]


def wear_of(facts: JobFacts, hole: Hole, newest: LoadWall | None) -> Wear:
    """Return how far a bore is worn: by its steps round the clock, and by its diameters down the depth. [m]

    Common practice, no published source: wear is a cone, greatest at the top of the ring travel.
    """
    survey = survey_of(facts, Quantity.WEAR_STEP, part_of_bore(facts, hole, Quantity.WEAR_STEP))
    levels = clock_levels(survey)
    angles = columns_of_a_turn()
    field = field_of(levels, [level.depth_m for level in levels], clock_lobes(angles), angles)
    top = facts.card.bores.ring_top.metres
    if field is not None and top is not None:
        # Above the rings lies the band that the steps are read from.
        field.values_m[field.depths_m < top] = np.nan
    starts = () if newest is None else tuple(_starts(facts, newest))
    unworn, unworn_at, unworn_m = unworn_band(facts, newest)
    travel = [one for one in starts if one.in_travel]
    k = facts.card.coverage_factor
    means = {} if newest is None else {depth: mean for depth, _, mean in level_means(newest.table)}
    ridge = cone = None
    if travel and unworn is not None:
        ridge = stated("ridge", difference_of(means[travel[0].depth_m], unworn), k)
    if len(travel) > 1:
        cone = stated("cone", difference_of(means[travel[0].depth_m], means[travel[-1].depth_m]), k)
    return Wear(survey if survey.read else None, field, levels, unworn, unworn_at, unworn_m, starts, ridge, cone)


def clock_levels(survey: Survey) -> tuple[FieldLevel, ...]:
    """Return the levels of a survey round the clock with the lobes that its positions place. [m]

    Three positions place a centre; fewer place nothing. Sampling theorem.
    """
    by_depth: dict[float, list[tuple[float, Estimate]]] = {}
    for row in survey.read:
        if row.place.level_um is not None and row.place.hour is not None and row.estimate is not None:
            by_depth.setdefault(metres(row.place.level_um), []).append((angle_of_hour(row.place.hour), row.estimate))
    return tuple(
        FieldLevel(depth, tuple(one for _, one in rows), clock_weights([angle for angle, _ in rows]))
        for depth, rows in sorted(by_depth.items())
        if len(rows) >= LEAST_POSITIONS
    )


LEAST_POSITIONS = 3


def _starts(facts: JobFacts, newest: LoadWall) -> list[Start]:
    k, terms = facts.card.coverage_factor, facts.card.bores
    top, bottom = terms.ring_top.metres, terms.ring_bottom.metres
    return [
        Start(depth, name, stated(f"start at {name}", mean, k), _in_travel(depth, top, bottom))
        for depth, name, mean in level_means(newest.table)
    ]


def level_means(table: BoreTable) -> list[tuple[float, str, Estimate]]:
    """Return depth, name and mean diameter of every level that was read. [m] GUM 5.1.2."""
    return [
        (depth, name, mean_of(cells))
        for depth, name, row in zip(table.depths_m, table.names, table.cells, strict=True)
        if (cells := [cell for cell in row if cell is not None])
    ]


def _in_travel(depth_m: float, top_m: float | None, bottom_m: float | None) -> bool | None:
    if top_m is None or bottom_m is None:
        return None
    return top_m <= depth_m <= bottom_m


def unworn_band(facts: JobFacts, newest: LoadWall | None) -> tuple[Estimate | None, str, float | None]:
    """Return the diameter of the band that no ring reaches, where that was read, and its depth. [m]

    Notes
    -----
    The level above the travel of the rings; else the one below it; where the card does not say how far rings travel,
    or neither was read, the smallest level, and that is said. Common practice, no published source.
    """
    if newest is None:
        return None, "no bore was read: read it above the rings", None
    terms = facts.card.bores
    top, bottom = terms.ring_top.metres, terms.ring_bottom.metres
    rows = level_means(newest.table)
    above = [row for row in rows if top is not None and row[0] < top]
    below = [row for row in rows if bottom is not None and row[0] > bottom]
    if above or below:
        depth, name, mean = above[-1] if above else below[0]
        return mean, f"{name}, {both_depth(_um(depth))} down", depth
    depth, name, mean = min(rows, key=lambda row: value_of(row[2]))
    return mean, f"{name}, {both_depth(_um(depth))} down: the smallest level, no ring travel to go by", depth


def _um(depth_m: float) -> Decimal:
    return Decimal(repr(round(depth_m * 1e6, 3)))


def _blind(newest: LoadWall | None, wear: Wear) -> Sequence[str]:
    said = list[str]()
    if newest is not None:
        read = newest.table.depths_m
        said += blind_spots(newest.survey.feature, newest.survey.pattern)
        said.append(f"Nothing above {both_depth(_um(read[0]))} or below {both_depth(_um(read[-1]))} from the deck.")
        if newest.field is None:
            said.append("No level has three axes: only the readings are drawn, no shape between them.")
        if wear.steps is None:
            said.append("A bore gauge finds how much it is worn, not on which side: read the wear step for that.")
    if wear.steps is not None:
        said += blind_spots(wear.steps.feature, wear.steps.pattern)
    return said


def greatest_wear(field: WallField) -> tuple[float, float, float] | None:
    """Return the greatest value of a field, with its depth and angle; None where it is blank. [m], [m], [deg]

    By definition of the greatest.
    """
    if np.isnan(field.values_m).all():
        return None
    # What is drawn on beyond a level is as deep as the level itself: the one that was read is told.
    rows, columns = np.nonzero(field.values_m >= np.nanmax(field.values_m) - 1e-12)
    row, column = rows[-1], columns[-1]
    return float(field.values_m[row, column]), float(field.depths_m[row]), float(field.angles_deg[column])


def deepest_round(field: WallField) -> Array:
    """Return the greatest value over the depth at every angle. [m] By definition of the greatest."""
    there = ~np.isnan(field.values_m).all(axis=1)
    return np.asarray(np.nanmax(field.values_m[there], axis=0), dtype=np.float64)
