"""What metals of liners and blocks hold and conduct of heat, and the media that warm or cool them.

Handbook figures from memory; a casting differs by a tenth from them.
"""

from dataclasses import dataclass
from enum import StrEnum

from vallostasis.core.thermal.drop import Stuff
from vallostasis.core.thermal.expansion import MATERIAL_WORDS

FROM_MEMORY = "handbook figures, from memory"
# Density, heat capacity and conductivity. [kg/m³], [J/(kg K)], [W/(m K)] From memory of handbook tables.
_HOLDS = {
    "iron": (7200.0, 460.0, 50.0),
    "ductile iron": (7100.0, 460.0, 33.0),
    "aluminium": (2690.0, 920.0, 150.0),
    "steel": (7850.0, 470.0, 45.0),
    "bronze": (8800.0, 380.0, 60.0),
}


def stuff_of(material: str, per_k: float) -> Stuff:
    """Return what a material named in words holds and conducts, as iron where no word of it is known. From memory."""
    words = material.casefold()
    name = next((one for word, one in MATERIAL_WORDS if word in words and one in _HOLDS), "iron")
    return Stuff(*_HOLDS[name], per_k)


class Medium(StrEnum):
    """What warms or cools a part."""

    ROOM = "left in the room"
    FREEZER = "freezer"
    DRY_ICE = "dry ice"
    NITROGEN = "liquid nitrogen"
    OVEN = "oven"
    BATH = "hot water or oil"


@dataclass(frozen=True, slots=True)
class MediumKind:
    """A medium: its temperature where it has one of its own [°C], its film [W/(m² K)], what it takes to boil [J/kg].

    Films from memory: still freezer air, packed ice, nitrogen past its first film, a fan's oven, a stirred bath.
    """

    medium: Medium
    celsius: float | None
    film: float
    boils_j_kg: float | None
    cautions: tuple[str, ...]


_COLD_BURNS = "Cold burns like fire: insulated gloves, face shield, nothing tucked into boots."
_VENT = "It takes the air you breathe: open doors, never in a pit, a cellar or a closed van. Local rules first."
MEDIA = (
    MediumKind(Medium.ROOM, None, 9.0, None, ()),
    MediumKind(Medium.FREEZER, -18.0, 8.0, None, (
        "Bag the liner before it goes in, or it carries its own frost.",)),
    MediumKind(Medium.DRY_ICE, -78.5, 60.0, 571e3, (
        _COLD_BURNS, _VENT, "Never in a closed vessel: it bursts. No wet pocket under it: the water freezes first.")),
    MediumKind(Medium.NITROGEN, -195.8, 150.0, 199e3, (
        _COLD_BURNS, _VENT, "Grey iron is brittle this cold: no hammer, lower it slowly, let the boiling end.",
        "Air that condenses on it is rich in oxygen: keep oil, rags and flames away from cold parts.",
        "Never in a closed vessel: it bursts.")),
    MediumKind(Medium.OVEN, None, 22.0, None, (
        "No solvent, oil or fresh paint in an oven: its vapour explodes. Let washed parts dry first.",
        "Hot aluminium looks cold: chalk HOT on it, lift with gear that stands the heat.")),
    MediumKind(Medium.BATH, None, 400.0, None, (
        "Hot oil and water scald: lower and lift slowly, nothing wet into oil.",)),
)  # fmt: skip


def kind_of(medium: Medium) -> MediumKind:
    """Return what is known of a medium. By its row."""
    return next(one for one in MEDIA if one.medium is medium)


# How warm blocks may get. [°C] Common practice, no published source.
BLOCK_LIMITS = {
    "aluminium": (150.0, "above that a hardened aluminium casting ages and softens"),
    "iron": (260.0, "above that an iron casting moves where its stress lets go"),
}
PAINT_LIMIT = (120.0, "ordinary engine paint blisters about there")
# How cold liners may get. [°C] Common practice, no published source.
LINER_LIMITS = {"iron": (-100.0, "grey iron gets brittle: a knock that it would take at room temperature breaks it")}
# What rubbers bear while nothing presses them: coldest and warmest. [°C] From memory of seal handbooks.
RUBBERS = (("silicone", -55.0, 200.0), ("fluor", -20.0, 200.0), ("fkm", -20.0, 200.0), ("epdm", -45.0, 130.0),
           ("nitrile", -30.0, 100.0), ("nbr", -30.0, 100.0))  # fmt: skip


def rubber_limits(material: str) -> tuple[float, float] | None:
    """Return what a rubber named in words bears, None where no word of it is known. [°C] From memory."""
    words = material.casefold()
    return next(((cold, warm) for word, cold, warm in RUBBERS if word in words), None)


def metal_of(material: str) -> str:
    """Return whose limits a material has. By its words."""
    return "aluminium" if "alumin" in material.casefold() or "alloy" in material.casefold() else "iron"
