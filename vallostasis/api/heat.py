"""Heat and cold: pairs of temperatures, ways to them, the drop window, water on the liner, the air of the room."""

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query
from pydantic import BaseModel, Field
from pydantic.fields import FieldInfo

from vallostasis.api.budget_models import StatedView
from vallostasis.api.conversions import SealView
from vallostasis.api.deps import Conn
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.trail import PhraseView
from vallostasis.core.heat.plan import HeatPlan, Tried, Water, cautions_of_drop, room_told, steps_of
from vallostasis.core.heat.planner import BLOCK_OFF_K, FILM_OFF, LINER_OFF_K, WANTED_M, Drops, Way
from vallostasis.core.heat.seals import SealInHeat
from vallostasis.core.heat.stuffs import Medium
from vallostasis.core.heat.window import BLOCK_OFF, CONTACT, LINER_OFF, OFF_CENTRE, RING, Window
from vallostasis.core.thermal.room_air import LEAST_O2, SHIFT_CO2, SHORT_CO2
from vallostasis.core.trail import Phrase
from vallostasis.services import heat

router = APIRouter(prefix="/api/jobs/{job_id}/heat", tags=["heat"], responses=ERROR_RESPONSES)
shop_router = APIRouter(prefix="/api/heat", tags=["heat"], responses=ERROR_RESPONSES)


def _number(least: float, greatest: float, what: str) -> FieldInfo:
    info: FieldInfo = Query(ge=least, le=greatest, allow_inf_nan=False, description=what)
    return info


BlockC = Annotated[float, _number(-30, 220, "The block as it leaves its oven. [°C]")]
LinerC = Annotated[float, _number(-196, 60, "The liner as it leaves the cold. [°C]")]
AirC = Annotated[float, _number(-20, 50, "The room. [°C]")]
Humidity = Annotated[float, _number(0.02, 1, "Relative humidity of the room. [1]")]
Wanted = Annotated[float, _number(1e-6, 1e-3, "Least clearance to drop freely, on the diameter. [m]")]
Enter = Annotated[float, _number(0, 900, "When it enters, counted from leaving the cold. [s]")]
Home = Annotated[float, _number(0, 300, "How long it takes from entering until it is home. [s]")]
Kilograms = Annotated[float, _number(1, 5000, "What the block weighs. [kg]")]


class HeatPairView(BaseModel):
    """A pair of temperatures. [°C]"""

    liner_c: float
    block_c: float


class HeatLimitView(BaseModel):
    """A temperature that something does not bear. [°C]"""

    what: str
    celsius: float
    is_least: bool
    why: str


class HeatWayView(BaseModel):
    """One way to the clearance wanted. [°C], [s], [kg]"""

    name: str
    medium: Medium
    block_c: float | None
    liner_c: float | None
    against: list[str]
    soak_s: float | None
    boils_kg: float | None

    @classmethod
    def of(cls, one: Way) -> "HeatWayView":
        """Show a way."""
        return cls(name=one.name, medium=one.medium, block_c=one.block_c, liner_c=one.liner_c,
                   against=list(one.against), soak_s=one.soak_s, boils_kg=one.boils_kg)  # fmt: skip


class WindowView(BaseModel):
    """Clearance against seconds out of the cold. [s], [m]"""

    times_s: list[float]
    low_m: list[float]
    likely_m: list[float]
    high_m: list[float]
    enter_s: float
    home_by_s: float | None = Field(description="Until when it has to be home; null where the window stays open.")
    grabs_s: float | None
    likely_s: float | None

    @classmethod
    def of(cls, one: Window) -> "WindowView":
        """Show a window."""
        return cls(times_s=one.times_s.tolist(), low_m=one.low_m.tolist(), likely_m=one.likely_m.tolist(),
                   high_m=one.high_m.tolist(), enter_s=one.enter_s, home_by_s=one.home_by_s, grabs_s=one.grabs_s,
                   likely_s=one.likely_s)  # fmt: skip


class HeatStepView(BaseModel):
    """A step of the run sheet: until when it lasts, the clearance of the worst pair then, and what that means."""

    name: str
    until_s: float
    low_m: float
    drops: Drops


