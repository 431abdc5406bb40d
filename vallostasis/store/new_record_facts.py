"""What can be recorded of a job as a record: that it came from a file, that its proof went out."""

from dataclasses import dataclass
from typing import ClassVar
from uuid import UUID


@dataclass(frozen=True, slots=True)
class NewBroughtIn:
    """A job that came from a file."""

    rows: ClassVar = "brought_in"
    job_id: UUID
    file_name: str
    sha256: str
    as_copy: bool
    words: str


@dataclass(frozen=True, slots=True)
class NewPrinting:
    """A proof that was printed: what the PDF is, and what of the job's chain stands on it."""

    rows: ClassVar = "printings"
    job_id: UUID
    sha256: str
    entries: int
    head: str
