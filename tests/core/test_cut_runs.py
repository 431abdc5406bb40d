"""Counterbores as they are cut. Counting is exact by hand; the rest is common practice, no published source."""

from dataclasses import replace
from datetime import timedelta
from decimal import Decimal
from uuid import UUID, uuid4

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import stats

from tests.core.card import limit, wet_card
from tests.core.facts import HOURS, Story
from vallostasis.core.counterbore.cut_plan import CutterTrust
from vallostasis.core.counterbore.cutter_in_hand import cutter_trust
from vallostasis.core.counterbore.learned import HoleCut, as_learned, learn
from vallostasis.core.counterbore.stack_up import stack_up_of
from vallostasis.core.cut_runs.own_runs import finished_runs
from vallostasis.core.cut_runs.proof import ProofKind, ledge_proof
from vallostasis.core.cut_runs.run import (
    RunNow,
    RunState,
    measure_after,
    refuse_pass,
    run_at_work,
    run_now,
    runs_of,
    stop_hour,
    time_left,
    time_within_s,
)
from vallostasis.core.cut_runs.stop_and_count import stop_and_count
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.records.cut_runs import CHECKS, CutRun, Lesson, RunMark, RunMarkKind, RunPass
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import Obstruction
from vallostasis.core.tape.tape import tape_of
from vallostasis.core.uncertainty.budget import Shape, Source, combine
from vallostasis.core.uncertainty.decision import State

UM = 1e-6


class Runs(Story):
    """A story in which holes are cut by runs, a pass a minute."""

    def begin(self, hole: int = 1, depth: str = "9298", start: str = "8848", step: str = "20") -> UUID:
        run = CutRun(uuid4(), self.hole_rows[hole - 1].hole_id, Decimal(depth), Decimal(start), Decimal(500),
                     Decimal(step), "cutter", 10, self.now, self.person, self._next())  # fmt: skip
        self._add("cut_runs", run)
        return run.run_id

    def say(self, run: UUID, kind: RunMarkKind, depth: str | None = None) -> None:
        self._add("run_marks", RunMark(uuid4(), run, kind, "", None if depth is None else Decimal(depth), depth or "",
                                       self.now, self.person, self._next()))  # fmt: skip

    def ready(self, run: UUID) -> UUID:
        for kind in CHECKS:
            self.say(run, kind)
        return run

    def turn(self, run: UUID, passes: int, seconds: float = 60) -> None:
        for _ in range(passes):
            at = self.now + timedelta(seconds=seconds * len(self.rows.get("run_passes", [])))
            number = sum(one.run_id == run for one in self.rows.get("run_passes", [])) + 1
            self._add("run_passes", RunPass(uuid4(), run, number, 12.0, at, self.person, self._next()))

    def at(self, hole: int = 1) -> RunNow:
        return runs_of(self.facts(), self.hole_rows[hole - 1])[-1]


