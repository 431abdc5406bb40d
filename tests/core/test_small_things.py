"""Clock positions, odd readings, sources of a card: small rules with their own mirrors."""

from dataclasses import replace
from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.card import wet_card
from tests.core.facts import Story
from vallostasis.core.errors import NotationError, OutOfDomain
from vallostasis.core.gauges.circumstances import cautions_of_setup
from vallostasis.core.notation.odd_reading import ask_if_odd
from vallostasis.core.notation.typed_lengths import as_entered, parse_length, unit_step
from vallostasis.core.records.card_checks import check_card
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import (
    CardUnit,
    Length,
    neighbours_under_one_head,
    typed_with_unit,
)
from vallostasis.core.shapes.clock import angle_of_hour, hour_name, hour_of_angle


@given(hour=st.integers(1, 48).map(lambda quarter: quarter / 4))
def test_clock_positions_and_angles_are_mirrors(hour: float) -> None:
    assert hour_of_angle(angle_of_hour(hour)) == pytest.approx(hour)


def test_the_front_is_at_nine_and_hours_run_clockwise() -> None:
    assert [angle_of_hour(hour) for hour in (9, 12, 3, 6)] == [0, 90, 180, 270]
    assert (hour_name(6.0), hour_name(10.5)) == ("6h", "10.5h")


@pytest.mark.parametrize("hour", [0, -3, 12.5, 25])
def test_there_is_no_such_hour(hour: float) -> None:
    with pytest.raises(OutOfDomain, match="clock position"):
        angle_of_hour(hour)


OTHERS = (Decimal(84), Decimal(86), Decimal(88))


# The three slips of a hand: a sign lost, a point moved, two digits exchanged. Common practice, no published source.
@pytest.mark.parametrize(
    ("text", "what", "meant"),
    [("-8.6", "sign", "86"), ("0.86", "decimal point", "86"), ("86", "decimal point", "86"), ("6.8 mm", "", "")],
)
def test_a_slip_is_named_with_the_likelier_reading(text: str, what: str, meant: str) -> None:
    parsed = parse_length(text, "0.01 mm", confirmed=True)
    if not what:
        ask_if_odd(parsed, OTHERS, Decimal(50))
        return
    with pytest.raises(NotationError, match=what) as asked:
        ask_if_odd(parsed, OTHERS, Decimal(50))
    likelier, as_typed = asked.value.suggestions
    assert parse_length(likelier.text, "0.01 mm", confirmed=True).value_um == Decimal(meant)
    assert as_typed.confirm


def test_exchanged_digits_are_found_in_a_size() -> None:
    parsed = parse_length("8.198", "mm", confirmed=True)
    with pytest.raises(NotationError, match="two digits"):
        ask_if_odd(parsed, (Decimal(8918), Decimal(8920)), Decimal(50))


@given(um=st.decimals(80, 90, places=1), others=st.lists(st.decimals(80, 90, places=1), max_size=6))
def test_a_reading_near_its_set_is_never_asked_about(um: Decimal, others: list[Decimal]) -> None:
    ask_if_odd(parse_length(f"{um} µm", "µm"), tuple(others), Decimal(10))


def test_one_other_reading_is_too_few_to_know_what_is_usual() -> None:
    ask_if_odd(parse_length("860 µm", "µm"), OTHERS[:1], Decimal(50))


@pytest.mark.parametrize(
    ("typed", "unit", "shown"),
    [("5.8", "0.01 mm", "5.8 × 0.01 mm"), ("3.0 thou", "thou", "3.0 thou"), ("8.9", "mm", "8.9 mm"),
     ('7/16"', "inch", '7/16"')],
)  # fmt: skip
def test_a_kept_text_carries_its_unit(typed: str, unit: str, shown: str) -> None:
    assert as_entered(typed, unit) == shown


def test_a_conversion_opens_into_its_sum() -> None:
    step = unit_step(parse_length("1 1/2 thou", "mm"))
    number, unit = (term.value for term in step.terms)
    assert number * unit == pytest.approx(step.result.value)


@pytest.mark.parametrize(
    ("typed", "unit", "is_size", "shown"),
    [("0.05", CardUnit.MM, False, "0.05 mm"), ("2", CardUnit.INCH, False, "2 thou"),
     ("0.35", CardUnit.INCH, True, "0.35 inch"), ("50 µm", CardUnit.INCH, False, "50 µm")],
)  # fmt: skip
def test_a_length_of_a_card_is_shown_in_its_own_unit(typed: str, unit: CardUnit, is_size: bool, shown: str) -> None:
    assert typed_with_unit(Length(typed), unit, is_size=is_size) == shown


def test_a_card_that_holds_together_has_no_problem_and_names_its_neighbours() -> None:
    card = wet_card()
    assert check_card(card) == ()
    assert neighbours_under_one_head(card) == ((1, 2), (2, 3), (4, 5), (5, 6))


def test_a_setup_that_departs_from_the_card_says_where() -> None:
    story = Story()
    setup = story.facts().present_setup(Quantity.PROTRUSION)
    assert setup is not None
    card = replace(story.card, measuring=replace(story.card.measuring, hold_down="bar and two washers",
                                                 datum="the clean deck", hold_down_torque_nm=70.0))  # fmt: skip
    measuring = card.measuring
    asked = replace(setup, land=measuring.land, datum=measuring.datum, hold_down=measuring.hold_down,
                    hold_down_torque_nm=Decimal("70"))  # fmt: skip
    assert cautions_of_setup(card, asked) == ()
    for changed, words in (
        (replace(asked, land="lip"), "flat land"),
        (replace(asked, hold_down=""), "bar and two washers"),
        (replace(asked, hold_down_torque_nm=Decimal(20)), "70 N·m"),
        (replace(asked, datum="the spacer plate"), "clean deck"),
    ):
        (caution,) = cautions_of_setup(card, changed)
        assert words in caution
