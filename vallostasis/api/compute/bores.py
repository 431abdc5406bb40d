"""Sums of a bore: its form and how it is out of round. Lengths in metres."""

from typing import Annotated

import numpy as np
from fastapi import APIRouter
from pydantic import BaseModel, Field, model_validator

from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.ranges import (
    Angles,
    Size,
)
from vallostasis.core.shapes.bore_form import bore_form
from vallostasis.core.shapes.ovality import (
    Ellipse,
    cannot_see,
    different_axes,
    fit_ellipse,
    share_guaranteed,
    share_seen,
)

router = APIRouter(prefix="/api/compute", tags=["compute"], responses=ERROR_RESPONSES)

Length = Annotated[float, Field(allow_inf_nan=False, ge=-10, le=10, description="[m]")]


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
