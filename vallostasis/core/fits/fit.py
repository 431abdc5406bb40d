"""One liner in one hole before it is forced: the press at every level and axis, judged, and what it would take.

References
----------
.. [1] JCGM 100:2008 (GUM), F.1.2.3: what both readings share cancels in the press.
"""

from collections.abc import Sequence
from dataclasses import dataclass

from vallostasis.core.features.parts import part_with_key
from vallostasis.core.fits.interference import BEYOND_M, between_levels
from vallostasis.core.fits.wanted import Sizing, Wanted, sizing_of, wanted_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.rows import Hole, Liner, Quantity
from vallostasis.core.records.spec_card import SpecCard
from vallostasis.core.surveys.derived import BoreTable
from vallostasis.core.surveys.loads import Held, held
from vallostasis.core.surveys.places import PlaceRead
from vallostasis.core.surveys.survey import Survey, bore_table, survey_of, surveys_by_load
from vallostasis.core.trail import Phrase
from vallostasis.core.uncertainty.budget import Estimate, Stated, difference_of, mean_of, stated
from vallostasis.core.uncertainty.decision import RuleKind, RuleResult, State, judge


@dataclass(frozen=True, slots=True)
class FitPlace:
    """The press at one level and axis, diametral, positive for a press. [m], [deg]

    ``stock`` is what has to come off the diameter there to reach the aim; None without an aim.
    """

    axis_deg: float
    press: Stated
    rule: RuleResult
    stock: Stated | None


@dataclass(frozen=True, slots=True)
class FitLevel:
    """One level of the hole: bore and liner there, the press of their means and by axis. [m]"""

    name: str
    depth_m: float
    bore: Estimate
    liner: Estimate
    press: Stated
    rule: RuleResult
    places: tuple[FitPlace, ...]
    stock: Stated | None

    @property
    def state(self) -> State:
        """How it stands: of its mean and its axes the one that decides. House rule of a hole."""
        return worst_state([self.rule.decision.state, *(one.rule.decision.state for one in self.places)])

    @property
    def worst(self) -> FitPlace:
        """The axis that is farthest from the aim, or presses most. By definition."""
        return max(self.places, key=lambda one: one.press.value_m if one.stock is None else abs(one.stock.value_m))


@dataclass(frozen=True, slots=True)
class Fit:
    """A liner held against a hole, level by level.

    ``left_out`` names levels at which the liner was not read, ``grips`` is the share of the wall that presses.
    """

    hole: Hole
    liner: Liner
    wanted: Wanted | None
    sizing: Sizing
    levels: tuple[FitLevel, ...]
    left_out: tuple[str, ...]
    doubtful: bool
    bore: Survey
    outside: Survey
    grips: float
    state: State

    @property
    def least(self) -> FitLevel:
        """The level that presses least. By definition."""
        return min(self.levels, key=lambda one: one.press.value_m)

    @property
    def deciding(self) -> FitLevel:
        """The level that decides: one that is out first, then the one farthest from the aim. House rule."""

        def far(one: FitLevel) -> float:
            return abs(one.worst.press.value_m if one.worst.stock is None else one.worst.stock.value_m)

        return max(self.levels, key=lambda one: (one.state is State.OUT, far(one)))

    @property
    def greatest(self) -> FitLevel:
        """The level that presses most. By definition."""
        return max(self.levels, key=lambda one: one.press.value_m)


@dataclass(frozen=True, slots=True)
class FitRefused:
    """Why a press cannot be told: it is measured, never guessed."""

    hole: Hole
    liner: Liner | None
    reason: Phrase
    quantity: Quantity | None = None
    part: str = ""


def worst_state(states: Sequence[State]) -> State:
    """Return the state that decides among several: out, then what cannot be told, then in. House rule of a hole."""
    order = (State.READ_AGAIN, State.OUT, State.NOT_MEASURED, State.CANNOT_TELL, State.IN)
    return next(one for one in order if one in states)


