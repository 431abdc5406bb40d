"""The calendar against brute force on small weeks, and against a checker that knows nothing of the solver."""

import random
from collections import defaultdict
from datetime import UTC, date, datetime, timedelta
from itertools import pairwise, permutations, product
from zoneinfo import ZoneInfo

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.deep import DEEP
from vallostasis.core.calendar.open_time import SLOT_H, USUAL_DAY, USUAL_WEEK, OpenHours, OpenTime, slots_of
from vallostasis.core.calendar.problem import CalendarProblem, JobToPlan, Laid, Person, Placed, Span, Task
from vallostasis.core.calendar.solver import as_it_comes, lay_out
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.records.calendar import Machine

MONDAY = datetime(2026, 11, 30, 8, tzinfo=UTC)
TWO_HOURS = OpenHours("UTC", (((8 * 60, 10 * 60),),) * 5 + ((), ()))
WEEKS = 1000 if DEEP else 120
SMALL = 200 if DEEP else 25


def axis(days: int = 28, hours: OpenHours = TWO_HOURS) -> OpenTime:
    return OpenTime(hours, MONDAY, days)


def test_the_axis_holds_open_quarters_only() -> None:
    """Monday to Friday, eight hours with a break: by counting."""
    week = OpenTime(OpenHours("UTC", USUAL_WEEK), MONDAY, 7)
    assert week.slots == 5 * 8 * 4
    assert week.begins_at(16) == datetime(2026, 11, 30, 13, tzinfo=UTC)
    assert week.ends_at(16) == datetime(2026, 11, 30, 12, tzinfo=UTC)
    assert week.ends_at(32).hour == 17 and week.begins_at(32).day == 1
    assert week.slot_from(datetime(2026, 12, 5, 12, tzinfo=UTC)) == week.slots


def test_hours_stay_those_of_the_shop_when_the_clocks_change() -> None:
    """Clocks go forward on 28 March 2027 in London: by the IANA time zone database, read through zoneinfo."""
    london = ZoneInfo("Europe/London")
    week = OpenTime(OpenHours("Europe/London", USUAL_WEEK), datetime(2027, 3, 26, tzinfo=london), 5)
    friday, monday = week.begins_at(0), week.begins_at(32)
    assert (friday.hour, monday.hour) == (8, 8)
    assert friday.utcoffset() == timedelta(0) and monday.utcoffset() == timedelta(hours=1)
    assert (monday - friday.astimezone(UTC)) == timedelta(hours=71)


@given(st.integers(0, 8 * 20), st.floats(0.1, 100))
def test_what_stands_by_the_clock_goes_on_at_the_first_open_moment(end: int, hours: float) -> None:
    """By stepping through the quarters one by one."""
    week = OpenTime(OpenHours("UTC", USUAL_WEEK), MONDAY, 40)
    at = week.ends_at(end) if end else MONDAY
    found = float(week.after_wait(np.array([float(end)]), hours)[0])
    moment = at + timedelta(hours=hours)
    if end:
        whole = next(slot for slot in range(week.slots) if week.begins_at(slot) + timedelta(minutes=15) > moment)
        assert found == pytest.approx(
            max(whole, whole + (moment - week.begins_at(whole)).total_seconds() / 900), abs=1e-6
        )


def test_a_shop_that_is_never_open_has_no_calendar() -> None:
    with pytest.raises(OutOfDomain, match="never open"):
        OpenTime(OpenHours("UTC", ((),) * 7), MONDAY, 7)


@pytest.mark.parametrize(("hours", "quarters"), [(0.01, 1), (0.25, 1), (0.3, 1), (1.5, 6)])
def test_hours_fill_quarters(hours: float, quarters: int) -> None:
    assert slots_of(hours) == quarters


