"""Diameters told per side. A diameter has two sides, by definition; 1 in = 25.4 mm exactly, 1959."""

from decimal import Decimal

import pytest

from vallostasis.core.errors import NotationError
from vallostasis.core.notation.typed_lengths import ExpectedRange, as_entered, parse_diameter, parse_length


def test_a_diameter_told_per_side_is_doubled() -> None:
    """A diameter has two sides; 1 thou = 25.4 µm, 1959."""
    told = parse_diameter("2 thou per side", "mm")
    assert (told.value_um, told.number, told.unit, told.typed) == (Decimal("101.6"), 4, "thou", "2 thou per side")
    assert parse_diameter("0.02/side", "mm").value_um == 40
    assert parse_diameter("-1 1/2 each side", "thou").value_um == Decimal("-76.2")
    assert parse_diameter("0.02", "mm") == parse_length("0.02", "mm")
    # What is asked about is the diameter, not the side.
    window = ExpectedRange(Decimal(-50), Decimal(50))
    assert parse_diameter("0.025 per side", "mm", window).value_um == 50
    with pytest.raises(NotationError):
        parse_diameter("0.026 per side", "mm", window)
    with pytest.raises(NotationError, match="“per” is not understood"):
        parse_length("2 thou per side", "mm")


def test_a_length_told_per_side_is_written_with_its_unit() -> None:
    assert as_entered("0.02 per side", "mm") == "0.02 mm per side"
    assert as_entered("2 per side", "0.01 mm") == "2 × 0.01 mm per side"
    assert as_entered("2 thou per side", "mm") == "2 thou per side"
