"""Plate and caps: how they are tightened, each bolt as it is turned, and when they come off."""

import re
from dataclasses import dataclass
from decimal import Decimal
from uuid import UUID

from vallostasis.core.bores.plate import HoleHeld, caps_advice, hole_held, plate_advice, why_not_as_build
from vallostasis.core.clamping.order import FEWEST, MOST, order_of_circle, order_of_rows
from vallostasis.core.clamping.progress import Progress, TightState, progress_of, tightenings_of
from vallostasis.core.notation.typed_lengths import ExpectedRange
from vallostasis.core.records.clamping import BoltMarkKind, Clamp, FixtureKind, Tightening
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.services.lengths import read_usual
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.services.torques import read_torque
from vallostasis.store import fixtures
from vallostasis.store.fact_rows import record_fact
from vallostasis.store.job_facts import load_job_facts, lock_job_facts
from vallostasis.store.new_clamp_facts import NewBoltMark, NewTightening
from vallostasis.store.rows import Conn

# Rounds that a torque is reached in where nobody says otherwise: by thirds. Common practice.
THIRDS = (Decimal(1) / 3, Decimal(2) / 3, Decimal(1))
MOST_STAGES = 6
THICKNESS = ExpectedRange(Decimal(2_000), Decimal(200_000))
_STAGES = re.compile(r"^([\d.,;/\s+-]+?)\s*(\D*)$")


@dataclass(frozen=True, slots=True)
class TighteningTyped:
    """A plate or caps as they are to be tightened, as it was typed."""

    tightening_id: UUID
    clamp: Clamp
    bolts: int
    stages: str
    fixture: str = ""
    gasket: str = ""
    fasteners: str = ""
    from_hole: int | None = None
    to_hole: int | None = None
    order: str = ""
    words: str = ""


@dataclass(frozen=True, slots=True)
class ClampingNow:
    """Plate and caps of a job: advice, and what is on record."""

    facts: JobFacts
    plate_advice: str
    caps_advice: str
    tightenings: tuple[tuple[Progress, tuple[str, ...]], ...]


def clamping_of(conn: Conn, job_id: UUID) -> ClampingNow:
    """Return plate and caps of a job, the newest tightening last."""
    facts = load_job_facts(conn, job_id)
    found = [progress_of(facts, one) for one in facts.standing(facts.tightenings)]
    return ClampingNow(facts, plate_advice(facts), caps_advice(facts),
                       tuple((one, why_not_as_build(facts.card, one)) for one in found))  # fmt: skip


def holes_held(conn: Conn, job_id: UUID) -> tuple[HoleHeld, ...]:
    """Return each hole clamped and free; apart from the bolts, since no pedal waits for the shape of every bore."""
    facts = load_job_facts(conn, job_id)
    return tuple(hole_held(facts, hole) for hole in facts.holes)


def begin_tightening(conn: Conn, job_id: UUID, typed: TighteningTyped, by: UUID) -> None:
    """Begin a tightening: one of a kind over a hole at a time; sending it again never doubles it."""
    facts = lock_job_facts(conn, job_id)
    if any(one.tightening_id == typed.tightening_id for one in facts.tightenings):
        return
    covers = _covers(facts, typed)
    for one in tightenings_of(facts, typed.clamp):
        if one.state is not TightState.OFF and any(one.begun.covers(hole) for hole in range(covers[0], covers[1] + 1)):
            raise Refused(f"The {typed.clamp.value} is on already there: take it off first.", "clamp",
                          RefusalCode.STALE)  # fmt: skip
    order, stages = _order(typed, one_hole=covers[0] == covers[1]), _stages(facts, typed)
    first, last = (None, None) if typed.clamp is Clamp.CAPS else covers
    record_fact(conn, NewTightening(typed.tightening_id, job_id, typed.clamp, typed.fixture.strip(),
                                    typed.gasket.strip(), typed.fasteners.strip(), first, last,
                                    " ".join(str(one) for one in order), " ".join(str(one) for one in stages),
                                    typed.words.strip()), by)  # fmt: skip


def _covers(facts: JobFacts, typed: TighteningTyped) -> tuple[int, int]:
    numbers = [hole.number for hole in facts.holes]
    if typed.clamp is Clamp.CAPS:
        return min(numbers), max(numbers)
    first = min(numbers) if typed.from_hole is None else typed.from_hole
    last = max(numbers) if typed.to_hole is None else typed.to_hole
    for field, one in (("from_hole", first), ("to_hole", last)):
        if one not in numbers:
            raise Refused(f"This block has holes {min(numbers)} to {max(numbers)}.", field)
    if last < first:
        raise Refused("The last hole under the plate comes after the first.", "to_hole")
    return first, last


def _order(typed: TighteningTyped, one_hole: bool) -> tuple[int, ...]:
    if not FEWEST <= typed.bolts <= MOST:
        raise Refused(f"Type how many bolts there are, from {FEWEST} to {MOST}.", "bolts")
    words = typed.order.replace(",", " ").split()
    if not words:
        is_circle = typed.clamp is Clamp.PLATE and one_hole
        return order_of_circle(typed.bolts) if is_circle else order_of_rows(typed.bolts)
    if not all(one.isdecimal() and one.isascii() for one in words):
        raise Refused("The order is a row of bolt numbers, such as 5 6 3 4 7 8.", "order")
    order = tuple(int(one) for one in words)
    if sorted(order) != list(range(1, typed.bolts + 1)):
        raise Refused(f"Each of the {typed.bolts} bolts stands in the order once.", "order")
    return order


