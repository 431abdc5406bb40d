"""How often a verdict is wrong: positions and parts whose truth lies on a limit, and whole blocks.

2.5 % is one tail beyond 1.96 σ of the normal distribution; the house's k = 2 leaves 2.28 %.
"""

from collections import Counter
from dataclasses import replace

import numpy as np
import pytest

from tests.core.card import limit
from tests.deep import DEEP
from tests.truth import answers
from tests.truth.draw import Face, Gauge, read_face, story, wet_card
from tests.truth.test_coverage import HOURS, _bore, _moved
from vallostasis.core.gauges.zero_checks import Drift, open_doubts
from vallostasis.core.protrusion.measured import judge_job
from vallostasis.core.records.rows import Quantity
from vallostasis.core.uncertainty.decision import RuleKind, State

TRIALS = 6000 if DEEP else 400
ONE_TAIL = 0.025


def _allowed(trials: int) -> float:
    """2.5 %, and three standard errors of a share of that among so many."""
    return ONE_TAIL + 3 * float(np.sqrt(ONE_TAIL * (1 - ONE_TAIL) / trials))


@pytest.mark.parametrize(
    ("truth", "step", "scatter"),
    # A coarse graduation with its limits on it, as 2 and 5 thou lie on tenths: between two steps a limit fares
    # otherwise, see docs/computation.md.
    [(50.0, 1.0, 2.0), (125.0, 1.0, 2.0), (50.8, 2.54, 1.27), (127.0, 2.54, 1.27)],
)
def test_a_position_whose_truth_lies_on_a_limit_is_called_in_at_most_one_of_forty(
    truth: float, step: float, scatter: float
) -> None:
    rng = np.random.default_rng(11)
    card = wet_card()
    if step > 1:
        limits = replace(card.limits, least_without_shim=limit("0.0508"), greatest_without_shim=limit("0.127"))
        card = replace(card, limits=limits)
    called: Counter[State] = Counter()
    for _ in range(TRIALS):
        gauge = Gauge(rng, step, scatter).zeroed()
        told = story(gauge, card)
        fitting = told.fit(1, told.liner("L1"))
        read_face(told, gauge, Quantity.PROTRUSION, fitting, Face(truth), (12.0,))
        row = answers.survey(told.facts(), Quantity.PROTRUSION).places[0]
        assert row.state is not None
        called[row.state] += 1
    assert called[State.IN] / TRIALS <= _allowed(TRIALS)
    assert called[State.OUT] / TRIALS <= _allowed(TRIALS)
    # A rule that never decided would pass too: the allowance is used.
    assert called[State.IN] + called[State.OUT] >= 0.015 * TRIALS


@pytest.mark.parametrize(
    ("rule", "shape"),
    [
        ("taper", lambda depth, axis: 25.0 * (130 - depth) / 120 if axis == 90 else 0.0),
        ("out of round", lambda depth, axis: 25.0 if (axis, depth) == (45, 70) else 0.0),
        ("taper", lambda depth, axis: 25.0 if 30 < depth < 80 else 0.0),
    ],
)
def test_a_form_whose_truth_lies_on_its_limit_is_hardly_ever_called_in(rule: str, shape) -> None:
    rng, trials = np.random.default_rng(12), TRIALS // 3
    wrong = sum(answers.state_of_rule(_bore(rng, shape), rule) is State.IN for _ in range(trials))
    assert wrong / trials <= _allowed(trials)


def test_neighbours_farther_apart_than_the_limit_are_not_called_in_by_a_moved_zero() -> None:
    """True difference 55, limit 50, the zero jumped by 10.16 between the holes: it read 45."""
    rng, trials = np.random.default_rng(13), TRIALS // 3
    wrong = 0
    for _ in range(trials):
        facts = _moved(rng, 4, (0, 1), Drift.SOMEWHERE, -10.16, (60.0, 115.0))
        rules = judge_job(facts).holes[0].rules
        wrong += next(one for one in rules if one.kind is RuleKind.NEIGHBOUR).decision.state is State.IN
    assert wrong / trials <= _allowed(trials)


def test_no_cut_is_planned_on_depths_or_a_flange_whose_zero_was_found_moved() -> None:
    rng = np.random.default_rng(14)
    for quantity in (Quantity.COUNTERBORE_DEPTH, Quantity.FLANGE_THICKNESS):
        gauge = Gauge(rng, 1.0, 1.0).zeroed()
        told = story(gauge, wet_card())
        told.fit(1, told.liner("L1"))
        read_face(told, gauge, Quantity.COUNTERBORE_DEPTH, told.hole_rows[0].hole_id, Face(8815.0), HOURS)
        told.read(Quantity.FLANGE_THICKNESS, told.rows["liners"][0].liner_id, (gauge.shown(8790.0),))
        assert answers.cut_is_refused(told.facts()) == ""
        check = told.look_at_zero(quantity, 12.0)
        assert open_doubts(told.facts())
        assert "zero was found moved" in answers.cut_is_refused(told.facts())
        told.correct(check, Drift.AT_ONCE)
        assert answers.cut_is_refused(told.facts()) == ""


def test_parts_and_reading_that_belong_together_seldom_seem_to_disagree() -> None:
    """On tilted ledges, positions 12-3-6 alone or with extra readings near one side: one in twenty, not more."""
    rng, trials = np.random.default_rng(15), TRIALS // 3
    disagree = 0
    for trial in range(trials):
        depth, sled = Gauge(rng, 1.0, 2.0).zeroed(), Gauge(rng, 1.0, 2.0).zeroed()
        told = story(depth, wet_card())
        fitting = told.fit(1, told.liner("L1"))
        ledge = Face(8815.0, 12.0, 8.0)
        read_face(told, depth, Quantity.COUNTERBORE_DEPTH, told.hole_rows[0].hole_id, ledge, HOURS)
        told.read(Quantity.FLANGE_THICKNESS, told.rows["liners"][0].liner_id, (depth.shown(8900.0),))
        rests = Face(85.0, -12.0, -8.0)
        if trial % 2:
            read_face(told, sled, Quantity.PROTRUSION, fitting, rests, (12.0, 3.0, 6.0))
            told.cannot_read(fitting, 9.0, "a stud stands there")
        else:
            read_face(told, sled, Quantity.PROTRUSION, fitting, rests, (*HOURS, 11.0, 10.0))
        (rule,) = (one for one in judge_job(told.facts()).holes[0].rules if one.kind is RuleKind.PARTS)
        disagree += rule.decision.state is not State.IN
    assert disagree / trials <= 0.0455 + 3 * float(np.sqrt(0.0455 * 0.9545 / trials))
