"""Boring a hole pass by pass: what its piston asks for, what was made, what is to go."""

from dataclasses import dataclass
from datetime import UTC, datetime
from decimal import Decimal, InvalidOperation
from uuid import UUID

from vallostasis.core.boring.ledger import Ledger, ledger_of
from vallostasis.core.boring.made_to_bore import MadeToBore, bored_to, made_to_bore
from vallostasis.core.boring.programme import zero_due
from vallostasis.core.boring.target import BoreTarget, target_of
from vallostasis.core.notation.lengths import METRIC_UNITS, Unit, micrometres
from vallostasis.core.notation.typed_lengths import ExpectedRange
from vallostasis.core.records.bar_settings import BoreDatum
from vallostasis.core.records.boring_passes import PassKind
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.records.rows import Hole
from vallostasis.core.trail import Phrase
from vallostasis.services.lengths import read_usual
from vallostasis.services.reading_target import known_hole
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.services.route import pass_or_refuse
from vallostasis.store.bar_notes import BarNote, notes_of_material
from vallostasis.store.fact_rows import record_fact
from vallostasis.store.job_facts import load_job_facts, lock_job_facts
from vallostasis.store.new_bore_facts import NewBarSetting, NewBoringPass
from vallostasis.store.rows import Conn

# A dial is advanced by less than this a side in one pass. [µm]
DIAL = ExpectedRange(Decimal(0), Decimal(1_500))
WITHIN_A_BORE = ExpectedRange(Decimal(0), Decimal(1_500_000))
# How far a diameter may lie from the one before without being asked about. [µm]
NEAR_UM = Decimal(3_000)
# Between a bar and a wall: blades with a block of known size. [µm]
GAP = ExpectedRange(Decimal(0), Decimal(150_000))
MOST_MINUTES = 600
MOST_NOTES = 6


@dataclass(frozen=True, slots=True)
class BoringAsked:
    """What somebody tries: how deep a cut goes, what the last takes, how warm both run. [µm], [°C]"""

    deepest_um: Decimal
    last_um: Decimal
    bore_c: float | None = None
    piston_c: float | None = None


@dataclass(frozen=True, slots=True)
class PassMade:
    """A pass as it was typed."""

    pass_id: UUID
    hole: int
    kind: PassKind
    dial: str
    diameter: str = ""
    at_depth: str = ""
    minutes: str = ""
    words: str = ""
    bare_unit: Unit = "thou"
    confirmed: bool = False
    hold_reason: str = ""


@dataclass(frozen=True, slots=True)
class BoringNow:
    """What a hole is bored to, how far it is, what is due before the next pass, what was said of such iron before."""

    facts: JobFacts
    hole: Hole
    target: BoreTarget | MadeToBore | Phrase
    ledger: Ledger
    zero_due: str
    notes: tuple[BarNote, ...]


def boring_now(conn: Conn, job_id: UUID, number: int, ask: BoringAsked) -> BoringNow:
    """Return what a hole is bored to, and how far it is."""
    facts = load_job_facts(conn, job_id)
    hole = known_hole(facts, number)
    target = made_to_bore(facts, hole) or target_of(facts, hole, ask.bore_c, ask.piston_c)
    ledger = ledger_of(facts, hole, bored_to(target), ask.deepest_um, ask.last_um)
    due = "" if ledger.next_dial_m is None else zero_due(facts, hole, datetime.now(UTC))
    notes = notes_of_material(conn, job_id, facts.card.block_material, MOST_NOTES)
    return BoringNow(facts, hole, target, ledger, due, notes)


def record_pass(conn: Conn, job_id: UUID, made: PassMade, by: UUID) -> None:
    """Write down a pass; the first of a hole waits for its hold points; sending it again never doubles it."""
    facts = lock_job_facts(conn, job_id)
    if any(one.pass_id == made.pass_id for one in facts.boring_passes):
        return
    hole = known_hole(facts, made.hole)
    size: Unit = "mm" if made.bare_unit in METRIC_UNITS else "inch"
    dial = read_usual("dial", made.dial, made.bare_unit, DIAL, made.confirmed)
    if dial.value_um < 0:
        raise Refused("A dial is advanced, never drawn back, in a pass: type how far, a side.", "dial")
    if made.kind is PassKind.SPRING and dial.value_um > 0:
        raise Refused("A spring pass is made at the same setting: type 0.", "dial")
    if made.kind is not PassKind.SPRING and dial.value_um == 0:
        raise Refused(
            "Type what the dial was advanced by, a side; a pass at the same setting is a spring pass.", "dial"
        )
    diameter, typed = _diameter(facts, hole, made, size)
    at_um = None
    if made.at_depth.strip():
        at_um = read_usual("at_depth", made.at_depth, size, WITHIN_A_BORE, made.confirmed).value_um
    minutes = _minutes(made.minutes)
    if not any(one.hole_id == hole.hole_id for one in facts.standing(facts.boring_passes)):
        pass_or_refuse(conn, facts, Operation.BORE, hole, by, made.hold_reason)
    record_fact(conn, NewBoringPass(made.pass_id, job_id, hole.hole_id, made.kind, dial.value_um,
                                    f"{dial.number} {dial.unit}", diameter, typed, at_um, minutes,
                                    made.words.strip()), by)  # fmt: skip


