"""Saving spec cards as new versions, and naming the version that judges a job."""

from dataclasses import dataclass, replace
from uuid import UUID

from vallostasis.core.errors import Suggestion
from vallostasis.core.features.pattern import Pattern
from vallostasis.core.features.plan import Cylinder, Risk, propose_pattern
from vallostasis.core.notation.lengths import Unit
from vallostasis.core.notation.typed_lengths import parse_length
from vallostasis.core.records.rows import CardVersion, Quantity
from vallostasis.core.records.spec_card import CardUnit, Construction, SpecCard
from vallostasis.core.spec_cards.card_lengths import LONGEST_UM, read_typed_card
from vallostasis.core.spec_cards.card_slips import unlikely_lengths
from vallostasis.services.block import ChangedState, changed_states
from vallostasis.services.refused import RefusalCode, Refused, typed_at
from vallostasis.store import jobs, spec_cards
from vallostasis.store.fact_rows import record_fact
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.new_facts import NewCardChosen
from vallostasis.store.rows import Conn


def read_card(card: SpecCard) -> SpecCard:
    """Read every length typed on a card; raise Refused naming every field that is wrong."""
    read, problems = read_typed_card(card)
    if problems:
        raise Refused(
            f"The card has {len(problems)} field{'s' if len(problems) > 1 else ''} to put right.",
            problems=tuple((problem.field, problem.message) for problem in problems),
        )
    return read


@dataclass(frozen=True, slots=True)
class PlanWanted:
    """What a measuring plan is wanted for, sizes as typed on a card that need not be complete yet."""

    quantity: Quantity
    construction: Construction
    unit: CardUnit
    bore: str
    bore_pitch: str
    liner_length: str
    in_row: int
    risk: Risk


def propose_plan(wanted: PlanWanted) -> Pattern:
    """Propose levels and axes for a feature of a card that is being written."""
    unit: Unit = "mm" if wanted.unit is CardUnit.MM else "inch"
    sizes = {}
    for field in ("bore", "bore_pitch", "liner_length"):
        text = getattr(wanted, field)
        if not text.strip() and field == "liner_length":
            continue
        with typed_at(field):
            sizes[field] = parse_length(text, unit, confirmed=True).value_um
        if not 0 < sizes[field] <= LONGEST_UM:
            raise Refused("Levels follow from this size: type it above zero, and up to 10 m.", field)
    cylinder = Cylinder(wanted.construction, sizes["bore"], sizes["bore_pitch"], wanted.in_row,
                        sizes.get("liner_length"))  # fmt: skip
    return propose_pattern(cylinder, wanted.quantity, wanted.risk)


def list_cards(conn: Conn) -> list[tuple[CardVersion, SpecCard]]:
    """Return the newest version of every card."""
    return spec_cards.list_newest_cards(conn)


def list_versions(conn: Conn, spec_card_id: UUID) -> list[tuple[CardVersion, SpecCard]]:
    """Return all versions of one card, newest first."""
    return spec_cards.list_versions(conn, spec_card_id)


def _read_and_ask(card: SpecCard, *, confirmed: bool) -> SpecCard:
    """Read a card, and ask back where a slip of unit, point or sign would explain a length, unless it is confirmed."""
    read = read_card(card)
    odd = () if confirmed else tuple(unlikely_lengths(read))
    if odd:
        count = f"{len(odd)} fields are" if len(odd) > 1 else "One field is"
        raise Refused(
            f"{count} asked about: put it right, or save the card as typed.",
            code=RefusalCode.ASKS,
            suggestions=(Suggestion("Save it as typed", "", confirm=True),),
            problems=tuple((one.field, one.message) for one in odd),
        )
    return read


def add_card(conn: Conn, card: SpecCard, saved_by: UUID, confirmed: bool = False) -> UUID:
    """Save the first version of a new card."""
    read = _read_and_ask(card, confirmed=confirmed)
    card_id = spec_cards.add_card(conn)
    spec_cards.add_version(conn, card_id, 1, read, saved_by)
    return card_id


def save_version(
    conn: Conn, spec_card_id: UUID, based_on_version: int, card: SpecCard, saved_by: UUID, confirmed: bool = False
) -> UUID:
    """Save a card as its next version; refused when somebody saved one meanwhile."""
    read = _read_and_ask(card, confirmed=confirmed)
    spec_cards.lock_card(conn, spec_card_id)
    versions = spec_cards.list_versions(conn, spec_card_id)
    if not versions:
        raise Refused("There is no such spec card.", "spec_card_id")
    newest = versions[0][0]
    if newest.version != based_on_version:
        raise Refused(
            f"{newest.saved_by} saved version {newest.version} while you were editing version {based_on_version}: "
            "save yours on top of it, or take theirs.",
            "based_on_version",
            RefusalCode.STALE,
        )
    return spec_cards.add_version(conn, spec_card_id, newest.version + 1, read, saved_by)


def choose_version(
    conn: Conn, job_id: UUID, spec_card_version_id: UUID, chosen_by: UUID, only_preview: bool, reason: str = ""
) -> tuple[ChangedState, ...]:
    """Judge a job by another card version, and list every state that changes with it."""
    jobs.lock_job(conn, job_id)
    facts = load_job_facts(conn, job_id)
    version, card = spec_cards.get_version(conn, spec_card_version_id)
    if card.layout.holes != len(facts.holes):
        raise Refused(
            f"That card is for {card.layout.holes} holes, this block has {len(facts.holes)}: choose another card.",
            "spec_card_version_id",
        )
    changed = changed_states(facts, replace(facts, card=card, card_version=version))
    if not only_preview:
        engine = facts.cards_chosen[0].engine
        is_other = version.spec_card_id != facts.card_version.spec_card_id
        if is_other and not is_same_engine(card.engine, engine) and not reason.strip():
            raise Refused(
                f"That card is for the {card.engine}, this job for the {engine}: limits are not borrowed from another "
                "engine. Where it is to be so, type the reason: it stands on the tape.",
                "reason",
            )
        record_fact(conn, NewCardChosen(job_id, spec_card_version_id, reason.strip()), chosen_by)
    return changed


def is_same_engine(one: str, other: str) -> bool:
    """Tell whether two cards name one engine, however it is spaced and capitalised."""
    return one.casefold().split() == other.casefold().split()
