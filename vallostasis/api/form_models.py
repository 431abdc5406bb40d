"""The form of a bore as it goes over the wire."""

from decimal import Decimal

from pydantic import BaseModel, Field

from vallostasis.core.notation.lengths import metres
from vallostasis.core.shapes.bore_form import BoreForm
from vallostasis.core.shapes.ovality import share_guaranteed, share_seen
from vallostasis.core.surveys.places import PlaceRead
from vallostasis.core.surveys.survey import Survey


class LevelFormView(BaseModel):
    """One level of a bore."""

    depth_m: float
    name: str
    mean_m: float | None
    out_of_round_m: float | None
    greatest_axis_deg: float | None
    ovality_m: float | None = Field(description="From the fitted ellipse: 2·A2. [m]")
    ellipse_axis_deg: float | None
    ellipse_a4_m: float | None
    share_seen: float | None = Field(description="Share of the fitted ovality that greatest less least shows. [1]")


class FormView(BaseModel):
    """The form of a bore. [m]"""

    levels: list[LevelFormView]
    worst_out_of_round_m: float | None
    taper_m: float | None = Field(description="Greatest less least along the worst axis. [m]")
    taper_per_axis_m: list[float | None]
    taper_of_mean_m: float | None
    fitted_taper_m: float | None
    barrel_m: float | None
    bell_top_m: float | None
    bell_bottom_m: float | None
    mean_m: float
    greatest_m: float
    least_m: float
    share_guaranteed: float


def form_view(survey: Survey, form: BoreForm) -> FormView:
    """Show the form of a bore."""
    depths = sorted({row.place.level_um for row in survey.places if row.place.level_um is not None})
    names = {level.depth_um: level.name for level in survey.pattern.levels}
    levels = []
    for depth, level in zip(depths, form.levels, strict=True):
        axes = [axis for row in survey.places if _stands_at(row, depth) and (axis := row.place.axis_deg) is not None]
        ellipse = level.ellipse
        levels.append(
            LevelFormView(
                depth_m=metres(depth),
                name=names.get(depth, ""),
                mean_m=level.mean_m,
                out_of_round_m=level.out_of_round_m,
                greatest_axis_deg=level.greatest_axis_deg,
                ovality_m=None if ellipse is None else ellipse.ovality_m,
                ellipse_axis_deg=None if ellipse is None else ellipse.phi2_deg,
                ellipse_a4_m=None if ellipse is None else ellipse.a4_m,
                share_seen=None if ellipse is None else share_seen(axes, ellipse.phi2_deg),
            )
        )
    return FormView(
        levels=levels,
        worst_out_of_round_m=form.worst_out_of_round_m,
        taper_m=form.taper_m,
        taper_per_axis_m=list(form.taper_per_axis_m),
        taper_of_mean_m=form.taper_of_mean_m,
        fitted_taper_m=form.fitted_taper_m,
        barrel_m=form.barrel_m,
        bell_top_m=form.bell_top_m,
        bell_bottom_m=form.bell_bottom_m,
        mean_m=form.mean_m,
        greatest_m=form.greatest_m,
        least_m=form.least_m,
        share_guaranteed=share_guaranteed(survey.pattern.axes_deg) if len(survey.pattern.axes_deg) > 1 else 0.0,
    )


def _stands_at(row: PlaceRead, depth_um: Decimal) -> bool:
    return row.place.level_um == depth_um and row.value_m is not None and row.place.axis_deg is not None
