"""Sums of water and air: dew point, frost on a cold face, a room in which dry ice or nitrogen boils off."""

from typing import Annotated, Literal

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.compute.heat import Celsius, Positive, Seconds, Times
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.core.thermal import moist_air, room_air

router = APIRouter(prefix="/api/compute", tags=["compute"], responses=ERROR_RESPONSES)


class DewRequest(BaseModel):
    """The air of a room, and a face in it where one is asked about."""

    dry_bulb_c: Annotated[float, Field(ge=-40, le=100, allow_inf_nan=False)]
    relative_humidity: Annotated[float, Field(ge=1e-3, le=1, allow_inf_nan=False)]
    pressure_pa: Annotated[float, Field(gt=20_000, le=1e6, allow_inf_nan=False)] = 101_325.0
    surface_c: Celsius | None = None


class DewAnswer(BaseModel):
    """What the air holds; whether water gathers on the face, null where none was asked about."""

    humidity_ratio_kg_kg: float
    dew_point_c: float
    frost_point_c: float
    gathers: bool | None


@router.post("/dew")
def compute_dew(ask: DewRequest) -> DewAnswer:
    """Tell the dew point of air."""
    air = moist_air.moist_air(ask.dry_bulb_c, ask.relative_humidity, ask.pressure_pa)
    gathers = None if ask.surface_c is None else ask.surface_c < (air.dew_c if ask.surface_c >= 0 else air.frost_c)
    return DewAnswer(humidity_ratio_kg_kg=air.ratio, dew_point_c=air.dew_c, frost_point_c=air.frost_c, gathers=gathers)


class FrostRequest(BaseModel):
    """A cold face in a room, for a time."""

    air_c: Annotated[float, Field(ge=-40, le=100, allow_inf_nan=False)]
    relative_humidity: Annotated[float, Field(ge=1e-3, le=1, allow_inf_nan=False)]
    surface_c: Celsius
    h_convection_w_m2k: Positive
    area_m2: Positive
    time_s: Seconds


class FrostAnswer(BaseModel):
    """What gathers on it. [kg/(m² s)], [kg], [m]"""

    mass_flux_kg_m2s: float
    water_mass_kg: float
    film_thickness_if_water_m: float
    frost_thickness_at_200_kg_m3_m: float


@router.post("/frost")
def compute_frost(ask: FrostRequest) -> FrostAnswer:
    """Tell what gathers on a cold face."""
    found = moist_air.gathered(moist_air.moist_air(ask.air_c, ask.relative_humidity), ask.surface_c,
                               ask.h_convection_w_m2k, ask.time_s)  # fmt: skip
    return FrostAnswer(mass_flux_kg_m2s=found.flux, water_mass_kg=found.flux * ask.area_m2 * ask.time_s,
                       film_thickness_if_water_m=found.water_m,
                       frost_thickness_at_200_kg_m3_m=found.frost_m)  # fmt: skip


class RoomAirRequest(BaseModel):
    """A room in which dry ice or nitrogen boils off."""

    gas: Literal["N2", "CO2"]
    mass_kg: Annotated[float, Field(ge=0, le=1e5, allow_inf_nan=False)]
    room_m3: Positive
    temperature_c: Annotated[float, Field(ge=-40, le=100, allow_inf_nan=False)] = 20.0
    air_changes_per_h: Annotated[float, Field(ge=0, le=1000, allow_inf_nan=False)]
    release_time_s: Seconds
    times_s: Times = Field(default_factory=list)


class RoomAirAnswer(BaseModel):
    """Shares of oxygen and carbon dioxide, at times and at their worst."""

    gas_volume_m3: float
    o2_fraction: list[float]
    co2_fraction: list[float]
    worst_o2_fraction: float
    worst_co2_fraction: float
    o2_simple_no_outflow_formula: float


@router.post("/room-air")
def compute_room_air(ask: RoomAirRequest) -> RoomAirAnswer:
    """Tell the air of a room while dry ice or nitrogen boils off in it."""
    room = room_air.Room(room_air.Gas(ask.gas), ask.mass_kg, ask.room_m3, ask.air_changes_per_h, ask.release_time_s,
                         ask.temperature_c)  # fmt: skip
    worst = room_air.worst_air(room)
    return RoomAirAnswer(
        gas_volume_m3=room.gas_m3, o2_fraction=[room_air.oxygen_at(room, one) for one in ask.times_s],
        co2_fraction=[room_air.carbon_dioxide_at(room, one) for one in ask.times_s], worst_o2_fraction=worst[0],
        worst_co2_fraction=worst[1],
        o2_simple_no_outflow_formula=room_air.FRESH_O2 * (room.volume_m3 - room.gas_m3) / room.volume_m3,
    )  # fmt: skip
