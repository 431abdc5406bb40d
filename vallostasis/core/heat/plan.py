"""The plan of one drop: the pair of temperatures tried, the window that it opens, water, air, time held.

References
----------
.. [1] JCGM 100:2008 (GUM), F.1.2.3: the worst pair of readings decides.
"""

from dataclasses import dataclass

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.fits.fit import Fit
from vallostasis.core.heat.planner import (
    Drops,
    HeatFit,
    Limit,
    Way,
    against,
    boils_kg,
    drops,
    heat_fit,
    held_s,
    limits_of,
    line_of,
    liner_soak_s,
    says_of,
    soak_s,
    spreads_of,
    ways_of,
)
from vallostasis.core.heat.stuffs import MEDIA, Medium, MediumKind, kind_of
from vallostasis.core.heat.window import Window, drop_window
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.thermal.films import film_of
from vallostasis.core.thermal.moist_air import FROST_KG_M3, WATER_KG_M3, Gathered, MoistAir, gathered, moist_air
from vallostasis.core.thermal.room_air import Gas, Room, carbon_dioxide_at, oxygen_at, worst_air
from vallostasis.core.trail import Phrase

# Liners of the chart of pairs. [°C]
CHART_C = (-195.8, -170.0, -140.0, -110.0, -95.0, -78.5, -60.0, -45.0, -30.0, -18.0, -8.0, 0.0, 10.0, 20.0, 30.0, 45.0)
# A cold place within this of its medium's temperature is that medium. [K] House rule.
NEAR_MEDIUM_K = 12.0
# A liner colder than this freezes what it touches at once. [°C] Common practice.
FREEZES_HARD_C = -30.0
# A block this much warmer than the room came from an oven. [K] House rule.
HOT_ABOVE_K = 15.0
# Moments at which the air of a room is told. [s]
ROOM_S = tuple(300.0 * one for one in range(25))


@dataclass(frozen=True, slots=True)
class Tried:
    """What somebody tries: temperatures [°C], the clearance wanted [m], seconds until it enters and until it is home.

    ``block_kg`` is what the block weighs, ``wiped`` whether the liner is wiped and dried as it goes in, ``pocket_wet``
    whether water stands in a pocket of the block or on the liner.
    """

    block_c: float
    liner_c: float
    wanted_m: float
    air_c: float
    humidity: float
    enter_s: float
    home_s: float
    block_kg: float
    wiped: bool
    pocket_wet: bool = False


@dataclass(frozen=True, slots=True)
class Water:
    """What gathers on the cold liner until it enters, a side, against the gap that is there then. [m]

    ``least_m`` and ``most_m`` are how it lies there: water, or frost of its heaviest and lightest; ``left`` is the
    share that is on it as it enters [1]; ``gap_m`` half the clearance of the lower edge.
    """

    air: MoistAir
    gathered: Gathered
    least_m: float
    most_m: float
    left: float
    gap_m: float
    is_wet: bool


@dataclass(frozen=True, slots=True)
class HeatStep:
    """A step of the run: until when it lasts [s], what is clear for sure then [m], what that means for the hands."""

    name: str
    until_s: float
    low_m: float
    drops: Drops


@dataclass(frozen=True, slots=True)
class HeatPlan:
    """The plan of one drop. [m], [°C], [s]

    ``oven_s`` and ``bath_s`` are how long the block soaks in either, ``liner_s`` the liner in its cold, None where it
    is in none; ``energy_j`` is what the block takes up [J].
    """

    fit: HeatFit
    tried: Tried
    cold: float
    at_start: Drops
    says: Phrase
    wanted_line: tuple[tuple[float, float], ...]
    touch_line: tuple[tuple[float, float], ...]
    limits: tuple[Limit, ...]
    against: tuple[str, ...]
    ways: tuple[Way, ...]
    window: Window
    water: Water
    medium: MediumKind | None
    boils_kg: float | None
    oven_s: float
    bath_s: float
    liner_s: float | None
    energy_j: float
    held_s: float


@dataclass(frozen=True, slots=True)
class RoomTold:
    """The air of a room while something boils off in it. [s], [1]"""

    times_s: tuple[float, ...]
    oxygen: tuple[float, ...]
    carbon_dioxide: tuple[float, ...]
    least_oxygen: float
    most_carbon_dioxide: float


