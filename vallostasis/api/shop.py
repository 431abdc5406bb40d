"""People and gauges of the shop."""

from datetime import date
from uuid import UUID

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.deps import Conn, LengthText, LongText, Name, ShortText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.core.notation.lengths import Unit
from vallostasis.core.records.gauges import GaugeVersion
from vallostasis.core.records.rows import Person
from vallostasis.services import shop
from vallostasis.store import gauges, people

router = APIRouter(prefix="/api", tags=["shop"], responses=ERROR_RESPONSES)


class PersonBody(BaseModel):
    """Somebody by name."""

    name: Name


class GaugeBody(BaseModel):
    """A gauge or its next version; step and repeatability are small lengths, range and radius sizes."""

    name: Name
    kind: Name
    resolution: LengthText
    repeatability: LengthText
    tip: ShortText = ""
    note: LongText = ""
    range_from: LengthText = ""
    range_to: LengthText = ""
    tip_radius: LengthText = ""
    calibrated_on: date | None = None
    due_on: date | None = None
    owner: ShortText = Field("", description="Whose it is; empty for the shop's own.")
    master: ShortText = Field("", description="What it was checked against.")
    faults: LongText = ""
    confirmed: bool = Field(False, description="Take lengths that look like a slip as typed.")
    small_unit: Unit = Field("µm", description="Of small lengths without a unit.")
    size_unit: Unit = Field("mm", description="Of sizes without a unit.")
    based_on_version: int = Field(0, ge=0, le=1_000_000)


@router.get("/people")
def list_people(conn: Conn) -> list[Person]:
    """Everybody in the shop."""
    return list(people.list_people(conn))


@router.post("/people", status_code=201)
def add_person(body: PersonBody, conn: Conn) -> Person:
    """Add somebody."""
    return shop.add_person(conn, body.name)


@router.get("/gauges")
def list_gauges(conn: Conn) -> list[GaugeVersion]:
    """Return the newest version of every gauge."""
    return list(gauges.list_gauges(conn))


@router.post("/gauges", status_code=201)
def add_gauge(body: GaugeBody, conn: Conn) -> GaugeVersion:
    """Add a gauge."""
    return _save(conn, None, body)


@router.post("/gauges/{gauge_id}/versions", status_code=201)
def save_gauge_version(gauge_id: UUID, body: GaugeBody, conn: Conn) -> GaugeVersion:
    """Save a gauge as its next version; sets read before keep the one they were read with."""
    return _save(conn, gauge_id, body)


def _save(conn: Conn, gauge_id: UUID | None, body: GaugeBody) -> GaugeVersion:
    entry = shop.GaugeEntry(**body.model_dump(exclude={"based_on_version"}))
    return shop.save_gauge(conn, gauge_id, body.based_on_version, entry)