class WaterView(BaseModel):
    """What gathers on the liner, a side, against the gap. [°C], [m]"""

    dew_c: float
    is_frost: bool
    least_m: float
    most_m: float
    left: float = Field(description="Share that is on it as it enters: nought where it is wiped and dried. [1]")
    gap_m: float
    is_wet: bool

    @classmethod
    def of(cls, one: Water) -> "WaterView":
        """Show what gathers."""
        return cls(dew_c=one.air.dew_c, is_frost=one.gathered.is_frost, least_m=one.least_m, most_m=one.most_m,
                   left=one.left, gap_m=one.gap_m, is_wet=one.is_wet)  # fmt: skip


class HeatSideView(BaseModel):
    """One side of the question how a liner gets in, with its reason."""

    name: str
    reason: str
    is_followed: bool


class HeatSealView(BaseModel):
    """One ring of the hole in its order, and what heat and cold do to it. [°C]"""

    seal: SealView
    coldest_c: float | None
    warmest_c: float | None
    known_by: str
    minds: list[str] = Field(description="What to mind with it at these temperatures.")

    @classmethod
    def of(cls, one: SealInHeat) -> "HeatSealView":
        """Show a ring."""
        cold, warm = one.bears or (None, None)
        return cls(seal=SealView.of(one.seal), coldest_c=cold, warmest_c=warm, known_by=one.known_by,
                   minds=list(one.minds))  # fmt: skip


class HeatPlanView(BaseModel):
    """The plan of one drop; all null but the reason where something is missing."""

    hole: int
    liner: str | None
    missing: PhraseView | None
    liner_material: str
    block_material: str
    plan: "DropPlanView | None"
    sides: list[HeatSideView]
    settled_by: str
    seals: list[HeatSealView]
    cold_force_n: list[float] = Field(description="Pressing it at room temperature: least, middle, most; or empty.")


class DropPlanView(BaseModel):
    """What the temperatures tried do. [m], [°C], [s], [kg]"""

    outside_m: float
    press: StatedView
    worst_m: float
    wall_m: float
    wall_known: bool
    clearance_m: float = Field(description="Of the worst pair, as both leave oven and cold.")
    at_start: Drops
    says: PhraseView
    wanted_line: list[HeatPairView]
    touch_line: list[HeatPairView]
    limits: list[HeatLimitView]
    against: list[str]
    ways: list[HeatWayView]
    window: WindowView
    steps: list[HeatStepView]
    water: WaterView
    medium: Medium | None
    boils_kg: float | None
    oven_s: float
    bath_s: float
    liner_s: float | None
    energy_kwh: float
    held_s: float
    cautions: list[str]
    spreads: list[str] = Field(description="What was drawn, and how far off each may be.")


def _spread_words() -> list[str]:
    return [f"films of air ±{2 * FILM_OFF:.0%}", f"off centre by up to {OFF_CENTRE[1]:.0%} of the gap",
            f"dry contact {CONTACT[0]:,.0f} to {CONTACT[1]:,.0f} W/(m² K)",
            f"{RING[0]:.0%} to {RING[1]:.0%} of the wall counted as warm",
            f"liner ±{2 * LINER_OFF_K:.0f} K and block ±{2 * BLOCK_OFF_K:.0f} K as they leave",
            "sizes by their ±", f"expansions ±{2 * LINER_OFF:.0%} and ±{2 * BLOCK_OFF:.0%}"]  # fmt: skip


