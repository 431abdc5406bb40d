"""Pulling a liner in: begun, every turn and feel on record, home as a fitting; or stopped, and what then."""

from dataclasses import dataclass
from datetime import UTC, datetime
from decimal import Decimal, InvalidOperation
from uuid import UUID, uuid4

from vallostasis.core.fits.going_in import liner_length_m
from vallostasis.core.fits.pull import CONTACT_UM, PullNow, PullState, pull_at_work, pull_now
from vallostasis.core.notation.lengths import Unit, both_size, micrometres
from vallostasis.core.notation.typed_lengths import ExpectedRange
from vallostasis.core.records.fit_terms import StopRule
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.pulls import AFTER, AGAINST, Pull, PullMarkKind, Slides, ToolKind
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.records.rows import Hole
from vallostasis.services.fitting import ALL_READY, record_fitting
from vallostasis.services.lengths import read_usual
from vallostasis.services.reading_target import known_hole, known_liner
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.services.route import pass_or_refuse
from vallostasis.store import press_tools
from vallostasis.store.fact_rows import record_fact
from vallostasis.store.job_facts import load_job_facts, lock_job_facts
from vallostasis.store.new_facts import NewStrike
from vallostasis.store.new_fit_facts import NewPull, NewPullMark, moment_of
from vallostasis.store.rows import Conn

# How far a flange may stand from its ledge. [µm]
DEPTH = ExpectedRange(Decimal(0), Decimal(1_500_000))
TURN = ExpectedRange(Decimal(200), Decimal(20_000))
MOST_KN = Decimal(5000)


@dataclass(frozen=True, slots=True)
class PullBegun:
    """A pull that somebody begins, as it was typed."""

    pull_id: UUID
    hole: int
    liner_mark: str
    tool: str
    slides: Slides
    stop: StopRule
    cranks: str = ""
    watches: str = ""
    from_depth: str = ""
    bare_unit: Unit = "mm"
    hold_reason: str = ""


@dataclass(frozen=True, slots=True)
class PullNoted:
    """Something said of a pull: a depth and a force as typed where they were read."""

    pull_mark_id: UUID
    kind: PullMarkKind
    depth: str = ""
    force_kn: str = ""
    words: str = ""
    bare_unit: Unit = "mm"
    confirmed: bool = False
    taken_at: datetime | None = None
    turn: int | None = None


def pull_facts(conn: Conn, job_id: UUID, number: int) -> tuple[JobFacts, Hole]:
    """Return the facts of a job and one of its holes."""
    facts = load_job_facts(conn, job_id)
    return facts, known_hole(facts, number)


def begin_pull(conn: Conn, job_id: UUID, ask: PullBegun, by: UUID) -> None:
    """Begin a pull: one at a time in a hole, with its hold points before it; sending it again never doubles it."""
    facts = lock_job_facts(conn, job_id)
    if any(one.pull_id == ask.pull_id for one in facts.pulls):
        return
    hole = known_hole(facts, ask.hole)
    liner = known_liner(facts, ask.liner_mark)
    under_way = pull_at_work(facts, hole)
    if under_way is not None:
        raise Refused(f"A pull is under way in hole {hole.number}: go on with it, or say how it ended.", "hole",
                      RefusalCode.STALE)  # fmt: skip
    if facts.present_fitting(hole.hole_id) is not None:
        raise Refused(f"A liner is in hole {hole.number} already: draw it first.", "hole", RefusalCode.STALE)
    elsewhere = facts.hole_of_liner(liner.liner_id)
    if elsewhere is not None:
        raise Refused(f"{liner.mark} is in hole {elsewhere.number}: draw it there first.", "liner_mark")
    from_um = _begins_at(facts, ask)
    tool = next((one for one in press_tools.list_press_tools(conn) if one.name == ask.tool.strip()), None)
    if tool is None:
        raise Refused("Say which puller or press it is done with: the shop lists them.", "tool")
    pass_or_refuse(conn, facts, Operation.FIT, hole, by, ask.hold_reason)
    record_fact(conn, NewPull(job_id, ask.pull_id, hole.hole_id, liner.liner_id, tool.name, tool.capacity_kn,
                              tool.turn_um, from_um, ask.slides, ask.stop, ask.cranks.strip(), ask.watches.strip()),
                by)  # fmt: skip


