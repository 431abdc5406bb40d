"""Holes told from liners by their readings, without a job."""

from typing import Annotated

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.swaps import ExchangeView
from vallostasis.core.matching.swap_table import FittingRead, next_exchange, swap_table
from vallostasis.core.uncertainty.budget import Source, estimate

router = APIRouter(prefix="/api/compute", tags=["compute"], responses=ERROR_RESPONSES)

Name = Annotated[str, Field(min_length=1, max_length=40)]
Metres = Annotated[float, Field(ge=-0.1, le=0.1, allow_inf_nan=False)]
Uncertainty = Annotated[float, Field(gt=0, le=0.01, allow_inf_nan=False)]


class FittingBody(BaseModel):
    """A liner read in a hole. [m]"""

    hole: Name
    liner: Name
    protrusion_m: Metres
    u_m: Uncertainty = Field(3e-6, description="Standard uncertainty that it has for itself.")


class SwapEffectsRequest(BaseModel):
    """Every fitting that was read, the liners that are in now and on the bench. [m]"""

    readings: Annotated[list[FittingBody], Field(min_length=1, max_length=200)]
    shared_u_m: Annotated[float, Field(ge=0, le=0.01, allow_inf_nan=False)] = Field(
        0.0, description="Standard uncertainty of an error that all readings share, such as one zero.")  # fmt: skip
    present: Annotated[dict[Name, Name], Field(max_length=24)] = Field({}, description="Liner in each hole now.")
    bench: Annotated[list[Name], Field(max_length=24)] = []
    coverage_factor: Annotated[float, Field(ge=1, le=4)] = 2.0


class SwapEffectsAnswer(BaseModel):
    """Effects of holes and of liners, those of a group of liners summing to nought, with U; what is left over. [m]"""

    holes_m: dict[str, float]
    liners_m: dict[str, float]
    holes_u_m: dict[str, float] = Field(description="Expanded uncertainty of each hole.")
    liners_u_m: dict[str, float] = Field(description="Expanded uncertainty of each liner.")
    left_over_m: list[float] = Field(description="Reading less hole and liner, in the order of the readings.")
    groups: int
    freedom: int
    next: ExchangeView | None


@router.post("/swap-effects")
def tell_holes_from_liners(body: SwapEffectsRequest) -> SwapEffectsAnswer:
    """Tell holes from liners by least squares, P = h + l, and propose the exchange that would tell most."""
    shared = Source("shared", body.shared_u_m, error="shared")
    read = [
        FittingRead(one.hole, one.liner, estimate(one.protrusion_m, (Source("own", one.u_m, error=at), shared)))
        for at, one in enumerate(body.readings)
    ]
    table = swap_table(read, body.coverage_factor)
    then = next_exchange(read, body.present, body.bench, max(one.u_m for one in body.readings))
    return SwapEffectsAnswer(
        holes_m={one.name: one.value.value_m for one in table.holes},
        liners_m={one.name: one.value.value_m for one in table.liners},
        holes_u_m={one.name: one.value.expanded_m for one in table.holes},
        liners_u_m={one.name: one.value.expanded_m for one in table.liners},
        left_over_m=[one.value.value_m for one in table.left_over], groups=table.groups, freedom=table.freedom,
        next=None if then is None else ExchangeView.of(then),
    )  # fmt: skip
