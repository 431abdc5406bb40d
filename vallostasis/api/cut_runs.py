"""Cutting a counterbore pass by pass, and proving its ledge."""

from datetime import UTC, datetime
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.deps import Conn, LengthText, ShortText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.readings import Done
from vallostasis.api.trail import PhraseView
from vallostasis.core.counterbore.cutter_in_hand import a_pass_of
from vallostasis.core.counterbore.deck_marks import pits_of
from vallostasis.core.cut_runs.proof import LedgeProof, ProofKind, ledge_proof
from vallostasis.core.cut_runs.run import RunNow, RunState, measure_after, runs_of, stop_hour, time_left
from vallostasis.core.cut_runs.stop_and_count import StopAndCount, stop_and_count
from vallostasis.core.notation.lengths import Unit, metres
from vallostasis.core.operations.catalogue import OPERATIONS
from vallostasis.core.protrusion.measured import depths_of
from vallostasis.core.records.cut_runs import CHECKS, RunMarkKind
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.records.rows import Hole
from vallostasis.core.trail import Phrase
from vallostasis.core.uncertainty.decision import State
from vallostasis.services import cut_runs
from vallostasis.store import cutters
from vallostasis.store import jobs as job_rows

router = APIRouter(prefix="/api/holes/{hole_id}", tags=["counterbore"], responses=ERROR_RESPONSES)


class RunBody(BaseModel):
    """A run to begin; empty fields are as the plan says. The client makes the id."""

    run_id: UUID
    depth: LengthText = ""
    shim: LengthText = ""
    bare_unit: Unit = "mm"
    hold_reason: ShortText = ""
    person_id: UUID


class PassBody(BaseModel):
    """The pass that a tap ends, by its number."""

    pass_id: UUID
    number: Annotated[int, Field(ge=1, le=5000)]
    person_id: UUID


class UndoPassBody(BaseModel):
    """The last pass, by its number, that was not cut."""

    number: Annotated[int, Field(ge=1, le=5000)]
    person_id: UUID


class RunMarkBody(BaseModel):
    """Something looked at, measured or decided on a run."""

    run_mark_id: UUID
    kind: RunMarkKind
    words: ShortText = ""
    depth: LengthText = ""
    bare_unit: Unit = "mm"
    confirmed: bool = False
    person_id: UUID


class FinishBody(BaseModel):
    """A run that reached its depth."""

    note: ShortText = ""
    person_id: UUID


class PassView(BaseModel):
    """A pass that is counted. [h]"""

    number: int
    stop_hour: float
    noted_at: datetime
    noted_by: str


class RunCheckView(BaseModel):
    """Something to be looked at before the first pass."""

    kind: RunMarkKind
    done_by: str


class DepthAt(BaseModel):
    """Depth of the ledge as it was before the cut. [h], [m]"""

    hour: float
    depth_m: float


class CutterOnRun(BaseModel):
    """What the card of the cutter says at the machine."""

    name: str
    oil: str
    collars: str
    stop_set: str
    torque_nm: float | None
    suits: bool


class RunView(BaseModel):
    """A run as it stands. Lengths in m, depths from the deck."""

    run_id: UUID
    hole: int
    state: RunState
    depth_m: float
    start_m: float
    shim_m: float
    graduation_m: float
    count: int
    of: int
    at_m: float
    to_go_m: float
    cut_m: float
    cut_within_m: float
    next_m: float
    part_pass_m: float
    measured_m: float | None
    next_stop_hour: float
    passes: list[PassView]
    checks: list[RunCheckView]
    vacuum_every: int
    next_vacuum: int
    vacuum_due: bool
    measure_after: int | None
    left_s: float
    left_within_s: float
    a_pass_s: float
    of_passes: int
    learned_from: int = Field(description="Runs from which the time of a pass is known while this one has few.")
    turning_since: datetime | None
    now: datetime
    ledge: list[DepthAt]
    pits: list[DepthAt]
    cutter: CutterOnRun | None
    agree: bool
    says: PhraseView
    may_be: list[PhraseView]
    caution: list[str]
    liner_mark: str
    started_by: str


