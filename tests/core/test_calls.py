"""How often a verdict is wrong: single readings on a limit, and whole holes, by drawing readings."""

import numpy as np
import pytest

from vallostasis.core.measuring.decision import Acceptance, State, decide
from vallostasis.core.measuring.uncertainty import ReadingTrust
from vallostasis.core.protrusion.rules import HourReadings, MeasuredHole, ProtrusionLimits, RuleBook, judge_block

TRIALS = 200_000
LEAST, GREATEST = 50e-6, 125e-6


@pytest.mark.parametrize("truth", [LEAST, GREATEST])
def test_a_reading_whose_truth_lies_on_a_limit_is_called_in_at_most_one_of_forty(truth: float) -> None:
    """2.5 % is one tail beyond 1.96 σ of the normal distribution; the house's k = 2 leaves 2.28 %."""
    rng = np.random.default_rng(11)
    u = 2.6e-6
    called = {State.IN: 0, State.OUT: 0}
    for value in rng.normal(truth, u, TRIALS):
        state = decide(float(value), 2 * u, LEAST, GREATEST).state
        if state in called:
            called[state] += 1
    assert called[State.IN] <= 0.025 * TRIALS
    assert called[State.OUT] <= 0.025 * TRIALS
    # A rule that never decided would pass too: nearly all the allowance is used.
    assert called[State.IN] >= 0.02 * TRIALS


def test_how_often_a_whole_hole_is_called_wrongly(capsys: pytest.CaptureFixture[str]) -> None:
    """Four positions, one of them on the limit: the rate is printed, and no worse than that of its worst reading."""
    rng = np.random.default_rng(12)
    limits = ProtrusionLimits(LEAST, GREATEST, None, None, None, None)
    book = RuleBook((12.0, 3.0, 6.0, 9.0), ((1,),), Acceptance.GUARDED, 2.0)
    own, zero, trials = 2.4e-6, 1e-6, 4000
    wrong = 0
    for _ in range(trials):
        shift = rng.normal(0, zero)
        truths = (LEAST, 80e-6, 85e-6, 90e-6)
        readings = tuple(
            HourReadings(hour, (truth + shift + rng.normal(0, own),))
            for hour, truth in zip(book.required_hours, truths, strict=True)
        )
        hole = MeasuredHole(1, limits, readings, ReadingTrust(own, zero), "zero")
        wrong += judge_block((hole,), book).holes[0].state is State.IN
    with capsys.disabled():
        print(f"\n  a hole with one position on its limit is called in {100 * wrong / trials:.2f} % of the time")
    # Four standard errors of a share of 2.28 % among so many.
    assert wrong / trials <= 0.0228 + 4 * (0.0228 * 0.9772 / trials) ** 0.5
