"""Warnings keep quiet until the end, hazard cautions never do; what is sure and what comes next."""

from typing import Any

import pytest

from tests.core.practice.all_players import PLAYERS
from tests.core.practice.players import Player
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.practice.catalogue import EXERCISES
from vallostasis.core.practice.exercise import (
    MOST_MOVES,
    Move,
    Offer,
    Position,
    check_move,
    choice,
    length,
    number,
    say,
)
from vallostasis.core.practice.own import CANNOT_TELL, IN, OUT, OwnExercise, OwnHole, exercise_of, named_in, verdict_of
from vallostasis.core.practice.standing import Result, next_exercise, skills_of
from vallostasis.core.practice.traps import BY_NUMBER, TRAPS

PERFECT = [player for player in PLAYERS if player.is_perfect]
# Steps that can hurt somebody, by exercise. Common practice, no published source.
HAZARDS = {
    "low-liner-detective": {"flange", "swap", "cut", "skim"},
    "counterbore-cutter": {"cut"},
    "heat-and-chill": {"heat", "lower", "drive", "again"},
    "press-it-home": {"push"},
    "hone-to-size": {"hone"},
    "bore-on-centre": {"cut"},
    "clean-up": {"bore"},
}


def _offers(player: Player, seed: int) -> list[Offer]:
    truth = player.exercise.truth(seed)
    moves = player.play(truth)
    return [offer for at in range(len(moves)) for offer in player.exercise.position(truth, moves[:at]).offers]


@pytest.mark.parametrize("name", HAZARDS)
def test_what_can_hurt_is_said_every_time_it_is_offered(name: str) -> None:
    seen = set()
    for player in (player for player in PLAYERS if player.exercise.name == name):
        for offer in _offers(player, 3):
            if offer.name in HAZARDS[name]:
                assert len(offer.caution) > 20, offer.name
                seen.add(offer.name)
    assert seen == HAZARDS[name]


def test_the_plate_and_its_bolts_are_cautioned_too() -> None:
    plates = next(player for player in PERFECT if player.exercise.name == "plate-on-plate-off")
    assert any("torque" in offer.caution for offer in _offers(plates, 1))


@pytest.mark.parametrize("player", PLAYERS, ids=lambda one: f"{one.exercise.name} {one.name}")
def test_no_warning_of_a_trap_is_shown_before_the_end(player: Player) -> None:
    truth = player.exercise.truth(5)
    moves = player.play(truth)
    warnings = [met.words.text for met in player.exercise.judged(truth, moves).traps]
    # Of long games the last stretch, where a warning would come.
    for at in range(max(0, len(moves) - 12), len(moves)):
        shown = str(player.exercise.position(truth, moves[:at]))
        assert not [words for words in warnings if words in shown]


def test_every_trap_of_the_trade_has_an_exercise() -> None:
    assert [trap.number for trap in TRAPS] == [f"T{at}" for at in range(1, 61)]
    assert {trap for one in EXERCISES for trap in one.traps} == set(BY_NUMBER)
    assert all(trap.name and trap.check for trap in TRAPS)


POSITION = Position(say("x"), (), (), (Offer("go", "Go", (
    choice("way", "Way", ("left", "right")), number("many", "Many", 1, 9), length("far", "Far", 1e-3))),))  # fmt: skip


@pytest.mark.parametrize(
    ("move", "field"),
    [
        (Move("fly"), "name"),
        (Move("go", {"way": "left", "many": 3.0}), "far"),
        (Move("go", {"way": "up", "many": 3.0, "far": 0.0}), "way"),
        (Move("go", {"way": "left", "many": 10.0, "far": 0.0}), "many"),
        (Move("go", {"way": "left", "many": 3.0, "far": 2e-3}), "far"),
        (Move("go", {"way": "left", "many": "x", "far": 0.0}), "many"),
        (Move("go", {"way": "left", "many": 3.0, "far": 0.0, "more": 1.0}), "more"),
    ],
)
def test_a_move_that_is_not_offered_is_refused_at_its_field(move: Move, field: str) -> None:
    with pytest.raises(OutOfDomain) as refused:
        check_move(POSITION, move, 0)
    assert refused.value.quantity == field


