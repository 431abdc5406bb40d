"""The arithmetic behind a fit, line by line, at the level that decides."""

from collections.abc import Iterator

from vallostasis.core.fits.effects import FitWalls, effect_at, press_estimate
from vallostasis.core.fits.fit import Fit, FitLevel
from vallostasis.core.fits.thick_walled import close_in_share
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.trail import Phrase, Step, Term
from vallostasis.core.uncertainty.budget import value_of

LAME = "Lamé, thick-walled rings with free ends; Timoshenko, Strength of Materials II"


def why_of_fit(facts: JobFacts, fit: Fit, walls: FitWalls | Phrase) -> Iterator[Step]:
    """Yield the arithmetic of the level with most to come off, else of the one that presses most. [m]

    References
    ----------
    Sources stand with each step: readings at 20 °C (ISO 1), Lamé, DIN 7190-1.
    """
    level = max(fit.levels, key=lambda one: one.press.value_m if one.stock is None else one.stock.value_m)
    yield Step(f"Press, {level.name}", "outside of the liner − bore of the block", (
        Term("outside", value_of(level.liner), "size"), Term("bore", value_of(level.bore), "size"),
        Term("U", level.press.expanded_m, "within"),
    ), Term("δ", level.press.value_m), "means over the axes, at 20 °C (ISO 1)")  # fmt: skip
    if level.stock is not None and fit.wanted is not None and fit.wanted.aim_m is not None:
        yield Step("Off the diameter, to the aim", "δ − aim", (
            Term("δ", level.press.value_m), Term("aim", fit.wanted.aim_m),
        ), Term("off", level.stock.value_m), fit.wanted.source or "the card")  # fmt: skip
    if isinstance(walls, FitWalls):
        yield from _of_walls(facts, level, walls)


def _of_walls(facts: JobFacts, level: FitLevel, walls: FitWalls) -> Iterator[Step]:
    effect = effect_at(walls, level, press_estimate(level), facts.card.coverage_factor)
    net = max(level.press.value_m - walls.lost_m, 0.0)
    if walls.lost_m:
        yield Step("Press left of the peaks", "δ − 0.8·(Rz bore + Rz liner)", (
            Term("δ", level.press.value_m), Term("flattened", walls.lost_m),
        ), Term("δ left", net), "DIN 7190-1, from memory")  # fmt: skip
    yield Step("Bore of the liner closes in", "share · δ left", (
        Term("share", close_in_share(walls.rings), "share"), Term("δ left", net),
        Term("U", effect.close_in.expanded_m, "within"),
    ), Term("close-in", effect.close_in.value_m), LAME)  # fmt: skip
    yield Step("Walls taken as rings", "inside · fit · outside of the block's wall", (
        Term("inside", walls.rings.inside_m, "size"), Term("fit", walls.rings.fit_m, "size"),
    ), Term("outside", walls.rings.outside_m, "size"), "the card; the boss of a block is no ring")  # fmt: skip
