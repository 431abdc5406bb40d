"""The practice bench: exercises, attempts at them, and how a person stands. Nothing here touches a job."""

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query
from pydantic import BaseModel, Field, StringConstraints

from vallostasis.api.deps import Conn, LongText, Name, ShortText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.practice_models import AttemptView, PracticeView
from vallostasis.core.notation.lengths import Unit
from vallostasis.core.practice.draws import MOST_SEED
from vallostasis.core.practice.exercise import MOST_MOVES
from vallostasis.services import practice
from vallostasis.services.practice import MoveTyped, OwnTexts

router = APIRouter(prefix="/api/practice", tags=["practice"], responses=ERROR_RESPONSES)

FieldName = Annotated[str, StringConstraints(min_length=1, max_length=60)]


class AttemptBody(BaseModel):
    """An exercise to begin; without a seed one is drawn."""

    attempt_id: UUID = Field(description="Made by the client: sending it again begins none anew.")
    exercise: ShortText
    seed: Annotated[int, Field(ge=0, le=MOST_SEED)] | None = None
    person_id: UUID


class MoveBody(BaseModel):
    """A move: what was given to each of its fields, as typed; the second of the practice clock. [s]"""

    place: Annotated[int, Field(ge=0, lt=MOST_MOVES)] = Field(description="How many moves were made before it.")
    name: ShortText
    given: Annotated[dict[FieldName, ShortText], Field(max_length=60)] = Field(default_factory=dict)
    at_s: Annotated[float, Field(ge=0, le=1_000_000, allow_inf_nan=False)] = 0.0
    bare_unit: Unit = "thou"
    person_id: UUID

    @property
    def typed(self) -> MoveTyped:
        """What it is to the service."""
        return MoveTyped(self.place, self.name, self.given, self.at_s, self.bare_unit, self.person_id)


class OwnBody(BaseModel):
    """An exercise of the shop's own, from the heights of a past job; texts hold none of its names."""

    own_id: UUID = Field(description="Made by the client: sending it again keeps one.")
    job_id: UUID
    title: Name
    words: Annotated[LongText, Field(min_length=1)]
    lesson: LongText = ""
    person_id: UUID


@router.get("")
def read_practice(conn: Conn, person_id: Annotated[UUID | None, Query()] = None) -> PracticeView:
    """Every exercise, and how a person stands in them."""
    return PracticeView.of(practice.practice_of(conn, person_id))


@router.post("/attempts", status_code=201)
def begin_attempt(body: AttemptBody, conn: Conn) -> AttemptView:
    """Begin an exercise."""
    return AttemptView.of(practice.begin(conn, body.attempt_id, body.exercise, body.seed, body.person_id))


@router.get("/attempts/{attempt_id}")
def read_attempt(attempt_id: UUID, conn: Conn) -> AttemptView:
    """An exercise as it stands."""
    return AttemptView.of(practice.attempt_now(conn, attempt_id))


@router.post("/attempts/{attempt_id}/moves", status_code=201)
def make_move(attempt_id: UUID, body: MoveBody, conn: Conn) -> AttemptView:
    """Make the next move."""
    return AttemptView.of(practice.make_move(conn, attempt_id, body.typed))


@router.post("/own", status_code=201)
def write_own(body: OwnBody, conn: Conn) -> PracticeView:
    """Write an exercise from a past job."""
    texts = OwnTexts(body.title, body.words, body.lesson)
    practice.write_own(conn, body.own_id, body.job_id, texts, body.person_id)
    return PracticeView.of(practice.practice_of(conn, body.person_id))