class ProofRowView(BaseModel):
    """One thing looked at on a ledge that was cut."""

    kind: ProofKind
    state: State
    words: PhraseView


class LedgeProofView(BaseModel):
    """What is proved of a ledge that was cut, and what follows. [m]"""

    run_id: UUID | None
    rows: list[ProofRowView]
    proved: bool
    further_passes: int | None
    further_part_m: float | None
    over_m: float
    next_hole: int | None


class CutHoleView(BaseModel):
    """Where a hole stands between plan and proof."""

    hole: int
    run: RunView | None
    proof: LedgeProofView | None


@router.get("/cut-run")
def read_cut_run(hole_id: UUID, conn: Conn) -> CutHoleView:
    """The run of a hole as it stands, and the proof of its ledge."""
    facts, hole = cut_runs.hole_facts(conn, hole_id)
    found = runs_of(facts, hole)
    run = next((one for one in reversed(found) if one.goes_on), None)
    return CutHoleView(
        hole=hole.number,
        run=None if run is None else _run(conn, facts, hole, run),
        proof=_proof(facts, hole, ledge_proof(facts, hole), found[-1] if found else None),
    )


def _run(conn: Conn, facts: JobFacts, hole: Hole, now: RunNow) -> RunView:
    run = now.run
    card = cutters.find_cutter(conn, run.cutter)
    learned = a_pass_of(facts)
    left = time_left(now, learned.seconds)
    reached = any(one.kind is RunMarkKind.STOP_REACHED for one in now.marks)
    # Nobody said that the stop is reached while passes are left: then there is nothing to hold against the count.
    turning = not reached and now.passes_left > 0
    said = StopAndCount(True, Phrase(""), ()) if turning else stop_and_count(now, reached)
    here = [one for one in facts.card.obstructions if one.hole == hole.number]
    by = {one.kind: one.noted_by for one in now.marks}
    fitting = facts.present_fitting(hole.hole_id)
    before = depths_of(facts, hole)
    trust = facts.card.cutter.graduation_error_percent / 100 * metres(now.cut_um)
    return RunView(
        run_id=run.run_id,
        hole=hole.number,
        state=now.state,
        depth_m=metres(run.depth_um),
        start_m=metres(run.start_um),
        shim_m=metres(run.shim_um),
        graduation_m=metres(run.graduation_um),
        count=now.count,
        of=now.of,
        at_m=metres(now.at_um),
        to_go_m=metres(now.to_go_um),
        cut_m=metres(now.cut_um),
        cut_within_m=trust,
        next_m=metres(now.next_um),
        part_pass_m=metres(now.left.rest_um),
        measured_m=None if now.measured is None or now.measured.depth_um is None else metres(now.measured.depth_um),
        next_stop_hour=stop_hour([one.stop_hour for one in now.passes], here),
        passes=[PassView(number=one.number, stop_hour=one.stop_hour, noted_at=one.noted_at, noted_by=one.noted_by)
                for one in now.passes],
        checks=[RunCheckView(kind=one, done_by=by.get(one, "")) for one in CHECKS],
        vacuum_every=run.vacuum_every,
        next_vacuum=now.next_vacuum,
        vacuum_due=now.vacuum_due,
        measure_after=measure_after(now),
        left_s=left.seconds,
        left_within_s=left.within_s,
        a_pass_s=left.a_pass_s,
        of_passes=left.of_passes,
        learned_from=learned.runs,
        turning_since=_turning_since(now),
        now=datetime.now(UTC),
        ledge=[DepthAt(hour=row.place.hour, depth_m=row.value_m) for row in before.read
               if row.place.hour is not None and row.value_m is not None],
        pits=[DepthAt(hour=one.hour, depth_m=one.bottom_m) for one in pits_of(facts, hole)],
        cutter=None if card is None else CutterOnRun(
            name=card.name, oil=card.oil, collars=card.collars, stop_set=card.stop_set,
            torque_nm=None if card.torque_nm is None else float(card.torque_nm),
            suits=card.suits(facts.card.layout.bore.um)),
        agree=said.agree,
        says=PhraseView.of(said.says),
        may_be=[PhraseView.of(one) for one in said.may_be],
        caution=list(OPERATIONS[Operation.CUT].caution),
        liner_mark="" if fitting is None else facts.liner(fitting.liner_id).mark,
        started_by=run.started_by,
    )  # fmt: skip


