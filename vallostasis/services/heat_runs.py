"""A drop, live: begun, every moment and feel on record, thermometers read while it runs; home as a fitting."""

from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from decimal import Decimal
from uuid import UUID, uuid4

from vallostasis.core.fits.fit import Fit, fit_of
from vallostasis.core.heat.after import Heights, HoldDown, heights_of, hold_down
from vallostasis.core.heat.felt import Felt, felt_of
from vallostasis.core.heat.live import LiveWindow, live_window
from vallostasis.core.heat.next_liner import NextLiner, next_liners
from vallostasis.core.heat.plan import Tried, heat_plan
from vallostasis.core.heat.planner import HELD_K, Drops, HeatFit, heat_fit
from vallostasis.core.heat.run import DropNow, DropState, DropStep, drop_at_work, drop_now, drops_of, run_sheet
from vallostasis.core.heat.transient import liner_constant_s
from vallostasis.core.notation.lengths import Unit
from vallostasis.core.notation.typed_lengths import ExpectedRange
from vallostasis.core.records.heat_runs import FELT, HEIGHTS, READY, TEMPERATURES, HeatMarkKind
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.records.rows import Hole
from vallostasis.core.trail import Phrase
from vallostasis.devices.link_board import LinkBoard
from vallostasis.services.fits import lined
from vallostasis.services.fitting import ALL_READY, record_fitting
from vallostasis.services.lengths import read_usual
from vallostasis.services.reading_target import known_hole, known_liner
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.services.route import pass_or_refuse
from vallostasis.services.temperatures import read_temperature
from vallostasis.services.thermometers import TalkingThermometer, list_thermometers
from vallostasis.store.fact_rows import record_fact
from vallostasis.store.job_facts import load_job_facts, lock_job_facts
from vallostasis.store.new_fit_facts import moment_of
from vallostasis.store.new_heat_facts import NewHeatMark, NewHeatRun
from vallostasis.store.rows import Conn

_K = HeatMarkKind
# How far from its seat's height a liner may stand over the deck. [µm]
HEIGHT = ExpectedRange(Decimal(-1_000), Decimal(3_000))
# What a thermometer clipped to each says, and how often that is written down: while a clock runs, and else. [s]
LIES_ON = {"liner": _K.LINER_READ, "block": _K.BLOCK_READ, "room": _K.ROOM_READ}
RUNNING_EVERY_S, RESTING_EVERY_S = 4.0, 60.0
# A value older than this is not what it says now. [s]
STALE_S = 5.0
# Nearer than this is the same moment, and so long may a mark wait for the link. [s]
SAME_MOMENT_S, WAITED = 3.0, timedelta(hours=6)


@dataclass(frozen=True, slots=True)
class DropBegun:
    """A drop that somebody begins, with what was tried for it."""

    heat_run_id: UUID
    hole: int
    liner_mark: str
    tried: Tried
    greased: bool
    drops: str
    calls: str
    hold_reason: str = ""


@dataclass(frozen=True, slots=True)
class DropNoted:
    """Something said of a drop: a temperature or a height as typed where one was read."""

    heat_mark_id: UUID
    kind: HeatMarkKind
    celsius: str = ""
    height: str = ""
    words: str = ""
    bare_unit: Unit = "mm"
    confirmed: bool = False
    at: datetime | None = None


@dataclass(frozen=True, slots=True)
class DropPage:
    """Everything that the screen of a drop shows; what is worked out is None where no fit is known."""

    facts: JobFacts
    hole: Hole
    now: DropNow | None
    fit: HeatFit | None
    live: LiveWindow | None
    now_s: float
    at: datetime
    sheet: tuple[DropStep, ...]
    felt: Felt | None
    hold: HoldDown | None
    heights: Heights | None
    others: tuple[NextLiner, ...]


def drop_page(conn: Conn, job_id: UUID, number: int) -> DropPage:
    """Return the newest drop of a hole as it stands, worked out anew."""
    facts = lined(load_job_facts(conn, job_id))
    hole = known_hole(facts, number)
    known = drops_of(facts, hole)
    now = known[-1] if known and known[-1].state is not DropState.BACK else None
    return _page(facts, hole, now, _clock(conn))