class TestCount:
    def test_twenty_three_passes_for_four_hundred_and_fifty(self) -> None:
        """By hand: 450 µm in steps of 20 are 22 passes and one of 10."""
        story = Runs()
        run = story.ready(story.begin())
        story.turn(run, 8)
        now = story.at()
        assert (now.count, now.of, now.to_go_um, now.cut_um, now.at_um) == (8, 23, 290, 160, 9008)
        assert (now.left.whole, now.left.rest_um, now.next_um) == (14, 10, 20)
        story.turn(run, 15)
        now = story.at()
        assert (now.count, now.of, now.to_go_um, now.state) == (23, 23, 0, RunState.DONE)

    @given(st.integers(21, 2000), st.sampled_from(["20", "25.4", "10", "12.7"]), st.data())
    def test_what_is_counted_and_what_is_left_is_the_whole_cut(self, cut: int, step: str, data: st.DataObject) -> None:
        story = Runs()
        run = story.ready(story.begin(depth=str(8848 + cut), step=step))
        of = story.at().of
        passes = data.draw(st.integers(0, of))
        story.turn(run, passes)
        now = story.at()
        assert now.of == of
        assert now.cut_um + now.to_go_um == cut
        assert now.cut_um <= cut
        assert (now.to_go_um == 0) is (passes == of)

    def test_from_a_measurement_on_the_count_starts_anew(self) -> None:
        story = Runs()
        run = story.ready(story.begin())
        story.turn(run, 20)
        assert story.at().state is RunState.MEASURE
        # It stands 6 µm shallower than counted: 56 are left, two passes of 20 and one of 16.
        story.say(run, RunMarkKind.MEASURED, "9242")
        now = story.at()
        assert (now.left.whole, now.left.rest_um, now.at_um, now.of) == (2, 16, 9242, 23)
        story.turn(run, 3)
        assert story.at().state is RunState.DONE

    def test_nothing_turns_before_every_check(self) -> None:
        story = Runs()
        run = story.begin()
        for done, kind in enumerate(CHECKS):
            assert story.at().state is RunState.CHECKS
            assert len(story.at().unchecked) == len(CHECKS) - done
            with pytest.raises(OutOfDomain, match="not before"):
                refuse_pass(story.at(), 1)
            story.say(run, kind)
        refuse_pass(story.at(), 1)

    def test_a_tap_names_the_pass_that_it_ends(self) -> None:
        story = Runs()
        run = story.ready(story.begin())
        story.turn(run, 8)
        refuse_pass(story.at(), 9)
        with pytest.raises(OutOfDomain, match="pass 8 is counted already"):
            refuse_pass(story.at(), 8)
        with pytest.raises(OutOfDomain, match="pass 9 is turning, not 10"):
            refuse_pass(story.at(), 10)

    def test_a_pass_that_is_struck_is_not_counted(self) -> None:
        story = Runs()
        run = story.ready(story.begin())
        story.turn(run, 8)
        story.strike(of_event=story.rows["run_passes"][-1].event)
        assert story.at().count == 7
        words = [row.words for row in tape_of(story.facts()) if row.words.startswith("pass")]
        assert words[-1] == "pass 8 ended at 12 h"

    def test_one_run_at_a_hole_is_open_until_it_is_over(self) -> None:
        story = Runs()
        run = story.ready(story.begin())
        hole = story.hole_rows[0]
        assert run_at_work(story.facts(), hole) is not None
        story.say(run, RunMarkKind.GIVEN_UP)
        assert run_at_work(story.facts(), hole) is None
        assert story.at().state is RunState.GIVEN_UP
        with pytest.raises(OutOfDomain, match="over"):
            refuse_pass(story.at(), 1)

    def test_vacuum_is_due_after_every_tenth_until_it_is_done(self) -> None:
        story = Runs()
        run = story.ready(story.begin())
        story.turn(run, 9)
        assert (story.at().vacuum_due, story.at().next_vacuum) == (False, 10)
        story.turn(run, 1)
        assert (story.at().vacuum_due, story.at().next_vacuum) == (True, 20)
        story.say(run, RunMarkKind.VACUUM)
        assert not story.at().vacuum_due

    def test_it_stops_to_be_measured_with_fifty_left(self) -> None:
        story = Runs()
        run = story.ready(story.begin())
        assert measure_after(story.at()) == 20
        story.turn(run, 8)
        assert measure_after(story.at()) == 20
        small = Runs()
        small.ready(small.begin(depth="8890"))
        assert measure_after(small.at()) is None

    def test_a_coarse_graduation_is_measured_two_passes_before_the_end(self) -> None:
        """By hand: 450 µm in steps of 30 are 15 passes; 60 µm, more than the usual 50, are left after 13."""
        story = Runs()
        story.ready(story.begin(step="30"))
        assert measure_after(story.at()) == 13


class TestWhereToStop:
    @given(st.lists(st.sampled_from([float(hour) for hour in range(1, 13)]), max_size=40))
    def test_never_near_the_last_three(self, stops: list[float]) -> None:
        nxt = stop_hour(stops)
        assert nxt in range(1, 13)
        for one in stops[-3:]:
            gap = abs(nxt - one) % 12
            assert min(gap, 12 - gap) >= 2

    def test_a_long_run_spreads_its_stops(self) -> None:
        stops: list[float] = []
        for _ in range(36):
            stops.append(stop_hour(stops))
        counts = [stops.count(float(hour)) for hour in range(1, 13)]
        assert max(counts) - min(counts) <= 2

    def test_not_where_the_handle_does_not_go(self) -> None:
        way = (Obstruction(1, "gear case", 8, 10),)
        stops: list[float] = []
        for _ in range(30):
            stops.append(stop_hour(stops, way))
        assert not {8.0, 9.0, 10.0} & set(stops)


