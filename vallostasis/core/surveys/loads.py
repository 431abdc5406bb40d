"""How a bore was held while it was read: clamped or free, which of the two is judged, and whether as in the build."""

from decimal import Decimal
from enum import StrEnum

from vallostasis.core.clamping.progress import TORQUE_WITHIN
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity, ReadingSet, Setup
from vallostasis.core.records.spec_card import UNLINED, Judged, SpecCard


class Held(StrEnum):
    """Whether a bore was clamped as under its head."""

    CLAMPED = "clamped"
    FREE = "free"
    NOT_SAID = "not said"


def held(load: str) -> Held:
    """Say from the words of a load whether the bore was clamped. House rule: by what stands on its deck."""
    if "plate on" in load or "head on" in load:
        return Held.CLAMPED
    return Held.FREE if "free" in load else Held.NOT_SAID


def running_bore(card: SpecCard) -> Quantity:
    """Which feature is the bore that a piston runs in. By construction."""
    return Quantity.BLOCK_BORE if card.construction in UNLINED else Quantity.LINER_BORE


def plate_differs(card: SpecCard, setup: Setup) -> tuple[str, ...]:
    """Say in which points a plate was on otherwise than the head will be in the build. Common practice."""
    if held(setup.load) is not Held.CLAMPED:
        return ()
    has_gasket = "gasket in" in setup.load or "head on" in setup.load
    return differs_from_build(card, has_gasket, setup.hold_down, setup.hold_down_torque_nm)


def differs_from_build(card: SpecCard, has_gasket: bool, fasteners: str, torque_nm: Decimal | None) -> tuple[str, ...]:
    """Say in which points gasket, fasteners and torque [N·m] of a plate are not those of the build. Common practice."""
    build, said = card.bores, list[str]()
    if build.plate_gasket and not has_gasket:
        said.append(f"the build has its gasket in ({build.plate_gasket}), the plate was on without one")
    if build.plate_fasteners and not fasteners.strip():
        said.append(f"nobody wrote down which fasteners held the plate; the build has {build.plate_fasteners}")
    elif build.plate_fasteners and fasteners.strip().casefold() != build.plate_fasteners.strip().casefold():
        said.append(f"the plate was held by {fasteners}, the build has {build.plate_fasteners}")
    if build.plate_torque_nm is not None:
        asked = build.plate_torque_nm
        if torque_nm is None:
            said.append(f"nobody wrote down the torque of the plate; the build has {asked:g} N·m")
        elif abs(float(torque_nm) - asked) > float(TORQUE_WITHIN) * asked:
            said.append(f"the plate was torqued to {float(torque_nm):g} N·m, the build has {asked:g} N·m")
    return tuple(said)


def held_otherwise(facts: JobFacts, reading_set: ReadingSet) -> str:
    """Say why the limits of a running bore do not count for a set, by how it was held; empty where they do.

    Common practice, no published source: the shape that counts is the clamped one, and a free bore is never held
    against a clamped target.
    """
    setup, judged = facts.setup(reading_set.setup_id), facts.card.bores.judged
    if setup.quantity is not running_bore(facts.card) or judged is Judged.AS_READ:
        return ""
    found = held(setup.load)
    if found.value != judged.value:
        how = "without saying how it was held" if found is Held.NOT_SAID else found.value
        return f"read {how}: the card's limits are for the {judged.value} bore"
    differs = plate_differs(facts.card, setup)
    return f"the plate was not on as in the build: {'; '.join(differs)}" if differs else ""
