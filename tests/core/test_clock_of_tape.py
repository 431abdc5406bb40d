"""A clock set back or forward: the order of events stands, times that contradict it are marked. House rule."""

from dataclasses import replace
from datetime import timedelta

from tests.core.facts import WHEN, Story
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity
from vallostasis.core.tape.clock import against_the_clock


def _told(*minutes: float) -> tuple[JobFacts, list[int]]:
    """Fittings one after the other, recorded at so many minutes after the beginning by the machine's clock."""
    story = Story(holes=len(minutes))
    for hole in range(1, len(minutes) + 1):
        story.fit(hole, story.liner(f"L{hole}"))
    facts = story.facts()
    told = tuple(
        replace(row, fitted_at=WHEN + timedelta(minutes=at)) for row, at in zip(facts.fittings, minutes, strict=True)
    )
    return replace(facts, fittings=told), [row.event for row in told]


def test_a_clock_that_goes_on_marks_nothing() -> None:
    facts, _ = _told(0, 5, 5)
    assert against_the_clock(facts) == frozenset()


def test_a_clock_set_back_marks_what_follows_until_it_has_caught_up() -> None:
    facts, events = _told(60, 30, 40, 90)
    assert against_the_clock(facts) == frozenset(events[1:3])


def test_who_waited_for_another_writer_is_not_marked() -> None:
    assert against_the_clock(_told(0.9, 0)[0]) == frozenset()
    facts, events = _told(1.1, 0)
    assert against_the_clock(facts) == frozenset(events[1:])


def test_a_reading_that_says_only_when_it_was_taken_marks_nothing() -> None:
    story = Story(holes=1)
    fitting = story.fit(1, story.liner("L1"))
    story.read(Quantity.PROTRUSION, fitting, (80, 82))
    facts = story.facts()
    early = tuple(replace(one, taken_at=WHEN - timedelta(days=3), recorded_at=None) for one in facts.readings)
    assert against_the_clock(replace(facts, readings=early)) == frozenset()
    back = tuple(replace(one, recorded_at=WHEN - timedelta(days=3)) for one in facts.readings)
    assert against_the_clock(replace(facts, readings=back)) == {one.event for one in facts.readings}
