"""Proofs that were printed, on record. House rule: what was handed out can be told from what was not."""

from dataclasses import dataclass
from datetime import datetime


@dataclass(frozen=True, slots=True)
class Printing:
    """A proof that went out: SHA-256 of the PDF, and entries and head of the job's chain that stand on it."""

    sha256: str
    entries: int
    head: str
    printed_at: datetime
    printed_by: str
    event: int
