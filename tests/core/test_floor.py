"""What a job says from across the floor. House rules, told with facts of a job."""

from dataclasses import replace
from datetime import date, timedelta
from uuid import uuid4

from tests.core.card import wet_card
from tests.core.facts import Story
from vallostasis.core.floor import FloorKind, floor_of, may_be_filed
from vallostasis.core.records.calendar import Promise
from vallostasis.core.records.filings import Filing
from vallostasis.core.records.route_marks import Operation, Wait, WaitCause
from vallostasis.core.records.rows import Quantity

TODAY = date(2026, 11, 30)


def _kinds(story: Story, today: date = TODAY) -> list[FloorKind]:
    return [one.kind for one in floor_of(story.facts(), today).points]


def _promised(story: Story, day: date | None) -> None:
    story._add("promises", Promise(day, "", None, None, story.now, "Wren", story._next()))


def test_a_day_is_said_when_it_is_near_and_when_it_is_past() -> None:
    story = Story(2, wet_card(2, ((1, 2),)))
    assert _kinds(story) == []
    for day, said in ((TODAY + timedelta(8), []), (TODAY + timedelta(7), [FloorKind.SOON]), (TODAY, [FloorKind.SOON]),
                      (TODAY - timedelta(1), [FloorKind.LATE])):  # fmt: skip
        _promised(story, day)
        assert _kinds(story) == said, day
    assert floor_of(story.facts(), TODAY).points[0].words == "promised 1 day ago"
    _promised(story, None)
    assert _kinds(story) == []
    assert floor_of(story.facts(), TODAY).promised is None


def test_a_moved_zero_is_said_until_its_readings_are_corrected() -> None:
    story = Story(2, wet_card(2, ((1, 2),)))
    story.set_up(Quantity.PROTRUSION)
    fitting = story.fit(1, story.liner("L1"))
    story.read(Quantity.PROTRUSION, fitting, (85.0, 86.0))
    assert FloorKind.ZERO not in _kinds(story)
    story.look_at_zero(Quantity.PROTRUSION, 40.0)
    now = floor_of(story.facts(), TODAY)
    doubt = next(one for one in now.points if one.kind is FloorKind.ZERO)
    assert "2 readings in doubt" in doubt.words


def test_a_job_is_away_while_its_newest_filing_says_so_and_wants_a_reason_before_it_is_released() -> None:
    story = Story(2, wet_card(2, ((1, 2),)))
    assert may_be_filed(story.facts()).startswith("it is not released")
    for away in (True, False, True):
        story._add("filings", Filing(away, "", story.now, "Wren", story._next()))
        assert floor_of(story.facts(), TODAY).away is away


def test_the_worst_is_said_first() -> None:
    story = Story(2, wet_card(2, ((1, 2),)))
    story.set_up(Quantity.PROTRUSION)
    fitting = story.fit(1, story.liner("L1"))
    story.read(Quantity.PROTRUSION, fitting, (85.0,))
    _promised(story, TODAY)
    story.look_at_zero(Quantity.PROTRUSION, 40.0)
    late = date(2026, 11, 1)
    _promised(story, late)
    wait = Wait(uuid4(), Operation.CUT, None, WaitCause.PART, "", story.now, None, story.now, "Wren", story._next())
    story._add("waits", wait)
    kinds = _kinds(story)
    assert kinds.index(FloorKind.LATE) < kinds.index(FloorKind.WAIT)
    assert kinds == sorted(kinds, key=list(FloorKind).index)
    assert kinds.index(FloorKind.ZERO) < kinds.index(FloorKind.LATE)
    assert replace(floor_of(story.facts(), TODAY), away=True).away
