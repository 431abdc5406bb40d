"""Jobs: the floor, taking one in, its block, its liners and the card that judges it."""

from datetime import UTC, date, datetime
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Response
from pydantic import BaseModel, Field

from vallostasis.api.block_models import (
    BlockNeedView,
    BlockView,
    block_need_views,
    block_view,
)
from vallostasis.api.deps import Conn, LongText, Name, ReadConn, ShortText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.hole_models import Mark, marks_of
from vallostasis.api.leg_models import LegView, leg_views
from vallostasis.core.floor import FloorKind
from vallostasis.core.hole_now import hole_now
from vallostasis.core.records.rows import Job, Liner
from vallostasis.core.uncertainty.decision import State
from vallostasis.services import block, fitting, jobs, spec_cards
from vallostasis.services.block import ChangedState
from vallostasis.store.jobs import NewJob

router = APIRouter(prefix="/api", tags=["jobs"], responses=ERROR_RESPONSES)


class FloorHole(BaseModel):
    """One ring of a strip."""

    number: int
    state: State
    least_m: float | None
    greatest_m: float | None
    marks: list[Mark]


class FloorPointView(BaseModel):
    """One thing that is said of a job from across the floor."""

    kind: FloorKind
    words: str
    state: State
    hole: int | None


class FloorStrip(BaseModel):
    """One job on the floor."""

    job: Job
    engine: str
    heads: list[list[int]]
    holes: list[FloorHole]
    needs: list[BlockNeedView] = Field(description="What is due, operation after operation.")
    route: list[LegView]
    points: list[FloorPointView] = Field(description="What is out, in doubt, held up or due, the worst first.")
    promised: date | None
    released: bool
    away: bool = Field(description="It was put away, off the floor.")


class NewJobBody(BaseModel):
    """What is written down when an engine is taken in."""

    number: Annotated[Name, Field(max_length=30)] = Field(examples=["26-031"])
    name: Name
    customer: ShortText = ""
    complaint: LongText = ""
    serial: ShortText = ""
    spec_card_id: UUID
    person_id: UUID


class JobMade(BaseModel):
    """The id of a new job."""

    job_id: UUID


class LinerBody(BaseModel):
    """A liner with the mark painted on it."""

    mark: Annotated[Name, Field(max_length=20)]
    make: ShortText = ""
    batch: ShortText = ""


class AsFoundBody(BaseModel):
    """Who found them."""

    person_id: UUID


class AsFound(BaseModel):
    """Holes that have a liner now."""

    holes: list[int]


class CardChoice(BaseModel):
    """The card version to judge a job by; a preview changes nothing."""

    spec_card_version_id: UUID
    person_id: UUID
    only_preview: bool = False
    reason: ShortText = Field("", description="Why it is judged by the card of another engine.")


class FilingBody(BaseModel):
    """A job put away, or brought back."""

    away: bool
    words: ShortText = Field("", description="Why, where it was not released.")
    person_id: UUID


@router.get("/jobs")
def list_jobs(conn: ReadConn, away: bool = False) -> list[FloorStrip]:
    """Every job on the floor as a strip of rings; with away, those that were put away."""
    return [_strip(floor) for floor in jobs.list_floor(conn, datetime.now(UTC).date(), away)]


@router.post("/jobs/{job_id}/filing", status_code=201)
def file_job(job_id: UUID, body: FilingBody, conn: Conn) -> JobMade:
    """Put a job away, off the floor, or bring it back; nothing of it is lost."""
    jobs.file_job(conn, job_id, body.away, body.words, body.person_id)
    return JobMade(job_id=job_id)


def _strip(floor: jobs.FloorJob) -> FloorStrip:
    facts = floor.facts
    now = [hole_now(facts, hole) for hole in facts.holes]
    return FloorStrip(
        job=facts.job,
        engine=facts.card.engine,
        heads=[list(head) for head in facts.card.layout.heads],
        holes=[
            FloorHole(number=one.hole.number, state=one.state, least_m=one.limits.least_m,
                      greatest_m=one.limits.greatest_m, marks=marks_of(one))
            for one in now
        ],
        needs=block_need_views(facts),
        route=leg_views(facts),
        points=[FloorPointView(kind=one.kind, words=one.words, state=one.state, hole=one.hole)
                for one in floor.now.points],
        promised=floor.now.promised,
        released=floor.now.released,
        away=floor.now.away,
    )  # fmt: skip


@router.post("/jobs", status_code=201)
def take_in_job(body: NewJobBody, conn: Conn) -> JobMade:
    """Take an engine in."""
    new = NewJob(body.number, body.name, body.customer, body.complaint, body.serial)
    return JobMade(job_id=jobs.take_in_job(conn, new, body.spec_card_id, body.person_id))


@router.get("/jobs/{job_id}/block", response_model=BlockView)
def read_block(job_id: UUID, conn: Conn) -> Response:
    """The block of a job: every hole with its marks, state and need, and everything recorded."""
    now = block.block_of_job(conn, job_id)
    versions = spec_cards.list_versions(conn, now.facts.card_version.spec_card_id)
    # Written once, by the model itself: the framework would check every reading a second time.
    return Response(block_view(now, versions[0][0].version).model_dump_json(), media_type="application/json")


@router.post("/jobs/{job_id}/liners", status_code=201)
def add_liner(job_id: UUID, body: LinerBody, conn: Conn) -> Liner:
    """Add a liner to a job."""
    return jobs.add_liner(conn, job_id, body.mark, body.make, body.batch)


@router.post("/jobs/{job_id}/liners/as-found", status_code=201)
def fit_liners_as_found(job_id: UUID, body: AsFoundBody, conn: Conn) -> AsFound:
    """Write down that liners stand in the holes as they came in, one each, marked with the number of its hole."""
    return AsFound(holes=list(fitting.fit_as_found(conn, job_id, body.person_id)))


@router.post("/jobs/{job_id}/card")
def choose_card(job_id: UUID, body: CardChoice, conn: Conn) -> list[ChangedState]:
    """Judge a job by another card version; lists every state that changes."""
    return list(
        spec_cards.choose_version(
            conn, job_id, body.spec_card_version_id, body.person_id, body.only_preview, body.reason
        )
    )
