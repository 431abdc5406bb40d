"""The gauge cabinet: setting masters, what was done to gauges, and which gauge is fit for what."""

from datetime import date
from typing import Annotated, Literal
from uuid import UUID

from fastapi import APIRouter
from pydantic import BaseModel, Field, StringConstraints

from vallostasis.api.deps import Conn, LengthText, LongText, Name, ShortText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.core.measuring.decision import Capability
from vallostasis.core.measuring.gauges import GaugeService, SettingMaster
from vallostasis.core.records import Quantity
from vallostasis.services import cabinet
from vallostasis.store import gauge_services, setting_masters

router = APIRouter(prefix="/api", tags=["cabinet"], responses=ERROR_RESPONSES)

Material = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=60,
                                            pattern=r"^[^\x00-\x1f\x7f]*$")]  # fmt: skip


class MasterBody(BaseModel):
    """A setting master or its next version; size bare in mm, expanded uncertainty (k = 2) bare in µm."""

    name: Name
    size: LengthText
    expanded: LengthText = Field(description="As its certificate says, k = 2.")
    material: Material = "steel"
    calibrated_on: date | None = None
    due_on: date | None = None
    owner: ShortText = ""
    note: LongText = ""
    based_on_version: int = Field(0, ge=0, le=1_000_000)


class ServiceBody(BaseModel):
    """What was done to a gauge."""

    kind: Literal["oiled", "wear found", "calibrated", "lent", "brought back", "repaired", "dropped"]
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
