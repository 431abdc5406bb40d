"""Sums of notation: what a text typed in the shop means."""

from dataclasses import dataclass
from decimal import Decimal
from typing import Annotated

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.deps import LengthText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.trail import StepView
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.features.catalogue import feature_of
from vallostasis.core.features.senses import senses_of
from vallostasis.core.features.usual_lengths import whole_size_of
from vallostasis.core.notation.bore_line import BoreLevel, BorePlace, BorePlan, parse_bore_line
from vallostasis.core.notation.entry_line import Position, parse_entry_line
from vallostasis.core.notation.lengths import Unit, metres
from vallostasis.core.notation.pasted import MOST_LINES, read_pasted
from vallostasis.core.notation.typed_lengths import ExpectedRange, ParsedLength, parse_diameter, parse_length, unit_step
from vallostasis.core.records.rows import Quantity

router = APIRouter(prefix="/api/compute", tags=["compute"], responses=ERROR_RESPONSES)

Length = Annotated[float, Field(allow_inf_nan=False, ge=-10, le=10, description="[m]")]


# Nothing is farther off than this where only one bound is given. [µm]
NO_BOUND_UM = Decimal(100_000_000)


class BoreLevelIn(BaseModel):
    """A level that the card asks to be read."""

    name: Annotated[str, Field(max_length=60)]
    depth_um: Annotated[Decimal, Field(ge=-10_000_000, le=10_000_000, description="Below the deck. [µm]")]


class ParseRequest(BaseModel):
    """Text in shop notation: a length, or a whole entry line when holes are given."""

    text: LengthText
    bare_unit: Unit = Field(description="Unit that a number without a unit takes.")
    confirmed: bool = Field(False, description="True when a question was answered with: yes, as typed.")
    least_um: Decimal | None = Field(
        None, ge=-NO_BOUND_UM, le=NO_BOUND_UM, description="Least value taken without asking. [µm]"
    )
    greatest_um: Decimal | None = Field(
        None, ge=-NO_BOUND_UM, le=NO_BOUND_UM, description="Greatest value taken without asking. [µm]"
    )
    holes: list[Annotated[int, Field(ge=1, le=99)]] = Field(
        [], max_length=99, description="Hole numbers; given, the text is read as [hole] [clock]h value."
    )
    quantity: Quantity | None = Field(None, description="What is read: it says which sign deep or tight give.")
    zero_um: Decimal | None = Field(
        None, gt=0, le=10_000_000, description="Size the gauge was zeroed on: a whole size is understood. [µm]"
    )
    present_hole: int | None = Field(None, ge=1, le=99)
    present_hour: float | None = Field(None, gt=0, le=12)
    levels: list[BoreLevelIn] = Field(
        [], max_length=60, description="Levels of a bore; given, the text is read as [hole] [level] [axis]d value."
    )
    axes_deg: list[Annotated[float, Field(ge=0, lt=180)]] = Field([], max_length=36)
    depth_unit: Unit = Field("mm", description="Unit that a bare depth of a level takes.")
    present_level_um: Decimal | None = Field(None, ge=-10_000_000, le=10_000_000)
    present_axis_deg: float | None = Field(None, ge=0, lt=180)


class ParseAnswer(BaseModel):
    """What the text says; no value when it only chooses a hole or position."""

    hole: int | None
    hour: float | None
    level_um: Decimal | None = Field(None, description="Level of a bore below the deck. [µm]")
    axis_deg: float | None = Field(None, description="Axis of a bore. [deg]")
    value_um: Decimal | None = Field(description="Exact value. [µm]")
    value_m: float | None = Field(description="The same value. [m]")
    number: Decimal | None = Field(description="The number as it was given.")
    unit: Unit | None = Field(description="The unit it was given in.")
    unit_was_typed: bool
    is_whole_size: bool = Field(description="The whole size was typed; the value is what it deviates from the zero.")
    typed: str = Field(description="The length as typed, without hole and clock position.")
    trail: list[StepView]


