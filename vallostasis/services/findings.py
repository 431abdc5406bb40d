"""What was found on an engine, and what of it is not read by name."""

from dataclasses import dataclass, field, replace
from decimal import Decimal
from uuid import UUID

from vallostasis.core.features.parts import part_with_key
from vallostasis.core.findings.kinds import FORMS, PERCENT, read_figure
from vallostasis.core.notation.lengths import Unit
from vallostasis.core.notation.typed_lengths import ExpectedRange
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import FindingKind
from vallostasis.core.records.rows import Quantity
from vallostasis.services.lengths import read_usual
from vallostasis.services.refused import RefusalCode, Refused, typed_at
from vallostasis.store.fact_rows import record_fact
from vallostasis.store.job_facts import lock_job_facts
from vallostasis.store.new_facts import NewFinding, NewWaiver
from vallostasis.store.rows import Conn

# Between two holes a mark lies no further from an edge than this. [µm]
WITHIN_A_PITCH = ExpectedRange(Decimal(0), Decimal(300_000))
# Bores are no longer than this. [µm]
WITHIN_A_BORE = ExpectedRange(Decimal(0), Decimal(1_500_000))
ON_A_WALL = (FindingKind.WALL, FindingKind.FEEL)


@dataclass(frozen=True, slots=True)
class FindingWritten:
    """Something found, as it was written down; a figure as typed, with the unit of a bare number."""

    finding_id: UUID
    kind: FindingKind
    hole: int | None
    part: str
    word: str
    words: str
    figure: str
    bare_unit: Unit = "mm"
    confirmed: bool = False
    lies: "LiesAt" = field(default_factory=lambda: LiesAt())


@dataclass(frozen=True, slots=True)
class LiesAt:
    """Where on deck or ledge something lies: clock positions [h], distance and width as typed, reading explained."""

    hour: float | None = None
    until_hour: float | None = None
    distance: str = ""
    width: str = ""
    reading_id: UUID | None = None
    from_depth: str = ""
    until_depth: str = ""
    catches: bool = False
    in_round: str = ""


def note_finding(conn: Conn, job_id: UUID, found: FindingWritten, by: UUID) -> None:
    """Write down something found; sending it again never doubles it."""
    facts = lock_job_facts(conn, job_id)
    if any(one.finding_id == found.finding_id for one in facts.findings):
        return
    form = FORMS[found.kind]
    hole = None if found.hole is None else facts.hole_numbered(found.hole)
    if found.hole is not None and hole is None:
        raise Refused(f"There is no hole {found.hole} in this block.", "hole")
    if form.of_hole and hole is None and found.kind is not FindingKind.CONDITION:
        raise Refused(f"Name the hole: {found.kind.value} is of one.", "hole")
    with typed_at("figure"):
        figure = read_figure(found.kind, found.figure, found.bare_unit, found.confirmed)
    if not (found.word or found.words or figure is not None):
        raise Refused("Say what was found: choose a word, or write it.", "word")
    typed = "" if figure is None else _typed(found, form.unit)
    new = NewFinding(job_id, None if hole is None else hole.hole_id, found.kind, found.part, found.word, found.words,
                     figure, typed, found.finding_id)  # fmt: skip
    record_fact(conn, _lying(facts, new, found) if form.lies else new, by)


def _lying(facts: JobFacts, new: NewFinding, found: FindingWritten) -> NewFinding:
    """Where something lies that lies somewhere: a clock position always, the rest where it was said."""
    lies = found.lies
    if lies.hour is None:
        raise Refused("Say at which clock position it lies: point to it, or type 1 to 12.", "hour")
    if lies.reading_id is not None and facts.reading(lies.reading_id) is None:
        raise Refused("That reading is not of this job: choose one of the list.", "reading_id")
    unit = found.bare_unit

    def read(name: str, text: str, usual: ExpectedRange = WITHIN_A_PITCH, unit: Unit = unit) -> Decimal | None:
        return read_usual(name, text, unit, usual, found.confirmed).value_um if text.strip() else None

    lying = replace(new, hour=lies.hour, until_hour=lies.until_hour, distance_um=read("distance", lies.distance),
                    width_um=read("width", lies.width), reading_id=lies.reading_id)  # fmt: skip
    if found.kind not in ON_A_WALL:
        return lying
    if new.hole_id is None:
        raise Refused("Name the hole whose wall it is on.", "hole")
    # A depth in a bore is a size: a bare number is inches, not thou.
    of_size: Unit = "mm" if unit in ("mm", "µm") else "inch"
    first = read("from_depth", lies.from_depth, WITHIN_A_BORE, of_size)
    if first is None:
        raise Refused("Say how far below the deck it begins.", "from_depth")
    last = read("until_depth", lies.until_depth, WITHIN_A_BORE, of_size)
    if last is not None and last < first:
        raise Refused("It ends above where it begins: say the greater depth here.", "until_depth")
    return replace(lying, from_um=first, until_um=first if last is None else last, catches=lies.catches,
                   in_round=lies.in_round.strip())  # fmt: skip


def _typed(found: FindingWritten, unit: str) -> str:
    text = found.figure.strip()
    if not text[-1:].isdigit():
        return text
    return f"{text} %" if unit == PERCENT else f"{text} {found.bare_unit}"


def waive(conn: Conn, job_id: UUID, quantity: Quantity, part: str, waived: bool, reason: str, by: UUID) -> None:
    """Write down by name that a feature of a part is not read, or is to be read after all."""
    facts = lock_job_facts(conn, job_id)
    if part_with_key(facts, quantity, part) is None:
        raise Refused(f"This job has no {part} to read {quantity.value} on.", "part")
    if not reason.strip():
        raise Refused("Say why it is not read." if waived else "Say why it is to be read after all.", "reason")
    if ((quantity, part) in facts.standing_waivers) is waived:
        raise Refused("That is so already.", "waived", RefusalCode.STALE)
    record_fact(conn, NewWaiver(job_id, quantity, part, waived, reason), by)
