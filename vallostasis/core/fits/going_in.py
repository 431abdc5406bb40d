"""What a hole will take of its liner: as it is, and by each school; by hand, and what the puller feels.

References
----------
.. [1] JCGM 101:2008, Supplement 1 to the GUM: profiles, friction and the push of a hand drawn together.
"""

from dataclasses import dataclass, replace

import numpy as np

from vallostasis.core.fits.effects import FitWalls, LevelEffect, effects_of, taken_off, walls_of
from vallostasis.core.fits.fit import Fit, fit_of
from vallostasis.core.fits.insertion import (
    DRY,
    FRICTION_WITHIN,
    OILED,
    PULL_FRICTION,
    PUSH_N,
    PUSH_WITHIN,
    Insertion,
    hand_depth,
    insert,
    profile_over,
    stiffens_at,
)
from vallostasis.core.fits.thick_walled import Array
from vallostasis.core.fits.wanted import FIRM, LIGHT, wanted_by_card
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.rows import Hole, Quantity
from vallostasis.core.records.spec_card import SpecCard, sheet_of
from vallostasis.core.uncertainty.budget import value_of
from vallostasis.core.uncertainty.monte_carlo import draw_jointly, generator

# So many draws: a band to a tenth of its width, in milliseconds.
GOING_IN_DRAWS = 64
# Edges of a band: of a force nine of ten draws, of the start by hand, which two unknowns of a hand bend, a few more.
LOW, HIGH = 0.05, 0.95
HAND_LOW, HAND_HIGH = 0.02, 0.98


@dataclass(frozen=True, slots=True)
class Friction:
    """What is taken of friction [1] and of the hand's push [N]; asked for otherwise by whoever tries what would be."""

    pull_least: float = PULL_FRICTION[0]
    pull_greatest: float = PULL_FRICTION[1]
    dry: float = DRY
    oiled: float = OILED
    push_n: float = PUSH_N


@dataclass(frozen=True, slots=True)
class Band:
    """A value with most draws between its edges."""

    low: float
    middle: float
    high: float


@dataclass(frozen=True, slots=True)
class GoingIn:
    """How a liner goes in. Depths in m, forces in N, arrays of one shape.

    ``by_hand`` is how far it slides oiled, ``by_hand_dry`` dry.
    """

    depths_m: Array
    low_n: Array
    middle_n: Array
    high_n: Array
    greatest: Band
    by_hand: Band
    by_hand_dry: Band
    stiffens_m: tuple[float, ...]
    work_j: float


@dataclass(frozen=True, slots=True)
class SchoolOfFit:
    """A fit by one school: sized to its aim, or as it is where it has none. [m]

    ``too_big_m`` is by how much the hole is too large for the aim at its worst, ``takes_off_m`` the most that comes off
    the diameter.
    """

    name: str
    aim_m: float | None
    least_m: float
    greatest_m: float
    too_big_m: float
    takes_off_m: float
    effects: tuple[LevelEffect, ...]
    going_in: GoingIn | None


AS_IT_IS = "as it is"


def liner_length_m(card: SpecCard) -> float | None:
    """Length of the liner that goes in: its own field of the card, or that of the trial fit. [m] By its card."""
    sheet = sheet_of(card, Quantity.TRIAL_FIT)
    return card.fits.liner_length.metres or (None if sheet is None else sheet.nominal.metres)


def going_in(facts: JobFacts, fit: Fit, aim_m: float | None, friction: Friction) -> GoingIn | None:
    """Simulate how a liner goes in.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    fit : Fit
        The fit.
    aim_m : float or None
        The press that the hole is honed to first, where it is. [m]
    friction : Friction
        What is taken of friction and push.

    Returns
    -------
    GoingIn or None
        None without a length of the liner on the card.

    Notes
    -----
    Bores and outsides drawn jointly from their ±, friction and push evenly within what is taken of them; every draw is
    pushed in by insertion.insert; JCGM 101 [1]_ of the module.
    """
    meets = _meets(facts, fit.hole, fit.liner.mark, aim_m)
    if meets is None:
        return None
    rng = generator(2)
    pull = rng.uniform(friction.pull_least, friction.pull_greatest, GOING_IN_DRAWS)
    pull[0] = (friction.pull_least + friction.pull_greatest) / 2
    pulled = replace(meets, force_n=meets.force_n * pull[:, None])
    low, middle, high = np.quantile(pulled.force_n, (LOW, 0.5, HIGH), axis=0)
    as_read = Insertion(pulled.depths_m, pulled.force_n[0])
    return GoingIn(
        pulled.depths_m, low, middle, high, _band(pulled.greatest_n),
        _by_hand(meets, friction, friction.oiled), _by_hand(meets, friction, friction.dry),
        stiffens_at(as_read), float(np.median(pulled.work_j)),
    )  # fmt: skip


