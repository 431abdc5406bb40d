"""Recording what was done to a hole: the cut, and the liner fitted with its shims."""

from dataclasses import asdict, dataclass
from datetime import UTC, datetime
from decimal import Decimal
from enum import StrEnum
from uuid import UUID, uuid4

from vallostasis.core.counterbore.cut_plan import depth_by_the_stop
from vallostasis.core.counterbore.cutter_in_hand import cutter_trust
from vallostasis.core.counterbore.hole_plan import HolePlan, HoleRefusal, plan_hole, seat_limits
from vallostasis.core.errors import OutOfDomain, Suggestion
from vallostasis.core.features.usual_lengths import CUT_DEPTH, SHIM
from vallostasis.core.notation.lengths import Unit, both_size, both_small, metres, micrometres
from vallostasis.core.notation.typed_lengths import ParsedLength
from vallostasis.core.protrusion.measured import UNMEASURED_SHIM_M, depths_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import MarkKind, Operation
from vallostasis.core.records.rows import Fitting, Hole
from vallostasis.core.records.spec_card import between_m
from vallostasis.core.uncertainty.decision import ROUNDING
from vallostasis.services.cutters import keep_lessons
from vallostasis.services.lengths import read_usual
from vallostasis.services.reading_target import known_liner
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.services.route import pass_or_refuse
from vallostasis.services.shelf import lot_to_use, use_shims
from vallostasis.store import jobs
from vallostasis.store.fact_rows import record_fact
from vallostasis.store.job_facts import load_job_facts, lock_job_facts, read_job_facts
from vallostasis.store.new_facts import NewCut, NewFitting, NewLiner, NewOperationMark, NewOut, NewShim
from vallostasis.store.rows import Conn


@dataclass(frozen=True, slots=True)
class CutMade:
    """A cut as recorded at the bench: depth by the stop as typed, passes counted, shim it was cut for."""

    cut_id: UUID
    depth: str
    depth_unit: Unit
    passes: int
    shim: str
    note: str
    confirmed: bool
    shim_unit: Unit = "mm"


@dataclass(frozen=True, slots=True)
class ShimFitted:
    """A shim as recorded at the bench; ``measured`` is empty where only its nominal size is known."""

    nominal: str
    measured: str
    side_up: str
    bare_unit: Unit = "mm"
    confirmed: bool = False


class ReadyTick(StrEnum):
    """What has to be looked at before a liner goes in. Common practice, no published source."""

    CLEAN = "clean and dry"
    LEAD_IN = "lead-in and seals"
    MARKED = "marked, right way round"


@dataclass(frozen=True, slots=True)
class MadeReady:
    """What was ticked before a liner went in, and the reason to pass hold points by name where it was not all."""

    ticked: tuple[ReadyTick, ...] = ()
    hold_reason: str = ""


ALL_READY = MadeReady(tuple(ReadyTick))


def plan_of_hole(conn: Conn, hole_id: UUID, liner_mark: str = "") -> tuple[JobFacts, Hole, HolePlan | HoleRefusal]:
    """Plan the cut of one hole, for the liner in it or another one of the job."""
    facts, hole = _facts_of_hole(conn, hole_id)
    liner = known_liner(facts, liner_mark) if liner_mark else None
    return facts, hole, plan_hole(facts, hole, liner)


def _facts_of_hole(conn: Conn, hole_id: UUID) -> tuple[JobFacts, Hole]:
    facts = load_job_facts(conn, jobs.job_of_hole(conn, hole_id))
    return facts, next(hole for hole in facts.holes if hole.hole_id == hole_id)


def record_cut(conn: Conn, hole_id: UUID, made: CutMade, by: UUID, hold_reason: str = "") -> None:
    """Record a cut; the liner is out of the hole with it, and the hole is not measured."""
    jobs.lock_job(conn, jobs.job_of_hole(conn, hole_id))
    facts, hole = _facts_of_hole(conn, hole_id)
    if any(cut.cut_id == made.cut_id for cut in facts.cuts):
        return
    survey = depths_of(facts, hole)
    sizes = [row.value_m for row in survey.read if row.value_m is not None]
    if not sizes:
        raise Refused("Measure the counterbore depth before it is cut: afterwards nobody can.", "depth")
    depth_um = read_usual("depth", made.depth, made.depth_unit, CUT_DEPTH, made.confirmed).value_um
    shim_um = read_usual("shim", made.shim, made.shim_unit, SHIM, made.confirmed).value_um
    highest_um = micrometres(min(sizes))
    if depth_um <= highest_um:
        raise Refused(
            f"That is no deeper than the ledge stood before, {both_size(highest_um)}: type the depth from the deck.",
            "depth",
        )
    touch_off_um = depth_um - highest_um
    k = facts.card.coverage_factor
    stopped = depth_by_the_stop(metres(depth_um), survey.estimates, cutter_trust(facts), k)
    stop_u = stopped.standard_m
    if not made.confirmed:
        _ask_if_outside(facts, hole, depth_um, shim_um)
    pass_or_refuse(conn, facts, Operation.CUT, hole, by, hold_reason)
    record_fact(conn, NewCut(made.cut_id, hole_id, depth_um, made.depth.strip(), touch_off_um, made.passes, shim_um,
                             micrometres(stop_u), made.note), by)  # fmt: skip
    fitting = facts.present_fitting(hole_id)
    if fitting is not None:
        record_fact(conn, NewOut(fitting.fitting_id, because_cut_id=made.cut_id), by)


