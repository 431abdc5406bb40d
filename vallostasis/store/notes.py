"""Notes on readings, and the photos with them."""

import json
from dataclasses import asdict, dataclass
from typing import Any
from uuid import UUID

from psycopg.types.json import Jsonb

from vallostasis.core.records.notes import PhotoMark, ReadingNote
from vallostasis.store.rows import Conn, NotFound, fetch_value

COLUMNS = """
    n.note_id, n.reading_id, n.words, n.photo_type, n.photo_sha256, n.photo_bytes, n.photo IS NOT NULL AS photo_here,
    n.marks, n.made_at, p.name AS made_by, n.event, n.finding_id
"""


@dataclass(frozen=True, slots=True)
class NewNote:
    """A note to append; its id was made by the client, so that sending it again never doubles it."""

    note_id: UUID
    reading_id: UUID | None
    finding_id: UUID | None
    words: str
    photo: bytes | None
    photo_type: str
    photo_sha256: str
    marks: tuple[PhotoMark, ...]


def list_notes(conn: Conn, job_id: UUID) -> tuple[ReadingNote, ...]:
    """Return the notes on readings and findings of a job, struck ones too, oldest first, without the photos."""
    query = f"""
        SELECT {COLUMNS}
          FROM reading_note n
          JOIN person p ON p.person_id = n.made_by
         WHERE n.reading_id IN (SELECT r.reading_id
                                  FROM reading r JOIN reading_set s USING (reading_set_id)
                                 WHERE s.job_id = %(job_id)s)
            OR n.finding_id IN (SELECT finding_id FROM finding WHERE job_id = %(job_id)s)
         ORDER BY n.event
    """
    return tuple(_note(row) for row in conn.execute(query, {"job_id": job_id}))


def find_note(conn: Conn, note_id: UUID) -> ReadingNote | None:
    """Return one note, or None."""
    query = f"""
        SELECT {COLUMNS}
          FROM reading_note n JOIN person p ON p.person_id = n.made_by
         WHERE n.note_id = %(note_id)s
    """
    row = conn.execute(query, {"note_id": note_id}).fetchone()
    return None if row is None else _note(row)


def _note(row: tuple[Any, ...]) -> ReadingNote:
    *before, marks, made_at, made_by, event, finding_id = row
    columns = (*before, tuple(PhotoMark(**mark) for mark in marks), made_at, made_by, event, finding_id)
    return ReadingNote(*columns)


def add_note(conn: Conn, new: NewNote, made_by: UUID) -> None:
    """Append a note to a reading, or to something found."""
    conn.execute(
        """
        INSERT INTO reading_note (note_id, reading_id, finding_id, words, photo, photo_type, photo_sha256, photo_bytes,
                                  marks, made_by)
        VALUES (%(note_id)s, %(reading_id)s, %(finding_id)s, %(words)s, %(photo)s, %(photo_type)s, %(photo_sha256)s,
                %(photo_bytes)s, %(marks)s, %(made_by)s)
        """,
        {
            "note_id": new.note_id,
            "reading_id": new.reading_id,
            "finding_id": new.finding_id,
            "words": new.words,
            "photo": new.photo,
            "photo_type": new.photo_type,
            "photo_sha256": new.photo_sha256,
            "photo_bytes": 0 if new.photo is None else len(new.photo),
            "marks": as_json(new.marks),
            "made_by": made_by,
        },
    )


def as_json(marks: tuple[PhotoMark, ...]) -> Jsonb:
    """Marks as the store keeps them."""
    return Jsonb([asdict(mark) for mark in marks], dumps=json.dumps)


def get_photo(conn: Conn, note_id: UUID) -> tuple[bytes, str]:
    """Return a photo and its media type; raise NotFound when there is none here."""
    row = conn.execute(
        "SELECT photo, photo_type FROM reading_note WHERE note_id = %(note_id)s AND photo IS NOT NULL",
        {"note_id": note_id},
    ).fetchone()
    if row is None:
        raise NotFound("photo", note_id)
    return bytes(row[0]), str(row[1])


def job_of_reading(conn: Conn, reading_id: UUID) -> UUID:
    """Return the job of a reading; raise NotFound if there is no such reading."""
    query = "SELECT s.job_id FROM reading r JOIN reading_set s USING (reading_set_id) WHERE r.reading_id = %(id)s"
    job_id = fetch_value(conn, query, {"id": reading_id})
    if job_id is None:
        raise NotFound("reading", reading_id)
    return UUID(str(job_id))


def job_of_finding(conn: Conn, finding_id: UUID) -> UUID:
    """Return the job that something was found on; raise NotFound if there is no such finding."""
    job_id = fetch_value(conn, "SELECT job_id FROM finding WHERE finding_id = %(id)s", {"id": finding_id})
    if job_id is None:
        raise NotFound("finding", finding_id)
    return UUID(str(job_id))
