"""Spec cards made up for tests of the core: no demo, no parser of forms."""

from dataclasses import replace
from decimal import Decimal

from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import (
    NO_LIMIT,
    Arrangement,
    CardLevel,
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


def _inch(text: str) -> Length:
    return Length(text, Decimal(text) * 25_400)


def _inches(text: str) -> Limit:
    return Limit(_inch(text), "made up for a test", SourceStatus.OWN_EXPERIENCE)


def _thou(text: str) -> Limit:
    return Limit(Length(text, Decimal(text) * Decimal("25.4")), "made up for a test", SourceStatus.OWN_EXPERIENCE)


def _depths(*named: tuple[str, str]) -> tuple[CardLevel, ...]:
    return tuple(CardLevel(name, _inch(depth)) for name, depth in named)


def twin_card() -> SpecCard:
    """An inch twin of flanged dry sleeves with a sheet for everything that tests survey."""
    axes = (0.0, 45.0, 90.0, 135.0)
    bore = _depths(("top", "0.6"), ("ring travel", "2.2"), ("middle", "4.7"), ("below", "7.3"), ("bottom", "8.9"))
    outside = _depths(("top", "0.7"), ("upper", "2.6"), ("middle", "4.7"), ("lower", "6.8"), ("bottom", "8.8"))
    points = tuple(_inch(one) for one in ("0", "6.5", "13")), tuple(_inch(one) for one in ("-3", "0", "3"))
    sheets = (
        FeatureSheet(Quantity.BLOCK_BORE, _inches("5"), _inches("4.999"), _inches("5.001"), _thou("1"), _thou("1"),
                     bore, axes),
        FeatureSheet(Quantity.LINER_OUTSIDE, _inches("5.001"), _inches("5.0005"), _inches("5.0025"), _thou("0.6"),
                     levels=outside, axes_deg=axes),
        FeatureSheet(Quantity.MAIN_BORE, _inches("2.625"), _inches("2.625"), _inches("2.626"),
                     levels=_depths(("middle of the web", "0")), axes_deg=(45.0, 90.0, 135.0)),
        FeatureSheet(Quantity.PISTON_SKIRT, _inches("4.7445"), _inches("4.744"), _inches("4.745"),
                     levels=_depths(("below the pin", "2.5"), ("bottom", "4.1")), axes_deg=(0.0, 90.0)),
        FeatureSheet(Quantity.DECK_FLATNESS, greatest=_thou("2"), along=points[0], across=points[1]),
        FeatureSheet(Quantity.TRIAL_FIT, _inches("9.5")),
    )  # fmt: skip
    return dry_card(*sheets, construction=Construction.DRY_FLANGED, unit=CardUnit.INCH, main_bores=3, shims=(),
                    piston_material="cast iron", liner_material="cast iron")  # fmt: skip
