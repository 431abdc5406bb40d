"""The ladder of a block and its bores as they go over the wire. Lengths in metres, walls a side."""

from datetime import datetime
from decimal import Decimal

from pydantic import BaseModel, Field

from vallostasis.core.bores.clean_up_of_hole import Needed, WallPoint
from vallostasis.core.bores.decisions import PROFILES, contradictions, decision_of, had, look_of
from vallostasis.core.bores.ladder import LadderOfHole, Rung, WallAfter, ladder_of_engine, mark_clears
from vallostasis.core.bores.plan_of_bores import OptionOfHole, options_of, plan_of_bores
from vallostasis.core.notation.lengths import metres
from vallostasis.core.operations.catalogue import OPERATIONS
from vallostasis.core.records.bore_decisions import BoreChoice, BoreDecision, BoreLook, LookOutcome, UseProfile
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.records.spec_card import LadderStep, StepKind
from vallostasis.core.shapes.clock import angle_of_hour
from vallostasis.core.uncertainty.decision import State


class LadderStepView(BaseModel):
    """A step of the ladder."""

    oversize_um: Decimal
    oversize_m: float
    typed: str
    kind: StepKind
    had: str

    @classmethod
    def of(cls, step: LadderStep | None) -> "LadderStepView | None":
        """Show a step."""
        if step is None:
            return None
        return cls(oversize_um=step.oversize.um, oversize_m=step.oversize.metres, typed=step.oversize.typed,
                   kind=step.kind, had=had(step))  # fmt: skip


class NeededView(BaseModel):
    """The finished diameter that leaves no wear, counted from standard. [m], [deg]"""

    least_m: float
    most_m: float
    expanded_m: float
    is_placed: bool
    move_m: float
    move_deg: float
    decides: str = Field(description="What it is that decides: the wear, or a mark by its letter.")


class WallAfterView(BaseModel):
    """The thinnest wall, a side. [m], [deg]"""

    left_m: float
    expanded_m: float
    angle_deg: float
    depth_m: float
    rebores: int | None
    keeps: State | None

    @classmethod
    def of(cls, one: WallAfter | None) -> "WallAfterView | None":
        """Show a wall."""
        if one is None:
            return None
        return cls(left_m=one.left.value_m, expanded_m=one.left.expanded_m, angle_deg=one.angle_deg,
                   depth_m=one.depth_m, rebores=one.rebores, keeps=one.keeps)  # fmt: skip


class RungView(BaseModel):
    """One step at one hole. [m]"""

    step: LadderStepView
    finish_m: float
    bored_m: float
    drawn: State
    best: State
    state: State
    wall: WallAfterView | None


class SectionPoint(BaseModel):
    """Wear a side in a cut through a bore. [m]"""

    depth_m: float
    wear_m: float
    opposite_m: float


class RoundPoint(BaseModel):
    """Deepest wear a side in one direction. [m], [deg]"""

    angle_deg: float
    wear_m: float


class MarkOnWall(BaseModel):
    """A score or pit, and whether the honing stock alone would take it. [m], [deg]"""

    letter: str
    word: str
    angle_deg: float
    from_m: float
    until_m: float
    depth_m: float | None
    expanded_m: float | None
    by_hone: State


class DecisionView(BaseModel):
    """What is decided for a hole."""

    choice: BoreChoice
    oversize_m: float | None
    move_m: float | None
    toward_hour: float | None
    reason: str
    concession: str
    profile: UseProfile
    use_limit: str
    decided_at: datetime
    decided_by: str
    event: int

    @classmethod
    def of(cls, one: BoreDecision | None) -> "DecisionView | None":
        """Show a decision."""
        if one is None:
            return None
        return cls(
            choice=one.choice,
            oversize_m=None if one.oversize_um is None else metres(one.oversize_um),
            move_m=None if one.move_um is None else metres(one.move_um),
            toward_hour=one.toward_hour,
            reason=one.reason,
            concession=one.concession,
            profile=one.profile,
            use_limit=one.use_limit,
            decided_at=one.decided_at,
            decided_by=one.decided_by,
            event=one.event,
        )


