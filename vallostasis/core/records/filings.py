"""Jobs put away and brought back to the floor, as somebody said it. House rule: nothing of a filed job is lost."""

from dataclasses import dataclass
from datetime import datetime


@dataclass(frozen=True, slots=True)
class Filing:
    """A job put away, off the floor, or brought back to it; in words why where it was not released."""

    away: bool
    words: str
    filed_at: datetime
    filed_by: str
    event: int
