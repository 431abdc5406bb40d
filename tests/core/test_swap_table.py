"""The swap table: effects by hand and against NumPy's own least squares, ± by drawing, the exchange that tells most."""

from itertools import combinations

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.matching.swap_table import FittingRead, next_exchange, swap_table
from vallostasis.core.uncertainty.budget import Estimate, Source, estimate

UM = 1e-6


def read(hole: str, liner: str, um: float, own_um: float = 3.0, shared_um: float = 0.0) -> FittingRead:
    own = Source("own", own_um * UM, error=(hole, liner, um))
    shared = Source("zero", shared_um * UM, error="zero")
    return FittingRead(hole, liner, estimate(um * UM, (own, shared)))


def um(one: Estimate | float) -> float:
    return round(float(one) / UM, 6)  # type: ignore[arg-type]


def test_one_exchange_tells_hole_from_liner_by_hand() -> None:
    """Hole 2 reads 40 low with A and B alike: it is the hole, and A stands 10 above B.

    90 and 40, exchanged 80 and 50: A + B sum to nought, so A is +5 and B −5, hole 1 85, hole 2 45.
    """
    table = swap_table([read("1", "A", 90), read("2", "B", 40), read("1", "B", 80), read("2", "A", 50)])
    assert [(one.name, um(one.value.value_m)) for one in table.liners] == [("A", 5), ("B", -5)]
    assert [(one.name, um(one.value.value_m)) for one in table.holes] == [("1", 85), ("2", 45)]
    assert (table.groups, table.freedom) == (1, 1)
    assert all(abs(one.value.value_m) < 1e-12 and one.fits for one in table.left_over)
    # (90 + 50 − 80 − 40) / 4: each reading counts a quarter, 2 · 3 / 2.
    assert um(table.liners[0].value.expanded_m) == 3.0


def test_without_an_exchange_nothing_tells_hole_from_liner() -> None:
    table = swap_table([read("1", "A", 90), read("2", "B", 40)])
    assert (table.groups, table.freedom) == (2, 0)
    assert [um(one.value.value_m) for one in (*table.liners, *table.holes)] == [0, 0, 90, 40]
    assert len({one.group for one in table.liners}) == 2
    assert all(one.fits for one in table.left_over), "what is left over of one reading is nothing, whatever floats say"
    with pytest.raises(OutOfDomain):
        swap_table([])


def test_what_all_readings_share_moves_holes_and_no_liner() -> None:
    """GUM F.1.2.3: a zero that is common cancels between liners, and stays whole in every hole."""
    some = [("1", "A", 90), ("2", "B", 40), ("1", "B", 80), ("2", "A", 50)]
    plain = swap_table([read(*one) for one in some])
    shared = swap_table([read(*one, shared_um=8.0) for one in some])
    assert um(shared.liners[0].value.expanded_m) == um(plain.liners[0].value.expanded_m)
    hole, was = shared.holes[0].value, plain.holes[0].value
    assert hole.standard_m**2 == pytest.approx(was.standard_m**2 + (8 * UM) ** 2)


def test_a_reading_that_neither_hole_nor_liner_explains_is_told() -> None:
    """A burr under one fitting of four lifts it 60: a quarter of that is left over in each."""
    some = [("1", "A", 150), ("2", "B", 40), ("1", "B", 80), ("2", "A", 50)]
    table = swap_table([read(*one) for one in some])
    assert [um(abs(one.value.value_m)) for one in table.left_over] == [15, 15, 15, 15]
    assert not any(one.fits for one in table.left_over)


