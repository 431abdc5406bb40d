"""The strip record: what was found, what it leads to suspect, what is waived by name."""

from datetime import datetime
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.deps import Conn, LengthText, LongText, ShortText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.readings import Done
from vallostasis.core.features.parts import part_with_key
from vallostasis.core.findings.kinds import FORMS, PERCENT
from vallostasis.core.findings.suspects import suspects_of
from vallostasis.core.notation.lengths import Unit, metres
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import Finding, FindingKind
from vallostasis.core.records.rows import Quantity
from vallostasis.core.route.as_found import as_found_left
from vallostasis.core.tape.fact_kinds import READINGS
from vallostasis.services import findings
from vallostasis.store.job_facts import load_job_facts

router = APIRouter(prefix="/api/jobs/{job_id}", tags=["findings"], responses=ERROR_RESPONSES)


ClockHour = Annotated[float, Field(gt=0, le=12, allow_inf_nan=False)]
_LIES = {"hour", "until_hour", "distance", "width", "reading_id", "from_depth", "until_depth", "catches", "in_round"}


class FindingBody(BaseModel):
    """Something found; the client makes the id."""

    finding_id: UUID
    kind: FindingKind
    hole: int | None = None
    part: ShortText = ""
    word: ShortText = ""
    words: LongText = ""
    figure: LengthText = ""
    bare_unit: Unit = "mm"
    confirmed: bool = False
    hour: ClockHour | None = None
    until_hour: ClockHour | None = None
    distance: LengthText = Field("", description="From the edge of the counterbore outward, as typed.")
    width: LengthText = ""
    reading_id: UUID | None = Field(None, description="The reading that it explains.")
    from_depth: LengthText = Field("", description="On a wall: where it begins below the deck, as typed.")
    until_depth: LengthText = Field("", description="On a wall: where it ends.")
    catches: bool = Field(False, description="A fingernail catches in it.")
    in_round: ShortText = Field("", description="After which round of work it was seen; empty as found.")
    person_id: UUID


class WaiverBody(BaseModel):
    """A feature of a part that is not read, by name and reason, or is to be read after all."""

    quantity: Quantity
    part: ShortText
    waived: bool = True
    reason: ShortText = ""
    person_id: UUID


class FindingView(BaseModel):
    """Something found."""

    finding_id: UUID
    kind: FindingKind
    hole: int | None
    part: str
    word: str
    words: str
    percent: float | None
    length_m: float | None
    typed: str
    sound: bool
    hour: float | None
    until_hour: float | None
    distance_m: float | None
    width_m: float | None
    from_m: float | None = Field(description="On a wall: where it begins below the deck. [m]")
    until_m: float | None
    catches: bool
    in_round: str
    explains: str = Field(description="The reading that it explains, in words.")
    notes: int = Field(description="Notes and photos that stand on it.")
    photo: UUID | None = Field(description="The newest note with a photo that is here.")
    found_at: datetime
    found_by: str
    event: int


class FindingFormView(BaseModel):
    """How a kind of finding is written down."""

    kind: FindingKind
    parts: list[str]
    words: list[str]
    figure: str
    unit: str
    of_hole: bool
    lies: bool = Field(description="It has a clock position, and may have a distance and a width.")


class SuspectView(BaseModel):
    """Something that may be behind a symptom, and what settles it."""

    what: str
    shows: str
    quantities: list[Quantity]
    begun: int
    of: int


class SuspectsView(BaseModel):
    """A symptom, where it was told of, and its suspects, the likeliest first."""

    symptom: str
    told: str
    holes: list[int]
    suspects: list[SuspectView]


class WaiverView(BaseModel):
    """A feature of a part that is not read, by name."""

    quantity: Quantity
    part: str
    title: str
    reason: str
    waived_by: str
    waived_at: datetime


class UnreadView(BaseModel):
    """A feature of a part that the card asks for as found and nobody read in full."""

    quantity: Quantity
    part: str
    title: str