def test_a_move_at_the_edges_is_taken_and_an_endless_game_is_not() -> None:
    edge = Move("go", {"way": "right", "many": 9.0, "far": -1e-3})
    check_move(POSITION, edge, MOST_MOVES - 1)
    with pytest.raises(OutOfDomain):
        check_move(POSITION, edge, MOST_MOVES)


def _result(exercise: Any, right: bool, skill: int = 0) -> Result:
    skills = {name: right or at != skill for at, name in enumerate(exercise.skills)}
    return Result(exercise.name, 1, 5, 10, skills, ())


def test_three_in_a_row_are_sure_and_what_was_missed_comes_next() -> None:
    """House rule: three in a row; missed first, then untried, then unsure."""
    one, other = EXERCISES[0], EXERCISES[1]
    both = (one, other)
    assert next_exercise((), both).exercise == one.name
    assert next_exercise((_result(one, True),), both) == next_exercise((_result(one, True),) * 3, both)
    assert next_exercise((_result(one, True),), both).exercise == other.name
    missed = (_result(other, True), _result(one, False))
    assert next_exercise(missed, both).exercise == one.name
    assert next_exercise(missed, both).why == f"missed last time: {one.skills[0]}"
    three = (_result(one, True),) * 3
    sure = {skill.name: skill.is_sure for skill in skills_of((_result(one, False), *three), (one,))}
    assert all(sure.values())
    broken = {skill.name: skill.is_sure for skill in skills_of((*three[:2], _result(one, False)), (one,))}
    assert [name for name, is_sure in broken.items() if not is_sure] == [one.skills[0]]
    assert not any(skill.is_sure for skill in skills_of(three[:2], (one,)))
    mended = (_result(one, False), _result(one, True))
    assert next_exercise(mended, both).exercise == other.name
    worse = (_result(other, False), _result(other, False), _result(one, True), _result(one, False))
    assert next_exercise(worse, both).exercise == other.name
    everything = (*((_result(one, True),) * 3), *((_result(other, True),) * 3))
    assert "sure" in next_exercise(everything, both).why
    assert len(skills_of((_result(one, True),) * 12, (one,))[0].last) == 8


@pytest.mark.parametrize(
    ("values_um", "expected"),
    [
        ((60, 90), IN),
        ((55, 90), IN),
        ((54, 90), CANNOT_TELL),
        ((47, 90), CANNOT_TELL),
        ((44, 90), OUT),
        ((60, 146), CANNOT_TELL),
        ((60, 156), OUT),
    ],
)
def test_an_own_exercise_judges_with_its_uncertainty(values_um: tuple[int, ...], expected: str) -> None:
    """Limits 50 to 150 with ± 5: in from 55 to 145, out under 45 and over 155; ISO 14253-1, from memory."""
    assert verdict_of([one * 1000 for one in values_um], 5_000, 50_000, 150_000) == expected


def test_names_of_the_job_are_found_in_texts() -> None:
    names = ("Ferry Lanthorn", "26-031", "Basin Trust")
    assert named_in("Six heights of an old block", names) == ""
    assert named_in("The ferry, again", names) == "Ferry Lanthorn"
    assert named_in("job 26-031", names) == "26-031"
    assert named_in("the Trust's engine", names) == ""
    assert named_in("what Basin sent", names) == "Basin Trust"


def test_an_own_exercise_is_played_like_any_other() -> None:
    holes = tuple(OwnHole((12.0, 6.0), (60_000 + 9_000 * at, 70_000 + 9_000 * at)) for at in range(5))
    one = exercise_of("own-x", OwnExercise("Five", "Which?", "Read it again.", 5_000, 50_000, 100_000, holes))
    truth = one.truth(4)
    moves = [Move("answer", {asked.name: asked.right for asked in slip.asked}) for slip in truth.slips]
    judged = one.judged(truth, moves)
    assert judged.is_full
    assert judged.words[-1].text == "Read it again."
    assert len({str(one.truth(seed).slips) for seed in range(10)}) > 5
    given = {"mean": truth.slips[0].asked[0].right, "stands": "nowhere"}
    wrong = one.judged(truth, [Move("answer", given), *moves[1:]])
    assert (wrong.points, wrong.of) == (judged.of - 10, judged.of)
