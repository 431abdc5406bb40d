"""What can be recorded of liners that drop hot and cold. [°C], [µm], [s], [kg]"""

from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from typing import ClassVar
from uuid import UUID

from vallostasis.core.records.heat_runs import HeatMarkKind


@dataclass(frozen=True, slots=True)
class NewHeatRun:
    """A run that is begun."""

    rows: ClassVar = "heat_runs"
    job_id: UUID
    heat_run_id: UUID
    hole_id: UUID
    liner_id: UUID
    block_c: Decimal
    liner_c: Decimal
    air_c: Decimal
    humidity: Decimal
    wanted_um: Decimal
    enter_s: Decimal
    home_s: Decimal
    block_kg: Decimal
    greased: bool
    drops: str
    calls: str


@dataclass(frozen=True, slots=True)
class NewHeatMark:
    """Something looked at, done, felt or read on a run; its id was made by the client."""

    rows: ClassVar = "heat_marks"
    job_id: UUID
    heat_mark_id: UUID
    heat_run_id: UUID
    kind: HeatMarkKind
    celsius: Decimal | None
    height_um: Decimal | None
    typed: str
    words: str
    noted_at: datetime
