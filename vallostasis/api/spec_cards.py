"""Spec cards: every version with its sources, and saving a new one."""

from decimal import Decimal
from uuid import UUID

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.deps import Conn, LengthText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.layout_models import LayoutView, layout_fields
from vallostasis.core.features.catalogue import feature_of
from vallostasis.core.features.plan import Risk, blind_spots
from vallostasis.core.records.rows import CardVersion, Quantity
from vallostasis.core.records.spec_card import CardUnit, Construction, SpecCard
from vallostasis.core.spec_cards.asked_first import AskedKind, asked_first
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
    confirmed: bool = Field(False, description="True when lengths that look like slips are meant as typed.")
    person_id: UUID


class CardSaved(BaseModel):
    """Where a card was saved."""

    spec_card_id: UUID


class PlanBody(BaseModel):
    """What a measuring plan is wanted for; sizes as typed on the card."""

    quantity: Quantity
    construction: Construction
    unit: CardUnit
    bore: LengthText
    bore_pitch: LengthText
    liner_length: LengthText = ""
    in_row: int = Field(ge=1, le=16, description="Bores in a row of the deck.")
    risk: Risk = Risk.USUAL


class PlannedLevel(BaseModel):
    """A level that is proposed, written as a card writes it."""

    name: str
    typed: str


class PlanView(BaseModel):
    """Levels, axes and grid that are proposed, and what they cannot see."""

    levels: list[PlannedLevel]
    axes_deg: list[float]
    hours: list[float]
    along: list[str]
    across: list[str]
    blind: list[str]


@router.post("/plans")
def propose_plan(body: PlanBody) -> PlanView:
    """Propose where to read a feature, from the kind of cylinder and the risk; nothing is stored."""
    pattern = spec_cards.propose_plan(spec_cards.PlanWanted(**body.model_dump()))

    def typed(length_um: Decimal) -> str:
        size = length_um / (1000 if body.unit is CardUnit.MM else 25400)
        return f"{round(size, 0 if body.unit is CardUnit.MM else 2).normalize():f}"

    return PlanView(
        levels=[PlannedLevel(name=level.name, typed=typed(level.depth_um)) for level in pattern.levels],
        axes_deg=list(pattern.axes_deg),
        hours=list(pattern.hours),
        along=[typed(one) for one in pattern.along_um],
        across=[typed(one) for one in pattern.across_um],
        blind=list(blind_spots(feature_of(body.quantity), pattern)),
    )


class AskedView(BaseModel):
    """A field that a card is asked first."""

    path: str
    label: str
    kind: AskedKind


@router.get("/asked-first")
def list_asked_first() -> dict[Construction, list[AskedView]]:
    """Return what a plan needs of a card, by how the engine is lined."""
    return {
        one: [AskedView(path=field.path, label=field.label, kind=field.kind) for field in asked_first(one)]
        for one in Construction
    }


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
    """Save a new card; 422 names every field to put right, 409 asks about what looks like a slip."""
    return CardSaved(spec_card_id=spec_cards.add_card(conn, body.card, body.person_id, body.confirmed))


@router.post("/{spec_card_id}/versions", status_code=201)
def save_version(spec_card_id: UUID, body: CardBody, conn: Conn) -> CardSaved:
    """Save a card as its next version; 409 when somebody saved one meanwhile."""
    spec_cards.save_version(conn, spec_card_id, body.based_on_version, body.card, body.person_id, body.confirmed)
    return CardSaved(spec_card_id=spec_card_id)
