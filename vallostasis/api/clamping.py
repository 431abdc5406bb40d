"""Torque plate and main caps bolt by bolt, each bore clamped and free, and the plates and fixtures of the shop."""

from datetime import datetime
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.budget_models import StatedView
from vallostasis.api.deps import Conn, LengthText, LongText, ShortText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.trail import PhraseView
from vallostasis.core.bores.plate import HoleHeld
from vallostasis.core.clamping.progress import Progress, TightState
from vallostasis.core.notation.lengths import metres
from vallostasis.core.operations.catalogue import OPERATIONS
from vallostasis.core.records.clamping import BoltMarkKind, Clamp, Fixture, FixtureKind
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import SpecCard
from vallostasis.core.surveys.loads import running_bore
from vallostasis.core.uncertainty.decision import State
from vallostasis.services import clamping
from vallostasis.services.clamping import ClampingNow
from vallostasis.store import fixtures

router = APIRouter(prefix="/api", tags=["clamping"], responses=ERROR_RESPONSES)

Bolt = Annotated[int, Field(ge=1, le=64)]
TorqueText = Annotated[str, Field(max_length=40)]


class BuildView(BaseModel):
    """How the head is held in the build, by the card. [N·m]"""

    gasket: str
    fasteners: str
    torque_nm: float | None

    @classmethod
    def of(cls, card: SpecCard) -> "BuildView":
        """Show what the card says of the build."""
        terms = card.bores
        return cls(gasket=terms.plate_gasket, fasteners=terms.plate_fasteners, torque_nm=terms.plate_torque_nm)


class BoltMarkView(BaseModel):
    """What is noted of a bolt. [N·m]"""

    kind: BoltMarkKind
    turn: int | None
    bolt: int | None
    torque_nm: float | None
    noted_at: datetime
    noted_by: str
    words: str


class TighteningView(BaseModel):
    """A plate or caps as they are tightened. [N·m]"""

    tightening_id: UUID
    clamp: Clamp
    fixture: str
    gasket: str
    fasteners: str
    from_hole: int | None
    to_hole: int | None
    order: list[int]
    stages_nm: list[float]
    words: str
    begun_at: datetime
    begun_by: str
    state: TightState
    turn: int
    rounds: int
    bolt: int | None = Field(description="Which is turned next; null where none is.")
    torque_nm: float | None
    is_trial: bool
    done: list[int]
    otherwise: list[int]
    differs: list[str] = Field(description="In which points it is not as the head will be in the build.")
    marks: list[BoltMarkView]

    @classmethod
    def of(cls, one: Progress, differs: tuple[str, ...]) -> "TighteningView":
        """Show a tightening."""
        begun = one.begun
        marks = [
            BoltMarkView(kind=mark.kind, turn=mark.turn, bolt=mark.bolt, noted_at=mark.noted_at, words=mark.words,
                         torque_nm=None if mark.torque_nm is None else float(mark.torque_nm), noted_by=mark.noted_by)
            for mark in one.marks
        ]  # fmt: skip
        return cls(
            tightening_id=begun.tightening_id, clamp=begun.clamp, fixture=begun.fixture, gasket=begun.gasket,
            fasteners=begun.fasteners, from_hole=begun.from_hole, to_hole=begun.to_hole, order=list(begun.order),
            stages_nm=[float(stage) for stage in begun.stages], words=begun.words, begun_at=begun.begun_at,
            begun_by=begun.begun_by, state=one.state, turn=one.turn, rounds=one.rounds, bolt=one.bolt,
            torque_nm=None if one.torque_nm is None else float(one.torque_nm), is_trial=one.is_trial,
            done=list(one.done), otherwise=list(one.otherwise), differs=list(differs), marks=marks,
        )  # fmt: skip


class HoleHeldView(BaseModel):
    """One bore clamped and free: out of round under both. [m]"""

    hole: int
    clamped: StatedView | None
    clamped_state: State
    clamped_reason: str
    free: StatedView | None
    size_change: StatedView | None = Field(
        description="Clamped less free on the diameter, the level that changes most."
    )
    says: list[PhraseView]

    @classmethod
    def of(cls, one: HoleHeld) -> "HoleHeldView":
        """Show a hole."""
        levels = [] if one.change is None else [level.size for level in one.change.levels]
        most = max(levels, key=lambda size: abs(size.value_m), default=None)
        return cls(hole=one.hole.number, clamped=StatedView.maybe(one.clamped), clamped_state=one.clamped_state,
                   clamped_reason=one.clamped_reason, free=StatedView.maybe(one.free),
                   size_change=StatedView.maybe(most), says=[PhraseView.of(said) for said in one.says])  # fmt: skip


