"""A drop as it runs: its state, the run sheet, what thermometers teach, what was felt, after it, the next liner."""

from datetime import UTC, datetime, timedelta
from decimal import Decimal
from math import exp, log
from uuid import UUID, uuid4

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.stats import norm

from tests.core.facts import Story
from tests.core.test_fits import told
from tests.core.test_heat import ALUMINIUM, SIZES, SPREADS, heated
from vallostasis.core.fits.hot_hold import grows_of
from vallostasis.core.heat.after import HEIGHT_OFF_M, Settles, heights_of, hold_down, stands_m
from vallostasis.core.heat.felt import Felt, felt_of
from vallostasis.core.heat.live import (
    JUST_BEFORE_S,
    NOISE_K,
    THERMOMETER_OFF_K,
    LiveWindow,
    learned_of,
    live_window,
    spreads_learned,
)
from vallostasis.core.heat.next_liner import KEPT_M, next_liners
from vallostasis.core.heat.planner import Drops, block_cools_s
from vallostasis.core.heat.run import DropNow, DropState, Warmth, drop_at_work, drops_of, enters_at, run_sheet
from vallostasis.core.heat.transient import liner_constant_s
from vallostasis.core.heat.window import DRAWN, drawn
from vallostasis.core.operations.disturbances import doings_of
from vallostasis.core.records.heat_runs import READY, HeatMark, HeatMarkKind, HeatRun
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.route.evidence import evidence_of
from vallostasis.core.tape.tape import tape_of
from vallostasis.core.uncertainty.decision import State

K = HeatMarkKind
OUT = datetime(2026, 11, 29, 9, 0, tzinfo=UTC)
STEPS = ((10.0, K.BAG_OFF), (24.0, K.WIPED), (34.0, K.OVER), (40.0, K.ENTERS))
# Felt by nobody yet: what a test adds decides.
IN_TIME = (*((-60.0, kind) for kind in READY), (0.0, K.OUT), *STEPS)
Moment = tuple[float, HeatMarkKind] | tuple[float, HeatMarkKind, float]


class Drop:
    """A drop that a test tells, moment by moment, counted from leaving the cold. [s]"""

    def __init__(self, *moments: Moment, greased: bool = False, planned_enter_s: float = 40.0, **card: object) -> None:
        self.story, self.hole, liner = told(**{**ALUMINIUM, **card})  # type: ignore[arg-type]
        self.run = HeatRun(
            uuid4(), self.hole, liner, Decimal(80), Decimal(-18), Decimal(20), Decimal("0.5"), Decimal(38),
            Decimal(str(planned_enter_s)), Decimal(5), Decimal(30), greased, "Tobiah", "Ines", OUT, "Ines",
            self._event(),
        )  # fmt: skip
        self.story._add("heat_runs", self.run)
        for moment in moments:
            self.note(*moment)

    def _event(self) -> int:
        return self.story._next()

    def note(self, after_s: float, kind: HeatMarkKind, value: float | None = None, words: str = "") -> UUID:
        """Something is noted: a temperature in °C, a height in µm."""
        is_height = kind.value.startswith("height")
        exact = None if value is None else Decimal(str(value))
        row = HeatMark(uuid4(), self.run.heat_run_id, kind, None if is_height else exact, exact if is_height else None,
                       "", words, OUT + timedelta(seconds=after_s), "Ines", self._event())  # fmt: skip
        self.story._add("heat_marks", row)
        return row.heat_mark_id

    @property
    def now(self) -> DropNow:
        facts = self.story.facts()
        return drops_of(facts, facts.holes[0])[-1]

    def live(self, now_s: float = 0.0) -> LiveWindow:
        return live_window(heated(self.story.facts()), self.now, now_s)

    def felt(self) -> Felt:
        found = felt_of(self.now, self.live())
        assert found is not None
        return found


def test_first_it_is_looked_at_then_the_clock_runs_and_it_is_home() -> None:
    drop, seen = Drop(), []
    for kind in READY:
        seen.append(drop.now.state)
        assert drop.now.unchecked[0] is kind
        drop.note(-60, kind)
    for moment in ((0.0, K.OUT), *STEPS, (44.0, K.DROPPED), (60.0, K.CLAMPED), (7000.0, K.RELEASED)):
        seen.append(drop.now.state)
        drop.note(*moment)
    assert seen == [DropState.FIRST] * len(READY) + [DropState.SET, *[DropState.OUT] * 4, DropState.IN, DropState.HOME,
                                                     DropState.HELD]  # fmt: skip
    assert drop.now.state is DropState.LOOSE
    assert drop.now.home is not None
    assert drop.now.seconds(drop.now.home.noted_at) == 44.0


