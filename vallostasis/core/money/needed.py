"""What a job needs before it starts: parts, stones, plates, micrometers with their ranges, from its card and its plan.

Common practice, no published source.
"""

from dataclasses import dataclass
from enum import StrEnum

from vallostasis.core.bores.decisions import contradictions, decision_of
from vallostasis.core.notation.lengths import both_small, metres
from vallostasis.core.operations import schools
from vallostasis.core.operations.schools import side_of
from vallostasis.core.records.bore_decisions import BoreChoice
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.records.rows import Hole, Quantity
from vallostasis.core.records.spec_card import UNLINED, Construction, sheet_of
from vallostasis.core.route.plan import Leg, plan_of

# So many more than are counted are taken, of what breaks or is lost as it goes in. Common practice.
SPARE_SHIMS, SPARE_SEALS = 1, 1


class NeedKind(StrEnum):
    """What is needed: what goes into the engine, what is used up, what the work is done with."""

    PART = "part"
    USED_UP = "used up"
    TOOL = "tool"


@dataclass(frozen=True, slots=True)
class Needed:
    """One thing that a job needs: how many, of which spares, at which holes, why; ``sure`` where it surely goes in."""

    kind: NeedKind
    name: str
    count: int
    spares: int
    holes: tuple[int, ...]
    why: str
    sure: bool = True


def needed_for(facts: JobFacts) -> tuple[Needed, ...]:
    """Return what a job needs, from its construction, its route, what was decided and what was planned.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.

    Returns
    -------
    tuple of Needed
        Parts first, then what is used up, then tools. Common practice, no published source.
    """
    legs = {leg.operation: leg for leg in plan_of(facts)}
    found = [*_for_bores(facts, legs), *_for_liners(facts, legs), *_shims(facts), *_used_up(facts, legs),
             *_tools(facts, legs)]  # fmt: skip
    order = list(NeedKind)
    return tuple(sorted(found, key=lambda one: order.index(one.kind)))


def _numbers(holes: tuple[Hole, ...]) -> tuple[int, ...]:
    return tuple(hole.number for hole in holes)


def _for_bores(facts: JobFacts, legs: dict[Operation, Leg]) -> list[Needed]:
    """Pistons and rings for what is bored, sleeves for what is sleeved; rings alone where bores are only honed."""
    # A bore that did not clean up takes all that go with it to the next step.
    following = {hole: one.following.oversize.um for one in contradictions(facts) if one.following is not None
                 for hole in one.holes}  # fmt: skip
    steps: dict[str, list[int]] = {}
    sleeved: list[int] = []
    for hole in facts.holes:
        decided = decision_of(facts, hole)
        if decided is None:
            continue
        if decided.choice is BoreChoice.SLEEVE:
            sleeved.append(hole.number)
        elif decided.oversize_um is not None:
            step = following.get(hole.number, decided.oversize_um)
            steps.setdefault(f"Piston and rings, {both_small(step)} over", []).append(hole.number)
    found = [Needed(NeedKind.PART, name, len(holes), 0, tuple(holes), "what was decided for the bores")
             for name, holes in steps.items()]  # fmt: skip
    if sleeved:
        found.append(Needed(NeedKind.PART, "Sleeve", len(sleeved), 0, tuple(sleeved), "decided to be sleeved"))
    bored = legs.get(Operation.BORE)
    if bored is not None and not steps and not sleeved:
        found.append(Needed(NeedKind.PART, "Piston and rings", len(bored.holes), 0, _numbers(bored.holes),
                            "what is bored needs its piston measured first"))  # fmt: skip
    honed = legs.get(Operation.HONE)
    if honed is not None and bored is None:
        found.append(Needed(NeedKind.PART, "Ring set", len(honed.holes), 0, _numbers(honed.holes),
                            "a honed bore gets new rings", sure=False))  # fmt: skip
    if facts.card.main_bores and facts.card.construction in UNLINED:
        found.append(Needed(NeedKind.PART, "Main and rod shells", 1, 0, (), "only where mains or rods ask for it",
                            sure=False))  # fmt: skip
    return found


