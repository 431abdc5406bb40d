"""Where the honing of a hole stands: what is left, when to stop and measure, what comes, whether it is done.

References
----------
.. [1] JCGM 100:2008 (GUM), 5.1.2: what is left is the size wanted less the mean of a level.
.. [2] ISO 14253-1: a level is in once limits and ± say so.
"""

from dataclasses import dataclass, replace
from enum import StrEnum

from vallostasis.core.bores.wall import part_of_bore
from vallostasis.core.boring.hatch import Hatch, hatch_of
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.fits.fit import worst_state
from vallostasis.core.honing.rate import Rate, StrokesToGo, stop_after, strokes_to_go
from vallostasis.core.honing.rounds import RoundMade, bore_of, learned_rate, open_round, rounds_of
from vallostasis.core.honing.stroke import StrokePlan, plan_stroke
from vallostasis.core.honing.target import HoneTarget, hone_target
from vallostasis.core.notation.lengths import metres
from vallostasis.core.records.honing import HoneAim, HoneDrive, HoneMethod, HoneSetting, HoneStage
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole
from vallostasis.core.surveys.derived import BoreTable
from vallostasis.core.surveys.loads import held_otherwise
from vallostasis.core.surveys.survey import Survey, bore_table, survey_of
from vallostasis.core.trail import Phrase, Term
from vallostasis.core.uncertainty.budget import Estimate, Stated, difference_of, mean_of, stated, weighted
from vallostasis.core.uncertainty.decision import RuleKind, RuleResult, State, judge

# A brush takes peaks off: this many double strokes, before its own rounds say more. Common practice.
BRUSH_STROKES = 50
# What a stop to measure takes. [min] Common practice, no published source.
STOP_MIN = 3.0
# No more rounds of one stage are foretold. [1]
_ROUNDS_AHEAD = 8


class HoneState(StrEnum):
    """What comes next at a hone."""

    REFUSED = "no size"
    SET_UP = "set up"
    MEASURE = "measure"
    READY = "ready"
    RUNNING = "running"
    DONE = "done"
    CANNOT_TELL = "cannot tell"
    TOO_LARGE = "too large"


@dataclass(frozen=True, slots=True)
class LevelLeft:
    """What one level has left on the diameter, how its limits judge that, and short strokes it needs more. [m]"""

    name: str
    depth_m: float
    left: Stated
    rule: RuleResult
    more_strokes: int


@dataclass(frozen=True, slots=True)
class RoundAhead:
    """A round that is to come: its double strokes, what is left before and after it, by the fast and slow edge. [m]

    ``after_m`` and its edges are None where its rate is not learned.
    """

    stage: HoneStage
    strokes: int
    before_m: float
    after_m: float | None
    fast_m: float | None
    slow_m: float | None


@dataclass(frozen=True, slots=True)
class HoneNow:
    """The honing of one hole. [m], [min]

    ``left`` is that of the mean of all levels; ``stop`` the double strokes of the round at hand, after which it is
    measured; ``to_stage_end`` the band to the end of its stage.
    """

    hole: Hole
    aim: HoneAim
    target: HoneTarget | Phrase
    setting: HoneSetting | None
    stroke: StrokePlan | None
    hatch: Hatch | None
    survey: Survey
    state: HoneState
    left: Stated | None
    levels: tuple[LevelLeft, ...]
    stage: HoneStage | None
    stage_end_m: float
    rate: Rate | None
    stop: int
    to_stage_end: StrokesToGo | None
    turning: RoundMade | None
    made: tuple[RoundMade, ...]
    ahead: tuple[RoundAhead, ...]
    minutes: StrokesToGo | None
    says: tuple[Phrase, ...]
    cautions: tuple[str, ...]


def setting_of(facts: JobFacts, hole: Hole, aim: HoneAim) -> HoneSetting | None:
    """Return how a hole is honed: its own newest setting, else the newest of any hole. House rule."""
    told = [one for one in facts.standing(facts.hone_settings) if one.aim is aim]
    own = [one for one in told if one.hole_id == hole.hole_id]
    return own[-1] if own else told[-1] if told else None


