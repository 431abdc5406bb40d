"""Honing a hole round by round: how it is set, rounds begun and stopped, what was said of them."""

from dataclasses import dataclass
from decimal import Decimal, InvalidOperation
from uuid import UUID

from vallostasis.core.boring.hatch import cycles_for
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.honing.now import HoneNow, HoneState, hone_now, setting_of
from vallostasis.core.honing.rounds import open_round
from vallostasis.core.honing.stroke import plan_stroke
from vallostasis.core.notation.lengths import METRIC_UNITS, Unit, metres
from vallostasis.core.notation.typed_lengths import ExpectedRange
from vallostasis.core.records.honing import HoneAim, HoneDrive, HoneMarkKind, HoneMethod, HoneRound, HoneStage
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.records.rows import Hole
from vallostasis.services.lengths import read_usual
from vallostasis.services.reading_target import known_hole
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.services.route import pass_or_refuse
from vallostasis.store.fact_rows import record_fact
from vallostasis.store.job_facts import load_job_facts, lock_job_facts
from vallostasis.store.new_bore_facts import NewHoneMark, NewHoneRound, NewHoneSetting
from vallostasis.store.rows import Conn

STOCK = ExpectedRange(Decimal(0), Decimal(300))
LENGTH = ExpectedRange(Decimal(20_000), Decimal(1_500_000))
STONE = ExpectedRange(Decimal(10_000), Decimal(400_000))
BELOW = ExpectedRange(Decimal(0), Decimal(1_500_000))
GRITS = (16, 1200)
TURNS, STROKES, ANGLES = (5, 1000), (1, 300), (5, 120)
MOST_STROKES = 2000


@dataclass(frozen=True, slots=True)
class HoneSet:
    """How a hole is honed, as it was typed."""

    setting_id: UUID
    hole: int
    aim: HoneAim
    method: HoneMethod
    drive: HoneDrive
    rough_grit: int
    fine_grit: int
    fine_stock: str
    brush_stock: str
    length: str
    stone: str
    below: str = ""
    turns: str = ""
    strokes: str = ""
    angle: str = ""
    words: str = ""
    bare_unit: Unit = "thou"
    confirmed: bool = False


def honing_now(conn: Conn, job_id: UUID, number: int, aim: HoneAim) -> tuple[JobFacts, HoneNow]:
    """Return where the honing of a hole stands."""
    facts = load_job_facts(conn, job_id)
    return facts, hone_now(facts, known_hole(facts, number), aim)


def record_hone_setting(conn: Conn, job_id: UUID, made: HoneSet, by: UUID) -> None:
    """Write down how a hole is honed; sending it again never doubles it."""
    facts = lock_job_facts(conn, job_id)
    if any(one.setting_id == made.setting_id for one in facts.hone_settings):
        return
    hole = known_hole(facts, made.hole)
    size: Unit = "mm" if made.bare_unit in METRIC_UNITS else "inch"
    for field, grit in (("rough_grit", made.rough_grit), ("fine_grit", made.fine_grit)):
        if not GRITS[0] <= grit <= GRITS[1]:
            raise Refused(f"A grit lies between {GRITS[0]} and {GRITS[1]}: a higher number is finer.", field)
    if made.fine_grit < made.rough_grit:
        raise Refused("A higher grit is finer: the fine stones are no coarser than the rough ones.", "fine_grit")
    fine = _not_below("fine_stock", made.fine_stock, made.bare_unit, STOCK, made.confirmed)
    brush = _not_below("brush_stock", made.brush_stock or "0", made.bare_unit, STOCK, made.confirmed)
    length = _not_below("length", made.length, size, LENGTH, made.confirmed)
    stone = _not_below("stone", made.stone, size, STONE, made.confirmed)
    below = _not_below("below", made.below, size, BELOW, made.confirmed) if made.below.strip() else None
    try:
        stroke = plan_stroke(metres(length), metres(stone), None if below is None else metres(below))
    except OutOfDomain as error:
        said = str(error)
        raise Refused(f"{said[0].upper()}{said[1:]}.", "stone") from error
    turns = _count("turns", made.turns, TURNS, "turns a minute")
    angle = _count("angle", made.angle or "45", ANGLES, "degrees of the cross-hatch")
    wanted = cycles_for(float(angle), facts.card.layout.bore.metres, float(turns), stroke.stroke_m)
    strokes = _count("strokes", made.strokes or f"{wanted:.0f}", STROKES, "double strokes a minute")
    record_fact(conn, NewHoneSetting(made.setting_id, job_id, hole.hole_id, made.aim, made.method, made.drive,
                                     made.rough_grit, made.fine_grit, fine, brush, length, stone, below, turns,
                                     strokes, angle, made.words.strip()), by)  # fmt: skip


