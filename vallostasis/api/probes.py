"""Bore centres and deck plane from a probe, against the drawing. Lengths in metres."""

from datetime import datetime
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, File, Form, Request, Response, UploadFile
from pydantic import BaseModel, Field

from vallostasis.api.deps import Conn, in_transaction
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.readings import Done
from vallostasis.services import probes
from vallostasis.store.job_facts import load_job_facts

router = APIRouter(prefix="/api/jobs/{job_id}", tags=["bores"], responses=ERROR_RESPONSES)


class BoreCentreView(BaseModel):
    """One bore as it was probed, its centre against the drawing, its lean against the deck."""

    hole: int
    diameter_m: float
    shift_m: float
    shift_x_m: float
    shift_y_m: float
    lean: float = Field(description="What the axis moves over a length of depth. [1]")


class CentreDistanceView(BaseModel):
    """Distance of two neighbours, and how far it is off the drawing."""

    holes: tuple[int, int]
    distance_m: float
    off_m: float


class ProbedView(BaseModel):
    """The newest probing of a block; empty where none came in."""

    probed_at: datetime | None = None
    probed_by: str = ""
    file_name: str = ""
    points: int = 0
    event: int | None = None
    pitch_m: float
    deck_flat_m: float | None = None
    bores: list[BoreCentreView]
    distances: list[CentreDistanceView]


@router.get("/probe")
def read_probe(job_id: UUID, conn: Conn) -> ProbedView:
    """Bore centres, core shift and squareness by the newest probing."""
    facts = load_job_facts(conn, job_id)
    standing = facts.standing(facts.probes)
    pitch = facts.card.layout.bore_pitch.metres
    if not standing:
        return ProbedView(pitch_m=pitch, bores=[], distances=[])
    newest = standing[-1]
    found = probes.probed_of(facts, newest.profile)
    return ProbedView(
        probed_at=newest.probed_at,
        probed_by=newest.probed_by,
        file_name=newest.file_name,
        points=newest.points,
        event=newest.event,
        pitch_m=pitch,
        deck_flat_m=found.deck_flat_m,
        bores=[
            BoreCentreView(hole=one.hole, diameter_m=one.diameter_m, shift_m=one.shift_m, shift_x_m=one.shift_x_m,
                           shift_y_m=one.shift_y_m, lean=one.lean)
            for one in found.bores
        ],
        distances=[CentreDistanceView(holes=one.holes, distance_m=one.distance_m, off_m=one.off_m)
                   for one in found.distances],
    )  # fmt: skip


@router.post("/probes", status_code=201)
async def bring_in_probe(
    request: Request,
    job_id: UUID,
    file: Annotated[UploadFile, File(description="CSV: deck or the number of a bore, x, y, z.")],
    probe_id: Annotated[UUID, Form(description="Made once for a file: sending it again doubles nothing.")],
    person_id: Annotated[UUID, Form()],
    unit: Annotated[str, Form(pattern="^(m|mm|µm|inch|thou)$")] = "mm",
) -> Done:
    """Bring a probing in, every point or none."""
    name = "".join(one for one in (file.filename or "") if one.isprintable())[:120]
    points = await request.app.state.reader.probe(await file.read(), request.is_disconnected)
    await in_transaction(request, probes.bring_in_probe, job_id, probe_id, points, unit, name, person_id)
    return Done(job_id=job_id)


@router.get("/simulated-probe.csv")
def simulate_probe(job_id: UUID, conn: Conn) -> Response:
    """Write the file that a probe would, of an invented job."""
    text = probes.simulated_probe(load_job_facts(conn, job_id))
    return Response(text, media_type="text/csv", headers={"content-disposition": 'attachment; filename="probe.csv"'})
