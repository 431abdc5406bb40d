"""What does not add up on a job: protrusion as read less what the parts say, and what may be behind it.

Which readings are held against which parts is common practice, no published source.
"""

from dataclasses import dataclass

import numpy as np

from vallostasis.core.causes.weigh import (
    CLAIMED,
    Explained,
    Finding,
    NextCheck,
    Residuals,
    far_off,
    next_check,
    weigh,
)
from vallostasis.core.protrusion.measured import hole_parts, measured_hole
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.spec_card import CONSTRUCTIONS_WITH_LEDGE
from vallostasis.core.uncertainty.budget import Stated, difference_of, stated
from vallostasis.core.uncertainty.joint import joint_covariance


@dataclass(frozen=True, slots=True)
class HoleResidual:
    """One hole: its liner and make, what its reading leaves over of the parts, whether it adds up. [m]"""

    hole: int
    liner: str
    make: str
    residual: Stated
    adds_up: bool


@dataclass(frozen=True, slots=True)
class AddsUp:
    """The residuals of a block, how far off they are in joint u, causes by weight, the check that tells most. [m], [1]

    ``explained`` is empty where everything adds up: below three joint u nothing is claimed.
    """

    holes: tuple[HoleResidual, ...]
    far_off: float
    explained: tuple[Explained, ...]
    proposed: NextCheck | None
    missing: tuple[str, ...]


@once
def adds_up(facts: JobFacts, findings: tuple[Finding, ...] = ()) -> AddsUp | str:
    """Say what does not add up on a block, and which causes explain it.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    findings : tuple of Finding
        What checks would have read, tried without a record. [m]

    Returns
    -------
    AddsUp or str
        Or why there is no pattern to be seen. Joint covariance of the readings, GUM F.1.2.3. [m]
    """
    card = facts.card
    if card.construction not in CONSTRUCTIONS_WITH_LEDGE:
        return f"A {card.construction.value} has no parts that say how high it stands."
    rows, estimates, shims, missing = [], [], [], []
    for hole in facts.holes:
        centre, parts = measured_hole(facts, hole).centre, hole_parts(facts, hole)
        fitting = facts.present_fitting(hole.hole_id)
        if centre is None or parts.prediction is None or fitting is None:
            missing.append(f"hole {hole.number}: {', '.join(parts.missing) or 'its protrusion'} is not read")
            continue
        liner, left = facts.liner(fitting.liner_id), difference_of(centre, parts.prediction.estimate)
        value = stated(f"residual of hole {hole.number}", left, card.coverage_factor)
        rows.append(HoleResidual(hole.number, liner.mark, liner.make, value,
                                 abs(value.value_m) <= value.expanded_m))  # fmt: skip
        estimates.append(left)
        shims.append(sum(one.size_m for one in parts.shims))
    if len(rows) < 2:
        return "Read the protrusion and the parts of two holes at least: " + "; ".join(missing)
    residuals = Residuals(
        tuple(one.hole for one in rows), tuple(one.residual.value_m for one in rows),
        joint_covariance(estimates) + np.eye(len(rows)) * 1e-18, tuple(one.make for one in rows), tuple(shims),
    )  # fmt: skip
    off = far_off(residuals)
    if off < CLAIMED and not findings:
        return AddsUp(tuple(rows), off, (), None, tuple(missing))
    explained = weigh(residuals, findings)
    return AddsUp(tuple(rows), off, explained, next_check(explained, done=findings), tuple(missing))
