"""Jobs brought in from files, on record. House rule: what came from elsewhere says so for good."""

from dataclasses import dataclass
from datetime import datetime


@dataclass(frozen=True, slots=True)
class BroughtIn:
    """A whole job that came from a file: its name, the SHA-256 of its bytes, what of it differs, in words."""

    file_name: str
    sha256: str
    as_copy: bool
    words: str
    brought_at: datetime
    brought_by: str
    event: int
