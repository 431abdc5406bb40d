"""Notes on readings and on what was found, with photos."""

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, File, Form, Response, UploadFile
from pydantic import BaseModel, Field, TypeAdapter, ValidationError

from vallostasis.api.deps import Conn, LongText, ShortText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.core.records.notes import PhotoMark, ReadingNote
from vallostasis.services import notes
from vallostasis.services.refused import Refused

router = APIRouter(prefix="/api", tags=["notes"], responses=ERROR_RESPONSES)

MOST_MARKS = 40


class MarkBody(BaseModel):
    """A place on a photo, as shares of its width from the left and of its height from the top."""

    x: float = Field(ge=0, le=1)
    y: float = Field(ge=0, le=1)
    words: ShortText = ""


_MARKS = TypeAdapter(list[MarkBody])


def _marks(text: str) -> tuple[PhotoMark, ...]:
    try:
        read = _MARKS.validate_json(text)
    except ValidationError:
        raise Refused("Marks are a list of places with x and y from 0 to 1.", "marks") from None
    if len(read) > MOST_MARKS:
        raise Refused(f"A photo takes {MOST_MARKS} marks at most.", "marks")
    return tuple(PhotoMark(mark.x, mark.y, mark.words) for mark in read)


NoteId = Annotated[UUID, Form(description="Made by the client: sending it again doubles nothing.")]
Marks = Annotated[str, Form(max_length=20_000, description="JSON: [{x, y, words}], shares of the photo.")]
KeepPlace = Annotated[bool, Form(description="Leave in the photo where it was taken.")]
PhotoFile = Annotated[UploadFile | None, File(description="A photo: JPEG, PNG or WebP; 10 MB at most.")]


@router.post("/readings/{reading_id}/notes", status_code=201)
def add_note(
    reading_id: UUID,
    conn: Conn,
    note_id: NoteId,
    person_id: Annotated[UUID, Form()],
    words: Annotated[LongText, Form()] = "",
    marks: Marks = "[]",
    file: PhotoFile = None,
    keep_place: KeepPlace = False,
) -> ReadingNote:
    """Append a note to a reading."""
    photo = b"" if file is None else file.file.read()
    return notes.add_note(
        conn, reading_id, notes.NoteToAdd(note_id, words, photo, _marks(marks), keep_place), person_id
    )


@router.post("/findings/{finding_id}/notes", status_code=201)
def add_note_to_finding(
    finding_id: UUID,
    conn: Conn,
    note_id: NoteId,
    person_id: Annotated[UUID, Form()],
    words: Annotated[LongText, Form()] = "",
    marks: Marks = "[]",
    file: PhotoFile = None,
    keep_place: KeepPlace = False,
) -> ReadingNote:
    """Append a note to something found as the engine was stripped."""
    photo = b"" if file is None else file.file.read()
    return notes.add_note_to_finding(
        conn, finding_id, notes.NoteToAdd(note_id, words, photo, _marks(marks), keep_place), person_id
    )


@router.get(
    "/notes/{note_id}/photo", response_class=Response, responses={200: {"content": {"image/jpeg": {}, "image/png": {}}}}
)
def read_photo(note_id: UUID, conn: Conn) -> Response:
    """Photo of a note, as it was taken; it never changes."""
    content, media_type = notes.photo_of_note(conn, note_id)
    return Response(content, media_type=media_type, headers={"cache-control": "private, max-age=31536000, immutable"})
