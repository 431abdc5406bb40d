"""Water in the air of a shop: dew point, and what gathers on a cold liner.

References
----------
.. [1] Magnus formula with the coefficients of Alduchov and Eskridge (1996), over ice those of Sonntag (1990), from
   memory.
.. [2] Incropera and DeWitt, heat and mass transfer analogy, h_m = h/(ρ·c_p·Le^(2/3)), from memory.
.. [3] Diffusion of water vapour in air, 2.26e-5 m²/s at 0 °C rising with T^1.81, from memory.
"""

from dataclasses import dataclass
from math import exp, log

from vallostasis.core.errors import OutOfDomain, require_finite, require_not_negative
from vallostasis.core.thermal.films import AIR_CP, SEA_LEVEL_PA, air_at

KELVIN = 273.15
# Of water vapour. [J/(kg K)] Water vapour to dry air, by their molar masses. [1]
VAPOUR_R, TO_DRY_AIR = 461.52, 0.621945
WATER_KG_M3 = 1000.0
# Drier than this no air of a shop is. [1]
DRIEST = 1e-3
# Fresh frost is mostly air: from such a density to this one. [kg/m³] From memory.
FROST_KG_M3 = (100.0, 200.0, 400.0)


def saturation_pa(celsius: float) -> float:
    """Return the pressure of saturated vapour, over water above nought and over ice below. [Pa] Magnus [1]_."""
    if celsius >= 0:
        return 610.94 * exp(17.625 * celsius / (celsius + 243.04))
    # So far below it there is nothing left, and the formula has its pole near −272.6 °C.
    return 611.21 * exp(22.46 * celsius / (celsius + 272.62)) if celsius > -250 else 0.0


@dataclass(frozen=True, slots=True)
class MoistAir:
    """Air and the water in it: humidity ratio [kg/kg], pressure of its vapour [Pa], dew and frost point [°C]."""

    air_c: float
    ratio: float
    vapour_pa: float
    dew_c: float
    frost_c: float


def moist_air(air_c: float, relative: float, pressure_pa: float = SEA_LEVEL_PA) -> MoistAir:
    """Return what air holds.

    Parameters
    ----------
    air_c : float
        Temperature. [°C]
    relative : float
        Relative humidity, over water. [1]
    pressure_pa : float
        Of the air. [Pa]

    Returns
    -------
    MoistAir
        By Magnus [1]_ of the module.

    Raises
    ------
    OutOfDomain
        Where humidity is not between a trace and one, or the temperature is none of a shop.
    """
    require_finite(dry_bulb_c=air_c, relative_humidity=relative, pressure_pa=pressure_pa)
    if not -40 <= air_c <= 100:
        raise OutOfDomain("the air of a shop is between −40 and 100 °C", "dry_bulb_c")
    if not DRIEST <= relative <= 1:
        raise OutOfDomain("a relative humidity lies between a thousandth and 1", "relative_humidity")
    over_water = 610.94 * exp(17.625 * air_c / (air_c + 243.04))
    vapour = relative * over_water
    if vapour >= pressure_pa:
        raise OutOfDomain("air is more than the water in it", "pressure_pa")
    shared, ice = log(vapour / 610.94), log(vapour / 611.21)
    dew = 243.04 * shared / (17.625 - shared)
    frost = 272.62 * ice / (22.46 - ice)
    return MoistAir(air_c, TO_DRY_AIR * vapour / (pressure_pa - vapour), vapour, dew, frost)


@dataclass(frozen=True, slots=True)
class Gathered:
    """What gathers on a cold face. [kg/(m² s)], [m]

    ``water_m`` is the film as water, ``frost_m`` as frost of the usual density; nought where the face is above the dew.
    """

    flux: float
    is_frost: bool
    water_m: float
    frost_m: float


def gathered(air: MoistAir, surface_c: float, film: float, seconds: float) -> Gathered:
    """Return what gathers on a face that is kept at a temperature.

    Parameters
    ----------
    air : MoistAir
        The air of the room.
    surface_c : float
        Temperature of the face. [°C]
    film : float
        What the film of air carries by convection alone. [W/(m² K)]
    seconds : float
        How long. [s]

    Returns
    -------
    Gathered
        Heat and mass transfer analogy [2]_, diffusion [3]_ of the module; good to a quarter.
    """
    require_not_negative(film=film, seconds=seconds)
    require_finite(surface_c=surface_c)
    between = (air.air_c + surface_c) / 2
    dry = air_at(between)
    diffusion = 2.26e-5 * ((between + KELVIN) / KELVIN) ** 1.81
    lewis = dry.conductivity / (dry.density * AIR_CP) / diffusion
    carries = film / (dry.density * AIR_CP * lewis ** (2 / 3))
    there = air.vapour_pa / (VAPOUR_R * (air.air_c + KELVIN))
    at_face = saturation_pa(surface_c) / (VAPOUR_R * (surface_c + KELVIN))
    flux = max(0.0, carries * (there - at_face))
    mass = flux * seconds
    return Gathered(flux, surface_c < 0, mass / WATER_KG_M3, mass / FROST_KG_M3[1])