class StripRecordView(BaseModel):
    """What was found on a job: findings, suspects, waivers, and what is still to be read as found."""

    findings: list[FindingView]
    forms: list[FindingFormView]
    suspects: list[SuspectsView]
    waivers: list[WaiverView]
    unread: Annotated[list[UnreadView], Field(description="Asked for as found, and not read in full.")]


@router.get("/strip-record")
def read_strip_record(job_id: UUID, conn: Conn) -> StripRecordView:
    """What was found, by hole and part, what it leads to suspect, and what is waived by name."""
    facts = load_job_facts(conn, job_id)
    return StripRecordView(
        findings=[finding_view(facts, one) for one in facts.standing(facts.findings)],
        forms=[
            FindingFormView(kind=form.kind, parts=list(form.parts), words=list(form.words), figure=form.figure,
                            unit=form.unit, of_hole=form.of_hole, lies=form.lies)
            for form in FORMS.values()
        ],
        suspects=[
            SuspectsView(
                symptom=one.symptom,
                told=one.told,
                holes=list(one.holes),
                suspects=[
                    SuspectView(what=suspect.what, shows=suspect.shows, quantities=list(suspect.quantities),
                                begun=suspect.begun, of=suspect.of)
                    for suspect in one.suspects
                ],
            )
            for one in suspects_of(facts)
        ],
        waivers=[
            WaiverView(quantity=one.quantity, part=one.part, title=_title(facts, one.quantity, one.part),
                       reason=one.reason, waived_by=one.waived_by, waived_at=one.waived_at)
            for one in facts.standing_waivers.values()
        ],
        unread=[UnreadView(quantity=one.quantity, part=one.part, title=one.title) for one in as_found_left(facts)],
    )  # fmt: skip


def _title(facts: JobFacts, quantity: Quantity, key: str) -> str:
    part = part_with_key(facts, quantity, key)
    return key if part is None else part.title


def finding_view(facts: JobFacts, one: Finding) -> FindingView:
    """Show something found."""
    form = FORMS[one.kind]
    numbers = {hole.hole_id: hole.number for hole in facts.holes}
    is_percent = form.unit == PERCENT
    notes = facts.standing_notes.get(one.finding_id, [])
    return FindingView(
        finding_id=one.finding_id,
        kind=one.kind,
        hole=None if one.hole_id is None else numbers[one.hole_id],
        part=one.part,
        word=one.word,
        words=one.words,
        percent=float(one.figure) if one.figure is not None and is_percent else None,
        length_m=metres(one.figure) if one.figure is not None and not is_percent else None,
        typed=one.typed,
        sound=bool(form.sound) and one.word == form.sound,
        hour=one.hour,
        until_hour=one.until_hour,
        distance_m=None if one.distance_um is None else metres(one.distance_um),
        width_m=None if one.width_um is None else metres(one.width_um),
        from_m=None if one.from_um is None else metres(one.from_um),
        until_m=None if one.until_um is None else metres(one.until_um),
        catches=one.catches,
        in_round=one.in_round,
        explains=_explains(facts, one),
        notes=len(notes),
        photo=next((note.note_id for note in reversed(notes) if note.photo_here), None),
        found_at=one.found_at,
        found_by=one.found_by,
        event=one.event,
    )


def _explains(facts: JobFacts, one: Finding) -> str:
    reading = None if one.reading_id is None else facts.reading(one.reading_id)
    return "" if reading is None else READINGS.words_of(facts, reading)


@router.post("/strip-record/findings", status_code=201)
def note_finding(job_id: UUID, body: FindingBody, conn: Conn) -> Done:
    """Write down something found; sending it again never doubles it."""
    lies = findings.LiesAt(**body.model_dump(include=_LIES))
    found = findings.FindingWritten(**body.model_dump(exclude={"person_id", *_LIES}), lies=lies)
    findings.note_finding(conn, job_id, found, body.person_id)
    return Done(job_id=job_id)


@router.post("/strip-record/waivers", status_code=201)
def waive(job_id: UUID, body: WaiverBody, conn: Conn) -> Done:
    """Write down by name that a feature of a part is not read, or is to be read after all."""
    findings.waive(conn, job_id, body.quantity, body.part, body.waived, body.reason, body.person_id)
    return Done(job_id=job_id)
