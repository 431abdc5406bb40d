"""Notes on readings and on what was found, with a photo where there is one."""

from dataclasses import dataclass
from uuid import UUID

from vallostasis.core.records.notes import PhotoMark, ReadingNote
from vallostasis.documents.photo import NotAPhoto, Photo, take_photo
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.store import jobs, notes
from vallostasis.store.rows import Conn, NotFound


@dataclass(frozen=True, slots=True)
class NoteToAdd:
    """What was written and photographed at a reading; an empty photo is none."""

    note_id: UUID
    words: str
    photo: bytes
    marks: tuple[PhotoMark, ...]
    keep_place: bool = False


def add_note(conn: Conn, reading_id: UUID, note: NoteToAdd, by: UUID) -> ReadingNote:
    """Append a note to a reading; sending it again adds nothing."""
    jobs.lock_job(conn, notes.job_of_reading(conn, reading_id))
    return _add(conn, reading_id, None, note, by)


def add_note_to_finding(conn: Conn, finding_id: UUID, note: NoteToAdd, by: UUID) -> ReadingNote:
    """Append a note to something found; sending it again adds nothing."""
    jobs.lock_job(conn, notes.job_of_finding(conn, finding_id))
    return _add(conn, None, finding_id, note, by)


def _add(conn: Conn, reading_id: UUID | None, finding_id: UUID | None, note: NoteToAdd, by: UUID) -> ReadingNote:
    known = notes.find_note(conn, note.note_id)
    if known is not None:
        if (known.reading_id, known.finding_id, known.words) == (reading_id, finding_id, note.words):
            return known
        raise Refused("That note id was used for another note: send a new one.", "note_id", RefusalCode.TAKEN)
    photo = _taken(note)
    if photo is None and not note.words:
        raise Refused("Write something, or take a photo.", "words")
    if photo is None and note.marks:
        raise Refused("Marks stand on a photo: take one first.", "marks")
    new = notes.NewNote(
        note.note_id,
        reading_id,
        finding_id,
        note.words,
        None if photo is None else photo.content,
        "" if photo is None else photo.media_type,
        "" if photo is None else photo.sha256,
        note.marks,
    )
    notes.add_note(conn, new, by)
    added = notes.find_note(conn, note.note_id)
    if added is None:
        raise NotFound("note", note.note_id)
    return added


def _taken(note: NoteToAdd) -> Photo | None:
    if not note.photo:
        return None
    try:
        return take_photo(note.photo, note.keep_place)
    except NotAPhoto as error:
        raise Refused(str(error), "file") from None


def photo_of_note(conn: Conn, note_id: UUID) -> tuple[bytes, str]:
    """Return a photo and its media type."""
    return notes.get_photo(conn, note_id)
