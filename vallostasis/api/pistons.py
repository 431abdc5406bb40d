"""The match sheet: each hole and its piston, clearance by two methods, marks, ring gaps once the bore is frozen."""

from datetime import datetime
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query, Request
from fastapi.concurrency import run_in_threadpool
from fastapi.responses import Response
from pydantic import BaseModel, Field

from vallostasis.api.budget_models import StatedView
from vallostasis.api.deps import Conn, LongText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.trail import PhraseView
from vallostasis.core.notation.lengths import Unit
from vallostasis.core.pistons.match import Matched
from vallostasis.core.records.piston_matches import PinStyle, PistonMatch, PistonRun
from vallostasis.core.uncertainty.decision import RuleResult, State
from vallostasis.documents.part_order import Agreed
from vallostasis.services import pistons

router = APIRouter(prefix="/api/jobs/{job_id}/pistons", tags=["pistons"], responses=ERROR_RESPONSES)


class ClearanceView(BaseModel):
    """A clearance on the diameter by one method, and what its limits say. [m]"""

    stated: StatedView
    state: State

    @classmethod
    def of(cls, one: RuleResult | None) -> "ClearanceView | None":
        """Show a rule."""
        return None if one is None else cls(stated=StatedView.of(one.stated), state=one.decision.state)


class PistonMarkView(BaseModel):
    """How the piston of a hole is marked."""

    mark: str
    faces: str
    run: PistonRun
    pin: PinStyle
    words: str
    matched_at: datetime
    matched_by: str

    @classmethod
    def of(cls, one: PistonMatch | None) -> "PistonMarkView | None":
        """Show a mark."""
        if one is None:
            return None
        return cls(mark=one.mark, faces=one.faces, run=one.run, pin=one.pin, words=one.words,
                   matched_at=one.matched_at, matched_by=one.matched_by)  # fmt: skip


class RingGapView(BaseModel):
    """Ring gaps of a hole, level by level, and whether they count. [m]"""

    state: State
    reason: str
    read: list[StatedView]
    names: list[str]


class MatchRowView(BaseModel):
    """One hole and its piston. [m]"""

    hole: int
    state: State
    bore: StatedView | None
    skirt: StatedView | None
    crown_less_m: float | None
    least_m: float | None
    greatest_m: float | None
    by_sizes: ClearanceView | None
    by_feeler: ClearanceView | None
    method: str
    apart: StatedView | None
    agree: bool | None
    match: PistonMarkView | None
    unfrozen: str = Field(description="Why the bore is not frozen yet; empty where it is.")
    passed: bool
    gaps: RingGapView | None
    says: list[PhraseView]

    @classmethod
    def of(cls, one: Matched) -> "MatchRowView":
        """Show a row of the sheet."""
        gaps = None
        if one.gaps is not None:
            read = [(row.stated, row.name) for row in one.gaps.places if row.stated is not None]
            gaps = RingGapView(state=one.gaps.state, reason=one.gaps.reason,
                               read=[StatedView.of(stated) for stated, _ in read],
                               names=[name for _, name in read])  # fmt: skip
        return cls(
            hole=one.hole.number, state=one.state, bore=StatedView.maybe(one.bore), skirt=StatedView.maybe(one.skirt),
            crown_less_m=one.crown_less_m, least_m=one.limits_m[0], greatest_m=one.limits_m[1],
            by_sizes=ClearanceView.of(one.by_sizes), by_feeler=ClearanceView.of(one.by_feeler), method=one.method,
            apart=StatedView.maybe(one.apart), agree=one.agree, match=PistonMarkView.of(one.match),
            unfrozen=one.unfrozen,
            passed=one.passed, gaps=gaps, says=[PhraseView.of(said) for said in one.says],
        )  # fmt: skip


class MatchSheetView(BaseModel):
    """The match sheet of a job."""

    rows: list[MatchRowView]


class MatchBody(BaseModel):
    """A piston in its hole; the client makes the id."""

    match_id: UUID
    mark: Annotated[str, Field(max_length=60)]
    faces: Annotated[str, Field(max_length=120)] = ""
    run: PistonRun = PistonRun.NEW
    pin: PinStyle = PinStyle.CLIPS
    words: LongText = ""
    person_id: UUID


@router.get("")
def read_match_sheet(job_id: UUID, conn: Conn) -> MatchSheetView:
    """Each hole and its piston."""
    return MatchSheetView(rows=[MatchRowView.of(one) for one in pistons.match_sheet(conn, job_id)])


class OrderedView(BaseModel):
    """One thing to order. [m]"""

    what: str
    least_m: float | None
    greatest_m: float | None
    material: str
    says: list[PhraseView]
    why_not: PhraseView | None


class PartOrderView(BaseModel):
    """What is ordered to a bore."""

    hole: int
    ordered: list[OrderedView]
    weeks: float | None


@router.get("/{hole}/order")
def read_part_order(job_id: UUID, hole: int, conn: Conn) -> PartOrderView:
    """What is ordered to a bore as it was read, or to the step that was decided."""
    sheet = pistons.order_of(conn, job_id, hole)
    ordered = [OrderedView(what=one.what, least_m=one.least_m, greatest_m=one.greatest_m, material=one.material,
                           says=[PhraseView.of(said) for said in one.says],
                           why_not=None if one.why_not is None else PhraseView.of(one.why_not))
               for one in sheet.ordered]  # fmt: skip
    return PartOrderView(hole=sheet.hole.number, ordered=ordered, weeks=sheet.weeks)


AgreedText = Annotated[str, Query(max_length=400)]


@router.get("/{hole}/order.pdf", response_class=Response, responses={200: {"content": {"application/pdf": {}}}})
async def read_part_order_pdf(
    job_id: UUID,
    hole: int,
    request: Request,
    rings: AgreedText = "",
    pin: AgreedText = "",
    crown: AgreedText = "",
    form: AgreedText = "",
    count: AgreedText = "",
    until: AgreedText = "",
    words: AgreedText = "",
    unit: Unit = "thou",
) -> Response:
    """Order of one hole as PDF: drawing, sizes, and what was agreed besides as it was typed."""
    agreed = Agreed(rings, pin, crown, form, count, until, words)
    html = await run_in_threadpool(_order_page, request, job_id, hole, agreed, unit)
    content = await request.app.state.printer.print_pdf(html, request.is_disconnected)
    return Response(content, media_type="application/pdf",
                    headers={"content-disposition": f'attachment; filename="order-hole-{hole}.pdf"'})  # fmt: skip


def _order_page(request: Request, job_id: UUID, hole: int, agreed: Agreed, unit: Unit) -> str:
    with request.app.state.pool.connection() as conn:
        return pistons.order_as_html(conn, job_id, hole, agreed, unit)


@router.post("/{hole}/matches", status_code=201)
def record_piston_match(job_id: UUID, hole: int, body: MatchBody, conn: Conn) -> MatchSheetView:
    """Write down which piston runs in a hole, by the mark on the part."""
    typed = pistons.MatchTyped(**body.model_dump(exclude={"person_id"}))
    pistons.record_match(conn, job_id, hole, typed, body.person_id)
    return read_match_sheet(job_id, conn)
