"""What a reading of a main bore says beside its limits."""

from collections.abc import Iterator

from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity
from vallostasis.core.surveys.survey import Survey
from vallostasis.core.trail import Phrase, Term


def _main(_: JobFacts, survey: Survey) -> Iterator[Phrase]:
    least = next((rule.least_m for rule in survey.rules if rule.least_m is not None), None)
    if survey.form is None or least is None:
        return
    over = survey.form.least_m - least
    if over < 0:
        yield Phrase("{over} below the low limit: any amount small eats the oil clearance.", (Term("over", -over),))
    else:
        yield Phrase("The tightest axis stands {over} above the low limit, which is what it is read against.",
                     (Term("over", over),))  # fmt: skip


CHECKS = {Quantity.MAIN_BORE: _main}
