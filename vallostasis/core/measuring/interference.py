"""Interference to come: a liner's outside less the bore it is to go into, level by level."""

from dataclasses import dataclass

import numpy as np

from vallostasis.core.job_facts import JobFacts
from vallostasis.core.measuring.budget import Budget, difference_of, mean_of
from vallostasis.core.measuring.parts import Part, part_with_key
from vallostasis.core.measuring.survey import Survey, survey_of
from vallostasis.core.records import Quantity

# So far beyond the last level read a liner is taken to go on as it is there. [m] Common practice, no published source.
BEYOND_M = 10e-3


@dataclass(frozen=True, slots=True)
class InterferenceAt:
    """Interference at one level of the bore, diametral, positive for a press. [m]"""

    level: str
    depth_m: float
    interference_m: float


@dataclass(frozen=True, slots=True)
class InterferenceToCome:
    """One liner in one bore: each level, and the budget of a level's difference [m]; on a moved zero it is doubtful.

    ``left_out`` names the levels of the bore at which the liner was not read.
    """

    liner_mark: str
    levels: tuple[InterferenceAt, ...]
    left_out: tuple[str, ...]
    budget: Budget
    doubtful: bool


def interference_to_come(facts: JobFacts, bore: Survey) -> tuple[InterferenceToCome, ...]:
    """Hold every liner whose outside was read against a block bore.

    Notes
    -----
    Means over the axes of a level; the liner's mean is taken at the depth of the bore's level by straight lines
    between its own levels, since it hangs from the deck by its flange; levels of the bore that lie farther beyond the
    liner's than BEYOND_M are left out, and so is a liner that has none. Nothing of the two readings is taken to cancel:
    they come from two gauges or two zeros.
    """
    if bore.feature.quantity is not Quantity.BLOCK_BORE or bore.form is None or bore.budget is None or bore.relative:
        return ()
    found = []
    for liner in facts.liners:
        part = part_with_key(facts, Quantity.LINER_OUTSIDE, f"liner-{liner.mark}")
        one = None if part is None else _against(facts, bore, part, liner.mark)
        if one is not None:
            found.append(one)
    return tuple(found)


def _against(facts: JobFacts, bore: Survey, liner: Part, mark: str) -> InterferenceToCome | None:
    outside = survey_of(facts, Quantity.LINER_OUTSIDE, liner)
    if outside.form is None or outside.budget is None or outside.relative:
        return None
    depths, means = _level_means(outside)
    levels, left_out = [], []
    for depth, mean in zip(*_level_means(bore), strict=True):
        name = next((one.name for one in bore.pattern.levels if abs(float(one.depth_um) / 1e6 - depth) < 1e-9), "")
        if depths[0] - BEYOND_M <= depth <= depths[-1] + BEYOND_M:
            there = float(np.interp(depth, depths, means))
            levels.append(InterferenceAt(name, depth, there - mean))
        else:
            left_out.append(name)
    if not levels:
        return None
    k = facts.card.coverage_factor
    sides = [mean_of(one.budget, _axes_read(one), k) for one in (outside, bore) if one.budget is not None]
    budget = difference_of(f"interference with {mark}", sides[0], sides[1], same_zero=False, coverage_factor=k)
    doubtful = any(row.doubtful for row in (*outside.places, *bore.places))
    return InterferenceToCome(mark, tuple(levels), tuple(left_out), budget, doubtful)


def _level_means(survey: Survey) -> tuple[list[float], list[float]]:
    by_depth: dict[float, list[float]] = {}
    for row in survey.places:
        if row.value_m is not None and row.place.level_um is not None:
            by_depth.setdefault(float(row.place.level_um) / 1e6, []).append(row.value_m)
    depths = sorted(by_depth)
    return depths, [sum(by_depth[depth]) / len(by_depth[depth]) for depth in depths]


def _axes_read(survey: Survey) -> int:
    return max(1, len({row.place.axis_deg for row in survey.places if row.value_m is not None}))
