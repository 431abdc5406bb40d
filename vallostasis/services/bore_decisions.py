"""Deciding what each bore is given, and looking at it after it was cut."""

from dataclasses import dataclass
from decimal import Decimal
from uuid import UUID

from vallostasis.core.bores.decisions import contradictions, decision_of, profile_of, step_of
from vallostasis.core.bores.ladder import ladder_of_hole
from vallostasis.core.bores.wall import part_of_bore
from vallostasis.core.notation.lengths import Unit
from vallostasis.core.notation.typed_lengths import ExpectedRange
from vallostasis.core.records.bore_decisions import BoreChoice, LookOutcome, UseProfile
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole
from vallostasis.core.surveys.loads import running_bore
from vallostasis.core.surveys.survey import survey_of
from vallostasis.core.uncertainty.decision import State
from vallostasis.services.lengths import read_usual
from vallostasis.services.reading_target import known_hole
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.store.fact_rows import record_fact
from vallostasis.store.job_facts import lock_job_facts
from vallostasis.store.new_bore_facts import NewBoreDecision, NewBoreLook
from vallostasis.store.rows import Conn

# A centre is moved by less than this. [µm]
MOVES = ExpectedRange(Decimal(0), Decimal(2_000))
WITHIN_A_BORE = ExpectedRange(Decimal(0), Decimal(1_500_000))


@dataclass(frozen=True, slots=True)
class Decided:
    """What somebody decided for one hole, as it was typed."""

    decision_id: UUID
    hole: int
    choice: BoreChoice
    oversize_um: Decimal | None
    move: str
    toward_hour: float | None
    reason: str
    concession: str
    profile: UseProfile
    use_limit: str
    bare_unit: Unit = "mm"
    confirmed: bool = False


@dataclass(frozen=True, slots=True)
class Looked:
    """What was seen of a bore after it was cut, as it was typed."""

    look_id: UUID
    hole: int
    outcome: LookOutcome
    words: str
    hour: float | None
    from_depth: str
    bare_unit: Unit = "mm"
    confirmed: bool = False


def decide_bore(conn: Conn, job_id: UUID, ask: Decided, by: UUID) -> None:
    """Write down what a bore is given, by name; sending it again never doubles it."""
    facts = lock_job_facts(conn, job_id)
    if any(one.decision_id == ask.decision_id for one in facts.bore_decisions):
        return
    hole = known_hole(facts, ask.hole)
    if not ask.reason.strip():
        raise Refused("Say why: it stands under your name.", "reason")
    oversize = _step(facts, hole, ask)
    _bearable(facts, hole, ask)
    move = None
    if ask.move.strip():
        move = read_usual("move", ask.move, ask.bare_unit, MOVES, ask.confirmed).value_um
        most = facts.card.bores.centre_move.length
        if most is not None and move > most.um:
            raise Refused(f"The card lets a centre move by {most.typed} at the most: move it less.", "move")
        if move > 0 and ask.toward_hour is None:
            raise Refused("Say towards which clock position it is moved.", "toward_hour")
    record_fact(conn, NewBoreDecision(ask.decision_id, job_id, hole.hole_id, ask.choice, oversize, move,
                                      ask.toward_hour if move else None, ask.reason.strip(), ask.concession.strip(),
                                      ask.profile, ask.use_limit.strip()), by)  # fmt: skip


def _step(facts: JobFacts, hole: Hole, ask: Decided) -> Decimal | None:
    """The step that is bored to; one that leaves wear, or too little wall, is refused with what it leaves."""
    if ask.choice is not BoreChoice.OVERSIZE:
        return None
    step = step_of(facts, ask.oversize_um)
    if step is None:
        known = ", ".join(one.oversize.typed for one in facts.card.bores.ladder) or "none yet"
        raise Refused(f"The card's ladder has no such step: it has {known}.", "oversize_um")
    rung = next((one for one in ladder_of_hole(facts, hole).rungs if one.step == step), None)
    if rung is not None and rung.state is State.OUT and not ask.concession.strip():
        raise Refused(f"+{step.oversize.typed} leaves wear or too little wall in bore {hole.number}: take the next "
                      "step, or say what is accepted below book.", "oversize_um")  # fmt: skip
    return step.oversize.um


def _bearable(facts: JobFacts, hole: Hole, ask: Decided) -> None:
    """A bore that is out is left only with a concession, and only where the use bears one."""
    profile = profile_of(ask.profile)
    if ask.concession.strip() and not profile.bears:
        raise Refused(f"{ask.profile.value.capitalize()} bears no concession: {profile.words}.", "profile")
    if ask.concession.strip() and not ask.use_limit.strip():
        raise Refused("Say what the engine must not be asked for with that: speed, load, hours.", "use_limit")
    if ask.choice is not BoreChoice.LEAVE or ask.concession.strip():
        return
    quantity = running_bore(facts.card)
    survey = survey_of(facts, quantity, part_of_bore(facts, hole, quantity))
    if survey.state is State.OUT:
        raise Refused(f"Bore {hole.number} is out: {survey.reason}. To leave it, say what is accepted below book.",
                      "concession")  # fmt: skip


def look_at_bore(conn: Conn, job_id: UUID, ask: Looked, by: UUID) -> None:
    """Write down what was seen of a bore after it was cut to its step; sending it again never doubles it."""
    facts = lock_job_facts(conn, job_id)
    if any(one.look_id == ask.look_id for one in facts.bore_looks):
        return
    hole = known_hole(facts, ask.hole)
    decided = decision_of(facts, hole)
    if decided is None or decided.oversize_um is None:
        raise Refused(f"Bore {hole.number} was not decided to be bored to a step: decide that first.", "hole")
    if any(one.hole == hole.number for one in contradictions(facts)):
        raise Refused(f"Bore {hole.number} did not clean up at this step: agree it anew first.", "hole",
                      RefusalCode.STALE)  # fmt: skip
    from_um = None
    if ask.outcome is LookOutcome.DARK:
        if ask.hour is None:
            raise Refused("Say at which clock position the patch is left.", "hour")
        if ask.from_depth.strip():
            unit: Unit = "mm" if ask.bare_unit in ("mm", "µm") else "inch"
            from_um = read_usual("from_depth", ask.from_depth, unit, WITHIN_A_BORE, ask.confirmed).value_um
    record_fact(conn, NewBoreLook(ask.look_id, job_id, hole.hole_id, decided.oversize_um, ask.outcome,
                                  ask.words.strip(), ask.hour, from_um), by)  # fmt: skip
