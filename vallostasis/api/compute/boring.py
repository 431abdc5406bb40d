"""Sums of boring, honing and pistons by themselves. SI units; passes in exact decimals."""

from decimal import Decimal
from typing import Annotated

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.core.boring.centring import offset_of_bar
from vallostasis.core.boring.clearances import CUBIC_INCH_M3, Warm, clearance_of, finish_size, swept_volume_m3
from vallostasis.core.boring.hatch import hatch_of
from vallostasis.core.boring.passes import pass_time_s, plan_passes
from vallostasis.core.counterbore.dependents import compression_ratio
from vallostasis.core.errors import OutOfDomain

router = APIRouter(prefix="/api/compute", tags=["compute"], responses=ERROR_RESPONSES)

Size = Annotated[float, Field(allow_inf_nan=False, ge=1e-6, le=10, description="[m]")]
Length = Annotated[float, Field(allow_inf_nan=False, ge=0, le=10, description="[m]")]
Small = Annotated[float, Field(allow_inf_nan=False, ge=-0.1, le=0.1, description="[m]")]
Celsius = Annotated[float, Field(allow_inf_nan=False, ge=-273.15, le=2000, description="[°C]")]
PerK = Annotated[float, Field(allow_inf_nan=False, ge=-1e-3, le=1e-3, description="[1/K]")]
Angle = Annotated[float, Field(allow_inf_nan=False, ge=-360, le=360, description="[deg]")]
Speed = Annotated[float, Field(allow_inf_nan=False, ge=1e-3, le=1e5, description="[1/min]")]
RIGHT_ANGLES = (0.0, 90.0, 180.0, 270.0)


class CentringRequest(BaseModel):
    """Four gaps between a round bar and a round bore, seen from the bar."""

    gaps_m: Annotated[list[Length], Field(min_length=4, max_length=4)]
    angles_deg: Annotated[list[Angle], Field(min_length=4, max_length=4)] = list(RIGHT_ANGLES)
    bar_radius_m: Length = 0.0


class CentringAnswer(BaseModel):
    """Where the bar stands, and where it is moved. [m], [deg]"""

    bar_offset_x_m: float
    bar_offset_y_m: float
    offset_m: float
    move_bar_direction_deg: float
    consistency_m: float


@router.post("/centring")
def compute_centring(ask: CentringRequest) -> CentringAnswer:
    """Centre a bar by four feeler gaps at right angles."""
    order = [one % 360 for one in ask.angles_deg]
    if sorted(order) != list(RIGHT_ANGLES):
        raise OutOfDomain("the four gaps stand at 0, 90, 180 and 270 degrees", "angles_deg")
    gaps = [ask.gaps_m[order.index(angle)] for angle in RIGHT_ANGLES]
    x, y, move, uneven = offset_of_bar(gaps)
    return CentringAnswer(bar_offset_x_m=x, bar_offset_y_m=y, offset_m=(x * x + y * y) ** 0.5,
                          move_bar_direction_deg=move, consistency_m=uneven)  # fmt: skip


class BoringPassesRequest(BaseModel):
    """A bore to be made larger. [m]"""

    start_diameter_m: Size
    finish_diameter_m: Size
    max_depth_of_cut_on_radius_m: Size
    finish_pass_on_diameter_m: Length


class BoringPassesAnswer(BaseModel):
    """Passes, and the equal cut, on the diameter; dials a side. [m]"""

    to_go_diametral_m: float
    roughing_passes: int
    total_passes: int
    equal_roughing_cut_on_diameter_m: float
    dials_on_radius_m: list[float]


# Sizes come as floats: a picometre of their noise is no metal. [µm]
NOISE_UM = Decimal("0.000001")
MOST_PASSES = 10_000


