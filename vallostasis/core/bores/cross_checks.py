"""What readings of bores, liners and pistons say beside each other.

Rules of thumb here are common practice, no published source.
"""

from collections.abc import Iterator
from math import pi

from vallostasis.core.bores.plate import held_as_recorded
from vallostasis.core.features.parts import part_with_key
from vallostasis.core.notation.lengths import metres
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Place, Quantity, ZeroedOn
from vallostasis.core.records.spec_card import Construction, sheet_of
from vallostasis.core.surveys.derived import DerivedKind
from vallostasis.core.surveys.survey import Survey, survey_of
from vallostasis.core.trail import Phrase, Term
from vallostasis.core.uncertainty.budget import Estimate, difference_of, mean_of, stated

# A skirt narrower at its open end than below the pin has been squeezed together. [m]
COLLAPSED_M = 10e-6


def bore_change_from_ring_gap(gap_change_m: float) -> float:
    """How much a bore changes in diameter where a ring's gap changes by so much. [m]

    Notes
    -----
    The ring keeps its length, so the gap is the change of circumference: ΔD = Δgap/π.
    Closed form.
    """
    return gap_change_m / pi


def _ring_gap(facts: JobFacts, survey: Survey) -> Iterator[Phrase]:
    read = [row for row in survey.places if row.value_m is not None]
    if len(read) < 2:
        return
    first, last = read[0], read[-1]
    change = bore_change_from_ring_gap((first.value_m or 0.0) - (last.value_m or 0.0))
    larger, smaller = (first, last) if change >= 0 else (last, first)
    yield Phrase(
        f"The gap says the bore is {{change}} larger at {larger.name} than at {smaller.name}.",
        (Term("change", abs(change)),),
    )
    part = part_with_key(facts, Quantity.LINER_BORE, survey.part.key)
    bore = None if part is None else survey_of(facts, Quantity.LINER_BORE, part)
    if bore is not None and bore.form is not None and bore.form.taper_of_mean_m is not None:
        end = "top" if bore.form.taper_of_mean_m >= 0 else "bottom"
        yield Phrase(f"The bore gauge found it {{taper}} larger at the {end}: the two ought to agree.",
                     (Term("taper", abs(bore.form.taper_of_mean_m)),))  # fmt: skip


def _crown(facts: JobFacts, survey: Survey) -> Iterator[Phrase]:
    part = part_with_key(facts, Quantity.PISTON_SKIRT, survey.part.key)
    skirt = None if part is None else survey_of(facts, Quantity.PISTON_SKIRT, part)
    if survey.form is None or skirt is None or skirt.form is None:
        return
    less = skirt.form.greatest_m - survey.form.greatest_m
    words = "The crown is {less} smaller than the skirt, as it runs hotter." if less > 0 else (
        "The crown is not smaller than the skirt but {less} larger: it runs hotter and would seize. Read both again."
    )  # fmt: skip
    yield Phrase(words, (Term("less", abs(less)),))


def _skirt(_: JobFacts, survey: Survey) -> Iterator[Phrase]:
    across = [row for row in survey.places if row.value_m is not None and row.place.axis_deg == 90.0]
    across.sort(key=lambda row: row.place.level_um or 0)
    if len(across) > 1:
        squeezed = (across[0].value_m or 0.0) - (across[-1].value_m or 0.0)
        if squeezed > COLLAPSED_M:
            yield Phrase("The open end of the skirt is {squeezed} narrower: it may have collapsed.",
                         (Term("squeezed", squeezed),))  # fmt: skip


