"""A scan of a bore: so many points of its wall, read by a roundness instrument, and what its levels hold."""

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID


@dataclass(frozen=True, slots=True)
class Scan:
    """One scan as it was brought in.

    ``layout`` says how its file was read, ``profile`` is what its levels hold as JSON (bores/scan_levels): reference
    circles, lobes and an even profile of each, worked out from every point once as it came in.
    """

    scan_id: UUID
    hole_id: UUID
    load: str
    instrument: str
    file_name: str
    layout: str
    points: int
    profile: str
    scanned_at: datetime
    scanned_by: str
    event: int
