"""What finished runs taught, for all jobs of the shop."""

from dataclasses import replace

from vallostasis.core.records.cut_runs import Lesson
from vallostasis.store.rows import Conn, fetch_all


def list_lessons(conn: Conn) -> tuple[Lesson, ...]:
    """Return every lesson, oldest first."""
    query = """
        SELECT run_id, job, hole, cutter, material, passes, change_um, off_um, pass_s::float8[]
          FROM lesson ORDER BY event
    """
    found = fetch_all(conn, Lesson, query)
    return tuple(replace(one, pass_s=tuple(one.pass_s)) for one in found)


def add_lesson(conn: Conn, lesson: Lesson) -> None:
    """Keep what a run taught; a run teaches once."""
    conn.execute(
        """
        INSERT INTO lesson (run_id, job, hole, cutter, material, passes, change_um, off_um, pass_s)
        VALUES (%(run_id)s, %(job)s, %(hole)s, %(cutter)s, %(material)s, %(passes)s, %(change_um)s, %(off_um)s,
                %(pass_s)s)
            ON CONFLICT (run_id) DO NOTHING
        """,
        {"run_id": lesson.run_id, "job": lesson.job, "hole": lesson.hole, "cutter": lesson.cutter,
         "material": lesson.material, "passes": lesson.passes, "change_um": lesson.change_um,
         "off_um": lesson.off_um, "pass_s": list(lesson.pass_s)},
    )  # fmt: skip
