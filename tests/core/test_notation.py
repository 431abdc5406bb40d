"""Shop notation against exact fractions.

1 in = 25.4 mm exactly: international yard and pound agreement, 1959.
"""

from decimal import Decimal
from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vallostasis.core.errors import NotationError
from vallostasis.core.features.senses import senses_of
from vallostasis.core.notation.lengths import MICROMETRES_PER, format_length, format_uncertainty, metres, micrometres
from vallostasis.core.notation.typed_lengths import ExpectedRange, parse_length
from vallostasis.core.records.rows import Quantity

UNITS = ["thou", "inch", "mm", "0.01 mm", "µm"]
INCH_UM = Fraction(25400)


@pytest.mark.parametrize(
    ("text", "bare", "exact_um"),
    [
        ("2.5", "thou", Fraction(5, 2) * INCH_UM / 1000),
        ("1 1/2 thou", "mm", Fraction(3, 2) * INCH_UM / 1000),
        ('7-1/16"', "mm", (7 + Fraction(1, 16)) * INCH_UM),
        ("12 3/4", "inch", (12 + Fraction(3, 4)) * INCH_UM),
        ("3/16", "inch", Fraction(3, 16) * INCH_UM),
        ("0,05 mm", "thou", Fraction(50)),
        ("5 sunk", "thou", -5 * INCH_UM / 1000),
        ("2.5 proud", "thou", Fraction(5, 2) * INCH_UM / 1000),
        ("half a thou", "mm", INCH_UM / 2000),
        ("two and a half thou", "mm", Fraction(5, 2) * INCH_UM / 1000),
        ("a thou and a half", "mm", Fraction(3, 2) * INCH_UM / 1000),
        ("Two thou and a half proud", "mm", Fraction(5, 2) * INCH_UM / 1000),
        ("minus 2 thou and three quarters", "mm", -Fraction(11, 4) * INCH_UM / 1000),
        ("one inch and a quarter", "mm", Fraction(5, 4) * INCH_UM),
        ("3 tenths", "thou", Fraction(3, 10) * INCH_UM / 1000),
        ("−1.3", "0.01 mm", Fraction(-13)),
        ("5.4", "0.01 mm", Fraction(54)),
        ("30 under", "thou", -30 * INCH_UM / 1000),
        ("76 micron", "thou", Fraction(76)),
    ],
)
def test_notation_is_read_exactly(text: str, bare: str, exact_um: Fraction) -> None:
    assert Fraction(parse_length(text, bare).value_um) == exact_um


@pytest.mark.parametrize(
    ("text", "bare", "words"),
    [
        ("2 mil", "thou", "two units"),
        ("two mil and a half", "thou", "two units"),
        ("2 point", "mm", "two units"),
        ("7 tenths", "mm", "tenths of what"),
        ("5 high", "thou", "both ways"),
        ("1,250", "mm", "decimal comma"),
    ],
)
def test_what_can_mean_two_things_is_asked_with_answers(text: str, bare: str, words: str) -> None:
    with pytest.raises(NotationError, match=words) as asked:
        parse_length(text, bare)
    assert len(asked.value.suggestions) == 2
    meant = {parse_length(s.text, bare, confirmed=s.confirm).value_um for s in asked.value.suggestions}
    assert len(meant) == 2


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("a hair", "not a measure"),
        ("a few thou", "not a measure"),
        ("2 proud and a half", "not understood"),
        ("2.5 thou and a half", "not understood"),
        ("2 thou and a half and a half", "not understood"),
        ("", "Nothing was typed"),
        ("abc", "not understood"),
        ("1/3 thou", "no finite decimal"),
        ("1/0", "cannot have 0"),
        ("+-2", "Two signs"),
        ("+2 sunk", "said twice"),
        ("2 furlongs", "furlongs"),
        ("2\x00", r"U\+0000"),
        ("9" * 61, "at most 60"),
        ("1" * 20, "Too many digits"),
    ],
)
def test_what_is_no_length_is_refused_with_the_reason(text: str, words: str) -> None:
    with pytest.raises(NotationError, match=words):
        parse_length(text, "thou")


def test_a_value_in_the_wrong_unit_is_asked_about() -> None:
    expected = ExpectedRange(Decimal(-300), Decimal(400))
    with pytest.raises(NotationError, match="did you mean") as asked:
        parse_length("80 mm", "0.01 mm", expected)
    texts = [s.text for s in asked.value.suggestions]
    assert "80 µm" in texts
    assert parse_length("80 mm", "0.01 mm", expected, confirmed=True).value_um == 80_000


decimals = st.decimals(min_value=-9999, max_value=9999, places=3, allow_nan=False, allow_infinity=False)


@given(value=decimals, unit=st.sampled_from(UNITS))
def test_what_is_written_is_read_back_at_the_shown_resolution(value: Decimal, unit: str) -> None:
    size = MICROMETRES_PER[unit]
    shown = format_length(float(value * size) / 1e6, unit, digits=3)
    read = parse_length(shown, unit, confirmed=True)
    assert read.value_um == parse_length(f"{value:+f}", unit, confirmed=True).value_um
    assert Fraction(read.value_um) == Fraction(value) * Fraction(size)


@given(value=decimals, factor=st.sampled_from([("inch", "thou", 1000), ("mm", "µm", 1000), ("thou", "tenth", 10)]))
def test_units_scale_exactly(value: Decimal, factor: tuple[str, str, int]) -> None:
    large, small, times = factor
    once = parse_length(f"{value:f}", large, confirmed=True).value_um
    assert once == parse_length(f"{value * times:f}", small, confirmed=True).value_um