def test_one_that_sticks_goes_on_or_comes_back_out_and_struck_moments_are_gone() -> None:
    drop = Drop(*IN_TIME, (43.0, K.STUCK))
    assert drop.now.state is DropState.STUCK
    assert drop_at_work(drop.story.facts()) == drop.now
    drop.note(46.0, K.FREED)
    assert drop.now.state is DropState.IN
    drop.note(50.0, K.BACK)
    assert drop.now.state is DropState.BACK
    assert drop_at_work(drop.story.facts()) is None
    last = drop.story.facts().heat_marks[-1]
    drop.story.strike(of_event=last.event)
    assert drop.now.state is DropState.IN


def test_the_run_sheet_shares_the_way_and_what_is_late_moves_all_that_follows() -> None:
    """Shares of 40 s as they are declared: a bag 30 %, wiped 62 %, over the hole 88 %. By hand."""
    drop = Drop(*((-60.0, kind) for kind in READY), (0.0, K.OUT))
    assert [(one.kind, one.due_s) for one in run_sheet(drop.now, 1.0)] == [
        (K.BAG_OFF, pytest.approx(12.0)), (K.WIPED, pytest.approx(24.8)), (K.OVER, pytest.approx(35.2)),
        (K.ENTERS, pytest.approx(40.0))]  # fmt: skip
    # Twenty seconds on and the bag still on: all that follows is eight seconds later.
    assert enters_at(drop.now, 20.0) == pytest.approx(48.0)
    drop.note(20.0, K.BAG_OFF)
    assert run_sheet(drop.now, 21.0)[0].done_s == 20.0
    assert enters_at(drop.now, 21.0) == pytest.approx(48.0)
    drop.note(24.0, K.ENTERS)
    assert enters_at(drop.now, 90.0) == 24.0
    greased = Drop(*((-60.0, kind) for kind in READY), (0.0, K.OUT), greased=True)
    assert [one.kind for one in run_sheet(greased.now, 0.0)][2] is K.GREASED
    assert greased.now.next_step is K.BAG_OFF


def test_without_readings_nothing_is_learned_and_with_many_only_the_thermometer_is_left() -> None:
    """The limit of many readings at one place: the thermometer's own error against the prior, normal and linear."""
    assert learned_of(80.0, 3.0, 3000.0, 0.25, 20.0, ()).start_off_k == 3.0
    many = tuple(Warmth(0.0, 77.0) for _ in range(400))
    found = learned_of(80.0, 3.0, 3000.0, 0.25, 20.0, many)
    # By conjugate normals: precision 1/9 at 80 and 1/0.25 at 77.
    within = THERMOMETER_OFF_K**2 + NOISE_K**2 / 400
    weight = (1 / 9) / (1 / 9 + 1 / within)
    assert found.start_c == pytest.approx(80 * weight + 77 * (1 - weight), abs=1e-3)
    assert found.start_off_k == pytest.approx((1 / (1 / 9 + 1 / within)) ** 0.5, rel=1e-3)
    # Read at the start alone, they say nothing of how fast it changes.
    assert found.factor == pytest.approx(1.0, abs=1e-3)
    assert found.factor_off == pytest.approx(0.25, rel=1e-3)


@settings(max_examples=25)
@given(st.floats(-25, -12), st.floats(150, 400))
def test_a_start_and_a_time_constant_are_found_again(start_c: float, constant_s: float) -> None:
    """Readings without any error of a part that warms by the textbook: what was put in comes out, within its ±."""
    reads = tuple(Warmth(float(at), 20 + (start_c - 20) * exp(-at / constant_s)) for at in range(0, 60, 4))
    found = learned_of(-18.0, 4.0, 250.0, 0.4, 20.0, reads)
    assert abs(found.start_c - start_c) < 2.5 * found.start_off_k
    assert abs(log(found.factor * 250.0 / constant_s)) < 2.5 * found.factor_off
    assert found.start_off_k < 0.62
    assert found.factor_off < 0.1


