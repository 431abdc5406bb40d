"""Cutting a counterbore pass by pass: a run begun, every pass on record before the count moves, finished as a cut."""

from dataclasses import dataclass
from datetime import UTC, datetime
from decimal import Decimal
from uuid import UUID, uuid4

from vallostasis.core.block_plans.of_job import chosen_plan
from vallostasis.core.counterbore.cutter_in_hand import cutter_trust
from vallostasis.core.counterbore.hole_plan import HolePlan, plan_hole
from vallostasis.core.cut_runs.run import RunNow, refuse_pass, run_at_work, run_now, stop_hour
from vallostasis.core.errors import OutOfDomain, Suggestion
from vallostasis.core.features.usual_lengths import CUT_DEPTH, SHIM
from vallostasis.core.notation.lengths import Unit, both_size, micrometres
from vallostasis.core.protrusion.measured import depths_of
from vallostasis.core.records.cut_runs import CutRun, RunMarkKind
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.records.rows import Hole
from vallostasis.services.fitting import CutMade, record_cut
from vallostasis.services.lengths import read_usual
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.services.route import pass_or_refuse
from vallostasis.store import cutters, jobs
from vallostasis.store.fact_rows import record_fact
from vallostasis.store.job_facts import load_job_facts, lock_job_facts
from vallostasis.store.new_cut_facts import NewCutRun, NewRunMark, NewRunPass
from vallostasis.store.new_facts import NewStrike
from vallostasis.store.rows import Conn

VACUUM_EVERY = 10


@dataclass(frozen=True, slots=True)
class RunWanted:
    """What a run is to reach as typed; empty fields are as the plan says."""

    run_id: UUID
    depth: str = ""
    shim: str = ""
    bare_unit: Unit = "mm"
    hold_reason: str = ""


def hole_facts(conn: Conn, hole_id: UUID) -> tuple[JobFacts, Hole]:
    """Return the facts of the job of a hole, and the hole; raise NotFound if there is none."""
    facts = load_job_facts(conn, jobs.job_of_hole(conn, hole_id))
    return facts, next(hole for hole in facts.holes if hole.hole_id == hole_id)


def _locked(conn: Conn, hole_id: UUID) -> tuple[JobFacts, Hole]:
    facts = lock_job_facts(conn, jobs.job_of_hole(conn, hole_id))
    return facts, next(hole for hole in facts.holes if hole.hole_id == hole_id)


def begin_run(conn: Conn, hole_id: UUID, wanted: RunWanted, by: UUID) -> None:
    """Begin the run of a hole: as the plan that was chosen has it, else as the plan of the hole, or as typed.

    One run per hole at a time; hold points of the cut stand before it.
    """
    facts, hole = _locked(conn, hole_id)
    if any(one.run_id == wanted.run_id for one in facts.cut_runs):
        return
    present = run_at_work(facts, hole)
    if present is not None:
        raise Refused(
            f"Hole {hole.number} is being cut already: {present.count} of {present.of} passes. Go on with that run, or "
            "give it up first.", "hole", RefusalCode.STALE,
        )  # fmt: skip
    read = [row.value_m for row in depths_of(facts, hole).read if row.value_m is not None]
    if not read:
        raise Refused("Measure the counterbore depth before it is cut: afterwards nobody can.", "depth")
    depth_um, shim_um = _aimed(facts, hole, wanted)
    start_um = micrometres(min(read))
    if depth_um <= start_um:
        raise Refused(f"The ledge stands {both_size(start_um)} deep: type a depth below it.", "depth")
    pass_or_refuse(conn, facts, Operation.CUT, hole, by, wanted.hold_reason)
    card = facts.card.cutter
    known = cutters.find_cutter(conn, card.name)
    every = VACUUM_EVERY if known is None else known.vacuum_every
    # As own runs taught it where they are enough: the passes are those of the plan.
    graduation_um = micrometres(cutter_trust(facts).graduation_m, 1)
    record_fact(conn, NewCutRun(facts.job.job_id, wanted.run_id, hole_id, depth_um, start_um, shim_um, graduation_um,
                                card.name, every), by)  # fmt: skip