def hone_now(facts: JobFacts, hole: Hole, aim: HoneAim) -> HoneNow:
    """Work out where the honing of a hole stands.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    hole : Hole
        The hole.
    aim : HoneAim
        What it is honed to.

    Returns
    -------
    HoneNow
        What is left counts from what was read since the last round; nothing is foretold past the target. GUM 5.1.2
        [1]_, ISO 14253-1 [2]_ of the module. [m]
    """
    target, setting = hone_target(facts, hole, aim), setting_of(facts, hole, aim)
    quantity = bore_of(facts, aim)
    survey = survey_of(facts, quantity, part_of_bore(facts, hole, quantity))
    made, turning = rounds_of(facts, hole, aim), open_round(facts, hole, aim)
    bare = HoneNow(hole, aim, target, setting, None, None, survey, HoneState.REFUSED, None, (), None, 0.0, None, 0,
                   None, turning, made, (), None, (), _cautions(setting))  # fmt: skip
    if isinstance(target, Phrase):
        return bare
    if setting is None:
        return replace(bare, state=HoneState.SET_UP)
    stroke, hatch = _stroke(setting, target)
    bare = replace(bare, stroke=stroke, hatch=hatch)
    # What turns was begun on what was read before it: that stands in the past of the survey once it is stopped.
    places = survey.places if survey.reading_set is not None else ()
    table = None if survey.relative else bore_table(survey.pattern, places)
    if table is None or survey.missing:
        return replace(bare, state=HoneState.MEASURE if turning is None else HoneState.RUNNING)
    return _by_what_was_read(facts, bare, target, setting, table)


def _by_what_was_read(
    facts: JobFacts, bare: HoneNow, target: HoneTarget, setting: HoneSetting, table: BoreTable
) -> HoneNow:
    named = [(name, depth, mean_of([one for one in row if one is not None]))
             for name, depth, row in zip(table.names, table.depths_m, table.cells, strict=True)
             if any(one is not None for one in row)]  # fmt: skip
    k, turning = facts.card.coverage_factor, bare.turning
    mean = mean_of([size for _, _, size in named])
    left = stated("left", weighted(((1.0, target.wanted), (-1.0, mean))), k)
    rates = {stage: learned_rate(facts, bare.aim, _grit(setting, stage), setting.method) for stage in HoneStage}
    levels = _levels_left(facts, target, named)
    verdict = worst_state([one.rule.decision.state for one in levels])
    guard = min(one.left.value_m for one in levels) - target.limits_m[0]
    stage = _stage(setting, bare.made, left, guard, rates, verdict)
    if turning is not None:
        stage = turning.begun.stage
    if stage is not None:
        levels = tuple(replace(one, more_strokes=_more(mean, size, rates[stage], k))
                       for one, (_, _, size) in zip(levels, named, strict=True))  # fmt: skip
    state = _state(facts, bare.survey, turning, levels, stage, verdict)
    found = replace(bare, left=left, levels=levels, stage=stage, state=state,
                    says=tuple(_says(facts, bare.survey, state, bare.stroke, levels, left)))  # fmt: skip
    return found if stage is None else _with_what_is_ahead(found, setting, rates, stage, left, guard)


def _levels_left(
    facts: JobFacts, target: HoneTarget, named: list[tuple[str, float, Estimate]]
) -> tuple[LevelLeft, ...]:
    k, acceptance = facts.card.coverage_factor, facts.card.acceptance
    return tuple(
        LevelLeft(name, depth, one := stated(f"left, {name}", weighted(((1.0, target.wanted), (-1.0, size))), k),
                  judge(RuleKind.READING, name, one, target.limits_m, acceptance), 0)
        for name, depth, size in named
    )  # fmt: skip


def _with_what_is_ahead(
    found: HoneNow, setting: HoneSetting, rates: dict[HoneStage, Rate | None], stage: HoneStage, left: Stated,
    guard: float,
) -> HoneNow:  # fmt: skip
    end = _end_of(setting, stage)
    rate, standard = rates[stage], left.budget.standard_m
    doubts = _Doubts(left.budget.part_m(shared=False), standard)
    return replace(
        found, stage_end_m=end, rate=rate, stop=_stop(stage, rate, left.value_m - end, guard, doubts),
        to_stage_end=None if rate is None else strokes_to_go(rate, left.value_m - end, standard),
        ahead=(ahead := tuple(_ahead(setting, rates, stage, left.value_m, guard, doubts))),
        minutes=_minutes(setting, rates, stage, left.value_m, standard, ahead),
    )  # fmt: skip