def test_a_slow_liner_has_a_weak_film_and_what_is_tied_is_drawn_tied() -> None:
    constant = liner_constant_s(SIZES, SPREADS.film)
    reads = tuple(Warmth(float(at), 20 - 38 * exp(-at / (1.3 * constant))) for at in range(0, 60, 3))
    found = spreads_learned(SIZES, SPREADS, 20.0, reads, ())
    assert found.film == pytest.approx(SPREADS.film / 1.3, rel=0.08)
    assert (found.block_c, found.block_off_k, found.block_tie) == (80.0, 3.0, 0.0)
    # Read late only: a colder start with the same readings has warmed faster, by a better film.
    found = spreads_learned(SIZES, SPREADS, 20.0, reads[-6:], ())
    assert found.liner_tie < -0.1
    even = np.random.default_rng(5).random((4000, DRAWN))
    draws = drawn(found, even)
    tie = np.corrcoef(draws.liner_c, np.log(draws.film))[0, 1]
    # Fisher: one over the root of the draws, five of them.
    assert tie == pytest.approx(found.liner_tie, abs=5 / 4000**0.5)
    assert np.log(draws.film).std() == pytest.approx(found.film_off, rel=0.06)
    assert norm.fit(draws.block_c)[1] == pytest.approx(3.0, rel=0.06)


def test_thermometers_move_the_window_and_what_is_read_in_the_hole_does_not() -> None:
    drop = Drop(*IN_TIME)
    planned = drop.live().window.home_by_s
    cold = Drop(*IN_TIME, (-2.0, K.BLOCK_READ, 72.0), (8.0, K.BLOCK_READ, 71.8))
    assert (cold.live().block_reads, cold.live().liner_reads) == (2, 0)
    assert planned is not None and cold.live().window.home_by_s is not None
    assert cold.live().window.home_by_s < planned
    assert cold.live().spreads.block_c == pytest.approx(72.2, abs=0.4)
    cold.note(43.0, K.BLOCK_READ, 40.0)
    cold.note(-JUST_BEFORE_S - 1, K.BLOCK_READ, 120.0)
    assert cold.live().spreads.block_c == pytest.approx(72.2, abs=0.4)
    room = Drop(*IN_TIME, (1.0, K.ROOM_READ, 5.0))
    assert room.live().air_c == 5.0
    assert room.live().liner_c(SIZES, 1e6) == pytest.approx(5.0)
    assert room.live().block_c(1e9) == pytest.approx(5.0)


def test_before_it_comes_out_the_last_reading_is_what_it_starts_with() -> None:
    drop = Drop((-600.0, K.BLOCK_READ, 40.0), (-20.0, K.BLOCK_READ, 78.0))
    assert drop.live().block_reads == 1
    assert drop.live().spreads.block_c == pytest.approx(78.1, abs=0.2)


@pytest.mark.parametrize(
    ("kind", "home_s", "harder", "text"),
    [
        (K.DROPPED, 42.0, False, "as expected"),
        (K.PUSHED, 42.0, True, "should have gone in more easily"),
        (K.DROVE, 42.0, True, "should have gone in more easily"),
        (K.STUCK, 42.0, True, "should have gone in more easily"),
        (K.DROVE, 240.0, False, "as expected"),
        (K.DROPPED, 240.0, False, "not the size that was read"),
    ],
)
def test_what_was_felt_stands_against_what_was_expected(kind: HeatMarkKind, home_s: float, harder: bool,
                                                        text: str) -> None:  # fmt: skip
    """Early in the window it drops, long after it grabs: by the window's own edges at that moment."""
    # The one that touches comes out of an oven that was hardly warm.
    drop = Drop(*IN_TIME, (-1.0, K.BLOCK_READ, 80.0 if home_s < 60 else 16.0), (home_s, kind))
    found = drop.felt()
    assert found.expected is (Drops.FREELY if home_s < 60 else Drops.GRABS)
    assert found.is_harder is harder
    assert text in found.says.text
    assert found.at_s == home_s
    assert found.clear == drop.live().window.at(home_s)
    assert any("square" in one for one in found.looks) is harder


