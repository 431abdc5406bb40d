"""The air of a room where dry ice or nitrogen boils off: oxygen and carbon dioxide against time.

References
----------
.. [1] A well mixed room: what comes in mixes at once, as much goes out. Linear, solved in closed form.
.. [2] Ideal gas; molar masses of nitrogen and carbon dioxide.
.. [3] Occupational limits of the United States, from memory: 19.5 % oxygen; 5,000 ppm carbon dioxide over a shift,
   30,000 ppm for a quarter of an hour. Local rules first.
"""

from dataclasses import dataclass
from enum import StrEnum
from math import exp, expm1

from vallostasis.core.errors import OutOfDomain, require_finite, require_not_negative
from vallostasis.core.thermal.films import SEA_LEVEL_PA

KELVIN = 273.15
GAS_R = 8.314462618
# Outside air. [1]
FRESH_O2, FRESH_CO2 = 0.2095, 420e-6
LEAST_O2, SHIFT_CO2, SHORT_CO2 = 0.195, 5_000e-6, 30_000e-6


class Gas(StrEnum):
    """What boils off."""

    NITROGEN = "N2"
    CARBON_DIOXIDE = "CO2"


_KG_PER_MOL = {Gas.NITROGEN: 28.0134e-3, Gas.CARBON_DIOXIDE: 44.0095e-3}


@dataclass(frozen=True, slots=True)
class Room:
    """A room and what boils off in it. [m³], [1/h], [kg], [s]; all at once where ``release_s`` is nought."""

    gas: Gas
    mass_kg: float
    volume_m3: float
    changes_per_h: float
    release_s: float
    celsius: float = 20.0

    def __post_init__(self) -> None:
        """Refuse what is no room."""
        require_not_negative(mass_kg=self.mass_kg, air_changes_per_h=self.changes_per_h,
                             release_time_s=self.release_s)  # fmt: skip
        require_finite(room_m3=self.volume_m3, temperature_c=self.celsius)
        if self.volume_m3 <= 0:
            raise OutOfDomain("a room has a volume above nought", "room_m3")

    @property
    def gas_m3(self) -> float:
        """Volume of the gas at the room's temperature. [m³] Ideal gas [2]_ of the module."""
        return self.mass_kg / _KG_PER_MOL[self.gas] * GAS_R * (self.celsius + KELVIN) / SEA_LEVEL_PA


def fraction_at(room: Room, seconds: float, fresh: float, in_gas: float) -> float:
    """Return the share of one gas in the air of a room.

    Parameters
    ----------
    room : Room
        The room.
    seconds : float
        Since the boiling began. [s]
    fresh, in_gas : float
        Its share in the air that comes in, and in what boils off. [1]

    Returns
    -------
    float
        Closed form of a well mixed room [1]_ of the module. [1]
    """
    require_not_negative(seconds=seconds)
    air = room.volume_m3 * room.changes_per_h / 3600
    if room.release_s <= 0:
        share = exp(-room.gas_m3 / room.volume_m3)
        at_end, since = fresh * share + in_gas * (1 - share), seconds
    else:
        boils = room.gas_m3 / room.release_s
        goes = (air + boils) / room.volume_m3
        settles = fresh if goes == 0 else (air * fresh + boils * in_gas) / (air + boils)
        upto = min(seconds, room.release_s)
        at_end, since = fresh - (settles - fresh) * expm1(-goes * upto), seconds - upto
    return fresh + (at_end - fresh) * exp(-air / room.volume_m3 * since)


def oxygen_at(room: Room, seconds: float) -> float:
    """Return the share of oxygen. [1] A well mixed room [1]_ of the module."""
    return fraction_at(room, seconds, FRESH_O2, 0.0)


def carbon_dioxide_at(room: Room, seconds: float) -> float:
    """Return the share of carbon dioxide. [1] A well mixed room [1]_ of the module."""
    return fraction_at(room, seconds, FRESH_CO2, 1.0 if room.gas is Gas.CARBON_DIOXIDE else 0.0)


def worst_air(room: Room) -> tuple[float, float]:
    """Return the least oxygen and the most carbon dioxide that a room ever has. [1] At the end of the boiling [1]_."""
    end = room.release_s
    return min(FRESH_O2, oxygen_at(room, end)), max(FRESH_CO2, carbon_dioxide_at(room, end))
