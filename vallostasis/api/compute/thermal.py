"""Sums of heat: sizes brought to 20 °C. Lengths in metres."""

from typing import Annotated

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.ranges import (
    Size,
    Small,
)
from vallostasis.api.trail import StepView
from vallostasis.core.thermal.expansion import Body, to_20c, to_20c_step

router = APIRouter(prefix="/api/compute", tags=["compute"], responses=ERROR_RESPONSES)

Celsius = Annotated[float, Field(allow_inf_nan=False, ge=-273, le=1000, description="[°C]")]


Expansion = Annotated[float, Field(allow_inf_nan=False, ge=-1e-3, le=1e-3, description="[1/K]")]


class To20CRequest(BaseModel):
    """A size read as a deviation from a ring; all sizes in m."""

    ring_20C_m: Size = Field(description="Size of the ring at 20 °C. [m]")
    ring_alpha: Expansion = 0.0
    ring_c: Celsius = 20.0
    deviation_m: Small = 0.0
    part_alpha: Expansion
    part_c: Celsius


class To20CAnswer(BaseModel):
    """The size at 20 °C."""

    diameter_20C_m: float
    correction_m: float
    uncorrected_m: float
    trail: list[StepView]


@router.post("/to-20C")
def compute_to_20c(ask: To20CRequest) -> To20CAnswer:
    """Bring a size to the reference temperature, for a warm part and a warm ring."""
    at = to_20c(ask.ring_20C_m, ask.deviation_m, Body(ask.ring_c, ask.ring_alpha), Body(ask.part_c, ask.part_alpha))
    return To20CAnswer(
        diameter_20C_m=at.size_m,
        correction_m=at.correction_m,
        uncorrected_m=at.as_read_m,
        trail=[StepView.of(to_20c_step(at, ask.deviation_m))],
    )
