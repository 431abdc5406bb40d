"""Heat from a part to still air: what the film carries, by convection and by radiation.

References
----------
.. [1] Churchill and Chu, Int. J. Heat Mass Transfer 18 (1975) 1323: free convection from a vertical plate.
.. [2] Sutherland's formulas for the viscosity and conductivity of air, coefficients from memory.
.. [3] Stefan-Boltzmann law, grey surfaces.
"""

from dataclasses import dataclass

from vallostasis.core.errors import OutOfDomain, require_finite

KELVIN = 273.15
STEFAN = 5.670374419e-8
GRAVITY = 9.80665
# Of dry air. [J/(kg K)]
AIR_R, AIR_CP = 287.055, 1007.0
SEA_LEVEL_PA = 101_325.0


@dataclass(frozen=True, slots=True)
class Air:
    """Dry air: density, viscosity, conductivity. [kg/m³], [Pa s], [W/(m K)]"""

    density: float
    viscosity: float
    conductivity: float

    @property
    def prandtl(self) -> float:
        """Viscosity times heat capacity over conductivity. [1] By definition."""
        return self.viscosity * AIR_CP / self.conductivity


@dataclass(frozen=True, slots=True)
class Film:
    """What a film of air carries off a part. [W/(m² K)]"""

    convection: float
    radiation: float

    @property
    def total(self) -> float:
        """Both together. [W/(m² K)] Sum."""
        return self.convection + self.radiation


def air_at(celsius: float, pressure_pa: float = SEA_LEVEL_PA) -> Air:
    """Return the properties of dry air. Ideal gas, Sutherland [2]_ of the module; within 3 % from −150 to 200 °C.

    Raises
    ------
    OutOfDomain
        Below −200 °C, or without pressure.
    """
    require_finite(celsius=celsius, pressure_pa=pressure_pa)
    at = celsius + KELVIN
    if at < 73 or pressure_pa <= 0:
        raise OutOfDomain("air is a gas above −200 °C", "air_temperature_c")
    viscosity = 1.458e-6 * at**1.5 / (at + 110.4)
    conductivity = 2.64638e-3 * at**1.5 / (at + 245.4 * 10 ** (-12 / at))
    return Air(pressure_pa / (AIR_R * at), viscosity, conductivity)


def film_of(surface_c: float, air_c: float, height_m: float, emissivity: float = 0.7,
            pressure_pa: float = SEA_LEVEL_PA) -> Film:  # fmt: skip
    """Return the film of a vertical face in still air.

    Parameters
    ----------
    surface_c, air_c : float
        Temperatures; walls round it are as the air is. [°C]
    height_m : float
        Height of the face. [m]
    emissivity : float
        Of its surface; as machined iron has 0.4 to 0.8. [1]
    pressure_pa : float
        Of the air. [Pa]

    Returns
    -------
    Film
        Churchill and Chu [1]_ at the film's temperature; a cylinder counts as a plate while it is wide. Grey radiation
        [3]_ of the module. [W/(m² K)]

    Raises
    ------
    OutOfDomain
        Without a height, or with an emissivity beyond 0 to 1.
    """
    require_finite(surface_temperature_c=surface_c, height_m=height_m)
    if height_m <= 0:
        raise OutOfDomain("a face has a height above nought", "height_m")
    if not 0 <= emissivity <= 1:
        raise OutOfDomain("an emissivity lies between 0 and 1", "emissivity")
    between = (surface_c + air_c) / 2
    air = air_at(between, pressure_pa)
    kinematic = air.viscosity / air.density
    grashof = GRAVITY * abs(surface_c - air_c) * height_m**3 / ((between + KELVIN) * kinematic**2)
    rayleigh, prandtl = grashof * air.prandtl, air.prandtl
    nusselt = (0.825 + 0.387 * rayleigh ** (1 / 6) / (1 + (0.492 / prandtl) ** (9 / 16)) ** (8 / 27)) ** 2
    hot, cold = surface_c + KELVIN, air_c + KELVIN
    radiation = emissivity * STEFAN * (hot + cold) * (hot**2 + cold**2)
    return Film(nusselt * air.conductivity / height_m, radiation)


def biot(film: float, wall_m: float, conductivity: float) -> float:
    """Return how a film compares with a wall [m] behind it: below 0.1 that is as warm all through. [1] By definition.

    Raises
    ------
    OutOfDomain
        Where the wall conducts nothing.
    """
    if conductivity <= 0:
        raise OutOfDomain("a wall conducts", "conductivity")
    return film * wall_m / conductivity