def _turning_since(now: RunNow) -> datetime | None:
    """When the pass that is turning began: with the pass before it, or the last check."""
    if now.state in (RunState.CHECKS, RunState.DONE):
        return None
    times = [one.noted_at for one in now.passes] + [one.noted_at for one in now.marks]
    return max(times, default=None)


def _proof(facts: JobFacts, hole: Hole, proof: LedgeProof | None, run: RunNow | None) -> LedgeProofView | None:
    if proof is None:
        return None
    return LedgeProofView(
        run_id=None if run is None else run.run.run_id,
        rows=[ProofRowView(kind=row.kind, state=row.state, words=PhraseView.of(row.words)) for row in proof.rows],
        proved=proof.proved,
        further_passes=None if proof.further is None else proof.further.whole,
        further_part_m=None if proof.further is None else metres(proof.further.rest_um),
        over_m=proof.over_m,
        next_hole=cut_runs.next_of_plan(facts, hole) if proof.proved else None,
    )


@router.post("/cut-runs", status_code=201)
def begin_cut_run(hole_id: UUID, body: RunBody, conn: Conn) -> Done:
    """Begin the run of a hole; 409 where one is open, or hold points stand before the cut."""
    wanted = cut_runs.RunWanted(**body.model_dump(exclude={"person_id"}))
    cut_runs.begin_run(conn, hole_id, wanted, body.person_id)
    return Done(job_id=job_rows.job_of_hole(conn, hole_id))


@router.post("/cut-runs/{run_id}/passes", status_code=201)
def end_run_pass(hole_id: UUID, run_id: UUID, body: PassBody, conn: Conn) -> CutHoleView:
    """Put a pass on record; 409 where the tap names one that is counted already."""
    cut_runs.end_pass(conn, hole_id, run_id, body.pass_id, body.number, body.person_id)
    return read_cut_run(hole_id, conn)


@router.post("/cut-runs/{run_id}/undo", status_code=201)
def undo_run_pass(hole_id: UUID, run_id: UUID, body: UndoPassBody, conn: Conn) -> CutHoleView:
    """Strike the last pass of a run."""
    cut_runs.undo_pass(conn, hole_id, run_id, body.number, body.person_id)
    return read_cut_run(hole_id, conn)


@router.post("/cut-runs/{run_id}/marks", status_code=201)
def note_on_run(hole_id: UUID, run_id: UUID, body: RunMarkBody, conn: Conn) -> CutHoleView:
    """Write down what was looked at, measured or decided on a run."""
    noted = cut_runs.RunNoted(**body.model_dump(exclude={"person_id"}))
    cut_runs.note_on_run(conn, hole_id, run_id, noted, body.person_id)
    return read_cut_run(hole_id, conn)


@router.post("/cut-runs/{run_id}/finish", status_code=201)
def finish_run(hole_id: UUID, run_id: UUID, body: FinishBody, conn: Conn) -> Done:
    """Finish a run: it is recorded as a cut, and the ledge is to be proved."""
    cut_runs.finish_run(conn, hole_id, run_id, body.note, body.person_id)
    return Done(job_id=job_rows.job_of_hole(conn, hole_id))
