"""What does not add up: causes by weight, checks by what they tell a minute, experiments on record, cases kept."""

from datetime import datetime
from typing import Annotated, Self
from uuid import UUID

from fastapi import APIRouter, Query
from pydantic import BaseModel, Field

from vallostasis.api.budget_models import StatedView
from vallostasis.api.deps import Conn, LongText, ReadConn, ShortText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.readings import Done
from vallostasis.core.causes.cases import shape_from_text
from vallostasis.core.causes.experiments import Tried
from vallostasis.core.causes.next_check import NextCheck
from vallostasis.core.causes.of_job import HoleOff
from vallostasis.core.causes.table import Cause, Check, CheckAt, Pattern
from vallostasis.core.causes.weigh import Explained, Finding
from vallostasis.core.notation.lengths import Unit
from vallostasis.core.records.experiments import Matter
from vallostasis.services import causes
from vallostasis.services.causes import CausesNow
from vallostasis.store.causes import CaseOfShop

router = APIRouter(prefix="/api/jobs/{job_id}/causes", tags=["causes"], responses=ERROR_RESPONSES)
shop_router = APIRouter(prefix="/api/causes", tags=["causes"], responses=ERROR_RESPONSES)

HoleNumbers = Annotated[list[Annotated[int, Field(ge=1, le=64)]], Field(max_length=64)]
Minutes = Annotated[float, Field(ge=0, le=100_000, allow_inf_nan=False)]


class FoundBody(BaseModel):
    """What a check read at some holes; none where it was made once for the whole block. [m]"""

    check: ShortText
    where: HoleNumbers
    value_m: Annotated[float, Field(ge=-0.01, le=0.01, allow_inf_nan=False)]

    @property
    def finding(self) -> Finding:
        """What it is to the core."""
        return Finding(self.check, tuple(self.where), self.value_m)


class SpotOffView(BaseModel):
    """One reading: where it stands, what it leaves over. [m]"""

    name: str
    off: StatedView


class HoleOffView(BaseModel):
    """One hole: as read less as it ought to be; ``middle`` is null for a bore, held against its own middle. [m]"""

    hole: int
    liner: str
    make: str
    middle: StatedView | None
    spots: list[SpotOffView]
    adds_up: bool

    @classmethod
    def of(cls, one: HoleOff) -> Self:
        """Show it."""
        return cls(hole=one.hole, liner=one.liner, make=one.make, adds_up=one.adds_up,
                   middle=None if one.middle is None else StatedView.of(one.middle),
                   spots=[SpotOffView(name=spot.name, off=StatedView.of(spot.off)) for spot in one.spots])  # fmt: skip


class ExplainedView(BaseModel):
    """One explanation: its causes, where and by how much they act, how they show, how likely it is. [m], [deg], [1]

    ``looks_m`` is how the readings would look if it were so, in the order of the holes and their spots.
    """

    causes: list[str]
    where: list[list[int]]
    effects_m: list[float]
    high_sides_deg: list[float | None]
    words: list[str]
    shows: str
    weight: float
    looks_m: list[float]

    @classmethod
    def of(cls, one: Explained, shows: dict[str, str]) -> Self:
        """Show it."""
        return cls(causes=list(one.causes), where=[list(place) for place in one.where], effects_m=list(one.effects_m),
                   high_sides_deg=list(one.high_sides_deg), words=list(one.words), weight=one.weight,
                   shows="; ".join(shows.get(name, "") for name in one.causes),
                   looks_m=[float(value) for value in one.fitted_m])  # fmt: skip


class NextCheckView(BaseModel):
    """A check; what it reads if its likeliest cause is there; the weights after either. [m], [min], [bit], [1]"""

    name: str
    tools: str
    minutes: float
    asks: str
    at: CheckAt
    where: list[int]
    bits: float
    expected_m: float
    if_found: list[float]
    if_not: list[float]

    @classmethod
    def of(cls, one: NextCheck) -> Self:
        """Show it."""
        return cls(name=one.check.name, tools=one.check.tools, minutes=one.check.minutes, asks=one.check.asks,
                   at=one.check.at, where=list(one.where), bits=one.bits, expected_m=one.expected_m,
                   if_found=list(one.if_found), if_not=list(one.if_not))  # fmt: skip


