"""Gauges that talk: their links, what they say now, and placing a simulated tip."""

from dataclasses import asdict
from decimal import Decimal
from typing import Annotated, Literal
from uuid import UUID

from fastapi import APIRouter, Depends, Query, Request
from pydantic import BaseModel, Field

from vallostasis.api.deps import Conn, Name, ShortText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.survey_models import PlaceView
from vallostasis.core.records.rows import Place, Quantity
from vallostasis.devices.gauge_link import LinkState
from vallostasis.devices.link_board import LinkBoard
from vallostasis.services import gauge_links, thermometers

router = APIRouter(prefix="/api", tags=["gauge links"], responses=ERROR_RESPONSES)


def _board(request: Request) -> LinkBoard:
    board: LinkBoard = request.app.state.links
    return board


Board = Annotated[LinkBoard, Depends(_board)]


class GaugeLinkBody(BaseModel):
    """Where a gauge sends its lines and how they are written."""

    url: ShortText = Field(examples=["socket://127.0.0.1:8430", "/dev/ttyUSB0"])
    line_pattern: ShortText = Field("{value} {unit}", description="{value} once, {unit} at most once.")
    unit: Literal["mm", "µm", "thou", "inch"]
    simulated: bool = False


class RockedView(BaseModel):
    """The size from a few rocks: their median, how many there were, and how far they lie apart."""

    text: str
    value_um: Decimal
    value_m: float
    rocks: int
    spread_m: float


class TalkingGaugeView(BaseModel):
    """A gauge's link and what it says now."""

    gauge_id: UUID
    name: str
    url: str
    line_pattern: str
    unit: str
    simulated: bool
    state: LinkState
    message: str
    text: str = Field(description="The last value as the gauge sent it, with its unit; empty before the first.")
    value_um: Decimal | None
    value_m: float | None
    age_s: float | None
    rocked: RockedView | None = Field(None, description="What rocking a bore gauge has shown since it was asked for.")

    @classmethod
    def of(cls, gauge: gauge_links.TalkingGauge) -> "TalkingGaugeView":
        """Show a talking gauge."""
        link, now = gauge.link, gauge.now
        return cls(
            gauge_id=link.gauge_id,
            name=link.name,
            url=link.url,
            line_pattern=link.line_pattern,
            unit=link.unit,
            simulated=link.simulated,
            state=now.state,
            message=now.message,
            text="" if now.value is None else now.value.text,
            value_um=None if now.value is None else now.value.value_um,
            value_m=None if now.value is None else float(now.value.value_um) / 1e6,
            age_s=now.age_s,
            rocked=None if gauge.rocked is None else RockedView(**asdict(gauge.rocked)),
        )


class TipBody(BaseModel):
    """Where a simulated tip stands."""

    job_id: UUID
    quantity: Quantity
    hole: int | None = Field(None, ge=1, le=16)
    hour: float | None = Field(None, gt=0, le=12)
    part: ShortText = Field("", description="Part of a survey, such as hole-2.")
    place: PlaceView | None = Field(None, description="Place of a survey.")


class GaugeTold(BaseModel):
    """The gauge that was set up or told."""

    gauge_id: UUID


@router.get("/gauge-links")
def list_gauge_links(conn: Conn, board: Board) -> list[TalkingGaugeView]:
    """Every gauge that talks, and how its link stands."""
    return [TalkingGaugeView.of(gauge) for gauge in gauge_links.list_talking(conn, board)]


@router.get("/gauges/{gauge_id}/link")
def read_gauge_link(
    gauge_id: UUID, conn: Conn, board: Board, since_s: Annotated[float | None, Query(ge=0, le=60)] = None
) -> TalkingGaugeView | None:
    """What one gauge says now; null when it has no link. A bore gauge is asked what its rocks of late have shown."""
    gauge = gauge_links.talking(conn, board, gauge_id, since_s)
    return None if gauge is None else TalkingGaugeView.of(gauge)


@router.post("/gauges/{gauge_id}/links", status_code=201)
def set_up_gauge_link(gauge_id: UUID, body: GaugeLinkBody, conn: Conn) -> GaugeTold:
    """Read a gauge from this address and by this pattern from now on."""
    gauge_links.set_up_link(conn, gauge_id, body.url, body.line_pattern, body.unit, body.simulated)
    return GaugeTold(gauge_id=gauge_id)


@router.post("/gauges/{gauge_id}/tip")
def place_tip(gauge_id: UUID, body: TipBody, conn: Conn, board: Board) -> GaugeTold:
    """Tell a simulated gauge where its tip stands; a real one is placed by hand."""
    place = Place(hour=body.hour) if body.place is None else body.place.place()
    tip = gauge_links.TipPlace(body.job_id, body.quantity, body.hole, body.part, place)
    gauge_links.place_tip(conn, board, gauge_id, tip)
    return GaugeTold(gauge_id=gauge_id)


class ThermometerView(BaseModel):
    """A thermometer and what it says now. [°C]"""

    name: str
    lies_on: str
    url: str
    line_pattern: str
    simulated: bool
    state: LinkState
    message: str
    celsius: Decimal | None
    text: str


class ThermometerBody(BaseModel):
    """Where a thermometer talks; set up again under its name, it talks there from now on."""

    name: Name
    lies_on: Literal["part", "room", "block", "liner"]
    url: ShortText
    line_pattern: ShortText = "{value} {unit}"
    simulated: bool = False


class ThermometerSet(BaseModel):
    """The thermometer that was set up."""

    name: str


@router.get("/thermometers")
def list_thermometers(conn: Conn, board: Board) -> list[ThermometerView]:
    """Every thermometer that talks, and what it says now."""
    return [
        ThermometerView(
            name=one.row.name,
            lies_on=one.row.lies_on,
            url=one.row.url,
            line_pattern=one.row.line_pattern,
            simulated=one.row.simulated,
            state=one.now.state,
            message=one.now.message,
            celsius=None if one.now.warmth is None else one.now.warmth.celsius,
            text="" if one.now.warmth is None else one.now.warmth.text,
        )
        for one in thermometers.list_thermometers(conn, board)
    ]


@router.post("/thermometers", status_code=201)
def set_up_thermometer(body: ThermometerBody, conn: Conn) -> ThermometerSet:
    """Read a thermometer from this address from now on."""
    thermometers.set_up_thermometer(conn, body.name, body.lies_on, body.url, body.line_pattern, body.simulated)
    return ThermometerSet(name=body.name)
