"""From jobs to a calendar: tasks from routes, days from waits, hours from the log. By hand; common practice."""

from dataclasses import replace
from datetime import date, datetime, timedelta
from itertools import pairwise
from uuid import UUID, uuid4

import pytest

from tests.core.facts import WHEN, Story
from tests.core.test_route import story_of
from vallostasis.core.calendar.of_jobs import FREEZER, ShopTime, ToLayOut, lay_before, pins_of, promise_of
from vallostasis.core.calendar.open_time import USUAL_WEEK, OpenHours
from vallostasis.core.calendar.plan import plan_shop, reminders_of, what_moves
from vallostasis.core.calendar.ready import lateness_of, ready_of
from vallostasis.core.hours.learned import learn_hours
from vallostasis.core.hours.log import billed_hours, spent_on
from vallostasis.core.hours.time_of_job import time_of
from vallostasis.core.operations import schools
from vallostasis.core.operations.catalogue import OPERATIONS
from vallostasis.core.records.calendar import AwaySpan, Machine, Pin, Promise, Visit, WaitMoved
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import Bill, ClockMark, Operation, Wait, WaitCause, WaitEnd
from vallostasis.core.records.spec_card import Construction

O = Operation  # noqa: E741
BY = "Wren"
OPEN = OpenHours("UTC", USUAL_WEEK)
LEARNED = learn_hours([])
SHOP = ShopTime(OPEN, ("Wren", "Ines"), LEARNED)
# The Monday after the stories begin, at the opening.
NOW = (WHEN + timedelta(days=7 - WHEN.weekday())).replace(hour=8, minute=0, second=0, microsecond=0)


def _wait(story: Story, operation: O, cause: WaitCause, expected: date | None, since: datetime = WHEN) -> UUID:
    wait = Wait(uuid4(), operation, None, cause, "liners", since, expected, since, BY, story._next())
    story._add("waits", wait)
    return wait.wait_id


def _clock(story: Story, operation: O, start: datetime, hours: float, bill: Bill = Bill.AGREED) -> None:
    for running, at in ((True, start), (False, start + timedelta(hours=hours))):
        story._add("clock_marks", ClockMark(operation, None, running, at, at, BY, story._next(), bill))


def _index(found: ToLayOut, operation: O, freezer: bool = False) -> int:
    return next(at for at, one in enumerate(found.stages)
                if operation in one.operations and one.is_freezer is freezer)  # fmt: skip


def _of(facts: JobFacts, shop: ShopTime = SHOP) -> ToLayOut:
    return lay_before([facts], shop, NOW)


def test_every_operation_that_is_not_done_is_one_task_after_what_it_needs() -> None:
    story = story_of(Construction.WET_TOP_FLANGE, holes=3)
    found = _of(story.facts())
    operations = [one.operations[-1] for one in found.stages]
    assert O.TAKE_IN not in operations[:0] and O.RELEASE in operations and O.ORDER not in operations
    for at, task in enumerate(found.problem.tasks):
        assert all(before < at for before in task.after)
    prove, release = (found.problem.tasks[_index(found, one)] for one in (O.PROVE, O.RELEASE))
    assert _index(found, O.PROVE) in release.after and len(prove.after) == len(operations) - 2
    fit = found.problem.tasks[_index(found, O.FIT)]
    assert fit.slots == 3 * OPERATIONS[O.FIT].hours * 4


