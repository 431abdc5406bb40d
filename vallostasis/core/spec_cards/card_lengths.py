"""The lengths typed on a spec card: which unit a bare number takes at each field, and what cannot be meant.

Units of bare numbers: common practice, no published source; what is refused: house rules.
"""

from collections.abc import Iterator
from dataclasses import fields, is_dataclass, replace
from decimal import Decimal
from typing import Any

from vallostasis.core.errors import NotationError
from vallostasis.core.features.catalogue import feature_of
from vallostasis.core.features.plan import check_features
from vallostasis.core.notation.lengths import Unit
from vallostasis.core.notation.typed_lengths import parse_diameter, parse_length
from vallostasis.core.records.card_checks import check_card
from vallostasis.core.records.spec_card import CardUnit, FieldProblem, Length, SpecCard

# Which fields of a card are sizes; everything else is a small length, in thou on an inch card.
SIZES = (
    "layout.bore_pitch",
    "layout.bore",
    "layout.bank_offset",
    "seat.flange_nominal",
    "seat.counterbore_nominal",
    "seat.ledge",
    "seat.sealing_land",
    "stroke",
    "bores.ring_",
    "bores.wall",
    "bores.least_wall",
    "fits.boss_outside",
    "fits.liner_length",
    "fits.liner_inside",
    "fits.lead_in",
    "fits.least_liner_wall",
    "fits.least_boss_wall",
    "fits.seat_depth",
    "conversion.least_flange",
    "conversion.upper_register",
    "conversion.lower_register",
    "conversion.register_length",
    "conversion.insert_inside",
    "conversion.rod_",
    "conversion.big_end",
    "conversion.crank_",
    "conversion.stud_",
    "conversion.compound_band",
    "conversion.seals",
)
LONGEST_FIELD = 400
LONGEST_UM = Decimal(10_000_000)


def bare_unit(card: SpecCard, field: str) -> Unit:
    """Return the unit that a bare number takes at a field of a card. Common practice, no published source."""
    if card.unit is CardUnit.MM:
        return "mm"
    return "inch" if field.startswith((*SIZES, *_row_sizes(card))) else "thou"


def _row_sizes(card: SpecCard) -> Iterator[str]:
    """Fields of rows that are sizes: widths of lands, places of features, limits where a feature itself is a size."""
    yield from (f"lands.{index}.width" for index in range(len(card.lands)))
    for index, sheet in enumerate(card.features):
        names = ["levels", "along", "across"]
        if feature_of(sheet.quantity).is_size:
            names += ["nominal", "least", "greatest"]
        yield from (f"features.{index}.{name}" for name in names)


def read_typed_card(card: SpecCard) -> tuple[SpecCard, tuple[FieldProblem, ...]]:
    """Read every length typed on a card; return it with what has to be put right before it can be kept. House rules."""
    problems: list[FieldProblem] = []
    if not card.name.strip():
        problems.append(FieldProblem("name", "Give the card a name: it is chosen by it when an engine is taken in."))
    read: SpecCard = _read(card, "", card, problems)
    if not problems:
        problems += [*check_card(read), *check_features(read)]
    return read, tuple(problems)


def _read(value: Any, path: str, card: SpecCard, problems: list[FieldProblem]) -> Any:  # noqa: ANN401
    """Walk a card: parse its lengths, and find text and numbers that cannot be kept."""
    if isinstance(value, Length):
        return _read_length(value, path, card, problems)
    if is_dataclass(value) and not isinstance(value, type):
        read = {f.name: _read(getattr(value, f.name), _join(path, f.name), card, problems) for f in fields(value)}
        return replace(value, **read)
    if isinstance(value, tuple):
        return tuple(_read(item, _join(path, str(index)), card, problems) for index, item in enumerate(value))
    if isinstance(value, str) and type(value) is str:
        if len(value) > LONGEST_FIELD:
            problems.append(FieldProblem(path, f"Too long: type at most {LONGEST_FIELD} characters."))
        if not all(c.isprintable() or c == "\n" for c in value):
            problems.append(FieldProblem(path, "A character here cannot be kept: type the text again."))
    if isinstance(value, float | Decimal) and not abs(float(value)) < 1e9:
        problems.append(FieldProblem(path, "This is no number that can be kept: type it again."))
    return value


def _join(path: str, name: str) -> str:
    return f"{path}.{name}" if path else name


def _read_length(length: Length, path: str, card: SpecCard, problems: list[FieldProblem]) -> Length:
    field = path.removesuffix(".length")
    try:
        reads = parse_diameter if _is_form(field) else parse_length
        parsed = reads(length.typed, bare_unit(card, field), confirmed=True)
    except NotationError as error:
        problems.append(FieldProblem(field, str(error)))
        return length
    if abs(parsed.value_um) > LONGEST_UM:
        problems.append(FieldProblem(field, "No part of an engine is longer than 10 m: check number and unit."))
    return Length(length.typed.strip(), parsed.value_um)


def _is_form(field: str) -> bool:
    """Whether a field takes a difference of diameters, which people also tell per side."""
    return field.startswith("features.") and field.endswith((".out_of_round", ".taper"))
