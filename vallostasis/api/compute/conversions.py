"""Parts of a conversion by themselves: a seal in its groove, a rod beside a liner's foot. SI units."""

from typing import Annotated

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.core.conversions.rod_sweep import Rod, relief_of_foot
from vallostasis.core.conversions.seal_gland import Gland, sealing_of
from vallostasis.core.records.conversion_terms import GrooveIn

router = APIRouter(prefix="/api/compute", tags=["compute"], responses=ERROR_RESPONSES)

Size = Annotated[float, Field(allow_inf_nan=False, ge=1e-6, le=10, description="[m]")]
Length = Annotated[float, Field(allow_inf_nan=False, ge=0, le=10, description="[m]")]


class SealGlandRequest(BaseModel):
    """A ring, its groove, and the face it seals against. [m]"""

    groove_in: GrooveIn = GrooveIn.LINER
    block_bore_m: Size
    liner_od_m: Size
    groove_diameter_m: Size
    groove_width_m: Size
    ring_id_m: Size
    ring_section_m: Size
    swell_fraction: Annotated[float, Field(allow_inf_nan=False, ge=-0.5, le=2)] = 0.0
    rubber_alpha: Annotated[float, Field(allow_inf_nan=False, ge=0, le=1e-2, description="[1/K]")] = 1.6e-4
    temperature_rise_k: Annotated[float, Field(allow_inf_nan=False, ge=-300, le=500)] = 0.0
    eccentricity_m: Length = 0.0


class SealGlandAnswer(BaseModel):
    """What becomes of the ring: lengths [m], shares [1]."""

    gland_depth_m: float
    stretch_fraction: float
    stretched_section_m: float
    stretched_section_handbook_curve_m: float | None
    squeeze_fraction: float
    squeeze_unstretched_section_fraction: float
    squeeze_m: float
    squeeze_min_eccentric_fraction: float
    squeeze_max_eccentric_fraction: float
    fill_fraction: float
    fill_hot_swollen_fraction: float
    overfilled_hot: bool


@router.post("/seal-gland")
def compute_seal_gland(ask: SealGlandRequest) -> SealGlandAnswer:
    """How much a ring is squeezed, and how full its groove is, cold and hot."""
    gland = Gland(ask.groove_in, ask.block_bore_m, ask.liner_od_m, ask.groove_diameter_m, ask.groove_width_m,
                  ask.ring_id_m, ask.ring_section_m)  # fmt: skip
    now = sealing_of(gland, ask.eccentricity_m, ask.swell_fraction, ask.rubber_alpha, ask.temperature_rise_k)
    return SealGlandAnswer(
        gland_depth_m=now.depth_m, stretch_fraction=now.stretch, stretched_section_m=now.section_m,
        stretched_section_handbook_curve_m=now.section_by_curve_m, squeeze_fraction=now.squeeze,
        squeeze_unstretched_section_fraction=now.squeeze_of_free_section, squeeze_m=now.squeeze_m,
        squeeze_min_eccentric_fraction=now.squeeze_least, squeeze_max_eccentric_fraction=now.squeeze_greatest,
        fill_fraction=now.fill, fill_hot_swollen_fraction=now.fill_hot, overfilled_hot=now.is_overfull_hot,
    )  # fmt: skip


class RodSweepRequest(BaseModel):
    """Crank, rod and the foot of a liner. [m]"""

    stroke_m: Size
    rod_length_m: Size
    rod_width_m: Length
    big_end_m: Length
    crank_offset_m: Annotated[float, Field(allow_inf_nan=False, ge=-1, le=1)] = 0.0
    foot_above_crank_m: Annotated[float, Field(allow_inf_nan=False, ge=-10, le=10)]
    top_above_crank_m: Annotated[float, Field(allow_inf_nan=False, ge=-10, le=10)]
    liner_inside_m: Size
    clear_m: Length = 0.0


class RodSide(BaseModel):
    """One side of the foot. [m]"""

    reach_m: float
    clear_m: float
    relief_deep_m: float
    relief_high_m: float


class RodSweepAnswer(BaseModel):
    """Relief on the side of the offset, and on the other."""

    towards: RodSide
    away: RodSide


@router.post("/rod-sweep")
def compute_rod_sweep(ask: RodSweepRequest) -> RodSweepAnswer:
    """How near a turning rod comes to the foot of a liner, and what has to be relieved there."""
    rod = Rod(ask.stroke_m / 2, ask.rod_length_m, ask.rod_width_m, ask.big_end_m, ask.crank_offset_m)
    sides = relief_of_foot(rod, ask.foot_above_crank_m, ask.liner_inside_m, ask.clear_m, ask.top_above_crank_m)
    towards, away = (RodSide(reach_m=one.reach_m, clear_m=one.clear_m, relief_deep_m=one.deep_m,
                             relief_high_m=one.high_m) for one in sides)  # fmt: skip
    return RodSweepAnswer(towards=towards, away=away)
