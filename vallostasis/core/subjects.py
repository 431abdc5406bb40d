"""The register of subjects: what each part of the work brings to a job, one row each.

A subject is a room of the core, and has the same name in services, store, api and web where it has something there.
Whatever goes over all of them, needs, cross checks, goes over this register in the order of the work.
"""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field, replace
from enum import StrEnum

from vallostasis.core.bores import cross_checks as bore_checks
from vallostasis.core.bores.needs import need_of_bore
from vallostasis.core.counterbore.needs import need_of_counterbore
from vallostasis.core.fits import cross_checks as fit_checks
from vallostasis.core.mains import cross_checks as main_checks
from vallostasis.core.needs import Action, Need
from vallostasis.core.protrusion.measured import deciding_bore
from vallostasis.core.protrusion.needs import need_of_protrusion
from vallostasis.core.protrusion.rules import HoleJudgement
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.records.rows import Hole, Quantity
from vallostasis.core.route.needs import need_of_seat
from vallostasis.core.surveys.cross_checks import checks_of_reading
from vallostasis.core.surveys.survey import Survey
from vallostasis.core.trail import Phrase
from vallostasis.core.uncertainty.decision import State


class LensName(StrEnum):
    """A way to look at the block, as it stands in addresses."""

    PROTRUSION = "protrusion"
    COUNTERBORE = "counterbore"
    FIT = "fit"
    BORE = "bore"
    DISTORTION = "distortion"
    CLEARANCE = "clearance"


NeedOf = Callable[[JobFacts, Hole, HoleJudgement], Need | None]
Check = Callable[[JobFacts, Survey], Iterator[Phrase]]


@dataclass(frozen=True, slots=True)
class Subject:
    """One part of the work: its features, what a hole needs of it, what its readings say beside others.

    ``lenses`` names the ways to look at the block that are its own, ``operations`` those of the route.
    """

    name: str
    quantities: tuple[Quantity, ...]
    lenses: tuple[LensName, ...] = ()
    operations: tuple[Operation, ...] = ()
    need: NeedOf | None = None
    checks: Mapping[Quantity, Check] = field(default_factory=dict)


SUBJECTS = (
    Subject(
        "protrusion",
        (Quantity.PROTRUSION, Quantity.NEIGHBOUR_GAP, Quantity.NEIGHBOUR_STEP),
        (LensName.PROTRUSION,),
        (Operation.SEAT,),
        need_of_protrusion,
    ),
    Subject(
        "counterbore",
        (Quantity.COUNTERBORE_DEPTH, Quantity.COUNTERBORE_DIAMETER, Quantity.FLANGE_THICKNESS,
         Quantity.SETUP_INDICATOR),
        (LensName.COUNTERBORE,),
        (Operation.CLEAN, Operation.PLUG, Operation.CUT),
        need_of_counterbore,
    ),
    Subject(
        "bores",
        (Quantity.BLOCK_BORE, Quantity.WEAR_STEP, Quantity.WALL_THICKNESS, Quantity.LINER_OUTSIDE,
         Quantity.LINER_BORE, Quantity.LEVELLING, Quantity.PISTON_SKIRT, Quantity.PISTON_CROWN,
         Quantity.PISTON_CLEARANCE, Quantity.RING_GAP),
        (LensName.BORE, LensName.DISTORTION, LensName.CLEARANCE),
        (Operation.BORE, Operation.HONE, Operation.PISTONS),
        need_of_bore,
        bore_checks.CHECKS,
    ),
    Subject(
        "fits",
        (Quantity.TRIAL_FIT, Quantity.LINER_INSIDE),
        (LensName.FIT,),
        (Operation.BORE_BLOCK, Operation.HONE_BLOCK, Operation.FIT_PREP, Operation.FIT),
        checks=fit_checks.CHECKS,
    ),
    Subject("heat", (), operations=(Operation.HEAT, Operation.SOAK)),
    Subject("clamping", (), operations=(Operation.CAPS, Operation.PLATE, Operation.FREE)),
    Subject("pistons", ()),
    Subject("honing", ()),
    Subject("boring", ()),
    Subject("mains", (Quantity.MAIN_BORE, Quantity.MAIN_LINE), operations=(Operation.MAINS, Operation.ALIGN),
            checks=main_checks.CHECKS),
    Subject("conversions", (Quantity.REGISTER_LINE, Quantity.INSERT_POCKET, Quantity.INSERT_OUTSIDE)),
    Subject("deck", (Quantity.DECK_FLATNESS, Quantity.DECK_HEIGHT), operations=(Operation.DECK,)),
    Subject("matching", ()),
    Subject("findings", (), operations=(Operation.STRIP, Operation.MEASURE)),
    Subject(
        "route",
        (),
        operations=(Operation.TAKE_IN, Operation.DECIDE, Operation.ORDER, Operation.WASH, Operation.PROVE,
                    Operation.RELEASE),
    ),
    Subject("calendar", ()),
    Subject("hours", ()),
    Subject("money", ()),
    Subject("orders", ()),
    Subject("shop_log", ()),
)  # fmt: skip


def need_of_hole(facts: JobFacts, hole: Hole, judgement: HoleJudgement) -> Need:
    """Say what one hole needs next, from its state and what is known of its parts: what comes first in the work.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    hole : Hole
        The hole.
    judgement : HoleJudgement
        Its state by the rules of the card.

    Returns
    -------
    Need
        Sentences carry their lengths as terms [m], to be shown in the unit chosen.
    """
    needs = (subject.need(facts, hole, judgement) for subject in SUBJECTS if subject.need is not None)
    need = next((need for need in needs if need is not None), Need(Action.NOTHING, Phrase("Nothing")))
    need = replace(need, operation=_operation_of(facts, hole, judgement, need))
    before = None if need.operation is None else need_of_seat(facts, hole, need.operation)
    return need if before is None else before


def _operation_of(facts: JobFacts, hole: Hole, judgement: HoleJudgement, need: Need) -> Operation | None:
    """What of the work a need belongs to: the same reading is as found before anything was done, and proof after."""
    if need.action is Action.NOTHING:
        return None
    if need.action in (Action.CUT, Action.FIT):
        return Operation.CUT if need.action is Action.CUT else Operation.FIT
    if need.action is Action.READ_SURVEY:
        doing = deciding_bore(facts, hole).disturbed
        return Operation.MEASURE if doing is None else doing.operation
    untouched = facts.last_cut(hole.hole_id) is None
    if need.action is Action.READ_DEPTH:
        return Operation.MEASURE if untouched else Operation.CUT
    if need.action is Action.READ_FLANGE:
        return Operation.MEASURE
    as_found = untouched and need.action is Action.READ and judgement.state is not State.READ_AGAIN
    return Operation.MEASURE if as_found else Operation.SEAT


def cross_checks(facts: JobFacts, survey: Survey) -> tuple[Phrase, ...]:
    """Say what a survey means beside others, and what to mind about how it was read, with numbers. [m]"""
    own = [one for subject in SUBJECTS if (one := subject.checks.get(survey.feature.quantity)) is not None]
    said = [phrase for check in own for phrase in check(facts, survey)]
    return (*said, *checks_of_reading(facts, survey))