def _begins_at(facts: JobFacts, ask: PullBegun) -> Decimal:
    """How far the flange stands from its ledge: as typed, else the whole length of the liner. [µm]"""
    if ask.from_depth.strip():
        from_um = read_usual("from_depth", ask.from_depth, ask.bare_unit, DEPTH, confirmed=True).value_um
        if not 0 < from_um <= DEPTH.greatest_um:
            raise Refused("The flange stands above its ledge by more than nought: type how far.", "from_depth")
        return from_um
    length = liner_length_m(facts.card)
    if not length:
        raise Refused("Type how far the flange stands from its ledge: the card has no length of the liner.",
                      "from_depth")  # fmt: skip
    return micrometres(length)


def _pull(facts: JobFacts, pull_id: UUID) -> Pull:
    found = next((one for one in facts.standing(facts.pulls) if one.pull_id == pull_id), None)
    if found is None:
        raise Refused("There is no such pull in this job.", "pull_id")
    return found


def note_on_pull(conn: Conn, job_id: UUID, pull_id: UUID, noted: PullNoted, by: UUID) -> None:
    """Write down what was looked at, measured or felt on a pull; sending it again never doubles it."""
    facts = lock_job_facts(conn, job_id)
    if any(one.pull_mark_id == noted.pull_mark_id for one in facts.pull_marks):
        return
    now = pull_now(facts, _pull(facts, pull_id))
    is_after = now.state is PullState.HOME and noted.kind in AFTER
    if not now.goes_on and not is_after:
        raise Refused("This pull is over.", "kind", RefusalCode.STALE)
    if noted.kind in AFTER and not is_after:
        raise Refused("That is looked at once the liner is home.", "kind")
    if noted.kind is PullMarkKind.HOME:
        raise Refused("A pull ends at home as a fitting: say that it is home.", "kind")
    _in_its_order(now, noted)
    to_go_um, typed = _depth(now, noted)
    if noted.kind is PullMarkKind.TURN:
        if not now.pull.turn_um:
            raise Refused("Nobody wrote down what a turn of this tool takes in: type the depth instead.", "kind")
        if noted.turn is not None and noted.turn != now.turns + 1:
            raise Refused(f"Not counted: turn {now.turns + 1} is the next one, and not {noted.turn}.", "turn",
                          RefusalCode.STALE)  # fmt: skip
        to_go_um = max(Decimal(0), now.to_go_um - now.pull.turn_um)
        typed = ""
    if noted.kind is PullMarkKind.TOUCHES:
        to_go_um = now.to_go_um if to_go_um is None else to_go_um
    at = noted.taken_at or datetime.now(UTC)
    record_fact(conn, NewPullMark(job_id, noted.pull_mark_id, pull_id, noted.kind, to_go_um, _force(noted), typed,
                                  noted.words.strip(), at), by)  # fmt: skip


def _in_its_order(now: PullNow, noted: PullNoted) -> None:
    """First what is looked at, then turns; nothing is turned on once it touches."""
    turning = noted.kind in (PullMarkKind.TURN, PullMarkKind.DEPTH, PullMarkKind.TOUCHES)
    if now.unchecked and turning:
        raise Refused(f"Look first: {now.unchecked[0].value}.", "kind")
    if now.state is PullState.TOUCHED and noted.kind is PullMarkKind.TURN:
        raise Refused("It touches: stop. Never press a flange into its ledge.", "kind", RefusalCode.STALE)
    if now.state is PullState.STOPPED and noted.kind is PullMarkKind.TURN:
        raise Refused("It was stopped half-way: say first that it goes on, and what was done.", "kind",
                      RefusalCode.STALE)  # fmt: skip
    needs_words = (PullMarkKind.STOPPED, PullMarkKind.FREED, PullMarkKind.DRAWN, *AGAINST)
    if noted.kind in needs_words and not noted.words.strip():
        raise Refused("Say what happened, or what was done: the next one reads it.", "words")
    if noted.kind is PullMarkKind.HELD and now.state is not PullState.TOUCHED:
        raise Refused("It is held under load once it touches.", "kind")


