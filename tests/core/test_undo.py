"""What stands on the tape, and which step Undo takes back next: told in memory, house rules."""

from dataclasses import replace
from datetime import timedelta
from decimal import Decimal
from typing import Any
from uuid import uuid4

from tests.core.facts import WHEN, Story
from vallostasis.core.gauges.zero_checks import Drift, open_doubts
from vallostasis.core.records.cards_chosen import CardChosen
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity, Setup, Stamp, Strike, ZeroedOn
from vallostasis.core.tape.fact_kinds import TapeKind, newest_event
from vallostasis.core.tape.tape import tape_of
from vallostasis.core.tape.undo import Reversal, undo_steps

LATER = WHEN + timedelta(minutes=5)


def _facts(story: Story, **changes: Any) -> JobFacts:
    """The job as told; it was taken in at another time than anything else happened."""
    taken_in = CardChosen(uuid4(), WHEN - timedelta(days=1), "Ines", 0, "A card", 1)
    return replace(story.facts(), cards_chosen=(taken_in,), **changes)


def _fitted(holes: int = 1) -> tuple[Story, Any]:
    story = Story(holes=holes)
    return story, story.fit(1, story.liner("L1"))


def _strike_now(facts: JobFacts, at: Any, struck: bool = True, undoes: bool = False, **row: Any) -> JobFacts:
    strike = Strike(None, None, None, struck, "", at, "Wren", newest_event(facts) + 1, undoes=undoes)
    return replace(facts, strikes=(*facts.strikes, replace(strike, **row)))


def test_the_newest_reading_is_the_step_and_an_emptied_set_goes_with_it() -> None:
    story, fitting = _fitted()
    story.read(Quantity.PROTRUSION, fitting, (80, 82))
    story.read(Quantity.PROTRUSION, fitting, (90,))
    facts = _facts(story)
    step = undo_steps(facts)["Wren"]
    last, closed = facts.readings[-1], facts.sets[-1]
    assert step.reversals == (
        Reversal(last.reading_id, TapeKind.READING, True),
        Reversal(closed.event, TapeKind.SET, True),
    )
    assert (step.words, step.event, step.where.hole) == ("hole 1: 12h 90 µm", last.event, 1)
    # Of a set with more in it only the reading goes.
    fuller = _facts(story, readings=facts.readings[:-1], sets=facts.sets[:-1])
    assert [one.kind for one in undo_steps(fuller)["Wren"].reversals] == [TapeKind.READING]


def test_a_closed_set_is_out_of_force_with_its_readings_until_it_is_opened_again() -> None:
    story, fitting = _fitted()
    story.read(Quantity.PROTRUSION, fitting, (80, 82))
    story.read(Quantity.PROTRUSION, fitting, (90,))
    facts = _facts(story)
    first, second = facts.sets
    assert facts.newest_protrusion_set(fitting) == second
    closed = _strike_now(facts, LATER, of_event=second.event)
    assert closed.newest_protrusion_set(fitting) == first
    assert closed.standing_readings(second) == []
    assert len(closed.standing_readings(first)) == 2
    again = _strike_now(closed, LATER, struck=False, of_event=second.event)
    assert again.newest_protrusion_set(fitting) == second
    assert len(again.standing_readings(second)) == 1


def test_what_one_step_did_at_once_is_taken_back_at_once() -> None:
    """A correction: the first reading struck and the second taken, both at one time."""
    story, fitting = _fitted()
    story.read(Quantity.PROTRUSION, fitting, (80, 82))
    facts = story.facts()
    first, second = facts.readings
    facts = _facts(story, readings=(first, replace(second, recorded_at=LATER)))
    facts = _strike_now(facts, LATER, reading_id=first.reading_id)
    step = undo_steps(facts)["Wren"]
    # The set stays open: what is brought back stands in it.
    assert step.reversals == (
        Reversal(second.reading_id, TapeKind.READING, True),
        Reversal(first.reading_id, TapeKind.READING, False),
    )
    assert "bringing back 12h 80 µm" in step.words


def test_what_undo_did_is_no_step_and_what_is_struck_is_left_out() -> None:
    story, fitting = _fitted()
    story.read(Quantity.PROTRUSION, fitting, (80, 82))
    facts = _facts(story)
    first, second = facts.readings
    undone = _strike_now(facts, LATER, undoes=True, reading_id=second.reading_id)
    assert undo_steps(undone)["Wren"].reversals[0].row == first.reading_id
    struck = _strike_now(facts, LATER, reading_id=second.reading_id)
    step = undo_steps(struck)["Wren"]
    assert step.reversals == (Reversal(second.reading_id, TapeKind.READING, False),)
    assert step.words == "the striking of 3h 82 µm at hole 1"


