"""The feature catalogue: what is known of each kind of measured feature, for every screen to follow."""

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.core.features.catalogue import FEATURES, Drawing, Feature, PartKind, PatternKind, is_surveyed
from vallostasis.core.records.rows import Quantity

router = APIRouter(prefix="/api", tags=["features"], responses=ERROR_RESPONSES)


class CardLimitView(BaseModel):
    """A limit that a card can set: its field on the sheet, and what it is called."""

    field: str
    label: str
    is_size: bool = Field(description="Typed as a size; else as a small length.")


class CatalogueRow(BaseModel):
    """One feature as the catalogue describes it."""

    quantity: Quantity
    part: PartKind
    pattern: PatternKind
    is_size: bool
    is_diameter: bool
    is_surveyed: bool = Field(description="Read place by place on a bench of its own.")
    loads: list[str]
    also_loads: list[str]
    methods: list[str]
    limits: list[CardLimitView] = Field(description="None where a card has no sheet of it.")
    drawing: Drawing
    axis_names: tuple[str, str]
    asks_liner: bool

    @classmethod
    def of(cls, feature: Feature) -> "CatalogueRow":
        """Show a row."""
        return cls(
            quantity=feature.quantity,
            part=feature.part,
            pattern=feature.pattern,
            is_size=feature.is_size,
            is_diameter=feature.is_diameter,
            is_surveyed=is_surveyed(feature.quantity),
            loads=list(feature.loads),
            also_loads=list(feature.also_loads),
            methods=list(feature.methods),
            limits=[
                CardLimitView(field=limit.field, label=limit.label, is_size=feature.is_size and limit.is_of_readings)
                for limit in feature.limits
            ],
            drawing=feature.drawing,
            axis_names=feature.axis_names,
            asks_liner=feature.asks_liner,
        )


@router.get("/features")
def read_catalogue() -> list[CatalogueRow]:
    """Every feature that can be measured, in the order of the work."""
    return [CatalogueRow.of(feature) for feature in FEATURES.values()]
