"""Making a block ready to be cut: its deck, plugs, cracks, corners, and what is wrong with its faces."""

from datetime import datetime
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.deps import Conn, LengthText, ShortText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.findings import FindingView, finding_view
from vallostasis.api.readings import Done
from vallostasis.core.counterbore.deck_marks import MarkVerdict, marks_of
from vallostasis.core.counterbore.dependents import DependentAfter, compression_after, dependents_of
from vallostasis.core.counterbore.preparation import DECK_TOOLS, preparation_of
from vallostasis.core.features.parts import parts_of
from vallostasis.core.features.pattern import place_words
from vallostasis.core.notation.lengths import Unit, metres
from vallostasis.core.notation.typed_lengths import as_entered
from vallostasis.core.operations.catalogue import OPERATIONS
from vallostasis.core.protrusion.measured import depths_of, protrusion_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.preparation import Inspection, InspectionKind, InspectionOutcome, PrepKind
from vallostasis.core.records.route_marks import FindingKind, Operation
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import sheet_of
from vallostasis.core.surveys.survey import survey_of
from vallostasis.core.uncertainty.decision import State
from vallostasis.services import preparation
from vallostasis.store.job_facts import load_job_facts

router = APIRouter(prefix="/api/jobs/{job_id}/preparation", tags=["counterbore"], responses=ERROR_RESPONSES)

# Where the card does not name the counterbore's diameter it is drawn this much wider than the bore.
DRAWN_WIDER = 1.12


class PrepStepBody(BaseModel):
    """A step of making the block ready; the client makes the id."""

    prep_step_id: UUID
    kind: PrepKind
    place: ShortText = Field("", description="With what the deck was scraped, where plugs are.")
    count: Annotated[int, Field(ge=0, le=10_000)]
    words: ShortText = ""
    person_id: UUID


class InspectionBody(BaseModel):
    """A look at the block, at one hole or at all; waived with the reason."""

    inspection_id: UUID
    kind: InspectionKind
    hole: int | None = None
    outcome: InspectionOutcome
    words: ShortText = ""
    radius: LengthText = ""
    undercut: bool = False
    bare_unit: Unit = "mm"
    confirmed: bool = False
    person_id: UUID


class PrepStepView(BaseModel):
    """A step that stands."""

    kind: PrepKind
    place: str
    count: int
    words: str
    noted_at: datetime
    noted_by: str
    event: int


class PlugsView(BaseModel):
    """Plugs of one place: how many went in, and how many came out."""

    place: str
    went_in: int
    came_out: int


class InspectionView(BaseModel):
    """The newest look of its kind at a hole, or at the block."""

    kind: InspectionKind
    hole: int | None
    outcome: InspectionOutcome
    words: str
    radius_m: float | None
    typed: str
    noted_at: datetime
    noted_by: str
    event: int


class DeckMarkView(BaseModel):
    """A mark on deck or ledge, and what it asks for. [m]"""

    finding: FindingView
    verdict: MarkVerdict
    words: str
    skim_m: float


class FlatnessView(BaseModel):
    """How a deck is judged by its flatness."""

    part: str
    title: str
    asked: bool
    state: State
    reason: str


class DependentView(BaseModel):
    """A height that depends on the deck: now, and what the skim and a shim do to it. [m]"""

    name: str
    now_m: float | None
    by_skim_m: float
    by_shim_m: float
    after_m: float | None
    least_m: float | None
    greatest_m: float | None
    keeps: bool | None

    @classmethod
    def of(cls, one: DependentAfter) -> "DependentView":
        """Show a height."""
        return cls(name=one.name, now_m=one.now_m, by_skim_m=one.by_skim_m, by_shim_m=one.by_shim_m,
                   after_m=one.after_m, least_m=one.least_m, greatest_m=one.greatest_m, keeps=one.keeps)  # fmt: skip


class ReadingToExplain(BaseModel):
    """A reading that wear can explain."""

    reading_id: UUID
    hole: int
    words: str


class PreparationView(BaseModel):
    """What was done to make the block ready, what is wrong with its faces, what is missing."""

    steps: list[PrepStepView]
    tools: list[str]
    scraped: int
    bolt_holes: int | None
    dowels: int | None
    uncleaned: list[str]
    plugs: list[PlugsView]
    unplugged: list[str]
    plugs_missing: str
    inspections: list[InspectionView]
    marks: list[DeckMarkView]
    wear: list[FindingView]
    land_m: float | None
    edge_radius_m: float
    flatness: list[FlatnessView]
    skim_m: float = Field(description="What would have to come off for the deepest mark inside the land. [m]")
    dependents: list[DependentView]
    compression_before: float | None
    compression_after: float | None
    readings: list[ReadingToExplain]
    cautions: list[str]


