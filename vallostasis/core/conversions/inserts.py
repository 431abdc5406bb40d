"""An insert set into the deck round a liner: its press in its own pocket, and what that does to both.

References
----------
.. [1] Lamé rings as of any press: fits.thick_walled.
"""

from dataclasses import dataclass

from vallostasis.core.features.parts import part_with_key
from vallostasis.core.fits.fit import FitLevel, levels_of, worst_state
from vallostasis.core.fits.materials import fit_material
from vallostasis.core.fits.thick_walled import Rings, pressed
from vallostasis.core.fits.wanted import Wanted
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole, Quantity
from vallostasis.core.surveys.survey import bore_table, survey_of
from vallostasis.core.trail import Phrase, Term
from vallostasis.core.uncertainty.decision import State


@dataclass(frozen=True, slots=True)
class InsertFit:
    """The press of an insert by level, its pressure, what it does to the insert and takes off its inside. [Pa], [m]"""

    levels: tuple[FitLevel, ...]
    pressure_pa: float | None
    hoop_block_pa: float | None
    closes_in_m: float | None
    state: State
    says: Phrase


def insert_fit(facts: JobFacts, hole: Hole) -> InsertFit | Phrase:
    """Hold an insert against its pocket.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    hole : Hole
        The hole.

    Returns
    -------
    InsertFit or Phrase
        What is missing, where the press cannot be told: it is measured, never guessed. [m]

    Notes
    -----
    Levels count from the deck on both; Lamé [1]_ of the module with the insert as the inner ring.
    """
    tables = []
    for quantity, what in ((Quantity.INSERT_POCKET, "pocket"), (Quantity.INSERT_OUTSIDE, "outside")):
        part = part_with_key(facts, quantity, f"hole-{hole.number}")
        assert part is not None
        survey = survey_of(facts, quantity, part)
        table = bore_table(survey.pattern, survey.places)
        if table is None or survey.relative:
            return Phrase(f"Nobody measured the {what} of the insert of hole {hole.number} as a size.")
        tables.append((survey, table))
    (pocket, pocket_table), (outside, outside_table) = tables
    levels, _ = levels_of(facts.card, pocket_table, outside_table, _wanted(facts))
    if not levels:
        return Phrase(f"Pocket and insert of hole {hole.number} were not read at levels near each other.")
    states = [one.state for one in levels]
    if pocket.missing or outside.missing:
        states.append(State.NOT_MEASURED)
    if _wanted(facts) is None or any(row.doubtful for row in (*pocket.places, *outside.places)):
        states.append(State.CANNOT_TELL)
    greatest = max(levels, key=lambda one: one.press.value_m)
    least = min(levels, key=lambda one: one.press.value_m)
    said = Phrase(
        "Press {l} ±{lu} to {g} ±{gu} on the diameter",
        (Term("l", least.press.value_m), Term("lu", least.press.expanded_m, "within"),
         Term("g", greatest.press.value_m), Term("gu", greatest.press.expanded_m, "within")),
    )  # fmt: skip
    rings = _rings(facts, greatest)
    if rings is None:
        return InsertFit(levels, None, None, None, worst_state(states), said)
    press = pressed(rings, max(0.0, greatest.press.value_m))
    return InsertFit(levels, float(press.pressure_pa), float(press.hoop_boss_bore_pa), float(press.close_in_m),
                     worst_state(states), said)  # fmt: skip


def _wanted(facts: JobFacts) -> Wanted | None:
    window = facts.card.conversion.insert_press
    told = [one for one in (window.aim, window.least, window.greatest) if one.length is not None]
    if not told:
        return None
    return Wanted("insert", window.least.metres, window.aim.metres, window.greatest.metres, told[0].source,
                  told[0].status)  # fmt: skip


def _rings(facts: JobFacts, level: FitLevel) -> Rings | None:
    """The insert and the block round it; None where the card does not say how wide they are."""
    card = facts.card
    inside, boss = card.conversion.insert_inside.metres, card.fits.boss_outside.metres
    insert, block = fit_material(card.liner_material), fit_material(card.block_material)
    fit = level.liner.value_m
    if inside is None or boss is None or insert is None or block is None or not inside < fit < boss:
        return None
    return Rings(inside, fit, boss, insert.elastic, block.elastic)
