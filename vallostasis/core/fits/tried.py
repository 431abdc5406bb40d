"""A trial fit by hand beside what was expected of it. Common practice, no published source."""

from dataclasses import dataclass

from vallostasis.core.features.parts import part_with_key
from vallostasis.core.fits.fit import Fit
from vallostasis.core.fits.going_in import GoingIn, liner_length_m
from vallostasis.core.fits.hand_start import START_SAYS, HandStart, hand_start
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity
from vallostasis.core.surveys.survey import survey_of


@dataclass(frozen=True, slots=True)
class Tried:
    """How far a liner went in by hand [m], dry or oiled, and whether the readings expected that."""

    inserted_m: float
    start: HandStart
    held: str
    says: str
    as_expected: bool | None


def tried_of(facts: JobFacts, fit: Fit, expected: GoingIn | None) -> Tried | None:
    """Return what a trial fit of this liner in this hole found; None where nobody tried it. [m]

    Common practice, no published source.
    """
    part = part_with_key(facts, Quantity.TRIAL_FIT, f"hole-{fit.hole.number}")
    survey = None if part is None else survey_of(facts, Quantity.TRIAL_FIT, part)
    length = liner_length_m(facts.card)
    if survey is None or survey.reading_set is None or survey.reading_set.part != fit.liner.mark or not length:
        return None
    inserted = survey.places[0].value_m
    if inserted is None:
        return None
    held = facts.setup(survey.reading_set.setup_id).load
    band = None if expected is None else {"dry": expected.by_hand_dry, "oiled": expected.by_hand}.get(held)
    within = survey.places[0].expanded_m or 0.0
    as_expected = None if band is None else band.low - within <= inserted <= band.high + within
    start = hand_start(inserted, length)
    return Tried(inserted, start, held, START_SAYS[start.fit], as_expected)
