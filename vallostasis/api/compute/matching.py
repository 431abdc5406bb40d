"""Liners matched to holes, without a job. Lengths in whole nanometres."""

from typing import Annotated

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.core.matching.problem import Goal, Matching
from vallostasis.core.matching.solver import match

router = APIRouter(prefix="/api/compute", tags=["compute"], responses=ERROR_RESPONSES)

Nanometres = Annotated[int, Field(ge=-1_000_000_000, le=1_000_000_000)]
Protrusion = Annotated[int, Field(ge=-10_000_000, le=10_000_000)]
Place = Annotated[int, Field(ge=0, le=63)]


class MatchingRequest(BaseModel):
    """Ledges, flanges, limits and rows of holes; what may be cut, what is locked. [nm]"""

    depths_nm: Annotated[list[Nanometres], Field(min_length=1, max_length=24)]
    flanges_nm: Annotated[list[Nanometres], Field(min_length=1, max_length=40)]
    lower_nm: Protrusion
    upper_nm: Protrusion
    banks: Annotated[list[Annotated[list[Place], Field(max_length=24)]], Field(max_length=24)] = []
    target_nm: Protrusion | None = Field(None, description="Where a cut and shimmed hole stands; null: none is cut.")
    cut_allowed: Annotated[list[bool], Field(max_length=24)] = []
    present: Annotated[list[Place | None], Field(max_length=24)] = Field([], description="The liner in each hole now.")
    locked: Annotated[list[bool], Field(max_length=24)] = Field([], description="Whether that liner stays there.")


class MatchingAnswer(BaseModel):
    """The liner of each hole, which are cut, how each stands, and every goal. [nm]"""

    liners: list[int]
    cut: list[bool]
    protrusions_nm: list[int]
    objective: list[int] = Field(description="Each goal in its order, as small as it became.")
    objective_is: str
    proven: bool
    gap: list[int] = Field(description="How far each goal is above the bound that is known; nought where proven.")


SHORT = {Goal.OUTSIDE: "outside", Goal.CUTS: "cuts", Goal.ADJACENT: "adjacent_nm", Goal.SPREAD: "spread_nm"}


@router.post("/matching")
def match_liners(body: MatchingRequest) -> MatchingAnswer:
    """Match liners to holes: fewest outside, fewest cut, least between neighbours, least spread, fewest moved."""
    problem = Matching(
        tuple(body.depths_nm), tuple(body.flanges_nm), body.lower_nm, body.upper_nm, tuple(map(tuple, body.banks)),
        body.target_nm, tuple(body.cut_allowed), tuple(body.present), tuple(body.locked),
    )  # fmt: skip
    goals = [goal for goal in SHORT if goal is not Goal.CUTS or body.target_nm is not None]
    found = match(problem, [*goals, *([Goal.MOVES] if any(one is not None for one in body.present) else [])])
    told = [one for one in found.reached if one.what in SHORT]
    return MatchingAnswer(
        liners=list(found.liners), cut=list(found.cut), protrusions_nm=list(found.stands_nm),
        objective=[one.value for one in told], objective_is=f"[{', '.join(SHORT[one.what] for one in told)}]",
        proven=found.proven, gap=[one.value - one.bound for one in told],
    )  # fmt: skip
