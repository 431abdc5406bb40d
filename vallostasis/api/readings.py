"""Readings: taking, striking, setups and zero corrections."""

from decimal import Decimal
from typing import Annotated, Literal
from uuid import UUID

from fastapi import APIRouter, Request, Response
from pydantic import BaseModel, Field, TypeAdapter
from starlette.concurrency import run_in_threadpool

from vallostasis.api.deps import Conn, LengthText, ShortText
from vallostasis.api.door import device_name
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.core.notation.lengths import Unit
from vallostasis.core.records.rows import Quantity, Reading, ZeroedOn
from vallostasis.services import readings, setups, zeros
from vallostasis.services.reading_target import ReadingToTake
from vallostasis.store.new_facts import NewSetup

router = APIRouter(prefix="/api", tags=["readings"], responses=ERROR_RESPONSES)

# A page that could not reach the application sends what it kept later, for a month at most.
LONGEST_WAIT_S = 31 * 86_400

Temperature = Annotated[Decimal, Field(ge=-60, le=300, decimal_places=2)]


class ReadingBody(BaseModel):
    """A reading as typed. The client makes the id: sending it again never doubles it."""

    reading_id: UUID
    quantity: Quantity
    hole: int | None = Field(None, ge=1, le=16)
    hour: float | None = Field(None, gt=0, le=12, multiple_of=0.25, description="Clock position. [h]")
    liner_mark: ShortText = ""
    land: ShortText = Field("", description="Land of a flange thickness; empty for the one in use.")
    text: LengthText
    bare_unit: Unit
    confirmed: bool = False
    read_before: Literal["", "repeat", "correct"] = Field(
        "", description="Answer when the position was read before: keep both, or strike the first."
    )
    new_pass: bool = Field(False, description="Open a new set, with the gauge zeroed anew.")
    part_temp_c: Temperature | None = None
    part: ShortText = Field("", description="Part of a survey, such as hole-2, liner-L5 or main-3.")
    level_um: Decimal | None = Field(None, ge=-10_000_000, le=10_000_000, description="Depth of its level. [µm]")
    axis_deg: float | None = Field(None, ge=0, lt=180, multiple_of=0.5, description="Its axis from the front. [deg]")
    along_um: Decimal | None = Field(None, ge=-10_000_000, le=10_000_000, description="Along the deck. [µm]")
    across_um: Decimal | None = Field(None, ge=-10_000_000, le=10_000_000, description="Across the deck. [µm]")
    waited_s: float = Field(0, ge=0, le=LONGEST_WAIT_S, description="How long it waited for the link. [s]")
    from_gauge: bool = Field(False, description="A gauge sent it: a turning point may lie between two of its steps.")
    person_id: UUID


class SetupBody(BaseModel):
    """Gauge, its zero, land, datum and clamp from now on."""

    quantity: Quantity
    gauge_id: UUID
    land: ShortText = ""
    datum: ShortText = ""
    hold_down: ShortText = ""
    hold_down_torque: LengthText = Field("", description="As typed: N·m, or lbf·ft where it says so.")
    shared_zero: bool = Field(True, description="All holes are read from one zero of the gauge.")
    zeroed_on: ZeroedOn = ZeroedOn.DATUM
    zero: LengthText = Field("", description="Size the gauge was zeroed on; empty for what the card gives.")
    load: ShortText = Field("", description="Caps torqued, plate on, free; dry or oiled.")
    method: ShortText = ""
    setting_master_id: UUID | None = Field(None, description="Master of the cabinet that the gauge was set on.")
    master_temp: LengthText = Field("", description="Of the master when the gauge was set: °C, or °F where it says so.")
    gauge_temp: LengthText = Field("", description="Of the gauge then.")
    bare_unit: Unit = "mm"
    corrects: bool = Field(False, description="Temperatures were noted wrongly: put right for what was read.")
    confirmed: bool = False
    person_id: UUID


class ZeroCorrectionBody(BaseModel):
    """How far the zero was found moved; added to every reading of the set."""

    text: LengthText
    bare_unit: Unit
    reason: ShortText = ""
    person_id: UUID


class Done(BaseModel):
    """It is recorded."""

    job_id: UUID


_READING = TypeAdapter(Reading)


@router.post("/jobs/{job_id}/readings", status_code=201, response_model=Reading)
async def take_reading(job_id: UUID, body: ReadingBody, request: Request) -> Response:
    """Append a reading; 409 asks back when its position was read before."""
    # The fields of both have the same names; a dump would walk through them again.
    ask = ReadingToTake(**{name: value for name, value in body if name != "person_id"}, device=device_name(request))
    async with request.app.state.async_pool.connection() as conn:
        taken = await readings.append_if_unchanged(conn, job_id, ask, body.person_id)
    if taken is None:
        taken = await run_in_threadpool(_take_with_job_locked, request, job_id, ask, body.person_id)
    # Written here, not by the framework: that would cost every reading a thread.
    return Response(_READING.dump_json(taken), 201, media_type="application/json")


def _take_with_job_locked(request: Request, job_id: UUID, ask: ReadingToTake, person_id: UUID) -> Reading:
    with request.app.state.pool.connection() as conn:
        return readings.take_and_know(conn, job_id, ask, person_id)


@router.post("/jobs/{job_id}/setups", status_code=201)
def change_setup(job_id: UUID, body: SetupBody, conn: Conn) -> Done:
    """Read with another gauge, zero, land, datum or clamp from now on; holes read otherwise re-open."""
    how = setups.HowTyped(**{name: getattr(body, name) for name in setups.HowTyped.__slots__})
    fields = body.model_dump(exclude={"person_id", "zero", *setups.HowTyped.__slots__})
    setups.change_setup(conn, NewSetup(job_id=job_id, zero_typed=body.zero, **fields), body.person_id, how)
    return Done(job_id=job_id)


@router.post("/jobs/{job_id}/sets/{set_id}/zero-corrections", status_code=201)
def correct_zero(job_id: UUID, set_id: UUID, body: ZeroCorrectionBody, conn: Conn) -> Done:
    """Record that the zero of a set was found moved."""
    zeros.correct_zero(conn, job_id, set_id, body.text, body.bare_unit, body.reason, body.person_id)
    return Done(job_id=job_id)
