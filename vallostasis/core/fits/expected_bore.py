"""The bore that a press will leave: close-in is stock for the hone, and goes to the plan of the bore.

References
----------
.. [1] JCGM 100:2008 (GUM), 5.1.2: bore before less close-in, what both carry.
"""

from dataclasses import dataclass

from vallostasis.core.features.parts import part_with_key
from vallostasis.core.fits.effects import FitWalls, close_in_estimate, liner_inside_m, press_estimate, walls_of
from vallostasis.core.fits.fit import Fit, fit_of
from vallostasis.core.fits.interference import between_levels
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.rows import Hole, Quantity
from vallostasis.core.records.spec_card import SpecCard, sheet_of
from vallostasis.core.surveys.survey import bore_table, survey_of
from vallostasis.core.uncertainty.budget import Estimate, Stated, difference_of, exactly, mean_of, stated

# What the inside of a liner that nobody read may be off its drawing by. [m] Half width as ground; common practice.
DRAWN_WITHIN_M = 10e-6


@dataclass(frozen=True, slots=True)
class ExpectedLevel:
    """One level of a bore once its liner is in: its size, and what the hone then finds to the finished size. [m]"""

    name: str
    depth_m: float
    bore: Stated
    to_hone: Stated | None


@dataclass(frozen=True, slots=True)
class ExpectedBore:
    """A bore that the press will leave; ``finished_m`` is the size it is honed to by its card. [m]"""

    levels: tuple[ExpectedLevel, ...]
    finished_m: float | None
    inside_was_read: bool


def inside_before(facts: JobFacts, fit: Fit) -> tuple[tuple[list[float], list[Estimate]], bool]:
    """Return the inside of a liner before it goes in, by depth, and whether it was read; else it is as drawn. [m]

    GUM 4.2.3.
    """
    part = part_with_key(facts, Quantity.LINER_INSIDE, f"liner-{fit.liner.mark}")
    survey = None if part is None else survey_of(facts, Quantity.LINER_INSIDE, part)
    table = None if survey is None else bore_table(survey.pattern, survey.places)
    if survey is None or table is None or survey.relative:
        drawn = exactly(liner_inside_m(facts.card), DRAWN_WITHIN_M / 3**0.5, "inside of the liner, as drawn", "drawn")
        return ([0.0], [drawn]), False
    rows = [(depth, [one for one in row if one is not None])
            for depth, row in zip(table.depths_m, table.cells, strict=True)]  # fmt: skip
    read = [(depth, mean_of(row)) for depth, row in rows if row]
    return ([depth for depth, _ in read], [one for _, one in read]), True


def finished_m(card: SpecCard) -> float | None:
    """Return the size that the bore of a liner is honed to: the nominal of its sheet; None without one. [m] By card."""
    sheet = sheet_of(card, Quantity.LINER_BORE)
    return None if sheet is None else sheet.nominal.metres


@once
def expected_bore(facts: JobFacts, hole: Hole, mark: str) -> ExpectedBore | None:
    """Return the bore that a fit will leave; None where the walls are not known or its liner is in already. [m]

    Inside before, level by level, less what the press closes it in; GUM 5.1.2 [1]_ of the module.
    """
    fit = fit_of(facts, hole, mark)
    if not isinstance(fit, Fit):
        return None
    walls = walls_of(facts, fit)
    if not isinstance(walls, FitWalls) or facts.present_fitting(fit.hole.hole_id) is not None:
        return None
    before, was_read = inside_before(facts, fit)
    target, k = finished_m(facts.card), facts.card.coverage_factor
    levels = []
    for level in fit.levels:
        bore = difference_of(between_levels(level.depth_m, *before), close_in_estimate(walls, press_estimate(level)))
        left = None if target is None else stated("to hone", difference_of(exactly(target), bore), k)
        levels.append(ExpectedLevel(level.name, level.depth_m, stated(f"bore, {level.name}", bore, k), left))
    return ExpectedBore(tuple(levels), target, was_read)
