"""Interference to come: a liner's outside less the bore it is to go into, level by level."""

from collections.abc import Sequence
from dataclasses import dataclass

from vallostasis.core.features.parts import Part, part_with_key
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity
from vallostasis.core.surveys.survey import Survey, survey_of
from vallostasis.core.uncertainty.budget import Estimate, Stated, difference_of, mean_of, stated, weighted

# So far beyond the last level read a liner is taken to go on as it is there. [m] Common practice, no published source.
BEYOND_M = 10e-3


@dataclass(frozen=True, slots=True)
class InterferenceAt:
    """Interference at one level of the bore, diametral, positive for a press. [m]"""

    level: str
    depth_m: float
    stated: Stated


@dataclass(frozen=True, slots=True)
class InterferenceToCome:
    """One liner in one bore: each level with the budget of its ± [m]; on a moved zero it is doubtful.

    ``left_out`` names the levels of the bore at which the liner was not read.
    """

    liner_mark: str
    levels: tuple[InterferenceAt, ...]
    left_out: tuple[str, ...]
    doubtful: bool


def interference_to_come(facts: JobFacts, bore: Survey) -> tuple[InterferenceToCome, ...]:
    """Hold every liner whose outside was read against a block bore.

    Notes
    -----
    Means over the axes of a level; the liner's mean is taken at the depth of the bore's level by straight lines
    between its own levels, since it hangs from the deck by its flange; levels of the bore that lie farther beyond the
    liner's than BEYOND_M are left out, and so is a liner that has none. What the two readings share, such as one ring,
    cancels; two gauges and two zeros share nothing. Straight lines: common practice.
    """
    if bore.feature.quantity is not Quantity.BLOCK_BORE or bore.form is None or bore.relative:
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
    if outside.form is None or outside.relative:
        return None
    levels, left_out = [], []
    at, there = _level_means(outside)
    for depth, mean in zip(*_level_means(bore), strict=True):
        name = next((one.name for one in bore.pattern.levels if abs(float(one.depth_um) / 1e6 - depth) < 1e-9), "")
        if at[0] - BEYOND_M <= depth <= at[-1] + BEYOND_M:
            press = difference_of(between_levels(depth, at, there), mean)
            value = stated(f"interference with {mark}, {name}", press, facts.card.coverage_factor)
            levels.append(InterferenceAt(name, depth, value))
        else:
            left_out.append(name)
    if not levels:
        return None
    doubtful = any(row.doubtful for row in (*outside.places, *bore.places))
    return InterferenceToCome(mark, tuple(levels), tuple(left_out), doubtful)


def _level_means(survey: Survey) -> tuple[list[float], list[Estimate]]:
    by_depth: dict[float, list[Estimate]] = {}
    for row in survey.places:
        if row.estimate is not None and row.place.level_um is not None:
            by_depth.setdefault(float(row.place.level_um) / 1e6, []).append(row.estimate)
    depths = sorted(by_depth)
    return depths, [mean_of(by_depth[depth]) for depth in depths]


def between_levels(depth: float, depths: Sequence[float], means: Sequence[Estimate]) -> Estimate:
    """Return the value at a depth by a straight line between the levels beside it; beyond the last as it is there. [m]

    Common practice, no published source.
    """
    if depth <= depths[0]:
        return means[0]
    if depth >= depths[-1]:
        return means[-1]
    upper = next(at for at, one in enumerate(depths) if one >= depth)
    share = (depth - depths[upper - 1]) / (depths[upper] - depths[upper - 1])
    return weighted(((1 - share, means[upper - 1]), (share, means[upper])))
