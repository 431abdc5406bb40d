"""The plan of a deck: each aim beside the others, what the engine displaces, the bore that a volume wants."""

from dataclasses import dataclass
from decimal import Decimal, InvalidOperation
from uuid import UUID

from vallostasis.core.boring.clearances import CUBIC_INCH_M3
from vallostasis.core.deck.plan import DeckPlan, deck_plan
from vallostasis.core.deck.volume import BoreForVolume, Swept, bore_for_volume, swept
from vallostasis.core.notation.lengths import Unit, metres
from vallostasis.core.notation.typed_lengths import ExpectedRange
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.spec_card import SpecCard
from vallostasis.services.lengths import read_usual
from vallostasis.services.refused import Refused
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn

SKIM = ExpectedRange(Decimal(0), Decimal(1500))
LAND = ExpectedRange(Decimal(500), Decimal(60_000))
# The unit of a volume as it may stand after the number, in m³.
VOLUMES = {"cm³": 1e-6, "cm3": 1e-6, "cc": 1e-6, "l": 1e-3, "litres": 1e-3, "cu in": CUBIC_INCH_M3,
           "cubic inches": CUBIC_INCH_M3, "in³": CUBIC_INCH_M3, "in3": CUBIC_INCH_M3}  # fmt: skip


@dataclass(frozen=True, slots=True)
class DeckAsked:
    """What somebody would try: a skim, the width of the sealing land, a volume; as typed."""

    skim: str = ""
    land: str = ""
    volume: str = ""
    bare_unit: Unit = "thou"


@dataclass(frozen=True, slots=True)
class DeckNow:
    """A plan, the volume swept by bore and stroke, and the bore that a wanted volume asks for."""

    facts: JobFacts
    plan: DeckPlan
    swept: Swept | None
    wanted: BoreForVolume | None


def deck_now(conn: Conn, job_id: UUID, asked: DeckAsked) -> DeckNow:
    """Return the plan of a deck, with what was typed."""
    facts = load_job_facts(conn, job_id)
    small: Unit = asked.bare_unit
    size: Unit = "mm" if small in ("µm", "mm", "0.01 mm") else "inch"
    skim = _length("skim", asked.skim, small, SKIM)
    land = _length("land", asked.land, size, LAND)
    plan = deck_plan(facts, skim, land)
    return DeckNow(facts, plan, _swept(facts.card), _wanted(facts.card, asked.volume))


def _length(field: str, text: str, unit: Unit, usual: ExpectedRange) -> float | None:
    if not text.strip():
        return None
    value = read_usual(field, text, unit, usual, False).value_um
    if value < 0:
        raise Refused("What comes off is a length from nought.", field)
    return metres(value)


def _swept(card: SpecCard) -> Swept | None:
    stroke = card.stroke.metres
    return None if stroke is None else swept(card.layout.holes, card.layout.bore.metres, stroke)


def _wanted(card: SpecCard, text: str) -> BoreForVolume | None:
    """Read a volume with its unit: a bare number may be either, so it is asked about."""
    words = text.strip().casefold()
    if not words:
        return None
    stroke = card.stroke.metres
    if stroke is None:
        raise Refused("Write the stroke on the card first: a volume is bore and stroke.", "volume")
    unit = next((one for one in sorted(VOLUMES, key=len, reverse=True) if words.endswith(one)), None)
    if unit is None:
        raise Refused("Say the unit with the number: 1800 cm³, 1.8 l, or 110 cu in.", "volume")
    try:
        number = float(Decimal(words.removesuffix(unit).strip().replace(",", ".")))
    except InvalidOperation:
        number = 0.0
    volume = number * VOLUMES[unit]
    if not 1e-6 <= volume <= 1.0:
        raise Refused("Nothing here displaces so much: type a volume such as 1800 cm³ or 110 cu in.", "volume")
    return bore_for_volume(card.layout.holes, volume, card.layout.bore.metres, stroke, card.bores.wall.metres)
