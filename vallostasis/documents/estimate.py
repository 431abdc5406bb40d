"""An estimate as a page to print: parts, and labour with machining, at least and at worst, tax apart."""

from dataclasses import dataclass
from decimal import Decimal

import jinja2

from vallostasis.core.money.standing import Written
from vallostasis.core.money.sums import Line, money_of
from vallostasis.core.records.estimates import EstimateLine, Sheet
from vallostasis.core.records.rows import Job

PAGES = jinja2.Environment(loader=jinja2.PackageLoader("vallostasis.documents", "templates"), autoescape=True)


@dataclass(frozen=True, slots=True)
class EstimatePage:
    """What stands on it: the job, its engine, the estimate, what was declined with its reason."""

    job: Job
    engine: str
    written: Written
    declined: tuple[tuple[str, str], ...]

    @property
    def parts(self) -> tuple[EstimateLine, ...]:
        """The first sheet."""
        return tuple(one for one in self.written.lines if one.sheet is Sheet.PARTS)

    @property
    def labour(self) -> tuple[EstimateLine, ...]:
        """The second sheet."""
        return tuple(one for one in self.written.lines if one.sheet is Sheet.LABOUR)

    def money(self, line: EstimateLine) -> tuple[str, str]:
        """What a line comes to, at least and at worst."""
        estimate = self.written.estimate
        amounts = money_of(Line(line.sheet, line.low, line.worst, line.tax_percent), estimate.rate, estimate.rounding)
        return amount(amounts.low), amount(amounts.worst)


def amount(value: Decimal) -> str:
    """Write an amount with its coins."""
    return f"{value:,.2f}"


def estimate_html(page: EstimatePage) -> str:
    """Write an estimate as one page."""
    return str(PAGES.get_template("estimate.html").render(page=page, amount=amount))
