"""Fits by themselves: a press, a fit at temperature, a liner going in. SI units."""

from typing import Annotated, Self

import numpy as np
from fastapi import APIRouter
from pydantic import BaseModel, Field, model_validator

from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.fits.hot import Grows, press_at, vanishes_at
from vallostasis.core.fits.insertion import SLICES, hand_depth, insert, profile_over
from vallostasis.core.fits.thick_walled import Elastic, Ends, Rings, press_force, pressed, von_mises

router = APIRouter(prefix="/api/compute", tags=["compute"], responses=ERROR_RESPONSES)

Diameter = Annotated[float, Field(allow_inf_nan=False, ge=0, le=10, description="[m]")]
Small = Annotated[float, Field(allow_inf_nan=False, ge=-0.1, le=0.1, description="[m]")]
Celsius = Annotated[float, Field(allow_inf_nan=False, ge=-273.15, le=2000, description="[°C]")]
FrictionFactor = Annotated[float, Field(allow_inf_nan=False, ge=0, le=5, description="[1]")]
Levels = Annotated[list[Diameter], Field(min_length=1, max_length=200)]


class MaterialBody(BaseModel):
    """A material: Young's modulus [Pa], Poisson's ratio [1], expansion [1/K]."""

    E: Annotated[float, Field(allow_inf_nan=False, gt=0, le=1e13)]
    nu: Annotated[float, Field(allow_inf_nan=False, gt=-1, lt=0.5)]
    alpha: Annotated[float, Field(allow_inf_nan=False, ge=-1e-3, le=1e-3)] = 0.0

    def elastic(self) -> Elastic:
        """Return it as the core has it."""
        return Elastic(self.E, self.nu)


class RingsBody(BaseModel):
    """A liner in its boss: diameters [m] and materials."""

    liner_id_m: Diameter
    liner_od_m: Diameter
    boss_od_m: Diameter
    liner: MaterialBody
    block: MaterialBody

    def rings(self) -> Rings:
        """Return both walls as the core has them."""
        return Rings(self.liner_id_m, self.liner_od_m, self.boss_od_m, self.liner.elastic(), self.block.elastic())


class PressFitRequest(RingsBody):
    """A press of one slice, and the length it is pressed over."""

    interference_diametral_m: Small
    friction: FrictionFactor = 0.12
    engaged_length_m: Diameter = 0.0
    ends: Ends = Ends.FREE


class PressFitAnswer(BaseModel):
    """What a press does; stresses squeezed negative. Lamé. [Pa], [m], [N], [N·m]"""

    contact_pressure_pa: float
    hoop_liner_bore_pa: float
    hoop_liner_od_pa: float
    hoop_boss_bore_pa: float
    hoop_boss_od_pa: float
    von_mises_liner_bore_pa: float
    von_mises_liner_od_pa: float
    von_mises_boss_bore_pa: float
    bore_close_in_diametral_m: float
    liner_od_shrink_diametral_m: float
    boss_bore_growth_diametral_m: float
    boss_od_growth_diametral_m: float
    close_in_share_of_interference: float | None = Field(description="None without a press.")
    press_force_n: float
    holding_torque_nm: float


@router.post("/press-fit")
def compute_press_fit(ask: PressFitRequest) -> PressFitAnswer:
    """Press a liner into its boss: pressure, stresses, close-in, force to press and torque to turn it."""
    rings, delta = ask.rings(), ask.interference_diametral_m
    done = pressed(rings, delta, ask.ends)
    p = float(done.pressure_pa)
    force = float(press_force(p, rings.fit_m, ask.engaged_length_m, ask.friction))
    return PressFitAnswer(
        contact_pressure_pa=p,
        hoop_liner_bore_pa=float(done.hoop_liner_bore_pa),
        hoop_liner_od_pa=float(done.hoop_liner_outside_pa),
        hoop_boss_bore_pa=float(done.hoop_boss_bore_pa),
        hoop_boss_od_pa=float(done.hoop_boss_outside_pa),
        von_mises_liner_bore_pa=float(von_mises(0.0, done.hoop_liner_bore_pa)),
        von_mises_liner_od_pa=float(von_mises(-p, done.hoop_liner_outside_pa)),
        von_mises_boss_bore_pa=float(von_mises(-p, done.hoop_boss_bore_pa)),
        bore_close_in_diametral_m=float(done.close_in_m),
        liner_od_shrink_diametral_m=float(done.liner_shrinks_m),
        boss_bore_growth_diametral_m=float(done.boss_bore_grows_m),
        boss_od_growth_diametral_m=float(done.boss_grows_m),
        close_in_share_of_interference=float(done.close_in_m) / delta if delta > 0 else None,
        press_force_n=force,
        holding_torque_nm=force * rings.fit_m / 2,
    )


