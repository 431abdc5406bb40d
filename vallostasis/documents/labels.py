"""Labels of parts and holes on common label sizes, as SVG and as pages to print; a code on each opens what it is of.

Sizes of labels: of rolls and sheets that stationers sell. Common practice, no published source.
"""

from dataclasses import dataclass
from enum import StrEnum

import jinja2
from markupsafe import Markup

from vallostasis.documents.qr_code import qr_svg

PAGES = jinja2.Environment(loader=jinja2.PackageLoader("vallostasis.documents", "templates"), autoescape=True)
# Letters of a plain face are hardly wider than so much of their height, on the average of a line.
_WIDE = 0.56
_LEAST_TEXT_MM = 1.9
_MARGIN_MM = 2.0


class LabelSize(StrEnum):
    """A label, or a sheet of them."""

    SMALL = "50 x 25 mm"
    ADDRESS = "89 x 36 mm"
    LARGE = "100 x 62 mm"
    SHEET_24 = "A4 sheet of 24, 70 x 37 mm"
    SHEET_14 = "A4 sheet of 14, 99 x 38 mm"


@dataclass(frozen=True, slots=True)
class _Stock:
    """Width and height of a label, columns and rows of its sheet, edges of the sheet and gap between columns. [mm]"""

    width: float
    height: float
    columns: int = 1
    rows: int = 1
    left: float = 0.0
    top: float = 0.0
    gap: float = 0.0

    @property
    def is_sheet(self) -> bool:
        """Whether several stand on one page."""
        return self.columns * self.rows > 1


_STOCK = {
    LabelSize.SMALL: _Stock(50, 25),
    LabelSize.ADDRESS: _Stock(89, 36),
    LabelSize.LARGE: _Stock(100, 62),
    LabelSize.SHEET_24: _Stock(70, 37, 3, 8, 0, 0.5),
    LabelSize.SHEET_14: _Stock(99.1, 38.1, 2, 7, 4.65, 15.15, 2.5),
}


@dataclass(frozen=True, slots=True)
class Label:
    """What stands on a label: a title in large, lines under it, and the address that its code opens."""

    title: str
    lines: tuple[str, ...]
    address: str


@dataclass(frozen=True, slots=True)
class _Text:
    """A line as it is set: its text, its size and where it stands. [mm]"""

    text: str
    size: float
    y: float


def places_on(size: LabelSize) -> int:
    """How many labels stand on one page."""
    return _STOCK[size].columns * _STOCK[size].rows


def label_svg(label: Label, size: LabelSize) -> str:
    """Draw one label as an SVG document in millimetres."""
    stock = _STOCK[size]
    code = min(stock.height - 2 * _MARGIN_MM, stock.width * 0.42)
    room = stock.width - code - 3 * _MARGIN_MM
    return str(PAGES.get_template("label_svg.html").render(
        stock=stock, margin=_MARGIN_MM, code=Markup(_placed(qr_svg(label.address), stock.width - code - _MARGIN_MM,
        (stock.height - code) / 2, code)), texts=_set(label, room, stock.height), what=label.title,
    ))  # fmt: skip


def _placed(svg: str, x: float, y: float, side: float) -> str:
    """A drawing as a part of another one. [mm]"""
    return svg.replace("<svg", f'<svg x="{x:.2f}" y="{y:.2f}" width="{side:.2f}" height="{side:.2f}"', 1)


def _set(label: Label, room: float, height: float) -> list[_Text]:
    """Set the text of a label: as large as its width allows, cut where it would be too small to read."""
    inner = height - 2 * _MARGIN_MM
    title = min(inner * 0.34, room / (_WIDE * max(1, len(label.title))))
    texts = [_Text(label.title, title, _MARGIN_MM + title * 0.85)]
    left = inner - title * 1.15
    pitch = left / max(1, len(label.lines))
    for at, line in enumerate(label.lines):
        size = max(_LEAST_TEXT_MM, min(pitch * 0.78, inner * 0.17, room / (_WIDE * max(1, len(line)))))
        most = int(room / (_WIDE * size))
        text = line if len(line) <= most else f"{line[: most - 1]}…"
        texts.append(_Text(text, size, _MARGIN_MM + title * 1.15 + pitch * at + pitch * 0.75))
    return texts


def labels_page(labels: tuple[Label, ...], size: LabelSize, used: int = 0) -> str:
    """Set labels out on their pages; of a sheet so many places are used already."""
    stock = _STOCK[size]
    count = places_on(size)
    cells: list[str | None] = [None] * (used % count if stock.is_sheet else 0)
    cells += [label_svg(label, size) for label in labels]
    pages = [cells[at : at + count] for at in range(0, len(cells), count)]
    placed = [
        [
            (stock.left + (at % stock.columns) * (stock.width + stock.gap),
             stock.top + (at // stock.columns) * stock.height, Markup(svg))
            for at, svg in enumerate(page) if svg is not None
        ]
        for page in pages
    ]  # fmt: skip
    paper = (210, 297) if stock.is_sheet else (stock.width, stock.height)
    return str(PAGES.get_template("labels.html").render(paper=paper, pages=placed))