@router.post("/boring-passes")
def compute_boring_passes(ask: BoringPassesRequest) -> BoringPassesAnswer:
    """Split what is to go into equal cuts and a finish pass."""
    if ask.finish_diameter_m - ask.start_diameter_m > MOST_PASSES * ask.max_depth_of_cut_on_radius_m:
        raise OutOfDomain("so shallow a cut takes too many passes: check it", "max_depth_of_cut_on_radius_m")
    start, finish, deepest, last = (
        (Decimal(repr(metres)) * 1_000_000).quantize(NOISE_UM)
        for metres in (ask.start_diameter_m, ask.finish_diameter_m, ask.max_depth_of_cut_on_radius_m,
                       ask.finish_pass_on_diameter_m)
    )  # fmt: skip
    plan = plan_passes(start, finish, deepest, last)
    return BoringPassesAnswer(
        to_go_diametral_m=float(plan.to_go_um) / 1e6, roughing_passes=plan.rough, total_passes=plan.total,
        equal_roughing_cut_on_diameter_m=float(plan.equal_um) / 1e6,
        dials_on_radius_m=[float(one) / 1e6 for one in plan.dials_um],
    )  # fmt: skip


class BoringTimeRequest(BaseModel):
    """A pass of a boring bar."""

    length_m: Length
    overrun_m: Length = 0.0
    feed_per_rev_m: Size
    rpm: Speed
    passes: Annotated[int, Field(ge=1, le=MOST_PASSES)] = 1


class BoringTimeAnswer(BaseModel):
    """How long it takes; the way back is not counted. [s]"""

    time_per_pass_s: float
    time_total_s: float


@router.post("/boring-time")
def compute_boring_time(ask: BoringTimeRequest) -> BoringTimeAnswer:
    """How long passes of a boring bar take."""
    one = pass_time_s(ask.length_m, ask.overrun_m, ask.feed_per_rev_m, ask.rpm)
    return BoringTimeAnswer(time_per_pass_s=one, time_total_s=one * ask.passes)


class CrossHatchRequest(BaseModel):
    """Stroke and speed of a hone."""

    bore_m: Size
    rpm: Speed
    stroke_m: Size
    cycles_per_min: Speed


class CrossHatchAnswer(BaseModel):
    """Speeds [m/min], angles [deg], and what gives 45°."""

    surface_speed_m_min: float
    axial_speed_m_min: float
    included_angle_deg: float
    angle_to_horizontal_deg: float
    included_angle_mid_stroke_crank_deg: float
    cycles_per_min_for_45deg: float
    strokes_per_min_for_45deg: float


@router.post("/cross-hatch")
def compute_cross_hatch(ask: CrossHatchRequest) -> CrossHatchAnswer:
    """The cross-hatch that stroke and speed leave."""
    now = hatch_of(ask.bore_m, ask.rpm, ask.stroke_m, ask.cycles_per_min)
    return CrossHatchAnswer(
        surface_speed_m_min=now.around_m_min, axial_speed_m_min=now.along_m_min, included_angle_deg=now.included_deg,
        angle_to_horizontal_deg=now.included_deg / 2, included_angle_mid_stroke_crank_deg=now.middle_deg,
        cycles_per_min_for_45deg=now.for_45, strokes_per_min_for_45deg=2 * now.for_45,
    )  # fmt: skip


class RunningClearanceRequest(BaseModel):
    """Bore and piston as they were read, and how warm they run."""

    bore_measured_m: Size
    alpha_bore: PerK
    bore_measured_at_c: Celsius = 20.0
    bore_running_c: Celsius
    piston_measured_m: Size
    alpha_piston: PerK
    piston_measured_at_c: Celsius = 20.0
    piston_running_c: Celsius


class RunningClearanceAnswer(BaseModel):
    """Clearance on the diameter; negative where it seizes. [m]"""

    clearance_20C_m: float
    clearance_running_m: float
    interference_when_hot: bool


