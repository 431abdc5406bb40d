"""What the proof says of the whole job: whether it is proved, what is open, what was let pass and by whom."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime

from vallostasis.core.features.parts import part_with_key
from vallostasis.core.operations.schools import school_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import Finding, Operation
from vallostasis.core.route.hold_points import HoldNow, HoldState
from vallostasis.core.route.route import OperationNow, Reopened, route_of
from vallostasis.core.route.shown import Evidence, mark_of


@dataclass(frozen=True, slots=True)
class Concession:
    """Something that was let pass by name and reason."""

    what: str
    by: str
    at: datetime
    reason: str


@dataclass(frozen=True, slots=True)
class ProofRoute:
    """The job as a whole, as printed."""

    is_proved: bool
    open_points: tuple[str, ...]
    operations: tuple[OperationNow, ...]
    waiting_holds: tuple[HoldNow, ...]
    concessions: tuple[Concession, ...]
    reopened: tuple[Reopened, ...]
    schools: tuple[tuple[str, str, str, str], ...]
    findings: tuple[tuple[str, Finding], ...]
    release: Evidence | None


def proof_route(facts: JobFacts) -> ProofRoute:
    """Collect what the sheet says of the job as a whole."""
    route = route_of(facts)
    numbers = {hole.hole_id: f"hole {hole.number}" for hole in facts.holes}
    released = next((one for one in route.operations if one.kind.operation is Operation.RELEASE), None)
    has_mark = mark_of(facts, Operation.RELEASE, None) is not None
    return ProofRoute(
        is_proved=not route.open_points,
        open_points=tuple(one.words for one in route.open_points),
        operations=route.operations,
        waiting_holds=tuple(one for one in route.holds if one.state is HoldState.WAITS),
        concessions=tuple(sorted(_concessions(facts, route.holds), key=lambda one: one.at)),
        reopened=route.reopened,
        schools=tuple(_schools(facts)),
        findings=tuple(
            ("block" if one.hole_id is None else numbers[one.hole_id], one) for one in facts.standing(facts.findings)
        ),
        release=released.evidence if released is not None and has_mark else None,
    )


def _concessions(facts: JobFacts, holds: tuple[HoldNow, ...]) -> Iterator[Concession]:
    words = {one.hold: one.words for one in holds}
    numbers = {hole.hole_id: hole.number for hole in facts.holes}
    for one in facts.standing(facts.hold_passes):
        where = "" if one.hole_id is None else f", hole {numbers[one.hole_id]}"
        said = words.get(one.hold, one.hold.value)
        yield Concession(f"Hold point passed: {said}{where}", one.passed_by, one.passed_at, one.reason)
    for waiver in facts.standing_waivers.values():
        part = part_with_key(facts, waiver.quantity, waiver.part)
        what = f"Not read: {waiver.quantity.value}, {waiver.part if part is None else part.title}"
        yield Concession(what, waiver.waived_by, waiver.waived_at, waiver.reason)


def _schools(facts: JobFacts) -> Iterator[tuple[str, str, str, str]]:
    for chosen in facts.schools.values():
        school = school_of(chosen.question)
        if school is not None:
            yield school.title, chosen.side, chosen.reason, chosen.chosen_by
