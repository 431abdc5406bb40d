"""What the depths of a ledge say: how square it is, where it is worn, how much of it is left."""

from dataclasses import dataclass
from math import sqrt

from vallostasis.core.job_facts import JobFacts
from vallostasis.core.measuring.clock import hour_of_angle
from vallostasis.core.measuring.uncertainty import standard_of_mean
from vallostasis.core.measuring.values import trust_of_set
from vallostasis.core.protrusion.measured import (
    ledge_of,
    readings_by_hour,
)
from vallostasis.core.protrusion.stack import Part
from vallostasis.core.records import Hole
from vallostasis.core.spec_card import SpecCard


@dataclass(frozen=True, slots=True)
class LedgeReport:
    """Squareness is high to low of the fitted plane; worn positions lie deeper than it by more than U. [m], [h]"""

    squareness_m: float
    squareness_expanded_m: float
    deepest_hour: float
    worn_hours: tuple[float, ...]
    left: Part | None


def ledge_left(card: SpecCard, depth_m: float, standard_m: float) -> Part | None:
    """Ledge that is left when its top lies at a depth; None where the card does not say how much there was. [m]"""
    nominal, left = card.seat.counterbore_nominal.metres, card.seat.ledge_at_nominal.metres
    if nominal is None or left is None:
        return None
    return Part("ledge left", left - (depth_m - nominal), standard_m)


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
    Uncertainty of high to low: for n equally spaced readings each coefficient of the plane has
    u·√(2/n), and high to low is twice their length along its own direction: U = k·2·u·√(2/n). The zero
    of the gauge is common to all and cancels. A reading is called worn when it lies deeper than the
    plane by more than its own U; what is left is counted at the deepest reading.
    """
    reading_set, ledge = facts.newest_depth_set(hole.hole_id), ledge_of(facts, hole)
    if reading_set is None or ledge is None or ledge.plane is None:
        return None
    depths = readings_by_hour(facts, reading_set)
    trust, k = trust_of_set(facts, reading_set), facts.card.coverage_factor
    single = standard_of_mean(trust, 1)
    worn = tuple(
        depth.hour
        for depth, residual in zip(depths, ledge.plane.residuals_m, strict=True)
        if residual > k * trust.random_m
    )
    return LedgeReport(
        squareness_m=ledge.plane.high_to_low_m,
        squareness_expanded_m=k * 2.0 * trust.random_m * sqrt(2.0 / len(depths)),
        deepest_hour=hour_of_angle(ledge.plane.high_side_deg),
        worn_hours=worn,
        left=ledge_left(facts.card, max(depth.mean_m for depth in depths), single),
    )
