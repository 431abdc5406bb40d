"""What a gauge was zeroed on, and what speaks against it. Facts of the trade: common practice, no published source."""

from dataclasses import replace
from datetime import date
from decimal import Decimal
from uuid import uuid4

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.facts import Story
from vallostasis.core.gauges.circumstances import cautions_of_gauge, cautions_of_setup, outside_range, size_on_card
from vallostasis.core.hole_now import hole_now
from vallostasis.core.records.gauges import GaugeVersion
from vallostasis.core.records.rows import Quantity, ZeroedOn
from vallostasis.core.uncertainty.decision import State

OURS = GaugeVersion(uuid4(), uuid4(), "Sled", "depth gauge", 1, Decimal(2), Decimal(2), "", "", master="set 1")
THEIRS = replace(OURS, gauge_id=uuid4(), name="Their sled", owner="Northgate Engines", master="")
TODAY = date(2026, 11, 25)


def _judged(zeroed_on: ZeroedOn, zero_um: int, readings_um: tuple[float, ...]) -> tuple[State, float | None, str]:
    """Hole 1 read all round with a gauge zeroed so. [µm]"""
    story = Story()
    fitting = story.fit(1, story.liner("L1"))
    story.rows["setups"] = [replace(s, zeroed_on=zeroed_on, zero_um=Decimal(zero_um)) for s in story.rows["setups"]]
    story.read(Quantity.PROTRUSION, fitting, readings_um)
    now = hole_now(story.facts(), story.hole_rows[0])
    return now.state, None if now.mean is None else now.mean.value_m, now.reason


@given(zero_um=st.integers(-200, 200), size_um=st.integers(60, 110))
def test_a_deviation_and_its_zero_are_judged_as_the_size_they_make(zero_um: int, size_um: int) -> None:
    straight = _judged(ZeroedOn.DATUM, 0, (size_um,) * 4)
    deviation = _judged(ZeroedOn.MASTER, zero_um, (size_um - zero_um,) * 4)
    assert deviation[0] is straight[0]
    assert deviation[1] == pytest.approx(straight[1], abs=1e-12)


def test_half_a_thou_big_against_the_low_limit_is_half_a_thou_above_it() -> None:
    # Low limit 50 µm: the gauge shows +12.7 µm (half a thou), the liner stands 62.7 µm proud; not 12.7, not nominal.
    _, mean, _ = _judged(ZeroedOn.LOW_LIMIT, 50, (13, 13, 12, 13))
    assert mean == pytest.approx(62.75e-6)


def test_differences_on_the_part_itself_are_never_judged_against_a_size() -> None:
    state, _, reason = _judged(ZeroedOn.PART, 0, (85, 85, 85, 85))
    assert state is State.NOT_MEASURED
    assert "differences only" in reason
    story = Story()
    setup = replace(story.rows["setups"][0], zeroed_on=ZeroedOn.PART)
    assert "cannot be judged against a size" in cautions_of_setup(story.card, setup)[0]


def test_the_card_gives_the_size_of_its_own_limits() -> None:
    card = Story().card
    low = size_on_card(card, Quantity.PROTRUSION, ZeroedOn.LOW_LIMIT)
    assert low is not None
    assert low.metres == card.limits.least_without_shim.metres
    assert size_on_card(card, Quantity.PROTRUSION, ZeroedOn.MASTER) is None
    assert size_on_card(card, Quantity.FLANGE_THICKNESS, ZeroedOn.LOW_LIMIT) is None


def test_an_overdue_or_faulty_gauge_is_spoken_against() -> None:
    assert cautions_of_gauge(OURS, (OURS,), TODAY) == ()
    assert cautions_of_gauge(replace(OURS, due_on=TODAY), (), TODAY) == ()
    (overdue,) = cautions_of_gauge(replace(OURS, due_on=date(2026, 11, 24)), (), TODAY)
    assert "2026-11-24" in overdue
    (faulty,) = cautions_of_gauge(replace(OURS, faults="sticks"), (), TODAY)
    assert "sticks" in faulty


def test_gauges_of_different_owners_compare_only_over_one_master() -> None:
    (caution,) = cautions_of_gauge(OURS, (OURS, THEIRS), TODAY)
    assert "travelling master" in caution
    assert "Their sled" in caution
    assert cautions_of_gauge(OURS, (replace(THEIRS, master="SET 1"),), TODAY) == ()
    assert cautions_of_gauge(OURS, (replace(THEIRS, owner=""),), TODAY) == ()
    assert cautions_of_gauge(replace(OURS, master=""), (replace(THEIRS, master=""),), TODAY) != ()


def test_a_reading_outside_the_range_is_found_only_where_the_range_is_known() -> None:
    ranged = replace(OURS, range_from_um=Decimal(-5000), range_to_um=Decimal(25000))
    assert [outside_range(ranged, Decimal(um)) for um in (-5001, -5000, 25000, 25001)] == [True, False, False, True]
    assert not outside_range(OURS, Decimal(10**9))
