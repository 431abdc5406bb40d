"""The entry line of a bore. Levels by their initials, axes with d: house rules; 1 in = 25.4 mm exactly (1959)."""

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vallostasis.core.errors import NotationError
from vallostasis.core.notation.bore_line import BoreLevel, BoreLine, BorePlace, BorePlan, parse_bore_line
from vallostasis.core.notation.typed_lengths import ParsedLength, parse_length

NAMES = ("top", "ring travel", "middle", "below the rings", "bottom")
DEPTHS_IN = ("0.6", "2.2", "4.7", "7.3", "8.9")
LEVELS = tuple(BoreLevel(name, Decimal(at) * 25400) for name, at in zip(NAMES, DEPTHS_IN, strict=True))
DEPTH = {one.name: one.depth_um for one in LEVELS}
PLAN = BorePlan((1, 2), LEVELS, (0.0, 45.0, 90.0, 135.0), "inch")
HERE = BorePlace(1, DEPTH["top"], 0.0)


def _reads(text: str) -> ParsedLength:
    return parse_length(text, "thou")


def _line(text: str, here: BorePlace = HERE) -> BoreLine:
    return parse_bore_line(text, here, PLAN, _reads)


@pytest.mark.parametrize(
    ("text", "hole", "level", "axis", "thou"),
    [
        ("2 m 45d 1.4", 2, "middle", 45.0, "1.4"),
        ("#2 middle 45° +1.4", 2, "middle", 45.0, "1.4"),
        ("2 rt 90d -0.2", 2, "ring travel", 90.0, "-0.2"),
        ("ring travel 90d 0", 1, "ring travel", 90.0, "0"),
        ("2 4.7 135d -1", 2, "middle", 135.0, "-1"),
        ("btr 0d 3", 1, "below the rings", 0.0, "3"),
        ("bot 180d 3", 1, "bottom", 0.0, "3"),
        ("90d 1.5", 1, "top", 90.0, "1.5"),
        ("2 90d 1.5", 2, "top", 90.0, "1.5"),
        ("m 1.5", 1, "middle", 0.0, "1.5"),
        ("2 1.5", 2, "top", 0.0, "1.5"),
        ("+1.5", 1, "top", 0.0, "1.5"),
        ("2 thou", 1, "top", 0.0, "2"),
        ("hole 2 m 45d 1.4", 2, "middle", 45.0, "1.4"),
        ("#1 1/2", 1, "top", 0.0, "0.5"),
        ("+1 1/2", 1, "top", 0.0, "1.5"),
        ("2 m 45d 0.5 thou", 2, "middle", 45.0, "0.5"),
    ],
)
def test_a_line_says_where_and_how_much(text: str, hole: int, level: str, axis: float, thou: str) -> None:
    line = _line(text)
    assert line.place == BorePlace(hole, DEPTH[level], axis)
    assert line.reading is not None
    assert line.reading.value_um == Decimal(thou) * Decimal("25.4")


@pytest.mark.parametrize(
    ("text", "place"),
    [
        ("#2", BorePlace(2, DEPTH["top"], 0.0)),
        ("2 m 45d", BorePlace(2, DEPTH["middle"], 45.0)),
        ("135d", BorePlace(1, DEPTH["top"], 135.0)),
        ("m", BorePlace(1, DEPTH["middle"], 0.0)),
    ],
)
def test_a_line_without_a_reading_only_chooses(text: str, place: BorePlace) -> None:
    assert _line(text) == BoreLine(place, None)


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("9 m 45d 1.4", "There is no hole 9"),
        ("2 q 45d 1.4", "no level called q"),
        ("2 6.0 45d 1.4", "no level at"),
        ("2 m 30d 1.4", "no axis 30"),
        ("2 m 45d hello", "hello"),
        ("", "Type hole"),
    ],
)
def test_what_is_not_understood_is_named(text: str, words: str) -> None:
    with pytest.raises(NotationError, match=words):
        _line(text)


def test_which_level_is_meant_is_asked_with_both() -> None:
    twice = BorePlan(
        (1, 2), (BoreLevel("seal upper", Decimal(1)), BoreLevel("seal lower", Decimal(9000))), (45.0,), "mm"
    )
    with pytest.raises(NotationError, match="seal upper or seal lower: type more of its name") as asked:
        parse_bore_line("2 seal 45d 1.4", HERE, twice, _reads)
    answers = [one.text for one in asked.value.suggestions]
    assert answers == ["2 seal upper 45d 1.4", "2 seal lower 45d 1.4"]
    assert parse_bore_line(answers[1], HERE, twice, _reads).place == BorePlace(2, Decimal(9000), 45.0)


def test_a_fraction_that_begins_like_a_hole_is_asked_about() -> None:
    with pytest.raises(NotationError, match="two ways") as asked:
        _line("1 1/2")
    assert [one.text for one in asked.value.suggestions] == ["#1 1/2", "+1 1/2"]


@given(
    hole=st.sampled_from(PLAN.holes),
    level=st.sampled_from(LEVELS),
    axis=st.sampled_from(PLAN.axes_deg),
    tenths=st.integers(-500, 500),
)
def test_whatever_is_named_in_full_is_understood(hole: int, level: BoreLevel, axis: float, tenths: int) -> None:
    line = _line(f"{hole} {level.name} {axis:g}d {tenths / 10}", BorePlace(None, None, None))
    assert line.place == BorePlace(hole, level.depth_um, axis)
    assert line.reading is not None
    assert line.reading.value_um == Decimal(tenths) * Decimal("2.54")


@given(st.text(max_size=30))
def test_anything_else_is_refused_in_words(text: str) -> None:
    try:
        line = _line(text)
    except NotationError as error:
        assert str(error)
    else:
        assert line.place.hole in PLAN.holes
