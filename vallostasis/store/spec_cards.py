"""Spec cards: every saved version is kept whole, as one document."""

from dataclasses import dataclass
from datetime import datetime
from functools import lru_cache
from uuid import UUID

from psycopg.types.json import Jsonb
from pydantic import TypeAdapter

from vallostasis.core.records.rows import CardVersion
from vallostasis.core.records.spec_card import SpecCard
from vallostasis.store.changes import announce
from vallostasis.store.rows import Conn, fetch_all, fetch_one

CARD = TypeAdapter(SpecCard)
COLUMNS = """
    v.spec_card_version_id, v.spec_card_id, v.version, v.saved_at, p.name AS saved_by, v.card::text AS card
"""
FROM = "spec_card_version v JOIN person p ON p.person_id = v.saved_by"


@dataclass(frozen=True, slots=True)
class _Row:
    spec_card_version_id: UUID
    spec_card_id: UUID
    version: int
    saved_at: datetime
    saved_by: str
    card: str


@lru_cache(maxsize=256)
def _card(document: str) -> SpecCard:
    """A card as it is written: a job is read again with every change to it, and its card is the same."""
    return CARD.validate_json(document)


def _typed(row: _Row) -> tuple[CardVersion, SpecCard]:
    version = CardVersion(row.spec_card_version_id, row.spec_card_id, row.version, row.saved_at, row.saved_by)
    return version, _card(row.card)


def list_newest_cards(conn: Conn) -> list[tuple[CardVersion, SpecCard]]:
    """Return the newest version of every card."""
    query = f"""
        SELECT DISTINCT ON (v.spec_card_id) {COLUMNS}
          FROM {FROM}
         ORDER BY v.spec_card_id, v.version DESC
    """
    return [_typed(row) for row in fetch_all(conn, _Row, query)]


def list_versions(conn: Conn, spec_card_id: UUID) -> list[tuple[CardVersion, SpecCard]]:
    """Return all versions of one card, newest first."""
    query = f"SELECT {COLUMNS} FROM {FROM} WHERE v.spec_card_id = %(spec_card_id)s ORDER BY v.version DESC"
    return [_typed(row) for row in fetch_all(conn, _Row, query, {"spec_card_id": spec_card_id})]


def get_version(conn: Conn, spec_card_version_id: UUID) -> tuple[CardVersion, SpecCard]:
    """Return one version; raise NotFound if there is none with that id."""
    query = f"SELECT {COLUMNS} FROM {FROM} WHERE v.spec_card_version_id = %(version_id)s"
    return _typed(fetch_one(conn, _Row, query, {"version_id": spec_card_version_id}, "spec card version"))


def as_document(card: SpecCard) -> Jsonb:
    """Write a card as the document in which it is kept."""
    return Jsonb(CARD.dump_python(card, mode="json"))


def add_card(conn: Conn) -> UUID:
    """Add a card without a version yet."""
    return UUID(str(conn.execute("INSERT INTO spec_card DEFAULT VALUES RETURNING spec_card_id").fetchone()[0]))  # type: ignore[index]


def lock_card(conn: Conn, spec_card_id: UUID) -> None:
    """Hold a card until the transaction ends, so that two people cannot save its next version at once."""
    conn.execute("SELECT 1 FROM spec_card WHERE spec_card_id = %(card_id)s FOR UPDATE", {"card_id": spec_card_id})


def add_version(conn: Conn, spec_card_id: UUID, version: int, card: SpecCard, saved_by: UUID) -> UUID:
    """Save the next version of a card."""
    query = """
        INSERT INTO spec_card_version (spec_card_id, version, card, saved_by)
        VALUES (%(spec_card_id)s, %(version)s, %(card)s, %(saved_by)s)
        RETURNING spec_card_version_id
    """
    params = {
        "spec_card_id": spec_card_id,
        "version": version,
        "card": as_document(card),
        "saved_by": saved_by,
    }
    announce(conn, None)
    return UUID(str(conn.execute(query, params).fetchone()[0]))  # type: ignore[index]
