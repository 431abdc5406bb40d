"""Sums of heat and cold: temperatures for a drop, cold shrink, films, cooling, a gap that closes."""

from typing import Annotated

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.ranges import Size, Small
from vallostasis.core.thermal import shrink
from vallostasis.core.thermal.drop import (
    Drop,
    Losses,
    Stuff,
    carry_and_drop,
    cooled,
    cools_to,
    in_the_bore,
    wall_mean_c,
)
from vallostasis.core.thermal.films import biot, film_of

router = APIRouter(prefix="/api/compute", tags=["compute"], responses=ERROR_RESPONSES)

Celsius = Annotated[float, Field(allow_inf_nan=False, ge=-273, le=1000, description="[°C]")]
Expansion = Annotated[float, Field(allow_inf_nan=False, ge=1e-9, le=1e-3, description="[1/K]")]
Seconds = Annotated[float, Field(allow_inf_nan=False, ge=0, le=1e6, description="[s]")]
Times = Annotated[list[Seconds], Field(max_length=200)]
Positive = Annotated[float, Field(allow_inf_nan=False, ge=1e-6, le=1e6)]
# What the walls of the public sums are taken as. [m], [W/(m K)]
IRON_WALL, ALUMINIUM_WALL = (2e-3, 50.0), (10e-3, 150.0)
# Below this a block from an oven counts as too cool in the shop's own rule. [°C]
OVEN_HOT_C = 110.0


class TemperaturesRequest(BaseModel):
    """Sizes and the clearance wanted; the temperature of one of both is given, the other is asked for."""

    hole_diameter_m: Size
    liner_od_m: Size
    wanted_clearance_m: Small
    alpha_block: Expansion
    alpha_liner: Expansion
    T0_c: Celsius = 20.0
    block_temperature_c: Celsius | None = None
    liner_temperature_c: Celsius | None = None


class TemperaturesAnswer(BaseModel):
    """The pair of temperatures. [°C]"""

    block_temperature_c: float
    liner_temperature_c: float
    below_liquid_nitrogen: bool


@router.post("/temperatures")
def compute_temperatures(ask: TemperaturesRequest) -> TemperaturesAnswer:
    """Tell which temperature a clearance asks for, by constant expansions."""
    found = shrink.temperature_by_sum(ask.hole_diameter_m, ask.liner_od_m, ask.wanted_clearance_m,
                                      (ask.alpha_block, ask.alpha_liner), ask.block_temperature_c,
                                      ask.liner_temperature_c, ask.T0_c)  # fmt: skip
    block = found if ask.block_temperature_c is None else ask.block_temperature_c
    liner = found if ask.liner_temperature_c is None else ask.liner_temperature_c
    return TemperaturesAnswer(block_temperature_c=block, liner_temperature_c=liner,
                              below_liquid_nitrogen=liner < shrink.LIQUID_NITROGEN_C)  # fmt: skip


Kelvins = Annotated[
    list[Annotated[float, Field(ge=1, le=2000, allow_inf_nan=False)]], Field(min_length=2, max_length=50)
]
PerMillion = Annotated[list[Annotated[float, Field(ge=0, le=1000, allow_inf_nan=False)]],
                       Field(min_length=2, max_length=50)]  # fmt: skip


class ColdShrinkRequest(BaseModel):
    """A liner and a hole, each with the course of its expansion. [m], [K], [1e-6/K]"""

    hole_diameter_m: Size
    liner_od_m: Size
    liner_temperature_c: Celsius
    block_temperature_c: Celsius
    T0_c: Celsius = 20.0
    liner_alpha_T_k: Kelvins
    liner_alpha_1e6: PerMillion
    block_alpha_T_k: Kelvins
    block_alpha_1e6: PerMillion


class ColdShrinkAnswer(BaseModel):
    """The clearance by both courses, and by what both have at the reference."""

    liner_strain: float
    liner_mean_alpha_per_k: float
    block_mean_alpha_per_k: float
    clearance_m: float
    clearance_constant_alpha_m: float
    constant_alpha_overstates_by_m: float