def _not_below(field: str, text: str, unit: Unit, usual: ExpectedRange, confirmed: bool) -> Decimal:
    value = read_usual(field, text, unit, usual, confirmed).value_um
    if value < 0 or (value == 0 and field in ("length", "stone")):
        raise Refused("A length above nought is needed here.", field)
    return value


def _count(field: str, text: str, between: tuple[int, int], what: str) -> Decimal:
    try:
        value = Decimal(text.strip().replace(",", "."))
    except InvalidOperation:
        value = Decimal("NaN")
    if not value.is_finite() or not between[0] <= value <= between[1]:
        raise Refused(f"Type the {what}, from {between[0]} to {between[1]}.", field)
    return value


def begin_round(conn: Conn, job_id: UUID, number: int, aim: HoneAim, stage: HoneStage, round_id: UUID,
                hold_reason: str, by: UUID) -> None:  # fmt: skip
    """Begin a round: one at a time, on what was read since the last one; the first of a hole waits for its holds."""
    facts = lock_job_facts(conn, job_id)
    if any(one.round_id == round_id for one in facts.hone_rounds):
        return
    hole = known_hole(facts, number)
    setting = setting_of(facts, hole, aim)
    if setting is None:
        raise Refused("Say first how it is honed: stones, stroke, what stands below.", "setting")
    now = hone_now(facts, hole, aim)
    _may_begin(now)
    if now.stage is not None and stage is not now.stage:
        raise Refused(f"The {now.stage.value} is at hand by what was read last: load the page again.", "stage",
                      RefusalCode.STALE)  # fmt: skip
    if not now.made:
        pass_or_refuse(conn, facts, _operation(aim), hole, by, hold_reason)
    grit = {HoneStage.ROUGH: setting.rough_grit, HoneStage.FINE: setting.fine_grit, HoneStage.BRUSH: 0}[stage]
    record_fact(conn, NewHoneRound(round_id, job_id, hole.hole_id, aim, stage, grit, setting.method), by)


def _operation(aim: HoneAim) -> Operation:
    return Operation.HONE_BLOCK if aim is HoneAim.SLEEVE else Operation.HONE


def _may_begin(now: HoneNow) -> None:
    """Refuse a round that nothing measured stands behind."""
    if now.turning is not None:
        raise Refused("A round turns in this hole already: stop it first.", "round_id", RefusalCode.STALE)
    if now.state is HoneState.REFUSED:
        raise Refused("No size is named for this hole yet: nothing is taken off before there is one.", "stage")
    if now.state is HoneState.MEASURE:
        raise Refused("Read the bore first: what is left is measured between two rounds, never guessed.", "stage",
                      RefusalCode.STALE)  # fmt: skip
    if now.state is HoneState.TOO_LARGE:
        raise Refused("The bore is larger than its greatest already: another round makes it worse.", "stage")


def _standing_round(facts: JobFacts, hole: Hole, round_id: UUID) -> HoneRound:
    found = next((one for one in facts.standing(facts.hone_rounds)
                  if one.round_id == round_id and one.hole_id == hole.hole_id), None)  # fmt: skip
    if found is None:
        raise Refused("There is no such round in this hole.", "round_id")
    return found


def stop_round(conn: Conn, job_id: UUID, number: int, round_id: UUID, mark_id: UUID, strokes: int, by: UUID) -> None:
    """Stop a round after so many double strokes; sending it again never doubles it."""
    facts = lock_job_facts(conn, job_id)
    if any(one.hone_mark_id == mark_id for one in facts.hone_marks):
        return
    begun = _standing_round(facts, known_hole(facts, number), round_id)
    turning = open_round(facts, known_hole(facts, number), begun.aim)
    if turning is None or turning.begun.round_id != round_id:
        raise Refused("That round is stopped already.", "round_id", RefusalCode.STALE)
    if not 1 <= strokes <= MOST_STROKES:
        raise Refused(f"Type the double strokes of the round, from 1 to {MOST_STROKES}.", "strokes")
    record_fact(conn, NewHoneMark(mark_id, job_id, round_id, HoneMarkKind.STOPPED, strokes, ""), by)


def note_on_round(conn: Conn, job_id: UUID, number: int, round_id: UUID, mark_id: UUID, words: str, by: UUID) -> None:
    """Write down that the stones were cleaned."""
    facts = lock_job_facts(conn, job_id)
    if any(one.hone_mark_id == mark_id for one in facts.hone_marks):
        return
    _standing_round(facts, known_hole(facts, number), round_id)
    record_fact(conn, NewHoneMark(mark_id, job_id, round_id, HoneMarkKind.CLEANED, None, words.strip()), by)


def aim_of_round(conn: Conn, job_id: UUID, round_id: UUID) -> HoneAim:
    """Return what a round hones to."""
    facts = load_job_facts(conn, job_id)
    return next(one.aim for one in facts.hone_rounds if one.round_id == round_id)