def _grit(setting: HoneSetting, stage: HoneStage) -> int:
    """Grit of a stage; a brush has none and is told as nought."""
    return {HoneStage.ROUGH: setting.rough_grit, HoneStage.FINE: setting.fine_grit, HoneStage.BRUSH: 0}[stage]


def _end_of(setting: HoneSetting, stage: HoneStage) -> float:
    """What a stage leaves on the diameter for those after it. [m] By definition."""
    if stage is HoneStage.ROUGH:
        return metres(setting.fine_stock_um + setting.brush_stock_um)
    return metres(setting.brush_stock_um) if stage is HoneStage.FINE else 0.0


def _stroke(setting: HoneSetting, target: HoneTarget) -> tuple[StrokePlan | None, Hatch | None]:
    below = None if setting.below_um is None else metres(setting.below_um)
    try:
        stroke = plan_stroke(metres(setting.length_um), metres(setting.stone_um), below)
    except OutOfDomain:
        return None, None
    return stroke, hatch_of(target.finished.value_m, float(setting.turns), stroke.stroke_m, float(setting.strokes))


def _more(mean: Estimate, size: Estimate, rate: Rate | None, k: float) -> int:
    """Short strokes with the stones at hand that a level needs more than the mean, beyond its ±. Common practice."""
    tight = stated("tighter", difference_of(mean, size), k)
    if rate is None or tight.value_m <= tight.expanded_m:
        return 0
    return round(tight.value_m / rate.per_stroke_m)


def _stage(
    setting: HoneSetting,
    made: tuple[RoundMade, ...],
    left: Stated,
    guard_m: float,
    rates: dict[HoneStage, Rate | None],
    verdict: State,
) -> HoneStage | None:
    """The stage at hand; None where nothing more is to be taken. House rule."""
    within = left.expanded_m
    rough, fine = (left.value_m - _end_of(setting, one) for one in (HoneStage.ROUGH, HoneStage.FINE))
    if rough > max(within, 0.1 * metres(setting.fine_stock_um)):
        return HoneStage.ROUGH
    repeats, standard = left.budget.part_m(shared=False), left.budget.standard_m
    can = stop_after(rates[HoneStage.FINE], fine, repeats, guard_m, standard) >= 1
    if can and fine > (within if verdict is State.IN else repeats):
        return HoneStage.FINE
    brushed = bool(made) and made[-1].begun.stage is HoneStage.BRUSH
    if setting.brush_stock_um > 0 and not brushed and guard_m > metres(setting.brush_stock_um):
        return HoneStage.BRUSH
    return None


@dataclass(frozen=True, slots=True)
class _Doubts:
    """How what is left repeats from reading to reading, and its whole standard uncertainty. [m]"""

    repeat_m: float
    standard_m: float


def _stop(stage: HoneStage, rate: Rate | None, left_m: float, guard_m: float, doubts: _Doubts) -> int:
    """Double strokes of a round. [m] A brush has its own count. House rule."""
    if stage is HoneStage.BRUSH:
        return BRUSH_STROKES
    return max(1, stop_after(rate, left_m, doubts.repeat_m, guard_m, doubts.standard_m))


def _state(
    facts: JobFacts,
    survey: Survey,
    turning: RoundMade | None,
    levels: tuple[LevelLeft, ...],
    stage: HoneStage | None,
    verdict: State,
) -> HoneState:
    if turning is not None:
        return HoneState.RUNNING
    if _large(levels):
        return HoneState.TOO_LARGE
    if stage is not None:
        return HoneState.READY
    held_wrong = survey.reading_set is not None and held_otherwise(facts, survey.reading_set)
    return HoneState.DONE if verdict is State.IN and not held_wrong and not survey.doubt else HoneState.CANNOT_TELL


def _large(levels: tuple[LevelLeft, ...]) -> tuple[LevelLeft, ...]:
    """Levels that are larger than the greatest. By their rule."""
    return tuple(one for one in levels if one.rule.decision.state is State.OUT and one.left.value_m < 0)


