"""The calendar of the shop, changes tried on it, promises and pins, as iCalendar; the shop's own time."""

from datetime import UTC, date, datetime
from decimal import Decimal
from typing import Annotated, Literal, Self
from uuid import UUID

from fastapi import APIRouter
from fastapi.responses import Response
from pydantic import BaseModel, Field

from vallostasis.api.calendar_models import CalendarTriedView, CalendarView
from vallostasis.api.deps import Conn, LongText, Name, ShortText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.readings import Done
from vallostasis.core.calendar.open_time import OpenHours
from vallostasis.core.records.calendar import AwaySpan, Machine, Visit
from vallostasis.core.records.route_marks import Operation
from vallostasis.services import calendar, calendar_out
from vallostasis.services import shop_time as time_of_shop
from vallostasis.store import shop_time

router = APIRouter(prefix="/api", tags=["calendar"], responses=ERROR_RESPONSES)

Money = Annotated[Decimal, Field(ge=0, le=10**8, max_digits=11, decimal_places=2)]
Minute = Annotated[int, Field(ge=0, le=24 * 60)]
Day = Annotated[list[tuple[Minute, Minute]], Field(max_length=6)]


@router.get("/calendar")
def read_calendar(conn: Conn) -> CalendarView:
    """All open jobs laid out: who does what on which machine when, how sure each date is, what clashes."""
    return CalendarView.of(calendar.calendar_now(conn, datetime.now(UTC)))


class TryChangeBody(BaseModel):
    """A change to try on a job: a wait that comes another day, or an operation pinned; nothing is recorded."""

    job_id: UUID
    wait_id: UUID | None = None
    expected: date | None = None
    operation: Operation | None = None
    starts_at: datetime | None = None
    person: ShortText = ""


@router.post("/calendar/tried")
def try_change(body: TryChangeBody, conn: Conn) -> CalendarTriedView:
    """Lay out the calendar with a change: what it moves, which clashes come, what the owner may be told."""
    return CalendarTriedView.of(calendar.try_change(conn, calendar.Change(**body.model_dump()), datetime.now(UTC)))


@router.get("/calendar.ics", response_class=Response, responses={200: {"content": {"text/calendar": {}}}})
def read_calendar_file(conn: Conn, person: ShortText = "", machine: Machine | None = None) -> Response:
    """The calendar as iCalendar: of a person, of a machine, or of the whole shop."""
    content = calendar_out.calendar_file(conn, person, machine, datetime.now(UTC))
    name = (person or (machine.value if machine else "shop")).replace(" ", "-").encode("ascii", "ignore").decode()
    header = f'attachment; filename="calendar-{name or "person"}.ics"'
    return Response(content, media_type="text/calendar; charset=utf-8", headers={"content-disposition": header})


class PromiseBody(BaseModel):
    """The day a job is promised for, or none with the reason; the owner's own last day, what a day after it costs."""

    promised: date | None
    told: LongText = ""
    last_day: date | None = None
    day_cost: Money | None = None
    person_id: UUID


@router.post("/jobs/{job_id}/promises", status_code=201)
def promise(job_id: UUID, body: PromiseBody, conn: Conn) -> Done:
    """Promise a job for a day."""
    typed = calendar.PromiseTyped(body.promised, body.told, body.last_day, body.day_cost)
    calendar.promise(conn, job_id, typed, body.person_id)
    return Done(job_id=job_id)


class PinBody(BaseModel):
    """An operation pinned to a moment of the shop's own time, to a person, or to both; neither takes the pin away."""

    operation: Operation
    starts_at: datetime | None = None
    person: ShortText = ""
    person_id: UUID


@router.post("/jobs/{job_id}/pins", status_code=201)
def pin(job_id: UUID, body: PinBody, conn: Conn) -> Done:
    """Pin an operation of a job."""
    calendar.pin(conn, job_id, body.operation, body.starts_at, body.person, body.person_id)
    return Done(job_id=job_id)


class WaitMovedBody(BaseModel):
    """The day on which something that is waited for is expected now; none where nobody knows."""

    expected: date | None
    words: ShortText = ""
    person_id: UUID


@router.post("/jobs/{job_id}/route/waits/{wait_id}/moved", status_code=201)
def move_wait(job_id: UUID, wait_id: UUID, body: WaitMovedBody, conn: Conn) -> Done:
    """Write down that what is waited for comes on another day."""
    calendar.move_wait(conn, job_id, wait_id, body.expected, body.words, body.person_id)
    return Done(job_id=job_id)


class OpenHoursView(BaseModel):
    """Hours of the shop: its time zone, spans of each weekday from Monday on in minutes of the day."""

    zone: str
    week: list[Day]

    @classmethod
    def of(cls, one: OpenHours) -> Self:
        """Show them."""
        return cls(zone=one.zone, week=[list(day) for day in one.week])