class TestTime:
    def test_median_and_quartiles_of_the_passes(self) -> None:
        """Median and quartiles of 50, 60, 70 and 80 s by NumPy; a pause of an hour is no pass."""
        story = Runs()
        run = story.ready(story.begin())
        at = story.now
        for number, gap in enumerate((0, 50, 60, 3600, 70, 80), start=1):
            at += timedelta(seconds=gap)
            story._add("run_passes", RunPass(uuid4(), run, number, 12.0, at, "Wren", story._next()))
        left = time_left(story.at())
        assert left.of_passes == 4
        assert left.a_pass_s == pytest.approx(np.median([50, 60, 70, 80]))
        assert left.seconds == pytest.approx(65 * story.at().passes_left)
        assert left.within_s == pytest.approx(time_within_s([50, 60, 70, 80], story.at().passes_left))

    @pytest.mark.parametrize("turned", [5, 7, 16])
    @pytest.mark.parametrize("to_come", [1, 3, 16])
    def test_the_time_left_covers(self, turned: int, to_come: int) -> None:
        """95 ± 2 % of drawn ends lie within the stated ±."""
        rng = np.random.default_rng(turned * 100 + to_come)
        passes = rng.normal(60, 6, (8_000, turned + to_come))
        before, after = passes[:, :turned], passes[:, turned:].sum(axis=1)
        off = np.abs(after - to_come * np.median(before, axis=1))
        within = [time_within_s([float(one) for one in row], to_come) for row in before]
        assert 0.93 <= np.mean(off <= np.array(within)) <= 0.97

    def test_as_usual_or_as_learned_until_three_are_turned(self) -> None:
        story = Runs()
        run = story.ready(story.begin())
        story.turn(run, 2)
        assert time_left(story.at()).a_pass_s == 60
        assert time_left(story.at(), 45).a_pass_s == 45


class TestStopAndCount:
    def test_reached_too_soon_says_what_it_would_mean(self) -> None:
        story = Runs()
        run = story.ready(story.begin())
        story.turn(run, 20)
        said = stop_and_count(story.at(), stop_reached=True)
        assert not said.agree
        assert said.says.text.startswith("The stop is reached after 20 of 23 passes")
        assert [term.value for term in said.says.terms] == pytest.approx([50 * UM])
        assert "3 passes were not tapped" in said.may_be[0].text

    def test_counted_and_not_reached(self) -> None:
        story = Runs()
        run = story.ready(story.begin())
        story.turn(run, 23)
        assert not stop_and_count(story.at(), stop_reached=False).agree
        assert stop_and_count(story.at(), stop_reached=True).agree


def _cut_hole(depths: tuple[float, ...], *, said: bool = True, start: float = 8850) -> Story:
    """Hole 1: flange of 8.900, ledge as found, cut by a run to 8.900 for a 0.1 mm shim, read since."""
    story = Runs(card=replace(wet_card(), seat=replace(wet_card().seat, counterbore_nominal=limit("8.815"))))
    liner = story.liner("L1")
    hole = story.hole_rows[0].hole_id
    story.fit(1, liner)
    story.read(Quantity.FLANGE_THICKNESS, liner, (8_900,))
    story.read(Quantity.COUNTERBORE_DEPTH, hole, (start,) * 4)
    run = story.ready(story.begin(depth="8900", start=str(start)))
    story.turn(run, 3)
    cut = story.cut(1, 8_900, 100)
    if said:
        story.say(run, RunMarkKind.DEBURRED)
        story.say(run, RunMarkKind.WIDTH)
    story.say(run, RunMarkKind.FINISHED)
    if depths:
        story.read(Quantity.COUNTERBORE_DEPTH, hole, depths, after_cut=cut)
    return story


