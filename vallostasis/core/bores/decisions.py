"""What is decided for each bore, what that asks for, and what later contradicts it."""

from dataclasses import dataclass
from decimal import Decimal

from vallostasis.core.notation.lengths import both_small
from vallostasis.core.records.bore_decisions import BoreChoice, BoreDecision, BoreLook, LookOutcome, UseProfile
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole
from vallostasis.core.records.spec_card import LadderStep, StepKind
from vallostasis.core.shapes.clock import hour_name


@dataclass(frozen=True, slots=True)
class Profile:
    """What a use bears: whether anything below book may be accepted, and what is said where it is.

    Common practice, no published source.
    """

    profile: UseProfile
    bears: bool
    words: str


PROFILES: tuple[Profile, ...] = (
    Profile(UseProfile.STOCK, True, "half a thou out of round or one faint stripe, below the ring travel"),
    Profile(UseProfile.HEAVY, False, "nothing below book: it runs hot and long"),
    Profile(UseProfile.BOOST, False, "nothing below book: pressure finds every stripe"),
    Profile(UseProfile.NATURAL, True, "half a thou out of round or one faint stripe"),
    Profile(UseProfile.SHOW, True, "stripes and a shallow score: it runs an hour a month"),
    Profile(UseProfile.LIGHT, True, "stripes, a shallow score, a thou out of round: low speed, low load"),
)


def profile_of(profile: UseProfile) -> Profile:
    """Return what is known of a use. By its name."""
    return next(one for one in PROFILES if one.profile is profile)


def decision_of(facts: JobFacts, hole: Hole) -> BoreDecision | None:
    """Return what is decided for a hole; the newest decision holds. House rule."""
    made = [one for one in facts.standing(facts.bore_decisions) if one.hole_id == hole.hole_id]
    return made[-1] if made else None


def look_of(facts: JobFacts, hole: Hole) -> BoreLook | None:
    """Return the newest look at a hole since it was decided, at the step it was decided for. House rule."""
    decided = decision_of(facts, hole)
    if decided is None or decided.oversize_um is None:
        return None
    seen = [
        one
        for one in facts.standing(facts.bore_looks)
        if one.hole_id == hole.hole_id and one.event > decided.event and one.oversize_um == decided.oversize_um
    ]
    return seen[-1] if seen else None


def cleaned_up(facts: JobFacts, hole: Hole) -> bool:
    """Whether a bore was seen bright all round at its step. By the newest look."""
    look = look_of(facts, hole)
    return look is not None and look.outcome is LookOutcome.CLEAN


@dataclass(frozen=True, slots=True)
class Contradiction:
    """A bore that did not clean up at the step that was agreed: what is to be agreed anew, and a message to send.

    ``following`` is the next step of the ladder, None where only a sleeve is left; ``holes`` those that change.
    """

    hole: int
    look: BoreLook
    following: LadderStep | None
    holes: tuple[int, ...]
    words: str
    message: str


def contradictions(facts: JobFacts) -> tuple[Contradiction, ...]:
    """Return the bores that did not clean up at their step. Common practice, no published source.

    It stands until something else is decided for each hole that it changes.
    """
    found = []
    for hole in facts.holes:
        look, decided = look_of(facts, hole), decision_of(facts, hole)
        if look is not None and look.outcome is LookOutcome.DARK and decided is not None:
            found.append(_contradiction(facts, hole, look))
    return tuple(found)


def _contradiction(facts: JobFacts, hole: Hole, look: BoreLook) -> Contradiction:
    steps = sorted(facts.card.bores.ladder, key=lambda one: one.oversize.um)
    following = next((one for one in steps if one.oversize.um > look.oversize_um), None)
    alike = [
        other.number
        for other in facts.holes
        if (decided := decision_of(facts, other)) is not None and decided.oversize_um == look.oversize_um
    ]
    holes = tuple(alike) if facts.card.bores.all_alike and following is not None else (hole.number,)
    at = both_small(look.oversize_um)
    where = "" if look.hour is None else f" at {hour_name(look.hour)}"
    if following is None:
        then = f"no step is left: bore {hole.number} is sleeved"
    else:
        numbers = ", ".join(str(one) for one in holes)
        which = f"bores {numbers} go" if len(holes) > 1 else f"bore {numbers} goes"
        then = f"{which} to +{both_small(following.oversize.um)}, {had(following)}"
    words = f"bore {hole.number} does not clean up at +{at}: {then}; agree it anew"
    message = (
        f"{facts.job.name}: bore {hole.number} was cut to +{at} and a dark patch is left{where}"
        f"{f' ({look.words})' if look.words else ''}. Instead {then}. What was agreed does not hold any more: please "
        "say whether we go on."
    )
    return Contradiction(hole.number, look, following, holes, words, message)


def had(step: LadderStep) -> str:
    """Say how a step of the ladder is to be had. By the card."""
    if step.kind is StepKind.ON_SHELF:
        return f"on the shelf{f': {step.note}' if step.note else ''}"
    weeks = "" if step.weeks is None else f" in {step.weeks:g} weeks"
    return f"{step.kind.value}{weeks}"


def step_of(facts: JobFacts, oversize_um: Decimal | None) -> LadderStep | None:
    """Return the step of the card's ladder of that size, or None. By its oversize."""
    return next((one for one in facts.card.bores.ladder if one.oversize.um == oversize_um), None)


def aimed_at(facts: JobFacts, hole: Hole) -> LadderStep | None:
    """Return the step that a bore was decided to be bored to; None where it was not. By the newest decision."""
    decided = decision_of(facts, hole)
    return None if decided is None else step_of(facts, decided.oversize_um)


def is_given(facts: JobFacts, hole: Hole, *choices: BoreChoice) -> bool | None:
    """Whether a hole was decided to be given one of these; None where nothing is decided. House rule."""
    decided = decision_of(facts, hole)
    return None if decided is None else decided.choice in choices