class LookView(BaseModel):
    """What was seen after the cut."""

    outcome: LookOutcome
    words: str
    hour: float | None
    looked_by: str
    looked_at: datetime

    @classmethod
    def of(cls, one: BoreLook | None) -> "LookView | None":
        """Show a look."""
        if one is None:
            return None
        return cls(outcome=one.outcome, words=one.words, hour=one.hour, looked_by=one.looked_by,
                   looked_at=one.looked_at)  # fmt: skip


class OptionView(BaseModel):
    """One thing a bore can be given: what it needs, what it leaves, what cannot be undone."""

    choice: BoreChoice
    oversize_um: Decimal | None
    title: str
    state: State
    needs: list[str]
    leaves: list[str]
    irreversible: str

    @classmethod
    def of(cls, one: OptionOfHole) -> "OptionView":
        """Show an option."""
        return cls(choice=one.choice, oversize_um=None if one.step is None else one.step.oversize.um,
                   title=one.title, state=one.state, needs=list(one.needs), leaves=list(one.leaves),
                   irreversible=one.irreversible)  # fmt: skip


class HoleOnLadder(BaseModel):
    """One hole on the ladder. [m]"""

    hole: int
    why_not: str
    doubts: list[str]
    by_diameters: bool
    unworn_m: float | None
    drawn: NeededView | None
    best: NeededView | None
    deepest_m: float | None
    deepest_deg: float | None
    opposite_m: float | None
    rungs: list[RungView]
    wall_now: WallAfterView | None
    wall_exact: WallAfterView | None = Field(description="Had it been bored just to what it needs.")
    wall_by_drawing: bool
    round: list[RoundPoint]
    section: list[SectionPoint]
    marks: list[MarkOnWall]
    options: list[OptionView]
    decision: DecisionView | None
    look: LookView | None


class ContradictionView(BaseModel):
    """What does not hold any more, and a message to send."""

    hole: int
    holes: list[int]
    following: LadderStepView | None
    words: str
    message: str


class PlanLine(BaseModel):
    """One step of what this block needs."""

    number: int
    title: str
    words: str


class ProfileView(BaseModel):
    """A use, and what it bears."""

    profile: UseProfile
    bears: bool
    words: str


class CleanUpView(BaseModel):
    """Every hole against the ladder, and what the block needs. [m]"""

    standard_m: float
    hone_stock_m: float
    move_most_m: float
    ring_top_m: float | None
    thrust_deg: float | None
    least_wall_m: float | None
    rebore_m: float | None
    all_alike: bool
    steps: list[LadderStepView]
    holes: list[HoleOnLadder]
    worst: int | None
    step: LadderStepView | None
    try_first: LadderStepView | None
    unread: list[int]
    sleeves: list[int]
    headline: str
    words: list[str]
    plan: list[PlanLine]
    contradictions: list[ContradictionView]
    profiles: list[ProfileView]
    cautions: list[str]


def clean_up_view(facts: JobFacts) -> CleanUpView:
    """Show every hole against the ladder, and what the block needs."""
    engine, plan, bores = ladder_of_engine(facts), plan_of_bores(facts), facts.card.bores
    return CleanUpView(
        standard_m=engine.standard_m,
        hone_stock_m=engine.terms.hone_stock_m,
        move_most_m=engine.terms.move_m,
        ring_top_m=engine.terms.ring_top_m,
        thrust_deg=None if bores.thrust_hour is None else angle_of_hour(bores.thrust_hour),
        least_wall_m=bores.least_wall.metres,
        rebore_m=bores.rebore.metres,
        all_alike=bores.all_alike,
        steps=[_step(one) for one in sorted(bores.ladder, key=lambda step: step.oversize.um)],
        holes=[_hole(facts, one) for one in engine.holes],
        worst=None if engine.worst is None else engine.worst.hole.number,
        step=LadderStepView.of(engine.step),
        try_first=LadderStepView.of(engine.try_first),
        unread=list(engine.unread),
        sleeves=list(engine.sleeves),
        headline=plan.headline,
        words=list(plan.words),
        plan=[PlanLine(number=at, title=one.title, words=one.words) for at, one in enumerate(plan.steps, 1)],
        contradictions=[
            ContradictionView(hole=one.hole, holes=list(one.holes), following=LadderStepView.of(one.following),
                              words=one.words, message=one.message)
            for one in contradictions(facts)
        ],
        profiles=[ProfileView(profile=one.profile, bears=one.bears, words=one.words) for one in PROFILES],
        cautions=list(OPERATIONS[Operation.BORE].caution),
    )  # fmt: skip