@router.post("/cold-shrink")
def compute_cold_shrink(ask: ColdShrinkRequest) -> ColdShrinkAnswer:
    """Tell the clearance with expansions that fall with the cold, beside the usual sum."""
    liner, block = (shrink.Course(tuple(kelvins), tuple(one * 1e-6 for one in rates))
                    for kelvins, rates in ((ask.liner_alpha_T_k, ask.liner_alpha_1e6),
                                           (ask.block_alpha_T_k, ask.block_alpha_1e6)))  # fmt: skip
    pair = shrink.Pair(ask.hole_diameter_m, ask.liner_od_m, block, liner, ask.T0_c)
    found = pair.clearance(ask.block_temperature_c, ask.liner_temperature_c)
    usual = shrink.Pair(ask.hole_diameter_m, ask.liner_od_m, shrink.constant_course(block.at(ask.T0_c)),
                        shrink.constant_course(liner.at(ask.T0_c)), ask.T0_c)  # fmt: skip
    by_sum = usual.clearance(ask.block_temperature_c, ask.liner_temperature_c)
    return ColdShrinkAnswer(
        liner_strain=liner.strain(ask.liner_temperature_c, ask.T0_c),
        liner_mean_alpha_per_k=liner.mean(ask.liner_temperature_c, ask.T0_c),
        block_mean_alpha_per_k=block.mean(ask.block_temperature_c, ask.T0_c),
        clearance_m=found, clearance_constant_alpha_m=by_sum, constant_alpha_overstates_by_m=by_sum - found,
    )  # fmt: skip


class FilmRequest(BaseModel):
    """A vertical face in still air."""

    surface_temperature_c: Celsius
    air_temperature_c: Celsius
    height_m: Size
    diameter_m: Size | None = None
    emissivity: Annotated[float, Field(ge=0, le=1)] = 0.7
    pressure_pa: Annotated[float, Field(gt=1000, le=1e6, allow_inf_nan=False)] = 101_325.0


class FilmAnswer(BaseModel):
    """What the film carries [W/(m² K)], and how walls compare with it [1]."""

    h_convection_w_m2k: float
    h_radiation_w_m2k: float
    h_total_w_m2k: float
    biot_iron_2mm_wall: float
    biot_alu_10mm_wall: float


@router.post("/film")
def compute_film(ask: FilmRequest) -> FilmAnswer:
    """Tell what a film of air carries off a vertical face."""
    film = film_of(ask.surface_temperature_c, ask.air_temperature_c, ask.height_m, ask.emissivity, ask.pressure_pa)
    return FilmAnswer(h_convection_w_m2k=film.convection, h_radiation_w_m2k=film.radiation, h_total_w_m2k=film.total,
                      biot_iron_2mm_wall=biot(film.total, *IRON_WALL),
                      biot_alu_10mm_wall=biot(film.total, *ALUMINIUM_WALL))  # fmt: skip


class CoolingRequest(BaseModel):
    """A part of one node in air."""

    mass_kg: Positive
    specific_heat: Positive
    area_m2: Positive
    h_w_m2k: Positive
    T_start_c: Celsius
    air_c: Celsius
    times_s: Times


class CoolingAnswer(BaseModel):
    """Its time constant [s], its temperatures [°C], when it is at 110 °C: null where it never is."""

    time_constant_s: float
    temperature_c: list[float]
    time_to_110C_s: float | None


@router.post("/cooling")
def compute_cooling(ask: CoolingRequest) -> CoolingAnswer:
    """Follow a part that cools or warms in air."""
    constant = ask.mass_kg * ask.specific_heat / (ask.h_w_m2k * ask.area_m2)
    return CoolingAnswer(time_constant_s=constant,
                         temperature_c=[cooled(ask.T_start_c, ask.air_c, constant, one) for one in ask.times_s],
                         time_to_110C_s=cools_to(ask.T_start_c, ask.air_c, constant, OVEN_HOT_C))  # fmt: skip


class StuffBody(BaseModel):
    """What a part is made of. [kg/m³], [J/(kg K)], [W/(m K)], [1/K]"""

    rho: Annotated[float, Field(allow_inf_nan=False, ge=10, le=50_000)]
    c: Annotated[float, Field(allow_inf_nan=False, ge=10, le=50_000)]
    k: Annotated[float, Field(allow_inf_nan=False, ge=0.01, le=5_000)]
    alpha: Expansion

    @property
    def stuff(self) -> Stuff:
        """The same for the core."""
        return Stuff(self.rho, self.c, self.k, self.alpha)


class DropBody(BaseModel):
    """A liner and its hole. [m]"""

    liner_id_m: Size
    liner_od_m: Size
    hole_diameter_m: Size
    length_m: Size
    liner: StuffBody
    block: StuffBody
    T0_c: Celsius = 20.0
    k_air_w_mk: Annotated[float, Field(ge=1e-4, le=10, allow_inf_nan=False)] = 0.025

    @property
    def drop(self) -> Drop:
        """The same for the core."""
        return Drop(self.liner_id_m, self.liner_od_m, self.hole_diameter_m, self.length_m, self.liner.stuff,
                    self.block.stuff, self.T0_c, self.k_air_w_mk)  # fmt: skip