class ExperimentView(BaseModel):
    """An experiment on record with what came of it; ``overtaken`` says why its finding counts no longer. [m], [min]"""

    experiment_id: UUID
    check: str
    asks: str = Field(description="Which number is typed of its check, and which way it counts; empty without one.")
    holes: list[int]
    change: str
    expected: str
    begun_at: datetime
    begun_by: str
    event: int
    value_m: float | None
    typed: str
    words: str
    minutes: float | None
    money: float | None
    is_open: bool
    overtaken: str

    @classmethod
    def of(cls, one: Tried, asks: dict[str, str]) -> Self:
        """Show it."""
        of, result = one.experiment, one.result
        return cls(
            experiment_id=of.experiment_id, check=of.check_name, asks=asks.get(of.check_name, ""),
            holes=list(of.holes), change=of.change,
            expected=of.expected, begun_at=of.begun_at, begun_by=of.begun_by, event=of.event,
            value_m=None if result is None else result.value_m,
            typed="" if result is None else f"{result.typed} {result.typed_unit}".strip(),
            words="" if result is None else result.words,
            minutes=None if result is None else float(result.minutes),
            money=None if result is None or result.money is None else float(result.money),
            is_open=result is None, overtaken=one.overtaken,
        )  # fmt: skip


class CaseView(BaseModel):
    """A case of the shop: how it showed, what was tried in vain, what it was, what found it in how many minutes.

    ``alike`` is how its pattern lies to the one at hand, null where it was asked for by words. [1], [min]
    """

    case_id: UUID
    job_id: UUID
    job: str
    matter: Matter
    symptom: str
    false_leads: list[str]
    cause: str
    found_with: str
    minutes: float
    words: str
    kept_by: str
    shape_um: list[float]
    alike: float | None

    @classmethod
    def of(cls, one: CaseOfShop, alike: float | None = None) -> Self:
        """Show it."""
        return cls(
            case_id=one.case_id, job_id=one.job_id, job=one.job, matter=one.matter, symptom=one.symptom,
            false_leads=[lead for lead in one.false_leads.splitlines() if lead], cause=one.cause,
            found_with=one.found_with, minutes=float(one.minutes), words=one.words, kept_by=one.kept_by,
            shape_um=[row.off_um for row in shape_from_text(one.shape)], alike=alike,
        )  # fmt: skip


class CausesView(BaseModel):
    """What does not add up; ``why_not`` alone where no pattern can be seen, no causes where everything adds up.

    ``hold`` says why nothing is cut or bought yet; ``checks`` come the one that tells most a minute first.
    """

    matter: Matter
    why_not: str
    holes: list[HoleOffView]
    far_off: float = Field(description="In joint standard uncertainties; below three nothing is claimed.")
    explained: list[ExplainedView]
    checks: list[NextCheckView]
    missing: list[str]
    tried: list[ExperimentView]
    hold: str
    cases: list[CaseView]
    kept: str = Field(description="The cause of the case kept last on this job; empty without one.")

    @classmethod
    def of(cls, matter: Matter, now: CausesNow) -> Self:
        """Show it."""
        looked, found = now.looked, now.looked.found
        tried = [ExperimentView.of(one, now.asks) for one in looked.tried]
        cases = [CaseView.of(one.case, one.alike) for one in now.cases]
        if isinstance(found, str):
            return cls(matter=matter, why_not=found, holes=[], far_off=0.0, explained=[], checks=[], missing=[],
                       tried=tried, hold="", cases=cases, kept=now.kept)  # fmt: skip
        return cls(
            matter=matter, why_not="", holes=[HoleOffView.of(one) for one in found.holes], far_off=found.far_off,
            explained=[ExplainedView.of(one, now.shows) for one in found.explained], missing=list(found.missing),
            checks=[NextCheckView.of(one) for one in found.checks], tried=tried, hold=looked.hold, cases=cases,
            kept=now.kept,
        )  # fmt: skip


class BeginBody(BaseModel):
    """One thing that is about to be changed or looked at, and what is expected; the client makes the id."""

    experiment_id: UUID
    matter: Matter
    check: ShortText = ""
    holes: HoleNumbers = []
    change: LongText
    expected: LongText
    person_id: UUID


class CameOfBody(BaseModel):
    """What came of it: a length as typed, words, minutes of work, money."""

    value: ShortText = ""
    bare_unit: Unit = "µm"
    words: LongText = ""
    minutes: Minutes
    money: Annotated[float | None, Field(ge=0, le=1e8, allow_inf_nan=False)] = None
    person_id: UUID


class KeepBody(BaseModel):
    """A case to be kept: how it showed, what it was, what whoever meets it should know; the client makes the id."""

    case_id: UUID
    matter: Matter
    symptom: ShortText
    cause: ShortText
    words: LongText = ""
    person_id: UUID


class CauseView(BaseModel):
    """A cause of heights that is known to the shop; ``own`` where the shop wrote it. [m], [1]"""

    name: str
    shows: str
    pattern: Pattern
    low_m: float
    high_m: float
    prior: float
    own: bool

    @classmethod
    def of(cls, one: Cause, own: bool) -> Self:
        """Show it."""
        return cls(name=one.name, shows=one.shows, pattern=one.pattern, low_m=one.low_m, high_m=one.high_m,
                   prior=one.prior, own=own)  # fmt: skip


