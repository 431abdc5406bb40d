"""Notes on readings, with a photo and what is marked on it."""

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
    """A note on a reading; a photo is named by the digest of its bytes, and may have stayed behind elsewhere."""

    note_id: UUID
    reading_id: UUID
    words: str
    photo_type: str
    photo_sha256: str
    photo_bytes: int
    photo_here: bool
    marks: tuple[PhotoMark, ...]
    made_at: datetime
    made_by: str
    event: int
