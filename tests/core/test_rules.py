"""The card's rules on a block: order of states, neighbours, heads, positions."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vallostasis.core.measuring.decision import Acceptance, State
from vallostasis.core.measuring.uncertainty import ReadingTrust
from vallostasis.core.protrusion.rules import (
    HourReadings,
    MeasuredHole,
    ProtrusionLimits,
    RuleBook,
    judge_block,
)
from vallostasis.core.protrusion.stack import StackResidual

UM = 1e-6
LIMITS = ProtrusionLimits(50 * UM, 125 * UM, 40 * UM, 50 * UM, None, None)
BOOK = RuleBook((12, 3, 6, 9), ((1, 2, 3), (4, 5, 6)), Acceptance.GUARDED, 2.0)
EXACT = ReadingTrust(0.5 * UM, 0.0)


def _hole(number: int, values: tuple[float, ...] = (90, 90, 90, 90), **other: object) -> MeasuredHole:
    readings = tuple(
        HourReadings(hour, (value * UM,)) for hour, value in zip((12.0, 3.0, 6.0, 9.0), values, strict=False)
    )
    return MeasuredHole(number, other.pop("limits", LIMITS), readings, EXACT, "zero", **other)  # type: ignore[arg-type]


def _state(*holes: MeasuredHole, book: RuleBook = BOOK) -> dict[int, State]:
    return {judged.hole: judged.state for judged in judge_block(holes, book).holes}


@pytest.mark.parametrize(
    ("values", "state"),
    [
        ((90, 90, 90, 90), State.IN),
        ((90, 90, 90), State.NOT_MEASURED),
        ((90, 90, 50.5, 90), State.CANNOT_TELL),
        ((90, 90, 30, 90), State.OUT),
        ((90, 30), State.OUT),
        ((90, 90, 60, 105), State.OUT),
        ((), State.NOT_MEASURED),
    ],
)
def test_out_beats_not_measured_beats_cannot_tell(values: tuple[float, ...], state: State) -> None:
    assert _state(_hole(1, values))[1] is state


def test_neighbours_count_under_one_head_only() -> None:
    low, high = (60, 60, 60, 60), (120, 120, 120, 120)
    assert _state(_hole(2, low), _hole(3, high)) == {2: State.OUT, 3: State.OUT}
    assert _state(_hole(3, low), _hole(4, high)) == {3: State.IN, 4: State.IN}


def test_a_hole_is_not_held_back_by_a_neighbour_that_is_not_measured() -> None:
    assert _state(_hole(1), _hole(2, ())) == {1: State.IN, 2: State.NOT_MEASURED}


def test_average_under_a_head_waits_for_every_hole_and_then_counts_for_all() -> None:
    limits = ProtrusionLimits(50 * UM, 125 * UM, 40 * UM, 50 * UM, 100 * UM, None)
    holes = [_hole(n, limits=limits) for n in (1, 2, 3)]
    assert _state(*holes) == {1: State.OUT, 2: State.OUT, 3: State.OUT}
    assert judge_block((holes[0], holes[1], _hole(3, (), limits=limits)), BOOK).heads[0].result is None


def test_parts_that_disagree_leave_a_good_reading_undecided() -> None:
    residual = StackResidual(-90 * UM, 8 * UM, False)
    judged = judge_block((_hole(1, residual=residual),), BOOK).holes[0]
    assert judged.state is State.CANNOT_TELL
    assert "disagree" in judged.reason


def test_a_reopened_hole_is_not_measured_and_says_why() -> None:
    judged = judge_block((_hole(1, (), reopened="land changed since it was read: read it again"),), BOOK).holes[0]
    assert judged.state is State.NOT_MEASURED
    assert "land changed" in judged.reason


def test_simple_acceptance_answers_by_the_reading() -> None:
    book = RuleBook(BOOK.required_hours, BOOK.heads, Acceptance.SIMPLE, 2.0)
    assert _state(_hole(1, (90, 90, 50.5, 90)), book=book)[1] is State.IN
    assert _state(_hole(1, (90, 90, 49.5, 90)), book=book)[1] is State.OUT


@given(values=st.tuples(*[st.integers(40, 135)] * 4), turn=st.integers(0, 3))
def test_turning_the_liner_changes_no_state(values: tuple[int, ...], turn: int) -> None:
    turned = values[turn:] + values[:turn]
    assert _state(_hole(1, values)) == _state(_hole(1, turned))


@given(values=st.tuples(*[st.integers(40, 135)] * 4))
def test_a_hole_that_is_in_keeps_every_rule(values: tuple[int, ...]) -> None:
    if _state(_hole(1, values))[1] is State.IN:
        assert 50 <= min(values) <= max(values) <= 125
        assert max(values) - min(values) <= 40