def test_why_it_went_hard_is_looked_for_in_the_run_first() -> None:
    late = (*((-60.0, kind) for kind in READY), (0.0, K.OUT), (-1.0, K.BLOCK_READ, 74.0), (50.0, K.ENTERS),
            (61.0, K.PUSHED))  # fmt: skip
    looks = Drop(*late).felt().looks
    assert looks[0] == "It entered 10 s later than planned."
    assert looks[1].startswith("It took 6 s longer")
    assert any("6 K colder" in one for one in looks)
    assert any("Nobody read the liner" in one for one in looks)
    assert any("not wiped" in one for one in looks)
    assert Drop(*IN_TIME, (44.0, K.DROPPED)).felt().looks == ()


def test_it_is_held_until_the_block_is_within_five_kelvin_and_readings_correct_that() -> None:
    """Exponential: τ·ln(60/5) from 80 °C in a room of 20 °C, with the time constant of the block planned for."""
    drop = Drop(*IN_TIME, (44.0, K.DROPPED))
    fit = heated(drop.story.facts())
    held = hold_down(fit, drop.now, drop.live(), 100.0)
    constant = block_cools_s(fit.sizes.block, 30.0, 80.0, 20.0)
    assert held.until_s == pytest.approx(constant * log(60 / 5))
    assert held.block_c == pytest.approx(20 + 60 * exp(-100 / constant))
    assert not held.is_cold
    drop.note(1500.0, K.BLOCK_READ, 30.0)
    sooner = hold_down(fit, drop.now, drop.live(), 1500.0)
    assert (sooner.reads, sooner.is_cold) == (1, False)
    assert sooner.until_s < held.until_s
    drop.note(3000.0, K.BLOCK_READ, 24.9)
    assert hold_down(fit, drop.now, drop.live(), 3000.0).is_cold


def _heights(*read: Moment) -> tuple[Drop, Settles, float | None]:
    drop = Drop(*IN_TIME, (44.0, K.DROPPED), (100.0, K.BLOCK_READ, 70.0), *read)
    found = heights_of(drop.story.facts(), drop.now, 20.0)
    return drop, found.settles, found.lifted_m


def test_heights_say_whether_the_block_lifted_it_with_what_both_grow_apart_taken_off() -> None:
    """By hand: between seat and deck aluminium shrinks by 50 K more than iron: L·(α_b − α_l)·50 higher when cold."""
    drop, settles, lifted = _heights((120.0, K.HEIGHT_WARM, 50.0))
    assert (settles, lifted) == (Settles.NOT_TOLD, None)
    facts = drop.story.facts()
    grows, stands = grows_of(facts), stands_m(facts)
    grew_um = stands * (grows.block_per_k - grows.liner_per_k) * 50 * 1e6
    assert grew_um > 3
    within_um = 2 * 2**0.5 * HEIGHT_OFF_M * 1e6
    for cold_um, expected in ((50 + grew_um, Settles.STAYED), (50 + grew_um + within_um + 1, Settles.LIFTED),
                              (50 + grew_um + 0.7 * within_um, Settles.NOT_TOLD),
                              (50 + grew_um - within_um - 1, Settles.SANK)):  # fmt: skip
        _, settles, lifted = _heights((120.0, K.HEIGHT_WARM, 50.0), (9000.0, K.HEIGHT_COLD, cold_um))
        assert settles is expected
        assert lifted == pytest.approx((cold_um - 50 - grew_um) * 1e-6)


@pytest.mark.parametrize(("again_um", "settles"), [(58.0, Settles.STAYED), (40.0, Settles.LIFTED)])
def test_a_second_press_settles_it(again_um: float, settles: Settles) -> None:
    found = _heights((120.0, K.HEIGHT_WARM, 50.0), (9000.0, K.HEIGHT_COLD, 60.0), (9100.0, K.HEIGHT_AGAIN, again_um))
    assert found[1] is settles