@router.post("/parse")
def compute_parse(ask: ParseRequest) -> ParseAnswer:
    """Read a length or an entry line in shop notation, exactly; asks back instead of guessing."""
    expected = None
    if ask.least_um is not None or ask.greatest_um is not None:
        least = -NO_BOUND_UM if ask.least_um is None else ask.least_um
        greatest = NO_BOUND_UM if ask.greatest_um is None else ask.greatest_um
        if least > greatest:
            raise OutOfDomain(f"the least value, {least} µm, lies above the greatest, {greatest} µm", "least_um")
        expected = ExpectedRange(least, greatest)
    place, reading = _understood(ask, expected)
    size = None if reading is None or ask.zero_um is None else whole_size_of(reading, ask.zero_um)
    reading = size or reading
    return ParseAnswer(
        hole=place.hole,
        hour=place.hour,
        level_um=place.level_um,
        axis_deg=place.axis_deg,
        value_um=None if reading is None else reading.value_um,
        value_m=None if reading is None else metres(reading.value_um),
        number=None if reading is None else reading.number,
        unit=None if reading is None else reading.unit,
        unit_was_typed=reading is not None and reading.unit_was_typed,
        is_whole_size=size is not None,
        typed="" if reading is None else reading.typed,
        trail=[] if reading is None else [StepView.of(unit_step(reading))],
    )


@dataclass(frozen=True, slots=True)
class _Named:
    """Where a line says a reading belongs, round the clock or down a bore."""

    hole: int | None
    hour: float | None = None
    level_um: Decimal | None = None
    axis_deg: float | None = None


def _understood(ask: ParseRequest, expected: ExpectedRange | None) -> tuple[_Named, ParsedLength | None]:
    senses = {} if ask.quantity is None else senses_of(ask.quantity)
    is_diameter = ask.quantity is None or feature_of(ask.quantity).is_diameter

    def reads(text: str) -> ParsedLength:
        read = parse_diameter if is_diameter else parse_length
        return read(text, ask.bare_unit, expected, ask.confirmed, senses)

    if ask.levels:
        levels = tuple(BoreLevel(one.name, one.depth_um) for one in ask.levels)
        plan = BorePlan(tuple(ask.holes), levels, tuple(ask.axes_deg), ask.depth_unit)
        now = BorePlace(ask.present_hole, ask.present_level_um, ask.present_axis_deg)
        bore = parse_bore_line(ask.text, now, plan, reads)
        return _Named(bore.place.hole, None, bore.place.level_um, bore.place.axis_deg), bore.reading
    present = Position(ask.present_hole, ask.present_hour)
    if ask.holes:
        line = parse_entry_line(ask.text, present, tuple(ask.holes), ask.bare_unit, expected, ask.confirmed, senses)
        return _Named(line.position.hole, line.position.hour), line.reading
    return _Named(present.hole, present.hour), reads(ask.text)


class PastedRequest(BaseModel):
    """A text that was pasted, and the block it is for."""

    text: str = Field(max_length=20_000, description="Columns of a spreadsheet, or lines of a message.")
    holes: list[int] = Field(max_length=32)
    hours: list[Annotated[float, Field(gt=0, le=12)]] = Field([], max_length=24)


class PastedReadingView(BaseModel):
    """Where a pasted number belongs."""

    hole: int
    hour: float
    text: str


class PastedLineView(BaseModel):
    """A line that is not understood."""

    line: int
    text: str
    message: str


class PastedAnswer(BaseModel):
    """What a pasted text holds: readings with their places, columns without headings, what is left."""

    readings: list[PastedReadingView]
    table: list[list[str]]
    not_understood: list[PastedLineView]


@router.post("/pasted")
def compute_pasted(ask: PastedRequest) -> PastedAnswer:
    """Take a pasted text apart into holes, clock positions and the numbers as they stand."""
    if len(ask.text.splitlines()) > MOST_LINES:
        raise OutOfDomain(f"more than {MOST_LINES} lines: paste fewer at a time", "text")
    pasted = read_pasted(ask.text, tuple(ask.holes), tuple(ask.hours))
    return PastedAnswer(
        readings=[PastedReadingView(hole=one.hole, hour=one.hour, text=one.text) for one in pasted.readings],
        table=[list(row) for row in pasted.table],
        not_understood=[PastedLineView(line=one.line, text=one.text, message=one.why) for one in pasted.not_understood],
    )