def _depth(now: PullNow, noted: PullNoted) -> tuple[Decimal | None, str]:
    """How far the flange is from its ledge as typed, and its text; a rise is asked about."""
    if not noted.depth.strip():
        if noted.kind is PullMarkKind.DEPTH:
            raise Refused("Type how far the flange is from its ledge.", "depth")
        return None, ""
    read = read_usual("depth", noted.depth, noted.bare_unit, DEPTH, noted.confirmed)
    if read.value_um < 0:
        raise Refused("A flange cannot stand below its ledge: type how far it still has to go.", "depth")
    if read.value_um > now.to_go_um + CONTACT_UM and not noted.confirmed:
        raise Refused(f"That is farther out than it was, {both_size(now.to_go_um)}: is it a slip, or did it come back?",
                      "depth", RefusalCode.ASKS)  # fmt: skip
    return read.value_um, f"{read.number} {read.unit}"


def _force(noted: PullNoted) -> Decimal | None:
    text = noted.force_kn.strip().replace(",", ".")
    if not text:
        return None
    try:
        force = Decimal(text)
    except InvalidOperation:
        force = Decimal(-1)
    if not force.is_finite() or not 0 <= force <= MOST_KN:
        raise Refused(f"Type the force in kN, from 0 to {MOST_KN}, such as 2.4.", "force_kn")
    return force


def undo_pull_mark(conn: Conn, job_id: UUID, pull_id: UUID, pull_mark_id: UUID, by: UUID) -> None:
    """Strike the last thing noted on a pull, which is named."""
    facts = lock_job_facts(conn, job_id)
    now = pull_now(facts, _pull(facts, pull_id))
    over = not now.goes_on and not (now.marks and now.marks[-1].kind in AFTER)
    if over or not now.marks or now.marks[-1].pull_mark_id != pull_mark_id:
        raise Refused("That is not the last thing noted of this pull.", "pull_mark_id", RefusalCode.STALE)
    last = now.marks[-1]
    record_fact(conn, NewStrike(job_id, True, f"{last.kind.value} was not so", of_event=last.event), by)


def bring_home(conn: Conn, job_id: UUID, pull_id: UUID, by: UUID) -> None:
    """End a pull at home: it is a fitting, its protrusion and its bore are to be read."""
    facts = lock_job_facts(conn, job_id)
    pull = _pull(facts, pull_id)
    now = pull_now(facts, pull)
    if not now.goes_on:
        return
    if now.state is not PullState.TOUCHED:
        raise Refused("It is home once the flange touches: say that it touches.", "pull_id")
    held = any(one.kind is PullMarkKind.HELD for one in now.marks)
    if pull.stop is StopRule.DWELL and not held:
        raise Refused("This job holds a liner under load when it is home: say that it was held.", "pull_id")
    hole = next(one for one in facts.holes if one.hole_id == pull.hole_id)
    record_fitting(conn, hole.hole_id, uuid4(), facts.liner(pull.liner_id).mark, (), by, made_ready=ALL_READY)
    # At the time of the fitting, so that Undo takes both as the one step that they are.
    record_fact(conn, NewPullMark(job_id, uuid4(), pull_id, PullMarkKind.HOME, Decimal(0), None, "", "",
                                  moment_of(conn)), by)  # fmt: skip


@dataclass(frozen=True, slots=True)
class ToolTyped:
    """A puller or press as it was typed."""

    name: str
    kind: ToolKind
    capacity_kn: float
    turn: str = ""
    force_shown: bool = False
    note: str = ""


def save_press_tool(conn: Conn, typed: ToolTyped, by: UUID) -> None:
    """Save a puller or press of the shop; under a name that is known it takes the place of the one before."""
    if not typed.name.strip():
        raise Refused("Give the puller or press a name.", "name")
    turn_um = None
    if typed.turn.strip():
        turn_um = read_usual("turn", typed.turn, "mm", TURN, confirmed=True).value_um
        if turn_um <= 0:
            raise Refused("A turn takes the liner in by more than nought.", "turn")
    press_tools.add_press_tool(conn, typed.name.strip(), typed.kind, Decimal(str(typed.capacity_kn)), turn_um,
                               typed.force_shown, typed.note.strip(), by)  # fmt: skip
