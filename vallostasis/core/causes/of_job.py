"""What does not add up on a job: heights against their parts, bores against a round and straight one.

Which readings are held against which parts is common practice, no published source.

References
----------
.. [1] JCGM 100:2008 (GUM), F.1.2.3: what readings share does not tell one hole from another.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from vallostasis.core.causes.bore_candidates import BoreSpot, bore_candidates
from vallostasis.core.causes.bore_table import BORE_CHECKS
from vallostasis.core.causes.candidates import Spot, height_candidates
from vallostasis.core.causes.next_check import NextCheck, checks_worth
from vallostasis.core.causes.table import HEIGHTS, Check, Known
from vallostasis.core.causes.weigh import CLAIMED, Explained, Finding, Residuals, far_off, weigh
from vallostasis.core.protrusion.measured import deciding_bore, depths_of, hole_parts, measured_hole, protrusion_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.rows import Hole, Liner
from vallostasis.core.records.spec_card import CONSTRUCTIONS_WITH_LEDGE
from vallostasis.core.shapes.clock import angle_of_hour, hour_name
from vallostasis.core.surveys.derived import centre_of
from vallostasis.core.surveys.places import PlaceRead
from vallostasis.core.uncertainty.budget import Estimate, Stated, difference_of, estimate, stated, weighted
from vallostasis.core.uncertainty.joint import joint_covariance

# What a sound bore is off a round and straight one, as a standard deviation: that is its form. House rule. [m]
FORM_M = 2e-6
# A bore's middle is what it is: it is left open. [m]
OPEN_M = 1e-3
# Readings of a bore that make a shape. House rule.
LEAST_READ = 6


@dataclass(frozen=True, slots=True)
class SpotOff:
    """One reading: where it stands, and what it leaves over. [m]"""

    name: str
    off: Stated


@dataclass(frozen=True, slots=True)
class HoleOff:
    """One hole: its liner and make, what its readings leave over, the middle of them, whether it adds up. [m]

    ``middle`` is None for a bore, where each reading is held against the middle.
    """

    hole: int
    liner: str
    make: str
    middle: Stated | None
    spots: tuple[SpotOff, ...]
    adds_up: bool


@dataclass(frozen=True, slots=True)
class AddsUp:
    """What a block leaves over, how far off it is in joint u, causes by weight, checks by what they tell. [m], [1]

    ``explained`` is empty where everything adds up: below three joint u nothing is claimed. ``checks`` come the one
    that tells most a minute first.
    """

    holes: tuple[HoleOff, ...]
    far_off: float
    explained: tuple[Explained, ...]
    checks: tuple[NextCheck, ...]
    missing: tuple[str, ...]


@once
def heights_add_up(facts: JobFacts, findings: tuple[Finding, ...] = (), known: Known = HEIGHTS) -> AddsUp | str:
    """Say what does not add up of the heights on a block, and which causes explain it.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    findings : tuple of Finding
        What checks have read. [m]
    known : Known
        Causes and checks, the shop's own among them.

    Returns
    -------
    AddsUp or str
        Or why there is no pattern to be seen. Joint covariance of the readings, [1]_ of the module. [m]
    """
    card = facts.card
    if card.construction not in CONSTRUCTIONS_WITH_LEDGE:
        return f"A {card.construction.value} has no parts that say how high it stands."
    rows: list[HoleOff] = []
    spots: list[Spot] = []
    left: list[Estimate] = []
    missing: list[str] = []
    along = _along(facts)
    for hole in facts.holes:
        centre, parts = measured_hole(facts, hole).centre, hole_parts(facts, hole)
        fitting = facts.present_fitting(hole.hole_id)
        if centre is None or parts.prediction is None or fitting is None:
            missing.append(f"hole {hole.number}: {', '.join(parts.missing) or 'its protrusion'} is not read")
            continue
        liner, middle = facts.liner(fitting.liner_id), difference_of(centre, parts.prediction.estimate)
        shims = sum(one.size_m for one in parts.shims)
        read = _round_the_clock(facts, hole, parts.prediction.estimate)
        rows.append(_hole_off(facts, hole, liner, middle, read))
        for angle, one in read or ((None, middle),):
            spots.append(Spot(hole.number, along[hole.number], angle, liner.make, shims))
            left.append(one)
    if len(rows) < 2:
        return "Read the protrusion and the parts of two holes at least: " + "; ".join(missing)
    spacers = tuple(one.thickness.metres for one in card.measuring.between)
    candidates = height_candidates(spots, known.causes, spacers)
    residuals = Residuals(np.array([one.value_m for one in left]), _joint(left, 1e-9), candidates)
    return _weighed(tuple(rows), residuals, findings, known.checks, tuple(missing), _on_bench(facts, rows))


def _round_the_clock(facts: JobFacts, hole: Hole, predicted: Estimate) -> tuple[tuple[float, Estimate], ...]:
    """What each position leaves over of the parts, with the ledge as it was read there; empty below three. [deg], [m]

    The flange turns with its liner, which nobody writes down: it counts by its mean.
    """
    survey, ledge = protrusion_of(facts, hole), depths_of(facts, hole)
    depths = {one.place.hour: one.estimate for one in ledge.places if one.estimate is not None}
    rows = [one for one in survey.read if one.place.hour is not None]
    if len(rows) < 3 or any(one.place.hour not in depths for one in rows):
        return ()
    middle = centre_of(ledge.estimates, ledge.angles_deg)
    found = []
    for one in rows:
        here, own = one.estimate, depths[one.place.hour]
        assert here is not None
        assert one.place.hour is not None
        off = weighted(((1.0, here), (-1.0, predicted), (1.0, own), (-1.0, middle)))
        found.append((angle_of_hour(one.place.hour), off))
    return tuple(found)


def _hole_off(
    facts: JobFacts, hole: Hole, liner: Liner, middle: Estimate, read: Sequence[tuple[float, Estimate]]
) -> HoleOff:
    k = facts.card.coverage_factor
    value = stated(f"residual of hole {hole.number}", middle, k)
    hours = [one.place.hour for one in protrusion_of(facts, hole).read if one.place.hour is not None]
    spots = tuple(SpotOff(hour_name(hour), stated(hour_name(hour), one, k))
                  for hour, (_, one) in zip(hours, read, strict=False))  # fmt: skip
    return HoleOff(hole.number, liner.mark, liner.make, value, spots, abs(value.value_m) <= value.expanded_m)


def _along(facts: JobFacts) -> dict[int, float]:
    """Where each hole stands in its bank, −1 at the front to 1. Geometry."""
    banks = facts.card.layout.banks or (tuple(one.number for one in facts.holes),)
    return {number: -1 + 2 * at / max(len(bank) - 1, 1) for bank in banks for at, number in enumerate(bank)}


def _on_bench(facts: JobFacts, rows: Sequence[HoleOff]) -> tuple[tuple[int, ...], ...]:
    """Holes of each make of which a liner is in no hole: it can be read without drawing one."""
    fitted = {one.liner for one in rows}
    spare = {one.make for one in facts.liners if one.mark not in fitted and not _is_home(facts, one)}
    return tuple(tuple(one.hole for one in rows if one.make == make) for make in sorted(spare))


def _is_home(facts: JobFacts, liner: Liner) -> bool:
    fittings = (facts.present_fitting(hole.hole_id) for hole in facts.holes)
    return any(one is not None and one.liner_id == liner.liner_id for one in fittings)


@once
def bores_add_up(facts: JobFacts, findings: tuple[Finding, ...] = (), own: tuple[Check, ...] = ()) -> AddsUp | str:
    """Say what does not add up of the bores: each as it decides now, against a round and straight one.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    findings : tuple of Finding
        What checks have read. [m]
    own : tuple of Check
        The shop's own checks.

    Returns
    -------
    AddsUp or str
        Or why there is no pattern to be seen. Joint covariance, [1]_ of the module; a sound bore's own form is a house
        rule. [m]
    """
    rows: list[HoleOff] = []
    spots: list[BoreSpot] = []
    left: list[Estimate] = []
    missing: list[str] = []
    for hole in facts.holes:
        survey = deciding_bore(facts, hole)
        read = [one for one in survey.read if one.place.level_um is not None and one.place.axis_deg is not None]
        if len(read) < LEAST_READ or survey.relative:
            missing.append(f"hole {hole.number}: fewer than {LEAST_READ} places of its bore are read")
            continue
        fitting = facts.present_fitting(hole.hole_id)
        liner = None if fitting is None else facts.liner(fitting.liner_id)
        rows.append(_bore_off(facts, hole, liner, read))
        levels = [float(one.place.level_um or 0) for one in read]
        top, reach = min(levels), max(max(levels) - min(levels), 1.0)
        spots += [BoreSpot(hole.number, (level - top) / reach, one.place.axis_deg or 0.0, one.name)
                  for level, one in zip(levels, read, strict=True)]  # fmt: skip
        left += _off_the_middle(read)
    if not rows:
        return "Read a bore at six places at least first: " + "; ".join(missing)
    candidates = bore_candidates(spots)
    open_ = np.array([[float(a.hole == b.hole) for b in spots] for a in spots]) * OPEN_M**2
    residuals = Residuals(np.array([one.value_m for one in left]), _joint(left, FORM_M) + open_, candidates)
    return _weighed(tuple(rows), residuals, findings, (*BORE_CHECKS, *own), tuple(missing), None)


def _off_the_middle(read: Sequence[PlaceRead]) -> list[Estimate]:
    """Each diameter less the mean of its bore: the mean itself is left open, so that it counts as a number. [m]"""
    known = [one.estimate for one in read if one.estimate is not None]
    middle = sum(one.value_m for one in known) / len(known)
    return [weighted(((1.0, one), (1.0, estimate(-middle, ())))) for one in known]


def _bore_off(facts: JobFacts, hole: Hole, liner: Liner | None, read: Sequence[PlaceRead]) -> HoleOff:
    k = facts.card.coverage_factor
    form = [(one.name, stated(one.name, each, k)) for one, each in zip(read, _off_the_middle(read), strict=True)]
    spots = tuple(SpotOff(name, value) for name, value in form)
    adds = all(abs(one.off.value_m) <= one.off.expanded_m + k * FORM_M for one in spots)
    return HoleOff(hole.number, "" if liner is None else liner.mark, "" if liner is None else liner.make, None, spots,
                   adds)  # fmt: skip


def _joint(estimates: Sequence[Estimate], own_m: float) -> np.ndarray[tuple[int, ...], np.dtype[np.float64]]:
    """How the residuals vary together, each with a little of its own. [m²] GUM F.1.2.3."""
    return joint_covariance(estimates) + np.eye(len(estimates)) * own_m**2


def _weighed(
    rows: tuple[HoleOff, ...], residuals: Residuals, findings: tuple[Finding, ...], checks: tuple[Check, ...],
    missing: tuple[str, ...], on_bench: tuple[tuple[int, ...], ...] | None,
) -> AddsUp:  # fmt: skip
    off = far_off(residuals)
    if off < CLAIMED and not findings:
        return AddsUp(rows, off, (), (), missing)
    explained = weigh(residuals, findings, checks)
    return AddsUp(rows, off, explained, checks_worth(explained, checks, findings, on_bench), missing)
