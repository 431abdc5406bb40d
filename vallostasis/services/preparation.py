"""Making a block ready to be cut: steps that are counted, and looks that settle something."""

from dataclasses import dataclass
from decimal import Decimal
from uuid import UUID

from vallostasis.core.counterbore.preparation import refuse_power_tool
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.notation.lengths import Unit
from vallostasis.core.notation.typed_lengths import ExpectedRange
from vallostasis.core.records.preparation import InspectionKind, InspectionOutcome, PrepKind
from vallostasis.services.lengths import read_usual
from vallostasis.services.refused import Refused
from vallostasis.store.fact_rows import record_fact
from vallostasis.store.job_facts import lock_job_facts
from vallostasis.store.new_cut_facts import NewInspection, NewPrepStep
from vallostasis.store.rows import Conn

# Corner radii that bits leave. Common practice, no published source. [µm]
CORNER = ExpectedRange(Decimal(0), Decimal(3_000))
OF_HOLE = (InspectionKind.CRACK_LEDGE, InspectionKind.CORNER)


@dataclass(frozen=True, slots=True)
class StepDone:
    """A step as it was done: where or with what, how many."""

    prep_step_id: UUID
    kind: PrepKind
    place: str
    count: int
    words: str = ""


@dataclass(frozen=True, slots=True)
class LookTaken:
    """A look as it was taken, at one hole or at all; the radius of a corner as typed, or that it is undercut."""

    inspection_id: UUID
    kind: InspectionKind
    hole: int | None
    outcome: InspectionOutcome
    words: str = ""
    radius: str = ""
    undercut: bool = False
    bare_unit: Unit = "mm"
    confirmed: bool = False


def note_step(conn: Conn, job_id: UUID, step: StepDone, by: UUID) -> None:
    """Write down a step of making the block ready; sending it again never doubles it. Power tools are refused."""
    facts = lock_job_facts(conn, job_id)
    if any(one.prep_step_id == step.prep_step_id for one in facts.prep_steps):
        return
    place = step.place.strip()
    if step.kind is PrepKind.SCRAPED:
        if not place:
            raise Refused("Say what the deck was scraped with.", "place")
        if step.count == 0:
            raise Refused("A scrape pass is one or more: type how many.", "count")
        try:
            refuse_power_tool(f"{place} {step.words}")
        except OutOfDomain as error:
            raise Refused(str(error), "place") from None
    if step.kind in (PrepKind.PLUGS_IN, PrepKind.PLUGS_OUT) and not place:
        raise Refused("Say where the plugs are: bores, oil holes, journals.", "place")
    record_fact(conn, NewPrepStep(step.prep_step_id, job_id, step.kind, place, step.count, step.words.strip()), by)


def note_inspection(conn: Conn, job_id: UUID, look: LookTaken, by: UUID) -> None:
    """Write down a look at the block or a hole, or that it is waived; sending it again never doubles it."""
    facts = lock_job_facts(conn, job_id)
    if any(one.inspection_id == look.inspection_id for one in facts.inspections):
        return
    hole = None if look.hole is None else facts.hole_numbered(look.hole)
    if look.hole is not None and (hole is None or look.kind not in OF_HOLE):
        raise Refused(f"There is no hole {look.hole} to look at for that.", "hole")
    words = look.words.strip()
    if look.outcome is not InspectionOutcome.SOUND and not words:
        why = "why it is waived" if look.outcome is InspectionOutcome.WAIVED else "what was found"
        raise Refused(f"Say {why}: it stands under your name.", "words")
    radius_um, typed = None, ""
    if look.kind is InspectionKind.CORNER and look.outcome is InspectionOutcome.SOUND:
        if look.undercut:
            radius_um, typed = Decimal(0), "undercut"
        elif not look.radius.strip():
            raise Refused("Type the radius of the corner, or say that it is undercut.", "radius")
        else:
            read = read_usual("radius", look.radius, look.bare_unit, CORNER, look.confirmed)
            radius_um, typed = read.value_um, f"{read.number} {read.unit}"
    record_fact(conn, NewInspection(look.inspection_id, job_id, look.kind, None if hole is None else hole.hole_id,
                                    look.outcome, words, radius_um, typed), by)  # fmt: skip
