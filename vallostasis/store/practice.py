"""Practice: attempts, their moves in order, what they came to, and exercises of the shop's own."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID

from psycopg.types.json import Jsonb

from vallostasis.core.practice.exercise import Judged, Move
from vallostasis.core.practice.standing import Result
from vallostasis.store.rows import Conn, fetch_all, fetch_one


@dataclass(frozen=True, slots=True)
class Attempt:
    """One exercise begun by one person."""

    attempt_id: UUID
    exercise: str
    seed: int
    person_id: UUID
    person: str
    begun_at: datetime


@dataclass(frozen=True, slots=True)
class OwnRow:
    """An exercise of the shop's own, as it was written."""

    own_id: UUID
    exercise: dict[str, Any]
    made_by: str
    made_at: datetime


def add_attempt(conn: Conn, attempt_id: UUID, exercise: str, seed: int, person_id: UUID) -> None:
    """Begin one; sending it again begins none anew."""
    conn.execute(
        """
        INSERT INTO practice_attempt (attempt_id, exercise, seed, person_id)
        VALUES (%(attempt_id)s, %(exercise)s, %(seed)s, %(person_id)s)
        ON CONFLICT (attempt_id) DO NOTHING
        """,
        {"attempt_id": attempt_id, "exercise": exercise, "seed": seed, "person_id": person_id},
    )


def get_attempt(conn: Conn, attempt_id: UUID) -> Attempt:
    """Return one attempt."""
    query = """
        SELECT a.attempt_id, a.exercise, a.seed, a.person_id, p.name AS person, a.begun_at
          FROM practice_attempt a JOIN person p USING (person_id)
         WHERE a.attempt_id = %(attempt_id)s
    """
    return fetch_one(conn, Attempt, query, {"attempt_id": attempt_id}, "exercise begun")


def moves_of(conn: Conn, attempt_id: UUID) -> tuple[Move, ...]:
    """Return what was done, in its order."""
    query = "SELECT name, given, at_s FROM practice_move WHERE attempt_id = %(attempt_id)s ORDER BY place"
    return fetch_all(conn, Move, query, {"attempt_id": attempt_id})


def add_move(conn: Conn, attempt_id: UUID, place: int, move: Move) -> bool:
    """Append a move; False where another stands at its place."""
    added = conn.execute(
        """
        INSERT INTO practice_move (attempt_id, place, name, given, at_s)
        VALUES (%(attempt_id)s, %(place)s, %(name)s, %(given)s, %(at_s)s)
        ON CONFLICT (attempt_id, place) DO NOTHING
        """,
        {"attempt_id": attempt_id, "place": place, "name": move.name, "given": Jsonb(dict(move.given)),
         "at_s": move.at_s},
    )  # fmt: skip
    return added.rowcount == 1


def add_result(conn: Conn, attempt_id: UUID, judged: Judged) -> None:
    """Write down what an attempt came to."""
    skills: dict[str, bool] = {}
    for one in judged.scored:
        skills[one.skill] = skills.get(one.skill, True) and one.is_full
    conn.execute(
        """
        INSERT INTO practice_result (attempt_id, points, points_of, skills, traps)
        VALUES (%(attempt_id)s, %(points)s, %(of)s, %(skills)s, %(traps)s)
        ON CONFLICT (attempt_id) DO NOTHING
        """,
        {"attempt_id": attempt_id, "points": judged.points, "of": judged.of, "skills": Jsonb(skills),
         "traps": [one.trap for one in judged.traps]},
    )  # fmt: skip


def results_of(conn: Conn, person_id: UUID) -> tuple[Result, ...]:
    """Return the results of a person, oldest first."""
    query = """
        SELECT a.exercise, a.seed, r.points, r.points_of, r.skills, r.traps
          FROM practice_result r JOIN practice_attempt a USING (attempt_id)
         WHERE a.person_id = %(person_id)s
         ORDER BY r.result_no
    """
    rows = conn.execute(query, {"person_id": person_id})
    return tuple(Result(exercise, seed, points, of, skills, tuple(traps))
                 for exercise, seed, points, of, skills, traps in rows)  # fmt: skip


def add_own(conn: Conn, own_id: UUID, exercise: Mapping[str, Any], made_by: UUID) -> None:
    """Keep an exercise of the shop's own; sending it again keeps one."""
    conn.execute(
        """
        INSERT INTO practice_own (own_id, exercise, made_by) VALUES (%(own_id)s, %(exercise)s, %(made_by)s)
        ON CONFLICT (own_id) DO NOTHING
        """,
        {"own_id": own_id, "exercise": Jsonb(dict(exercise)), "made_by": made_by},
    )


def list_own(conn: Conn) -> tuple[OwnRow, ...]:
    """Return the shop's own exercises, oldest first."""
    query = """
        SELECT o.own_id, o.exercise, p.name AS made_by, o.made_at
          FROM practice_own o JOIN person p ON p.person_id = o.made_by
         ORDER BY o.made_at, o.own_id
    """
    return fetch_all(conn, OwnRow, query)
