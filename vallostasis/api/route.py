"""The route of a job: its operations, marks, clocks, waits, hold points and schools."""

from datetime import date
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter
from pydantic import AwareDatetime, BaseModel, Field

from vallostasis.api.deps import Conn, LongText, Name, ShortText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.readings import Done
from vallostasis.api.route_models import RouteView, SchoolChangeView, route_view
from vallostasis.core.operations.schools import SCHOOLS
from vallostasis.core.records.route_marks import Bill, MarkKind, Operation, WaitCause
from vallostasis.core.tape.fact_kinds import newest_event
from vallostasis.services import route
from vallostasis.services.route import AtOperation
from vallostasis.store import schools as school_rows

router = APIRouter(prefix="/api", tags=["route"], responses=ERROR_RESPONSES)

Ago = Annotated[float, Field(ge=0, le=route.LONGEST_AGO_S, description="How long ago it was, where not now. [s]")]


class AtBody(BaseModel):
    """An operation of the route, at a hole where it is done hole by hole."""

    operation: Operation
    hole: int | None = None
    person_id: UUID
    ago_s: Ago = 0

    @property
    def at(self) -> AtOperation:
        """Where of the route."""
        return AtOperation(self.operation, self.hole)


class OperationMarkBody(AtBody):
    """An operation marked by hand; ``hold_reason`` passes hold points in the way, by the name of the person."""

    kind: MarkKind = MarkKind.DONE
    words: ShortText = ""
    count: Annotated[int, Field(ge=0, le=10_000)] | None = None
    hold_reason: ShortText = ""


class ClockBody(AtBody):
    """The working clock of a person, started or stopped; ``bill`` says how its hours stand on the bill."""

    running: bool
    bill: Bill = Bill.AGREED


class WorkedBody(BaseModel):
    """Work of before that no clock was started for: from when on, for how long. [h]"""

    operation: Operation
    hole: int | None = None
    started: AwareDatetime
    hours: Annotated[float, Field(gt=0, le=24, allow_inf_nan=False)]
    bill: Bill = Bill.AGREED
    person_id: UUID


class WaitBody(BaseModel):
    """What an operation waits for."""

    operation: Operation
    hole: int | None = None
    cause: WaitCause
    words: Name
    since: date | None = None
    expected: date | None = None
    person_id: UUID


class WaitEndBody(BaseModel):
    """The end of a wait."""

    words: ShortText = ""
    person_id: UUID


class SchoolBody(BaseModel):
    """The side of a question to follow; a preview changes nothing."""

    question: ShortText
    side: ShortText
    reason: LongText = ""
    only_preview: bool = False
    person_id: UUID


class ShopSchoolBody(BaseModel):
    """The side of a question that the shop follows in jobs it takes in from now on."""

    question: ShortText
    side: ShortText
    person_id: UUID


class ShopSideView(BaseModel):
    """A side, and the reason for it."""

    name: str
    reason: str
    chosen: bool


class ShopSchoolView(BaseModel):
    """A question, its sides, what would settle it, who chose for the shop."""

    question: str
    title: str
    sides: list[ShopSideView]
    settled_by: str
    chosen_by: str


@router.get("/jobs/{job_id}/route")
def read_route(job_id: UUID, conn: Conn) -> RouteView:
    """Every operation with how far it is, hold points, waits, clocks, what is read again, schools, open points."""
    now = route.route_now(conn, job_id)
    return route_view(now, newest_event(now.facts))


@router.post("/jobs/{job_id}/route/marks", status_code=201)
def mark_operation(job_id: UUID, body: OperationMarkBody, conn: Conn) -> Done:
    """Mark an operation by hand; 409 names the hold points that have to be passed by name and reason."""
    route.mark_operation(conn, job_id, body.at, body.kind, body.person_id, body.words, body.count, body.ago_s,
                         body.hold_reason)  # fmt: skip
    return Done(job_id=job_id)


@router.post("/jobs/{job_id}/route/clock", status_code=201)
def run_clock(job_id: UUID, body: ClockBody, conn: Conn) -> Done:
    """Start or stop the working clock of a person."""
    route.run_clock(conn, job_id, body.at, body.running, body.person_id, body.ago_s, body.bill)
    return Done(job_id=job_id)


@router.post("/jobs/{job_id}/route/worked", status_code=201)
def note_worked(job_id: UUID, body: WorkedBody, conn: Conn) -> Done:
    """Write down work that was done while no clock ran."""
    at = AtOperation(body.operation, body.hole)
    then = route.WorkedThen(at, body.started, body.hours, body.bill)
    route.note_worked(conn, job_id, then, body.person_id)
    return Done(job_id=job_id)


@router.post("/jobs/{job_id}/route/waits", status_code=201)
def note_wait(job_id: UUID, body: WaitBody, conn: Conn) -> Done:
    """Write down what an operation waits for."""
    at = AtOperation(body.operation, body.hole)
    route.note_wait(conn, job_id, at, body.cause, body.words, body.expected, body.person_id, body.since)
    return Done(job_id=job_id)


@router.post("/jobs/{job_id}/route/waits/{wait_id}/end", status_code=201)
def end_wait(job_id: UUID, wait_id: UUID, body: WaitEndBody, conn: Conn) -> Done:
    """Write down that what was waited for is here."""
    route.end_wait(conn, job_id, wait_id, body.words, body.person_id)
    return Done(job_id=job_id)


@router.post("/jobs/{job_id}/route/schools")
def choose_school(job_id: UUID, body: SchoolBody, conn: Conn) -> SchoolChangeView:
    """Follow the side of a question on this job; says what it changes."""
    change = route.choose_school(conn, job_id, body.question, body.side, body.reason, body.person_id, body.only_preview)
    return SchoolChangeView.of(change)


@router.get("/schools")
def list_schools(conn: Conn) -> list[ShopSchoolView]:
    """The questions that shops answer differently, with the side this shop follows in jobs it takes in."""
    chosen = {one.question: one for one in school_rows.list_shop_schools(conn)}
    views = []
    for school in SCHOOLS:
        own = chosen.get(school.question)
        side = school.sides[0].name if own is None else own.side
        views.append(
            ShopSchoolView(
                question=school.question,
                title=school.title,
                sides=[ShopSideView(name=one.name, reason=one.reason, chosen=one.name == side) for one in school.sides],
                settled_by=school.settled_by,
                chosen_by="" if own is None else own.chosen_by,
            )
        )
    return views


@router.post("/schools", status_code=201)
def choose_shop_school(body: ShopSchoolBody, conn: Conn) -> list[ShopSchoolView]:
    """Let the shop follow a side in jobs it takes in from now on."""
    route.choose_shop_school(conn, body.question, body.side, body.person_id)
    return list_schools(conn)
