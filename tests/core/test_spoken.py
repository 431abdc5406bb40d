"""Numbers as they are said, and texts that are pasted.

How numbers are said in English, and what a shop means by them: common practice, no published source.
"""

from decimal import Decimal
from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vallostasis.core.errors import NotationError
from vallostasis.core.notation.entry_line import Position, parse_entry_line
from vallostasis.core.notation.pasted import PastedReading, read_pasted
from vallostasis.core.notation.spoken import said_in_digits
from vallostasis.core.notation.typed_lengths import parse_length
from vallostasis.core.records.spec_card import Construction
from vallostasis.core.spec_cards.asked_first import AskedKind, asked_first

HOLES, HOURS = (1, 2, 3, 4, 5, 6), (12.0, 3.0, 6.0, 9.0)
ONES = [
    "zero", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve",
    "thirteen", "fourteen", "fifteen", "sixteen", "seventeen", "eighteen", "nineteen",
]  # fmt: skip
TENS = ["twenty", "thirty", "forty", "fifty", "sixty", "seventy", "eighty", "ninety"]


def said(number: int) -> str:
    """A whole number below a thousand in English words, by the rules of the language."""
    if number < 20:
        return ONES[number]
    if number < 100:
        tens, ones = divmod(number, 10)
        return TENS[tens - 2] + (f"-{ONES[ones]}" if ones else "")
    hundreds, rest = divmod(number, 100)
    return f"{ONES[hundreds]} hundred" + (f" and {said(rest)}" if rest else "")


@pytest.mark.parametrize(
    ("spoken", "unit", "um"),
    [
        ("minus one and a half", "thou", Decimal("-38.1")),
        ("seven tenths", "thou", Decimal("17.78")),
        ("two over", "thou", Decimal("50.8")),
        ("negative seven", "µm", Decimal(-7)),
        ("eight point eight five eight", "mm", Decimal(8858)),
        ("eight point oh five", "mm", Decimal(8050)),
        ("two point five thou", "mm", Decimal("63.5")),
        ("twenty-five", "µm", Decimal(25)),
        ("one hundred and five microns", "mm", Decimal(105)),
        ("1½", "thou", Decimal("38.1")),
        ("three eighths", "inch", Decimal(9525)),
        ("one and three quarters", "thou", Decimal("44.45")),
        ("five sunk", "thou", Decimal(-127)),
        ("fourteen and a half", "µm", Decimal("14.5")),
    ],
)
def test_a_number_is_read_as_it_is_said(spoken: str, unit: str, um: Decimal) -> None:
    assert parse_length(spoken, unit).value_um == um  # type: ignore[arg-type]


def test_the_words_that_were_said_stay_on_record() -> None:
    assert parse_length("minus two", "thou").typed == "minus two"


@given(st.integers(0, 999))
def test_every_whole_number_said_is_that_number(number: int) -> None:
    assert said_in_digits(said(number)) == str(number)


@given(st.integers(0, 99), st.lists(st.integers(0, 9), min_size=1, max_size=4))
def test_digits_after_point_follow_one_by_one(whole: int, digits: list[int]) -> None:
    spoken = f"{said(whole)} point {' '.join(ONES[digit] for digit in digits)}"
    number = Fraction(f"{whole}.{''.join(map(str, digits))}")
    assert Fraction(parse_length(spoken, "mm").number) == number


@given(st.text("0123456789.+-hmµ#/ ", max_size=20))
def test_what_is_typed_in_digits_stays_as_it_is(text: str) -> None:
    assert said_in_digits(text) == text


@pytest.mark.parametrize(
    ("line", "hole", "hour", "um"),
    [
        ("hole five at six o'clock, minus two", 5, 6.0, Decimal(-20)),
        ("hole 5 six o'clock one point six", 5, 6.0, Decimal(16)),
        ("at nine o'clock two over", 4, 9.0, Decimal("50.8")),
        ("seven", 4, 3.0, Decimal(70)),
    ],
)
def test_a_line_that_is_said_names_hole_and_clock(line: str, hole: int, hour: float, um: Decimal) -> None:
    if "over" in line:
        with pytest.raises(NotationError, match="thousandths"):
            parse_entry_line(line, Position(4, 3.0), HOLES, "0.01 mm")
        understood = parse_entry_line(line, Position(4, 3.0), HOLES, "thou")
    else:
        understood = parse_entry_line(line, Position(4, 3.0), HOLES, "0.01 mm")
    assert understood.reading is not None
    assert (understood.position, understood.reading.value_um) == (Position(hole, hour), um)


