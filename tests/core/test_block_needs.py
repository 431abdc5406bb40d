"""What a block needs, operation after operation. The order of the work is common practice, no published source."""

from tests.core.facts import Story
from vallostasis.core.block_needs import needs_of_block
from vallostasis.core.hole_now import hole_now
from vallostasis.core.needs import Action
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.records.rows import Quantity


def _due(story: Story) -> list[tuple[Operation, list[int]]]:
    return [(one.operation, [hole.hole for hole in one.holes]) for one in needs_of_block(story.facts())]


def test_needs_stand_in_the_order_of_the_work_each_with_its_holes() -> None:
    story = Story(holes=3)
    story.fit(1, story.liner("L1"))
    story.cut(2, 8_900, 100)
    # Hole 1 is to be read as found, hole 3 to be measured, the cut of hole 2 to be measured.
    assert _due(story) == [(Operation.MEASURE, [1, 3]), (Operation.CUT, [2])]


def test_the_same_reading_is_proof_of_the_seat_after_a_cut() -> None:
    story = Story(holes=1)
    story.cut(1, 8_900, 100)
    story.read(Quantity.COUNTERBORE_DEPTH, story.hole_rows[0].hole_id, (8_900, 8_900, 8_900, 8_900),
               after_cut=story.rows["cuts"][0].cut_id)  # fmt: skip
    assert _due(story) == [(Operation.FIT, [1])]
    story.fit(1, story.liner("L1"), 100)
    assert _due(story) == [(Operation.SEAT, [1])]


def test_what_needs_nothing_is_not_due() -> None:
    story = Story(holes=2)
    for number in (1, 2):
        fitting = story.fit(number, story.liner(f"L{number}"))
        story.read(Quantity.PROTRUSION, fitting, (100, 101, 99, 100))
    facts = story.facts()
    nothing = [hole for hole in facts.holes if hole_now(facts, hole).need.action is Action.NOTHING]
    assert len(nothing) == 2
    assert all(hole_now(facts, hole).need.operation is None for hole in nothing)
    assert needs_of_block(facts) == ()