def _aimed(facts: JobFacts, hole: Hole, wanted: RunWanted) -> tuple[Decimal, Decimal]:
    """Depth and shim that a run is for: typed, of the chosen plan, or of the plan of the hole. [µm]"""
    if wanted.depth.strip():
        if not wanted.shim.strip():
            raise Refused("Say which shim it is cut for.", "shim")
        depth = read_usual("depth", wanted.depth, wanted.bare_unit, CUT_DEPTH, confirmed=False)
        return depth.value_um, read_usual("shim", wanted.shim, wanted.bare_unit, SHIM, confirmed=False).value_um
    chosen = chosen_plan(facts)
    for row in () if chosen is None else chosen.order:
        since = [one for one in facts.standing_cuts(hole.hole_id) if one.event > row.event]
        if row.hole_id == hole.hole_id and not since and row.depth_um is not None and row.shim_um is not None:
            return row.depth_um, row.shim_um
    plan = plan_hole(facts, hole)
    if not isinstance(plan, HolePlan):
        raise Refused(f"No cut can be planned: {plan.reason}", "depth")
    return micrometres(plan.cut.depth_m), micrometres(plan.cut.shim_m)


def _run(facts: JobFacts, hole: Hole, run_id: UUID) -> CutRun:
    run = next((one for one in facts.standing(facts.cut_runs) if one.run_id == run_id), None)
    if run is None or run.hole_id != hole.hole_id:
        raise Refused("There is no such run at this hole.", "run_id")
    return run


def end_pass(
    conn: Conn, hole_id: UUID, run_id: UUID, pass_id: UUID, number: int, by: UUID, at: datetime | None = None
) -> None:
    """Put a pass on record; a tap that names a pass that is counted is refused, the same tap again is not."""
    facts, hole = _locked(conn, hole_id)
    if any(one.pass_id == pass_id for one in facts.run_passes):
        return
    now = run_now(facts, _run(facts, hole, run_id))
    try:
        refuse_pass(now, number)
    except OutOfDomain as error:
        raise Refused(f"Not counted: {error}.", "number", RefusalCode.STALE) from None
    if now.passes_left == 0:
        raise Refused("All passes are counted: say whether the stop is reached, or measure.", "number")
    here = [one for one in facts.card.obstructions if one.hole == hole.number]
    stop = stop_hour([one.stop_hour for one in now.passes], here)
    noted_at = datetime.now(UTC) if at is None else at
    record_fact(conn, NewRunPass(facts.job.job_id, pass_id, run_id, number, stop, noted_at), by)


def is_counted_out(conn: Conn, hole_id: UUID, run_id: UUID) -> bool:
    """Whether every pass of a run is counted."""
    facts, hole = hole_facts(conn, hole_id)
    return run_now(facts, _run(facts, hole, run_id)).passes_left == 0


def undo_pass(conn: Conn, hole_id: UUID, run_id: UUID, number: int, by: UUID) -> None:
    """Strike the last pass of a run, which is named."""
    facts, hole = _locked(conn, hole_id)
    now = run_now(facts, _run(facts, hole, run_id))
    if not now.passes or now.passes[-1].number != number:
        raise Refused(f"Pass {number} is not the last one that is counted.", "number", RefusalCode.STALE)
    event = now.passes[-1].event
    record_fact(conn, NewStrike(facts.job.job_id, True, f"pass {number} was not cut", of_event=event), by)


@dataclass(frozen=True, slots=True)
class RunNoted:
    """Something said of a run; a depth as typed where it was measured."""

    run_mark_id: UUID
    kind: RunMarkKind
    words: str = ""
    depth: str = ""
    bare_unit: Unit = "mm"
    confirmed: bool = False