class HotFitRequest(RingsBody):
    """A press at a reference temperature, and both parts at their own. [°C]"""

    interference_diametral_at_T0_m: Small
    T0_c: Celsius = 20.0
    liner_temperature_c: Celsius
    block_temperature_c: Celsius


class HotFitAnswer(BaseModel):
    """What is left of a press at temperature; free expansion, then Lamé. [m], [Pa], [°C]"""

    interference_at_T_m: float
    contact_pressure_pa: float
    bore_close_in_at_T_m: float
    bore_diameter_at_T_m: float
    loose: bool
    temperature_interference_vanishes_both_c: float | None


@router.post("/hot-fit")
def compute_hot_fit(ask: HotFitRequest) -> HotFitAnswer:
    """Hold a press at temperature, and say where it vanishes with both parts alike."""
    rings, grows = ask.rings(), Grows(ask.liner.alpha, ask.block.alpha)
    press = ask.interference_diametral_at_T0_m
    hot = press_at(press, rings.fit_m, grows, ask.liner_temperature_c, ask.block_temperature_c, ask.T0_c)
    done = pressed(rings, hot)
    inside = rings.inside_m * (1 + ask.liner.alpha * (ask.liner_temperature_c - ask.T0_c))
    return HotFitAnswer(
        interference_at_T_m=hot,
        contact_pressure_pa=float(done.pressure_pa),
        bore_close_in_at_T_m=float(done.close_in_m),
        bore_diameter_at_T_m=inside - float(done.close_in_m),
        loose=hot <= 0,
        temperature_interference_vanishes_both_c=vanishes_at(press, rings.fit_m, grows, 0.0, ask.T0_c),
    )


class InsertionRequest(RingsBody):
    """Both profiles at depths from the top, and how the liner is pushed in."""

    depths_m: Levels
    liner_outside_m: Levels
    block_bore_m: Levels
    length_m: Annotated[float, Field(gt=0, le=5, allow_inf_nan=False)]
    friction: FrictionFactor = 0.12
    push_n: Annotated[float, Field(ge=0, le=1e7, allow_inf_nan=False)] = 250.0
    lead_in_m: Diameter = 0.0

    @model_validator(mode="after")
    def same_levels(self) -> Self:
        """Refuse profiles that are not told at the same depths, from the top down."""
        if not len(self.depths_m) == len(self.liner_outside_m) == len(self.block_bore_m):
            raise ValueError("Tell liner and bore at each of the depths: the three lists are as long as each other.")
        if any(low >= high for low, high in zip(self.depths_m, self.depths_m[1:], strict=False)):
            raise ValueError("Depths go from the top down, each once.")
        return self


class InsertionAnswer(BaseModel):
    """A liner going in; every level's press and close-in, force against depth. [m], [N], [J], [Pa]"""

    interference_m: list[float]
    contact_pressure_pa: list[float]
    close_in_m: list[float]
    pushed_m: list[float]
    force_n: list[float]
    greatest_force_n: float
    work_j: float
    by_hand_m: float
    by_hand_share: float


@router.post("/insertion")
def compute_insertion(ask: InsertionRequest) -> InsertionAnswer:
    """Push a liner in from its foot to home: by hand so far, then with what force."""
    if ask.lead_in_m >= ask.length_m:
        raise OutOfDomain("the lead-in is shorter than the liner", "lead_in_m")
    rings = ask.rings()
    liner, bore = np.array(ask.liner_outside_m), np.array(ask.block_bore_m)
    done = pressed(rings, liner - bore)
    slices = 4 * SLICES
    going = insert(
        rings, profile_over(ask.depths_m, liner, ask.length_m, slices),
        profile_over(ask.depths_m, bore, ask.length_m, slices), ask.length_m, ask.friction, ask.lead_in_m,
    )  # fmt: skip
    by_hand = float(hand_depth(going, ask.push_n))
    return InsertionAnswer(
        interference_m=(liner - bore).tolist(),
        contact_pressure_pa=done.pressure_pa.tolist(),
        close_in_m=done.close_in_m.tolist(),
        pushed_m=going.depths_m.tolist(),
        force_n=going.force_n.tolist(),
        greatest_force_n=float(going.greatest_n),
        work_j=float(going.work_j),
        by_hand_m=by_hand,
        by_hand_share=by_hand / ask.length_m,
    )
