"""The gauge cabinet: setting masters, what was done to gauges, and which gauge is fit for what."""

from datetime import date, datetime
from decimal import Decimal
from typing import Annotated, Literal
from uuid import UUID

from fastapi import APIRouter
from pydantic import BaseModel, Field, StringConstraints

from vallostasis.api.deps import Conn, LengthText, LongText, Name, ShortText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.core.notation.lengths import Unit
from vallostasis.core.records.gauges import GaugeService, SettingMaster
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.temperatures import RoomAssumed
from vallostasis.core.thermal.expansion import EXPANSION_PER_K
from vallostasis.core.uncertainty.decision import Capability
from vallostasis.services import cabinet
from vallostasis.store import gauge_services, materials, room, setting_masters

router = APIRouter(prefix="/api", tags=["cabinet"], responses=ERROR_RESPONSES)

Material = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=60,
                                            pattern=r"^[^\x00-\x1f\x7f]*$")]  # fmt: skip


MaterialName = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=40,
                                                pattern=r"^[^\x00-\x1f\x7f]*$")]  # fmt: skip
ShortShop = Annotated[str, StringConstraints(strip_whitespace=True, max_length=60, pattern=r"^[^\x00-\x1f\x7f]*$")]


class MasterBody(BaseModel):
    """A setting master or its next version; its expanded uncertainty is of k = 2."""

    name: Name
    size: LengthText
    expanded: LengthText = Field(description="As its certificate says, k = 2.")
    material: Material = "steel"
    calibrated_on: date | None = None
    due_on: date | None = None
    owner: ShortText = ""
    note: LongText = ""
    confirmed: bool = Field(False, description="Take lengths that look like a slip as typed.")
    small_unit: Unit = Field("µm", description="Of small lengths without a unit.")
    size_unit: Unit = Field("mm", description="Of sizes without a unit.")
    based_on_version: int = Field(0, ge=0, le=1_000_000)


class ServiceBody(BaseModel):
    """What was done to a gauge."""

    kind: Literal["oiled", "wear found", "calibrated", "lent", "brought back", "repaired", "dropped", "studied"]
    words: ShortText = ""
    done_on: date
    person_id: UUID


class ServiceNoted(BaseModel):
    """The gauge it was noted for."""

    gauge_id: UUID


class GaugeFitView(BaseModel):
    """How fit a gauge is for a decision. [m]"""

    gauge_id: UUID
    name: str
    expanded_m: float
    capability: Capability
    against: str
    in_use: bool


class DecisionFitView(BaseModel):
    """A decision of the card and the gauges that could take it, the finest first. [m]"""

    name: str
    quantity: Quantity
    least_m: float
    greatest_m: float
    is_difference: bool
    gauges: list[GaugeFitView]


@router.get("/setting-masters")
def list_setting_masters(conn: Conn) -> list[SettingMaster]:
    """Return the newest version of every setting master, by size."""
    return list(setting_masters.list_masters(conn))


@router.post("/setting-masters", status_code=201)
def add_setting_master(body: MasterBody, conn: Conn) -> SettingMaster:
    """Add a setting master."""
    return _save(conn, None, body)


@router.post("/setting-masters/{setting_master_id}/versions", status_code=201)
def save_setting_master_version(setting_master_id: UUID, body: MasterBody, conn: Conn) -> SettingMaster:
    """Save a master as its next version; gauges set before keep the one they were set on."""
    return _save(conn, setting_master_id, body)


def _save(conn: Conn, setting_master_id: UUID | None, body: MasterBody) -> SettingMaster:
    entry = cabinet.MasterEntry(**body.model_dump(exclude={"based_on_version"}))
    return cabinet.save_master(conn, setting_master_id, body.based_on_version, entry)


@router.get("/gauge-services")
def list_gauge_services(conn: Conn) -> list[GaugeService]:
    """Return everything that was done to gauges, newest first."""
    return list(gauge_services.list_services(conn))


@router.post("/gauges/{gauge_id}/services", status_code=201)
def note_gauge_service(gauge_id: UUID, body: ServiceBody, conn: Conn) -> ServiceNoted:
    """Record what was done to a gauge."""
    cabinet.note_service(conn, gauge_id, body.kind, body.words, body.done_on, body.person_id)
    return ServiceNoted(gauge_id=gauge_id)