class TestProof:
    def _states(self, story: Story) -> dict[ProofKind, State]:
        proof = ledge_proof(story.facts(), story.hole_rows[0])
        assert proof is not None
        return {row.kind: row.state for row in proof.rows}

    def test_nothing_is_proved_before_it_is_read(self) -> None:
        states = self._states(_cut_hole((), said=False))
        assert set(states.values()) == {State.NOT_MEASURED}
        assert ledge_proof(_cut_hole(()).facts(), _cut_hole(()).hole_rows[1]) is None

    def test_burr_off_shim_in_four_read_is_proved(self) -> None:
        # The stop of the cut is recorded to ±30 µm (k = 2): 2 µm between it and the gauge are nothing.
        story = _cut_hole((8_901, 8_902, 8_903, 8_902))
        proof = ledge_proof(story.facts(), story.hole_rows[0])
        assert proof is not None
        assert proof.proved
        assert proof.further is None
        assert proof.over_m == 0
        assert set(self._states(story).values()) == {State.IN}

    def test_short_says_how_many_passes_more(self) -> None:
        """By hand: 8.860 read, 8.900 wanted, 20 µm a pass: two more."""
        story = _cut_hole((8_860,) * 4)
        proof = ledge_proof(story.facts(), story.hole_rows[0])
        assert proof is not None
        assert proof.further is not None
        assert (proof.further.whole, round(proof.further.rest_um)) == (2, 0)
        assert self._states(story)[ProofKind.DEPTH] is State.OUT

    def test_too_deep_says_by_how_much(self) -> None:
        """By hand: the liner of 8.900 on 0.1 stands 75 to 125 µm from 8.875 to 8.925; 8.990 is 90 µm past 8.900."""
        story = _cut_hole((8_990,) * 4)
        proof = ledge_proof(story.facts(), story.hole_rows[0])
        assert proof is not None
        assert proof.over_m == pytest.approx(90 * UM, abs=3 * UM)
        assert proof.further is None

    def test_near_an_end_of_the_window_it_is_too_deep_or_short_already(self) -> None:
        """By hand: 1 µm inside 8.875 to 8.925, read to some 6 µm: 24 µm short of 8.900, or 24 past it."""
        proofs = []
        for read in (8_876, 8_924):
            story = _cut_hole((read,) * 4)
            assert self._states(story)[ProofKind.DEPTH] is State.CANNOT_TELL
            proofs.append(ledge_proof(story.facts(), story.hole_rows[0]))
        short, deep = proofs
        assert short is not None
        assert deep is not None
        assert short.further is not None
        assert (short.further.whole, float(short.further.rest_um)) == (1, pytest.approx(4, abs=1))
        assert short.over_m == 0
        assert deep.further is None
        assert deep.over_m == pytest.approx(24 * UM, abs=UM)

    def test_stop_and_gauge_apart_is_a_burr_a_graduation_or_a_collar(self) -> None:
        assert self._states(_cut_hole((8_902,) * 4))[ProofKind.STOP_AND_GAUGE] is State.IN
        assert self._states(_cut_hole((8_860,) * 4))[ProofKind.STOP_AND_GAUGE] is State.CANNOT_TELL

    def test_a_ledge_that_had_not_sunk_sends_you_elsewhere(self) -> None:
        """FF08: new depth − nominal − count is how far the place touched stood below nominal."""
        # The story records 30 µm from touch-off: 8.845 less 30 is nominal, 8.815.
        story = _cut_hole((8_845,) * 4, start=8_815)
        proof = ledge_proof(story.facts(), story.hole_rows[0])
        assert proof is not None
        words = next(row.words for row in proof.rows if row.kind is ProofKind.STOP_AND_GAUGE)
        sunk = next(term.value for term in words.terms if term.symbol == "w")
        assert sunk == pytest.approx(0, abs=3 * UM)