class CheckView(BaseModel):
    """A check that is known to the shop; ``own`` where the shop wrote it. [m], [min]"""

    name: str
    tools: str
    minutes: float
    asks: str
    at: CheckAt
    finds: list[str]
    standard_m: float
    own: bool

    @classmethod
    def of(cls, one: Check, own: bool) -> Self:
        """Show it."""
        return cls(name=one.name, tools=one.tools, minutes=one.minutes, asks=one.asks, at=one.at,
                   finds=[name for name, share in one.finds if share], standard_m=one.standard_m, own=own)  # fmt: skip


class KnownView(BaseModel):
    """Every cause and check that is known to the shop."""

    causes: list[CauseView]
    checks: list[CheckView]


class CauseBody(BaseModel):
    """A cause of the shop's own: how it shows, between which effects it can lie, how often it is met in a hundred."""

    name: ShortText
    shows: ShortText
    pattern: Pattern
    low: ShortText
    high: ShortText
    bare_unit: Unit = "µm"
    in_a_hundred: Annotated[float, Field(gt=0, le=50, allow_inf_nan=False)]
    person_id: UUID


class CheckBody(BaseModel):
    """A check of the shop's own: what is typed, which causes it finds, how surely it reads. [min]"""

    name: ShortText
    tools: ShortText = ""
    minutes: Annotated[float, Field(gt=0, le=10_000, allow_inf_nan=False)]
    asks: ShortText
    at: CheckAt
    finds: Annotated[list[ShortText], Field(max_length=20)]
    standard: ShortText
    bare_unit: Unit = "µm"
    person_id: UUID


@router.get("")
def read_causes(job_id: UUID, conn: Conn, matter: Matter = Matter.HEIGHTS) -> CausesView:
    """Weigh what may be behind what does not add up, with everything that was tried about it."""
    return CausesView.of(matter, causes.look_now(conn, job_id, matter))


@router.post("/experiments", status_code=201)
def begin_experiment(job_id: UUID, body: BeginBody, conn: Conn) -> Done:
    """Put on record what is changed or looked at, one thing at a time."""
    begun = causes.Begin(body.experiment_id, body.matter, body.check, tuple(body.holes), body.change, body.expected)
    causes.begin_experiment(conn, job_id, begun, body.person_id)
    return Done(job_id=job_id)


@router.post("/experiments/{experiment_id}", status_code=201)
def settle_experiment(job_id: UUID, experiment_id: UUID, body: CameOfBody, conn: Conn) -> Done:
    """Write down what came of an experiment; that nothing changed stays on record too."""
    came = causes.CameOf(body.value, body.bare_unit, body.words, body.minutes, body.money)
    causes.settle_experiment(conn, job_id, experiment_id, came, body.person_id)
    return Done(job_id=job_id)


@router.post("/cases", status_code=201)
def keep_case(job_id: UUID, body: KeepBody, conn: Conn) -> Done:
    """Keep what was settled, to be found again by its pattern and by words."""
    causes.keep_case(conn, job_id, causes.Keep(body.case_id, body.matter, body.symptom, body.cause, body.words),
                     body.person_id)  # fmt: skip
    return Done(job_id=job_id)


@shop_router.get("")
def list_causes(conn: ReadConn) -> KnownView:
    """Return every cause and check of heights that is known to the shop."""
    known, own = causes.known_now(conn), causes.own_names(conn)
    return KnownView(causes=[CauseView.of(one, one.name in own) for one in known.causes],
                     checks=[CheckView.of(one, one.name in own) for one in known.checks])  # fmt: skip


@shop_router.post("", status_code=201)
def add_cause(body: CauseBody, conn: Conn) -> KnownView:
    """Save a cause of the shop's own; all of them as they are then."""
    cause = Cause(body.name, body.shows, body.pattern, 0.0, 0.0, body.in_a_hundred / 100)
    causes.set_cause(conn, cause, body.low, body.high, body.bare_unit, body.person_id)
    return list_causes(conn)


@shop_router.post("/checks", status_code=201)
def add_check(body: CheckBody, conn: Conn) -> KnownView:
    """Save a check of the shop's own; all of them as they are then."""
    check = Check(body.name, body.tools, body.minutes, body.asks, body.at, tuple((one, 1.0) for one in body.finds), 0.0)
    causes.set_check(conn, check, body.standard, body.bare_unit, body.person_id)
    return list_causes(conn)


@shop_router.get("/cases")
def list_cases(conn: ReadConn, words: Annotated[str, Query(max_length=120)] = "") -> list[CaseView]:
    """Return the cases of the shop; with words those that answer them, the best first."""
    return [CaseView.of(one) for one in causes.cases_now(conn, words)]
