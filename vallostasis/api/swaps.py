"""The swap table: what every fitting ever read says of holes and of liners, and what to exchange next."""

from typing import Self
from uuid import UUID

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.budget_models import StatedView
from vallostasis.api.deps import Conn
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.core.matching.swap_table import Effect, Exchange, LeftOver
from vallostasis.core.matching.swaps_of_job import FittingOnRecord
from vallostasis.services import swaps

router = APIRouter(prefix="/api/jobs/{job_id}/swaps", tags=["matching"], responses=ERROR_RESPONSES)


class SwapEffectView(BaseModel):
    """What a hole or a liner adds to every reading that it has a part in; comparable within its group. [m]"""

    name: str
    group: int
    value: StatedView

    @classmethod
    def of(cls, one: Effect) -> Self:
        """Show it."""
        return cls(name=one.name, group=one.group, value=StatedView.of(one.value))


class FittingReadView(BaseModel):
    """A fitting that was read: its reading, its shims, what hole and liner leave over of it. [m]"""

    hole: str
    liner: str
    read: StatedView
    shims_m: float
    is_in: bool
    left_over: StatedView
    fits: bool

    @classmethod
    def of(cls, one: FittingOnRecord, left: LeftOver) -> Self:
        """Show it."""
        return cls(hole=one.hole, liner=one.liner, read=StatedView.of(one.read), shims_m=one.shims_m, is_in=one.is_in,
                   left_over=StatedView.of(left.value), fits=left.fits)  # fmt: skip


class PutView(BaseModel):
    """A liner that goes into a hole."""

    hole: str
    liner: str


class ExchangeView(BaseModel):
    """What to exchange next, and the ± of a difference of two liners before and after. [m]"""

    puts: list[PutView]
    before_m: float
    after_m: float

    @classmethod
    def of(cls, one: Exchange) -> Self:
        """Show it."""
        return cls(puts=[PutView(hole=hole, liner=liner) for hole, liner in one.puts], before_m=one.before_m,
                   after_m=one.after_m)  # fmt: skip


class SwapsView(BaseModel):
    """The swap table of a job; ``why_not`` alone where there is none. [m]

    ``groups`` have no hole and no liner in common; ``freedom`` counts what was read more than the effects take.
    """

    why_not: str
    fittings: list[FittingReadView]
    holes: list[SwapEffectView]
    liners: list[SwapEffectView]
    groups: int
    freedom: int
    left_out: list[str]
    proposed: ExchangeView | None = Field(description="Null where there is nothing to exchange.")


@router.get("")
def read_swaps(job_id: UUID, conn: Conn) -> SwapsView:
    """Tell holes from liners by every fitting that was read."""
    found = swaps.swaps_now(conn, job_id)
    if isinstance(found, str):
        return SwapsView(why_not=found, fittings=[], holes=[], liners=[], groups=0, freedom=0, left_out=[],
                         proposed=None)  # fmt: skip
    table = found.table
    return SwapsView(
        why_not="",
        fittings=[FittingReadView.of(one, left) for one, left in zip(found.fittings, table.left_over, strict=True)],
        holes=[SwapEffectView.of(one) for one in table.holes], liners=[SwapEffectView.of(one) for one in table.liners],
        groups=table.groups, freedom=table.freedom, left_out=list(found.left_out),
        proposed=None if found.proposed is None else ExchangeView.of(found.proposed),
    )  # fmt: skip
