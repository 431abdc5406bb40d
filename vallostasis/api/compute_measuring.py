"""The sums of measuring alone, for scripts and spreadsheets: nothing is stored."""

from math import inf, isinf
from typing import Annotated

import numpy as np
from fastapi import APIRouter
from pydantic import BaseModel, Field, model_validator

from vallostasis.api.budget_models import SourceView
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.ranges import Angles, Size, Small, Uncertainty
from vallostasis.api.trail import StepView
from vallostasis.core.bores.ovality import (
    Ellipse,
    cannot_see,
    different_axes,
    fit_ellipse,
    share_guaranteed,
    share_seen,
)
from vallostasis.core.bores.survey import bore_form
from vallostasis.core.measuring.gauge_study import Components, study_gauge
from vallostasis.core.measuring.monte_carlo import monte_carlo_half_width
from vallostasis.core.measuring.reading_errors import (
    GaugeSources,
    Known,
    SizeInputs,
    difference_of_sizes,
    mean_of_sizes,
    size_budget,
)
from vallostasis.core.measuring.temperature import Body, to_20c, to_20c_step

router = APIRouter(prefix="/api/compute", tags=["compute"], responses=ERROR_RESPONSES)

Length = Annotated[float, Field(allow_inf_nan=False, ge=-10, le=10, description="[m]")]
Trust = Annotated[float, Field(allow_inf_nan=False, ge=0, le=1)]
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


class BudgetRequest(BaseModel):
    """A bore read as a deviation from a ring, with the standard uncertainty of everything it depends on."""

    ring_m: Size
    u_ring_m: Uncertainty = 0.0
    deviation_m: Small = 0.0
    u_repeatability_m: Uncertainty = 0.0
    repeats: Annotated[int, Field(ge=2, le=10_000)] | None = Field(
        None, description="Readings that the repeatability was found from; null when it is well known."
    )
    step_m: Annotated[float, Field(allow_inf_nan=False, ge=0, le=0.01, description="Graduation. [m]")] = 0.0
    step_at_zero: bool = Field(
        False, description="Count the zero too, which is a reading: its graduation and its repeatability."
    )
    alpha_ring: Expansion = 0.0
    u_alpha_ring: Trust = 0.0
    ring_c: Celsius = 20.0
    u_ring_c: Annotated[float, Field(allow_inf_nan=False, ge=0, le=100)] = 0.0
    alpha_part: Expansion = 0.0
    u_alpha_part: Trust = 0.0
    part_c: Celsius = 20.0
    u_part_c: Annotated[float, Field(allow_inf_nan=False, ge=0, le=100)] = 0.0
    coverage_k: Annotated[float, Field(ge=1, le=4)] = 2.0
    readings: Annotated[int, Field(ge=1, le=1000, description="Readings that a mean is taken of.")] = 1


class BudgetAnswer(BaseModel):
    """The size, its uncertainty source by source, and what follows for values worked out from such readings. [m]"""

    diameter_20C_m: float
    u_m: float
    U_m: float
    coverage: float
    freedom: float | None
    mc_half_width_95_m: float
    difference_to_mc_m: float = Field(description="U less the Monte Carlo half width. [m]")
    sources: list[SourceView]
    share_of_part_temperature: float
    u_mean_m: float
    U_mean_m: float
    u_difference_m: float = Field(description="Of the difference of two readings of one zero, such as out of round.")
    U_difference_m: float


