"""How a quantity is read for a card: the unit of a bare number, and where a setup departs from the card."""

from vallostasis.core.lengths import Unit
from vallostasis.core.records import Quantity, Setup
from vallostasis.core.spec_card import CardUnit, SpecCard


def bare_unit_of(quantity: Quantity, card: SpecCard) -> Unit:
    """Unit that a bare number takes when a quantity is read for a card."""
    if quantity is Quantity.PROTRUSION:
        return "0.01 mm" if card.unit is CardUnit.MM else "thou"
    return "mm" if card.unit is CardUnit.MM else "inch"


def cautions_of_setup(card: SpecCard, setup: Setup) -> tuple[str, ...]:
    """Say where the setup departs from the card: readings taken so cannot be held against its limits."""
    if setup.quantity is not Quantity.PROTRUSION:
        return ()
    measuring = card.measuring
    cautions = []
    if setup.land != measuring.land:
        cautions.append(f"The card's limits are for the {measuring.land}, not the {setup.land}.")
    if setup.hold_down != measuring.hold_down:
        cautions.append(f"The card holds the liner down with {measuring.hold_down or 'nothing'}.")
    if setup.hold_down == measuring.hold_down and _torque(setup) != (measuring.hold_down_torque_nm or 0.0):
        cautions.append(f"The card tightens it to {measuring.hold_down_torque_nm or 0:g} N·m.")
    if setup.datum != measuring.datum:
        cautions.append(f"The card measures from {measuring.datum}.")
    return tuple(cautions)


def _torque(setup: Setup) -> float:
    return float(setup.hold_down_torque_nm or 0)