def _ahead(
    setting: HoneSetting,
    rates: dict[HoneStage, Rate | None],
    stage: HoneStage,
    left_m: float,
    guard_m: float,
    doubts: _Doubts,
) -> list[RoundAhead]:
    """Rounds to come, each by the middle of its band; none past the end of its stage. [m]"""
    order = [HoneStage.ROUGH, HoneStage.FINE, *([HoneStage.BRUSH] if setting.brush_stock_um > 0 else [])]
    found: list[RoundAhead] = []
    for one in order[order.index(stage) :]:
        rate, end = rates[one], _end_of(setting, one)
        for _ in range(1 if one is HoneStage.BRUSH else _ROUNDS_AHEAD):
            many = _stop(one, rate, left_m - end, guard_m, doubts)
            if rate is None or not rate.is_learned:
                found.append(RoundAhead(one, many, left_m, None, None, None))
                break
            after = max(end, left_m - many * rate.per_stroke_m)
            off = many * rate.within_m
            found.append(RoundAhead(one, many, left_m, after, max(0.0, after - off), after + off))
            guard_m, left_m = guard_m - (left_m - after), after
            if left_m - end <= doubts.standard_m or many <= 1:
                break
        left_m, guard_m = end, guard_m - (left_m - end)
    return found


def _minutes(
    setting: HoneSetting,
    rates: dict[HoneStage, Rate | None],
    stage: HoneStage,
    left_m: float,
    standard_m: float,
    ahead: tuple[RoundAhead, ...],
) -> StrokesToGo | None:
    """Minutes to the finished bore, stops to measure counted; None before every rate on the way is learned."""
    stops, pace = STOP_MIN * len(ahead), float(setting.strokes)
    fast = middle = 0.0
    slow: float | None = 0.0
    for one in {round_.stage: None for round_ in ahead}:
        rate, end = rates[one], _end_of(setting, one)
        if one is HoneStage.BRUSH:
            band: StrokesToGo | None = StrokesToGo(BRUSH_STROKES, BRUSH_STROKES, BRUSH_STROKES)
        else:
            band = None if rate is None else strokes_to_go(rate, left_m - end, standard_m)
        if band is None:
            return None
        fast, middle = fast + band.fast, middle + band.middle
        slow = None if slow is None or band.slow is None else slow + band.slow
        left_m = end
    return StrokesToGo(fast / pace + stops, middle / pace + stops, None if slow is None else slow / pace + stops)


def _cautions(setting: HoneSetting | None) -> tuple[str, ...]:
    """What can hurt, by how it is honed. Common practice, no published source."""
    said = []
    if setting is None or setting.drive is HoneDrive.DRILL:
        said.append("A hone driven by a drill grabs: two hands, a stop below, stand so that it can turn past you.")
    else:
        said.append("Eye protection, sleeves rolled up, hands off what turns; local rules and licensed practice first.")
    if setting is not None and setting.method is HoneMethod.DRY:
        said.append("Dry honing makes iron dust that harms lungs and bearings: mask on, vacuum.")
    else:
        said.append(
            "Wash with soap and hot water until a white cloth stays white; compressed air drives grit into skin."
        )
    return tuple(said)


def _says(
    facts: JobFacts,
    survey: Survey,
    state: HoneState,
    stroke: StrokePlan | None,
    levels: tuple[LevelLeft, ...],
    left: Stated,
) -> list[Phrase]:
    """What is to be known before the next round. Common practice, no published source."""
    said = []
    if stroke is None:
        said.append(Phrase("The stones are too long for this bore, or it is not free below: set it up again."))
    held_wrong = "" if survey.reading_set is None else held_otherwise(facts, survey.reading_set)
    if held_wrong:
        said.append(Phrase(f"It was {held_wrong}. A free bore is not honed to a clamped size."))
    if survey.doubt:
        said.append(Phrase(f"What was read stands in doubt: {survey.doubt}."))
    tight = [one for one in levels if one.more_strokes >= 2]
    for one in tight:
        said.append(Phrase(f"{one.name[0].upper()}{one.name[1:]} is tighter by {{t}}: {one.more_strokes} short strokes "
                           "more there.", (Term("t", one.left.value_m - left.value_m),)))  # fmt: skip
    if state is HoneState.CANNOT_TELL and not held_wrong and not survey.doubt:
        said.append(Phrase("What is left, {l}, is less than ±{U} tells from nought, and a level lies near a limit: "
                           "a finer gauge, or temperatures of bore, piston and master, settle it.",
                           (Term("l", left.value_m), Term("U", left.expanded_m, "within"))))  # fmt: skip
    for one in _large(levels):
        said.append(Phrase(f"{one.name[0].upper()}{one.name[1:]} is larger than the greatest by {{o}}: another piston, "
                           "or a concession by name.",
                           (Term("o", (one.rule.least_m or 0.0) - one.left.value_m),)))  # fmt: skip
    return said
