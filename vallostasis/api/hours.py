"""The time of a job: planned, worked, waited, how it stands on the bill."""

from datetime import UTC, datetime
from typing import Self
from uuid import UUID

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.deps import Conn
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.core.hours.time_of_job import OperationTime
from vallostasis.core.operations.catalogue import OPERATIONS
from vallostasis.core.records.route_marks import Bill, Operation, WaitCause
from vallostasis.core.route.clocks import Running, Worked
from vallostasis.services import hours

router = APIRouter(prefix="/api/jobs/{job_id}", tags=["hours"], responses=ERROR_RESPONSES)


class OperationTimeView(BaseModel):
    """One operation: planned hours with their quartiles and worst case for all its units, and what it took. [h]"""

    operation: Operation
    title: str
    units: int
    low_h: float
    middle_h: float
    high_h: float
    worst_h: float
    learned_from: int = Field(description="How many logged ones, or passes, it stands on; 0 for common practice.")
    agreed_h: float
    chargeable_h: float
    goodwill_h: float
    is_done: bool

    @classmethod
    def of(cls, one: OperationTime) -> Self:
        """Show it."""
        planned, worked = one.planned, one.worked
        return cls(
            operation=one.kind.operation, title=one.kind.title, units=one.units, low_h=one.units * planned.low_h,
            middle_h=one.middle_h, high_h=one.units * planned.high_h, worst_h=one.worst_h, learned_from=planned.n,
            agreed_h=worked.agreed_h, chargeable_h=worked.chargeable_h, goodwill_h=worked.goodwill_h,
            is_done=one.is_done,
        )  # fmt: skip


class StretchView(BaseModel):
    """A stretch of work."""

    operation: Operation
    title: str
    by: str
    start: datetime
    end: datetime
    hours: float
    bill: Bill

    @classmethod
    def of(cls, one: Worked) -> Self:
        """Show it."""
        return cls(operation=one.operation, title=OPERATIONS[one.operation].title, by=one.by, start=one.start,
                   end=one.end, hours=one.hours, bill=one.bill)  # fmt: skip


class ClockNowView(BaseModel):
    """A clock that runs."""

    by: str
    operation: Operation
    title: str
    since: datetime
    bill: Bill

    @classmethod
    def of(cls, one: Running) -> Self:
        """Show it."""
        return cls(by=one.by, operation=one.mark.operation, title=OPERATIONS[one.mark.operation].title,
                   since=one.since, bill=one.mark.bill)  # fmt: skip


class HoursView(BaseModel):
    """The time of a job. [h], days [d], minutes [min]"""

    operations: list[OperationTimeView]
    worked: list[StretchView]
    running: list[ClockNowView]
    planned_h: float
    worst_h: float
    agreed_h: float
    chargeable_h: float
    goodwill_h: float
    waited_d: dict[WaitCause, float]
    anomalies_min: float


@router.get("/hours")
def read_hours(job_id: UUID, conn: Conn) -> HoursView:
    """Every operation as planned and as it went, every stretch of work, days waited by cause."""
    now = hours.hours_now(conn, job_id, datetime.now(UTC))
    rows = [OperationTimeView.of(one) for one in now.time.operations]
    billed = now.time.billed
    return HoursView(
        operations=rows, worked=[StretchView.of(one) for one in now.time.worked],
        running=[ClockNowView.of(one) for one in now.running], planned_h=sum(one.middle_h for one in rows),
        worst_h=sum(one.worst_h for one in rows), agreed_h=billed.agreed_h, chargeable_h=billed.chargeable_h,
        goodwill_h=billed.goodwill_h, waited_d=now.time.waited_d, anomalies_min=now.time.anomalies_min,
    )  # fmt: skip


@router.get("/hours/running")
def read_running(job_id: UUID, conn: Conn) -> list[ClockNowView]:
    """The clocks that run on a job now."""
    return [ClockNowView.of(one) for one in hours.running_now(conn, job_id, datetime.now(UTC))]
