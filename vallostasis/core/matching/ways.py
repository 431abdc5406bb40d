"""Every liner in every hole of a job as read: how it would stand there, whether that is in, and what cuts it takes.

Nothing is exchanged for a difference that nobody measured: a hole or liner that is not read is said, and left out.
"""

from dataclasses import dataclass, field, replace

from vallostasis.core.block_plans.of_job import PlanWishes, block_problem
from vallostasis.core.block_plans.problem import BlockProblem, Choice, HoleToPlan, choices_of
from vallostasis.core.counterbore.cut_plan import CutParts
from vallostasis.core.counterbore.hole_plan import cut_parts
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.fits.fit import Fit, FitRefused, fit_of, worst_state
from vallostasis.core.fits.wanted import wanted_of
from vallostasis.core.protrusion.measured import (
    between_parts,
    doubt_of_parts,
    flange_part,
    ledge_of,
    measured_hole,
    shim_part,
)
from vallostasis.core.protrusion.stack import StackPart, predict_protrusion
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.rows import FittedShim, Hole, Liner
from vallostasis.core.records.spec_card import CONSTRUCTIONS_WITH_LEDGE, UNLINED, Construction
from vallostasis.core.surveys.places import protrusion_limits
from vallostasis.core.uncertainty.budget import Estimate, Stated, difference_of, mean_of, stated
from vallostasis.core.uncertainty.decision import State, decide, state_of

PROTRUSION, PRESS = "protrusion", "press"


@dataclass(frozen=True, slots=True)
class Stands:
    """A liner in a hole: its protrusion as it is, or its press once honed; the limits there; whether it is in. [m]

    ``honing_m`` is what has to come off the diameter first; ``cuts`` every way to cut the hole for it, by shim.
    """

    liner: str
    value: Stated
    estimate: Estimate
    state: State
    least_m: float
    greatest_m: float
    honing_m: float = 0.0
    cuts: tuple[Choice, ...] = ()


@dataclass(frozen=True, slots=True)
class Ways:
    """Holes by liners, what is in each now, and what was left out for want of a reading; shims and rules of cuts.

    ``why_no_cut`` says why nothing is cut, empty where it may be; ``grades`` are the letters stamped on parts.
    """

    of: str
    holes: tuple[Hole, ...]
    liners: tuple[Liner, ...]
    rows: tuple[tuple[Stands, ...], ...]
    now: tuple[str | None, ...]
    missing: tuple[str, ...]
    cutting: BlockProblem | None = None
    why_no_cut: str = ""
    grades: dict[str, str] = field(default_factory=dict)

    def unlike(self, hole: Hole, liner: Liner) -> bool:
        """Whether hole and liner carry letters that differ; one without letters goes anywhere. By comparison."""
        of_hole, of_liner = self.grades.get(f"hole-{hole.number}", ""), self.grades.get(f"liner-{liner.mark}", "")
        return bool(of_hole and of_liner) and of_hole != of_liner

    @property
    def graded(self) -> bool:
        """Whether some hole and some liner carry letters of a grade."""
        return any(one.startswith("hole-") for one in self.grades) and any(
            one.startswith("liner-") for one in self.grades)  # fmt: skip


def ways_of(facts: JobFacts) -> Ways | str:
    """Hold every liner of a job against every hole.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.

    Returns
    -------
    Ways or str
        By protrusion where a flange rests on a ledge, by the press where a dry sleeve does not; or why nothing can be
        matched yet. [m] House rule.
    """
    construction = facts.card.construction
    if construction in UNLINED:
        return f"A {construction.value} has no liners to match."
    by_height = construction in CONSTRUCTIONS_WITH_LEDGE and construction is not Construction.DRY_FLANGED
    found = _wet(facts) if by_height else _dry(facts)
    return found if isinstance(found, str) else replace(found, grades=_grades(facts))


def _grades(facts: JobFacts) -> dict[str, str]:
    """Letters of holes and liners by part: the newest of each, upper and lower case alike. House rule."""
    letters = {one.part: one.letters.strip().casefold() for one in facts.standing(facts.stamps)}
    return {part: one for part, one in letters.items() if one and part.startswith(("hole-", "liner-"))}