def _plan_view(plan: HeatPlan | Phrase) -> DropPlanView | None:
    if isinstance(plan, Phrase):
        return None
    pairs = [[HeatPairView(liner_c=liner, block_c=block) for liner, block in line]
             for line in (plan.wanted_line, plan.touch_line)]  # fmt: skip
    return DropPlanView(
        outside_m=plan.fit.outside_m, press=StatedView.of(plan.fit.press), worst_m=plan.fit.worst_m,
        wall_m=plan.fit.wall_m, wall_known=plan.fit.wall_known, clearance_m=plan.cold, at_start=plan.at_start,
        says=PhraseView.of(plan.says), wanted_line=pairs[0], touch_line=pairs[1],
        limits=[HeatLimitView(what=one.what, celsius=one.celsius, is_least=one.is_least, why=one.why)
                for one in plan.limits],
        against=list(plan.against), ways=[HeatWayView.of(one) for one in plan.ways], window=WindowView.of(plan.window),
        steps=[HeatStepView.model_validate(one, from_attributes=True) for one in steps_of(plan)],
        water=WaterView.of(plan.water), medium=None if plan.medium is None else plan.medium.medium,
        boils_kg=plan.boils_kg, oven_s=plan.oven_s, bath_s=plan.bath_s, liner_s=plan.liner_s,
        energy_kwh=plan.energy_j / 3.6e6, held_s=plan.held_s,
        cautions=list(cautions_of_drop(plan)), spreads=_spread_words(),
    )  # fmt: skip


@router.get("/{hole}")
def read_heat_plan(
    job_id: UUID,
    hole: int,
    conn: Conn,
    liner: Annotated[str | None, Query(max_length=60)] = None,
    block_c: BlockC = 80.0,
    liner_c: LinerC = -18.0,
    wanted_m: Wanted = WANTED_M,
    air_c: AirC = 20.0,
    humidity: Humidity = 0.5,
    enter_s: Enter = 40.0,
    home_s: Home = 5.0,
    block_kg: Kilograms = 30.0,
    wiped: bool = True,
    pocket_wet: bool = False,
) -> HeatPlanView:
    """Plan the drop of a liner: temperatures, window, water; by the worst pair of readings."""
    tried = Tried(block_c, liner_c, wanted_m, air_c, humidity, enter_s, home_s, block_kg, wiped, pocket_wet)
    now = heat.heat_now(conn, job_id, hole, liner, tried)
    card, force = now.facts.card, now.cold_force
    return HeatPlanView(
        hole=now.fit.hole.number, liner=None if now.fit.liner is None else now.fit.liner.mark,
        missing=PhraseView.of(now.plan) if isinstance(now.plan, Phrase) else None, liner_material=card.liner_material,
        block_material=card.block_material, plan=_plan_view(now.plan),
        sides=[HeatSideView(name=one.name, reason=one.reason, is_followed=one.name == now.side)
               for one in now.school.sides],
        settled_by=now.school.settled_by, seals=[HeatSealView.of(one) for one in now.seals],
        cold_force_n=[] if force is None else [force.low, force.middle, force.high],
    )  # fmt: skip


class RoomAirView(BaseModel):
    """The air of a room while something boils off in it. [s], [1]"""

    times_s: list[float]
    oxygen: list[float]
    carbon_dioxide: list[float]
    least_oxygen: float
    most_carbon_dioxide: float
    oxygen_limit: float
    shift_limit: float
    short_limit: float


@shop_router.get("/room")
def read_room_air(
    medium: Medium = Medium.DRY_ICE,
    kg: Annotated[float, _number(0, 1000, "What boils off. [kg]")] = 5.0,
    room_m3: Annotated[float, _number(1, 100_000, "The room. [m³]")] = 60.0,
    changes_per_h: Annotated[float, _number(0, 100, "Air changes. [1/h]")] = 2.0,
    release_min: Annotated[float, _number(0, 600, "In which time it boils off. [min]")] = 30.0,
    air_c: AirC = 20.0,
) -> RoomAirView:
    """Tell the air of a room while dry ice or nitrogen boils off in it."""
    found = room_told(medium, kg, room_m3, changes_per_h, release_min * 60, air_c)
    return RoomAirView(
        times_s=list(found.times_s), oxygen=list(found.oxygen), carbon_dioxide=list(found.carbon_dioxide),
        least_oxygen=found.least_oxygen, most_carbon_dioxide=found.most_carbon_dioxide, oxygen_limit=LEAST_O2,
        shift_limit=SHIFT_CO2, short_limit=SHORT_CO2,
    )  # fmt: skip
