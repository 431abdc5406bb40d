"""What does not add up: residuals of all holes, causes by weight, the check that would tell most a minute."""

from typing import Annotated, Self
from uuid import UUID

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.budget_models import StatedView
from vallostasis.api.deps import Conn
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.core.causes.of_job import AddsUp, HoleResidual
from vallostasis.core.causes.table import CAUSES
from vallostasis.core.causes.weigh import Explained, Finding, NextCheck
from vallostasis.services import causes

router = APIRouter(prefix="/api/jobs/{job_id}/causes", tags=["matching"], responses=ERROR_RESPONSES)

HoleNumbers = Annotated[list[Annotated[int, Field(ge=1, le=64)]], Field(min_length=1, max_length=64)]


class FoundBody(BaseModel):
    """What a check read, or would read, at some holes. [m]"""

    check: Annotated[str, Field(max_length=120)]
    where: HoleNumbers
    value_m: Annotated[float, Field(ge=-0.01, le=0.01, allow_inf_nan=False)]

    @property
    def finding(self) -> Finding:
        """What it is to the core."""
        return Finding(self.check, tuple(self.where), self.value_m)


class HoleResidualView(BaseModel):
    """One hole: as read less as its parts say. [m]"""

    hole: int
    liner: str
    make: str
    residual: StatedView
    adds_up: bool

    @classmethod
    def of(cls, one: HoleResidual) -> Self:
        """Show it."""
        return cls(hole=one.hole, liner=one.liner, make=one.make, residual=StatedView.of(one.residual),
                   adds_up=one.adds_up)  # fmt: skip


class ExplainedView(BaseModel):
    """One explanation: its causes, where and by how much they act, how they show, how likely it is. [m], [1]"""

    causes: list[str]
    where: list[list[int]]
    effects_m: list[float]
    shows: str
    weight: float

    @classmethod
    def of(cls, one: Explained) -> Self:
        """Show it."""
        shows = {each.name: each.shows for each in CAUSES}
        return cls(causes=list(one.causes), where=[list(place) for place in one.where], effects_m=list(one.effects_m),
                   shows="; ".join(shows.get(name, "") for name in one.causes), weight=one.weight)  # fmt: skip


class NextCheckView(BaseModel):
    """The check that tells most a minute; what it reads if its cause is there; weights after either. [m], [min], [1]"""

    name: str
    tools: str
    minutes: float
    where: list[int]
    bits: float
    expected_m: float
    if_found: list[float]
    if_not: list[float]

    @classmethod
    def of(cls, one: NextCheck) -> Self:
        """Show it."""
        return cls(name=one.check.name, tools=one.check.tools, minutes=one.check.minutes, where=list(one.where),
                   bits=one.bits, expected_m=one.expected_m, if_found=list(one.if_found),
                   if_not=list(one.if_not))  # fmt: skip


class CausesView(BaseModel):
    """What does not add up; ``why_not`` alone where no pattern can be seen, no causes where everything adds up."""

    why_not: str
    holes: list[HoleResidualView]
    far_off: float = Field(description="In joint standard uncertainties; below three nothing is claimed.")
    explained: list[ExplainedView]
    proposed: NextCheckView | None
    missing: list[str]

    @classmethod
    def of(cls, found: AddsUp | str) -> Self:
        """Show it."""
        if isinstance(found, str):
            return cls(why_not=found, holes=[], far_off=0.0, explained=[], proposed=None, missing=[])
        return cls(
            why_not="", holes=[HoleResidualView.of(one) for one in found.holes], far_off=found.far_off,
            explained=[ExplainedView.of(one) for one in found.explained], missing=list(found.missing),
            proposed=None if found.proposed is None else NextCheckView.of(found.proposed),
        )  # fmt: skip


class TryFindings(BaseModel):
    """What checks would have read; nothing is recorded of it."""

    findings: Annotated[list[FoundBody], Field(max_length=20)] = []


@router.post("/try")
def try_causes(job_id: UUID, body: TryFindings, conn: Conn) -> CausesView:
    """Weigh what may be behind the residuals, with what checks have read or would read; nothing is recorded."""
    return CausesView.of(causes.adds_up_now(conn, job_id, tuple(one.finding for one in body.findings)))
