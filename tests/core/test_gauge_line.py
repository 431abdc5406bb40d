"""Lines of gauges: patterns read exactly what they say, and notice a wrong unit."""

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vallostasis.core.errors import NotationError
from vallostasis.core.notation.gauge_line import WrongUnit, compile_pattern, read_gauge_line
from vallostasis.core.notation.typed_lengths import parse_length


@pytest.mark.parametrize(
    ("pattern", "line", "unit", "um"),
    [
        ("{value} {unit}", "+0.0320 mm", "mm", "32"),
        ("{value}{unit}", "-1.25thou", "thou", "-31.75"),
        ("01A{value}", "01A+0.032", "mm", "32"),
        ("{value} {unit}", "0.00125 in", "inch", "31.75"),
        ("D {value} ;", "D   12,5;", "µm", "12.5"),
    ],
)
def test_a_line_is_read_exactly(pattern: str, line: str, unit: str, um: str) -> None:
    value = read_gauge_line(line, compile_pattern(pattern), unit)  # type: ignore[arg-type]
    assert value.value_um == Decimal(um)
    assert parse_length(value.text, "mm").value_um == value.value_um, "what is kept reads back to the same length"


@pytest.mark.parametrize(("line", "words"), [("+0.00126 in", "press its unit key"), ("0.03 cm", "not known here")])
def test_another_unit_is_noticed(line: str, words: str) -> None:
    with pytest.raises(NotationError, match=words) as wrong:
        read_gauge_line(line, compile_pattern("{value} {unit}"), "mm")
    assert isinstance(wrong.value, WrongUnit) == ("unit key" in words)


@pytest.mark.parametrize("line", ["", "ERR 3", "+0.03 mm +0.04 mm", "mm", "0.0" + "1" * 200 + " mm", "+-3 mm", "٣ mm"])
def test_a_line_that_does_not_fit_is_no_reading(line: str) -> None:
    with pytest.raises(NotationError, match="does not fit"):
        read_gauge_line(line, compile_pattern("{value} {unit}"), "mm")


@pytest.mark.parametrize("pattern", ["", "{unit}", "{value}{value}", "{value} {", "{number}", "x" * 61])
def test_a_pattern_without_one_value_is_refused(pattern: str) -> None:
    with pytest.raises(NotationError, match=r"pattern|Braces"):
        compile_pattern(pattern)


letters = st.text(st.characters(categories=["Lu", "Po", "Sm"], exclude_characters="{}+-.,"), max_size=6)


@given(um=st.decimals(-9999, 9999, places=1), before=letters, after=letters)
def test_everything_round_the_number_is_taken_literally(um: Decimal, before: str, after: str) -> None:
    pattern = compile_pattern(f"{before}{{value}}{after}")
    value = read_gauge_line(f"{before}{um / 1000:+f}{after}", pattern, "mm")
    assert value.value_um == um
    if before.strip():
        with pytest.raises(NotationError, match="does not fit"):
            read_gauge_line(f"{um / 1000:+f}{after}", pattern, "mm")


@given(text=st.text(max_size=130), pattern=st.sampled_from(["{value}", "{value} {unit}", "01A{value}"]))
def test_no_line_breaks_it(text: str, pattern: str) -> None:
    try:
        read_gauge_line(text, compile_pattern(pattern), "mm")
    except NotationError as refused:
        assert str(refused)