@once
def _meets(facts: JobFacts, hole: Hole, mark: str, aim_m: float | None) -> Insertion | None:
    """Push every draw of a liner into its hole for a friction of one: hand and screw meet the same pressure. [m]

    JCGM 101 [1]_ of the module.
    """
    length, fit = liner_length_m(facts.card), fit_of(facts, hole, mark)
    if not length or not isinstance(fit, Fit):
        return None
    walls = walls_of(facts, fit)
    if not isinstance(walls, FitWalls):
        return None
    depths, drawn = [level.depth_m for level in fit.levels], _drawn(facts, hole, mark)
    off = np.array([taken_off(level, aim_m) for level in fit.levels])
    n = len(fit.levels)
    bore = profile_over(depths, drawn[:, :n] + off, length)
    liner = profile_over(depths, drawn[:, n:], length) - walls.lost_m
    return insert(walls.rings, liner, bore, length, 1.0, facts.card.fits.lead_in.metres or 0.0)


@once
def _drawn(facts: JobFacts, hole: Hole, mark: str) -> Array:
    """Draw bores and outsides of a fit jointly from their ±, level by level; the first draw is what was read. [m]

    JCGM 101 [1]_ of the module.
    """
    fit = fit_of(facts, hole, mark)
    assert isinstance(fit, Fit)
    both = [level.bore for level in fit.levels] + [level.liner for level in fit.levels]
    drawn = draw_jointly(both, GOING_IN_DRAWS)
    drawn[0] = [value_of(one) for one in both]
    return drawn


@once
def _effects(facts: JobFacts, hole: Hole, mark: str, aim_m: float | None) -> tuple[LevelEffect, ...]:
    """What a press sized to an aim does, level by level. [m] By effects.effects_of, of definition."""
    fit = fit_of(facts, hole, mark)
    walls = walls_of(facts, fit) if isinstance(fit, Fit) else None
    return effects_of(facts, fit, walls, aim_m) if isinstance(fit, Fit) and isinstance(walls, FitWalls) else ()


@once
def expected_way_in(facts: JobFacts, hole: Hole, mark: str) -> GoingIn | None:
    """Return how a liner is expected to go into a hole as both were read; None where that is not known.

    JCGM 101 [1]_ of the module, with friction and push as they are taken.
    """
    fit = fit_of(facts, hole, mark)
    if not isinstance(fit, Fit):
        return None
    return going_in(facts, fit, None, Friction())


def _by_hand(meets: Insertion, friction: Friction, middle: float) -> Band:
    rng = generator(3)
    push = friction.push_n * rng.uniform(1 - PUSH_WITHIN, 1 + PUSH_WITHIN, GOING_IN_DRAWS)
    sliding = middle * rng.uniform(1 - FRICTION_WITHIN, 1 + FRICTION_WITHIN, GOING_IN_DRAWS)
    push[0], sliding[0] = friction.push_n, middle
    depths = hand_depth(replace(meets, force_n=meets.force_n * sliding[:, None]), push)
    return _band(depths, HAND_LOW, HAND_HIGH)


def _band(values: Array, least: float = LOW, most: float = HIGH) -> Band:
    low, middle, high = np.quantile(values, (least, 0.5, most))
    return Band(float(low), float(middle), float(high))


def school_of_fit(facts: JobFacts, fit: Fit, name: str, aim_m: float | None, friction: Friction) -> SchoolOfFit:
    """Return a fit by one school. [m] Metal that is missing is not put on: the hole stays as large as it is there.

    By definition of sizing.
    """
    presses = [level.press.value_m - taken_off(level, aim_m) for level in fit.levels]
    missing = 0.0 if aim_m is None else max(0.0, aim_m - min(level.press.value_m for level in fit.levels))
    return SchoolOfFit(
        name, aim_m, min(presses), max(presses), missing, max(taken_off(level, aim_m) for level in fit.levels),
        _effects(facts, fit.hole, fit.liner.mark, aim_m), going_in(facts, fit, aim_m, friction),
    )  # fmt: skip


def schools_of_fit(
    facts: JobFacts, fit: Fit, friction: Friction, aim_m: float | None = None
) -> tuple[SchoolOfFit, ...]:
    """Return the schools side by side on the same readings: as it is, and what the card aims at by each. [m]

    House rule; an aim that is asked for stands in for that of the school which the fit follows.
    """
    found = [school_of_fit(facts, fit, AS_IT_IS, None, friction)]
    for name in (LIGHT, FIRM):
        wanted = wanted_by_card(facts.card, name)
        aim = None if wanted is None else wanted.aim_m
        if aim_m is not None and fit.wanted is not None and fit.wanted.school == name:
            aim = aim_m
        if aim is not None:
            found.append(school_of_fit(facts, fit, name, aim, friction))
    return tuple(found)