@router.get("/jobs/{job_id}/gauge-fits")
def list_gauge_fits(job_id: UUID, conn: Conn) -> list[DecisionFitView]:
    """Say for every decision of a job's card which gauges of the cabinet would do."""
    return [
        DecisionFitView(
            name=one.asked.name,
            quantity=one.asked.quantity,
            least_m=one.asked.least_m,
            greatest_m=one.asked.greatest_m,
            is_difference=one.asked.is_difference,
            gauges=[
                GaugeFitView(
                    gauge_id=fit.gauge.gauge_id,
                    name=fit.gauge.name,
                    expanded_m=fit.expanded_m,
                    capability=fit.capability,
                    against=fit.against,
                    in_use=fit.gauge.gauge_id == one.in_use,
                )
                for fit in one.fits
            ],
        )
        for one in cabinet.gauges_for_job(conn, job_id)
    ]


class MasterReadView(BaseModel):
    """A master read with a gauge. [µm]"""

    master_reading_id: UUID
    setting_master_id: UUID
    gauge: str
    shop: str
    off_um: Decimal
    expanded_um: Decimal
    agrees: bool
    typed: str
    taken_at: datetime
    taken_by: str


class MasterReadingBody(BaseModel):
    """What a gauge showed on a master, the whole size. The client makes the id."""

    reading_id: UUID
    gauge_id: UUID
    shop: ShortShop = Field("", description="In whose shop; empty for this one.")
    text: LengthText
    bare_unit: Unit
    person_id: UUID


class MaterialView(BaseModel):
    """How a material expands, and whether the shop wrote it down itself."""

    name: str
    alpha_per_k: float
    hottest_c: Decimal | None
    source: str
    built_in: bool


class MaterialBody(BaseModel):
    """How a material expands, in millionths per kelvin."""

    name: MaterialName
    alpha: LengthText
    hottest_c: Annotated[Decimal, Field(ge=0, le=1000, decimal_places=1)] | None = None
    source: ShortText = ""
    person_id: UUID


class RoomBody(BaseModel):
    """How warm the shop usually is, and by how much it varies."""

    mean: LengthText = Field(description="Usual temperature, °C, or °F where it says so.")
    standard: LengthText = Field(description="Its standard deviation in kelvin.")
    person_id: UUID


class MaterialWritten(BaseModel):
    """The material that was written down."""

    name: str


@router.get("/master-readings")
def list_master_readings(conn: Conn) -> list[MasterReadView]:
    """Return every reading of a master, here and in other shops."""
    return [
        MasterReadView(
            master_reading_id=one.reading.master_reading_id,
            setting_master_id=one.reading.setting_master_id,
            gauge=one.gauge.name,
            shop=one.reading.shop,
            off_um=one.reading.off_um,
            expanded_um=one.expanded_um,
            agrees=one.agrees,
            typed=one.reading.typed,
            taken_at=one.reading.taken_at,
            taken_by=one.reading.taken_by,
        )
        for one in cabinet.list_master_readings(conn)
    ]


@router.post("/setting-masters/{setting_master_id}/readings", status_code=201)
def read_setting_master(setting_master_id: UUID, body: MasterReadingBody, conn: Conn) -> ServiceNoted:
    """Record what a gauge showed on a master: gauges of different shops compare over it."""
    ask = cabinet.MasterReadingToTake(body.reading_id, setting_master_id, body.gauge_id, body.shop, body.text,
                                      body.bare_unit)  # fmt: skip
    cabinet.read_master(conn, ask, body.person_id)
    return ServiceNoted(gauge_id=body.gauge_id)


@router.get("/room")
def read_room(conn: Conn) -> RoomAssumed:
    """How warm the shop is taken to be where nobody took a temperature. [°C], [K]"""
    return room.get_room(conn)


@router.post("/room", status_code=201)
def assume_room(body: RoomBody, conn: Conn) -> RoomAssumed:
    """Take the shop to be so warm from now on; every ± without temperatures follows."""
    return cabinet.assume_room(conn, body.mean, body.standard, body.person_id)


@router.get("/materials")
def list_materials(conn: Conn) -> list[MaterialView]:
    """Return what the shop wrote down about materials, and what is built in where it wrote nothing."""
    written = materials.list_materials(conn)
    own = [
        MaterialView(name=one.name, alpha_per_k=float(one.alpha_per_k), hottest_c=one.hottest_c, source=one.source,
                     built_in=False)
        for one in written
    ]  # fmt: skip
    names = {one.name.casefold() for one in written}
    built_in = [
        MaterialView(name=name, alpha_per_k=alpha, hottest_c=None, source="handbook tables, from memory", built_in=True)
        for name, alpha in EXPANSION_PER_K.items()
        if name not in names
    ]
    return [*own, *built_in]


@router.post("/materials", status_code=201)
def write_material(body: MaterialBody, conn: Conn) -> MaterialWritten:
    """Write down how a material expands; sizes of every job are brought to 20 °C with it from now on."""
    cabinet.write_material(conn, body.name, body.alpha, body.hottest_c, body.source, body.person_id)
    return MaterialWritten(name=body.name)