def random_week(seed: int, jobs: int, most: int, people: int = 2) -> CalendarProblem:
    """Jobs in a row, machines, parts that come later, somebody away, one thing that stands overnight."""
    draw = random.Random(seed)
    tasks: list[Task] = []
    to_plan = []
    for job in range(jobs):
        before: list[int] = []
        total = 0
        for step in range(draw.randint(1, most)):
            slots = draw.randint(1, 5)
            total += slots
            machine = draw.choice([None, Machine.HONE, Machine.MILL])
            who = tuple(sorted(draw.sample(range(people), draw.randint(1, people))))
            tasks.append(Task(job, f"{job}.{step}", slots, who, machine, tuple(before[-1:]),
                              stands_h=draw.choice([0.0, 0.0, 14.0]) if before else 0.0,
                              ready=draw.choice([0, 0, draw.randint(0, 12)]), one_day=draw.random() < 0.3))  # fmt: skip
            before.append(len(tasks) - 1)
        to_plan.append(JobToPlan(f"job {job}", draw.randint(total, 3 * total + 8)))
    away = (Span(draw.randint(2, 6), draw.randint(7, 11)),)
    crew = tuple(Person(f"person {at}", away if at == 0 else ()) for at in range(people))
    return CalendarProblem(axis(60), tuple(to_plan), crew, tuple(tasks))


def check(problem: CalendarProblem, placed: tuple[Placed, ...]) -> None:
    """Nobody and nothing in two places, nothing before what it needs; written against the words of the issue."""
    by_task = {one.task: one for one in placed}
    busy: dict[object, list[tuple[int, int]]] = defaultdict(list)
    for at, task in enumerate(problem.tasks):
        one = by_task[at]
        saved = task.setup_slots if one.shares_setup else 0
        assert one.end - one.start == task.slots - saved
        assert one.start >= task.ready
        assert task.pinned is None or one.start == task.pinned
        for first in task.after:
            end = by_task[first].end
            assert one.start >= end
            if task.stands_h:
                waited = problem.axis.begins_at(one.start) - problem.axis.ends_at(end)
                assert waited >= timedelta(hours=task.stands_h)
        if task.people:
            assert one.person in task.people
            busy["person", one.person].append((one.start, one.end))
        if task.machine:
            busy["machine", task.machine].append((one.start, one.end))
        if task.on_block:
            busy["block", task.job].append((one.start, one.end))
        if task.one_day:
            days = [problem.axis.begins_at(slot).date() for slot in range(one.start, one.end)]
            longest = max(after - first for first, after in problem.axis.open_days)
            assert len(set(days)) == 1 or task.slots > longest
    for who, person in enumerate(problem.people):
        busy["person", who] += [(span.first, span.after) for span in person.away]
    for spans in busy.values():
        spans.sort()
        assert all(first[1] <= second[0] for first, second in pairwise(spans))