def _for_liners(facts: JobFacts, legs: dict[Operation, Leg]) -> list[Needed]:
    """Gaskets for every head that comes off; a liner for each hole that gets one and has none; seals below."""
    found = []
    if facts.card.layout.holes > 1 or facts.card.construction not in UNLINED:
        found.append(Needed(NeedKind.PART, "Gasket set", 1, 0, (), "the head comes off"))
    fit = legs.get(Operation.FIT)
    if fit is None or facts.card.construction in UNLINED:
        return found
    without = [hole for hole in fit.holes if facts.present_fitting(hole.hole_id) is None]
    spare = len(facts.liners) - sum(facts.present_fitting(hole.hole_id) is not None for hole in facts.holes)
    missing = len(without) - max(spare, 0)
    if missing > 0:
        found.append(Needed(NeedKind.PART, "Liner", missing, 0, _numbers(tuple(without)), "no liner lies here for it"))
    if facts.card.construction in (Construction.WET_TOP_FLANGE, Construction.WET_BOTTOM_SEAT):
        count = len(fit.holes)
        found.append(Needed(NeedKind.PART, "Liner seal set", count + SPARE_SEALS, SPARE_SEALS, _numbers(fit.holes),
                            "seals are never used twice"))  # fmt: skip
    return found


def _shims(facts: JobFacts) -> list[Needed]:
    """Shims of the plan that was chosen, size by size, less what is kept for the job already."""
    newest = facts.standing(facts.planned_holes)
    plan = [one for one in newest if one.plan_id == newest[-1].plan_id] if newest else []
    numbers = {hole.hole_id: hole.number for hole in facts.holes}
    sizes: dict[str, list[int]] = {}
    for one in plan:
        if one.shim_um is not None and facts.last_cut(one.hole_id) is None:
            sizes.setdefault(f"Shim {both_small(one.shim_um)}", []).append(numbers[one.hole_id])
    return [Needed(NeedKind.PART, name, len(holes) + SPARE_SHIMS, SPARE_SHIMS, tuple(holes), "the plan of the block")
            for name, holes in sizes.items()]  # fmt: skip


def _used_up(facts: JobFacts, legs: dict[Operation, Leg]) -> list[Needed]:
    found = []
    if Operation.HONE in legs or Operation.HONE_BLOCK in legs:
        found.append(Needed(NeedKind.USED_UP, "Honing stones, rough and fine", 1, 0, (), "bores are honed"))
    if Operation.CUT in legs:
        found.append(Needed(NeedKind.USED_UP, "Cutter bit", 1, 0, (), "counterbores are cut"))
    if Operation.BORE in legs or Operation.BORE_BLOCK in legs:
        found.append(Needed(NeedKind.USED_UP, "Boring inserts", 1, 0, (), "bores are bored"))
    if Operation.FIT in legs and side_of(facts, schools.COMPOUND) == schools.WITH_COMPOUND:
        found.append(Needed(NeedKind.USED_UP, "Retaining compound", 1, 0, (), "liners go in with compound"))
    return found


def _tools(facts: JobFacts, legs: dict[Operation, Leg]) -> list[Needed]:
    """Plates, and micrometers whose range holds the sizes of the card."""
    found = []
    if Operation.PLATE in legs:
        found.append(Needed(NeedKind.TOOL, "Torque plate with its bolts and gasket", 1, 0, (), "honed under a plate"))
    size = _bore_m(facts)
    if size is not None:
        low = int(size * 1000 // 25) * 25
        found.append(Needed(NeedKind.TOOL, f"Micrometer {low} to {low + 25} mm", 1, 0, (),
                            f"bores of {size * 1000:.1f} mm, and their pistons"))  # fmt: skip
    return found


def _bore_m(facts: JobFacts) -> float | None:
    """The nominal bore of the card, if it names one. [m]"""
    for quantity in (Quantity.LINER_BORE, Quantity.BLOCK_BORE):
        sheet = sheet_of(facts.card, quantity)
        if sheet is not None and sheet.nominal.length is not None:
            return metres(sheet.nominal.length.um)
    return None
