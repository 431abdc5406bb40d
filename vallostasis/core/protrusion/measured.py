"""From what was recorded about a job to what the rules judge: the present set of every hole."""

from collections import defaultdict
from dataclasses import dataclass
from statistics import fmean

from vallostasis.core.job_facts import JobFacts, once
from vallostasis.core.lengths import metres
from vallostasis.core.measuring.uncertainty import ReadingTrust, rectangular, standard_of_mean
from vallostasis.core.measuring.values import is_relative, trust_of_set, value_used_um
from vallostasis.core.measuring.zero_checks import doubtful_readings
from vallostasis.core.protrusion.rules import (
    BlockJudgement,
    HourReadings,
    MeasuredHole,
    ProtrusionLimits,
    RuleBook,
    judge_block,
)
from vallostasis.core.protrusion.stack import (
    Ledge,
    Part,
    StackPrediction,
    StackResidual,
    compare_with_measured,
    ledge_from_depths,
    predict_protrusion,
)
from vallostasis.core.records import Fitting, Hole, Liner, Quantity, ReadingSet, Setup, ZeroedOn
from vallostasis.core.spec_card import SpecCard

# Half width of a shim's thickness when only its nominal size is known. Common practice, no
# published source: measure the shim to do better.
UNMEASURED_SHIM_M = 5e-6
# Half width of a measured shim: read with a micrometer graduated in hundredths of a millimetre and
# estimated to a fifth. Common practice, no published source.
MEASURED_SHIM_M = 2e-6

_CIRCUMSTANCES = ("quantity", "gauge", "land", "datum", "hold-down", "hold-down torque", "load", "method")


@dataclass(frozen=True, slots=True)
class HoleParts:
    """What is known of the parts in a hole, and what they predict; ``missing`` names what is not known."""

    flange: Part | None
    shims: tuple[Part, ...]
    ledge: Ledge | None
    between: tuple[Part, ...]
    prediction: StackPrediction | None
    missing: tuple[str, ...]


def limits_for(card: SpecCard, with_shim: bool) -> ProtrusionLimits:
    """Limits that hold for a fitting with or without a shim. [m]"""
    limits = card.limits
    least = limits.least_with_shim if with_shim else limits.least_without_shim
    greatest = limits.greatest_with_shim if with_shim else limits.greatest_without_shim
    return ProtrusionLimits(
        least.metres,
        greatest.metres,
        limits.variation_round.metres,
        limits.neighbour_difference.metres,
        limits.head_average_least.metres,
        limits.head_average_greatest.metres,
    )


def rule_book(card: SpecCard) -> RuleBook:
    """How a card judges a block."""
    return RuleBook(card.measuring.required_hours, card.layout.heads, card.acceptance, card.coverage_factor)


@once
def readings_by_hour(facts: JobFacts, reading_set: ReadingSet) -> tuple[HourReadings, ...]:
    """Unstruck readings of a set by clock position as sizes: zero and its correction added. [h], [m]"""
    by_hour: dict[float, list[float]] = defaultdict(list)
    for reading in facts.standing_readings(reading_set):
        if reading.hour is not None:
            by_hour[reading.hour].append(metres(value_used_um(facts, reading_set, reading)))
    return tuple(HourReadings(hour, tuple(values)) for hour, values in sorted(by_hour.items(), key=_round_the_clock))


def _round_the_clock(item: tuple[float, list[float]]) -> float:
    """12 h comes first, as people read it out."""
    return item[0] % 12


@once
def flange_part(facts: JobFacts, liner: Liner, land: str) -> Part | None:
    """Flange thickness of a liner at a land: mean of its newest set there. [m]"""
    reading_set = facts.newest_flange_set(liner.liner_id, land)
    if reading_set is None or is_relative(facts, reading_set):
        return None
    values = [metres(value_used_um(facts, reading_set, one)) for one in facts.standing_readings(reading_set)]
    standard = standard_of_mean(trust_of_set(facts, reading_set), len(values))
    return Part(f"flange of {liner.mark} at the {land}", fmean(values), standard)


@once
def ledge_of(facts: JobFacts, hole: Hole) -> Ledge | None:
    """Where a flange comes to rest in a hole, from the newest depths since its last cut. [m]"""
    reading_set = facts.newest_depth_set(hole.hole_id)
    if reading_set is None or is_relative(facts, reading_set):
        return None
    depths = readings_by_hour(facts, reading_set)
    if not depths:
        return None
    standard = standard_of_mean(trust_of_set(facts, reading_set), 1)
    hours = tuple(depth.hour for depth in depths)
    values = tuple(depth.mean_m for depth in depths)
    return ledge_from_depths(hours, values, standard, facts.card.coverage_factor)


def shim_parts(facts: JobFacts, hole: Hole) -> tuple[Part, ...]:
    """Shims under the liner in a hole, measured thickness where it is known. [m]"""
    fitting = facts.present_fitting(hole.hole_id)
    if fitting is None:
        return ()
    return tuple(
        Part(
            f"shim {shim.typed}",
            metres(shim.thickness_um),
            rectangular(UNMEASURED_SHIM_M if shim.measured_um is None else MEASURED_SHIM_M),
        )
        for shim in facts.shims_of(fitting.fitting_id)
    )


