"""Sums of a gauge study. Lengths in metres."""

from typing import Annotated

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.core.gauges.gauge_study import Components, study_gauge

router = APIRouter(prefix="/api/compute", tags=["compute"], responses=ERROR_RESPONSES)

StudyNumber = Annotated[float, Field(allow_inf_nan=False, ge=-1e9, le=1e9)]
StudyTable = Annotated[
    list[Annotated[list[Annotated[list[StudyNumber], Field(max_length=50)]], Field(max_length=20)]],
    Field(max_length=100),
]


class GaugeStudyRequest(BaseModel):
    """A balanced crossed study: readings[part][person][trial]."""

    readings_um: StudyTable
    tolerance_um: Annotated[float, Field(allow_inf_nan=False, gt=0, le=1e9)] | None = None


class GaugeStudyAnswer(BaseModel):
    """Two models: full keeps the interaction, pooled merges it with the error. Standard deviations in µm."""

    full_repeatability_sd_um: float
    full_reproducibility_sd_um: float
    full_grr_sd_um: float
    full_part_sd_um: float
    full_total_sd_um: float
    full_percent_grr_of_total: float
    full_percent_grr_of_tolerance: float | None
    full_ndc: int | None
    pooled_repeatability_sd_um: float
    pooled_reproducibility_sd_um: float
    pooled_grr_sd_um: float
    pooled_part_sd_um: float
    pooled_total_sd_um: float
    pooled_percent_grr_of_total: float
    pooled_percent_grr_of_tolerance: float | None
    pooled_ndc: int | None
    interaction_p_value: float | None
    sum_of_squares_part_person_inter_error_um2: list[float]
    degrees_of_freedom: list[int]
    holds: str = Field(description="The model to go by: full or pooled.")
    range_method_ev_um: float = Field(description="Repeatability by averages and ranges, which hide the interaction.")
    range_method_av_um: float
    range_method_grr_um: float
    range_method_pv_um: float
    range_method_percent_grr: float


def _components(prefix: str, one: Components) -> dict[str, float | int | None]:
    return {
        f"{prefix}_repeatability_sd_um": one.repeatability_m,
        f"{prefix}_reproducibility_sd_um": one.reproducibility_m,
        f"{prefix}_grr_sd_um": one.gauge_m,
        f"{prefix}_part_sd_um": one.part_m,
        f"{prefix}_total_sd_um": one.total_m,
        f"{prefix}_percent_grr_of_total": one.percent_of_total,
        f"{prefix}_percent_grr_of_tolerance": one.percent_of_tolerance,
        f"{prefix}_ndc": one.categories,
    }


@router.post("/gauge-study")
def compute_gauge_study(ask: GaugeStudyRequest) -> GaugeStudyAnswer:
    """Split what was read into gauge, people and parts by analysis of variance."""
    # The analysis is the same in any unit: it is done in micrometres here, so that the answer reads back exactly.
    study = study_gauge(ask.readings_um, ask.tolerance_um)
    answer = {
        **_components("full", study.full),
        **_components("pooled", study.pooled),
        "interaction_p_value": study.anova.interaction_p,
        "sum_of_squares_part_person_inter_error_um2": list(study.anova.squares_m2),
        "degrees_of_freedom": list(study.anova.freedom),
        "holds": "full" if study.holds is study.full else "pooled",
        "range_method_ev_um": study.ranges.repeatability_m,
        "range_method_av_um": study.ranges.reproducibility_m,
        "range_method_grr_um": study.ranges.gauge_m,
        "range_method_pv_um": study.ranges.part_m,
        "range_method_percent_grr": study.ranges.percent_of_total,
    }
    return GaugeStudyAnswer.model_validate(answer)
