"""What can be recorded of fitting liners. [µm], [kN]"""

from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from typing import ClassVar
from uuid import UUID

from vallostasis.core.records.fit_terms import StopRule
from vallostasis.core.records.pulls import PullMarkKind, Slides
from vallostasis.store.rows import Conn, fetch_value


def moment_of(conn: Conn) -> datetime:
    """Return the time at which everything of this transaction is recorded."""
    moment: datetime = fetch_value(conn, "SELECT now()")
    return moment


@dataclass(frozen=True, slots=True)
class NewPull:
    """A pull that is begun."""

    rows: ClassVar = "pulls"
    job_id: UUID
    pull_id: UUID
    hole_id: UUID
    liner_id: UUID
    tool: str
    capacity_kn: Decimal | None
    turn_um: Decimal | None
    from_um: Decimal
    slides: Slides
    stop: StopRule
    cranks: str
    watches: str


@dataclass(frozen=True, slots=True)
class NewPullMark:
    """Something looked at, measured or felt on a pull; its id was made by the client."""

    rows: ClassVar = "pull_marks"
    job_id: UUID
    pull_mark_id: UUID
    pull_id: UUID
    kind: PullMarkKind
    to_go_um: Decimal | None
    force_kn: Decimal | None
    typed: str
    words: str
    noted_at: datetime