def _ask_if_outside(facts: JobFacts, hole: Hole, depth_um: Decimal, shim_um: Decimal) -> None:
    """No cut goes into the record unasked when it predicts a protrusion outside the with-shim window."""
    plan = plan_hole(facts, hole)
    if plan.basis.flange is None:
        return
    try:
        limits = seat_limits(facts.card)
    except OutOfDomain:
        return
    protrusion = plan.basis.flange.value_m + metres(shim_um) - between_m(facts.card) - metres(depth_um)
    if limits.least_m - ROUNDING <= protrusion <= limits.greatest_m + ROUNDING:
        return
    side = "below the least" if protrusion < limits.least_m else "above the greatest"
    planned = f" The plan says {both_size(micrometres(plan.cut.depth_m))}." if isinstance(plan, HolePlan) else ""
    raise Refused(
        f"That depth with that shim predicts a protrusion of {both_small(micrometres(protrusion))}, {side} "
        f"with shim.{planned} Is it a slip, or is it what was cut?",
        "depth",
        RefusalCode.ASKS,
        (Suggestion("Record it as cut", "", confirm=True),),
    )


def record_fitting(
    conn: Conn,
    hole_id: UUID,
    fitting_id: UUID,
    liner_mark: str,
    shims: tuple[ShimFitted, ...],
    by: UUID,
    exchange: bool = False,
    made_ready: MadeReady = MadeReady(),
) -> None:
    """Record that a liner went into a hole with its shims; what was in it is out, or goes where the liner came from."""
    jobs.lock_job(conn, jobs.job_of_hole(conn, hole_id))
    facts, hole = _facts_of_hole(conn, hole_id)
    if any(fitting.fitting_id == fitting_id for fitting in facts.fittings):
        return
    liner = known_liner(facts, liner_mark)
    elsewhere = facts.hole_of_liner(liner.liner_id)
    if elsewhere is not None and elsewhere.hole_id != hole_id and not exchange:
        raise Refused(
            f"{liner.mark} is in hole {elsewhere.number}: exchange the two, draw it there first, or fit another here.",
            "liner_mark",
        )
    keep_lessons(conn, facts)
    present = facts.present_fitting(hole_id)
    rows = tuple(_shim_row(facts, fitting_id, place, shim) for place, shim in enumerate(shims))
    _ask_for_thickness(facts, shims)
    facts = _log_ready(conn, facts, hole, made_ready, by)
    pass_or_refuse(conn, facts, Operation.FIT, hole, by, made_ready.hold_reason)
    record_fact(conn, NewFitting(fitting_id, hole_id, liner.liner_id), by)
    for row in rows:
        record_fact(conn, row)
    use_shims(conn, facts, fitting_id, [row.nominal_um for row in rows], by)
    if present is not None:
        record_fact(conn, NewOut(present.fitting_id, because_fitting_id=fitting_id), by)
    if elsewhere is not None and elsewhere.hole_id != hole_id:
        _fill_the_other(conn, facts, elsewhere, present, by)


def _log_ready(conn: Conn, facts: JobFacts, hole: Hole, ready: MadeReady, by: UUID) -> JobFacts:
    """Write down that a hole was made ready where everything that has to be looked at was ticked."""
    if not all(tick in ready.ticked for tick in ReadyTick):
        return facts
    words = ", ".join(tick.value for tick in ReadyTick)
    new = NewOperationMark(facts.job.job_id, Operation.FIT_PREP, hole.hole_id, MarkKind.DONE, datetime.now(UTC), words)
    record_fact(conn, new, by)
    return read_job_facts(conn, facts.job.job_id)


