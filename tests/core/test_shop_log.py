"""What all jobs teach, the life of a block, jobs by words: by hand; weights of words as in the module."""

from dataclasses import replace
from datetime import timedelta
from decimal import Decimal
from math import log
from uuid import uuid4

import pytest

from tests.core.facts import WHEN
from tests.core.test_calendar_of_jobs import NOW, _clock, _wait
from tests.core.test_money import GASKETS, WASH, estimate
from tests.core.test_route import story_of
from vallostasis.core.records.bore_decisions import BoreChoice, BoreDecision, BoreLook, LookOutcome, UseProfile
from vallostasis.core.records.estimates import Sheet
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import Bill, Operation, WaitCause, WaitEnd
from vallostasis.core.records.spec_card import Construction, LadderStep, Length, StepKind
from vallostasis.core.shop_log.learned import learn_from, life_of
from vallostasis.core.shop_log.search import find_jobs

O = Operation  # noqa: E741


def _named(facts: JobFacts, name: str, serial: str, complaint: str, days: int = 0) -> JobFacts:
    job = replace(facts.job, job_id=uuid4(), name=name, serial=serial, complaint=complaint,
                  opened_at=WHEN + timedelta(days=days))  # fmt: skip
    return replace(facts, job=job)


def test_hours_stand_against_the_estimate_and_goodwill_apart() -> None:
    story = story_of(Construction.WET_TOP_FLANGE)
    estimate(story, (Sheet.LABOUR, WASH, "2", "4"), (Sheet.PARTS, GASKETS, "1", "2"))
    _clock(story, O.WASH, WHEN, 3.0)
    _clock(story, O.WASH, WHEN + timedelta(hours=5), 2.0, Bill.GOODWILL)
    learned = learn_from([story.facts(), story_of(Construction.WET_TOP_FLANGE).facts()], NOW)
    assert [(one.low, one.worst, one.worked_h) for one in learned.hours] == [(2, 4, 3.0)]


def test_waits_of_all_jobs_add_up_by_cause() -> None:
    """Four days and ten days for parts, over two jobs."""
    jobs = []
    for days in (4, 10):
        story = story_of(Construction.WET_TOP_FLANGE)
        wait = _wait(story, O.ORDER, WaitCause.PART, None)
        story._add("wait_ends", WaitEnd(wait, WHEN + timedelta(days=days), "", WHEN, "Ines", story._next()))
        jobs.append(story.facts())
    assert learn_from(jobs, NOW).waited_d == {WaitCause.PART: pytest.approx(14)}


def _looked(*outcomes: tuple[str, LookOutcome]) -> JobFacts:
    story = story_of(Construction.PARENT_BORE, holes=3)
    steps = tuple(LadderStep(Length(one, Decimal(one)), StepKind.TO_ORDER, 3, "") for one in ("500", "1000"))
    for hole, (step, outcome) in enumerate(outcomes, start=1):
        um = Decimal(step)
        story._add("bore_decisions", BoreDecision(uuid4(), story.hole_id(hole), BoreChoice.OVERSIZE, um, None, None, "",
                                                  "", UseProfile.STOCK, "", WHEN, "Ines", story._next()))  # fmt: skip
        story._add("bore_looks", BoreLook(uuid4(), story.hole_id(hole), um, outcome, "", None, None, WHEN, "Ines",
                                          story._next()))  # fmt: skip
    facts = story.facts()
    return replace(facts, card=replace(facts.card, bores=replace(facts.card.bores, ladder=steps)))


def test_first_steps_that_cleaned_up_are_counted_of_those_looked_at() -> None:
    facts = _looked(("500", LookOutcome.CLEAN), ("500", LookOutcome.DARK), ("1000", LookOutcome.CLEAN))
    more = _looked(("500", LookOutcome.CLEAN))
    found = learn_from([facts, more], NOW).first_step
    assert (found.cleaned, found.looked) == (2, 3)
    assert learn_from([], NOW).first_step.looked == 0


def test_a_block_is_known_by_its_stamped_number() -> None:
    facts = story_of(Construction.WET_TOP_FLANGE).facts()
    jobs = [_named(facts, "second", "fl 3311", "again", 400), _named(facts, "first", "FL3311", "coolant", 0),
            _named(facts, "other", "FL3312", "smoke", 0), _named(facts, "none", "", "smoke", 0)]  # fmt: skip
    assert [one.name for one in life_of(jobs, " FL 3311")] == ["first", "second"]
    assert life_of(jobs, "") == ()


def test_jobs_answer_words_by_their_beginnings_the_rarest_weighs_most() -> None:
    """Three jobs: coolant stands in two, knocks in one; ranks by hand from log(1 + 3/n)."""
    facts = story_of(Construction.WET_TOP_FLANGE).facts()
    told = (("Ferry", "coolant from number five"), ("Pump", "coolant, and it knocks"), ("Boat", "smokes"))
    jobs = [_named(facts, name, name, complaint) for name, complaint in told]
    found = find_jobs(jobs, "coola")
    assert {one.facts.job.name for one in found} == {"Ferry", "Pump"}
    assert found[0].rank == pytest.approx(log(1 + 3 / 2))
    both = find_jobs(jobs, "Coolant knocks")
    assert [one.facts.job.name for one in both] == ["Pump"]
    assert both[0].rank == pytest.approx(log(1 + 3 / 2) + log(1 + 3))
    assert both[0].lines == ("complaint: coolant, and it knocks",)
    assert find_jobs(jobs, "crankcase") == () and find_jobs(jobs, " ") == ()
    assert len(find_jobs(jobs, "wet liner")) == 3


def test_the_ladder_of_the_card_is_what_counts() -> None:
    facts = _looked(("500", LookOutcome.CLEAN))
    assert (
        learn_from(
            [replace(facts, card=replace(facts.card, bores=replace(facts.card.bores, ladder=())))], NOW
        ).first_step.looked
        == 0
    )
