"""Main bores: three directions against both limits, before and after, their line, and what is done about it."""

from datetime import timedelta
from math import cos, hypot, radians, sin

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.card import dry_card, limit
from tests.core.facts import Story, level
from vallostasis.core.mains.align import Align, align_decision, line_is_out
from vallostasis.core.mains.line import MainLine, line_of
from vallostasis.core.mains.sizes import Lies, MainNow, mains_of
from vallostasis.core.records.rows import Place, Quantity
from vallostasis.core.records.spec_card import CardLevel, FeatureSheet, Length
from vallostasis.core.route.plan import mains_are_out
from vallostasis.core.uncertainty.decision import State

AXES = (45.0, 90.0, 135.0)
HOURS = (12.0, 3.0, 6.0, 9.0)
HALF_THOU = 12.7
# Limits of the mains of these tests. [µm]
LEAST, GREATEST = 66_675.0, 66_700.0
MIDDLE = (LEAST + GREATEST) / 2
IN = (MIDDLE, MIDDLE, MIDDLE)


class Crankcase:
    """Three mains read by an exact gauge; their line within ten micrometres."""

    def __init__(self, within: str | None = "0.010", oval: str = "0.010") -> None:
        sheets = [
            FeatureSheet(Quantity.MAIN_BORE, limit("66.6875"), limit("66.675"), limit("66.700"), limit(oval),
                         levels=(CardLevel("middle of the web", Length("0")),), axes_deg=AXES),
        ]  # fmt: skip
        if within is not None:
            sheets.append(FeatureSheet(Quantity.MAIN_LINE, greatest=limit(within), hours=HOURS))
        self.story = Story(card=dry_card(*sheets, main_bores=3), resolution_um=0.2, repeatability_um=0.2,
                           pace=timedelta(seconds=1))  # fmt: skip
        self.story.take_temperature("part", 20.0)

    def read(self, main: int, sizes: tuple[float, float, float] = IN) -> None:
        places = {level(0, axis): (size,) for axis, size in zip(AXES, sizes, strict=True)}
        self.story.survey(Quantity.MAIN_BORE, places, part=f"main-{main}")

    def sweep(self, main: int, upright: float, across: float, tilt: float = 0.0) -> None:
        """An indicator on the bar: the middle of the bore stands off it towards 12 h and 3 h. [µm]"""
        up = upright + tilt * main
        places = {
            Place(hour=hour): (up * cos(radians(30 * hour)) + across * sin(radians(30 * hour)),) for hour in HOURS
        }
        self.story.survey(Quantity.MAIN_LINE, places, part=f"main-{main}")

    def line(self, *offs: tuple[float, float]) -> MainLine:
        for main, (upright, across) in enumerate(offs, 1):
            self.sweep(main, upright, across)
        return line_of(self.story.facts())

    def all_in(self) -> None:
        for main in (1, 2, 3):
            self.read(main)

    @property
    def mains(self) -> tuple[MainNow, ...]:
        return mains_of(self.story.facts())

    @property
    def what(self) -> Align:
        return align_decision(self.story.facts()).what


@pytest.fixture
def case() -> Crankcase:
    return Crankcase()


def test_half_a_thou_small_is_honed_half_a_thou_big_is_not(case: Crankcase) -> None:
    """Common practice, no published source: a hone takes metal, it brings none back."""
    case.all_in()
    case.line((0, 0), (0, 0), (0, 0))
    assert case.what is Align.LEAVE
    case.read(2, (LEAST - HALF_THOU, MIDDLE, MIDDLE))
    small = case.mains[1]
    assert (small.lies, small.small_m, small.big_m) == (Lies.SMALL, pytest.approx(12.7e-6), 0)
    assert small.says is not None
    assert "oil clearance" in small.says.text
    assert case.what is Align.HONE
    case.read(2, (GREATEST + HALF_THOU, MIDDLE, MIDDLE))
    big = case.mains[1]
    assert (big.lies, big.small_m, big.big_m) == (Lies.BIG, 0, pytest.approx(12.7e-6))
    assert big.says is not None
    assert "crush" in big.says.text
    assert case.what is Align.CUT_CAPS


def test_half_a_thou_over_the_low_limit_is_in(case: Crankcase) -> None:
    """Half a thou over the low limit is a good main bore: common practice, no published source."""
    case.read(1, (LEAST + HALF_THOU, LEAST + HALF_THOU, LEAST + HALF_THOU))
    assert case.mains[0].lies is Lies.IN


def test_out_of_round_alone_is_a_reason(case: Crankcase) -> None:
    case.all_in()
    case.line((0, 0), (0, 0), (0, 0))
    case.read(3, (MIDDLE - 10, MIDDLE, MIDDLE + 10))
    decision = align_decision(case.story.facts())
    assert case.mains[2].lies is Lies.OUT_OF_ROUND
    assert decision.what is Align.HONE
    (reason,) = decision.reasons
    assert {term.symbol: term.value for term in reason.terms}["o"] == pytest.approx(20e-6, abs=1e-9)


def test_the_hone_takes_from_the_tightest_to_the_middle_of_the_limits(case: Crankcase) -> None:
    case.read(1)
    case.read(2, (LEAST - 10, MIDDLE, MIDDLE))
    case.read(3, (LEAST - 4, MIDDLE, MIDDLE))
    decision = align_decision(case.story.facts())
    assert decision.take_m == pytest.approx((MIDDLE - LEAST + 10) * 1e-6)
    assert decision.brings is not None
    terms = {term.symbol: term.value for term in decision.brings.terms}
    assert terms["h"] == pytest.approx(terms["t"] / 2)