@router.post("/running-clearance")
def compute_running_clearance(ask: RunningClearanceRequest) -> RunningClearanceAnswer:
    """Clearance of a piston at 20 °C, and as it runs."""
    bore = Warm(ask.bore_measured_m, ask.bore_measured_at_c, ask.alpha_bore)
    piston = Warm(ask.piston_measured_m, ask.piston_measured_at_c, ask.alpha_piston)
    hot = clearance_of(bore, piston, ask.bore_running_c, ask.piston_running_c)
    return RunningClearanceAnswer(clearance_20C_m=clearance_of(bore, piston), clearance_running_m=hot,
                                  interference_when_hot=hot < 0)  # fmt: skip


class FinishSizeRequest(BaseModel):
    """A piston as it was read, and the clearance wanted."""

    piston_measured_m: Size
    alpha_piston: PerK
    piston_at_c: Celsius = 20.0
    clearance_20C_m: Small
    alpha_bore: PerK
    work_at_c: Celsius = 20.0


class FinishSizeAnswer(BaseModel):
    """The bore it asks for, and what is read at the work's temperature. [m]"""

    bore_20C_m: float
    bore_at_work_temperature_m: float


@router.post("/finish-size")
def compute_finish_size(ask: FinishSizeRequest) -> FinishSizeAnswer:
    """The finished size of a bore from its measured piston."""
    piston = Warm(ask.piston_measured_m, ask.piston_at_c, ask.alpha_piston)
    cold, warm = finish_size(piston, ask.clearance_20C_m, ask.alpha_bore, ask.work_at_c)
    return FinishSizeAnswer(bore_20C_m=cold, bore_at_work_temperature_m=warm)


class SweptVolumeRequest(BaseModel):
    """An engine before and after its bores were changed. [m]"""

    cylinders: Annotated[int, Field(ge=1, le=64)]
    bore_before_m: Size
    bore_after_m: Size
    stroke_m: Size


class SweptVolumeAnswer(BaseModel):
    """Both volumes, and their difference from one number. [m³], cm³, cubic inches"""

    before_m3: float
    after_m3: float
    change_m3: float
    change_cc: float
    change_cu_in: float


@router.post("/swept-volume")
def compute_swept_volume(ask: SweptVolumeRequest) -> SweptVolumeAnswer:
    """What new bores make of an engine's swept volume."""
    before, after = (swept_volume_m3(ask.cylinders, one, ask.stroke_m) for one in (ask.bore_before_m, ask.bore_after_m))
    change = after - before
    return SweptVolumeAnswer(before_m3=before, after_m3=after, change_m3=change, change_cc=change * 1e6,
                             change_cu_in=change / CUBIC_INCH_M3)  # fmt: skip


class HeightsRequest(BaseModel):
    """A deck that is cut, and what hangs on it. [m]"""

    deck_cut_m: Small
    bore_m: Size
    stroke_m: Size
    clearance_volume_m3: Annotated[float, Field(allow_inf_nan=False, ge=1e-12, le=10)]
    protrusion_m: Small = 0.0
    piston_stand_out_m: Small = 0.0
    piston_to_valve_m: Small = 0.0
    piston_to_injector_m: Small = 0.0


class HeightsAnswer(BaseModel):
    """Heights after the cut [m], and the compression ratio before and after."""

    protrusion_m: float
    piston_stand_out_m: float
    piston_to_valve_m: float
    piston_to_injector_m: float
    compression_before: float
    compression_after: float


@router.post("/heights")
def compute_heights(ask: HeightsRequest) -> HeightsAnswer:
    """What a cut of the deck does: liners on a ledge and pistons stand higher, valve and injector come nearer."""
    cut = ask.deck_cut_m
    ratios = [compression_ratio(ask.bore_m, ask.stroke_m, ask.clearance_volume_m3, one) for one in (0.0, cut)]
    return HeightsAnswer(
        protrusion_m=ask.protrusion_m + cut, piston_stand_out_m=ask.piston_stand_out_m + cut,
        piston_to_valve_m=ask.piston_to_valve_m - cut, piston_to_injector_m=ask.piston_to_injector_m - cut,
        compression_before=ratios[0], compression_after=ratios[1],
    )  # fmt: skip