@once
def hole_parts(facts: JobFacts, hole: Hole) -> HoleParts:
    """Collect what is known of the parts in a hole and predict protrusion where nothing is missing."""
    fitting = facts.present_fitting(hole.hole_id)
    setup = facts.present_setup(Quantity.PROTRUSION)
    land = facts.card.measuring.land if setup is None else setup.land
    flange = None if fitting is None else flange_part(facts, facts.liner(fitting.liner_id), land)
    ledge = ledge_of(facts, hole)
    shims = shim_parts(facts, hole)
    between = tuple(Part(part.name, part.thickness.metres) for part in facts.card.measuring.between)
    missing = []
    if fitting is None:
        missing.append("a liner in the hole")
    elif flange is None:
        missing.append(f"flange thickness of {facts.liner(fitting.liner_id).mark} at the {land}")
    if ledge is None:
        missing.append(
            "counterbore depth" if facts.last_cut(hole.hole_id) is None else "counterbore depth after the cut"
        )
    prediction = None
    if flange is not None and ledge is not None:
        ledge_part = Part("ledge the flange rests on", ledge.depth_m, ledge.standard_m)
        prediction = predict_protrusion(flange, shims, ledge_part, between)
    return HoleParts(flange, shims, ledge, between, prediction, tuple(missing))


@once
def measured_hole(facts: JobFacts, hole: Hole) -> MeasuredHole:
    """What the rules judge of one hole: the newest set of its present fitting, unstruck readings only."""
    fitting = facts.present_fitting(hole.hole_id)
    with_shim = fitting is not None and bool(facts.shims_of(fitting.fitting_id))
    limits = limits_for(facts.card, with_shim)
    nothing = ReadingTrust(0.0, 0.0)
    if fitting is None:
        was_cut = facts.last_cut(hole.hole_id) is not None
        reason = "cut, no liner fitted since" if was_cut else "no liner is fitted"
        return MeasuredHole(hole.number, limits, (), nothing, "", reopened=reason)
    reading_set = facts.newest_protrusion_set(fitting.fitting_id)
    if reading_set is None:
        return MeasuredHole(hole.number, limits, (), nothing, "", unreadable=_unreadable(facts, fitting, ()))
    trust = trust_of_set(facts, reading_set)
    setup = facts.setup(reading_set.setup_id)
    zero = str(setup.setup_id if setup.shared_zero else reading_set.reading_set_id)
    reopened = why_reopened(facts, setup)
    if reopened:
        return MeasuredHole(hole.number, limits, (), trust, zero, reopened=reopened)
    readings = readings_by_hour(facts, reading_set)
    residual = _residual(facts, hole, readings, trust)
    return MeasuredHole(
        hole.number,
        limits,
        readings,
        trust,
        zero,
        residual,
        unreadable=_unreadable(facts, fitting, readings),
        doubt=doubt_of_set(facts, reading_set),
    )


def doubt_of_set(facts: JobFacts, reading_set: ReadingSet) -> str:
    """Say why readings of a set are doubtful: their zero was found moved; empty where they are not."""
    doubtful = doubtful_readings(facts)
    if any(one.reading_id in doubtful for one in facts.standing_readings(reading_set)):
        return "the zero was found moved after it was read: correct the readings or strike them"
    return ""


def _unreadable(facts: JobFacts, fitting: Fitting, readings: tuple[HourReadings, ...]) -> tuple[tuple[float, str], ...]:
    """Required positions that cannot be read; one that was read after all counts as read."""
    read = {reading.hour for reading in readings}
    required = facts.card.measuring.required_hours
    said = facts.unreadable_hours(fitting.fitting_id)
    return tuple((hour, said[hour]) for hour in required if hour in said and hour not in read)


def _residual(
    facts: JobFacts, hole: Hole, readings: tuple[HourReadings, ...], trust: ReadingTrust
) -> StackResidual | None:
    """Hold reading against parts once every required position is read: a partial mean would carry the tilt."""
    read = {reading.hour for reading in readings}
    if not readings or not read.issuperset(facts.card.measuring.required_hours):
        return None
    prediction = hole_parts(facts, hole).prediction
    if prediction is None:
        return None
    mean = fmean(reading.mean_m for reading in readings)
    standard = standard_of_mean(trust, sum(len(reading.values_m) for reading in readings))
    return compare_with_measured(mean, standard, prediction, facts.card.coverage_factor)


def why_reopened(facts: JobFacts, setup: Setup) -> str:
    """Say why readings taken under a setup do not count; empty when they do."""
    if setup.zeroed_on is ZeroedOn.PART:
        return "zeroed on the part itself, differences only: zero the gauge on the datum and read it again"
    present = facts.present_setup(Quantity.PROTRUSION)
    if present is not None and present.circumstances() != setup.circumstances():
        pairs = zip(_CIRCUMSTANCES, setup.circumstances(), present.circumstances(), strict=True)
        changed = " and ".join(name for name, then, now in pairs if then != now)
        return f"{changed} changed since it was read: read it again"
    if setup.land != facts.card.measuring.land:
        return f"read on the {setup.land}, the card's limits are for the {facts.card.measuring.land}: read it there"
    return ""


def judge_job(facts: JobFacts) -> BlockJudgement:
    """Judge every hole of a job by the card version that holds now."""
    return judge_block(tuple(measured_hole(facts, hole) for hole in facts.holes), rule_book(facts.card))