def _stages(facts: JobFacts, typed: TighteningTyped) -> tuple[Decimal, ...]:
    if not typed.stages.strip():
        build = facts.card.bores.plate_torque_nm
        if typed.clamp is Clamp.CAPS or build is None:
            raise Refused("Type the torques of the rounds as the engine's book says, such as 40 80 120 N·m.", "stages")
        return tuple(round(Decimal(repr(build)) * share, 1) for share in THIRDS)
    match = _STAGES.match(typed.stages.strip())
    if match is None:
        raise Refused("Torques of the rounds, such as 40 80 120 N·m, or 30 60 90 lbf·ft.", "stages")
    found = [read_torque(f"{one} {match.group(2)}", "stages") for one in re.split(r"[\s;/]+|,\s", match.group(1))]
    stages = [one for one in found if one is not None]
    if not 1 <= len(stages) <= MOST_STAGES or any(one <= 0 for one in stages):
        raise Refused(f"One to {MOST_STAGES} torques above nought.", "stages")
    if stages != sorted(stages):
        raise Refused("Each round turns to more than the one before.", "stages")
    return tuple(stages)


def _standing(facts: JobFacts, tightening_id: UUID) -> Tightening:
    found = next((one for one in facts.standing(facts.tightenings) if one.tightening_id == tightening_id), None)
    if found is None:
        raise Refused("There is no such tightening in this job.", "tightening_id")
    return found


def mark_bolt(conn: Conn, job_id: UUID, tightening_id: UUID, mark_id: UUID, bolt: int, kind: BoltMarkKind,
              torque: str, words: str, by: UUID) -> None:  # fmt: skip
    """Note a bolt of the round that is on; sending it again never doubles it."""
    facts = lock_job_facts(conn, job_id)
    if any(one.bolt_mark_id == mark_id for one in facts.bolt_marks):
        return
    now = progress_of(facts, _standing(facts, tightening_id))
    if now.state is not TightState.GOING:
        raise Refused(f"The {now.begun.clamp.value} is {now.state.value}: no bolt of it is turned.", "bolt",
                      RefusalCode.STALE)  # fmt: skip
    if bolt not in now.begun.order:
        raise Refused(f"There is no bolt {bolt}: they are numbered 1 to {len(now.begun.order)}.", "bolt")
    if bolt in now.done:
        raise Refused(f"Bolt {bolt} has had this round already.", "bolt", RefusalCode.STALE)
    if (kind is BoltMarkKind.TURNED) is now.is_trial or kind is BoltMarkKind.OFF:
        wanted = "held, or moved on" if now.is_trial else "turned"
        raise Refused(f"In this round a bolt is {wanted}.", "kind")
    read = read_torque(torque, "torque")
    if read is None and kind is BoltMarkKind.TURNED:
        read = now.begun.stages[now.turn - 1]
    record_fact(conn, NewBoltMark(mark_id, job_id, tightening_id, kind, now.turn, bolt, read, words.strip()), by)


@dataclass(frozen=True, slots=True)
class FixtureTyped:
    """A plate, bar, block or pad as it was typed."""

    name: str
    kind: FixtureKind
    fits: str = ""
    thickness: str = ""
    material: str = ""
    changed: str = ""
    note: str = ""


def save_fixture(conn: Conn, typed: FixtureTyped, by: UUID) -> None:
    """Save a fixture of the shop; under a name that is known it takes the place of the one before."""
    if not typed.name.strip():
        raise Refused("Give it a name.", "name")
    if not typed.fits.strip():
        raise Refused("Say which engine it fits: a plate of another block does not pull where this one is pulled.",
                      "fits")  # fmt: skip
    thickness = None
    if typed.thickness.strip():
        thickness = read_usual("thickness", typed.thickness, "mm", THICKNESS, False).value_um
    fixtures.add_fixture(conn, fixtures.NewFixture(typed.name.strip(), typed.kind, typed.fits.strip(), thickness,
                                                   typed.material.strip(), typed.changed.strip(), typed.note.strip()),
                         by)  # fmt: skip


def take_off(conn: Conn, job_id: UUID, tightening_id: UUID, mark_id: UUID, words: str, by: UUID) -> None:
    """Note that a plate or caps came off; sending it again never doubles it."""
    facts = lock_job_facts(conn, job_id)
    if any(one.bolt_mark_id == mark_id for one in facts.bolt_marks):
        return
    now = progress_of(facts, _standing(facts, tightening_id))
    if now.state is TightState.OFF:
        raise Refused("It is off already.", "tightening_id", RefusalCode.STALE)
    record_fact(conn, NewBoltMark(mark_id, job_id, tightening_id, BoltMarkKind.OFF, None, None, None, words.strip()),
                by)  # fmt: skip
