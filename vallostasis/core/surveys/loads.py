"""How a bore was held while it was read: clamped or free, which of the two is judged, and whether as in the build."""

from enum import StrEnum

from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity, ReadingSet, Setup
from vallostasis.core.records.spec_card import UNLINED, Judged, SpecCard

# A torque this near to the build's is the build's: what a clicking wrench repeats. Common practice.
TORQUE_WITHIN = 0.04


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
    build, said = card.bores, list[str]()
    if held(setup.load) is not Held.CLAMPED:
        return ()
    if build.plate_gasket and "gasket in" not in setup.load and "head on" not in setup.load:
        said.append(f"the build has its gasket in ({build.plate_gasket}), the plate was on without one")
    if build.plate_fasteners and not setup.hold_down.strip():
        said.append(f"nobody wrote down which fasteners held the plate; the build has {build.plate_fasteners}")
    elif build.plate_fasteners and setup.hold_down.strip().casefold() != build.plate_fasteners.strip().casefold():
        said.append(f"the plate was held by {setup.hold_down}, the build has {build.plate_fasteners}")
    if build.plate_torque_nm is not None:
        asked, was = build.plate_torque_nm, setup.hold_down_torque_nm
        if was is None:
            said.append(f"nobody wrote down the torque of the plate; the build has {asked:g} N·m")
        elif abs(float(was) - asked) > TORQUE_WITHIN * asked:
            said.append(f"the plate was torqued to {float(was):g} N·m, the build has {asked:g} N·m")
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
