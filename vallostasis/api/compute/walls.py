"""Walls by themselves: circles, cylinders, distortion, clean-up, wall left. Lengths in metres."""

from typing import Annotated, Any

import numpy as np
from fastapi import APIRouter
from pydantic import BaseModel, Field, model_validator

from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.core.bores.clean_up import clean_up, smallest_step
from vallostasis.core.bores.wall_left import rebores_left, wall_left
from vallostasis.core.shapes.circles import reference_circle
from vallostasis.core.shapes.cylinder import reference_cylinder
from vallostasis.core.shapes.lobes import distortion_of
from vallostasis.core.shapes.reference_fit import Reference

router = APIRouter(prefix="/api/compute", tags=["compute"], responses=ERROR_RESPONSES)

Metres = Annotated[float, Field(allow_inf_nan=False, ge=-10, le=10, description="[m]")]
Degrees = Annotated[float, Field(allow_inf_nan=False, ge=-3600, le=3600, description="[deg]")]
MOST_POINTS = 20_000
Flat = Annotated[list[Metres], Field(min_length=2, max_length=2)]
Deep = Annotated[list[Metres], Field(min_length=3, max_length=3)]


class CirclesRequest(BaseModel):
    """Points of the wall of one level. [m]"""

    points_m: Annotated[list[Flat], Field(min_length=3, max_length=MOST_POINTS)]


class CirclesAnswer(BaseModel):
    """The circle of each reference method and the roundness about it; ISO 12181-1. [m]"""

    lsc_centre_m: list[float]
    lsc_diameter_m: float
    lsc_roundness_m: float
    mzc_centre_m: list[float]
    mzc_roundness_m: float
    mzc_diameter_m: float
    mic_centre_m: list[float]
    mic_diameter_m: float
    mic_roundness_m: float
    mcc_centre_m: list[float]
    mcc_diameter_m: float
    mcc_roundness_m: float


SHORT = {
    Reference.LEAST_SQUARES: "lsc",
    Reference.MINIMUM_ZONE: "mzc",
    Reference.MAXIMUM_INSCRIBED: "mic",
    Reference.MINIMUM_CIRCUMSCRIBED: "mcc",
}


@router.post("/circles")
def compute_circles(ask: CirclesRequest) -> CirclesAnswer:
    """Lay the four reference circles through the points of one level."""
    said: dict[str, Any] = {}
    for reference, short in SHORT.items():
        circle = reference_circle(ask.points_m, reference)
        said |= {f"{short}_centre_m": [circle.x_m, circle.y_m], f"{short}_diameter_m": circle.diameter_m,
                 f"{short}_roundness_m": circle.roundness_m}  # fmt: skip
    return CirclesAnswer(**said)


class CylinderRequest(BaseModel):
    """Points of a wall at several depths. [m]"""

    points_m: Annotated[list[Deep], Field(min_length=6, max_length=MOST_POINTS)]
    reference: Reference = Reference.LEAST_SQUARES


class CylinderAnswer(BaseModel):
    """A reference cylinder; ISO 12180-1. [m]"""

    diameter_m: float
    cylindricity_m: float
    axis_x0_m: float = Field(description="Axis at the mean depth. [m]")
    axis_y0_m: float
    tilt_x_over_length_m: float = Field(description="What the axis moves between the first and the last depth. [m]")
    tilt_y_over_length_m: float


@router.post("/cylinder")
def compute_cylinder(ask: CylinderRequest) -> CylinderAnswer:
    """Lay a reference cylinder through points of a wall."""
    points = np.asarray(ask.points_m, dtype=np.float64)
    fit = reference_cylinder(points, ask.reference)
    length = float(np.ptp(points[:, 2]))
    return CylinderAnswer(
        diameter_m=fit.diameter_m,
        cylindricity_m=fit.cylindricity_m,
        axis_x0_m=fit.x_m,
        axis_y0_m=fit.y_m,
        tilt_x_over_length_m=fit.lean_x * length,
        tilt_y_over_length_m=fit.lean_y * length,
    )


class DistortionRequest(BaseModel):
    """One level read by radius at the same even angles, free and clamped. [deg], [m]"""

    angles_deg: Annotated[list[Degrees], Field(min_length=5, max_length=7200)]
    free_radii_m: Annotated[list[Metres], Field(max_length=7200)]
    torqued_radii_m: Annotated[list[Metres], Field(max_length=7200)]

    @model_validator(mode="after")
    def _even(self) -> "DistortionRequest":
        if not len(self.angles_deg) == len(self.free_radii_m) == len(self.torqued_radii_m):
            raise ValueError("there is one radius free and one clamped for each angle")
        return self


class LobeAnswer(BaseModel):
    """One order of a shape. [m], [deg]"""

    order: int
    amplitude_m: float
    direction_deg: float


class DistortionAnswer(BaseModel):
    """What the load does: size apart from shape, order by order. [m]"""

    order2_amplitude_m: float | None
    order3_amplitude_m: float | None
    order4_amplitude_m: float | None
    lobes: list[LobeAnswer]
    mean_size_change_diametral_m: float
    distortion_range_m: float
    raw_range_without_recentring_m: float


@router.post("/distortion")
def compute_distortion(ask: DistortionRequest) -> DistortionAnswer:
    """Return clamped less free: size change, and what is left of the shape."""
    found = distortion_of(ask.angles_deg, ask.free_radii_m, ask.torqued_radii_m)
    by_order = {lobe.order: lobe.amplitude_m for lobe in found.lobes}
    return DistortionAnswer(
        order2_amplitude_m=by_order.get(2),
        order3_amplitude_m=by_order.get(3),
        order4_amplitude_m=by_order.get(4),
        lobes=[LobeAnswer(order=one.order, amplitude_m=one.amplitude_m, direction_deg=one.direction_deg)
               for one in found.lobes],
        mean_size_change_diametral_m=found.size_m,
        distortion_range_m=found.range_m,
        raw_range_without_recentring_m=found.raw_range_m,
    )  # fmt: skip