class TestLearned:
    RUNS = tuple(HoleCut(n, (20.3 * n + off) * UM, off * UM, (60.0, 62.0, 65.0)) for n, off in
                 ((9, 2), (10, -3), (23, 5), (12, 0), (17, -4), (8, 1)))  # fmt: skip

    def test_the_line_through_the_origin_is_that_of_least_squares(self) -> None:
        """Against numpy.linalg.lstsq, with its residual variance on n − 1 and Student's t from SciPy."""
        found = learn(self.RUNS).graduation_m
        assert found is not None
        x = np.array([one.passes for one in self.RUNS])[:, None]
        y = np.array([one.change_m for one in self.RUNS])
        slope, residual, _, _ = np.linalg.lstsq(x, y, rcond=None)
        freedom = len(self.RUNS) - 1
        u = (residual[0] / freedom / np.sum(x**2)) ** 0.5
        assert found.value == pytest.approx(slope[0])
        assert found.within == pytest.approx(stats.t.ppf((1 + 0.9545) / 2, freedom) * u)
        assert found.n == 6

    def test_setting_and_time(self) -> None:
        learned = learn(self.RUNS)
        off = [one.off_m for one in self.RUNS]
        assert learned.setting_m is not None
        assert learned.setting_m.value == pytest.approx(np.std(off, ddof=1))
        t = stats.t.ppf((1 + 0.9545) / 2, 5)
        assert learned.setting_prediction_m == pytest.approx(t * np.std(off, ddof=1) * (1 + 1 / 6) ** 0.5)
        assert learned.pass_s is not None
        assert learned.pass_s.value == 62

    def test_the_prediction_covers_the_next_run(self) -> None:
        """95 ± 2 % of next runs lie within the prediction, drawn from a normal setting error."""
        rng = np.random.default_rng(3)
        hits = []
        for _ in range(3000):
            off = rng.normal(0, 6 * UM, 6)
            learned = learn([HoleCut(10, 200 * UM + one, one) for one in off[:5]])
            assert learned.setting_prediction_m is not None
            hits.append(abs(off[5] - np.mean(off[:5])) <= learned.setting_prediction_m)
        assert 0.93 <= np.mean(hits) <= 0.975

    def test_it_replaces_the_card_from_five_on(self) -> None:
        marked = CutterTrust(20 * UM, 25 * UM, 0.05)
        assert as_learned(marked, learn(self.RUNS[:4])) == marked
        own = as_learned(marked, learn(self.RUNS))
        assert own.graduation_m == pytest.approx(20.3 * UM, rel=0.02)
        prediction = learn(self.RUNS).setting_prediction_m
        assert prediction is not None
        # The standard uncertainty stays: half of the prediction is a rectangle's half width over √3.
        assert own.stop_accuracy_m / 3**0.5 == pytest.approx(prediction / 2)

    def test_the_plan_of_a_job_stands_on_lessons_of_its_cutter_and_material(self) -> None:
        story = Story()
        lessons = tuple(Lesson(uuid4(), "A", n, "Cutter", "grey iron", Decimal(10), Decimal(205 + n), Decimal(n), ())
                        for n in range(5))  # fmt: skip
        facts = replace(story.facts(), lessons=lessons)
        assert cutter_trust(facts).graduation_m == pytest.approx(20.7 * UM)
        other = replace(facts, lessons=tuple(replace(one, material="aluminium") for one in lessons))
        assert cutter_trust(other).graduation_m == pytest.approx(20 * UM)

    def test_nothing_is_learned_of_nothing(self) -> None:
        assert learn([]).graduation_m is None
        assert learn([HoleCut(3, 60 * UM, 0)]).setting_m is None
        with pytest.raises(OutOfDomain):
            learn([HoleCut(0, 0, 0)])

    def test_a_finished_run_that_was_read_teaches(self) -> None:
        story = _cut_hole((8_904,) * 4)
        ((hole, run, taught),) = finished_runs(story.facts())
        assert hole.number == 1
        assert run.state is RunState.FINISHED
        # By hand: 8.850 to 8.904 over 50 µm of passes, 2.5 graduations, 4 µm past what was set.
        assert taught.passes == pytest.approx(2.5)
        assert taught.change_m == pytest.approx(54 * UM, abs=1e-9)
        assert taught.off_m == pytest.approx(4 * UM, abs=1e-9)
        assert finished_runs(_cut_hole(()).facts()) == ()


def test_a_run_ended_from_a_measurement_lands_inside() -> None:
    """Ten thousand runs from a stop-and-measure: at least 97.5 % stand inside a window of ±25 µm.

    The gauge reads to ±2u = 8 µm, the screw is off by 5 % of what is left, a graduation is set to a quarter of one.
    """
    rng = np.random.default_rng(5)
    n, step = 10_000, 20.0
    screw, stop = rng.uniform(-0.05, 0.05, n), rng.uniform(-25, 25, n)
    counted = 400.0
    true = counted * (1 + screw) + stop
    read = true + rng.normal(0, 4, n)
    left = np.maximum(0.0, 450.0 - read)
    ended = true + left * (1 + screw) + rng.uniform(-step / 4, step / 4, n)
    inside = np.mean(np.abs(ended - 450) <= 25)
    assert inside >= 0.975
    story = Runs()
    run = story.ready(story.begin(depth="9298", start="8848"))
    story.turn(run, 20)
    story.say(run, RunMarkKind.MEASURED, str(round(8848 + float(read[0]), 1)))
    assert float(story.at().to_go_um) == pytest.approx(left[0], abs=0.06)


def test_the_bar_of_the_stack_adds_up() -> None:
    """Shares of the variance add to one; the worst case adds half widths: 25, twice 3, 4, twice 1."""
    budget = combine("P", (
        Source("stop of the cutter", 25 * UM / 3**0.5, shape=Shape.RECTANGULAR, error="a"),
        Source("flange of L1", 3 * UM, error="b"),
        Source("shim", 4 * UM / 3**0.5, shape=Shape.RECTANGULAR, error="c"),
        Source("repeatability", 1 * UM, error="d"),
    ))  # fmt: skip
    bar = stack_up_of(budget)
    assert [one.name for one in bar] == ["stop", "flange", "shim", "gauge"]
    assert sum(one.share for one in bar) == pytest.approx(1)
    assert [one.half_width_m / UM for one in bar] == pytest.approx([25, 6, 4, 2])


def test_the_depth_by_count_never_runs_past_the_stop() -> None:
    story = Runs()
    run = story.ready(story.begin(depth="8890", start="8848"))
    story.turn(run, 5)
    now = run_now(story.facts(), story.rows["cut_runs"][0])
    assert now.at_um == 8890
    assert HOURS[0] == 12