@router.post("/budget")
def compute_budget(ask: BudgetRequest) -> BudgetAnswer:
    """Work out how far a size can be trusted, by the GUM and by Monte Carlo beside it."""
    inputs = SizeInputs(
        set_size_m=Known(ask.ring_m, ask.u_ring_m),
        deviation_m=ask.deviation_m,
        master_c=Known(ask.ring_c, ask.u_ring_c),
        master_alpha=Known(ask.alpha_ring, ask.u_alpha_ring),
        part_c=Known(ask.part_c, ask.u_part_c),
        part_alpha=Known(ask.alpha_part, ask.u_alpha_part),
    )
    freedom = inf if ask.repeats is None else float(ask.repeats - 1)
    gauge = GaugeSources(ask.step_m, ask.u_repeatability_m, freedom, ask.step_at_zero)
    budget = size_budget("size at 20 °C", inputs, gauge, ask.coverage_k)
    drawn = monte_carlo_half_width(inputs, gauge)
    mean = mean_of_sizes(inputs, gauge, ask.readings, ask.coverage_k)
    difference = difference_of_sizes(inputs, gauge, ask.coverage_k)
    part = next(source for source in budget.sources if source.name == "temperature of the part")
    return BudgetAnswer(
        diameter_20C_m=inputs.size_at_20c_m(),
        u_m=budget.standard_m,
        U_m=budget.expanded_m,
        coverage=budget.coverage,
        freedom=None if isinf(budget.freedom) else budget.freedom,
        mc_half_width_95_m=drawn,
        difference_to_mc_m=budget.expanded_m - drawn,
        sources=SourceView.many(budget),
        share_of_part_temperature=budget.share(part),
        u_mean_m=mean.standard_m,
        U_mean_m=mean.expanded_m,
        u_difference_m=difference.standard_m,
        U_difference_m=difference.expanded_m,
    )


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


class BoreSetRequest(BaseModel):
    """Two-point diameters: one list for one level, or a list of levels from the top, null where none was read."""

    diameters_m: (
        Annotated[list[Size], Field(min_length=1, max_length=360)]
        | Annotated[list[Annotated[list[Size | None], Field(max_length=72)]], Field(min_length=1, max_length=60)]
    )
    axes_deg: Angles | None = Field(
        None, description="Directions of the axes, clockwise from the front; needed for the ellipse."
    )
    depths_m: Annotated[list[Length], Field(max_length=60)] | None = Field(
        None, description="Depths of the levels; evenly spaced where they are not given."
    )
    nominal_m: Length | None = None

    @model_validator(mode="after")
    def _even(self) -> "BoreSetRequest":
        lengths = {len(level) for level in self.levels}
        if len(lengths) != 1 or lengths == {0}:
            raise ValueError("every level has the same number of axes: put null where none was read")
        if self.axes_deg is not None and len(self.axes_deg) != next(iter(lengths)):
            raise ValueError("there is one direction for each axis")
        if self.depths_m is not None and len(self.depths_m) != len(self.levels):
            raise ValueError("there is one depth for each level")
        return self

    @property
    def levels(self) -> list[list[float | None]]:
        """The table, whichever way it was given."""
        rows = [one for one in self.diameters_m if isinstance(one, list)]
        return rows or [[one for one in self.diameters_m if not isinstance(one, list)]]


class EllipseAnswer(BaseModel):
    """The shape fitted to one level. [m], [deg]"""

    D0_m: float
    A2_m: float
    phi2_deg: float
    A4_m: float | None
    phi4_deg: float | None
    ovality_m: float
    rms_residual_m: float
    range_of_readings_m: float
    order4_determinable: bool
    visible_cos4_part_m: float | None
    share_seen: float

    @classmethod
    def of(cls, ellipse: Ellipse, axes_deg: list[float], diameters_m: list[float]) -> "EllipseAnswer":
        """Show an ellipse."""
        cosines = np.cos(4 * np.radians(axes_deg))
        visible = None
        if ellipse.a4_m is None and float(cosines @ cosines) > 0:
            visible = float(cosines @ (np.array(diameters_m) - ellipse.mean_m) / (cosines @ cosines))
        return cls(
            D0_m=ellipse.mean_m,
            A2_m=ellipse.a2_m,
            phi2_deg=ellipse.phi2_deg,
            A4_m=ellipse.a4_m,
            phi4_deg=ellipse.phi4_deg,
            ovality_m=ellipse.ovality_m,
            rms_residual_m=ellipse.rms_residual_m,
            range_of_readings_m=max(diameters_m) - min(diameters_m),
            order4_determinable=ellipse.a4_m is not None,
            visible_cos4_part_m=visible,
            share_seen=share_seen(axes_deg, ellipse.phi2_deg),
        )


