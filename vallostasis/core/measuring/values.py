"""From what was typed to the size it stands for: the zero, its corrections, and how far it can be trusted."""

from decimal import Decimal
from math import hypot, inf

from vallostasis.core.job_facts import JobFacts
from vallostasis.core.lengths import metres
from vallostasis.core.measuring.budget import student_widening
from vallostasis.core.measuring.gauges import GaugeVersion
from vallostasis.core.measuring.uncertainty import ReadingTrust, trust_of_reading
from vallostasis.core.records import Quantity, Reading, ReadingSet, Setup, ZeroedOn


def trust_of_gauge(gauge: GaugeVersion, correction_u_m: float = 0.0) -> ReadingTrust:
    """Trust in one reading of a gauge version; a repeatability from few repeats is widened by Student's t. [m]

    A gauge without a zero has its step once, at the reading.
    """
    trust = trust_of_reading(metres(gauge.resolution_um), repeatability_m(gauge), correction_u_m)
    return trust if gauge.has_zero else ReadingTrust(trust.random_m, correction_u_m)


def repeatability_m(gauge: GaugeVersion) -> float:
    """Repeatability of a gauge, as wide as the few repeats behind it ask for. [m]"""
    freedom = inf if gauge.repeatability_freedom is None else float(gauge.repeatability_freedom)
    return metres(gauge.repeatability_um) * student_widening(freedom)


def trust_of_set(facts: JobFacts, reading_set: ReadingSet) -> ReadingTrust:
    """Trust in one reading of a set; zero corrections and the master its gauge was set on are shared by all. [m]"""
    shared = [correction_standard_m(facts, reading_set)]
    setup = facts.setup(reading_set.setup_id)
    if setup.setting_master_version_id is not None:
        shared.append(metres(facts.master(setup.setting_master_version_id).standard_um))
    return trust_of_gauge(facts.gauge_version(reading_set.gauge_version_id), hypot(*shared))


def correction_standard_m(facts: JobFacts, reading_set: ReadingSet) -> float:
    """Standard uncertainty of the zero corrections in a set, the widest where readings carry different ones. [m]"""
    widest = 0.0
    if not facts.corrections:
        return widest
    for reading in facts.standing_readings(reading_set):
        found = [metres(one.standard_um) for one in facts.corrections_of(reading)]
        widest = max(widest, hypot(*found) if found else 0.0)
    return widest


def value_used_um(facts: JobFacts, reading_set: ReadingSet, reading: Reading) -> Decimal:
    """Return the size a reading stands for: what was read, the size the gauge was zeroed on, corrections. [µm]"""
    corrections = sum((one.correction_um for one in facts.corrections_of(reading)), Decimal(0))
    return reading.value_um + facts.setup(reading_set.setup_id).zero_um + corrections


def is_relative(facts: JobFacts, reading_set: ReadingSet) -> bool:
    """Readings zeroed on the part itself are differences: no size follows from them."""
    return only_differences(facts.setup(reading_set.setup_id))


def only_differences(setup: Setup) -> bool:
    """Whether a size is asked for and only differences are read; flatness is a difference itself."""
    return setup.zeroed_on is ZeroedOn.PART and setup.quantity is not Quantity.DECK_FLATNESS
