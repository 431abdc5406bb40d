"""What thermometers teach while a drop runs, held against hidden runs: it narrows, and it still holds what is there.

Each run is drawn from the spreads that are declared, its thermometers are off by what is declared of them, and it is
solved in full; the window is worked out from what they read, without knowing anything of that.
"""

from dataclasses import replace

import numpy as np
import pytest

from tests.core.test_heat import SIZES, SPREADS
from tests.deep import DEEP
from tests.truth.test_heat import AIR_C, ENTER_S, WANTED_M, hidden_run
from vallostasis.core.heat.live import NOISE_K, THERMOMETER_OFF_K, spreads_learned
from vallostasis.core.heat.planner import Drops, drops
from vallostasis.core.heat.run import Warmth
from vallostasis.core.heat.transient import Draws, carried, in_full
from vallostasis.core.heat.window import Spreads, Window, drop_window

RUNS = 2000 if DEEP else 100
READ_AT_S = np.arange(0.0, 36.0, 4.0)
# Only starts and films are drawn: what thermometers can teach.
IN_AIR = replace(SPREADS, press_off_m=0.0, worst_press_m=SPREADS.press_m, ring=(1.0, 1.0), off_centre=(0.4, 0.4),
                 contact=(5000.0, 5000.0), liner_off=0.0, block_off=0.0)  # fmt: skip


def _read(truth: Draws, rng: np.random.Generator) -> tuple[tuple[Warmth, ...], tuple[Warmth, ...]]:
    """What two clipped thermometers show on the way: each has an error of its own, and every reading a little more."""
    found = []
    for which in (0, 1):
        off = rng.normal(0, THERMOMETER_OFF_K)
        shown = [float(carried(SIZES, truth, AIR_C, at)[which][0]) + off + rng.normal(0, NOISE_K) for at in READ_AT_S]
        found.append(tuple(Warmth(float(at), value) for at, value in zip(READ_AT_S, shown, strict=True)))
    return found[0], found[1]


def _window(spreads: Spreads) -> Window:
    return drop_window(SIZES, spreads, AIR_C, ENTER_S, WANTED_M)


def _wide(window: Window, at_s: float) -> float:
    low, _, high = window.at(at_s)
    return high - low


def test_what_starts_and_films_put_into_the_band_is_at_most_half_after_thermometers() -> None:
    """Over hidden runs, at every tenth from entering until it most likely grabs, and in air."""
    before = _window(IN_AIR)
    assert before.likely_s is not None
    moments = (20.0, ENTER_S, *(ENTER_S + (before.likely_s - ENTER_S) * np.linspace(0.1, 0.7, 7)))
    rng, shares = np.random.default_rng(17_301), []
    for _ in range(12):
        truth = hidden_run(IN_AIR, rng)
        after = _window(spreads_learned(SIZES, IN_AIR, AIR_C, *_read(truth, rng)))
        shares.append([_wide(after, at) / _wide(before, at) for at in moments])
    assert np.max(np.median(shares, axis=0)) <= 0.5
    assert np.max(shares) <= 0.75


def test_the_band_still_holds_the_true_clearance_once_it_has_learned() -> None:
    """95 of 100 claimed: between 90 and 97, by five standard errors of a binomial draw at the least and the most."""
    planned = _window(SPREADS)
    assert planned.likely_s is not None
    moments = np.concatenate([[20.0], ENTER_S + (planned.likely_s - ENTER_S) * np.linspace(0.001, 1, 10)])
    rng, held, touched, called = np.random.default_rng(17_302), np.zeros(len(moments)), 0, 0
    for _ in range(RUNS):
        run = hidden_run(SPREADS, rng)
        window = _window(spreads_learned(SIZES, SPREADS, AIR_C, *_read(run, rng)))
        truth = in_full(SIZES, run, AIR_C, ENTER_S, moments)
        low, high = (np.interp(moments, window.times_s, one) for one in (window.low_m, window.high_m))
        held += (low <= truth) & (truth <= high)
        free = np.array([drops(float(one), WANTED_M) is Drops.FREELY for one in low])
        called += int(free.sum())
        touched += int((free & (truth <= 0)).sum())
    share, error = held / RUNS, (0.95 * 0.05 / RUNS) ** 0.5
    assert np.all(share >= 0.90 - 2 * error), share
    assert np.all(share <= 0.97 + 3 * error), share
    assert called > RUNS
    assert touched == 0, "what touched was called to drop freely"


@pytest.mark.parametrize("warmer_k", [-6.0, 0.0, 6.0])
def test_a_block_that_is_not_as_planned_moves_the_window_its_way(warmer_k: float) -> None:
    """A block read colder shuts the window earlier, one read warmer later."""
    block = tuple(Warmth(float(at), SPREADS.block_c + warmer_k) for at in READ_AT_S)
    moved, planned = _window(spreads_learned(SIZES, SPREADS, AIR_C, (), block)), _window(SPREADS)
    assert moved.home_by_s is not None
    assert planned.home_by_s is not None
    # With a block that is known better the lower edge comes up a little besides.
    assert (moved.home_by_s > planned.home_by_s) is (warmer_k >= 0)
