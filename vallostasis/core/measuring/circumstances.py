"""Where the circumstances of a reading depart from what the card asks for."""

from vallostasis.core.records import Quantity, Setup
from vallostasis.core.spec_card import SpecCard


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