@pytest.mark.parametrize("seed", range(4))
def test_random_weeks_have_no_clash_and_keep_their_order(seed: int) -> None:
    for at in range(WEEKS // 4):
        problem = random_week(1000 * seed + at, 4, 4)
        check(problem, lay_out(problem, longest_s=0.5).placed)


def test_nor_has_a_shop_where_people_take_what_is_ready() -> None:
    for seed in range(60):
        problem = random_week(seed, 4, 4)
        check(problem, as_it_comes(problem))


def every_calendar(problem: CalendarProblem) -> tuple[int, int]:
    """Fewest late quarters, then least waiting, of every order and every choice of people: the test's own code."""
    best = (10**9, 10**9)
    n = len(problem.tasks)
    needs = [(first, at) for at in range(n) for first in problem.tasks[at].after]
    every = permutations(range(n))
    orders = [one for one in every if all(one.index(first) < one.index(at) for first, at in needs)]
    for who in product(*(one.people for one in problem.tasks)):
        for order in orders:
            best = min(best, _worth(problem, order, who))
    return best


def _worth(problem: CalendarProblem, order: tuple[int, ...], who: tuple[int, ...]) -> tuple[int, int]:
    taken: dict[object, set[int]] = defaultdict(set)
    for at, person in enumerate(problem.people):
        for span in person.away:
            taken["person", at] |= set(range(span.first, span.after))
    ends: dict[int, int] = {}
    for at in order:
        task = problem.tasks[at]
        keys: list[object] = [("person", who[at]), ("block", task.job)]
        keys += [("machine", task.machine)] if task.machine else []
        start = task.ready
        while not _may(problem, task, start, ends) or any(
            taken[key] & set(range(start, start + task.slots)) for key in keys
        ):
            start += 1
        for key in keys:
            taken[key] |= set(range(start, start + task.slots))
        ends[at] = start + task.slots
    done = [
        max((ends[at] for at in ends if problem.tasks[at].job == job), default=0) for job in range(len(problem.jobs))
    ]
    late = sum(max(0, end - (one.promised or 10**9)) for end, one in zip(done, problem.jobs, strict=True))
    return late, sum(done)


def _may(problem: CalendarProblem, task: Task, start: int, ends: dict[int, int]) -> bool:
    day = problem.axis.begins_at(start).date()
    if task.one_day and problem.axis.begins_at(start + task.slots - 1).date() != day:
        return False
    for first in task.after:
        gap = problem.axis.begins_at(start) - problem.axis.ends_at(ends[first])
        if start < ends[first] or gap < timedelta(hours=task.stands_h):
            return False
    return True


@pytest.mark.parametrize("seed", range(SMALL))
def test_promises_are_kept_wherever_any_calendar_keeps_them(seed: int) -> None:
    """Every order of the tasks and every choice of people, placed as early as may be, by code of the test."""
    problem = random_week(seed, 2, 2)
    found = lay_out(problem)
    assert found.proven
    assert (found.late, found.waiting) == every_calendar(problem)


def test_blocks_of_one_engine_share_a_set_up() -> None:
    """Half an hour of three is setting up: the second block is spared it when it follows at once."""
    tasks = tuple(Task(job, "hone", 6, (job,), Machine.HONE, setup="plate", setup_slots=2) for job in range(2))
    jobs = tuple(JobToPlan(f"job {at}") for at in range(2))
    problem = CalendarProblem(axis(), jobs, (Person("one"), Person("two")), tasks)
    found = lay_out(problem)
    check(problem, found.placed)
    assert sorted(one.end for one in found.placed) == [6, 10]
    assert [one.shares_setup for one in found.placed].count(True) == 1


def test_a_block_stands_at_one_place_whoever_is_free() -> None:
    """Two pieces of work that need nothing of each other, two people: still one after the other on one block."""
    tasks = (Task(0, "hone", 4, (0,)), Task(0, "mains", 4, (1,)), Task(0, "talk", 4, (2,), on_block=False))
    problem = CalendarProblem(axis(), (JobToPlan("one"),), (Person("a"), Person("b"), Person("c")), tasks)
    for placed in (lay_out(problem).placed, as_it_comes(problem)):
        assert sorted((one.start, one.end) for one in placed) == [(0, 4), (0, 4), (4, 8)]


def test_a_day_begins_at_its_first_quarter() -> None:
    """By counting: two hours a day, so the third day begins at the seventeenth quarter; Saturday at Monday's."""
    own, monday = axis(), MONDAY.date().toordinal()
    found = own.after_days(np.array([monday, monday + 2.0, monday + 1.4, monday + 5.0]))
    assert found.tolist() == [0, 16, 16, 40]
    assert own.day_begins(date(2026, 12, 2)) == 16 and own.last_of_day(date(2026, 12, 2)) == 24


def test_two_machines_of_a_kind_take_two_blocks() -> None:
    tasks = tuple(Task(job, "hone", 4, (job,), Machine.HONE) for job in range(2))
    jobs = tuple(JobToPlan(f"job {at}") for at in range(2))
    people = (Person("one"), Person("two"))
    one = lay_out(CalendarProblem(axis(), jobs, people, tasks))
    two = lay_out(CalendarProblem(axis(), jobs, people, tasks, {Machine.HONE: 2}))
    assert (one.waiting, two.waiting) == (12, 8)


def test_a_freezer_is_kept_until_the_drop_and_the_drop_waits_overnight() -> None:
    tasks = (
        Task(0, "freezer", 1, (0,), holds=Machine.FREEZER, on_block=False),
        Task(0, "drop", 4, (0,), Machine.OVEN, (0,), stands_h=14.0, one_day=True),
        Task(1, "freezer", 1, (0,), holds=Machine.FREEZER, on_block=False),
    )
    problem = CalendarProblem(axis(), (JobToPlan("one", 12), JobToPlan("two")), (Person("one"),), tasks)
    found = lay_out(problem)
    check(problem, found.placed)
    by_task = {one.task: one for one in found.placed}
    assert problem.axis.begins_at(by_task[1].start).date() == date(2026, 12, 1)
    assert by_task[2].start >= by_task[1].end or by_task[2].end <= by_task[0].start


def test_what_is_pinned_stays_and_what_cannot_be_is_said() -> None:
    tasks = (Task(0, "bore", 3, (0,), pinned=4), Task(1, "hone", 3, (0,)))
    jobs, people = (JobToPlan("one"), JobToPlan("two")), (Person("one"),)
    found = lay_out(CalendarProblem(axis(), jobs, people, tasks))
    assert {one.task: one.start for one in found.placed} == {0: 4, 1: 0}
    both = (tasks[0], Task(1, "hone", 3, (0,), pinned=5))
    with pytest.raises(OutOfDomain, match="take a pin away \\(bore, hone\\)"):
        lay_out(CalendarProblem(axis(), jobs, people, both))


def test_a_machine_that_is_shut_is_not_used() -> None:
    problem = CalendarProblem(axis(), (JobToPlan("one"),), (Person("one"),), (Task(0, "hone", 3, (0,), Machine.HONE),),
                              shut={Machine.HONE: (Span(0, 5),)})  # fmt: skip
    assert lay_out(problem).placed[0].start == 5
    assert as_it_comes(problem)[0].start == 5


def test_a_shop_where_everybody_is_away_says_so() -> None:
    gone = Person("one", (Span(0, axis().slots),))
    problem = CalendarProblem(axis(), (JobToPlan("one"),), (gone,), (Task(0, "hone", 3, (0,)),))
    with pytest.raises(OutOfDomain, match="look at the absences"):
        lay_out(problem)


def test_a_part_that_comes_after_the_end_is_said() -> None:
    problem = CalendarProblem(axis(7), (JobToPlan("one"),), (Person("one"),), (Task(0, "hone", 3, (0,), ready=4000),))
    with pytest.raises(OutOfDomain, match="does not reach so far"):
        lay_out(problem)


def test_nothing_to_do_is_a_calendar_too() -> None:
    assert lay_out(CalendarProblem(axis(), (), (), ())) == Laid((), 0, 0, True, 0.0)


def test_tasks_stand_after_what_they_need() -> None:
    with pytest.raises(OutOfDomain, match="stand after those"):
        CalendarProblem(axis(), (JobToPlan("one"),), (), (Task(0, "hone", 1, (), after=(0,)),))
    with pytest.raises(OutOfDomain, match="a quarter of an hour"):
        CalendarProblem(axis(), (JobToPlan("one"),), (), (Task(0, "hone", 0),))


@settings(max_examples=20)
@given(st.integers(0, 10_000))
def test_one_more_absence_never_makes_it_better(seed: int) -> None:
    problem = random_week(seed, 2, 3)
    found = lay_out(problem)
    first, *rest = problem.people
    gone = Person(first.name, (Span(0, 14),))
    later = lay_out(CalendarProblem(problem.axis, problem.jobs, (gone, *rest), problem.tasks))
    if found.proven and later.proven and not first.away[0].after > 14:
        assert (later.late, later.waiting) >= (found.late, found.waiting)


def test_a_quarter_is_a_quarter() -> None:
    assert SLOT_H * 4 == 1 and USUAL_DAY[0][0] == 480