def test_what_is_not_read_keeps_leave_them_from_being_said(case: Crankcase) -> None:
    case.read(1)
    case.read(2)
    decision = align_decision(case.story.facts())
    assert decision.what is Align.CANNOT_TELL
    assert any("upright and on both diagonals" in one.text for one in decision.open_points)
    assert any("a size says nothing of the line" in one.text for one in decision.open_points)


def test_pressing_makes_the_mains_to_be_read_again_and_tells_what_moved(case: Crankcase) -> None:
    case.all_in()
    case.story.fit(1, case.story.liner("L1"))
    assert {main.lies for main in case.mains} == {Lies.READ_AGAIN}
    decision = align_decision(case.story.facts())
    assert any("fit the liner, hole 1 since" in one.text for one in decision.open_points)
    case.read(1)
    case.read(2, (MIDDLE - 6, MIDDLE - 0.1, MIDDLE + 3))
    case.read(3)
    main = case.mains[1]
    changes = [one.change for one in main.directions if one.change is not None]
    assert [one.value_m for one in changes] == [pytest.approx(-6e-6), pytest.approx(-0.1e-6), pytest.approx(3e-6)]
    assert [one.has_moved for one in main.directions] == [True, False, True]
    assert [one.before.value_m for one in main.directions if one.before] == [pytest.approx(MIDDLE * 1e-6)] * 3
    assert [one.words for one in main.between] == ["fit the liner, hole 1"]


def test_a_difference_is_surer_than_two_sizes(case: Crankcase) -> None:
    """JCGM 100, F.1.2.3: what both readings share of the gauge cancels."""
    case.all_in()
    case.story.fit(1, case.story.liner("L1"))
    case.all_in()
    (first, *_) = case.mains[0].directions
    assert first.now is not None
    assert first.change is not None
    assert first.change.expanded_m < 2**0.5 * first.now.expanded_m + 1e-9


def test_a_bore_off_the_line_is_told_with_its_direction(case: Crankcase) -> None:
    line = case.line((0, 0), (9, 12), (0, 0))
    row = line.rows[1]
    assert row.off.value_m == pytest.approx(15e-6, abs=1e-9)
    assert (row.upright.value_m, row.across.value_m) == (pytest.approx(9e-6), pytest.approx(12e-6))
    # tan⁻¹(12/9) is 53.13° from 12 h towards 3 h: 1.771 h.
    assert row.hour == pytest.approx(53.13 / 30, abs=0.01)
    assert line.state is State.OUT
    assert line_is_out(case.story.facts())
    assert mains_are_out(case.story.facts())
    assert case.what is Align.HONE


@pytest.mark.parametrize(("off", "state"), [(3.0, State.IN), (10.05, State.CANNOT_TELL), (20.0, State.OUT)])
def test_the_line_is_judged_with_its_uncertainty(case: Crankcase, off: float, state: State) -> None:
    assert case.line((0, 0), (off, 0), (0, 0)).state is state


def test_without_a_limit_the_line_is_told_and_not_judged() -> None:
    case = Crankcase(within=None)
    assert case.line((0, 0), (20, 0), (0, 0)).state is State.CANNOT_TELL
    assert not line_is_out(case.story.facts())


@given(
    st.tuples(*(st.floats(-50, 50) for _ in range(6))),
    st.floats(-100, 100), st.floats(-100, 100), st.floats(-100, 100), st.floats(-100, 100),
)  # fmt: skip
def test_a_bar_that_stands_askew_drops_out(
    offs: tuple[float, ...], shift_up: float, tilt_up: float, shift_across: float, tilt_across: float
) -> None:
    def found(shifts: bool) -> list[tuple[float, float]]:
        case = Crankcase()
        rows = []
        for main in range(3):
            up, across = offs[2 * main], offs[2 * main + 1]
            if shifts:
                up, across = up + shift_up + tilt_up * main, across + shift_across + tilt_across * main
            rows.append((up, across))
        return [(one.upright.value_m, one.across.value_m) for one in case.line(*rows).rows]

    for straight, askew in zip(found(False), found(True), strict=True):
        assert straight == pytest.approx(askew, abs=1e-10)
    assert found(False)[0] == found(False)[2] == (0, 0)


def test_how_far_a_bore_went_is_told_against_the_line_before(case: Crankcase) -> None:
    case.line((0, 0), (2, 0), (0, 0))
    case.story.fit(1, case.story.liner("L1"))
    line = case.line((5, 5), (11, 9), (5, 5))
    moved = line.rows[1].moved
    assert moved is not None
    assert moved.value_m == pytest.approx(hypot(4, 4) * 1e-6, abs=1e-9)
    assert line.rows[1].upright_was is not None
    assert line.rows[1].upright_was.value_m == pytest.approx(2e-6)


def test_two_mains_have_no_line() -> None:
    case = Crankcase()
    two = Story(card=dry_card(main_bores=2))
    assert line_of(two.facts()).rows == ()
    assert line_of(case.story.facts()).missing[0].key == "main-1"


def test_a_zero_that_moved_keeps_the_line_from_being_told(case: Crankcase) -> None:
    assert case.line((0, 0), (2, 0), (0, 0)).state is State.IN
    case.story.look_at_zero(Quantity.MAIN_LINE, 10)
    assert line_of(case.story.facts()).state is State.CANNOT_TELL