def _clock(conn: Conn) -> datetime:
    """The time of the database, by which marks are made: the same clock for every bench."""
    row = conn.execute("SELECT clock_timestamp()").fetchone()
    assert row is not None
    at: datetime = row[0]
    return at


def _page(facts: JobFacts, hole: Hole, now: DropNow | None, at: datetime) -> DropPage:
    fit = None if now is None else _heat_fit(facts, hole, now)
    if now is None or not isinstance(fit, HeatFit):
        return DropPage(facts, hole, now, None, None, 0.0, at, (), None, None, None, ())
    now_s = now.seconds(at)
    live = live_window(fit, now, now_s)
    is_home = now.home is not None
    return DropPage(
        facts, hole, now, fit, live, now_s, at, run_sheet(now, now_s), felt_of(now, live),
        hold_down(fit, now, live, now_s) if is_home else None, heights_of(facts, now, live.air_c) if is_home else None,
        next_liners(facts, now, live, now_s),
    )  # fmt: skip


def _heat_fit(facts: JobFacts, hole: Hole, now: DropNow) -> HeatFit | Phrase:
    """The fit of the liner that drops, as it was read cold: what is read of it since, hot, says nothing of it."""
    fit = fit_of(facts, hole, facts.liner(now.run.liner_id).mark)
    return heat_fit(facts, fit) if isinstance(fit, Fit) else fit.reason


def begin_drop(conn: Conn, board: LinkBoard | None, job_id: UUID, ask: DropBegun, by: UUID) -> None:
    """Begin a drop: its liner marked for its hole before anything is hot; sending it again never doubles it."""
    facts = lined(lock_job_facts(conn, job_id))
    if any(one.heat_run_id == ask.heat_run_id for one in facts.heat_runs):
        return
    hole, liner = known_hole(facts, ask.hole), known_liner(facts, ask.liner_mark)
    if any(one.goes_on for one in drops_of(facts, hole)):
        raise Refused(f"A drop is under way in hole {hole.number}: go on with it, or take it back out.", "hole",
                      RefusalCode.STALE)  # fmt: skip
    if facts.present_fitting(hole.hole_id) is not None:
        raise Refused(f"A liner is in hole {hole.number} already: draw it first.", "hole", RefusalCode.STALE)
    elsewhere = facts.hole_of_liner(liner.liner_id)
    if elsewhere is not None:
        raise Refused(f"{liner.mark} is in hole {elsewhere.number}: draw it there first.", "liner_mark")
    marked = next((one for one in facts.holes for drop in drops_of(facts, one)
                   if drop.goes_on and drop.run.liner_id == liner.liner_id), None)  # fmt: skip
    if marked is not None:
        raise Refused(f"{liner.mark} is marked for hole {marked.number}, where its drop is under way.", "liner_mark")
    fit = fit_of(facts, hole, liner.mark)
    plan = heat_plan(facts, fit, ask.tried) if isinstance(fit, Fit) else fit.reason
    if isinstance(plan, Phrase):
        raise Refused(plan.text, "liner_mark")
    if plan.at_start is Drops.GRABS:
        raise Refused("The worst pair touches as it leaves the cold: choose a hotter block or a colder liner first.",
                      "block_c")  # fmt: skip
    pass_or_refuse(conn, facts, Operation.FIT, hole, by, ask.hold_reason)
    tried = ask.tried
    record_fact(conn, NewHeatRun(
        job_id, ask.heat_run_id, hole.hole_id, liner.liner_id, _exact(tried.block_c), _exact(tried.liner_c),
        _exact(tried.air_c), _exact(tried.humidity), _exact(tried.wanted_m * 1e6), _exact(tried.enter_s),
        _exact(tried.home_s), _exact(tried.block_kg), ask.greased, ask.drops.strip(), ask.calls.strip(),
    ), by)  # fmt: skip
    _tell_simulated(conn, board, {"block": f"rests {tried.block_c}", "liner": f"rests {tried.liner_c}"})


def _exact(value: float) -> Decimal:
    return Decimal(repr(round(value, 6)))


def _tell_simulated(conn: Conn, board: LinkBoard | None, lines: dict[str, str]) -> None:
    """Tell simulated thermometers where they are; real ones feel it."""
    for one in [] if board is None else list_thermometers(conn, board):
        if one.row.simulated and one.row.lies_on in lines and board is not None:
            board.place_tip(one.row.thermometer_id, lines[one.row.lies_on])


