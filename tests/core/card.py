"""Spec cards made up for tests of the core: no demo, no parser of forms."""

from dataclasses import replace
from decimal import Decimal

from vallostasis.core.spec_card import (
    NO_LIMIT,
    Arrangement,
    CardUnit,
    Construction,
    Cutter,
    FeatureSheet,
    Land,
    Layout,
    Length,
    Limit,
    Limits,
    Measuring,
    Seat,
    ShimSize,
    SourceStatus,
    SpecCard,
)

FLAT, LIP = "flat land", "lip"


def length(mm: str) -> Length:
    """A length written in mm."""
    return Length(mm, Decimal(mm) * 1000)


def limit(mm: str | None) -> Limit:
    """A limit written in mm; None for none."""
    return NO_LIMIT if mm is None else Limit(length(mm), "made up for a test", SourceStatus.OWN_EXPERIENCE)


def wet_card(holes: int = 6, heads: tuple[tuple[int, ...], ...] = ((1, 2, 3), (4, 5, 6))) -> SpecCard:
    """An engine of wet liners with a top flange, in line."""
    return SpecCard(
        name="Made up",
        engine="Made up 6W",
        unit=CardUnit.MM,
        construction=Construction.WET_TOP_FLANGE,
        block_material="grey iron",
        liner_material="centrifugally cast iron",
        layout=Layout(Arrangement.IN_LINE, holes, heads, "number one at the front", "the exhaust side", length("168"),
                      length("128")),
        limits=Limits(limit("0.050"), limit("0.125"), limit("0.075"), limit("0.125"), limit("0.100"), limit("0.040"),
                      limit("0.050"), NO_LIMIT, NO_LIMIT),
        seat=Seat(limit("8.900"), limit("8.815"), limit("6.0"), limit("5.2"), limit("0.025")),
        measuring=Measuring(FLAT, "deck", (), "bar", None, (12.0, 3.0, 6.0, 9.0)),
        lands=(Land(FLAT, length("0")), Land(LIP, length("0.090"))),
        shims=(
            ShimSize(length("0.10"), 2), ShimSize(length("0.15"), 0), ShimSize(length("0.20"), 3),
            ShimSize(length("0.25"), 3), ShimSize(length("0.50"), 1),
        ),
        cutter=Cutter("cutter", length("0.020"), length("0.025")),
    )  # fmt: skip


def dry_card(*sheets: FeatureSheet, **fields: object) -> SpecCard:
    """A twin of dry sleeves, with sheets for what is surveyed."""
    card = wet_card(2, ((1, 2),))
    card = replace(card, construction=Construction.DRY_PLAIN, features=sheets)
    return replace(card, **fields)  # type: ignore[arg-type]
