"""What contradicts itself on a spec card, field by field."""

from collections.abc import Iterator
from dataclasses import fields

from vallostasis.core.records.spec_card import (
    Arrangement,
    FieldProblem,
    Layout,
    Limit,
    Limits,
    SourceStatus,
    SpecCard,
    hole_numbers,
)

NAME_THE_SOURCE = "A limit from the specification names its book, edition and page: type the source."


def check_card(card: SpecCard) -> tuple[FieldProblem, ...]:
    """Find what contradicts itself on a card, field by field; nothing found means it can be saved."""
    return (*_layout_problems(card.layout), *_limit_problems(card.limits), *_measuring_problems(card))


def _layout_problems(layout: Layout) -> Iterator[FieldProblem]:
    if not 1 <= layout.holes <= 16:
        yield FieldProblem("layout.holes", "A block has 1 to 16 holes: type the number of holes.")
        return
    grouped = [hole for head in layout.heads for hole in head]
    if sorted(grouped) != list(range(1, layout.holes + 1)):
        yield FieldProblem(
            "layout.heads", f"Every hole from 1 to {layout.holes} stands under exactly one head: list each once."
        )
    if layout.arrangement is Arrangement.V and layout.bank_angle_deg is None:
        yield FieldProblem("layout.bank_angle_deg", "A V block needs its bank angle: type it in degrees.")
    if layout.bank_angle_deg is not None and not 0 < layout.bank_angle_deg <= 180:
        yield FieldProblem("layout.bank_angle_deg", "Banks stand above 0 and up to 180 degrees apart.")
    numbered = sorted(hole for bank in layout.banks for hole in bank)
    if layout.arrangement is Arrangement.V and (len(layout.banks) != 2 or numbered != list(range(1, layout.holes + 1))):
        yield FieldProblem(
            "layout.banks",
            f"List the holes 1 to {layout.holes} of two banks from the front, such as 1 3 5 7 / 2 4 6 8.",
        )
    for name in ("bore_pitch", "bore"):
        if getattr(layout, name).um <= 0:
            yield FieldProblem(f"layout.{name}", "This drives the drawing: type a size above zero.")


def _limit_problems(limits: Limits) -> Iterator[FieldProblem]:
    pairs = (
        ("least_without_shim", "greatest_without_shim"),
        ("least_with_shim", "greatest_with_shim"),
        ("least_with_shim", "target_with_shim"),
        ("target_with_shim", "greatest_with_shim"),
        ("head_average_least", "head_average_greatest"),
    )
    for low_name, high_name in pairs:
        low, high = getattr(limits, low_name).metres, getattr(limits, high_name).metres
        if low is not None and high is not None and low >= high:
            yield FieldProblem(
                f"limits.{high_name}", f"This must be greater than the {low_name.replace('_', ' ')}: check both."
            )
    for name in ("variation_round", "neighbour_difference"):
        value = getattr(limits, name).metres
        if value is not None and value < 0:
            yield FieldProblem(f"limits.{name}", "A difference cannot be negative: type its size.")
    for field in fields(limits):
        limit: Limit = getattr(limits, field.name)
        if limit.length is not None and limit.status is SourceStatus.SPECIFICATION and not limit.source.strip():
            yield FieldProblem(
                f"limits.{field.name}",
                NAME_THE_SOURCE,
            )


def _measuring_problems(card: SpecCard) -> Iterator[FieldProblem]:
    hours = card.measuring.required_hours
    if not hours or len(set(hours)) != len(hours) or not all(0 < hour <= 12 for hour in hours):
        yield FieldProblem(
            "measuring.required_hours", "List each clock position once, from 1 to 12, for example 12, 3, 6, 9."
        )
    if card.measuring.land not in [land.name for land in card.lands]:
        yield FieldProblem("measuring.land", "Protrusion is read on a named land: choose one of the card's lands.")
    for index, shim in enumerate(card.shims):
        if shim.thickness.um <= 0:
            yield FieldProblem(f"shims.{index}.thickness", "A shim is thicker than nothing: type its thickness.")
        if shim.stock < 0:
            yield FieldProblem(f"shims.{index}.stock", "Stock cannot be negative: type how many lie on the shelf.")
    for index, one in enumerate(card.obstructions):
        if one.hole not in hole_numbers(card):
            yield FieldProblem(f"obstructions.{index}.hole", f"This block has no hole {one.hole}: type one it has.")
        if not (0 < one.from_hour <= 12 and 0 < one.until_hour <= 12):
            yield FieldProblem(f"obstructions.{index}.from_hour", "Say from which clock position to which, 1 to 12.")
    if card.clearance_volume_cm3 is not None and not 0 < card.clearance_volume_cm3 < 100_000:
        yield FieldProblem("clearance_volume_cm3", "A clearance volume is above nought: type it in cm³.")
    for name in ("graduation", "stop_accuracy"):
        if getattr(card.cutter, name).um <= 0:
            yield FieldProblem(f"cutter.{name}", "This is needed to plan a cut: type a value above zero.")
    if not 1 <= card.coverage_factor <= 4:
        yield FieldProblem("coverage_factor", "The coverage factor k is between 1 and 4, usually 2.")