@dataclass(frozen=True, slots=True)
class BarSet:
    """How a bar was set, as it was typed: gaps at 12, 3, 6 and 9 h, all or none."""

    setting_id: UUID
    hole: int
    datum: BoreDatum
    gaps: tuple[str, str, str, str] = ("", "", "", "")
    to_hole: int | None = None
    apart: str = ""
    level: str = ""
    not_to_cut: str = ""
    words: str = ""
    bare_unit: Unit = "thou"
    confirmed: bool = False


GAP_FIELDS = ("gap_12", "gap_3", "gap_6", "gap_9")


def record_setting(conn: Conn, job_id: UUID, made: BarSet, by: UUID) -> None:
    """Write down how a bar was set; sending it again never doubles it."""
    facts = lock_job_facts(conn, job_id)
    if any(one.setting_id == made.setting_id for one in facts.bar_settings):
        return
    hole = known_hole(facts, made.hole)
    size: Unit = "mm" if made.bare_unit in METRIC_UNITS else "inch"
    gaps = [_gap(field, text, made, size) for field, text in zip(GAP_FIELDS, made.gaps, strict=True)]
    missing = [field for field, one in zip(GAP_FIELDS, gaps, strict=True) if one is None]
    if 0 < len(missing) < len(GAP_FIELDS):
        raise Refused("Four gaps tell where the bar stands, three do not: feel here too.", missing[0])
    apart = None
    if made.apart.strip():
        if made.to_hole is None or made.to_hole == hole.number or made.to_hole not in [h.number for h in facts.holes]:
            raise Refused("Say which other hole that is the distance to.", "to_hole")
        apart = read_usual("apart", made.apart, size, None, confirmed=True).value_um
        if apart <= 0:
            raise Refused("A distance between holes is above nought.", "apart")
    record_fact(conn, NewBarSetting(made.setting_id, job_id, hole.hole_id, made.datum, gaps[0], gaps[1], gaps[2],
                                    gaps[3], made.to_hole if apart else None, apart, made.level.strip(),
                                    made.not_to_cut.strip(), made.words.strip()), by)  # fmt: skip


def _gap(field: str, text: str, made: BarSet, size: Unit) -> Decimal | None:
    if not text.strip():
        return None
    gap = read_usual(field, text, size, GAP, made.confirmed).value_um
    if gap < 0:
        raise Refused("A gap is not below nought: type what the blades came to.", field)
    return gap


def _diameter(facts: JobFacts, hole: Hole, made: PassMade, size: Unit) -> tuple[Decimal | None, str]:
    """The diameter read after a pass; one far from where the bore stands is asked about."""
    if not made.diameter.strip():
        return None, ""
    read = read_usual("diameter", made.diameter, size, None, confirmed=True)
    if read.value_um <= 0:
        raise Refused("A diameter is above nought.", "diameter")
    present = ledger_of(facts, hole, None).present_m
    near = present or facts.card.layout.bore.metres
    if abs(read.value_um - micrometres(near)) > NEAR_UM and not made.confirmed:
        raise Refused(f"{read.number} {read.unit} is more than 3 mm from where this bore stands: is it a slip?",
                      "diameter", RefusalCode.ASKS)  # fmt: skip
    return read.value_um, f"{read.number} {read.unit}"


def _minutes(text: str) -> Decimal | None:
    text = text.strip().replace(",", ".")
    if not text:
        return None
    try:
        minutes = Decimal(text)
    except InvalidOperation:
        minutes = Decimal(-1)
    if not minutes.is_finite() or not 0 < minutes <= MOST_MINUTES:
        raise Refused(f"Type the minutes of the pass, above 0 and up to {MOST_MINUTES}, such as 14.", "minutes")
    return minutes
