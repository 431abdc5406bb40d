"""Scans of bores: a look at a file, bringing it in, what its levels hold. Lengths in metres, angles in degrees."""

from collections.abc import Iterator
from datetime import datetime
from typing import Annotated
from uuid import UUID

import anyio
from fastapi import APIRouter, File, Form, Query, Request, Response, UploadFile
from fastapi.concurrency import run_in_threadpool
from fastapi.responses import StreamingResponse
from pydantic import BaseModel, Field

from vallostasis.api.deps import Conn, ShortText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.wall_models import FieldView
from vallostasis.core.bores.ladder import standard_of
from vallostasis.core.bores.scan_columns import ScanKind, ScanLayout
from vallostasis.core.bores.scan_levels import FrontAxis, Turn, shape_of
from vallostasis.core.bores.scans import ScanChange, ScanNow, change_of_scans, circles_of, field_of_scan, scans_of
from vallostasis.core.shapes.lobes import CUT_OFFS_UPR, Lobe, lobes_of
from vallostasis.core.shapes.reference_fit import Reference
from vallostasis.core.surveys.loads import Held
from vallostasis.services import scans
from vallostasis.services.reading_target import known_hole
from vallostasis.services.refused import Refused
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import NotFound
from vallostasis.store.scan_points import points_as_csv

router = APIRouter(prefix="/api/jobs/{job_id}", tags=["bores"], responses=ERROR_RESPONSES)


class PreviewView(BaseModel):
    """The head of a file as it was taken apart, and what it seems to be."""

    names: list[str]
    rows: list[list[str]]
    kind: ScanKind
    columns: list[int]
    unit: str
    depth_unit: str


class ScanTaken(BaseModel):
    """A scan that was brought in."""

    scan_id: UUID
    points: int


class CircleView(BaseModel):
    """A reference circle. [m]"""

    reference: Reference
    diameter_m: float
    roundness_m: float


class LobeView(BaseModel):
    """One order of a shape. [m], [deg]"""

    order: int
    amplitude_m: float
    direction_deg: float

    @classmethod
    def of(cls, lobe: Lobe) -> "LobeView":
        """Show an order."""
        return cls(order=lobe.order, amplitude_m=lobe.amplitude_m, direction_deg=lobe.direction_deg)


class ScanLevelView(BaseModel):
    """One level of a scan, or of a change. [m]"""

    depth_m: float
    points: int
    circles: list[CircleView]
    lobes: list[LobeView]
    size_m: float | None = Field(None, description="Of a change: what the mean diameter changes by. [m]")
    range_m: float | None = None


class CylinderView(BaseModel):
    """A reference cylinder. [m], [1]"""

    reference: Reference
    diameter_m: float
    cylindricity_m: float
    lean_x: float
    lean_y: float


class ScanView(BaseModel):
    """A scan that stands, or what clamping changes by two of them."""

    scan_id: UUID | None
    name: str
    held: Held | None
    instrument: str
    layout: str
    points: int
    scanned_at: datetime | None
    scanned_by: str
    event: int | None
    levels: list[ScanLevelView]
    cylinders: list[CylinderView]
    field: FieldView


class ScansView(BaseModel):
    """Every scan of a hole, what clamping changes, and the filter."""

    scans: list[ScanView]
    changes: list[ScanView]
    cut_off_upr: int | None
    cut_offs: list[int]
    blind: str


@router.post("/scans/preview")
def preview_scan(
    job_id: UUID, conn: Conn, file: Annotated[UploadFile, File(description="The head of a scan's file.")]
) -> PreviewView:
    """Take the head of a file apart; nothing is kept."""
    facts = load_job_facts(conn, job_id)
    found = scans.preview(file.file.read(), facts.card.layout.bore.metres)
    return PreviewView(names=list(found.names), rows=[list(row) for row in found.rows], kind=found.layout.kind,
                       columns=list(found.layout.columns), unit=found.layout.unit,
                       depth_unit=found.layout.depth_unit)  # fmt: skip


@router.post("/scans", status_code=201)
async def bring_in_scan(
    request: Request,
    job_id: UUID,
    file: Annotated[UploadFile, File(description="CSV or text, 80 MB and a million points at most.")],
    scan_id: Annotated[UUID, Form(description="Made once for a file: sending it again doubles nothing.")],
    hole: Annotated[int, Form()],
    person_id: Annotated[UUID, Form()],
    kind: Annotated[ScanKind, Form()] = ScanKind.POLAR,
    first: Annotated[int, Form(ge=0, le=200, description="Column of the angle, or of x, counted from 0.")] = 0,
    second: Annotated[int, Form(ge=0, le=200, description="Column of the level, or of y.")] = 1,
    third: Annotated[int, Form(ge=0, le=200, description="Column of the radius, or of z.")] = 2,
    unit: Annotated[str, Form(pattern="^(m|mm|µm|inch|thou)$")] = "mm",
    depth_unit: Annotated[str, Form(pattern="^(m|mm|µm|inch|thou)$")] = "mm",
    front: Annotated[FrontAxis, Form()] = FrontAxis.PLUS_X,
    turn: Annotated[Turn, Form()] = Turn.CLOCKWISE,
    depth_is_up: Annotated[bool, Form()] = False,
    front_deg: Annotated[float, Form(ge=-360, le=360, allow_inf_nan=False)] = 0.0,
    load: Annotated[ShortText, Form()] = "",
    instrument: Annotated[ShortText, Form()] = "",
) -> ScanTaken:
    """Bring a scan in, every point or none; one that is given up on the way leaves nothing."""
    table = await request.app.state.reader.scan(await file.read(), request.is_disconnected)
    layout = ScanLayout(kind, (first, second, third), unit, depth_unit, front, turn, depth_is_up, front_deg)
    name = "".join(one for one in (file.filename or "") if one.isprintable())[:120]
    ask = scans.ScanAsk(scan_id, hole, load, instrument, name, layout)

    def work() -> int:
        with request.app.state.pool.connection() as conn, conn.transaction():
            points = scans.bring_in_scan(conn, job_id, ask, table, person_id)
            if anyio.from_thread.run(request.is_disconnected):
                raise Refused("It was given up on the way: nothing is kept.", "file")
            return points

    return ScanTaken(scan_id=scan_id, points=await run_in_threadpool(work))


