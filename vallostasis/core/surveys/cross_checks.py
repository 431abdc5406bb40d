"""What to mind about how a survey was read, whatever was read; what it says beside others its subject knows.

Rules of thumb here are common practice, no published source.
"""

from collections.abc import Iterator
from math import sqrt
from statistics import fmean

from vallostasis.core.notation.lengths import metres
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.values import value_used_um
from vallostasis.core.shapes.ovality import share_seen
from vallostasis.core.surveys.derived import DerivedKind, worst
from vallostasis.core.surveys.set_budget import material_of
from vallostasis.core.surveys.survey import Survey
from vallostasis.core.thermal.expansion import known_expansion
from vallostasis.core.trail import Phrase, Term

# Repeats that spread this much wider than the gauge is said to repeat are worth a study.
WIDER_THAN_SAID = 1.5
FEWEST_REPEATS = 3
# The axes that a bore is read on where only two are. [deg]
ALONG_AND_ACROSS = (0.0, 90.0)


def checks_of_reading(facts: JobFacts, survey: Survey) -> tuple[Phrase, ...]:
    """Say what to mind about how anything was read, in sentences with numbers. [m]"""
    return (*_two_axes(survey), *_materials(facts, survey), *_repeats(facts, survey))


def _two_axes(survey: Survey) -> Iterator[Phrase]:
    """How much of the greatest oval the two axes that most people read would have shown, where more were read."""
    oval = worst(survey.derived, DerivedKind.OVALITY)
    if oval is None or oval.direction_deg is None:
        return
    share = share_seen(ALONG_AND_ACROSS, oval.direction_deg)
    yield Phrase(
        "Read along and across the crank alone, {seen} of the {oval} oval at " + oval.where + " would have shown.",
        (Term("seen", share * oval.stated.value_m), Term("oval", oval.stated.value_m)),
    )


def _materials(facts: JobFacts, survey: Survey) -> Iterator[Phrase]:
    """Say where a size was brought to 20 °C with an expansion that nobody knows."""
    if survey.reading_set is None or not survey.at_20c:
        return
    setup = facts.setup(survey.reading_set.setup_id)
    names = [material_of(facts.card, survey.feature.quantity)]
    if setup.setting_master_version_id is not None:
        names.append(facts.master(setup.setting_master_version_id).material)
    for name in dict.fromkeys(names):
        if known_expansion(name, facts.materials) is None:
            yield Phrase(f"How {name or 'its material'} expands is not known: it is taken to be as iron. "
                         "Write it down under Masters and service.")  # fmt: skip


def _repeats(facts: JobFacts, survey: Survey) -> Iterator[Phrase]:
    """Hold the spread of repeats at one place against what the gauge is said to repeat within."""
    if survey.reading_set is None:
        return
    squares, freedom = 0.0, 0
    for row in survey.places:
        values = [metres(value_used_um(facts, survey.reading_set, one)) for one in row.readings]
        if len(values) > 1:
            mean = fmean(values)
            squares += sum((value - mean) ** 2 for value in values)
            freedom += len(values) - 1
    if freedom < FEWEST_REPEATS - 1:
        return
    spread = sqrt(squares / freedom)
    stated = metres(facts.gauge_version(survey.reading_set.gauge_version_id).repeatability_um)
    words = f"Repeats at one place spread by {{spread}} ({freedom} degrees of freedom); the gauge states {{stated}}."
    if spread > WIDER_THAN_SAID * stated:
        words += " That is wider than it should: do a study of it, or look at how it is held."
    yield Phrase(words, (Term("spread", spread, "within"), Term("stated", stated, "within")))