def _known(facts: JobFacts, heat_run_id: UUID) -> DropNow:
    found = next((one for one in facts.standing(facts.heat_runs) if one.heat_run_id == heat_run_id), None)
    if found is None:
        raise Refused("There is no such drop in this job.", "heat_run_id")
    return drop_now(facts, found)


def note_on_drop(
    conn: Conn, board: LinkBoard | None, job_id: UUID, heat_run_id: UUID, noted: DropNoted, by: UUID
) -> None:
    """Write down a moment, a feel, a temperature or a height of a drop; sending it again never doubles it."""
    facts = lock_job_facts(conn, job_id)
    if any(one.heat_mark_id == noted.heat_mark_id for one in facts.heat_marks):
        return
    now, at = _known(facts, heat_run_id), _moment(conn, noted.at)
    _in_its_order(facts, now, noted, at)
    celsius = read_temperature(noted.celsius, "celsius") if noted.kind in TEMPERATURES else None
    height_um, typed = _height(noted)
    # Words of a temperature name the thermometer that talks.
    words = "" if noted.kind in TEMPERATURES else noted.words.strip()
    if noted.kind in FELT:
        hole = next(one for one in facts.holes if one.hole_id == now.run.hole_id)
        # Hold points were passed as it began: what is home is home.
        ready = replace(ALL_READY, hold_reason="it is home: its drop had begun")
        record_fitting(conn, hole.hole_id, uuid4(), facts.liner(now.run.liner_id).mark, (), by, made_ready=ready)
        if abs((moment_of(conn) - at).total_seconds()) < SAME_MOMENT_S:
            # At the time of the fitting, so that Undo takes both as the one step that they are.
            at = moment_of(conn)
    record_fact(conn, NewHeatMark(job_id, noted.heat_mark_id, heat_run_id, noted.kind, celsius, height_um,
                                  typed or noted.celsius.strip(), words, at), by)  # fmt: skip
    if noted.kind is _K.OUT:
        fit = _heat_fit(facts, next(one for one in facts.holes if one.hole_id == now.run.hole_id), now)
        if isinstance(fit, HeatFit):
            planned = live_window(fit, now, 0.0).planned
            constant = liner_constant_s(fit.sizes, planned.film)
            _tell_simulated(conn, board, {"block": f"leaves {now.run.block_c} over {planned.block_s:.1f}",
                                          "liner": f"leaves {now.run.liner_c} over {constant:.1f}"})  # fmt: skip


def _moment(conn: Conn, at: datetime | None) -> datetime:
    """When something was, as the bench says by this clock; what waited for the link keeps its own time."""
    now = _clock(conn)
    if at is None:
        return now
    if not now - WAITED <= at <= now + timedelta(seconds=SAME_MOMENT_S):
        raise Refused("That is not a moment of this run: load the page again, its clock is off.", "at",
                      RefusalCode.STALE)  # fmt: skip
    return min(at, now)


def _in_its_order(facts: JobFacts, now: DropNow, noted: DropNoted, at: datetime) -> None:
    """First what is looked at, then the steps on the clock, then how it felt; heights once it is home."""
    kind, state = noted.kind, now.state
    may_be_noted = {
        **dict.fromkeys(READY, (DropState.FIRST, DropState.SET)),
        _K.OUT: (DropState.SET,),
        **dict.fromkeys(now.steps, (DropState.OUT,)),
        **dict.fromkeys((*FELT, _K.STUCK), (DropState.IN,)),
        _K.FREED: (DropState.STUCK,),
        _K.BACK: (DropState.FIRST, DropState.SET, DropState.OUT, DropState.IN, DropState.STUCK),
        _K.CLAMPED: (DropState.HOME, DropState.LOOSE),
        _K.RELEASED: (DropState.HOME, DropState.HELD),
        **dict.fromkeys(HEIGHTS, (DropState.HOME, DropState.HELD, DropState.LOOSE)),
        **dict.fromkeys(TEMPERATURES, tuple(one for one in DropState if one is not DropState.BACK)),
    }  # fmt: skip
    if state not in may_be_noted.get(kind, ()):
        if kind is _K.OUT and now.unchecked:
            raise Refused(f"Look first: {now.unchecked[0].value}.", "kind")
        raise Refused(f"Not now: this drop is {state.value}.", "kind", RefusalCode.STALE)
    once_only = (*READY, *now.steps)
    if kind in once_only and now.last(kind) is not None:
        raise Refused(f"It is noted already: {kind.value}.", "kind", RefusalCode.STALE)
    other = drop_at_work(facts)
    if kind is _K.OUT and other is not None:
        hole = next(one for one in facts.holes if one.hole_id == other.run.hole_id)
        raise Refused(f"The liner for hole {hole.number} is on its way: one clock at a time.", "kind")
    if kind in (_K.STUCK, _K.FREED, _K.BACK) and not noted.words.strip():
        raise Refused("Say what happened, or what was done: the next one reads it.", "words")
    _not_while_warm(facts, now, noted, at)