class BoreSetAnswer(BaseModel):
    """The form of the bore; what is null was not reached by the readings. [m]"""

    out_of_round_m: list[float | None]
    worst_out_of_round_m: float | None
    taper_m: float | None = Field(description="Greatest less least along the worst axis: what is judged. [m]")
    taper_per_axis_m: list[float | None]
    taper_of_mean_m: float | None
    fitted_taper_top_minus_bottom_m: float | None
    barrel_m: float | None
    bell_top_m: float | None
    bell_bottom_m: float | None
    mean_diameter_m: float
    max_diameter_m: float
    min_diameter_m: float
    maximum_wear_m: float
    ellipses: list[EllipseAnswer | None]
    share_guaranteed: float | None
    cannot_see: list[str]
    # The ellipse of the only level, or of the top one, for whoever asks about one level alone.
    D0_m: float | None = None
    A2_m: float | None = None
    A4_m: float | None = None
    phi2_deg: float | None = None
    phi4_deg: float | None = None
    ovality_m: float | None = None
    rms_residual_m: float | None = None
    range_of_readings_m: float | None = None
    order4_determinable: bool | None = None
    visible_cos4_part_m: float | None = None


@router.post("/bore-set")
def compute_bore_set(ask: BoreSetRequest) -> BoreSetAnswer:
    """Work out the form of a bore, and say what its axes and levels cannot see."""
    table = np.array([[np.nan if one is None else one for one in level] for level in ask.levels], dtype=float)
    # Without directions the axes are only told apart; no ellipse is laid through them then.
    axes = list(ask.axes_deg) if ask.axes_deg is not None else [180.0 * i / table.shape[1] for i in
                                                               range(table.shape[1])]  # fmt: skip
    depths = list(ask.depths_m) if ask.depths_m is not None else [float(i) for i in range(len(ask.levels))]
    form = bore_form(table, axes, depths)
    ellipses = [_ellipse(row, axes) if ask.axes_deg is not None else None for row in ask.levels]
    first = ellipses[0].model_dump(exclude={"share_seen"}) if ellipses[0] is not None else {}
    return BoreSetAnswer(
        out_of_round_m=[level.out_of_round_m for level in form.levels],
        worst_out_of_round_m=form.worst_out_of_round_m,
        taper_m=form.taper_m,
        taper_per_axis_m=list(form.taper_per_axis_m),
        taper_of_mean_m=form.taper_of_mean_m,
        fitted_taper_top_minus_bottom_m=form.fitted_taper_m,
        barrel_m=form.barrel_m,
        bell_top_m=form.bell_top_m,
        bell_bottom_m=form.bell_bottom_m,
        mean_diameter_m=form.mean_m,
        max_diameter_m=form.greatest_m,
        min_diameter_m=form.least_m,
        maximum_wear_m=form.greatest_m - form.least_m,
        ellipses=ellipses,
        share_guaranteed=None if ask.axes_deg is None else share_guaranteed(axes),
        cannot_see=[] if ask.axes_deg is None else list(cannot_see(axes, len(ask.levels))),
        **first,
    )


def _ellipse(row: list[float | None], axes: list[float]) -> EllipseAnswer | None:
    read = [(axis, one) for axis, one in zip(axes, row, strict=True) if one is not None]
    there, diameters = [axis for axis, _ in read], [one for _, one in read]
    if different_axes(there) < 3:
        return None
    return EllipseAnswer.of(fit_ellipse(there, diameters), there, diameters)
