"""Slips of unit, point and sign where a length is typed; whole sizes typed where a deviation is meant.

Common practice, no published source; 1 in = 25.4 mm exactly.
"""

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vallostasis.core.errors import NotationError
from vallostasis.core.features.usual_lengths import (
    GAUGE_STEP,
    PROTRUSION,
    SHIM,
    ask_if_below_step,
    usual_of,
    whole_size_of,
)
from vallostasis.core.notation.lengths import Unit
from vallostasis.core.notation.typed_lengths import ParsedLength, likelier_readings, parse_length
from vallostasis.core.records.rows import Quantity

RING_5_INCH = Decimal(127_000)


def _typed(text: str, bare: Unit = "thou") -> ParsedLength:
    return parse_length(text, bare, None, confirmed=True)


@pytest.mark.parametrize(
    ("text", "bare", "usual", "offered"),
    [
        (".003", "thou", SHIM, "0.003 inch"),
        (".0005", "thou", GAUGE_STEP, "0.0005 inch"),
        ("0.2", "µm", SHIM, "0.2 mm"),
        ("3", "inch", SHIM, "3 thou"),
    ],
)
def test_a_length_in_another_unit_is_asked_about_with_what_was_meant(
    text: str, bare: Unit, usual: object, offered: str
) -> None:
    with pytest.raises(NotationError, match="far from what is expected") as asked:
        parse_length(text, bare, usual)  # type: ignore[arg-type]
    assert offered in [one.text for one in asked.value.suggestions]


@given(st.integers(10, 6000))
def test_what_is_usual_is_never_asked_about_and_every_slip_of_it_names_it(um: int) -> None:
    """A shim of so many µm, typed right and typed with the unit or the point wrong."""
    assert parse_length(f"{um} µm", "mm", SHIM).value_um == um
    slips = [_typed(f"{um} mm"), _typed(f"{Decimal(um) / 1000:f} µm")]
    slips += [_typed(f"{Decimal(um) * times:f} µm") for times in (Decimal(10), Decimal("0.1"), Decimal(-1))]
    for typed in slips:
        assert Decimal(um) in [value for _, value in likelier_readings(typed, SHIM)], typed


@pytest.mark.parametrize(("text", "asks"), [("0.0035", True), ("-0.01", True), ("0", False), ("0.05", False)])
def test_less_than_half_a_step_is_asked_about(text: str, asks: bool) -> None:
    """A gauge with steps of a tenth, 2.54 µm, in a field of thou: half a step, 0.05, can be read; 0.0035 cannot."""
    if not asks:
        return ask_if_below_step(_typed(text), Decimal("2.54"), PROTRUSION)
    with pytest.raises(NotationError, match="less than this gauge can show") as asked:
        ask_if_below_step(_typed(text), Decimal("2.54"), PROTRUSION)
    assert asked.value.suggestions[-1].confirm
    if text == "0.0035":
        assert "0.0035 inch" in [one.text for one in asked.value.suggestions]
    return None


def test_the_whole_size_is_understood_where_a_deviation_is_meant() -> None:
    """5.0003 on a ring of 5.000 in is 0.3 thou over it; 127.01 mm is 10 µm over it."""
    size = whole_size_of(_typed("5.0003"), RING_5_INCH)
    assert size is not None
    assert (size.value_um, size.unit, size.number) == (Decimal("7.62"), "inch", Decimal("5.0003"))
    assert whole_size_of(_typed("127.01", "0.01 mm"), RING_5_INCH).value_um == Decimal(10)  # type: ignore[union-attr]
    assert whole_size_of(_typed("4.9990 in"), RING_5_INCH).value_um == Decimal("-25.4")  # type: ignore[union-attr]


@pytest.mark.parametrize("text", ["0.3", "-1.5", "4.25 thou", "0.01 mm", "50"])
def test_a_deviation_stays_one(text: str) -> None:
    assert whole_size_of(_typed(text), RING_5_INCH) is None


def test_five_on_a_ring_of_five_inches_is_asked_about() -> None:
    with pytest.raises(NotationError, match="the whole size, or 5 thou off") as asked:
        whole_size_of(_typed("5"), RING_5_INCH)
    assert [one.text for one in asked.value.suggestions] == ["5 inch", "5 thou"]


@pytest.mark.parametrize(
    ("quantity", "inside_um", "outside_um"),
    [
        (Quantity.BLOCK_BORE, 100_000, 3_937),
        (Quantity.LINER_OUTSIDE, 104_000, 254_000),
        (Quantity.PROTRUSION, 100, 25_400),
        (Quantity.DECK_FLATNESS, -30, 100_000),
    ],
)
def test_what_is_usual_where_the_card_says_nothing(quantity: Quantity, inside_um: int, outside_um: int) -> None:
    """A bore of 100 mm typed in inches, a liner 10 × its size, a protrusion in inches for thou."""
    usual = usual_of(quantity, Decimal(100_000))
    assert usual is not None
    assert usual.least_um <= inside_um <= usual.greatest_um
    assert not usual.least_um <= outside_um <= usual.greatest_um


def test_nothing_is_usual_of_a_trial_fit_or_a_main_bore() -> None:
    assert usual_of(Quantity.TRIAL_FIT, Decimal(100_000)) is None
    assert usual_of(Quantity.MAIN_BORE, Decimal(100_000)) is None