def _fill_the_other(conn: Conn, facts: JobFacts, other: Hole, moved: Fitting | None, by: UUID) -> None:
    """The liner that came out goes where the other came from, on the shims that lie there; without one it is empty."""
    leaving = facts.present_fitting(other.hole_id)
    assert leaving is not None
    if moved is None:
        record_fact(conn, NewOut(leaving.fitting_id), by)
        return
    new_id = uuid4()
    record_fact(conn, NewFitting(new_id, other.hole_id, moved.liner_id), by)
    for shim in facts.shims_of(leaving.fitting_id):
        record_fact(conn, NewShim(**asdict(shim) | {"fitting_id": new_id}))
    record_fact(conn, NewOut(leaving.fitting_id, because_fitting_id=new_id), by)


def draw_liner(conn: Conn, hole_id: UUID, by: UUID) -> None:
    """Record that a liner was drawn: its hole is open, and it can go elsewhere."""
    jobs.lock_job(conn, jobs.job_of_hole(conn, hole_id))
    facts, hole = _facts_of_hole(conn, hole_id)
    present = facts.present_fitting(hole_id)
    if present is None:
        raise Refused(f"No liner is in hole {hole.number}.", "hole_id")
    record_fact(conn, NewOut(present.fitting_id), by)


def fit_as_found(conn: Conn, job_id: UUID, by: UUID) -> tuple[int, ...]:
    """Write down that liners stand in the holes as they came in: one each, marked with the number of its hole.

    Holes of which anything is known already, a fitting or a cut, are left alone. Returns the holes that were filled.
    """
    facts = lock_job_facts(conn, job_id)
    holes = [hole for hole in facts.holes if facts.is_as_found(hole.hole_id)]
    if not holes:
        raise Refused("Every hole has a liner already, or was cut: record the fitting there.", "job_id")
    for hole in holes:
        put_in_as_found(conn, facts, hole, by, str(hole.number))
    return tuple(hole.number for hole in holes)


def put_in_as_found(conn: Conn, facts: JobFacts, hole: Hole, by: UUID, mark: str) -> None:
    """Fit a liner of which nobody knows more than where it stands; a mark in use already is left to its liner."""
    unknown = f"as found {hole.number}"
    by_mark = {liner.mark.casefold(): liner for liner in facts.liners}
    if mark.casefold() in by_mark:
        mark = unknown
    known = by_mark.get(mark.casefold())
    if known is not None and facts.hole_of_liner(known.liner_id) is not None:
        raise Refused(f"{known.mark} is in another hole already: record the fitting of hole {hole.number}.", "hole")
    liner = known or NewLiner(facts.job.job_id, mark)
    if isinstance(liner, NewLiner):
        record_fact(conn, liner)
    record_fact(conn, NewFitting(uuid4(), hole.hole_id, liner.liner_id), by)


def _ask_for_thickness(facts: JobFacts, shims: tuple[ShimFitted, ...]) -> None:
    """A shim is measured before it goes under a liner, unless its lot was, or it is said to go unmeasured."""
    for place, shim in enumerate(shims):
        row = _shim_row(facts, uuid4(), place, shim)
        if row.measured_um is None and not shim.confirmed:
            raise Refused(
                f"Measure the {shim.nominal} shim, and see which side is up: by its nominal size alone it is good to "
                f"{both_small(micrometres(UNMEASURED_SHIM_M))}.",
                f"shims.{place}.measured", RefusalCode.ASKS, (Suggestion("Fit it unmeasured", "", confirm=True),),
            )  # fmt: skip


def _shim_row(facts: JobFacts, fitting_id: UUID, place: int, shim: ShimFitted) -> NewShim:
    def read(name: str, text: str) -> ParsedLength:
        return read_usual(f"shims.{place}.{name}", text, shim.bare_unit, SHIM, shim.confirmed)

    nominal = read("nominal", shim.nominal)
    measured = read("measured", shim.measured) if shim.measured.strip() else None
    if not 0 < nominal.value_um <= 10_000:
        raise Refused("A shim is between 0 and 10 mm (0.4 in) thick: type its thickness.", f"shims.{place}.nominal")
    if measured is not None and abs(measured.value_um - nominal.value_um) > nominal.value_um / 4:
        raise Refused(
            f"Measured {measured.typed} is far from nominal {nominal.typed}: is it the right shim, the right unit?",
            f"shims.{place}.measured",
        )
    measured_um = None if measured is None else measured.value_um
    lot = lot_to_use(facts, nominal.value_um)
    if measured_um is None and lot is not None:
        measured_um = lot.measured_um
    return NewShim(fitting_id, place, nominal.value_um, measured_um, nominal.typed, shim.side_up)
