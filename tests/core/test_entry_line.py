"""The entry line: which hole, which position, which value."""

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vallostasis.core.errors import NotationError
from vallostasis.core.notation.entry_line import Position, parse_entry_line

HOLES = (1, 2, 3, 4, 5, 6)
NOWHERE = Position(None, None)


@pytest.mark.parametrize(
    ("line", "present", "hole", "hour", "um"),
    [
        ("5 6h 1.6", NOWHERE, 5, 6.0, "16"),
        ("hole 5 at 6h 1.6", NOWHERE, 5, 6.0, "16"),
        ("6h -2", Position(3, 12.0), 3, 6.0, "-20"),
        ("+1.5", Position(3, 12.0), 3, 12.0, "15"),
        ("5 12h 2 thou", NOWHERE, 5, 12.0, "50.8"),
        ("2 10.5h 3", NOWHERE, 2, 10.5, "30"),
        ("1 12h 1 sunk", NOWHERE, 1, 12.0, "-10"),
    ],
)
def test_a_line_is_understood(line: str, present: Position, hole: int, hour: float, um: str) -> None:
    read = parse_entry_line(line, present, HOLES, "0.01 mm")
    assert (read.position.hole, read.position.hour) == (hole, hour)
    assert read.reading is not None
    assert read.reading.value_um == Decimal(um)


@pytest.mark.parametrize(("line", "present"), [("5", NOWHERE), ("5", Position(2, None)), ("#5", Position(2, 6.0)),
                                               ("# 5", NOWHERE), ("hole 5", Position(2, 6.0))])  # fmt: skip
def test_a_hole_is_chosen_by_its_number(line: str, present: Position) -> None:
    read = parse_entry_line(line, present, HOLES, "thou")
    assert read.position == Position(5, None)
    assert read.reading is None


@pytest.mark.parametrize("digits", ["1", "4", "6", "12"])
def test_digits_at_a_position_that_is_shown_are_a_reading(digits: str) -> None:
    """Told by a user: at hole 1 at 3 h, 4 and Enter jumped to hole 4 and dropped the reading."""
    read = parse_entry_line(digits, Position(1, 3.0), HOLES, "thou")
    assert read.position == Position(1, 3.0)
    assert read.reading is not None
    assert read.reading.value_um == Decimal(digits) * Decimal("25.4")


def test_a_hole_that_is_not_there_is_named() -> None:
    with pytest.raises(NotationError, match="There is no hole 9"):
        parse_entry_line("#9", Position(2, 6.0), HOLES, "thou")
    assert parse_entry_line("#5 6h 1.6", Position(2, 3.0), HOLES, "thou").position == Position(5, 6.0)


def test_a_number_that_is_no_hole_is_a_reading() -> None:
    read = parse_entry_line("7", Position(2, 6.0), HOLES, "thou")
    assert read.reading is not None
    assert read.position == Position(2, 6.0)


def test_five_and_a_half_or_hole_five_is_asked() -> None:
    with pytest.raises(NotationError, match="two ways") as asked:
        parse_entry_line("5 1/2", Position(2, 6.0), HOLES, "thou")
    first, second = (parse_entry_line(s.text, Position(2, 6.0), HOLES, "thou") for s in asked.value.suggestions)
    assert first.position.hole == 5
    assert second.position.hole == 2
    assert second.reading is not None
    assert second.reading.value_um == Decimal("5.5") * Decimal("25.4")


def test_a_question_about_the_value_keeps_the_position() -> None:
    with pytest.raises(NotationError, match="two units") as asked:
        parse_entry_line("5 6h 2 mil", NOWHERE, HOLES, "thou")
    for suggestion in asked.value.suggestions:
        assert parse_entry_line(suggestion.text, NOWHERE, HOLES, "thou").position == Position(5, 6.0)


@pytest.mark.parametrize(
    ("line", "words"),
    [("9 6h 2", "no hole 9"), ("5 13h 2", "no 13 h"), ("5 6h x", "not understood"), ("", "Nothing was typed")],
)
def test_what_is_not_understood_is_named(line: str, words: str) -> None:
    with pytest.raises(NotationError, match=words):
        parse_entry_line(line, NOWHERE, HOLES, "thou")


@given(hole=st.sampled_from(HOLES), hour=st.integers(1, 12), tenths=st.integers(-999, 999))
def test_every_position_and_value_comes_back(hole: int, hour: int, tenths: int) -> None:
    value = Decimal(tenths) / 10
    read = parse_entry_line(f"{hole} {hour}h {value}", NOWHERE, HOLES, "thou", confirmed=True)
    assert read.position == Position(hole, float(hour))
    assert read.reading is not None
    assert read.reading.value_um == value * Decimal("25.4")


@given(text=st.text(max_size=60))
def test_no_text_breaks_it(text: str) -> None:
    try:
        parse_entry_line(text, NOWHERE, HOLES, "thou")
    except NotationError as refused:
        assert str(refused)