@router.get("")
def read_preparation(job_id: UUID, conn: Conn) -> PreparationView:
    """How far the block is made ready to be cut, and what is wrong with its faces."""
    facts = load_job_facts(conn, job_id)
    ready, marks = preparation_of(facts), marks_of(facts)
    skim_m = max((one.skim_m for one in marks), default=0.0)
    compression = compression_after(facts.card, skim_m)
    return PreparationView(
        steps=[PrepStepView(kind=one.kind, place=one.place, count=one.count, words=one.words, noted_at=one.noted_at,
                            noted_by=one.noted_by, event=one.event) for one in ready.steps],
        tools=list(DECK_TOOLS),
        scraped=ready.scraped,
        bolt_holes=ready.bolt_holes,
        dowels=ready.dowels,
        uncleaned=list(ready.uncleaned),
        plugs=[PlugsView(place=one.place, went_in=one.went_in, came_out=one.came_out) for one in ready.plugs],
        unplugged=list(ready.unplugged),
        plugs_missing=ready.plugs_missing,
        inspections=_inspections(facts),
        marks=[DeckMarkView(finding=finding_view(facts, one.finding), verdict=one.verdict, words=one.words,
                            skim_m=one.skim_m) for one in marks],
        wear=[finding_view(facts, one) for one in facts.standing(facts.findings) if one.kind is FindingKind.WEAR],
        land_m=facts.card.seat.sealing_land.metres,
        edge_radius_m=_edge_radius_m(facts),
        flatness=_flatness(facts),
        skim_m=skim_m,
        dependents=[DependentView.of(one) for one in dependents_of(facts.card, skim_m)],
        compression_before=None if compression is None else compression[0],
        compression_after=None if compression is None else compression[1],
        readings=_readings(facts),
        cautions=list(dict.fromkeys((*OPERATIONS[Operation.CLEAN].caution, *OPERATIONS[Operation.PLUG].caution))),
    )  # fmt: skip


def _inspections(facts: JobFacts) -> list[InspectionView]:
    numbers = {hole.hole_id: hole.number for hole in facts.holes}
    newest: dict[tuple[InspectionKind, UUID | None], Inspection] = {
        (one.kind, one.hole_id): one for one in facts.standing(facts.inspections)
    }
    return [
        InspectionView(kind=one.kind, hole=None if one.hole_id is None else numbers[one.hole_id], outcome=one.outcome,
                       words=one.words, radius_m=None if one.figure_um is None else metres(one.figure_um),
                       typed=one.typed, noted_at=one.noted_at, noted_by=one.noted_by, event=one.event)
        for one in newest.values()
    ]  # fmt: skip


def _edge_radius_m(facts: JobFacts) -> float:
    sheet = sheet_of(facts.card, Quantity.COUNTERBORE_DIAMETER)
    nominal = None if sheet is None else sheet.nominal.metres
    return (facts.card.layout.bore.metres * DRAWN_WIDER if nominal is None else nominal) / 2


def _flatness(facts: JobFacts) -> list[FlatnessView]:
    asked = sheet_of(facts.card, Quantity.DECK_FLATNESS) is not None
    found = []
    for part in parts_of(facts, Quantity.DECK_FLATNESS):
        survey = survey_of(facts, Quantity.DECK_FLATNESS, part)
        found.append(FlatnessView(part=part.key, title=part.title, asked=asked, state=survey.state,
                                  reason=survey.reason))  # fmt: skip
    return found


def _readings(facts: JobFacts) -> list[ReadingToExplain]:
    found = []
    for hole in facts.holes:
        for survey, what in ((depths_of(facts, hole), "ledge depth"), (protrusion_of(facts, hole), "protrusion")):
            found += [
                ReadingToExplain(
                    reading_id=one.reading_id,
                    hole=hole.number,
                    words=f"{what} {place_words(one.place)}, {as_entered(one.typed, one.typed_unit)}",
                )
                for row in survey.read
                for one in row.readings
            ]
    return found


@router.post("/steps", status_code=201)
def note_prep_step(job_id: UUID, body: PrepStepBody, conn: Conn) -> Done:
    """Write down a step; a power tool on the deck is refused."""
    step = preparation.StepDone(**body.model_dump(exclude={"person_id"}))
    preparation.note_step(conn, job_id, step, body.person_id)
    return Done(job_id=job_id)


@router.post("/inspections", status_code=201)
def note_inspection(job_id: UUID, body: InspectionBody, conn: Conn) -> Done:
    """Write down a look at the block or a hole, or that it is waived by name."""
    look = preparation.LookTaken(**body.model_dump(exclude={"person_id"}))
    preparation.note_inspection(conn, job_id, look, body.person_id)
    return Done(job_id=job_id)
