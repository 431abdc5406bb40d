"""Draws of a seed are the same on every machine: whole numbers out of a digest (FIPS 180-4), computed here again."""

from dataclasses import fields, is_dataclass
from hashlib import sha256
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.practice.catalogue import EXERCISES
from vallostasis.core.practice.draws import MOST_SEED, Draws
from vallostasis.core.practice.slips import Slips

NAMES = st.text(st.characters(codec="utf-8", exclude_categories=["Cs"]), min_size=1, max_size=30)


@given(NAMES, st.integers(0, MOST_SEED), NAMES, st.integers(-1000, 1000), st.integers(0, 5000), st.integers(1, 50))
def test_a_draw_is_the_digest_of_its_names(
    exercise: str, seed: int, name: str, least: int, span: int, step: int
) -> None:
    digest = sha256(f"{exercise}/{seed}/{name}".encode()).hexdigest()[:32]
    expected = least + step * (int(digest, 16) % (span // step + 1))
    drawn = Draws(exercise, seed).whole(name, least, least + span, step)
    assert drawn == expected
    assert least <= drawn <= least + span


def test_sha256_is_the_one_of_the_standard() -> None:
    """FIPS 180-4, example of one block, from memory: the digest of abc."""
    assert sha256(b"abc").hexdigest().startswith("ba7816bf8f01cfea414140de5dae2223")


@given(st.integers(0, MOST_SEED))
def test_a_shuffle_keeps_every_card(seed: int) -> None:
    cards = tuple("abcdefgh")
    assert sorted(Draws("cards", seed).shuffled("deck", cards)) == sorted(cards)


def test_draws_go_over_their_whole_range() -> None:
    seen = {Draws("range", seed).whole("one", 1, 6) for seed in range(200)}
    assert seen == {1, 2, 3, 4, 5, 6}
    assert {Draws("range", seed).sign("s") for seed in range(20)} == {-1, 1}


@pytest.mark.parametrize("seed", [-1, MOST_SEED + 1])
def test_a_seed_out_of_range_is_refused(seed: int) -> None:
    with pytest.raises(OutOfDomain) as refused:
        Draws("one", seed)
    assert refused.value.quantity == "seed"


def _lengths(value: Any, name: str = "") -> list[tuple[str, Any]]:
    if is_dataclass(value):
        return [found for field in fields(value) for found in _lengths(getattr(value, field.name), field.name)]
    if isinstance(value, tuple):
        return [found for one in value for found in _lengths(one, name)]
    return [(name, value)]


@pytest.mark.parametrize("exercise", EXERCISES, ids=lambda one: one.name)
def test_hidden_truths_lie_on_whole_nanometres_and_differ_by_seed(exercise: Any) -> None:
    truths = [exercise.truth(seed) for seed in range(20)]
    assert truths == [exercise.truth(seed) for seed in range(20)]
    assert len({str(truth) for truth in truths}) > 15
    for truth in truths:
        if not isinstance(truth, Slips):
            odd = [(name, value) for name, value in _lengths(truth) if not isinstance(value, int | str)]
            assert odd == []
