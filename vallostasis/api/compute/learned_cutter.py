"""What finished runs teach about a cutter, without a job. Lengths in metres, times in seconds."""

from typing import Annotated

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.ranges import Small
from vallostasis.core.counterbore.learned import ENOUGH_HOLES, HoleCut, learn

router = APIRouter(prefix="/api/compute", tags=["compute"], responses=ERROR_RESPONSES)

Seconds = Annotated[float, Field(ge=0.001, le=86_400, allow_inf_nan=False)]


class RunAsked(BaseModel):
    """One finished run: passes counted, change by the gauge, how far it ended from what was set. [1], [m], [s]"""

    passes: Annotated[float, Field(ge=0.01, le=5000, allow_inf_nan=False)]
    change_m: Small
    off_m: Small = 0.0
    pass_s: Annotated[list[Seconds], Field(max_length=500)] = []


class LearnedCutterRequest(BaseModel):
    """Runs of one cutter in one material."""

    runs: Annotated[list[RunAsked], Field(min_length=1, max_length=500)]


class LearnedCutterAnswer(BaseModel):
    """Depth of a graduation, setting error, time of a pass, each with its ±; null where there are too few runs."""

    n: int
    is_enough: bool = Field(description="Whether the figures replace those of the card.")
    graduation_m: float | None
    graduation_U_m: float | None
    setting_sd_m: float | None
    setting_prediction_m: float | None
    pass_s: float | None
    pass_low_s: float | None
    pass_high_s: float | None


@router.post("/learned-cutter")
def compute_learned_cutter(ask: LearnedCutterRequest) -> LearnedCutterAnswer:
    """Learn from finished runs: regression through the origin, standard deviation, median and quartiles."""
    found = learn([HoleCut(one.passes, one.change_m, one.off_m, tuple(one.pass_s)) for one in ask.runs])
    graduation, setting = found.graduation_m, found.setting_m
    return LearnedCutterAnswer(
        n=len(ask.runs),
        is_enough=len(ask.runs) >= ENOUGH_HOLES,
        graduation_m=None if graduation is None else graduation.value,
        graduation_U_m=None if graduation is None else graduation.within,
        setting_sd_m=None if setting is None else setting.value,
        setting_prediction_m=found.setting_prediction_m,
        pass_s=None if found.pass_s is None else found.pass_s.value,
        pass_low_s=found.pass_low_s,
        pass_high_s=found.pass_high_s,
    )
