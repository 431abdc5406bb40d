"""Causes of residuals weighed, without a job. [m]"""

from typing import Annotated

import numpy as np
from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.causes import ExplainedView, FoundBody, NextCheckView
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.core.causes.candidates import Spot, height_candidates
from vallostasis.core.causes.next_check import checks_worth
from vallostasis.core.causes.table import HEIGHTS
from vallostasis.core.causes.weigh import CLAIMED, Residuals, far_off, weigh

router = APIRouter(prefix="/api/compute", tags=["compute"], responses=ERROR_RESPONSES)

Metres = Annotated[float, Field(ge=-0.01, le=0.01, allow_inf_nan=False)]


class ResidualBody(BaseModel):
    """One reading: its hole, as read less as its parts say, its own standard uncertainty, its liner's make. [m]

    ``angle_deg`` is where it stands round the hole, null for the middle.
    """

    hole: Annotated[int, Field(ge=1, le=64)]
    residual_m: Metres
    u_m: Annotated[float, Field(ge=1e-8, le=0.001, allow_inf_nan=False)]
    make: Annotated[str, Field(max_length=40)] = ""
    shims_m: Annotated[float, Field(ge=0, le=0.01, allow_inf_nan=False)] = 0.0
    angle_deg: Annotated[float | None, Field(ge=0, le=360, allow_inf_nan=False)] = None


class CausesRequest(BaseModel):
    """Residuals, holes in their order along the block, what they share, what checks have read. [m]"""

    holes: Annotated[list[ResidualBody], Field(min_length=2, max_length=128)]
    shared_u_m: Annotated[float, Field(ge=0, le=0.001, allow_inf_nan=False)] = 0.0
    hole_u_m: Annotated[float, Field(ge=0, le=0.001, allow_inf_nan=False)] = 0.0
    spacers_m: Annotated[list[Metres], Field(max_length=4)] = []
    findings: Annotated[list[FoundBody], Field(max_length=20)] = []


class CausesAnswer(BaseModel):
    """Whether all adds up, and otherwise causes by weight and the check that tells most a minute. [1]"""

    adds_up: bool
    far_off: float
    explained: list[ExplainedView]
    next: NextCheckView | None


@router.post("/causes")
def weigh_causes(body: CausesRequest) -> CausesAnswer:
    """Weigh causes by how well they explain all residuals; what the readings of a hole share is ``hole_u_m``."""
    order = list(dict.fromkeys(one.hole for one in body.holes))
    places = {hole: -1 + 2 * at / max(len(order) - 1, 1) for at, hole in enumerate(order)}
    spots = [Spot(one.hole, places[one.hole], one.angle_deg, one.make, one.shims_m) for one in body.holes]
    same = np.array([[float(a.hole == b.hole) for b in spots] for a in spots])
    covariance = np.diag([one.u_m**2 for one in body.holes]) + same * body.hole_u_m**2 + body.shared_u_m**2
    candidates = height_candidates(spots, HEIGHTS.causes, body.spacers_m)
    residuals = Residuals(np.array([one.residual_m for one in body.holes]), covariance, candidates)
    off, findings = far_off(residuals), [one.finding for one in body.findings]
    if off < CLAIMED and not findings:
        return CausesAnswer(adds_up=True, far_off=off, explained=[], next=None)
    found = weigh(residuals, findings, HEIGHTS.checks)
    checks, shows = checks_worth(found, HEIGHTS.checks, findings), {one.name: one.shows for one in HEIGHTS.causes}
    return CausesAnswer(
        adds_up=False, far_off=off, explained=[ExplainedView.of(one, shows) for one in found],
        next=NextCheckView.of(checks[0]) if checks else None,
    )  # fmt: skip