def _clearance(facts: JobFacts, survey: Survey) -> Iterator[Phrase]:
    """Hold what a feeler found beside a piston against bore less skirt."""
    setup = None if survey.reading_set is None else facts.setup(survey.reading_set.setup_id)
    if setup is not None and "hanging free" in setup.method:
        yield Phrase(
            "A feeler beside a piston that hangs free finds only part of the gap: press it against the other wall."
        )
    gap = survey.places[0].value_m
    bore, part = _bore_of(facts, survey), part_with_key(facts, Quantity.PISTON_SKIRT, survey.part.key)
    skirt = None if part is None else survey_of(facts, Quantity.PISTON_SKIRT, part)
    if gap is None or survey.budget is None or bore is None or skirt is None:
        return
    widest = max(skirt.read, key=lambda row: row.value_m or 0.0, default=None)
    found = survey.places[0].estimate
    if not bore.estimates or widest is None or widest.estimate is None or found is None:
        return
    k = facts.card.coverage_factor
    sizes = difference_of(_across_mean(bore), widest.estimate)
    apart = stated("feeler against bore less skirt", difference_of(found, sizes), k)
    clearance, within, off = stated("bore less skirt", sizes, k).value_m, apart.expanded_m, apart.value_m
    if abs(off) <= within:
        words = "they agree within ±{U}."
    elif off < 0:
        words = "it found {off} ±{U} less than there is. Press the piston against the other wall and read again."
    else:
        words = "it found {off} ±{U} more than there is. Read bore and skirt again."
    yield Phrase(
        f"Bore less skirt is {{clearance}} on the diameter, across the block; the feeler found {{gap}}: {words}",
        (Term("clearance", clearance), Term("gap", gap), Term("off", abs(off)), Term("U", within, "within")),
    )


def _bore_of(facts: JobFacts, survey: Survey) -> Survey | None:
    """The bore that a piston runs in: that of the liner fitted, or that of a block without liners."""
    unlined = facts.card.construction in (Construction.PARENT_BORE, Construction.COATED)
    quantity = Quantity.BLOCK_BORE if unlined else Quantity.LINER_BORE
    part = part_with_key(facts, quantity, f"hole-{survey.part.hole}")
    return None if part is None or part.target is None else survey_of(facts, quantity, part)


def _across_mean(bore: Survey) -> Estimate:
    """Mean diameter across the block, where the piston is guided; of all axes where that one was not read. [m]"""
    across = [row.estimate for row in bore.read if row.place.axis_deg == 90.0 and row.estimate is not None]
    return mean_of(across or bore.estimates)


def _sleeve(_: JobFacts, survey: Survey) -> Iterator[Phrase]:
    barrel = survey.one_of(DerivedKind.BARREL)
    if barrel is not None and barrel.stated.value_m > barrel.stated.expanded_m:
        terms = (Term("barrel", barrel.stated.value_m), Term("U", barrel.stated.expanded_m, "within"))
        yield Phrase("It is {barrel} ±{U} fatter in the middle: its press is judged level by level, not by one number.",
                     terms)  # fmt: skip


def _bore(facts: JobFacts, survey: Survey) -> Iterator[Phrase]:
    yield from _to_go(facts, survey)
    yield from held_as_recorded(facts, survey)


def _to_go(facts: JobFacts, survey: Survey) -> Iterator[Phrase]:
    """Say how much is to come out at each depth, to the target the gauge was zeroed on, else to the card's nominal."""
    if survey.form is None or survey.budget is None or survey.reading_set is None:
        return
    setup = facts.setup(survey.reading_set.setup_id)
    sheet = sheet_of(facts.card, survey.feature.quantity)
    target = None if sheet is None else sheet.nominal.metres
    if setup.zeroed_on is ZeroedOn.TARGET:
        target = metres(setup.zero_um)
    if target is None:
        return
    depths = sorted({row.place.level_um for row in survey.places if row.place.level_um is not None})
    left = [
        (survey.pattern.name_of(Place(level_um=depth)), target - level.mean_m)
        for depth, level in zip(depths, survey.form.levels, strict=True)
        if level.mean_m is not None
    ]
    least, most = min(one for _, one in left), max(one for _, one in left)
    if most <= survey.budget.expanded_m:
        return
    some = [(name, one) for name, one in left if one > 0]
    words = ", ".join(f"{{at {name}}} at {name}" for name, _ in some)
    cone = most - least > survey.budget.expanded_m
    yield Phrase(
        f"To go to {{target}}, on the diameter: {words}; each within ±{{U}}."
        + (" Say from which depth: a worn bore starts from another size at each." if cone else ""),
        (
            Term("target", target, "size"),
            *(Term(f"at {name}", one) for name, one in some),
            Term("U", survey.budget.expanded_m, "within"),
        ),
    )


CHECKS = {
    Quantity.RING_GAP: _ring_gap,
    Quantity.PISTON_CROWN: _crown,
    Quantity.PISTON_SKIRT: _skirt,
    Quantity.PISTON_CLEARANCE: _clearance,
    Quantity.LINER_OUTSIDE: _sleeve,
    Quantity.BLOCK_BORE: _bore,
    Quantity.LINER_BORE: _bore,
}
