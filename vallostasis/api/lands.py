"""The lands of a make of liner over all jobs: a running change, batch alerts, old parts against new."""

from typing import Annotated, Self
from uuid import UUID

from fastapi import APIRouter, Query
from pydantic import BaseModel, Field

from vallostasis.api.budget_models import StatedView
from vallostasis.api.deps import Conn, ReadConn
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.core.lands.batches import BatchAlert
from vallostasis.core.lands.land_map import LandCompared, LandOfMake, LinerRead
from vallostasis.services import lands

router = APIRouter(prefix="/api", tags=["lands"], responses=ERROR_RESPONSES)


class MakeView(BaseModel):
    """A make, and how many of its liners were read."""

    make: str
    liners: int


class LandLinerView(BaseModel):
    """A liner of any job that was read."""

    liner_id: UUID
    job_id: UUID
    job: str
    mark: str
    make: str
    batch: str

    @classmethod
    def of(cls, one: LinerRead) -> Self:
        """Show it."""
        return cls(liner_id=one.liner_id, job_id=one.job_id, job=one.job, mark=one.mark, make=one.make, batch=one.batch)


class LandReadView(BaseModel):
    """One liner at a land; ``kind`` is 1 or 2 where the land comes in two heights, else 0. [m]"""

    liner_id: UUID
    value: StatedView
    kind: int


class LandOfMakeView(BaseModel):
    """One land: over the land that most liners were read on, or its size where it is that. [m]"""

    land: str
    reads: list[LandReadView]
    mean_m: float
    deviation_m: float | None = Field(description="Standard deviation between liners; null for one.")
    apart_m: float | None = Field(description="How far its two heights are apart; null where there is one.")

    @classmethod
    def of(cls, one: LandOfMake) -> Self:
        """Show it."""
        upper = set() if one.kinds is None else set(one.kinds.upper)
        reads = [
            LandReadView(liner_id=liner.liner_id, value=StatedView.of(value),
                         kind=0 if one.kinds is None else 2 if at in upper else 1)
            for at, (liner, value) in enumerate(one.reads)
        ]  # fmt: skip
        return cls(land=one.land, reads=reads, mean_m=one.mean_m, deviation_m=one.deviation_m,
                   apart_m=None if one.kinds is None else one.kinds.apart_m)  # fmt: skip


class BatchAlertView(BaseModel):
    """A batch that is off alike on several jobs. [m]"""

    make: str
    batch: str
    words: str
    middle_m: float

    @classmethod
    def of(cls, one: BatchAlert) -> Self:
        """Show it."""
        return cls(make=one.make, batch=one.batch, words=one.words, middle_m=one.middle_m)


class LandsView(BaseModel):
    """Makes whose lands were read, the map of one, what is to be noticed, batches that are off alike."""

    makes: list[MakeView]
    make: str
    reference: str
    lands: list[LandOfMakeView]
    liners: list[LandLinerView] = Field(description="Of the make that is shown.")
    every_liner: list[LandLinerView] = Field(description="Of every make: what can be held against each other.")
    notices: list[str]
    unread: list[str] = Field(description="Lands that a card names and nobody read on a liner of this make.")
    alerts: list[BatchAlertView]


class LandComparedView(BaseModel):
    """A land of an old and a new part; ``alike`` is null where it is not known. [m]"""

    land: str
    old: StatedView | None
    new: StatedView | None
    difference: StatedView | None
    alike: bool | None

    @classmethod
    def of(cls, one: LandCompared) -> Self:
        """Show it."""
        old, new, off = (None if each is None else StatedView.of(each) for each in (one.old, one.new, one.difference))
        return cls(land=one.land, old=old, new=new, difference=off, alike=one.alike)


class PartsComparedView(BaseModel):
    """An old part against a new one, land by land, and what may be claimed of them."""

    lands: list[LandComparedView]
    verdict: str


@router.get("/lands")
def read_lands(conn: ReadConn, make: Annotated[str, Query(max_length=120)] = "") -> LandsView:
    """Return the lands of a make as read on many liners of all jobs; the most read make where none is named."""
    now = lands.lands_now(conn, make)
    shown = now.shown
    return LandsView(
        makes=[MakeView(make=name, liners=count) for name, count in sorted(now.makes.items())],
        make="" if shown is None else shown.make, reference="" if shown is None else shown.reference,
        lands=[] if shown is None else [LandOfMakeView.of(one) for one in shown.lands],
        liners=[] if shown is None else [LandLinerView.of(one) for one in shown.liners],
        every_liner=[LandLinerView.of(one) for one in now.liners],
        notices=[] if shown is None else list(shown.notices), unread=list(now.unread),
        alerts=[BatchAlertView.of(one) for one in now.alerts],
    )  # fmt: skip


@router.get("/lands/compared")
def compare_parts(old: UUID, new: UUID, conn: ReadConn) -> PartsComparedView:
    """Hold an old part against a new one on every land: what is not read on both stays unknown."""
    rows, words = lands.compare(conn, old, new)
    return PartsComparedView(lands=[LandComparedView.of(one) for one in rows], verdict=words)


@router.get("/jobs/{job_id}/batch-alerts")
def read_batch_alerts(job_id: UUID, conn: Conn) -> list[BatchAlertView]:
    """Return the alerts of batches of which this job holds a liner."""
    return [BatchAlertView.of(one) for one in lands.alerts_of_job(conn, job_id)]