def liners_for(facts: JobFacts, hole: Hole) -> tuple[Liner, ...]:
    """Return the liners that may go into a hole: its own where one sits in it, else those in none, its trial fit first.

    House rule.
    """
    fitting = facts.present_fitting(hole.hole_id)
    if fitting is not None:
        return (facts.liner(fitting.liner_id),)
    free = [one for one in facts.liners if facts.hole_of_liner(one.liner_id) is None]
    tried = [one.part for one in facts.sets_of(Quantity.TRIAL_FIT) if one.hole_id == hole.hole_id]
    last = tried[-1] if tried else None
    return tuple(sorted(free, key=lambda one: one.mark != last))


def shown_liners(facts: JobFacts) -> dict[int, Liner]:
    """Return the liner each hole is looked at with: its own, the one tried, else the next that no other is shown with.

    House rule; holes for which none is left are not in it.
    """
    found: dict[int, Liner] = {}
    taken: set[str] = set()
    for hole in facts.holes:
        liner = next((one for one in liners_for(facts, hole) if one.mark not in taken), None)
        if liner is not None:
            taken.add(liner.mark)
            found[hole.number] = liner
    return found


def places_met(facts: JobFacts, hole: Hole, bore: Survey) -> tuple[PlaceRead, ...]:
    """Return the places of a bore as the liner met them: what is done once it is in says nothing against them.

    House rule: with a liner in, the bore cannot be read again.
    """
    is_in = facts.present_fitting(hole.hole_id) is not None
    return bore.past if is_in and bore.disturbed is not None else bore.places


def free_bore(facts: JobFacts, hole: Hole) -> Survey:
    """Return the block bore as a liner meets it: read free where it was also read under a plate. House rule."""
    part = part_with_key(facts, Quantity.BLOCK_BORE, f"hole-{hole.number}")
    assert part is not None
    now = survey_of(facts, Quantity.BLOCK_BORE, part)
    if now.reading_set is None or held(facts.setup(now.reading_set.setup_id).load) is not Held.CLAMPED:
        return now
    others = surveys_by_load(facts, Quantity.BLOCK_BORE, part)
    free = [one for one in others if one.reading_set is not None
            and held(facts.setup(one.reading_set.setup_id).load) is not Held.CLAMPED]  # fmt: skip
    return free[-1] if free else now


@once
def fit_of(facts: JobFacts, hole: Hole, mark: str, school: str | None = None) -> Fit | FitRefused:
    """Hold one liner against one hole.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    hole : Hole
        The hole.
    mark : str
        Mark of the liner.
    school : str or None
        The press wanted, where it is not the one the job follows.

    Returns
    -------
    Fit or FitRefused
        Refused where either was not measured: a press that nobody measured is not guessed.

    Notes
    -----
    Liner less bore at each level and axis; the liner stands with its mark at 12 h and hangs from the deck, so that its
    depths are those of the hole; where it was not read on an axis its mean counts there. GUM F.1.2.3 [1]_ of the
    module; straight lines between levels: common practice.
    """
    liner = next((one for one in facts.liners if one.mark == mark), None)
    bore = free_bore(facts, hole)
    met = places_met(facts, hole, bore)
    bored = bore_table(bore.pattern, met)
    if bored is None or bore.relative:
        words = f"Nobody measured the block bore of hole {hole.number} as a size: a press is measured, never guessed."
        return FitRefused(hole, liner, Phrase(words), Quantity.BLOCK_BORE, f"hole-{hole.number}")
    key = f"liner-{mark}"
    part = part_with_key(facts, Quantity.LINER_OUTSIDE, key)
    outside = None if part is None else survey_of(facts, Quantity.LINER_OUTSIDE, part)
    table = None if outside is None else bore_table(outside.pattern, outside.places)
    if liner is None or outside is None or table is None or outside.relative:
        words = f"Nobody measured the outside of liner {mark}: a press is measured, never guessed."
        return FitRefused(hole, liner, Phrase(words), Quantity.LINER_OUTSIDE, key)
    wanted = wanted_of(facts, school)
    levels, left_out = levels_of(facts.card, bored, table, wanted)
    if not levels:
        words = f"Hole {hole.number} and liner {mark} were not read at levels near each other: read one more of either."
        return FitRefused(hole, liner, Phrase(words), Quantity.LINER_OUTSIDE, key)
    doubtful = any(one.doubtful for one in (*met, *outside.places))
    presses = [place.press.value_m > 0 for level in levels for place in level.places]
    state = _state(wanted, levels, doubtful, (*met, *outside.places))
    if (bore.disturbed is not None and met is bore.places) or outside.disturbed is not None:
        state = State.READ_AGAIN
    return Fit(hole, liner, wanted, sizing_of(facts), levels, left_out, doubtful, bore, outside,
               sum(presses) / len(presses), state)  # fmt: skip


