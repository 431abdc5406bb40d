"""Causes of residuals weighed, without a job. [m]"""

from typing import Annotated

import numpy as np
from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.causes import ExplainedView, FoundBody, NextCheckView
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.core.causes.weigh import CLAIMED, Residuals, far_off, next_check, weigh

router = APIRouter(prefix="/api/compute", tags=["compute"], responses=ERROR_RESPONSES)

Metres = Annotated[float, Field(ge=-0.01, le=0.01, allow_inf_nan=False)]


class ResidualBody(BaseModel):
    """One hole along the block: as read less as its parts say, its own standard uncertainty, its liner's make. [m]"""

    hole: Annotated[int, Field(ge=1, le=64)]
    residual_m: Metres
    u_m: Annotated[float, Field(ge=1e-8, le=0.001, allow_inf_nan=False)]
    make: Annotated[str, Field(max_length=40)] = ""
    shims_m: Annotated[float, Field(ge=0, le=0.01, allow_inf_nan=False)] = 0.0


class CausesRequest(BaseModel):
    """Residuals of the holes in their order along the block, what they share, what checks have read. [m]"""

    holes: Annotated[list[ResidualBody], Field(min_length=2, max_length=24)]
    shared_u_m: Annotated[float, Field(ge=0, le=0.001, allow_inf_nan=False)] = 0.0
    findings: Annotated[list[FoundBody], Field(max_length=20)] = []


class CausesAnswer(BaseModel):
    """Whether all adds up, and otherwise causes by weight and the check that tells most a minute. [1]"""

    adds_up: bool
    far_off: float
    explained: list[ExplainedView]
    next: NextCheckView | None


@router.post("/causes")
def weigh_causes(body: CausesRequest) -> CausesAnswer:
    """Weigh causes by how well they explain the residuals of all holes."""
    covariance = np.diag([one.u_m**2 for one in body.holes]) + body.shared_u_m**2
    residuals = Residuals(
        tuple(one.hole for one in body.holes), tuple(one.residual_m for one in body.holes), covariance,
        tuple(one.make for one in body.holes), tuple(one.shims_m for one in body.holes),
    )  # fmt: skip
    off, findings = far_off(residuals), [one.finding for one in body.findings]
    if off < CLAIMED and not findings:
        return CausesAnswer(adds_up=True, far_off=off, explained=[], next=None)
    found = weigh(residuals, findings)
    proposed = next_check(found, done=findings)
    return CausesAnswer(
        adds_up=False, far_off=off, explained=[ExplainedView.of(one) for one in found],
        next=None if proposed is None else NextCheckView.of(proposed),
    )  # fmt: skip