def test_the_next_liner_has_until_the_block_is_too_cold_for_it() -> None:
    """By hand: from what the block must have, back along its exponential, less the way to the hole."""
    drop = Drop(*IN_TIME, (44.0, K.DROPPED))
    story, other = drop.story, drop.story.hole_rows[1].hole_id
    _read_alike(story, other)
    facts = story.facts()
    live = drop.live()
    found = next_liners(facts, drop.now, live, 60.0)
    assert [(one.hole, one.liner, one.missing) for one in found] == [(2, "B", "")]
    needs = found[0].needs_c
    assert needs is not None and 20 < needs < 80
    fit = heated(facts)
    assert fit.pair.clearance(needs, -18.0) == pytest.approx(38e-6 + KEPT_M, abs=2e-7)
    until = live.spreads.block_s * log((live.spreads.block_c - 20) / (needs - 20)) - 40 - 5
    assert found[0].until_s == pytest.approx(until)
    assert next_liners(facts, drop.now, live, until + 1)[0].until_s is None
    assert next_liners(story.facts(), drop.now, live, 0.0)[0].hole == 2


def test_a_hole_that_nobody_read_is_said_to_be_read_first() -> None:
    drop = Drop(*IN_TIME, (44.0, K.DROPPED))
    drop.story.liner("B")
    found = next_liners(drop.story.facts(), drop.now, drop.live(), 60.0)
    assert [(one.hole, one.until_s, one.missing) for one in found] == [(2, None, "read hole and liner first")]


def test_what_thermometers_say_by_themselves_is_no_line_of_the_tape_and_no_step_to_undo() -> None:
    drop = Drop((0.0, K.OUT))
    drop.note(2.0, K.BLOCK_READ, 79.0, "Oven clip")
    drop.note(3.0, K.BLOCK_READ, 78.0)
    words = [row.words for row in tape_of(drop.story.facts())]
    assert "block read 78.0 °C" in words[-1]
    assert sum("block read" in one for one in words) == 1


def _read_alike(story: Story, hole: UUID) -> None:
    """A second hole and a liner that read as the first pair did."""
    from tests.core.facts import level
    from tests.core.test_fits import AXES, LEVELS, OUTSIDE
    from vallostasis.core.records.rows import Quantity

    liner = story.liner("B")
    story.survey(Quantity.BLOCK_BORE, {level(d, a): (103_980.0,) for _, d in LEVELS for a in AXES}, hole_id=hole)
    story.survey(Quantity.LINER_OUTSIDE, {level(d, a): (OUTSIDE[d],) for _, d in LEVELS for a in AXES}, liner_id=liner)


def _evidence(drop: Drop, operation: Operation) -> State:
    facts = drop.story.facts()
    return evidence_of(facts, operation, None).state


def test_a_drop_is_the_evidence_of_heat_and_its_block_read_cold_that_of_soak() -> None:
    """Within 5 K of the room: common practice, no published source."""
    drop = Drop(*IN_TIME, (44.0, K.DROPPED))
    # Nobody read the block, but the plan was a hot one: what is read from then on is read warm.
    assert [one.at for one in doings_of(drop.story.facts()) if one.operation is Operation.HEAT] == [OUT]
    assert _evidence(drop, Operation.HEAT) is not State.IN
    drop.note(60.0, K.BLOCK_READ, 71.0)
    assert _evidence(drop, Operation.HEAT) is State.IN
    assert _evidence(drop, Operation.SOAK) is not State.IN
    drop.note(9000.0, K.BLOCK_READ, 24.0)
    assert _evidence(drop, Operation.SOAK) is State.IN
    soaked = [one.at for one in doings_of(drop.story.facts()) if one.operation is Operation.SOAK]
    assert soaked == [OUT + timedelta(seconds=9000)]
    drop.note(9100.0, K.ROOM_READ, 10.0)
    assert _evidence(drop, Operation.SOAK) is not State.IN


def test_a_block_that_was_read_cold_before_a_cold_liner_came_out_was_never_heated() -> None:
    drop = Drop((-5.0, K.BLOCK_READ, 21.0), *IN_TIME, (44.0, K.DROPPED))
    assert [one for one in doings_of(drop.story.facts()) if one.operation is Operation.HEAT] == []
    warm = Drop((-900.0, K.BLOCK_READ, 21.0), (-5.0, K.BLOCK_READ, 60.0), *IN_TIME, (50.0, K.BLOCK_READ, 22.0))
    assert len([one for one in doings_of(warm.story.facts()) if one.operation is Operation.HEAT]) == 1
    # Read cold before it was home says nothing of what came after.
    assert _evidence(Drop(*IN_TIME, (30.0, K.BLOCK_READ, 21.0), (44.0, K.DROPPED)), Operation.SOAK) is not State.IN