def note_on_run(conn: Conn, hole_id: UUID, run_id: UUID, noted: RunNoted, by: UUID) -> None:
    """Write down what was looked at, measured or decided on a run; sending it again never doubles it."""
    facts, hole = _locked(conn, hole_id)
    if any(one.run_mark_id == noted.run_mark_id for one in facts.run_marks):
        return
    now = run_now(facts, _run(facts, hole, run_id))
    if noted.kind is RunMarkKind.FINISHED:
        raise Refused("A run is finished as a cut: finish it.", "kind")
    if not now.goes_on and noted.kind not in (RunMarkKind.DEBURRED, RunMarkKind.WIDTH):
        raise Refused("This run is over: start another.", "kind", RefusalCode.STALE)
    depth_um, typed = None, ""
    if noted.kind is RunMarkKind.MEASURED:
        if not noted.depth.strip():
            raise Refused("Type the depth from the deck that was read.", "depth")
        read = read_usual("depth", noted.depth, noted.bare_unit, CUT_DEPTH, noted.confirmed)
        depth_um, typed = read.value_um, f"{read.number} {read.unit}"
        _ask_if_far_off(now, depth_um, noted.confirmed)
    if noted.kind is RunMarkKind.GIVEN_UP and not noted.words.strip():
        raise Refused("Say why the run is given up.", "words")
    record_fact(conn, NewRunMark(facts.job.job_id, noted.run_mark_id, run_id, noted.kind, noted.words.strip(), depth_um,
                                 typed), by)  # fmt: skip


def _ask_if_far_off(now: RunNow, depth_um: Decimal, confirmed: bool) -> None:
    """A depth more than five graduations from the count is a slip, a burr, or a count that was lost."""
    off = depth_um - now.at_um
    if confirmed or abs(off) <= 5 * now.run.graduation_um:
        return
    raise Refused(
        f"That is {both_size(abs(off))} {'deeper' if off > 0 else 'shallower'} than the count: is it a slip, or is the "
        "count lost?", "depth", RefusalCode.ASKS, (Suggestion("It was read so: go on from it", "", confirm=True),),
    )  # fmt: skip


def finish_run(conn: Conn, hole_id: UUID, run_id: UUID, note: str, by: UUID) -> None:
    """Finish a run: it is a cut to the depth that it was set for, and the ledge is to be proved."""
    facts, hole = _locked(conn, hole_id)
    now = run_now(facts, _run(facts, hole, run_id))
    if not now.goes_on:
        return
    if now.unchecked or now.count == 0:
        raise Refused("Nothing is cut yet: give the run up instead.", "run_id")
    reached = any(one.kind is RunMarkKind.STOP_REACHED for one in now.marks)
    if now.passes_left and not reached:
        raise Refused(
            f"{now.passes_left} passes are left by the count: say that the stop is reached, or go on.", "run_id"
        )
    depth = f"{now.run.depth_um / 1000} mm"
    made = CutMade(uuid4(), depth, "mm", now.count, f"{now.run.shim_um / 1000} mm", note, confirmed=True)
    reason = "begun with the run" if _has_holds(conn, facts, hole, by) else ""
    record_cut(conn, hole_id, made, by, reason)
    record_fact(conn, NewRunMark(facts.job.job_id, uuid4(), run_id, RunMarkKind.FINISHED, note.strip()), by)


def _has_holds(conn: Conn, facts: JobFacts, hole: Hole, by: UUID) -> bool:
    """Whether hold points stand before the cut that were passed, or seen to, when the run was begun."""
    try:
        pass_or_refuse(conn, facts, Operation.CUT, hole, by, "")
    except Refused:
        return True
    return False


def next_of_plan(facts: JobFacts, hole: Hole) -> int | None:
    """Return the next hole that the chosen plan cuts after this one and that is not cut yet."""
    chosen = chosen_plan(facts)
    waiting = [] if chosen is None else [
        row for row in chosen.order
        if row.hole_id != hole.hole_id and not any(one.event > row.event for one in facts.standing_cuts(row.hole_id))
    ]  # fmt: skip
    return next((one.number for one in facts.holes if waiting and one.hole_id == waiting[0].hole_id), None)