class CleanUpRequest(BaseModel):
    """Points of a wall, or one-sided wear alone; scores stand among the points. [m]"""

    standard_m: Annotated[float, Field(gt=0, le=10, allow_inf_nan=False)]
    points_m: Annotated[list[Flat], Field(min_length=3, max_length=MOST_POINTS)] | None = None
    score_already_in_points: Any = Field(None, description="Said for the reader: the points hold it.")
    one_sided_wear_m: Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)] | None = None
    given_centre_m: Flat = [0.0, 0.0]
    stock_per_side_m: Annotated[float, Field(ge=0, le=0.1, allow_inf_nan=False)] = 0.0
    oversizes_m: Annotated[list[Metres], Field(max_length=100)] = []
    move_m: Annotated[float, Field(ge=0, le=0.1, allow_inf_nan=False)] | None = Field(
        None, description="How far the centre may lie from the given one; anywhere where it is not said. [m]"
    )

    @model_validator(mode="after")
    def _one_of(self) -> "CleanUpRequest":
        if (self.points_m is None) is (self.one_sided_wear_m is None):
            raise ValueError("give points of the wall, or how much it is worn on one side")
        return self


class CleanUpAnswer(BaseModel):
    """The smallest bore that leaves no wear. [m]"""

    cleanup_diameter_given_centre_m: float
    cleanup_diameter_best_centre_m: float
    best_centre_shift_m: list[float]
    best_centre_distance_m: float
    oversize_given_centre_m: float | None
    oversize_best_centre_m: float | None
    two_point_max_diameter_m: float | None = Field(description="What a bore gauge would find of one-sided wear. [m]")
    needed_original_centre_m: float
    needed_best_centre_m: float


# Points of a circle that stands for a bore worn on one side: a bore that moved by half of it.
ROUND_STEPS = 3600


@router.post("/clean-up")
def compute_clean_up(ask: CleanUpRequest) -> CleanUpAnswer:
    """Return the smallest bore that leaves no wear, on the given centre and on the best one."""
    centre = (ask.given_centre_m[0], ask.given_centre_m[1])
    points = np.asarray(ask.points_m, dtype=np.float64) if ask.points_m is not None else _worn(ask)
    given = clean_up(points, centre, ask.stock_per_side_m, 0.0)
    best = clean_up(points, centre, ask.stock_per_side_m, ask.move_m)
    two_point = None if ask.one_sided_wear_m is None else ask.standard_m + ask.one_sided_wear_m
    return CleanUpAnswer(
        cleanup_diameter_given_centre_m=given.diameter_m,
        cleanup_diameter_best_centre_m=best.diameter_m,
        best_centre_shift_m=[best.x_m, best.y_m],
        best_centre_distance_m=best.move_m,
        oversize_given_centre_m=smallest_step(ask.standard_m, ask.oversizes_m, given.diameter_m),
        oversize_best_centre_m=smallest_step(ask.standard_m, ask.oversizes_m, best.diameter_m),
        two_point_max_diameter_m=two_point,
        needed_original_centre_m=given.diameter_m,
        needed_best_centre_m=best.diameter_m,
    )


def _worn(ask: CleanUpRequest) -> np.ndarray:
    """A wall worn on one side alone: the ring's path moved there by half of the wear, and grown by as much."""
    wear = ask.one_sided_wear_m or 0.0
    turns = np.arange(ROUND_STEPS) * 2 * np.pi / ROUND_STEPS
    radius = (ask.standard_m + wear) / 2
    x, y = ask.given_centre_m
    return np.column_stack([radius * np.cos(turns) + wear / 2 + x, radius * np.sin(turns) + y])


class WallRequest(BaseModel):
    """Walls a side as they were read, and what the bore grows and moves by. [m], [deg]"""

    walls_m: Annotated[list[Metres], Field(min_length=1, max_length=7200)]
    angles_deg: Annotated[list[Degrees], Field(min_length=1, max_length=7200)]
    growth_on_diameter_m: Metres = 0.0
    shift_m: Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)] = 0.0
    shift_deg: Degrees = 0.0
    least_wall_m: Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)] | None = None
    step_on_diameter_m: Annotated[float, Field(gt=0, le=1, allow_inf_nan=False)] | None = None

    @model_validator(mode="after")
    def _one_each(self) -> "WallRequest":
        if len(self.walls_m) != len(self.angles_deg):
            raise ValueError("there is one direction for each wall")
        return self


class WallAnswer(BaseModel):
    """What is left of a wall, a side. [m]"""

    least_wall_left_m: float
    at_deg: float
    walls_left_m: list[float]
    rebores_left: int | None


@router.post("/wall")
def compute_wall(ask: WallRequest) -> WallAnswer:
    """Return what is left of a wall once its bore has grown and moved, and how many re-bores that is worth."""
    left = wall_left(ask.walls_m, ask.angles_deg, ask.growth_on_diameter_m, ask.shift_m, ask.shift_deg)
    rebores = None
    if ask.least_wall_m is not None and ask.step_on_diameter_m is not None:
        rebores = rebores_left(left.least_m, ask.least_wall_m, ask.step_on_diameter_m)
    return WallAnswer(
        least_wall_left_m=left.least_m,
        at_deg=ask.angles_deg[left.at],
        walls_left_m=left.walls_m.tolist(),
        rebores_left=rebores,
    )