class InTheBoreRequest(DropBody):
    """A liner that has just entered; without a boss the block keeps its temperature."""

    boss_od_m: Size | None = None
    liner_temperature_at_insertion_c: Celsius
    block_temperature_at_insertion_c: Celsius
    times_s: Times = Field(default_factory=list)


class InTheBoreAnswer(BaseModel):
    """The clearance as the gap closes; null where it is never lost."""

    clearance_at_insertion_m: float
    time_clearance_lost_s: float | None
    liner_temperature_at_loss_c: float | None
    block_temperature_at_loss_c: float | None
    time_lost_if_insertion_gap_conductance_is_held_constant_s: float | None
    clearance_at_times_m: list[float]
    equilibrium_clearance_m: float
    biot_block_wall_at_insertion: float | None


@router.post("/in-the-bore")
def compute_in_the_bore(ask: InTheBoreRequest) -> InTheBoreAnswer:
    """Follow a liner that is in its hole, over a gap of air that closes."""
    found = in_the_bore(ask.drop, ask.liner_temperature_at_insertion_c, ask.block_temperature_at_insertion_c,
                        ask.boss_od_m, ask.times_s)  # fmt: skip
    return InTheBoreAnswer(
        clearance_at_insertion_m=found.entered_m, time_clearance_lost_s=found.lost.seconds,
        liner_temperature_at_loss_c=found.lost.liner_c, block_temperature_at_loss_c=found.lost.block_c,
        time_lost_if_insertion_gap_conductance_is_held_constant_s=found.held_constant_s,
        clearance_at_times_m=list(found.at_times_m), equilibrium_clearance_m=found.settles_m,
        biot_block_wall_at_insertion=found.biot_block,
    )  # fmt: skip


class CarryAndDropRequest(DropBody):
    """A liner carried through the air, then dropped in; the block is one node with its whole mass."""

    carry_time_s: Seconds
    carry_times_to_tabulate_s: Times = Field(default_factory=list)
    liner_start_c: Celsius
    block_start_c: Celsius
    air_c: Celsius
    h_liner_w_m2k: Positive
    block_mass_kg: Positive
    block_hA_w_k: Positive


class CarryAndDropAnswer(BaseModel):
    """What it enters with, and how long it stays clear; null where it always does."""

    clearance_if_inserted_after_m: list[float]
    liner_at_insertion_c: float
    block_at_insertion_c: float
    clearance_at_insertion_m: float
    time_in_bore_to_loss_s: float | None
    carry_time_to_zero_clearance_s: float | None


@router.post("/carry-and-drop")
def compute_carry_and_drop(ask: CarryAndDropRequest) -> CarryAndDropAnswer:
    """Carry a liner, drop it in, and follow it."""
    losses = Losses(ask.h_liner_w_m2k, ask.block_hA_w_k, ask.block_mass_kg, ask.air_c)
    found = carry_and_drop(ask.drop, losses, (ask.liner_start_c, ask.block_start_c), ask.carry_time_s,
                           ask.carry_times_to_tabulate_s)  # fmt: skip
    return CarryAndDropAnswer(
        clearance_if_inserted_after_m=list(found.if_after_m), liner_at_insertion_c=found.liner_c,
        block_at_insertion_c=found.block_c, clearance_at_insertion_m=found.entered_m,
        time_in_bore_to_loss_s=found.lost_s, carry_time_to_zero_clearance_s=found.too_late_s,
    )  # fmt: skip


class HoleGrowthRequest(BaseModel):
    """A hole in a wall that is warmer at one face than at the other. [m], [°C]"""

    hole_diameter_m: Size
    boss_od_m: Size
    alpha: Expansion
    hole_face_c: Celsius
    outside_face_c: Celsius
    T0_c: Celsius = 20.0


class HoleGrowthAnswer(BaseModel):
    """By how much it grows, and by how much the temperature of its face would say. [m], [°C]"""

    mean_temperature_c: float
    growth_m: float
    growth_by_face_m: float


@router.post("/hole-growth")
def compute_hole_growth(ask: HoleGrowthRequest) -> HoleGrowthAnswer:
    """Tell how a hole grows: by the area mean of its wall, not by its face."""
    mean = wall_mean_c(ask.hole_diameter_m, ask.boss_od_m, (ask.hole_face_c, ask.outside_face_c))
    per_c = ask.hole_diameter_m * ask.alpha
    return HoleGrowthAnswer(mean_temperature_c=mean, growth_m=per_c * (mean - ask.T0_c),
                            growth_by_face_m=per_c * (ask.hole_face_c - ask.T0_c))  # fmt: skip