def _state(wanted: Wanted | None, levels: tuple[FitLevel, ...], doubtful: bool, places: tuple[PlaceRead, ...]) -> State:
    """A moved zero first, then what is out, then what nobody read; without a press wanted nothing is in."""
    missing = any(one.on_pattern and not one.readings and not one.unreadable for one in places)
    unreadable = any(one.unreadable for one in places)
    found = [one.state for one in levels]
    if missing:
        found.append(State.NOT_MEASURED)
    if wanted is None or unreadable:
        found.append(State.CANNOT_TELL)
    return State.CANNOT_TELL if doubtful else worst_state(found)


def levels_of(
    card: SpecCard, bored: BoreTable, outside: BoreTable, wanted: Wanted | None
) -> tuple[tuple[FitLevel, ...], tuple[str, ...]]:
    """Hold one outside against one bore, level by level; name the levels at which the outside was not read. [m]

    Straight lines between levels: common practice. What both readings share cancels, GUM F.1.2.3 [1]_ of the module.
    """
    at = [depth for depth, row in zip(outside.depths_m, outside.cells, strict=True) if any(row)]
    rows = [row for row in outside.cells if any(row)]
    means = [mean_of([one for one in row if one is not None]) for row in rows]
    levels, left_out = [], []
    for depth, name, cells in zip(bored.depths_m, bored.names, bored.cells, strict=True):
        there = [(axis, one) for axis, one in zip(bored.axes_deg, cells, strict=True) if one is not None]
        if not there:
            continue
        if not at[0] - BEYOND_M <= depth <= at[-1] + BEYOND_M:
            left_out.append(name)
            continue
        liner = between_levels(depth, at, means)
        places = []
        for axis, bore in there:
            column = outside.axes_deg.index(axis) if axis in outside.axes_deg else None
            own = None if column is None else [row[column] for row in rows]
            whole = None if own is None else [one for one in own if one is not None]
            against = between_levels(depth, at, whole) if whole is not None and len(whole) == len(at) else liner
            places.append(_place(card, name, axis, difference_of(against, bore), wanted))
        mean = mean_of([one for _, one in there])
        press = stated(f"press, {name}", difference_of(liner, mean), card.coverage_factor)
        levels.append(FitLevel(name, depth, mean, liner, press, _rule(card, name, press, wanted), tuple(places),
                               _stock(card, difference_of(liner, mean), wanted)))  # fmt: skip
    return tuple(levels), tuple(left_out)


def _place(card: SpecCard, name: str, axis: float, press: Estimate, wanted: Wanted | None) -> FitPlace:
    value = stated(f"press, {name}", press, card.coverage_factor)
    return FitPlace(axis, value, _rule(card, name, value, wanted), _stock(card, press, wanted))


def _rule(card: SpecCard, name: str, press: Stated, wanted: Wanted | None) -> RuleResult:
    limits = (None, None) if wanted is None else (wanted.least_m, wanted.greatest_m)
    return judge(RuleKind.READING, name, press, limits, card.acceptance)


def _stock(card: SpecCard, press: Estimate, wanted: Wanted | None) -> Stated | None:
    """What has to come off the diameter to reach the aim; negative where metal is missing. [m]"""
    if wanted is None or wanted.aim_m is None:
        return None
    return stated("stock to the aim", Estimate(press.value_m - wanted.aim_m, press.errors, press.moves),
                  card.coverage_factor)  # fmt: skip
