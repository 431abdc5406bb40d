"""Torque plate and caps beside the build: whether they are on as the engine will run, and each bore clamped and free.

References
----------
.. [1] JCGM 100:2008 (GUM), 5.1.2: what both readings share cancels in their difference.
"""

from collections.abc import Iterator
from dataclasses import dataclass

from vallostasis.core.bores.wall import Change, part_of_bore, wall_of
from vallostasis.core.clamping.progress import Progress, tight_over, tightenings_of, why_not_tight
from vallostasis.core.operations import schools
from vallostasis.core.operations.schools import side_of
from vallostasis.core.records.clamping import Clamp
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole
from vallostasis.core.records.spec_card import UNLINED, Construction, SpecCard
from vallostasis.core.surveys.derived import DerivedKind, worst
from vallostasis.core.surveys.loads import Held, differs_from_build, held, running_bore
from vallostasis.core.surveys.survey import Survey, surveys_by_load
from vallostasis.core.trail import Phrase, Term
from vallostasis.core.uncertainty.budget import Stated
from vallostasis.core.uncertainty.decision import State


@dataclass(frozen=True, slots=True)
class HoleHeld:
    """One hole under plate and free: states, out of round of each [m], what the plate changes, what is to be read.

    What was read before the bore was worked on last is no reading of it any more.
    """

    hole: Hole
    clamped: Stated | None
    clamped_state: State
    clamped_reason: str
    free: Stated | None
    change: Change | None
    says: tuple[Phrase, ...]


def why_not_as_build(card: SpecCard, progress: Progress) -> tuple[str, ...]:
    """Say in which points a plate on record is not as the head will be in the build; nothing of caps.

    Common practice, no published source: plate set-up is matched to the build.
    """
    begun = progress.begun
    if begun.clamp is not Clamp.PLATE:
        return ()
    said = list(differs_from_build(card, bool(begun.gasket.strip()), begun.fasteners, begun.stages[-1]))
    wanted = card.bores.plate_gasket.strip()
    if wanted and begun.gasket.strip() and begun.gasket.strip().casefold() != wanted.casefold():
        said.append(f"the gasket under the plate is {begun.gasket}, the build has {wanted}")
    if progress.otherwise:
        bolts = ", ".join(str(one) for one in progress.otherwise)
        said.append(f"bolt {bolts} stands at another torque than {float(begun.stages[-1]):g} N·m")
    return tuple(said)


def plate_advice(facts: JobFacts) -> str:
    """Say what a plate does in this construction. Common practice, no published source."""
    if side_of(facts, schools.PLATE) == schools.NO_PLATE:
        return "This job is honed without a plate, by its school: its limits are then those of the free bore."
    kind = facts.card.construction
    if kind in UNLINED:
        return "The head bolts pull at the wall of a bore in the block: it is honed as it will be clamped."
    if kind in (Construction.DRY_PLAIN, Construction.DRY_FLANGED):
        return "A dry liner goes with the wall round it: the bolts shape it as they shape the block."
    return "A wet liner is clamped at its flange: the plate has to press on it as the head and its gasket will."


def caps_advice(facts: JobFacts) -> str:
    """Say which caps are on while bores are worked, by the side that the job took. Common practice."""
    if side_of(facts, schools.CAPS) == schools.ALL_CAPS:
        return "All main caps on and torqued, by the school of this job: some blocks distort with them off."
    return "Only the caps that hold the fixture, by the school of this job: one bore read both ways settles it."


def hole_held(facts: JobFacts, hole: Hole) -> HoleHeld:
    """Put one bore clamped and free beside each other.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    hole : Hole
        The hole.

    Returns
    -------
    HoleHeld
        The clamped one is judged, the free one recorded: it is never held against the other's limits. GUM 5.1.2 [1]_ of
        the module for their difference. [m]
    """
    quantity = running_bore(facts.card)
    part = part_of_bore(facts, hole, quantity)
    if part.target is None:
        return HoleHeld(hole, None, State.NOT_MEASURED, part.why_not, None, None, ())
    by_load = surveys_by_load(facts, quantity, part)
    clamped = _newest(facts, by_load, Held.CLAMPED)
    free = _newest(facts, by_load, Held.FREE)
    state = State.NOT_MEASURED if clamped is None else clamped.state
    reason = "not read under the plate" if clamped is None else clamped.reason
    change = _change(facts, hole)
    return HoleHeld(hole, _oval(clamped), state, reason, _oval(free), change, tuple(_says(change)))


def _newest(facts: JobFacts, by_load: tuple[Survey, ...], how: Held) -> Survey | None:
    found = [one for one in by_load
             if one.reading_set is not None and one.read
             and held(facts.setup(one.reading_set.setup_id).load) is how]  # fmt: skip
    return found[-1] if found else None


def _oval(survey: Survey | None) -> Stated | None:
    found = None if survey is None else worst(survey.derived, DerivedKind.OUT_OF_ROUND)
    return None if found is None else found.stated


def _change(facts: JobFacts, hole: Hole) -> Change | None:
    changes = wall_of(facts, hole, running_bore(facts.card)).changes
    return changes[-1] if changes else None


def _says(change: Change | None) -> Iterator[Phrase]:
    if change is None:
        return
    ovals = [(level.depth_m, lobe.stated) for level in change.levels for lobe in level.lobes
             if lobe.kind is DerivedKind.OVALITY]  # fmt: skip
    if not ovals:
        yield Phrase("Read on fewer than three axes, what the plate does to the roundness cannot be told.")
        return
    depth, most = max(ovals, key=lambda one: one[1].value_m)
    if most.value_m <= most.expanded_m:
        yield Phrase("The plate changes nothing of the roundness that these readings could show.")
        return
    yield Phrase(
        "The plate makes {o} ±{u} of oval at {d}: what was round under it reads so much out of round without.",
        (Term("o", most.value_m), Term("u", most.expanded_m, "within"), Term("d", depth, "size")),
    )


def held_as_recorded(facts: JobFacts, survey: Survey) -> Iterator[Phrase]:
    """Ask where a survey says that it was clamped, and bolts on record say otherwise. House rule: by their times."""
    if survey.reading_set is None or survey.part.hole is None or not tightenings_of(facts, Clamp.PLATE):
        return
    said = held(facts.setup(survey.reading_set.setup_id).load)
    tight = tight_over(facts, Clamp.PLATE, survey.part.hole)
    newest = max((reading.taken_at for row in survey.read for reading in row.readings), default=None)
    if newest is None:
        return
    if said is Held.FREE and tight is not None and tight.at is not None and newest > tight.at:
        yield Phrase("Read as free, while the plate stands tight on record: take it off there, or read it as clamped.")
    if said is Held.CLAMPED and tight is None and not _was_tight(facts, survey.part.hole):
        why = why_not_tight(facts, Clamp.PLATE, survey.part.hole)
        yield Phrase(f"Read as clamped, but {why}: tighten it bolt by bolt on record, or read it as it was.")


def _was_tight(facts: JobFacts, hole: int) -> bool:
    return any(one.was_tight and one.begun.covers(hole) for one in tightenings_of(facts, Clamp.PLATE))