def test_everybody_has_a_step_of_their_own_and_taking_in_is_none() -> None:
    story, fitting = _fitted()
    story.read(Quantity.PROTRUSION, fitting, (80,))
    story.person = "Tobiah"
    story.read(Quantity.PROTRUSION, fitting, (90,))
    steps = undo_steps(_facts(story))
    assert steps["Tobiah"].words == "hole 1: 12h 90 µm"
    assert steps["Wren"].words == "hole 1: 12h 80 µm"
    everything_then = replace(story.facts(), cards_chosen=(CardChosen(uuid4(), WHEN, "Ines", 0),), readings=())
    assert undo_steps(everything_then) == {}


def test_a_struck_correction_makes_its_readings_doubtful_again() -> None:
    story, fitting = _fitted()
    story.read(Quantity.PROTRUSION, fitting, (80, 82, 84, 86))
    check = story.look_at_zero(Quantity.PROTRUSION, 20)
    story.correct(check, Drift.AT_ONCE)
    facts = _facts(story)
    assert open_doubts(facts) == ()
    struck = _strike_now(facts, LATER, of_event=facts.corrections[0].event)
    assert len(open_doubts(struck)) == 1
    assert struck.corrections_of(struck.readings[0]) == ()
    # And without the look nothing is doubtful.
    no_look = _strike_now(struck, LATER, of_event=check.event)
    assert open_doubts(no_look) == ()


def test_the_tape_holds_every_kind_in_order() -> None:
    story, fitting = _fitted()
    story.read(Quantity.PROTRUSION, fitting, (80, 82, 84, 86))
    check = story.look_at_zero(Quantity.PROTRUSION, 20)
    story.correct(check, Drift.AT_ONCE)
    story.cannot_read(fitting, 9.0, "a stud")
    stamp = Stamp(uuid4(), "hole-1", "B", WHEN, "Wren", story.event + 1)
    rows = tape_of(_facts(story, stamps=(stamp,)))
    assert [row.event for row in rows] == sorted(row.event for row in rows)
    kinds = {row.kind for row in rows}
    assert kinds == {TapeKind.CARD, TapeKind.SETUP, TapeKind.FITTING, TapeKind.SET, TapeKind.ZERO_LOOK,
                     TapeKind.ZERO_CORRECTION, TapeKind.UNREADABLE, TapeKind.LETTERS, TapeKind.INSPECTION}  # fmt: skip
    letters = next(row for row in rows if row.kind is TapeKind.LETTERS)
    assert (letters.where.hole, letters.words) == (1, "letters B")


def test_a_temperature_put_right_counts_for_what_was_read_and_sets_no_zero() -> None:
    story, fitting = _fitted()
    fields = {"zeroed_on": ZeroedOn.MASTER, "zero_um": Decimal(100_000), "master_temp_c": Decimal(21)}
    wrong = story.set_up(Quantity.LINER_BORE, **fields)
    facts = _facts(story)
    setup = facts.setup(wrong)
    right = replace(setup, setup_id=uuid4(), event=newest_event(facts) + 1, master_temp_c=Decimal(30), corrects=wrong)
    put_right = replace(facts, setups=(*facts.setups, right))
    assert put_right.setup(wrong).master_temp_c == 30
    assert put_right.first_setup(right.setup_id).setup_id == wrong
    present = put_right.present_setup(Quantity.LINER_BORE)
    assert present == right
    assert isinstance(present, Setup)
    assert put_right.setup(wrong).zero == present.zero
    # Taken back, the reading stands on the temperature noted first.
    back = _strike_now(put_right, LATER, of_event=right.event)
    assert back.setup(wrong).master_temp_c == 21
    assert back.present_setup(Quantity.LINER_BORE) == setup
    assert fitting is not None


def test_an_import_is_a_step_of_who_brought_it_in_not_of_who_took_the_readings() -> None:
    story, fitting = _fitted()
    story.read(Quantity.PROTRUSION, fitting, (80,))
    story.read(Quantity.PROTRUSION, fitting, (90, 92))
    facts = story.facts()
    brought = [replace(one, recorded_at=LATER) for one in facts.readings[1:]]
    its_set = replace(facts.sets[-1], opened_by="Ines", opened_at=LATER)
    steps = undo_steps(_facts(story, readings=(facts.readings[0], *brought), sets=(facts.sets[0], its_set)))
    assert steps["Ines"].words == "hole 1: 2 readings"
    assert [one.kind for one in steps["Ines"].reversals] == [TapeKind.READING, TapeKind.READING, TapeKind.SET]
    assert steps["Wren"].words == "hole 1: 12h 80 µm"