def test_a_hot_fit_is_frozen_overnight_dropped_in_one_day_and_cold_overnight() -> None:
    story = story_of(Construction.WET_BOTTOM_SEAT, holes=2)
    story.choose(schools.GETTING_IN, schools.HEAT)
    found = _of(story.facts())
    tasks = found.problem.tasks
    freezer, drop, soak = (_index(found, O.HEAT, freezer=True), _index(found, O.FIT), _index(found, O.SOAK))
    assert tasks[freezer].operation == FREEZER and tasks[freezer].holds is Machine.FREEZER
    assert not tasks[freezer].on_block
    assert tasks[drop].machine is Machine.OVEN and tasks[drop].one_day and tasks[drop].stands_h == 14
    assert freezer in tasks[drop].after and drop in tasks[soak].after and tasks[soak].stands_h == 14
    calendar = plan_shop([story.facts()], [], SHOP, NOW)
    said = [one.words for one in reminders_of(calendar)]
    assert [one.split()[0] for one in said] == ["liners", "oven", "block"]
    days = [one.at.date() for one in reminders_of(calendar)]
    assert days[0] < days[1] < days[2]


def test_what_was_worked_on_an_operation_is_off_its_hours() -> None:
    """Cleaning is planned at three hours: one is done, eight quarters are left; over it, one quarter always is."""
    story = story_of(Construction.WET_TOP_FLANGE)
    _clock(story, O.CLEAN, WHEN, 1.0)
    found = _of(story.facts())
    assert found.problem.tasks[_index(found, O.CLEAN)].slots == 8
    assert found.scatter.units[_index(found, O.CLEAN)] == pytest.approx(2 / 3)
    _clock(story, O.CLEAN, WHEN + timedelta(hours=3), 9.0)
    assert _of(story.facts()).problem.tasks[_index(found, O.CLEAN)].slots == 1


def test_parts_are_needed_where_they_go_in_and_a_moved_day_holds() -> None:
    story = story_of(Construction.WET_TOP_FLANGE)
    wait = _wait(story, O.ORDER, WaitCause.PART, NOW.date() + timedelta(days=2))
    found = _of(story.facts())
    at = next(at for at, one in enumerate(found.stages) if one.waits)
    assert found.stages[at].operations == (O.HONE_BLOCK,)
    axis = found.problem.axis
    assert axis.begins_at(found.problem.tasks[at].ready).date() == NOW.date() + timedelta(days=2)
    story._add("waits_moved", WaitMoved(wait, NOW.date() + timedelta(days=8), "", WHEN, BY, story._next()))
    later = _of(story.facts())
    assert axis.begins_at(later.problem.tasks[at].ready).date() == NOW.date() + timedelta(days=8)
    assert later.scatter.arrives[at] == (NOW.date() + timedelta(days=8)).toordinal()
    assert later.problem.tasks[_index(later, O.CLEAN)].ready == 0
    # As it was said first, and moved since.
    moved = ready_of(story.facts().waits, story.facts(), NOW)
    assert moved is not None and moved.day == NOW.date() + timedelta(days=8)


@pytest.mark.parametrize(
    ("cause", "expected", "day", "late"),
    [
        (WaitCause.PART, 3, 3, True),
        (WaitCause.PART, None, None, True),
        (WaitCause.PART, -4, 1, True),
        (WaitCause.TEMPERATURE, 3, 3, False),
    ],
)
def test_from_which_day_on_something_can_be_done(
    cause: WaitCause, expected: int | None, day: int | None, late: bool
) -> None:
    """What should be here and is not comes tomorrow at the earliest; without a day five weeks are usual for a part."""
    story = story_of(Construction.WET_TOP_FLANGE)
    _wait(story, O.FIT_PREP, cause, None if expected is None else NOW.date() + timedelta(days=expected))
    facts = story.facts()
    found = ready_of(facts.waits, facts, NOW)
    assert found is not None and found.may_be_late is late
    assert found.day == ((WHEN + timedelta(days=35)).date() if day is None else NOW.date() + timedelta(days=day))
    assert ready_of((), facts, NOW) is None


