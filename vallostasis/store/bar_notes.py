"""What was written of tools and set-ups as other engines of the same iron were bored."""

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from vallostasis.store.rows import Conn, fetch_all


@dataclass(frozen=True, slots=True)
class BarNote:
    """One note: of which job and hole, whether of the set-up or of a pass, by whom."""

    job: str
    hole: int
    of: str
    words: str
    said_at: datetime
    said_by: str


def notes_of_material(conn: Conn, job_id: UUID, material: str, most: int) -> tuple[BarNote, ...]:
    """Return what stands of other jobs whose block is of that material, newest first; struck notes are left out."""
    query = """
        WITH said AS (
            SELECT job_id, hole_id, 'set-up' AS of, words, set_at AS said_at, set_by AS person_id, event
              FROM bar_setting
             UNION ALL
            SELECT job_id, hole_id, kind, words, passed_at, passed_by, event
              FROM boring_pass
        )
        SELECT j.name AS job, h.number AS hole, s.of, s.words, s.said_at, p.name AS said_by
          FROM said s
          JOIN job j USING (job_id)
          JOIN hole h USING (hole_id)
          JOIN person p USING (person_id)
         WHERE s.words <> '' AND s.job_id <> %(job_id)s AND NOT is_struck(s.job_id, s.event)
           AND (SELECT v.card ->> 'block_material'
                  FROM job_card c JOIN spec_card_version v USING (spec_card_version_id)
                 WHERE c.job_id = s.job_id ORDER BY c.event DESC LIMIT 1) = %(material)s
         ORDER BY s.event DESC LIMIT %(most)s
    """
    return fetch_all(conn, BarNote, query, {"job_id": job_id, "material": material, "most": most})
