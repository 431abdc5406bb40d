"""What a probe touched: points of the deck and of bores, as they came in."""

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID


@dataclass(frozen=True, slots=True)
class Probe:
    """One probing of a block; ``profile`` is its points as JSON: part (0 the deck, else the hole), x, y, z in µm."""

    probe_id: UUID
    instrument: str
    file_name: str
    points: int
    profile: str
    probed_at: datetime
    probed_by: str
    event: int
