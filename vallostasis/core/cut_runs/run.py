"""How far a run is: passes that stand, depth by the count, what is next, and where to stop this time.

The counter shows progress; the depth comes from a measurement.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from enum import StrEnum
from itertools import pairwise
from math import pi, sqrt
from statistics import median, stdev

from vallostasis.core.counterbore.cutter_in_hand import USUAL_PASS_S
from vallostasis.core.counterbore.learned import student
from vallostasis.core.counterbore.passes import Passes, count_passes
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.records.cut_runs import CHECKS, CutRun, RunMark, RunMarkKind, RunPass
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.rows import Hole
from vallostasis.core.records.spec_card import Obstruction

# How much is left where it pays to stop and measure, so that the end is set from a reading. Common practice. [µm]
MEASURE_BEFORE_UM = Decimal(50)
# Places where the last passes stopped are left alone. Common practice, no published source.
STOPS_KEPT_AWAY = 3
AWAY_H = 2
# A pause longer than this is no pass. [s]
LONGEST_PASS_S = 600.0


class RunState(StrEnum):
    """Where a run stands."""

    CHECKS = "checks before the first pass"
    CUTTING = "cutting"
    MEASURE = "stop and measure"
    LAST = "last pass"
    DONE = "count is done"
    FINISHED = "finished"
    GIVEN_UP = "given up"


@dataclass(frozen=True, slots=True)
class RunNow:
    """A run as it stands. [µm]

    ``at_um`` is the depth by count, from the newest measurement on where one was taken; ``left`` are the passes from
    there; ``next_um`` what the pass that is turning takes.
    """

    run: CutRun
    passes: tuple[RunPass, ...]
    marks: tuple[RunMark, ...]
    state: RunState
    at_um: Decimal
    measured: RunMark | None
    left: Passes
    unchecked: tuple[RunMarkKind, ...]

    @property
    def count(self) -> int:
        """Passes that are ended."""
        return len(self.passes)

    @property
    def to_go_um(self) -> Decimal:
        """Depth still to cut, by the count. [µm] By definition."""
        return max(Decimal(0), self.run.depth_um - self.at_um)

    @property
    def cut_um(self) -> Decimal:
        """Depth cut so far, by the count. [µm] By definition."""
        return self.at_um - self.run.start_um

    @property
    def passes_left(self) -> int:
        """Passes left, a part pass counted as one."""
        return self.left.whole + (self.left.rest_um > 0)

    @property
    def of(self) -> int:
        """Passes of the whole run."""
        return self.count + self.passes_left

    @property
    def next_um(self) -> Decimal:
        """What the pass that is turning takes. [µm]"""
        return self.run.graduation_um if self.left.whole else self.left.rest_um

    @property
    def next_vacuum(self) -> int:
        """Pass after which the chips come out. Common practice."""
        return (self.count // self.run.vacuum_every + 1) * self.run.vacuum_every

    @property
    def vacuum_due(self) -> bool:
        """Whether the chips of the last passes are still in."""
        if self.count == 0 or self.count % self.run.vacuum_every:
            return False
        last = self.passes[-1].event
        return not any(one.kind is RunMarkKind.VACUUM and one.event > last for one in self.marks)

    @property
    def goes_on(self) -> bool:
        """Whether it is still to be cut."""
        return self.state not in (RunState.FINISHED, RunState.GIVEN_UP)


@once
def runs_of(facts: JobFacts, hole: Hole) -> tuple[RunNow, ...]:
    """Return the runs of a hole, oldest first, each as it stands. House rule: struck passes and marks are gone."""
    return tuple(run_now(facts, one) for one in facts.standing(facts.cut_runs) if one.hole_id == hole.hole_id)


def run_at_work(facts: JobFacts, hole: Hole) -> RunNow | None:
    """Return the run that a hole is being cut by; None where there is none. One run per hole at a time: house rule."""
    return next((one for one in runs_of(facts, hole) if one.goes_on), None)


def run_now(facts: JobFacts, run: CutRun) -> RunNow:
    """Say how far a run is.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    run : CutRun
        The run.

    Returns
    -------
    RunNow
        The depth by count is that of the newest measurement, or of touch-off, and the passes since, each a graduation
        but a last part pass. [µm]

    Notes
    -----
    Exact decimals; graduations are "about" what they are marked: common practice, no published source.
    """
    passes = tuple(one for one in facts.standing(facts.run_passes) if one.run_id == run.run_id)
    marks = tuple(one for one in facts.standing(facts.run_marks) if one.run_id == run.run_id)
    measured = next((one for one in reversed(marks) if one.kind is RunMarkKind.MEASURED), None)
    at_um = run.start_um if measured is None or measured.depth_um is None else measured.depth_um
    since = [one for one in passes if measured is None or one.event > measured.event]
    planned = count_passes(max(Decimal(0), run.depth_um - at_um), run.graduation_um)
    whole = min(len(since), planned.whole)
    part = planned.rest_um if len(since) > planned.whole else Decimal(0)
    at_um += whole * run.graduation_um + part
    left = count_passes(max(Decimal(0), run.depth_um - at_um), run.graduation_um)
    unchecked = tuple(one for one in CHECKS if not any(mark.kind is one for mark in marks))
    state = _state(run, marks, unchecked, left, measured, at_um)
    return RunNow(run, passes, marks, state, at_um, measured, left, unchecked)


def _state(
    run: CutRun,
    marks: tuple[RunMark, ...],
    unchecked: tuple[RunMarkKind, ...],
    left: Passes,
    measured: RunMark | None,
    at_um: Decimal,
) -> RunState:
    kinds = {one.kind for one in marks}
    if RunMarkKind.FINISHED in kinds:
        return RunState.FINISHED
    if RunMarkKind.GIVEN_UP in kinds:
        return RunState.GIVEN_UP
    if unchecked:
        return RunState.CHECKS
    if left.whole == 0 and left.rest_um == 0:
        return RunState.DONE
    if measured is None and at_um > run.start_um and run.depth_um - at_um <= measure_at_um(run):
        return RunState.MEASURE
    return RunState.LAST if left.whole == 0 or (left.whole == 1 and left.rest_um == 0) else RunState.CUTTING


def measure_at_um(run: CutRun) -> Decimal:
    """How much is left where a run stops to be measured: two graduations at least. [µm] Common practice."""
    return max(MEASURE_BEFORE_UM, 2 * run.graduation_um)


def measure_after(now: RunNow) -> int | None:
    """Pass after which the run stops to be measured; None where it was, or the cut is smaller. Common practice."""
    if now.measured is not None or now.run.depth_um - now.run.start_um <= measure_at_um(now.run):
        return None
    to_there = now.run.depth_um - now.at_um - measure_at_um(now.run)
    counted = count_passes(max(Decimal(0), to_there), now.run.graduation_um)
    return now.count + counted.whole + (counted.rest_um > 0)


def stop_hour(stops: Sequence[float], obstructions: Sequence[Obstruction] = ()) -> float:
    """Say where round the clock the next pass stops: a place away from the last ones.

    Parameters
    ----------
    stops : sequence of float
        Where the passes before stopped, oldest first. [h]
    obstructions : sequence of Obstruction
        What is in the way of the handle at this hole.

    Returns
    -------
    float
        Of the whole hours two or more away from the last three the one where fewest have stopped, then the farthest,
        then the first clockwise from 12. [h]

    Notes
    -----
    Never stop at the same place: a stop leaves a mark. Common practice, no published source.
    """
    free = [hour for hour in range(1, 13) if not any(_is_in(hour, one) for one in obstructions)] or list(range(1, 13))
    last = stops[-STOPS_KEPT_AWAY:]

    def worth(hour: int) -> tuple[bool, int, float, int]:
        away = min((_apart(hour, one) for one in last), default=6.0)
        return away < AWAY_H, sum(round(one) == hour for one in stops), -away, hour % 12

    return float(min(free, key=worth))


def _apart(one: float, other: float) -> float:
    gap = abs(one - other) % 12
    return min(gap, 12 - gap)


def _is_in(hour: int, one: Obstruction) -> bool:
    span = (one.until_hour - one.from_hour) % 12
    return (hour - one.from_hour) % 12 <= span


@dataclass(frozen=True, slots=True)
class TimeLeft:
    """Time to the end of the passes, with what it may be off, from so many passes. [s]"""

    seconds: float
    within_s: float
    a_pass_s: float
    of_passes: int


def time_left(now: RunNow, learned_s: float | None = None) -> TimeLeft:
    """Say how long the passes left take, from those of this run, or as learned while there are fewer than three. [s]

    Notes
    -----
    Pauses are no passes. As usual and as learned a quarter of it is allowed for: common practice.
    """
    taken = pass_times(now)
    if len(taken) < 3:
        a_pass = USUAL_PASS_S if learned_s is None else learned_s
        return TimeLeft(a_pass * now.passes_left, 0.25 * a_pass * now.passes_left, a_pass, 0)
    within_s = time_within_s(taken, now.passes_left)
    return TimeLeft(median(taken) * now.passes_left, within_s, median(taken), len(taken))


def time_within_s(taken: Sequence[float], passes: int) -> float:
    """Say how far the time of the passes left may be from that many medians of those turned, at 95 %. [s]

    Notes
    -----
    Scatter s of m passes: each of k to come varies by s, and the median, which one slow pass does not move, is known to
    s·√(π/2m), by which all k are off together: t·s·√(k + k²·π/2m). Variance of the median of normal values
    from memory; Student's t as where a cutter is learned.
    """
    together = passes**2 * pi / 2 / len(taken)
    return student(len(taken) - 1) * stdev(taken) * sqrt(passes + together)


def pass_times(now: RunNow) -> list[float]:
    """Return how long each pass of a run took, from the one before it to itself; what was a pause is left out. [s]

    By definition; passes longer than ten minutes are pauses: common practice, no published source.
    """
    times = [one.noted_at for one in now.passes]
    gaps = [(later - first).total_seconds() for first, later in pairwise(times)]
    return [gap for gap in gaps if 0 < gap <= LONGEST_PASS_S]


def refuse_pass(now: RunNow, number: int) -> None:
    """Refuse a tap that ends no pass: one that was counted already, or one before the checks are done.

    Raises
    ------
    OutOfDomain
        Saying which.

    House rule: each tap names the pass that it ends.
    """
    if now.unchecked:
        raise OutOfDomain(f"not before: {', '.join(one.value for one in now.unchecked)}", "number")
    if not now.goes_on:
        raise OutOfDomain("this run is over: start another", "number")
    if number <= now.count:
        raise OutOfDomain(f"pass {number} is counted already", "number")
    if number > now.count + 1:
        raise OutOfDomain(f"pass {now.count + 1} is turning, not {number}", "number")
