"""Notes on readings and on what was found, with a photo and what is marked on it."""

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID


@dataclass(frozen=True, slots=True)
class PhotoMark:
    """A place marked on a photo: shares of its width from the left and of its height from the top."""

    x: float
    y: float
    words: str


@dataclass(frozen=True, slots=True)
class ReadingNote:
    """A note on a reading, or on something found; a photo is named by its digest, and may have stayed behind."""

    note_id: UUID
    reading_id: UUID | None
    words: str
    photo_type: str
    photo_sha256: str
    photo_bytes: int
    photo_here: bool
    marks: tuple[PhotoMark, ...]
    made_at: datetime
    made_by: str
    event: int
    finding_id: UUID | None = None