def liner_in(facts: JobFacts, hole: Hole) -> str | None:
    """Return the mark of the liner in a hole; None where there is none."""
    fitting = facts.present_fitting(hole.hole_id)
    return None if fitting is None else facts.liner(fitting.liner_id).mark


@once
def _wet(facts: JobFacts) -> Ways | str:
    card = facts.card
    limits = protrusion_limits(card, with_shim=False)
    if limits.least_m is None or limits.greatest_m is None:
        return "Write the limits of the protrusion without shim on the card: what is matched is held against them."
    land = card.measuring.land
    read = [hole for hole in facts.holes if ledge_of(facts, hole) is not None]
    known = [one for one in facts.liners if flange_part(facts, one, land) is not None]
    missing = [f"hole {hole.number}: its ledge is not read all round" for hole in facts.holes if hole not in read]
    missing += [f"{one.mark}: its flange is not read at the {land}" for one in facts.liners if one not in known]
    doubtful = {hole.number: why for hole in read if (why := doubt_about(facts, hole, land))}
    missing += [f"hole {number}: {why}" for number, why in doubtful.items()]
    # Nobody knows how a liner without a flange would stand elsewhere: it stays, and its hole with it.
    marks_known = {None, *(one.mark for one in known)}
    holes = [hole for hole in read if hole.number not in doubtful and liner_in(facts, hole) in marks_known]
    stay = {liner_in(facts, hole) for hole in facts.holes if hole not in holes}
    liners = [one for one in known if one.mark not in stay]
    if not holes or len(liners) < len(holes):
        return "Read every ledge and at least as many flanges first: " + "; ".join(missing or ["nothing is read yet"])
    cutting, why_no_cut = _cutting(facts)
    rows = tuple(tuple(_stands(facts, hole, one, cutting) for one in liners) for hole in holes)
    now = tuple(liner_in(facts, hole) for hole in holes)
    return Ways(PROTRUSION, tuple(holes), tuple(liners), rows, now, tuple(missing), cutting, why_no_cut)


def _cutting(facts: JobFacts) -> tuple[BlockProblem | None, str]:
    if not facts.card.shims:
        return None, "The card names no shim sizes: enter them, then what must be cut can be told."
    try:
        return block_problem(facts, PlanWishes()), ""
    except OutOfDomain as missing:
        return None, str(missing)


def doubt_about(facts: JobFacts, hole: Hole, land: str) -> str:
    """Why neither ledge nor liner of a hole may decide anything: a moved zero, or parts that its reading contradicts.

    Swapping on a number that is wrong is how months are lost. Common practice, no published source.
    """
    fitting = facts.present_fitting(hole.hole_id)
    if why := doubt_of_parts(facts, hole, None if fitting is None else facts.liner(fitting.liner_id), land):
        return why
    residual = measured_hole(facts, hole).residual
    if residual is None or residual.agrees:
        return ""
    return "its parts and its reading disagree: find out which is wrong before its liner goes anywhere"


def _stands(facts: JobFacts, hole: Hole, liner: Liner, cutting: BlockProblem | None) -> Stands:
    """A liner on the ledge of a hole, on the shims that lie there: as read where it is in it, else by the parts. [m]

    What is there and read needs no sum; the rest is the sum of the stack. House rule.
    """
    card, fitting = facts.card, facts.present_fitting(hole.hole_id)
    shims = () if fitting is None else facts.shims_of(fitting.fitting_id)
    limits = protrusion_limits(card, with_shim=bool(shims))
    here = measured_hole(facts, hole) if liner_in(facts, hole) == liner.mark else None
    read = None if here is None else here.centre
    found = _by_parts(facts, hole, liner, shims) if read is None else read
    value = stated(f"{liner.mark} in hole {hole.number}", found, card.coverage_factor)
    least = -1.0 if limits.least_m is None else limits.least_m
    greatest = 1.0 if limits.greatest_m is None else limits.greatest_m
    state = decide(value.value_m, value.expanded_m, least, greatest, card.acceptance).state
    if here is not None and read is not None:
        # Everything that was read of it counts: a centre that is in makes no hole in.
        state = worst_state([state, state_of(here.standing)[0]])
    cuts = () if cutting is None else _cuts(facts, hole, liner, cutting)
    return Stands(liner.mark, value, found, state, least, greatest, cuts=cuts)