@settings(max_examples=60)
@given(st.integers(0, 10_000), st.integers(2, 5), st.integers(2, 6))
def test_effects_are_those_of_numpy_and_their_band_holds_the_truth(seed: int, holes: int, liners: int) -> None:
    """numpy.linalg.lstsq on dummies with one liner left out, moved so that the liners of the group sum to nought."""
    rng = np.random.default_rng(seed)
    pairs = [(h, i) for h in range(holes) for i in range(liners) if rng.random() < 0.6]
    assume(pairs)
    table = swap_table([read(str(h), f"L{i}", float(rng.integers(20, 140))) for h, i in pairs])
    assume(table.groups == 1)
    rng = np.random.default_rng(seed)
    pairs = [(h, i) for h in range(holes) for i in range(liners) if rng.random() < 0.6]
    heights = [float(rng.integers(20, 140)) for _ in pairs]
    used = sorted({i for _, i in pairs})
    design = np.zeros((len(pairs), holes + liners))
    for row, (h, i) in enumerate(pairs):
        design[row, h] = 1
        design[row, holes + i] = 1 if i != used[0] else 0
    fitted, *_ = np.linalg.lstsq(design, np.array(heights), rcond=None)
    own = np.array([fitted[holes + i] if i != used[0] else 0.0 for i in used])
    assert [one.value.value_m / UM for one in table.liners] == pytest.approx(own - own.mean(), abs=1e-6)
    left = np.array(heights) - design @ fitted
    assert [one.value.value_m / UM for one in table.left_over] == pytest.approx(left, abs=1e-6)
    assert sum(one.value.value_m for one in table.liners) == pytest.approx(0, abs=1e-15)


def test_the_band_of_an_effect_holds_the_hidden_truth_in_19_of_20() -> None:
    """2,000 hidden blocks of three holes and three liners with two exchanges; k = 2 covers 95.4 % of normal errors."""
    rng, inside, told = np.random.default_rng(5), 0, 0
    pairs = [("1", "A"), ("2", "B"), ("3", "C"), ("1", "B"), ("2", "A"), ("2", "C"), ("3", "B")]
    for _ in range(700):
        true = {name: rng.normal(0, 40) for name in "123ABC"}
        mean = np.mean([true[name] for name in "ABC"])
        table = swap_table([read(h, i, true[h] + true[i] + rng.normal(0, 3)) for h, i in pairs])
        for one in table.liners:
            told += 1
            inside += abs(one.value.value_m / UM - (true[one.name] - mean)) <= one.value.expanded_m / UM
    assert 0.94 <= inside / told <= 0.966


def test_the_exchange_that_is_proposed_leaves_least_open() -> None:
    """Against every candidate, each worked out anew by drawing from the prior and by least squares of the test."""
    some = [read("1", "A", 90), read("2", "B", 40), read("3", "C", 70)]
    present = {"1": "A", "2": "B", "3": "C"}
    found = next_exchange(some, present, (), 3 * UM)
    assert found is not None
    assert len(found.puts) == 2
    assert found.after_m < found.before_m
    # Once 1 and 2 are exchanged, one with 3 tells most: exchanging 1 and 2 back tells nothing new.
    more = [*some, read("1", "B", 80), read("2", "A", 50)]
    then = next_exchange(more, {"1": "B", "2": "A", "3": "C"}, (), 3 * UM)
    assert then is not None
    assert "3" in {hole for hole, _ in then.puts}
    assert next_exchange(some[:1], {"1": "A"}, (), 3 * UM) is None
    bench = next_exchange(some[:1], {"1": "A"}, ("Z",), 3 * UM)
    assert bench is not None
    assert bench.puts == (("1", "Z"),)


@pytest.mark.parametrize("seed", range(5))
def test_its_band_is_that_of_least_squares_with_a_prior(seed: int) -> None:
    """The ± that is left, drawn: liners and holes from the prior, readings with noise, estimated by ridge in NumPy."""
    rng = np.random.default_rng(seed)
    pairs = [("1", "A"), ("2", "B"), ("3", "C")]
    some = [read(h, i, 60) for h, i in pairs]
    found = next_exchange(some, dict(pairs), (), 5 * UM)
    assert found is not None
    pairs += [(hole, liner) for hole, liner in found.puts]
    names = "123ABC"
    design = np.zeros((len(pairs), 6))
    for row, (h, i) in enumerate(pairs):
        design[row, names.index(h)] = design[row, names.index(i)] = 1
    truth = rng.normal(0, 100, (4000, 6))
    heights = truth @ design.T + rng.normal(0, 5, (4000, len(pairs)))
    ridge = np.linalg.solve(design.T @ design + np.eye(6) * (5 / 100) ** 2, design.T)
    off = heights @ ridge.T - truth
    apart = [np.var(off[:, a] - off[:, b]) for a, b in combinations((3, 4, 5), 2)]
    assert 2 * np.sqrt(np.mean(apart)) == pytest.approx(found.after_m / UM, rel=0.05)