def _step(step: LadderStep) -> LadderStepView:
    shown = LadderStepView.of(step)
    assert shown is not None
    return shown


def _needed(one: Needed, standard_m: float) -> NeededView:
    letters = dict.fromkeys(point.mark.letter for point in one.points if point.mark is not None)
    decides = " and ".join(f"mark {letter}" for letter in letters) or "the wear"
    return NeededView(least_m=one.least.value_m - standard_m, most_m=one.most.value_m - standard_m,
                      expanded_m=one.most.expanded_m, is_placed=one.is_placed, move_m=one.move_m,
                      move_deg=one.move_deg, decides=decides)  # fmt: skip


def _hole(facts: JobFacts, one: LadderOfHole) -> HoleOnLadder:
    found, engine = one.clean_up, ladder_of_engine(facts)
    unworn = None if one.wall.wear.unworn is None else one.wall.wear.unworn
    points = () if found is None else found.worn_points
    band = 0.0 if unworn is None else unworn.value_m / 2
    around = _round(points, band)
    deepest = max((point for point in points if point.mark is None), key=lambda point: point.radius_m, default=None)
    return HoleOnLadder(
        hole=one.hole.number,
        why_not=one.why_not,
        doubts=[] if found is None else list(found.doubts),
        by_diameters=found is not None and found.by_diameters,
        unworn_m=None if unworn is None else unworn.value_m,
        drawn=None if found is None else _needed(found.drawn, engine.standard_m),
        best=None if found is None else _needed(found.best, engine.standard_m),
        deepest_m=None if deepest is None else deepest.radius_m - band,
        deepest_deg=None if deepest is None else deepest.angle_deg,
        opposite_m=None if deepest is None else _opposite(points, deepest) - band,
        rungs=[_rung(rung) for rung in one.rungs],
        wall_now=WallAfterView.of(one.now),
        wall_exact=WallAfterView.of(one.exact),
        wall_by_drawing=one.wall_by_drawing,
        round=around,
        section=_section(points, deepest, band),
        marks=[
            MarkOnWall(letter=mark.letter, word=mark.finding.word, angle_deg=mark.angle_deg, from_m=mark.from_m,
                       until_m=mark.until_m, depth_m=mark.depth_m, expanded_m=mark.depth_expanded_m,
                       by_hone=mark_clears(mark, engine.terms.hone_stock_m))
            for mark in one.marks
            if mark.depth_m is not None or mark.needs_depth
        ],
        options=[OptionView.of(option) for option in options_of(facts, one)],
        decision=DecisionView.of(decision_of(facts, one.hole)),
        look=LookView.of(look_of(facts, one.hole)),
    )  # fmt: skip


def _rung(rung: Rung) -> RungView:
    return RungView(step=_step(rung.step), finish_m=rung.finish_m, bored_m=rung.bored_m, drawn=rung.drawn,
                    best=rung.best, state=rung.state, wall=WallAfterView.of(rung.wall))  # fmt: skip


def _round(points: tuple[WallPoint, ...], band: float) -> list[RoundPoint]:
    deepest: dict[float, float] = {}
    for point in points:
        deepest[point.angle_deg] = max(deepest.get(point.angle_deg, 0.0), point.radius_m - band)
    return [RoundPoint(angle_deg=angle, wear_m=wear) for angle, wear in sorted(deepest.items())]


def _opposite(points: tuple[WallPoint, ...], deepest: WallPoint) -> float:
    across = (deepest.angle_deg + 180) % 360
    return max(point.radius_m for point in points if abs(point.angle_deg - across) < 1e-6)


def _section(points: tuple[WallPoint, ...], deepest: WallPoint | None, band: float) -> list[SectionPoint]:
    """Wear down the depth in the direction where it is deepest, and opposite."""
    if deepest is None:
        return []
    across = (deepest.angle_deg + 180) % 360

    def at(depth: float, angle: float) -> float:
        return next(point.radius_m for point in points if point.mark is None and point.level.depth_m == depth
                    and abs(point.angle_deg - angle) < 1e-6) - band  # fmt: skip

    depths = sorted({point.level.depth_m for point in points if point.mark is None})
    return [SectionPoint(depth_m=depth, wear_m=at(depth, deepest.angle_deg), opposite_m=at(depth, across))
            for depth in depths]  # fmt: skip