def _by_parts(facts: JobFacts, hole: Hole, liner: Liner, shims: tuple[FittedShim, ...]) -> Estimate:
    ledge, flange = ledge_of(facts, hole), flange_part(facts, liner, facts.card.measuring.land)
    assert ledge is not None
    assert flange is not None
    rests = StackPart("ledge the flange rests on", ledge.estimate)
    return predict_protrusion(flange, tuple(map(shim_part, shims)), rests, between_parts(facts.card)).estimate


def _cuts(facts: JobFacts, hole: Hole, liner: Liner, cutting: BlockProblem) -> tuple[Choice, ...]:
    """Ways to cut a hole for a liner that end inside: clean all round, ledge enough left, in the window on a shim."""
    parts = cut_parts(facts, hole, liner)
    if not isinstance(parts, CutParts):
        return ()
    planned = HoleToPlan(hole.number, None, State.NOT_MEASURED, "", parts, "", cutting.rules.limits.target_m)
    return tuple(one for one in choices_of(cutting, planned) if one.cut is not None and not one.open)


@once
def _dry(facts: JobFacts) -> Ways | str:
    wanted = wanted_of(facts)
    if wanted is None or wanted.least_m is None or wanted.greatest_m is None:
        return "Write the least and the greatest press on the card: what is matched is held against them."
    settled = {liner_in(facts, hole) for hole in facts.holes} - {None}
    holes = [hole for hole in facts.holes if liner_in(facts, hole) is None]
    missing = [f"hole {hole.number}: its liner is home" for hole in facts.holes if hole not in holes]
    liners = [one for one in facts.liners if one.mark not in settled]
    found = {(hole, one): fit_of(facts, hole, one.mark) for hole in holes for one in liners}
    for hole in list(holes):
        refused = [one.reason.text for one in (found[hole, liner] for liner in liners)
                   if isinstance(one, FitRefused) and one.part.startswith("hole")]  # fmt: skip
        if refused:
            missing.append(refused[0].removesuffix("."))
            holes.remove(hole)
    for liner in list(liners):
        if any(isinstance(found[hole, liner], FitRefused) for hole in holes):
            missing.append(f"{liner.mark}: its outside is not read")
            liners.remove(liner)
    if not holes or len(liners) < len(holes):
        return "Read every block bore and at least as many outsides first: " + "; ".join(missing or ["nothing is read"])
    rows = tuple(
        tuple(_pressed(fit, wanted.least_m, wanted.greatest_m, wanted.aim_m, facts.card.coverage_factor)
              for one in liners if isinstance(fit := found[hole, one], Fit))
        for hole in holes
    )  # fmt: skip
    no_cut = "A dry sleeve is fitted by its press: the bore is honed for it, no ledge is cut."
    return Ways(PRESS, tuple(holes), tuple(liners), rows, (None,) * len(holes), tuple(missing), None, no_cut)


def _pressed(fit: Fit, least_m: float, greatest_m: float, aim_m: float | None, coverage_factor: float) -> Stands:
    """The press of a liner in a hole once as much is honed as brings its tightest place to the aim. [m]

    Nothing is honed where no level is over the greatest press; what is too loose nothing makes tighter. Common
    practice, no published source.
    """
    places = [place.press for level in fit.levels for place in level.places]
    tightest = max(one.value_m for one in places)
    honing = max(0.0, tightest - (greatest_m if aim_m is None else aim_m)) if tightest > greatest_m else 0.0
    found = mean_of([difference_of(level.liner, level.bore) for level in fit.levels])
    estimate = replace(found, value_m=found.value_m - honing)
    value = stated(f"{fit.liner.mark} in hole {fit.hole.number}", estimate, coverage_factor)
    loosest = min(places, key=lambda one: one.value_m)
    state = decide(loosest.value_m - honing, loosest.expanded_m, least_m, None).state
    known = fit.state in (State.IN, State.OUT, State.CANNOT_TELL)
    return Stands(fit.liner.mark, value, estimate, state if known and honing > 0.0 else fit.state, least_m, greatest_m,
                  honing)  # fmt: skip