def test_a_part_that_comes_in_two_years_is_still_on_the_calendar() -> None:
    story = story_of(Construction.WET_TOP_FLANGE)
    wait = _wait(story, O.ORDER, WaitCause.PART, NOW.date() + timedelta(days=700))
    found = _of(story.facts())
    at = next(at for at, one in enumerate(found.stages) if one.waits)
    assert found.problem.axis.begins_at(found.problem.tasks[at].ready).date() >= NOW.date() + timedelta(days=700)
    story._add("waits_moved", WaitMoved(wait, date(9999, 12, 31), "never", WHEN, BY, story._next()))
    never = plan_shop([story.facts()], [], SHOP, NOW)
    assert never.jobs[0].ready is not None and never.jobs[0].ready.year < 2030


def test_of_two_waits_the_later_counts() -> None:
    story = story_of(Construction.WET_TOP_FLANGE)
    for days in (3, 9, 5):
        _wait(story, O.FIT_PREP, WaitCause.PART, NOW.date() + timedelta(days=days))
    facts = story.facts()
    found = ready_of(facts.waits, facts, NOW)
    assert found is not None and found.day == NOW.date() + timedelta(days=9)


def test_lateness_is_a_share_of_the_time_it_was_waited_for() -> None:
    """Said ten days, came after fifteen: half of it late."""
    story = story_of(Construction.WET_TOP_FLANGE)
    wait = _wait(story, O.ORDER, WaitCause.PART, (WHEN + timedelta(days=10)).date())
    story._add("wait_ends", WaitEnd(wait, WHEN + timedelta(days=15), "", WHEN, BY, story._next()))
    _wait(story, O.ORDER, WaitCause.PART, (WHEN + timedelta(days=10)).date())
    assert lateness_of([story.facts()]) == (0.5,)


def test_promises_and_pins_the_newest_holds() -> None:
    story = story_of(Construction.WET_TOP_FLANGE)
    assert promise_of(story.facts()) is None
    for days in (5, 9):
        story._add("promises", Promise(NOW.date() + timedelta(days=days), "", None, None, WHEN, BY, story._next()))
    promise = promise_of(story.facts())
    assert promise is not None and promise.promised == NOW.date() + timedelta(days=9)
    story._add("promises", Promise(None, "the owner died", None, None, WHEN, BY, story._next()))
    assert promise_of(story.facts()) is None
    at = NOW + timedelta(days=2, hours=1)
    story._add("pins", Pin(O.CLEAN, at, "Ines", WHEN, BY, story._next()))
    found = _of(story.facts())
    task = found.problem.tasks[_index(found, O.CLEAN)]
    assert found.problem.axis.begins_at(task.pinned or 0) == at and task.people == (1,)
    story._add("pins", Pin(O.CLEAN, None, "", WHEN, BY, story._next()))
    assert pins_of(story.facts()) == {}


def test_a_visitor_does_his_own_work_within_his_visit() -> None:
    story = story_of(Construction.WET_TOP_FLANGE)
    facts = story.facts()
    day = NOW + timedelta(days=1)
    visit = Visit(uuid4(), "Osk", facts.job.job_id, (O.CLEAN,), day, day + timedelta(hours=8), ("light",))
    calendar = plan_shop([facts], [], replace(SHOP, visits=(visit,)), NOW)
    clean = next(bar for bar in calendar.jobs[0].bars if O.CLEAN in bar.stage.operations)
    assert clean.person == "Osk" and day <= clean.start and clean.end <= day + timedelta(hours=9)
    assert all(bar.person != "Osk" for bar in calendar.jobs[0].bars if bar is not clean)
    assert calendar.visits[0].does == ("Clean and prepare the deck",) and calendar.visits[0].not_ready == ()


def test_who_is_away_does_nothing_and_the_shop_that_is_shut_neither() -> None:
    facts = story_of(Construction.WET_TOP_FLANGE).facts()
    away = AwaySpan(uuid4(), "Wren", NOW, NOW + timedelta(days=60), "")
    calendar = plan_shop([facts], [], replace(SHOP, away=(away,)), NOW)
    assert {bar.person for bar in calendar.jobs[0].bars} == {"Ines"}
    shut = AwaySpan(uuid4(), "", NOW, NOW + timedelta(days=2), "")
    later = plan_shop([facts], [], replace(SHOP, away=(shut,)), NOW)
    assert min(bar.start for bar in later.jobs[0].bars) >= NOW + timedelta(days=2)


