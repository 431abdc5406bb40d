"""What is ordered to a measured bore, on a page for whoever makes it: drawing, sizes, what was agreed besides."""

from dataclasses import dataclass

import jinja2

from vallostasis.core.notation.lengths import METRIC_UNITS, Unit, format_length
from vallostasis.core.pistons.order import Ordered, OrderSheet
from vallostasis.documents.phrases import said

PAGES = jinja2.Environment(loader=jinja2.PackageLoader("vallostasis.documents", "templates"), autoescape=True)


@dataclass(frozen=True, slots=True)
class Agreed:
    """What is ordered besides sizes, as it was typed: grooves, crown, pin, wings and ports, count, date."""

    rings: str = ""
    pin: str = ""
    crown: str = ""
    form: str = ""
    count: str = ""
    until: str = ""
    words: str = ""

    @property
    def lines(self) -> tuple[tuple[str, str], ...]:
        """What was typed, each with its name."""
        named = (("how many", self.count), ("rings and grooves", self.rings), ("pin and its opening", self.pin),
                 ("crown", self.crown), ("wings, ports, lead", self.form), ("wanted by", self.until),
                 ("besides", self.words))  # fmt: skip
        return tuple((name, text.strip()) for name, text in named if text.strip())


def part_order_html(job: str, engine: str, sheet: OrderSheet, agreed: Agreed, unit: Unit) -> str:
    """Write the order of one hole as a page."""
    size: Unit = "mm" if unit in METRIC_UNITS else "inch"

    def sizes(one: Ordered) -> str:
        if one.least_m is None or one.greatest_m is None:
            return ""
        ends = [format_length(end, size, signed=False) for end in (one.least_m, one.greatest_m)]
        return f"{ends[0]} {size}" if ends[0] == ends[1] else f"{ends[0]} to {ends[1]} {size}"

    piston = sheet.ordered[0]
    return str(
        PAGES.get_template("part_order.html").render(
            job=job, engine=engine, sheet=sheet, agreed=agreed, sizes=sizes, piston=piston,
            said=lambda phrase: said(phrase, unit),
        )
    )  # fmt: skip