class ClampingView(BaseModel):
    """Plate and caps of a job."""

    quantity: Quantity = Field(description="The bore that a piston runs in.")
    build: BuildView
    plate_advice: str
    caps_advice: str
    caution: list[str]
    tightenings: list[TighteningView]

    @classmethod
    def of(cls, now: ClampingNow) -> "ClampingView":
        """Show plate and caps."""
        build, caution = BuildView.of(now.facts.card), list(OPERATIONS[Operation.PLATE].caution)
        return cls(quantity=running_bore(now.facts.card), build=build, plate_advice=now.plate_advice,
                   caps_advice=now.caps_advice, caution=caution,
                   tightenings=[TighteningView.of(one, differs) for one, differs in now.tightenings])  # fmt: skip


class TighteningBody(BaseModel):
    """A plate or caps that begin to be tightened; the client makes the id."""

    tightening_id: UUID
    clamp: Clamp
    bolts: Annotated[int, Field(ge=0, le=1000)]
    stages: Annotated[
        str, Field(max_length=120, description="Torques of the rounds; thirds of the build's where empty.")
    ]
    fixture: ShortText = ""
    gasket: ShortText = ""
    fasteners: ShortText = ""
    from_hole: Annotated[int | None, Field(ge=1, le=64)] = None
    to_hole: Annotated[int | None, Field(ge=1, le=64)] = None
    order: Annotated[str, Field(max_length=300, description="Bolts as they are turned; by our rule where empty.")] = ""
    words: LongText = ""
    person_id: UUID


class BoltBody(BaseModel):
    """A bolt of the round that is on; the client makes the id."""

    bolt_mark_id: UUID
    bolt: Bolt
    kind: BoltMarkKind
    torque: TorqueText = ""
    words: ShortText = ""
    person_id: UUID


class OffBody(BaseModel):
    """A plate or caps that came off; the client makes the id."""

    bolt_mark_id: UUID
    words: ShortText = ""
    person_id: UUID


class FixtureView(BaseModel):
    """A plate, bar, block or pad of the shop. [m]"""

    name: str
    kind: FixtureKind
    fits: str
    thickness_m: float | None
    material: str
    changed: str
    note: str
    saved_by: str

    @classmethod
    def of(cls, one: Fixture) -> "FixtureView":
        """Show a fixture."""
        return cls(name=one.name, kind=one.kind, fits=one.fits, material=one.material, changed=one.changed,
                   thickness_m=None if one.thickness_um is None else metres(one.thickness_um), note=one.note,
                   saved_by=one.saved_by)  # fmt: skip


class FixtureBody(BaseModel):
    """A fixture as it was typed."""

    name: ShortText
    kind: FixtureKind
    fits: ShortText = ""
    thickness: LengthText = ""
    material: ShortText = ""
    changed: LongText = ""
    note: LongText = ""
    person_id: UUID


@router.get("/jobs/{job_id}/clamping")
def read_clamping(job_id: UUID, conn: Conn) -> ClampingView:
    """Return plate and caps of a job."""
    return ClampingView.of(clamping.clamping_of(conn, job_id))


@router.get("/jobs/{job_id}/clamping/holes")
def read_holes_held(job_id: UUID, conn: Conn) -> list[HoleHeldView]:
    """Return each bore clamped and free."""
    return [HoleHeldView.of(one) for one in clamping.holes_held(conn, job_id)]


@router.post("/jobs/{job_id}/clamping", status_code=201)
def begin_tightening(job_id: UUID, body: TighteningBody, conn: Conn) -> ClampingView:
    """Begin to tighten a plate or the caps."""
    typed = clamping.TighteningTyped(**body.model_dump(exclude={"person_id"}))
    clamping.begin_tightening(conn, job_id, typed, body.person_id)
    return read_clamping(job_id, conn)


@router.post("/jobs/{job_id}/clamping/{tightening_id}/bolts", status_code=201)
def mark_bolt(job_id: UUID, tightening_id: UUID, body: BoltBody, conn: Conn) -> ClampingView:
    """Note a bolt of the round that is on."""
    clamping.mark_bolt(conn, job_id, tightening_id, body.bolt_mark_id, body.bolt, body.kind, body.torque, body.words,
                       body.person_id)  # fmt: skip
    return read_clamping(job_id, conn)


@router.post("/jobs/{job_id}/clamping/{tightening_id}/off", status_code=201)
def take_clamp_off(job_id: UUID, tightening_id: UUID, body: OffBody, conn: Conn) -> ClampingView:
    """Note that a plate or caps came off."""
    clamping.take_off(conn, job_id, tightening_id, body.bolt_mark_id, body.words, body.person_id)
    return read_clamping(job_id, conn)


@router.get("/fixtures")
def list_fixtures(conn: Conn) -> list[FixtureView]:
    """Return the plates, bars, blocks and pads of the shop."""
    return [FixtureView.of(one) for one in fixtures.list_fixtures(conn)]


@router.post("/fixtures", status_code=201)
def save_fixture(body: FixtureBody, conn: Conn) -> list[FixtureView]:
    """Save a fixture of the shop; under a known name it takes the place of the one before."""
    clamping.save_fixture(conn, clamping.FixtureTyped(**body.model_dump(exclude={"person_id"})), body.person_id)
    return list_fixtures(conn)
