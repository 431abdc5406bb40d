"""How stiff and how strong the materials of liners and blocks are.

Handbook figures from memory, each with its source label; a casting differs by a tenth from them.
"""

from dataclasses import dataclass

from vallostasis.core.fits.thick_walled import Elastic
from vallostasis.core.thermal.expansion import MATERIAL_WORDS

FROM_MEMORY = "handbook figures, from memory"


@dataclass(frozen=True, slots=True)
class FitMaterial:
    """A material of a fit: stiffness, the stress it bears [Pa], and whether it breaks before it yields.

    ``strength_pa`` is the tensile strength of a brittle one, the yield point of another.
    """

    name: str
    elastic: Elastic
    strength_pa: float
    is_brittle: bool
    source: str = FROM_MEMORY


# From memory of handbook tables.
MATERIALS = {
    one.name: one
    for one in (
        FitMaterial("iron", Elastic(110e9, 0.26), 200e6, True),
        FitMaterial("ductile iron", Elastic(170e9, 0.28), 310e6, False),
        FitMaterial("aluminium", Elastic(71e9, 0.33), 165e6, False),
        FitMaterial("steel", Elastic(207e9, 0.30), 250e6, False),
        FitMaterial("bronze", Elastic(105e9, 0.34), 140e6, False),
    )
}


def fit_material(said: str) -> FitMaterial | None:
    """Return the material that words name, None where no word of them is known. Handbook figures, from memory."""
    words = said.casefold()
    name = next((one for word, one in MATERIAL_WORDS if word in words), None)
    return None if name is None else MATERIALS.get(name)
