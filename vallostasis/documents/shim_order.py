"""The order list of a job's shims, as CSV and as a page to print."""

import csv
import io
from dataclasses import dataclass
from decimal import Decimal

import jinja2

from vallostasis.core.counterbore.shim_order import SPARE, ShimNeed
from vallostasis.documents.cells import safe

HEADER = ("job", "engine", "size", "needed_for_holes", "on_the_shelf", "to_order", "of_which_spare", "each", "price")
PAGES = jinja2.Environment(loader=jinja2.PackageLoader("vallostasis.documents", "templates"), autoescape=True)


@dataclass(frozen=True, slots=True)
class ShimOrder:
    """What a job orders."""

    job: str
    name: str
    engine: str
    currency: str
    lines: tuple[ShimNeed, ...]

    def price_of(self, one: ShimNeed) -> str:
        """Price of a line; empty where none is known."""
        return "" if one.price is None else f"{one.price * one.to_order:.2f}"

    @property
    def total(self) -> str:
        """Price of all lines that have one; empty where none has."""
        prices = [one.price * one.to_order for one in self.lines if one.price is not None]
        return f"{sum(prices, Decimal(0)):.2f}" if prices else ""


def shim_order_csv(order: ShimOrder) -> str:
    """Write the order list as CSV (RFC 4180); nothing in it is run by a spreadsheet."""
    out = io.StringIO(newline="")
    writer = csv.writer(out)
    writer.writerow(HEADER)
    for one in order.lines:
        holes = " ".join(str(hole) for hole in one.holes)
        each = "" if one.price is None else str(one.price)
        writer.writerow((safe(order.job), safe(order.engine), safe(one.typed), holes, one.on_shelf, one.to_order, SPARE,
                         each, order.price_of(one)))  # fmt: skip
    return out.getvalue()


def shim_order_html(order: ShimOrder) -> str:
    """Write the order list as one page."""
    return str(PAGES.get_template("shim_order.html").render(order=order))
