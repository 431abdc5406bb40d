"""What a trial fit by hand says. Common practice, no published source."""

from collections.abc import Iterator

from vallostasis.core.fits.hand_start import START_SAYS, hand_start
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import sheet_of
from vallostasis.core.surveys.survey import Survey
from vallostasis.core.trail import Phrase, Term


def _trial(facts: JobFacts, survey: Survey) -> Iterator[Phrase]:
    setup = None if survey.reading_set is None else facts.setup(survey.reading_set.setup_id)
    if setup is not None and not setup.load:
        yield Phrase("A start depth means little without whether it was dry or oiled: say so.")
    sheet = sheet_of(facts.card, Quantity.TRIAL_FIT)
    length = None if sheet is None else sheet.nominal.metres
    if not length:
        yield Phrase("A start depth is judged as a share of the liner's length: write that on the card.")
        return
    inserted = survey.places[0].value_m
    if inserted is not None:
        start = hand_start(inserted, length)
        held = "" if setup is None or not setup.load else f", {setup.load}"
        yield Phrase(
            f"By hand it goes in {{share}} of its length{held}: {START_SAYS[start.fit]}",
            (Term("share", start.share, "share"),),
        )


CHECKS = {Quantity.TRIAL_FIT: _trial}
