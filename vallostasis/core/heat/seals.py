"""The seals of a hole as heat and cold meet them: what each rubber bears, when it goes on, its order and grease.

References
----------
.. [1] Seal handbooks, from memory: what rubbers bear; a ring that is cold is stiff, and an edge cuts it going in.
"""

from dataclasses import dataclass

from vallostasis.core.conversions.stack import SealNow, seals_of_hole
from vallostasis.core.heat.stuffs import rubber_limits
from vallostasis.core.records.conversion_terms import GrooveIn, SealRing
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole


@dataclass(frozen=True, slots=True)
class SealInHeat:
    """One ring in its order: how it seals, what it bears [°C] and who says so, what to mind with it here.

    ``bears`` is None where neither its card nor the name of its rubber says; ``minds`` is empty where nothing speaks
    against putting it on before.
    """

    seal: SealNow
    bears: tuple[float, float] | None
    known_by: str
    minds: tuple[str, ...]


def seals_in_heat(facts: JobFacts, hole: Hole, block_c: float, liner_c: float) -> tuple[SealInHeat, ...]:
    """Return the seals of a hole at the temperatures of a drop, in their order. [°C]

    What a ring bears by its card, else by its rubber [1]_ of the module.
    """
    return tuple(_in_heat(one, block_c, liner_c) for one in seals_of_hole(facts, hole))


def bears_of(ring: SealRing) -> tuple[tuple[float, float] | None, str]:
    """Return what a ring bears, and who says so. [°C] By its card, else from memory by the name of its rubber."""
    known = rubber_limits(ring.material)
    if ring.coldest_c is not None and ring.warmest_c is not None:
        return (ring.coldest_c, ring.warmest_c), "by the card"
    if known is None:
        return None, "not known"
    cold = known[0] if ring.coldest_c is None else ring.coldest_c
    warm = known[1] if ring.warmest_c is None else ring.warmest_c
    return (cold, warm), f"by its rubber, {ring.material}"


def _in_heat(seal: SealNow, block_c: float, liner_c: float) -> SealInHeat:
    bears, known_by = bears_of(seal.ring)
    minds = []
    if bears is None:
        minds.append("nobody says what it bears: put it on last, at room temperature")
    else:
        in_liner = seal.ring.groove_in is GrooveIn.LINER
        if in_liner and liner_c < bears[0]:
            minds.append(f"put it on after the cold: below {bears[0]:.0f} °C it is stiff and cracks as it bends")
        if in_liner and block_c > bears[1]:
            minds.append(f"the wall it slides along is {block_c:.0f} °C, it bears {bears[1]:.0f}: less heat, more cold")
        if not in_liner and block_c > bears[1]:
            minds.append(f"put it in after the oven: it bears {bears[1]:.0f} °C")
    return SealInHeat(seal, bears, known_by, tuple(minds))
