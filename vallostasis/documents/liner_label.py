"""The label of a liner that belongs to its hole: to be printed, and to stay with it."""

import jinja2
from markupsafe import Markup

from vallostasis.core.fits.fit import Fit, fit_of
from vallostasis.core.notation.lengths import Unit, format_length, format_uncertainty
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Fitting, Hole
from vallostasis.documents.qr_code import qr_svg

PAGES = jinja2.Environment(loader=jinja2.PackageLoader("vallostasis.documents", "templates"), autoescape=True)


def liner_label(facts: JobFacts, hole: Hole, fitting: Fitting, unit: Unit) -> str:
    """Write the label of the liner in a hole as one small page; its code carries the same in words."""
    mark = facts.liner(fitting.liner_id).mark
    fit = fit_of(facts, hole, mark)
    press = ""
    if isinstance(fit, Fit):
        least, greatest = fit.least.press, fit.greatest.press
        press = (f"{format_length(least.value_m, unit)} to {format_length(greatest.value_m, unit)} "
                 f"±{format_uncertainty(greatest.expanded_m, unit)} {unit}")  # fmt: skip
    said = f"job {facts.job.number}, hole {hole.number}, liner {mark}, fitted {fitting.fitted_at:%Y-%m-%d}"
    return str(PAGES.get_template("liner_label.html").render(
        job=facts.job, hole=hole.number, mark=mark, press=press, fitting=fitting,
        front=facts.card.layout.twelve_o_clock, code=Markup(qr_svg(said)),
    ))  # fmt: skip
