"""Whoever knows the truth makes all points, whoever makes the mistake of a trap is caught: 200 seeds of everything.

Players are written from the rules of each exercise, in players.py; what is right is the drawn truth itself.
"""

import pytest

from tests.core.practice.all_players import PLAYERS, SOMETIMES
from tests.core.practice.players import Player
from vallostasis.core.practice.catalogue import EXERCISES
from vallostasis.core.practice.exercise import check_move
from vallostasis.core.practice.slips import SHOWS_BY, Slips

SEEDS = range(200)
# Whether each move is one that is offered is looked at for some of them: it costs a position for every move.
LOOKED_AT = range(0, 200, 20)


def _id(player: Player) -> str:
    return f"{player.exercise.name} {player.name}"


@pytest.mark.parametrize("player", PLAYERS, ids=_id)
def test_right_is_full_marks_and_each_mistake_is_caught(player: Player) -> None:
    for seed in SEEDS:
        truth = player.exercise.truth(seed)
        moves = player.play(truth)
        judged = player.exercise.judged(truth, moves)
        missed = [one.name for one in judged.scored if not one.is_full]
        if player.is_perfect:
            assert (missed, judged.traps) == ([], ()), seed
            continue
        assert missed, seed
        if player.trap:
            assert player.trap in {met.trap for met in judged.traps}, (seed, missed, judged.traps)
        if player.skill:
            assert player.skill in {one.skill for one in judged.scored if not one.is_full}, seed


@pytest.mark.parametrize("player", PLAYERS, ids=_id)
def test_players_do_only_what_is_offered_and_the_end_is_the_end(player: Player) -> None:
    for seed in LOOKED_AT:
        truth = player.exercise.truth(seed)
        moves = player.play(truth)
        for at, move in enumerate(moves):
            check_move(player.exercise.position(truth, moves[:at]), move, at)
        assert player.exercise.position(truth, moves).is_over, seed


@pytest.mark.parametrize(
    ("exercise", "trap", "play", "counts"), SOMETIMES, ids=[f"{one[0].name} {one[1]}" for one in SOMETIMES]
)
def test_a_mistake_is_caught_in_just_the_seeds_where_it_is_one(exercise, trap, play, counts) -> None:  # type: ignore[no-untyped-def]
    seen = 0
    for seed in SEEDS:
        truth = exercise.truth(seed)
        judged = exercise.judged(truth, play(truth))
        assert (trap in {met.trap for met in judged.traps}) == counts(truth), seed
        seen += counts(truth)
    # Often enough for a learner to meet it.
    assert seen > len(SEEDS) / 5


@pytest.mark.parametrize("exercise", EXERCISES, ids=lambda one: one.name)
def test_no_wrong_answer_lies_near_the_right_one(exercise) -> None:  # type: ignore[no-untyped-def]
    for seed in SEEDS:
        truth = exercise.truth(seed)
        if not isinstance(truth, Slips):
            return
        for asked in (one for slip in truth.slips for one in slip.asked):
            for wrong in asked.wrong:
                if isinstance(asked.right, str) or isinstance(wrong.value, str):
                    assert wrong.value != asked.right
                    assert wrong.value in asked.choices
                else:
                    assert abs(wrong.value - asked.right) > SHOWS_BY * asked.at_most, (seed, asked.label, wrong.trap)
            # Each wrong answer is that of one trap.
            for wrong in asked.wrong:
                if wrong.trap:
                    found = asked.stepped_into(wrong.value)
                    assert found is not None, (seed, asked.label)
                    assert found.trap == wrong.trap, (seed, asked.label, wrong.trap)


@pytest.mark.parametrize("exercise", EXERCISES, ids=lambda one: one.name)
def test_every_skill_and_every_trap_that_an_exercise_names_has_a_player(exercise) -> None:  # type: ignore[no-untyped-def]
    mine = [player for player in PLAYERS if player.exercise is exercise]
    assert [player for player in mine if player.is_perfect]
    assert set(exercise.traps) <= {player.trap for player in mine} | {one[1] for one in SOMETIMES if one[0] is exercise}
    truth = exercise.truth(3)
    perfect = next(player for player in mine if player.is_perfect)
    assert {one.skill for one in exercise.judged(truth, perfect.play(truth)).scored} == set(exercise.skills)
