"""The drop window held against hidden runs: how often its band holds what is there, and what it calls free.

What nobody measures is drawn anew for each run from the spreads that the window declares, by this test's own generator,
and each run is solved in full.
"""

from dataclasses import replace

import numpy as np

from tests.core.test_heat import SIZES, SPREADS
from tests.deep import DEEP
from vallostasis.core.heat.planner import Drops, drops
from vallostasis.core.heat.transient import Draws, in_full
from vallostasis.core.heat.window import Spreads, drop_window

RUNS = 2000 if DEEP else 120
AIR_C, ENTER_S, WANTED_M = 20.0, 40.0, 38e-6


def hidden_run(one: Spreads, rng: np.random.Generator) -> Draws:
    """One run as it truly is."""
    contact = np.exp(rng.uniform(*np.log(one.contact)))
    found = {
        "press_m": rng.normal(one.press_m, one.press_off_m), "liner_c": rng.normal(one.liner_c, one.liner_off_k),
        "block_c": rng.normal(one.block_c, one.block_off_k), "film": one.film * np.exp(rng.normal(0, one.film_off)),
        "block_s": one.block_s * np.exp(rng.normal(0, one.block_s_off)), "off_centre": rng.uniform(*one.off_centre),
        "contact": contact, "ring_m": one.ring_m * rng.uniform(*one.ring), "liner_off": rng.normal(1, one.liner_off),
        "block_off": rng.normal(1, one.block_off),
    }  # fmt: skip
    return Draws(**{name: np.array([float(value)]) for name, value in found.items()})


def test_the_band_holds_the_true_clearance_at_every_tenth_of_the_window() -> None:
    """95 of 100 claimed: between 90 and 97, by five standard errors of a binomial draw at the least and the most."""
    window = drop_window(SIZES, SPREADS, AIR_C, ENTER_S, WANTED_M)
    assert window.likely_s is not None
    moments = np.concatenate([[0.0, 20.0], ENTER_S + (window.likely_s - ENTER_S) * np.linspace(0.001, 1, 10)])
    low, high = (np.interp(moments, window.times_s, one) for one in (window.low_m, window.high_m))
    rng, held, called, touched = np.random.default_rng(17_117), np.zeros(len(moments)), 0, 0
    for _ in range(RUNS):
        truth = in_full(SIZES, hidden_run(SPREADS, rng), AIR_C, ENTER_S, moments)
        held += (low <= truth) & (truth <= high)
        free = np.array([drops(float(one), WANTED_M) is Drops.FREELY for one in low])
        called += int(free.sum())
        touched += int((free & (truth <= 0)).sum())
    share = held / RUNS
    error = (0.95 * 0.05 / RUNS) ** 0.5
    assert np.all(share >= 0.90 - 2 * error), share
    assert np.all(share <= 0.97 + 3 * error), share
    assert called > RUNS
    assert touched == 0, "what touched was called to drop freely"


def test_a_worse_pair_of_readings_never_widens_what_is_called_free() -> None:
    """The worst pair within its ± is the lower edge's own bound: with it the window shuts no later."""
    until = []
    for worst in (40e-6, 60e-6, 80e-6):
        found = drop_window(SIZES, replace(SPREADS, worst_press_m=worst), AIR_C, ENTER_S, WANTED_M)
        assert found.home_by_s is not None
        until.append(found.home_by_s)
    assert until == sorted(until, reverse=True)