def test_a_later_part_moves_a_job_by_open_days_and_says_so() -> None:
    story = story_of(Construction.WET_TOP_FLANGE)
    wait = _wait(story, O.ORDER, WaitCause.PART, NOW.date() + timedelta(days=4))
    story._add("promises", Promise(NOW.date() + timedelta(days=11), "", None, None, WHEN, BY, story._next()))
    before = plan_shop([story.facts()], [], SHOP, NOW)
    assert before.jobs[0].holds and before.jobs[0].late_days == 0
    story._add("waits_moved", WaitMoved(wait, NOW.date() + timedelta(days=18), "", WHEN, BY, story._next()))
    after = plan_shop([story.facts()], [], SHOP, NOW, before)
    assert after.jobs[0].holds is False and (after.jobs[0].kept or 0) < 0.01
    assert [one.days for one in what_moves(before, after)] == [10]
    assert [one.days for one in what_moves(after, before)] == [-10]
    ready, promised = after.jobs[0].ready, NOW + timedelta(days=11)
    assert ready is not None
    days = (promised + timedelta(days=at) for at in range(1, (ready - promised).days + 3))
    assert after.jobs[0].late_days == sum(1 for one in days if one.weekday() < 5 and one.date() <= ready.date())


def test_two_engines_on_one_machine_clash_and_it_is_said_who_goes_first() -> None:
    stories = [story_of(Construction.DRY_PLAIN, holes=2) for _ in range(2)]
    for story, days in zip(stories, (4, 30), strict=True):
        story._add("promises", Promise(NOW.date() + timedelta(days=days), "", None, None, WHEN, BY, story._next()))
    jobs = [story.facts() for story in stories]
    jobs = [replace(one, job=replace(one.job, job_id=uuid4(), name=name))
            for one, name in zip(jobs, ("first", "second"), strict=True)]  # fmt: skip
    calendar = plan_shop(jobs, [], replace(SHOP, people=("Wren", "Ines", "Tobiah")), NOW)
    for clash in calendar.clashes:
        assert {clash.first, clash.waits} == {"first", "second"} and clash.hours > 0
    honed = [bar for job in calendar.jobs for bar in job.bars if bar.machine is Machine.HONE]
    honed.sort(key=lambda bar: bar.start)
    assert all(one.end <= two.start for one, two in pairwise(honed))


def test_hours_of_what_is_done_teach_and_goodwill_stands_on_no_bill() -> None:
    story = story_of(Construction.WET_TOP_FLANGE)
    _clock(story, O.TAKE_IN, WHEN, 0.5)
    _clock(story, O.CLEAN, WHEN + timedelta(hours=1), 2.0, Bill.GOODWILL)
    facts = story.facts()
    done = {one.operation for one in spent_on(facts, NOW)}
    assert O.CLEAN not in done
    billed = billed_hours(facts, NOW)
    assert (billed.agreed_h, billed.chargeable_h, billed.goodwill_h, billed.worked_h) == (0.5, 0.0, 2.0, 2.5)
    assert billed_hours(facts, NOW, (O.CLEAN,)).agreed_h == 0.0
    time = time_of(facts, LEARNED, NOW)
    assert time.billed == billed
    clean = next(one for one in time.operations if one.kind.operation is O.CLEAN)
    assert clean.middle_h == 3.0 and clean.worst_h > 3.0


def test_the_clock_of_a_hole_counts_for_each_of_its_holes() -> None:
    """Seats of four holes proved in two hours: half an hour each."""
    story = story_of(Construction.WET_TOP_FLANGE, holes=2)
    story.mark(O.STRIP)
    _clock(story, O.STRIP, WHEN, 1.5)
    facts = story.facts()
    assert all(one.units == 1 for one in spent_on(facts, NOW))
