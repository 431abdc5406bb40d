"""Practice: an exercise begun, moves made one after the other, what they were worth, and how a person stands."""

from collections.abc import Mapping, Sequence
from dataclasses import asdict, dataclass, replace
from secrets import randbelow
from typing import Any
from uuid import UUID

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.notation.lengths import Unit
from vallostasis.core.notation.typed_lengths import parse_length
from vallostasis.core.practice.catalogue import BY_NAME, EXERCISES
from vallostasis.core.practice.draws import MOST_SEED
from vallostasis.core.practice.exercise import Exercise, FieldKind, Judged, Move, Offer, Position, check_move
from vallostasis.core.practice.own import exercise_of, from_job, of_row
from vallostasis.core.practice.standing import Next, Result, Skill, next_exercise, skills_of
from vallostasis.services.refused import RefusalCode, Refused, typed_at
from vallostasis.store import practice
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.practice import Attempt
from vallostasis.store.rows import Conn, NotFound


@dataclass(frozen=True, slots=True)
class AttemptNow:
    """An attempt as it stands; ``judged`` once it is over."""

    attempt: Attempt
    exercise: Exercise[Any]
    moves: int
    position: Position
    judged: Judged | None


@dataclass(frozen=True, slots=True)
class MoveTyped:
    """A move as typed: numbers and choices in the words of their fields, lengths with or without a unit."""

    place: int
    name: str
    given: Mapping[str, str]
    at_s: float
    bare_unit: Unit
    by: UUID


@dataclass(frozen=True, slots=True)
class OwnTexts:
    """What the shop writes of its own exercise: its name, the task, and what is learned of it."""

    title: str
    words: str
    lesson: str


@dataclass(frozen=True, slots=True)
class PracticeNow:
    """Every exercise, and how a person stands: results by skill, what comes next."""

    exercises: tuple[Exercise[Any], ...]
    skills: tuple[Skill, ...]
    results: tuple[Result, ...]
    next: Next


def practice_of(conn: Conn, person_id: UUID | None) -> PracticeNow:
    """Return the exercises and how somebody stands in them."""
    results = () if person_id is None else practice.results_of(conn, person_id)
    every = (*EXERCISES, *_own(conn))
    return PracticeNow(every, skills_of(results, every), results, next_exercise(results, every))


def exercise_named(conn: Conn, name: str) -> Exercise[Any]:
    """Return an exercise, one of the shop's own too."""
    found = BY_NAME.get(name) or next((one for one in _own(conn) if one.name == name), None)
    if found is None:
        raise NotFound("exercise", name)
    return found


def _own(conn: Conn) -> tuple[Exercise[Any], ...]:
    return tuple(exercise_of(f"own-{row.own_id}", of_row(row.exercise)) for row in practice.list_own(conn))


def write_own(conn: Conn, own_id: UUID, job_id: UUID, texts: OwnTexts, by: UUID) -> None:
    """Write an exercise from a past job; nothing of the job but its heights comes along."""
    try:
        own = from_job(load_job_facts(conn, job_id), texts.title, texts.words, texts.lesson)
    except OutOfDomain as error:
        raise Refused(str(error), error.quantity) from None
    practice.add_own(conn, own_id, asdict(own), by)


def begin(conn: Conn, attempt_id: UUID, name: str, seed: int | None, by: UUID) -> AttemptNow:
    """Begin an exercise, with the seed asked for or one of its own; sending it again begins none anew."""
    exercise = exercise_named(conn, name)
    practice.add_attempt(conn, attempt_id, exercise.name, randbelow(MOST_SEED + 1) if seed is None else seed, by)
    return attempt_now(conn, attempt_id)


def attempt_now(conn: Conn, attempt_id: UUID) -> AttemptNow:
    """Return an attempt as it stands."""
    attempt = practice.get_attempt(conn, attempt_id)
    exercise = exercise_named(conn, attempt.exercise)
    truth, moves = exercise.truth(attempt.seed), practice.moves_of(conn, attempt_id)
    return _standing(attempt, exercise, truth, moves)


def _standing(attempt: Attempt, exercise: Exercise[Any], truth: object, moves: Sequence[Move]) -> AttemptNow:
    """What is shown after some moves; once it is over, the bench as it stood before the last of them."""
    now = exercise.position(truth, moves)
    if not now.is_over:
        return AttemptNow(attempt, exercise, len(moves), now, None)
    before = replace(exercise.position(truth, moves[:-1]), offers=(), rate=0.0)
    return AttemptNow(attempt, exercise, len(moves), before, exercise.judged(truth, moves))


def make_move(conn: Conn, attempt_id: UUID, typed: MoveTyped) -> AttemptNow:
    """Make a move; a refusal names its field. The same move at the same place counts once."""
    attempt = practice.get_attempt(conn, attempt_id)
    if attempt.person_id != typed.by:
        raise Refused(f"This exercise is {attempt.person}'s: begin one of your own.", "person_id")
    exercise = exercise_named(conn, attempt.exercise)
    truth, moves = exercise.truth(attempt.seed), practice.moves_of(conn, attempt_id)
    if typed.place < len(moves):
        return _again(conn, attempt_id, typed, moves[typed.place])
    if typed.place > len(moves):
        raise Refused("A move before this one has not arrived: look again and repeat it.", "place", RefusalCode.STALE)
    before = exercise.position(truth, moves)
    move = _read(before, typed)
    if moves and move.at_s < moves[-1].at_s:
        raise Refused("The clock of this exercise does not run back.", "at_s")
    try:
        check_move(before, move, len(moves))
        now = _standing(attempt, exercise, truth, (*moves, move))
    except OutOfDomain as error:
        raise Refused(str(error), f"given.{error.quantity}" if error.quantity in move.given else "name") from None
    if not practice.add_move(conn, attempt_id, typed.place, move):
        raise Refused("Another move was made meanwhile: look at it first.", "place", RefusalCode.STALE)
    if now.judged is not None:
        practice.add_result(conn, attempt_id, now.judged)
    return now


def _again(conn: Conn, attempt_id: UUID, typed: MoveTyped, stands: Move) -> AttemptNow:
    if stands.name != typed.name:
        raise Refused("Another move was made meanwhile: look at it first.", "place", RefusalCode.STALE)
    return attempt_now(conn, attempt_id)


def _read(position: Position, typed: MoveTyped) -> Move:
    offer = next((one for one in position.offers if one.name == typed.name), Offer(typed.name, ""))
    kinds = {one.name: one.kind for one in offer.fields}
    given: dict[str, float | str] = {}
    for name, text in typed.given.items():
        field = f"given.{name}"
        if kinds.get(name) is FieldKind.LENGTH:
            with typed_at(field):
                given[name] = float(parse_length(text, typed.bare_unit, None, confirmed=True).value_um) * 1e-6
        elif kinds.get(name) is FieldKind.NUMBER:
            given[name] = _number(text, field)
        else:
            given[name] = text
    return Move(typed.name, given, typed.at_s)


def _number(text: str, field: str) -> float:
    try:
        value = float(text.replace(",", ".").strip().rstrip("°%").strip())
    except ValueError:
        raise Refused("Type a number here.", field) from None
    if abs(value) == float("inf") or value != value:
        raise Refused("This must be a finite number.", field)
    return value