class AwayView(BaseModel):
    """An absence; an empty name is the whole shop."""

    away_id: UUID
    what: str
    starts_at: datetime
    ends_at: datetime
    words: str

    @classmethod
    def of(cls, one: AwaySpan) -> Self:
        """Show it."""
        return cls(away_id=one.away_id, what=one.what, starts_at=one.starts_at, ends_at=one.ends_at, words=one.words)


class VisitView(BaseModel):
    """A machinist who comes from elsewhere."""

    visit_id: UUID
    name: str
    job_id: UUID | None
    operations: list[Operation]
    starts_at: datetime
    ends_at: datetime
    needs: list[str]

    @classmethod
    def of(cls, one: Visit) -> Self:
        """Show it."""
        return cls(visit_id=one.visit_id, name=one.name, job_id=one.job_id, operations=list(one.operations),
                   starts_at=one.starts_at, ends_at=one.ends_at, needs=list(one.needs))  # fmt: skip


class ShopTimeView(BaseModel):
    """The shop's own time: hours, absences, machines, visits."""

    hours: OpenHoursView
    away: list[AwayView]
    machines: dict[Machine, int]
    visits: list[VisitView]


@router.get("/shop-time")
def read_shop_time(conn: Conn) -> ShopTimeView:
    """Hours of the shop, who and what is away, how many machines there are, who visits."""
    return ShopTimeView(
        hours=OpenHoursView.of(shop_time.open_hours(conn)),
        away=[AwayView.of(one) for one in shop_time.list_away(conn)],
        machines=shop_time.list_machines(conn),
        visits=[VisitView.of(one) for one in shop_time.list_visits(conn, datetime.now(UTC))],
    )


class OpenHoursBody(BaseModel):
    """Hours of the shop."""

    zone: Name
    week: Annotated[list[Day], Field(min_length=7, max_length=7)]
    person_id: UUID


@router.post("/shop-time/hours", status_code=201)
def set_open_hours(body: OpenHoursBody, conn: Conn) -> ShopTimeView:
    """Set the hours of the shop."""
    week = tuple(tuple(span for span in day) for day in body.week)
    time_of_shop.set_open_hours(conn, body.zone, week, body.person_id)
    return read_shop_time(conn)


class AwayBody(BaseModel):
    """An absence, in the shop's own time; the client makes the id."""

    away_id: UUID
    what: ShortText
    starts: datetime
    ends: datetime
    words: ShortText = ""
    person_id: UUID


@router.post("/shop-time/away", status_code=201)
def add_absence(body: AwayBody, conn: Conn) -> ShopTimeView:
    """Write down that a person, a machine or the whole shop cannot be had."""
    absence = time_of_shop.Absence(body.away_id, body.what, body.starts, body.ends, body.words)
    time_of_shop.add_absence(conn, absence, body.person_id)
    return read_shop_time(conn)


class MachineBody(BaseModel):
    """How many there are of a kind of machine."""

    machine: Machine
    count: Annotated[int, Field(ge=1, le=20)]
    person_id: UUID


@router.post("/shop-time/machines", status_code=201)
def set_machine(body: MachineBody, conn: Conn) -> ShopTimeView:
    """Say how many there are of a kind of machine."""
    shop_time.set_machine(conn, body.machine, body.count, body.person_id)
    return read_shop_time(conn)


class VisitBody(BaseModel):
    """A machinist who comes from elsewhere, in the shop's own time; the client makes the id."""

    visit_id: UUID
    name: Name
    job_id: UUID
    operations: Annotated[list[Operation], Field(max_length=27)]
    starts_at: datetime
    ends_at: datetime
    needs: Annotated[list[ShortText], Field(max_length=20)] = []
    person_id: UUID


@router.post("/shop-time/visits", status_code=201)
def add_visit(body: VisitBody, conn: Conn) -> ShopTimeView:
    """Write down that a machinist comes from elsewhere."""
    visit = Visit(body.visit_id, body.name, body.job_id, tuple(body.operations), body.starts_at, body.ends_at,
                  tuple(body.needs))  # fmt: skip
    time_of_shop.add_visit(conn, visit, body.person_id)
    return read_shop_time(conn)


class TakeBackBody(BaseModel):
    """Who takes an absence or a visit back."""

    person_id: UUID


@router.post("/shop-time/{what}/{row_id}/back", status_code=201)
def take_back(what: Literal["away", "visits"], row_id: UUID, body: TakeBackBody, conn: Conn) -> ShopTimeView:
    """Take back an absence or a visit that does not come about."""
    away_id, visit_id = (row_id, None) if what == "away" else (None, row_id)
    time_of_shop.take_back(conn, away_id, visit_id, body.person_id, datetime.now(UTC))
    return read_shop_time(conn)