def heat_plan(facts: JobFacts, fit: Fit, tried: Tried) -> HeatPlan | Phrase:
    """Plan one drop.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    fit : Fit
        The fit at 20 °C.
    tried : Tried
        What somebody tries.

    Returns
    -------
    HeatPlan or Phrase
        Or what is missing. By the worst pair of readings [1]_ of the module.

    Raises
    ------
    OutOfDomain
        If a temperature, a time or a weight is none.
    """
    if tried.home_s < 0:
        raise OutOfDomain("it is home after it enters", "home_s")
    found = heat_fit(facts, fit)
    if isinstance(found, Phrase):
        return found
    if tried.pocket_wet and tried.liner_c < FREEZES_HARD_C:
        return Phrase("Water in a pocket freezes before the liner is home, holds it off its seat and cracks what it "
                      "stands in: blow it dry first, or stay above −30 °C.")  # fmt: skip
    limits = limits_of(facts.card)
    spreads = spreads_of(found, tried.liner_c, tried.block_c, tried.air_c, tried.block_kg)
    window = drop_window(found.sizes, spreads, tried.air_c, tried.enter_s, tried.wanted_m)
    cold = found.pair.clearance(tried.block_c, tried.liner_c)
    # No better than the lower edge of its window: temperatures are off as well as sizes.
    sure = min(cold, float(window.low_m[0]))
    medium = medium_of(tried.liner_c)
    boils = None if medium is None else boils_kg(medium, found.liner_kg, found.sizes.liner, tried.liner_c - tried.air_c)
    return HeatPlan(
        found, tried, cold, drops(sure, tried.wanted_m), says_of(sure, tried.wanted_m),
        line_of(found, tried.wanted_m, CHART_C), line_of(found, 0.0, CHART_C), limits,
        against(limits, tried.block_c, tried.liner_c),
        ways_of(facts, found, tried.wanted_m, tried.air_c, max(80.0, tried.block_c)), window,
        water_on(found, tried, window), medium, boils,
        _block_soak(found, tried, Medium.OVEN), _block_soak(found, tried, Medium.BATH),
        None if medium is None else liner_soak_s(found, medium, tried.liner_c - tried.air_c),
        max(0.0, tried.block_kg * found.sizes.block.c * (tried.block_c - tried.air_c)),
        held_s(found.sizes.block, tried.block_kg, tried.block_c, tried.air_c),
    )  # fmt: skip


def steps_of(plan: HeatPlan) -> tuple[HeatStep, ...]:
    """Return the steps of a run with what is clear for sure at the end of each, frost that is left on it taken off. [m]

    Lower edge of the window less what lies on both sides; house rule.
    """
    tried, frost = plan.tried, 2 * plan.water.most_m * plan.water.left
    named = (("out of the cold", 0.0, 0.0), ("carried, wiped, over the hole", tried.enter_s, frost),
             ("home", tried.enter_s + tried.home_s, frost))  # fmt: skip
    lows = [plan.window.at(until)[0] - off for _, until, off in named]
    return tuple(HeatStep(name, until, low, drops(low, tried.wanted_m))
                 for (name, until, _), low in zip(named, lows, strict=True))  # fmt: skip


def cautions_of_drop(plan: HeatPlan) -> tuple[str, ...]:
    """Return what can hurt at these temperatures: in the cold, and at the oven. Common practice."""
    cold = () if plan.medium is None else plan.medium.cautions
    is_hot = plan.tried.block_c > plan.tried.air_c + HOT_ABOVE_K
    return (*cold, *(kind_of(Medium.OVEN).cautions if is_hot else ()))


def _block_soak(fit: HeatFit, tried: Tried, medium: Medium) -> float:
    """How long the wall of the block stands in a medium, which reaches it from one side only. [s]"""
    return soak_s(kind_of(medium), fit.sizes.block, fit.wall_m, tried.block_c - tried.air_c, both_faces=False)


def medium_of(liner_c: float) -> MediumKind | None:
    """Return the cold place that a temperature is that of; None where it is near none. [°C] House rule."""
    colds = [one for one in MEDIA if one.celsius is not None and abs(one.celsius - liner_c) <= NEAR_MEDIUM_K]
    return min(colds, key=lambda one: abs((one.celsius or 0.0) - liner_c)) if colds else None


def water_on(fit: HeatFit, tried: Tried, window: Window) -> Water:
    """Return what gathers on the liner on its way, a side. [m]

    Heat and mass transfer analogy with the film's convection alone, from memory; nothing where it is wiped and dried as
    it goes in: common practice.
    """
    air = moist_air(tried.air_c, tried.humidity)
    film = film_of(tried.liner_c, tried.air_c, fit.sizes.length_m).convection
    found = gathered(air, tried.liner_c, film, tried.enter_s)
    mass = found.water_m * WATER_KG_M3
    ends = (mass / FROST_KG_M3[2], mass / FROST_KG_M3[0]) if found.is_frost else (found.water_m, found.water_m)
    left = 0.0 if tried.wiped else 1.0
    gap = max(0.0, window.at(tried.enter_s)[0]) / 2
    return Water(air, found, ends[0], ends[1], left, gap, found.flux > 0)


def room_told(medium: Medium, kg: float, room_m3: float, changes_per_h: float, release_s: float,
              celsius: float) -> RoomTold:  # fmt: skip
    """Return the air of a room while dry ice or nitrogen boils off in it.

    Parameters
    ----------
    medium : Medium
        Dry ice or liquid nitrogen.
    kg, room_m3, changes_per_h, release_s, celsius : float
        How much boils off [kg], the room [m³], its air changes [1/h], in which time [s], its temperature [°C].

    Returns
    -------
    RoomTold
        Well mixed, in closed form.

    Raises
    ------
    OutOfDomain
        For a medium that gives off nothing.
    """
    gases = {Medium.DRY_ICE: Gas.CARBON_DIOXIDE, Medium.NITROGEN: Gas.NITROGEN}
    if medium not in gases:
        raise OutOfDomain(f"{medium.value} gives off nothing that takes the air", "medium")
    room = Room(gases[medium], kg, room_m3, changes_per_h, release_s, celsius)
    least, most = worst_air(room)
    return RoomTold(ROOM_S, tuple(oxygen_at(room, one) for one in ROOM_S),
                    tuple(carbon_dioxide_at(room, one) for one in ROOM_S), least, most)  # fmt: skip
