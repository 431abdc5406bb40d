"""The line of main bores held against a hidden truth: how often its ± holds the offset that is there."""

import numpy as np

from tests.core.test_mains import HOURS, Crankcase
from tests.deep import DEEP
from vallostasis.core.mains.line import line_of
from vallostasis.core.records.rows import Place, Quantity

TRIALS = 4000 if DEEP else 250
# The gauge of these tests: its step, and what it repeats within. [µm]
STEP_UM, REPEATABILITY_UM = 0.2, 0.2


def test_what_a_bore_stands_off_the_line_lies_within_its_plus_minus() -> None:
    """95 % claimed: k of the card is 2; the share found lies within five standard errors of a binomial draw."""
    random = np.random.default_rng(26_061)
    held = 0
    for _ in range(TRIALS):
        case = Crankcase()
        truth = random.normal(0, 10, (3, 2))
        for main in range(3):
            places = {}
            for hour in HOURS:
                angle = np.deg2rad(30 * hour)
                read = truth[main, 0] * np.cos(angle) + truth[main, 1] * np.sin(angle)
                places[Place(hour=hour)] = (
                    round(round((read + random.normal(0, REPEATABILITY_UM)) / STEP_UM) * STEP_UM, 1),
                )
            case.story.survey(Quantity.MAIN_LINE, places, part=f"main-{main + 1}")
        row = line_of(case.story.facts()).rows[1]
        true_off = truth[1] - (truth[0] + truth[2]) / 2
        found = np.array([row.upright.value_m, row.across.value_m]) * 1e6
        held += bool(np.hypot(*(found - true_off)) <= row.off.expanded_m * 1e6)
    share = held / TRIALS
    assert share >= 0.95 - 5 * (0.95 * 0.05 / TRIALS) ** 0.5