def test_a_hole_that_is_said_alone_is_chosen() -> None:
    assert parse_entry_line("hole three", Position(1, 6.0), HOLES, "thou").position == Position(3, None)


def test_what_is_no_number_is_still_refused() -> None:
    for text in ("for two", "hello", "five six", "minus"):
        with pytest.raises(NotationError):
            parse_length(text, "mm")


def test_lines_of_a_message_find_their_places() -> None:
    text = """Morning, here they are:
    hole 5 at 6 o'clock: 8.858
    5 9h 8.86
    hole 4: 12h 8.85, 3h 8,86 mm; 6h 8.857
    hole 3: 8.85 8.86 8.857 8.858
    Hole 2
    6h 8.85
    hole 9 6h 8.8
    hole 1: 8.85 8.86
    3h"""
    pasted = read_pasted(text, HOLES, HOURS)
    assert pasted.readings == (
        PastedReading(5, 6.0, "8.858"), PastedReading(5, 9.0, "8.86"), PastedReading(4, 12.0, "8.85"),
        PastedReading(4, 3.0, "8,86 mm"), PastedReading(4, 6.0, "8.857"), PastedReading(3, 12.0, "8.85"),
        PastedReading(3, 3.0, "8.86"), PastedReading(3, 6.0, "8.857"), PastedReading(3, 9.0, "8.858"),
        PastedReading(2, 6.0, "8.85"),
    )  # fmt: skip
    assert [(one.line, one.why) for one in pasted.not_understood] == [
        (1, "it names no hole and no clock position"),
        (8, "there is no hole 9"),
        (9, "2 numbers without a clock position, where 4 are read"),
        (10, "a clock position stands there without a number"),
    ]


def test_columns_with_headings_find_their_places_and_without_stay_columns() -> None:
    headed = read_pasted("hole\t12h\t3 o'clock\n1\t8.81\t8.82\nhole 2\t-\t8.83\nsum\t3\t4", HOLES, HOURS)
    assert headed.readings == (
        PastedReading(1, 12.0, "8.81"), PastedReading(1, 3.0, "8.82"), PastedReading(2, 3.0, "8.83"))  # fmt: skip
    assert [one.line for one in headed.not_understood] == [4]
    assert read_pasted("hole;12;6\n4;8.8;8.9", HOLES, HOURS).readings == (
        PastedReading(4, 12.0, "8.8"), PastedReading(4, 6.0, "8.9"))  # fmt: skip
    longer = read_pasted("hole\t12h\n1\t8.81\t8.82", HOLES, HOURS)
    assert (longer.readings, longer.not_understood[0].why) == ((), "it has more columns than the heading")
    assert read_pasted("8.81\t8.82\n8.83\t", HOLES, HOURS).table == (("8.81", "8.82"), ("8.83", ""))


@given(st.text(max_size=300))
def test_nothing_of_a_pasted_text_is_left_out_unsaid(text: str) -> None:
    pasted = read_pasted(text, HOLES, HOURS)
    lines = [line for line in text.splitlines() if line.strip()]
    assert all(one.hole in HOLES and 0 < one.hour <= 12 for one in pasted.readings)
    if lines and not pasted.readings and not pasted.table:
        # A line may only name a hole for those below it, or be a heading.
        assert len(pasted.not_understood) <= len(lines)


@given(st.lists(st.tuples(st.sampled_from(HOLES), st.sampled_from(HOURS), st.decimals(8, 9, places=3)), min_size=1))
def test_what_is_written_as_lines_is_read_back(rows: list[tuple[int, float, Decimal]]) -> None:
    text = "\n".join(f"{hole} {hour:g}h {value}" for hole, hour, value in rows)
    pasted = read_pasted(text, HOLES, HOURS)
    assert pasted.not_understood == ()
    assert [(one.hole, one.hour, Decimal(one.text)) for one in pasted.readings] == rows


def test_a_plan_is_asked_for_what_it_needs() -> None:
    """Every construction is asked something, each field once; a counterbore's plan needs its cutter."""
    for construction in Construction:
        paths = [field.path for field in asked_first(construction)]
        assert paths
        assert len(set(paths)) == len(paths)
    wet = {field.path: field.kind for field in asked_first(Construction.WET_TOP_FLANGE)}
    assert {"limits.least_with_shim", "limits.greatest_with_shim", "seat.flange_nominal", "seat.cleanup_least",
            "cutter.graduation", "cutter.stop_accuracy"} <= set(wet)  # fmt: skip
    assert wet["shims"] is AskedKind.SHIMS
    assert "shims" not in {field.path for field in asked_first(Construction.DRY_PLAIN)}
