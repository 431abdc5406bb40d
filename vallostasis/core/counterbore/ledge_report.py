"""What the depths of a ledge say: how square it is, where it is worn, how much of it is left."""

from dataclasses import dataclass, replace

import numpy as np

from vallostasis.core.protrusion.measured import depths_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole
from vallostasis.core.records.spec_card import SpecCard
from vallostasis.core.shapes.clock import angle_of_hour, hour_of_angle
from vallostasis.core.shapes.plane import different_positions, plane_weights
from vallostasis.core.surveys.derived import DerivedKind
from vallostasis.core.surveys.survey import Survey
from vallostasis.core.uncertainty.budget import Estimate, Stated, difference_of, stated, weighted
from vallostasis.core.uncertainty.extremes import farthest_factor

# Three positions define a plane, a fourth shows that something is off, the fifth which one.
TELLS_ONE_APART = 5


@dataclass(frozen=True, slots=True)
class LedgeReport:
    """Squareness is high to low of the fitted plane; worn positions lie deeper than all others say. [m], [h]

    ``deepest_hour`` is None where scatter alone would show as much tilt. ``proud_hours`` stand higher than all others
    say: a burr, or dirt. ``uneven`` says that the positions are no plane and are too few to tell which is off.
    """

    squareness: Stated
    deepest_hour: float | None
    worn_hours: tuple[float, ...]
    proud_hours: tuple[float, ...]
    uneven: bool
    left: Stated | None

    @property
    def says(self) -> str:
        """What the depths leave open, in words."""
        if not self.uneven:
            return ""
        return (
            "These depths are no plane. Four positions cannot tell one worn spot from a saddle: read more of them, "
            "halfway between."
        )


def ledge_left(card: SpecCard, depth: Stated, what: str) -> Stated | None:
    """Ledge that is left when its top lies at a depth; None where the card does not say how much there was. [m]

    Notes
    -----
    Ledge at nominal depth less what the depth is beyond nominal: common practice, no published source.
    """
    nominal, left = card.seat.counterbore_nominal.metres, card.seat.ledge_at_nominal.metres
    if nominal is None or left is None:
        return None
    return Stated(left - (depth.value_m - nominal), replace(depth.budget, what=what))


def report_ledge(facts: JobFacts, hole: Hole) -> LedgeReport | None:
    """Report the ledge of a hole from its newest depths.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    hole : Hole
        The hole.

    Returns
    -------
    LedgeReport or None
        None with fewer than three different positions: two leave squareness open. Lengths in m.

    Notes
    -----
    Squareness is the amplitude of the plane with the ± of extremes.amplitude_of. A spot is worn when it lies deeper
    than the plane through all others says, beyond the joint U of both, guarded for as many comparisons; the one
    farthest off is set aside and the rest are looked at again while five or more are left: a deep spot would lift the
    plane at its neighbours and sink it opposite. Leave-one-out residuals: R. D. Cook, S. Weisberg, Residuals and
    Influence in Regression (1982), externally studentized (from memory). What is left of the ledge is counted at the
    deepest reading.
    """
    survey, k = depths_of(facts, hole), facts.card.coverage_factor
    tilt = survey.one_of(DerivedKind.TILT)
    if survey.relative or tilt is None:
        return None
    odd = _odd_ones(survey, k)
    few = len(survey.read) < TELLS_ONE_APART
    deepest = max((row.stated for row in survey.read if row.stated is not None), key=lambda one: one.value_m)
    return LedgeReport(
        squareness=tilt.stated,
        deepest_hour=None if tilt.direction_deg is None else hour_of_angle(tilt.direction_deg),
        worn_hours=() if few else tuple(hour for hour, off in odd if off > 0),
        proud_hours=() if few else tuple(hour for hour, off in odd if off < 0),
        uneven=few and bool(odd),
        left=ledge_left(facts.card, deepest, "ledge left"),
    )


def _odd_ones(survey: Survey, k: float) -> list[tuple[float, float]]:
    """Positions that all others contradict, worst first, with how far they lie off. [h], [m]"""
    rows = [(row.place.hour, row.estimate) for row in survey.read]
    left = [(hour, one) for hour, one in rows if hour is not None and one is not None]
    found: list[tuple[float, float]] = []
    while len(left) > 3 and (not found or len(left) >= TELLS_ONE_APART):
        offs = [_off_the_others(left, at, k) for at in range(len(left))]
        known = [(at, off) for at, off in enumerate(offs) if off is not None]
        if not known:
            break
        guard = farthest_factor(len(left), k) / k
        at, off = max(known, key=lambda one: abs(one[1].value_m) / (one[1].expanded_m or 1e-15))
        if abs(off.value_m) <= guard * off.expanded_m:
            break
        found.append((left[at][0], off.value_m))
        del left[at]
    return found


def _off_the_others(rows: list[tuple[float, Estimate]], at: int, k: float) -> Stated | None:
    """How much deeper a position lies than the plane through all others says. [m]"""
    angles = np.array([angle_of_hour(hour) for hour, _ in rows])
    others = np.delete(angles, at)
    if different_positions(others) < 3:
        return None
    weights = plane_weights(others)[0]
    here = np.array([1.0, np.cos(np.radians(angles[at])), np.sin(np.radians(angles[at]))])
    says = weighted(
        (float(weight), one)
        for weight, (_, one) in zip(here @ weights, [*rows[:at], *rows[at + 1 :]], strict=True)
    )  # fmt: skip
    return stated("worn", difference_of(rows[at][1], says), k)