def _not_while_warm(facts: JobFacts, now: DropNow, noted: DropNoted, at: datetime) -> None:
    """Nothing is let go, and no height is called cold, before block and room are within 5 K."""
    if noted.kind not in (_K.RELEASED, _K.HEIGHT_COLD, _K.HEIGHT_AGAIN) or noted.words.strip():
        return
    hole = next(one for one in facts.holes if one.hole_id == now.run.hole_id)
    page = _page(facts, hole, now, at)
    if page.hold is None or page.hold.is_cold:
        return
    left_min = max(1, round((page.hold.until_s - page.now_s) / 60))
    what = "Held down it stays" if noted.kind is _K.RELEASED else "A height read now is not that of a cold block"
    raise Refused(
        f"{what}: the block is at about {page.hold.block_c:.0f} °C, within {HELD_K:.0f} K of the room in "
        f"about {left_min} min. Read the block if it is colder, or say why all the same.", "words",
    )  # fmt: skip


def _height(noted: DropNoted) -> tuple[Decimal | None, str]:
    if noted.kind not in HEIGHTS:
        return None, ""
    if not noted.height.strip():
        raise Refused("Type the height over the deck, read at one place each time.", "height")
    read = read_usual("height", noted.height, noted.bare_unit, HEIGHT, noted.confirmed)
    return read.value_um, f"{read.number} {read.unit}"


def take_temperatures(conn: Conn, board: LinkBoard, job_id: UUID, heat_run_id: UUID, by: UUID) -> int:
    """Write down what the thermometers say now, each no more often than is needed; return how many were taken."""
    talking, at = list_thermometers(conn, board), _clock(conn)
    # Nobody is told of a change where there is none.
    if not _fresh(load_job_facts(conn, job_id), heat_run_id, talking, at):
        return 0
    fresh = _fresh(lock_job_facts(conn, job_id), heat_run_id, talking, at)
    for one in fresh:
        warmth = one.now.warmth
        assert warmth is not None
        record_fact(conn, NewHeatMark(job_id, uuid4(), heat_run_id, LIES_ON[one.row.lies_on], warmth.celsius, None,
                                      warmth.text, one.row.name, at), by)  # fmt: skip
    return len(fresh)


def _fresh(facts: JobFacts, heat_run_id: UUID, talking: list[TalkingThermometer],
           at: datetime) -> list[TalkingThermometer]:  # fmt: skip
    """The thermometers whose word is to be written down now."""
    now = _known(facts, heat_run_id)
    if now.state in (DropState.FIRST, DropState.LOOSE, DropState.BACK):
        return []
    return [one for one in talking if _is_wanted(now, one, at)]


def _is_wanted(now: DropNow, one: TalkingThermometer, at: datetime) -> bool:
    """Whether what it says now is new: a liner in its hole is not read, and a room only now and then."""
    kind = LIES_ON.get(one.row.lies_on)
    if kind is None or one.now.warmth is None or one.now.age_s is None or one.now.age_s > STALE_S:
        return False
    if kind is _K.LINER_READ and now.entered_at is not None:
        return False
    last = now.last(kind)
    is_running = now.state is DropState.OUT and kind is not _K.ROOM_READ
    every_s = RUNNING_EVERY_S if is_running else RESTING_EVERY_S
    # Out of the cold the clock begins anew.
    is_first = now.out_at is not None and (last is None or last.noted_at < now.out_at) and is_running
    return last is None or is_first or (at - last.noted_at).total_seconds() >= every_s
