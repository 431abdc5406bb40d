"""What holds a liner when it is hot: the press at every moment of running, the clamp, the drag, heights and gaps.

References
----------
.. [1] JCGM 100:2008 (GUM), 5.1.2: the ± of a press at temperature from that of the press and of the expansions.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from math import hypot

from vallostasis.core.features.parts import part_with_key
from vallostasis.core.fits.effects import FitWalls, press_estimate, walls_of
from vallostasis.core.fits.fit import Fit, FitLevel
from vallostasis.core.fits.going_in import liner_length_m
from vallostasis.core.fits.hot import Grows, gap_change, height_change, press_at, vanishes_at
from vallostasis.core.fits.insertion import PULL_FRICTION
from vallostasis.core.fits.thick_walled import press_force, pressed
from vallostasis.core.protrusion.measured import protrusion_of
from vallostasis.core.records.fit_terms import Holder, RunningState, SeatAt
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole, Quantity
from vallostasis.core.records.spec_card import CONSTRUCTIONS_WITH_PROTRUSION, SpecCard, hole_numbers
from vallostasis.core.surveys.survey import survey_of
from vallostasis.core.thermal.expansion import EXPANSION_HALF_WIDTH, expansion_of
from vallostasis.core.trail import Phrase, Term
from vallostasis.core.uncertainty.budget import Estimate, Source, Stated, exactly, mean_of, stated, value_of, weighted
from vallostasis.core.uncertainty.decision import State, decide

COLD = RunningState("cold, as fitted", 20.0, 20.0)
# Running of an engine whose card names none: warming, full load, just stopped. Common practice, no published source.
USUAL = (RunningState("warming", 40.0, 75.0), RunningState("full load", 95.0, 130.0),
         RunningState("just stopped", 100.0, 100.0))  # fmt: skip
# What a clamp and a drag on a card are good to, as a share. [1] House rule.
HOLD_WITHIN = 0.15


@dataclass(frozen=True, slots=True)
class HotMoment:
    """A fit at one moment of running. [m], [N]

    ``press`` is that of the level that presses least; ``by_press`` what it holds at the least friction, ``by_clamp``
    what the head presses with; ``holds`` is what of both the drag is held against, ``within_n`` its ±. ``height`` is
    how much higher the liner stands than cold, ``stands`` how high then, where it was read; ``gap_state`` is out where
    the sleeves touch.
    """

    state: RunningState
    press: Stated
    grip: State
    level: str
    by_press_n: float
    by_clamp_n: float | None
    within_n: float
    holds: State
    height: Stated
    stands: Stated | None
    gap: Stated | None
    gap_state: State


@dataclass(frozen=True, slots=True)
class HotHold:
    """What holds a liner hot. [m], [°C], [N]

    ``gone_alike_c`` is where the press vanishes with both alike, ``gone_hotter_c`` with the liner hotter by
    ``hotter_k``; None where heat does not loosen it.
    """

    moments: tuple[HotMoment, ...]
    holder: Holder
    gone_alike_c: Stated | None
    gone_hotter_c: Stated | None
    hotter_k: float
    drag_n: float | None
    stands: Stated | None
    least_m: float | None
    greatest_m: float | None
    says: tuple[Phrase, ...]


def grows_of(facts: JobFacts) -> Grows:
    """Return how liner and block of a job grow. [1/K] By the materials of its card."""
    card = facts.card
    return Grows(expansion_of(card.liner_material, facts.materials), expansion_of(card.block_material, facts.materials))


def hot_press(press: Estimate, fit_m: float, grows: Grows, state: RunningState, k: float) -> Stated:
    """Return a press at a moment of running, with its ±.

    Parameters
    ----------
    press : Estimate
        Press at 20 °C. [m]
    fit_m : float
        Diameter of the fit. [m]
    grows : Grows
        Expansions.
    state : RunningState
        Temperatures of both. [°C]
    k : float
        Coverage factor.

    Returns
    -------
    Stated
        GUM 5.1.2 [1]_ of the module: the press, and both expansions within half a per cent of a per mille. [m]
    """
    cold = value_of(press)
    off = press_at(cold, fit_m, grows, state.liner_c, state.block_c) - cold
    return stated(f"press, {state.name}", _grown(press, off, fit_m, -fit_m, state), k)


def _grown(cold: Estimate, change_m: float, liner_m: float, block_m: float, state: RunningState) -> Estimate:
    """Add what heat changes, with the errors of both expansions over the lengths that grow. [m] GUM 5.1.2 [1]_."""
    half, errors = EXPANSION_HALF_WIDTH / 3**0.5, dict(cold.errors)
    for name, length, warm in (("liner", liner_m, state.liner_c), ("block", block_m, state.block_c)):
        source = Source(f"expansion of the {name}", half, "1/K", length * (warm - 20.0), shared=True,
                        error=f"expansion of the {name}", basis="rectangular, handbook")  # fmt: skip
        if source.sensitivity:
            errors[source.error] = (source, 1.0)
    return Estimate(cold.value_m + change_m, errors, cold.moves)


def hot_hold(facts: JobFacts, fit: Fit, states: tuple[RunningState, ...] = ()) -> HotHold | Phrase:
    """Say what holds a liner at every moment of running.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    fit : Fit
        The fit at 20 °C.
    states : tuple of RunningState
        Moments to look at; those of the card where none is asked for.

    Returns
    -------
    HotHold or Phrase
        Or what is missing. Free expansion, then Lamé; what holds is named by the card, never guessed.
    """
    walls = walls_of(facts, fit)
    if not isinstance(walls, FitWalls):
        return walls
    card, grows, k = facts.card, grows_of(facts), facts.card.coverage_factor
    asked = states or card.fits.running or USUAL
    moments = tuple(_moment(facts, fit, walls, grows, one) for one in (COLD, *asked))
    hotter = max((one.liner_c - one.block_c for one in asked), default=0.0)
    gone = [_gone(fit, walls, grows, hot, k) for hot in (0.0, hotter)]
    stands = _stands(facts, fit.hole)
    limits = card.limits
    return HotHold(
        moments, card.fits.holder, gone[0], gone[1], hotter,
        None if card.fits.drag_kn is None else card.fits.drag_kn * 1000,
        None if stands is None else stated("protrusion", stands, k),
        limits.least_without_shim.metres, limits.greatest_without_shim.metres,
        tuple(_says(card, moments)),
    )  # fmt: skip


def _moment(facts: JobFacts, fit: Fit, walls: FitWalls, grows: Grows, state: RunningState) -> HotMoment:
    card, k = facts.card, facts.card.coverage_factor
    by_level = [(hot_press(press_estimate(level), walls.rings.fit_m, grows, state, k), level) for level in fit.levels]
    press, level = min(by_level, key=lambda one: one[0].value_m)
    grip = (State.IN if press.value_m > press.expanded_m
            else State.OUT if press.value_m < -press.expanded_m else State.CANNOT_TELL)  # fmt: skip
    height, cold = _height(card, grows, state), _stands(facts, fit.hole)
    stands = None if cold is None else weighted(((1.0, cold), (1.0, height)))
    by_clamp = _clamp(card, value_of(height))
    by_press = _held_by_press(card, walls, [(one.value_m, level) for one, level in by_level])
    least_press = _held_by_press(card, walls, [(one.value_m - one.expanded_m, level) for one, level in by_level])
    drag = (card.fits.drag_kn or 0.0) * 1000
    within = hypot(HOLD_WITHIN * (by_clamp or 0.0), HOLD_WITHIN * drag, by_press - least_press)
    between = _gap(facts, fit.hole, walls, grows, state)
    gap = None if between is None else stated("gap to the neighbour", between, k)
    closes = (State.NOT_MEASURED if gap is None
              else decide(gap.value_m, gap.expanded_m, card.fits.neighbour_gap.metres or 0.0, None).state)  # fmt: skip
    return HotMoment(state, press, grip, level.name, by_press, by_clamp, within,
                     _holds(card, by_press, by_clamp, within), stated("rise when hot", height, k),
                     None if stands is None else stated("protrusion when hot", stands, k), gap, closes)  # fmt: skip


def _held_by_press(card: SpecCard, walls: FitWalls, levels: list[tuple[float, FitLevel]]) -> float:
    """What the press holds along the axis at the least friction, each level over its share of the length. [N]"""
    length = liner_length_m(card) or (levels[-1][1].depth_m - levels[0][1].depth_m) or 0.02
    shares = [max(press - walls.lost_m, 0.0) for press, _ in levels]
    pressure = pressed(walls.rings, shares).pressure_pa
    return float(press_force(pressure, walls.rings.fit_m, length / len(levels), PULL_FRICTION[0]).sum())


def _clamp(card: SpecCard, height_m: float) -> float | None:
    """What the head presses with once the liner shrank back by so much; None where nobody told. [N]"""
    fits = card.fits
    if fits.holder is not Holder.HEAD or fits.clamp_kn is None:
        return None
    lost = (fits.clamp_loss_kn or 0.0) * max(-height_m, 0.0) / 1e-5
    return max(fits.clamp_kn - lost, 0.0) * 1000


def _holds(card: SpecCard, by_press: float, by_clamp: float | None, within: float) -> State:
    """Whether what holds is more than what pulls; not told where nobody named the holder or the drag."""
    drag = card.fits.drag_kn
    if drag is None or (by_clamp is None and card.fits.holder in (Holder.HEAD, Holder.COMPOUND, Holder.UNKNOWN)
                        and by_press < drag * 1000 + within):  # fmt: skip
        return State.NOT_MEASURED
    left = by_press + (by_clamp or 0.0) - drag * 1000
    return State.IN if left > within else State.OUT if left < -within else State.CANNOT_TELL


def _height(card: SpecCard, grows: Grows, state: RunningState) -> Estimate:
    """How much higher the liner stands than cold. [m] ISO 1 by hot.height_change, GUM 5.1.2."""
    stands = card.fits.seat_depth.metres
    if stands is None:
        flange, length = card.seat.flange_nominal.metres, liner_length_m(card)
        stands = flange if card.fits.seat is SeatAt.TOP else length
    long = stands or 0.0
    return _grown(exactly(0.0), height_change(long, grows, state.liner_c, state.block_c), long, -long, state)


def _gap(facts: JobFacts, hole: Hole, walls: FitWalls, grows: Grows, state: RunningState) -> Estimate | None:
    """Gap to the next sleeve at a moment, from the one read cold, else from pitch and outside. [m] GUM 5.1.2."""
    numbers = hole_numbers(facts.card)
    if len(numbers) < 2:
        return None
    pitch = facts.card.layout.bore_pitch.metres
    beside = hole.number + 1 if hole.number + 1 in numbers else hole.number - 1
    low, high = sorted((hole.number, beside))
    part = part_with_key(facts, Quantity.NEIGHBOUR_GAP, f"gap-{low}-{high}")
    outside = walls.rings.fit_m
    read = [] if part is None else survey_of(facts, Quantity.NEIGHBOUR_GAP, part).estimates
    cold = min(read, key=value_of) if read else exactly(pitch - outside)
    return _grown(cold, gap_change(pitch, outside, grows, state.liner_c, state.block_c), -outside, pitch, state)


def _gone(fit: Fit, walls: FitWalls, grows: Grows, hotter_k: float, k: float) -> Stated | None:
    """Block temperature at which the level that presses least lets go, with its ± in K. [°C]"""
    level = fit.least
    press = press_estimate(level)
    gone = vanishes_at(value_of(press), walls.rings.fit_m, grows, hotter_k)
    if gone is None or gone > 400:
        return None
    loosens = walls.rings.fit_m * (grows.block_per_k - grows.liner_per_k)
    half = EXPANSION_HALF_WIDTH / 3**0.5
    # Per metre of press, and per 1/K of either expansion: what each moves the temperature by.
    by_press = weighted(((1 / loosens, press),))
    apart = grows.block_per_k - grows.liner_per_k
    errors = dict(by_press.errors)
    for name, warm_k in (("liner", gone + hotter_k - 20.0), ("block", 20.0 - gone)):
        own = f"expansion of the {name}"
        errors[own] = (Source(own, half, "1/K", warm_k / apart, shared=True, error=own), 1.0)
    return stated("temperature at which the press is gone", Estimate(gone, errors), k)


def _stands(facts: JobFacts, hole: Hole) -> Estimate | None:
    """How the liner stands cold, as read. [m] GUM 4.2.3."""
    if facts.card.construction not in CONSTRUCTIONS_WITH_PROTRUSION:
        return None
    survey = protrusion_of(facts, hole)
    if not survey.estimates:
        return None
    return mean_of(survey.estimates)


def _says(card: SpecCard, moments: tuple[HotMoment, ...]) -> Iterator[Phrase]:
    free = [one for one in moments if one.grip is not State.IN]
    fits = card.fits
    if free and fits.holder is Holder.UNKNOWN:
        yield Phrase(f"The press is gone at {free[0].state.name}, and what holds the liner then is not known. Name it "
                     "on the card: head, compound, or nothing.")  # fmt: skip
    if free and fits.holder is Holder.NOTHING:
        yield Phrase(f"The press is gone at {free[0].state.name}, and nothing holds the liner then.")
    if free and fits.holder is Holder.COMPOUND:
        yield Phrase("Compound holds it then: what it bears hot stands in its maker's sheet, not here.")
    if free and fits.holder is Holder.HEAD and fits.clamp_kn is None:
        yield Phrase("The head clamps it, but nobody told with what load: not known.")
    lowest = min(moments, key=lambda one: one.height.value_m)
    if lowest.height.value_m < -5e-6:
        yield Phrase(f"At {lowest.state.name} it stands {{drop}} ±{{u}} lower than cold: the block grows more than the "
                     "liner. Skimmed flush cold it would be sunk hot.",
                     (Term("drop", -lowest.height.value_m), Term("u", lowest.height.expanded_m, "within")))  # fmt: skip
        yield from _low_when_hot(card, lowest)
    for said, words in ((State.OUT, "the sleeves touch: they push on each other along the crank and stay oval (side "
                         "loading)."), (State.CANNOT_TELL, "the sleeves may touch: read their gap cold, {gap} ±{u} hot "
                         "is too near to tell.")):  # fmt: skip
        one = next((one for one in moments if one.gap_state is said), None)
        if one is not None and one.gap is not None:
            yield Phrase(f"At {one.state.name} {words}",
                         (Term("gap", one.gap.value_m), Term("u", one.gap.expanded_m, "within")))  # fmt: skip
            return


def _low_when_hot(card: SpecCard, lowest: HotMoment) -> Iterator[Phrase]:
    least, stands = card.limits.least_without_shim.metres, lowest.stands
    if least is None or stands is None:
        return
    verdict = decide(stands.value_m, stands.expanded_m, least, None).state
    if verdict is not State.IN:
        words = "It then stands below the least of the card" if verdict is State.OUT else "It may stand below the least"
        yield Phrase(f"{words}, {{hot}} ±{{u}}.",
                     (Term("hot", stands.value_m), Term("u", stands.expanded_m, "within")))  # fmt: skip
