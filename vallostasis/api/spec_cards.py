"""Spec cards: every version with its sources, and saving a new one."""

from uuid import UUID

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.deps import Conn
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.layout_models import LayoutView, layout_fields
from vallostasis.core.records import CardVersion
from vallostasis.core.spec_card import SpecCard
from vallostasis.services import spec_cards
from vallostasis.store.rows import NotFound

router = APIRouter(prefix="/api/spec-cards", tags=["spec cards"], responses=ERROR_RESPONSES)


class CardSummary(BaseModel):
    """A card in the list."""

    version: CardVersion
    name: str
    engine: str
    layout: LayoutView


class CardWithVersions(BaseModel):
    """All versions of a card, newest first."""

    versions: list[CardVersion]
    cards: list[SpecCard]


class CardBody(BaseModel):
    """A card to save; of each length only the text as typed is read."""

    card: SpecCard
    based_on_version: int = Field(0, ge=0, le=1_000_000, description="Version it was edited from; 0 for a new card.")
    person_id: UUID


class CardSaved(BaseModel):
    """Where a card was saved."""

    spec_card_id: UUID


@router.get("")
def list_cards(conn: Conn) -> list[CardSummary]:
    """Return the newest version of every card."""
    return [
        CardSummary(
            version=version,
            name=card.name,
            engine=card.engine,
            layout=LayoutView(**layout_fields(card.layout)),
        )
        for version, card in spec_cards.list_cards(conn)
    ]


@router.get("/{spec_card_id}")
def read_card(spec_card_id: UUID, conn: Conn) -> CardWithVersions:
    """All versions of one card, newest first."""
    versions = spec_cards.list_versions(conn, spec_card_id)
    if not versions:
        raise NotFound("spec card", spec_card_id)
    return CardWithVersions(versions=[v for v, _ in versions], cards=[c for _, c in versions])


@router.post("", status_code=201)
def add_card(body: CardBody, conn: Conn) -> CardSaved:
    """Save a new card; 422 names every field to put right."""
    return CardSaved(spec_card_id=spec_cards.add_card(conn, body.card, body.person_id))


@router.post("/{spec_card_id}/versions", status_code=201)
def save_version(spec_card_id: UUID, body: CardBody, conn: Conn) -> CardSaved:
    """Save a card as its next version; 409 when somebody saved one meanwhile."""
    spec_cards.save_version(conn, spec_card_id, body.based_on_version, body.card, body.person_id)
    return CardSaved(spec_card_id=spec_card_id)