@router.get("/scans")
def read_scans(
    job_id: UUID,
    hole: Annotated[int, Query()],
    conn: Conn,
    cut_off_upr: Annotated[int | None, Query(description="Gaussian filter; none where it is not given.")] = None,
) -> ScansView:
    """Every scan of a hole: circles and lobes by level, a field of radii, what clamping changes."""
    facts = load_job_facts(conn, job_id)
    if cut_off_upr is not None and cut_off_upr not in CUT_OFFS_UPR:
        raise Refused(f"Choose a cut-off of {', '.join(str(one) for one in CUT_OFFS_UPR)}.", "cut_off_upr")
    found, standard = scans_of(facts, known_hole(facts, hole)), standard_of(facts)
    changes = [
        change
        for of in found
        for less in found
        if of.held is Held.CLAMPED and less.held is Held.FREE and (change := change_of_scans(of, less)) is not None
    ]
    return ScansView(
        scans=[_scan(one, standard, cut_off_upr) for one in found],
        changes=[_change(one) for one in changes],
        cut_off_upr=cut_off_upr,
        cut_offs=list(CUT_OFFS_UPR),
        blind="A scan sees every lobe it has points for; it stands about its own spindle, so it does not say where the "
        "bore lies in the block, and nothing between its levels.",
    )


def _scan(one: ScanNow, standard_m: float, cut_off_upr: int | None) -> ScanView:
    field = FieldView.of(field_of_scan(one.profile, standard_m, cut_off_upr))
    assert field is not None
    circles = circles_of(one.profile, cut_off_upr)
    return ScanView(
        scan_id=one.scan.scan_id,
        name=one.scan.load or one.scan.file_name,
        held=one.held,
        instrument=one.scan.instrument,
        layout=one.scan.layout,
        points=one.scan.points,
        scanned_at=one.scan.scanned_at,
        scanned_by=one.scan.scanned_by,
        event=one.scan.event,
        levels=[
            ScanLevelView(
                depth_m=level.depth_m,
                points=level.points,
                circles=[CircleView(reference=c.reference, diameter_m=c.diameter_m, roundness_m=c.roundness_m)
                         for c in row],
                lobes=[LobeView.of(lobe) for lobe in lobes_of(shape_of(level, cut_off_upr))],
            )
            for level, row in zip(one.profile.levels, circles, strict=True)
        ],
        cylinders=[
            CylinderView(reference=c.reference, diameter_m=c.diameter_m, cylindricity_m=c.cylindricity_m,
                         lean_x=c.lean_x, lean_y=c.lean_y)
            for c in one.profile.cylinders
        ],
        field=field,
    )  # fmt: skip


def _change(one: ScanChange) -> ScanView:
    field = FieldView.of(one.field)
    assert field is not None
    return ScanView(
        scan_id=None,
        name=f"{one.of.scan.load}, less {one.less.scan.load}",
        held=None,
        instrument="",
        layout="",
        points=0,
        scanned_at=None,
        scanned_by="",
        event=None,
        levels=[
            ScanLevelView(depth_m=depth, points=0, circles=[], lobes=[LobeView.of(lobe) for lobe in found.lobes],
                          size_m=found.size_m, range_m=found.range_m)
            for depth, found in one.levels
        ],
        cylinders=[],
        field=field,
    )  # fmt: skip


@router.get("/scans/{scan_id}/points.csv")
def read_points(job_id: UUID, scan_id: UUID, conn: Conn, request: Request) -> StreamingResponse:
    """Every point of a scan, as it is kept."""
    if not any(one.scan_id == scan_id for one in load_job_facts(conn, job_id).scans):
        raise NotFound("scan", scan_id)

    def rows() -> Iterator[bytes]:
        with request.app.state.pool.connection() as own:
            yield from points_as_csv(own, scan_id)

    return StreamingResponse(rows(), media_type="text/csv")


@router.get("/simulated-scan.csv")
def simulate_scan(
    job_id: UUID,
    hole: Annotated[int, Query()],
    conn: Conn,
    clamped: Annotated[bool, Query()] = False,
) -> Response:
    """Write the file that a roundness instrument would, of a bore of an invented job."""
    text = scans.simulated_scan(load_job_facts(conn, job_id), hole, clamped)
    return Response(text, media_type="text/csv", headers={"content-disposition": 'attachment; filename="scan.csv"'})