@given(
    limit_um=st.integers(-200, 200),
    nm_from_limit=st.integers(-900, 900),
    unit=st.sampled_from(["thou", "µm", "mm"]),
)
def test_a_shown_value_stays_on_its_side_of_a_limit(limit_um: int, nm_from_limit: int, unit: str) -> None:
    value_nm = limit_um * 1000 + nm_from_limit
    shown = Fraction(format_length(Decimal(value_nm) / 10**9, unit, limits_m=(limit_um / 1e6,)).replace("+", ""))
    shown_nm = shown * Fraction(MICROMETRES_PER[unit]) * 1000
    limit_nm = limit_um * 1000
    # One nanometre is the last digit that four extra digits can show.
    if abs(nm_from_limit) >= 10:
        assert (shown_nm > limit_nm) == (value_nm > limit_nm)
        assert (shown_nm < limit_nm) == (value_nm < limit_nm)


@given(nm=st.integers(0, 10**6), unit=st.sampled_from(["thou", "µm", "mm", "inch"]))
def test_an_uncertainty_never_looks_smaller_than_it_is(nm: int, unit: str) -> None:
    step = {"thou": "0.1", "µm": "1", "mm": "0.001", "inch": "0.0001"}[unit]
    shown = Decimal(format_uncertainty(nm / 1e9, unit)) * MICROMETRES_PER[unit] * 1000
    slack = Decimal(step) * MICROMETRES_PER[unit] * 1000
    assert nm - slack * Decimal("2e-6") <= shown < nm + slack


def test_halves_round_away_from_zero() -> None:
    # Common practice in the trade, and what the screen does too; no published source.
    assert format_length(86.5e-6, "µm") == "+87"
    assert format_length(-86.5e-6, "µm") == "-87"


@given(um=st.decimals(min_value=-(10**6), max_value=10**6, places=4, allow_nan=False, allow_infinity=False))
def test_micrometres_and_metres_are_mirrors(um: Decimal) -> None:
    assert micrometres(metres(um)) == um


@pytest.mark.parametrize(
    ("text", "bare", "um"),
    [
        # Oversizes in the field's unit; 20 over in inches is said in thousandths. Common practice, no published source.
        ("0.5 over", "mm", Fraction(500)),
        ("20 over", "thou", 20 * INCH_UM / 1000),
        ("20 over", "inch", 20 * INCH_UM / 1000),
        ("0.020 over", "inch", 20 * INCH_UM / 1000),
        ("0.5 mm over", "thou", Fraction(500)),
        # Between digits, point is the decimal point.
        ("minus one point five", "thou", -Fraction(3, 2) * INCH_UM / 1000),
        ("2 point 5", "thou", Fraction(5, 2) * INCH_UM / 1000),
        ("nought point two five mm", "thou", Fraction(250)),
        # No-break, thin and narrow spaces are spaces.
        ("2.5\u202fthou", "mm", Fraction(5, 2) * INCH_UM / 1000),
        ("1\u00a01/2\u2009thou", "mm", Fraction(3, 2) * INCH_UM / 1000),
    ],
)
def test_what_is_said_in_the_shop_is_read(text: str, bare: str, um: Fraction) -> None:
    assert Fraction(parse_length(text, bare).value_um) == um


@pytest.mark.parametrize(
    ("text", "bare", "answers"),
    [
        ("-2 mil", "thou", ["-50.8", "-2000"]),
        ("2 mil sunk", "thou", ["-50.8", "-2000"]),
        ("-1.5 points", "mm", ["-38.1", "-15"]),
        ("minus point five", "thou", ["-12.7", "-50"]),
        ("11/2", "inch", ["38100", "139700"]),
        ("2 15/4", "inch", ["146050"]),
        ("5 - 1/2", "inch", ["139700", "114300"]),
        ("20 over", "mm", ["508", "20000"]),
        ("2 deep", "thou", ["50.8", "-50.8"]),
        ("-7 tenths", "mm", ["-17.78", "-700"]),
    ],
)
def test_what_is_asked_back_keeps_sign_and_decimals(text: str, bare: str, answers: list[str]) -> None:
    with pytest.raises(NotationError) as asked:
        parse_length(text, bare)
    found = [parse_length(one.text, bare, confirmed=True).value_um for one in asked.value.suggestions]
    assert found == [Decimal(one) for one in answers]


def test_deep_and_tight_mean_what_is_read() -> None:
    """Common practice, no published source: a tight bore is small, a tight liner large."""
    ledge, bore, outside = (senses_of(q) for q in (Quantity.COUNTERBORE_DEPTH, Quantity.BLOCK_BORE,
                                                   Quantity.LINER_OUTSIDE))  # fmt: skip
    assert parse_length("2 deep", "µm", senses=ledge).value_um == 2
    assert parse_length("2 shallow", "µm", senses=ledge).value_um == -2
    assert parse_length("2 tight", "µm", senses=bore).value_um == -2
    assert parse_length("2 loose", "µm", senses=bore).value_um == 2
    assert parse_length("2 tight", "µm", senses=outside).value_um == 2
    with pytest.raises(NotationError, match="has no sign"):
        parse_length("2 tight", "µm", senses=ledge)
    with pytest.raises(NotationError, match="said twice"):
        parse_length("-2 deep", "µm", senses=ledge)
