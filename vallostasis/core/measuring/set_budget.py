"""The budget of a set of readings: from its gauge, what it was set on, and how warm everything was."""

from datetime import timedelta
from decimal import Decimal
from math import sqrt

from vallostasis.core.job_facts import JobFacts, once
from vallostasis.core.lengths import metres
from vallostasis.core.measuring.budget import (
    Budget,
    GaugeSources,
    Known,
    Shape,
    SizeInputs,
    Source,
    combine,
    size_budget,
)
from vallostasis.core.measuring.features import PartKind, feature_of
from vallostasis.core.measuring.gauges import GaugeVersion
from vallostasis.core.measuring.temperature import EXPANSION_HALF_WIDTH, Temperature, expansion_of
from vallostasis.core.measuring.uncertainty import rectangular
from vallostasis.core.measuring.values import correction_standard_m, repeatability_m
from vallostasis.core.records import Quantity, Reading, ReadingSet, ZeroedOn
from vallostasis.core.spec_card import SpecCard

# A shop thermometer on a clean face. [K] Common practice, no published source.
THERMOMETER_HALF_WIDTH_K = 0.5
# How far part and master may differ in one room when nobody took their temperatures. [K] Common practice.
UNTAKEN_HALF_WIDTH_K = 2.0
# A temperature tells how warm a part is for so long, before it was taken and after. Common practice.
TEMPERATURE_HOLDS = timedelta(hours=4)
# A micrometer is set on its own standard: half width of that. [m] Common practice, no published source.
OWN_STANDARD_HALF_WIDTH_M = 2e-6
_OF_BLOCK = (Quantity.BLOCK_BORE, Quantity.COUNTERBORE_DIAMETER, Quantity.MAIN_BORE)
_OF_PISTON = (Quantity.PISTON_SKIRT, Quantity.PISTON_CROWN)


def material_of(card: SpecCard, quantity: Quantity) -> str:
    """Material of the part that a feature belongs to."""
    if quantity in _OF_BLOCK:
        return card.block_material
    return card.piston_material if quantity in _OF_PISTON else card.liner_material


def temperature_key(quantity: Quantity, part_key: str) -> str:
    """Which thermometer reading counts for a part: the block has one temperature, a loose part its own."""
    loose = feature_of(quantity).part in (PartKind.LINER, PartKind.PISTON)
    return part_key if loose else ""


def standing_temperatures(facts: JobFacts, body: str, part: str = "") -> list[Temperature]:
    """Return what was taken of a body and not struck out, oldest first."""
    return [
        one
        for one in facts.temperatures
        if one.body == body and one.part == part and one.temperature_id not in facts.struck
    ]


@once
def part_temperature(facts: JobFacts, reading_set: ReadingSet, key: str) -> Decimal | None:
    """Return how warm the part of a set was, None where nobody took it near its newest reading.

    As said with the set; else as taken last before that reading; else as taken first after it.
    """
    if reading_set.part_temp_c is not None:
        return reading_set.part_temp_c
    readings: list[Reading] = facts.standing_readings(reading_set)
    at, until = (readings[-1].taken_at, readings[-1].event) if readings else (reading_set.opened_at, reading_set.event)
    near = [one for one in standing_temperatures(facts, "part", key) if abs(one.taken_at - at) <= TEMPERATURE_HOLDS]
    before = [one for one in near if one.event <= until]
    if before:
        return before[-1].celsius
    return near[0].celsius if near else None


def gauge_sources(gauge: GaugeVersion) -> GaugeSources:
    """What a version of a gauge brings to a reading."""
    return GaugeSources(metres(gauge.resolution_um), repeatability_m(gauge), step_at_zero=gauge.has_zero)


def size_inputs(facts: JobFacts, reading_set: ReadingSet, key: str, deviation_m: float) -> SizeInputs | None:
    """Everything that a size of a set depends on; None where a temperature is missing. [m]"""
    setup = facts.setup(reading_set.setup_id)
    part_c = part_temperature(facts, reading_set, key)
    own_scale = setup.zeroed_on is ZeroedOn.DATUM
    reference_c = setup.gauge_temp_c if own_scale else setup.master_temp_c
    if part_c is None or reference_c is None:
        return None
    thermometer, spread = rectangular(THERMOMETER_HALF_WIDTH_K), rectangular(EXPANSION_HALF_WIDTH)
    master, standard = "steel", rectangular(OWN_STANDARD_HALF_WIDTH_M)
    if setup.setting_master_version_id is not None:
        on = facts.master(setup.setting_master_version_id)
        master, standard = on.material, metres(on.standard_um)
    set_size = deviation_m if own_scale else metres(setup.zero_um)
    return SizeInputs(
        set_size_m=Known(set_size, standard),
        deviation_m=0.0 if own_scale else deviation_m,
        master_c=Known(float(reference_c), thermometer),
        master_alpha=Known(expansion_of(master, facts.materials), spread),
        part_c=Known(float(part_c), thermometer),
        part_alpha=Known(expansion_of(material_of(facts.card, setup.quantity), facts.materials), spread),
        correction_m=Known(0.0, correction_standard_m(facts, reading_set)),
    )


@once
def budget_of_set(facts: JobFacts, reading_set: ReadingSet, key: str, deviation_m: float) -> Budget:
    """Budget of one reading of a set. [m]"""
    k = facts.card.coverage_factor
    setup = facts.setup(reading_set.setup_id)
    gauge = gauge_sources(facts.gauge_version(reading_set.gauge_version_id))
    feature = feature_of(setup.quantity)
    what = f"one reading of the {setup.quantity.value}"
    inputs = size_inputs(facts, reading_set, key, deviation_m) if feature.is_diameter else None
    if inputs is not None:
        return size_budget(what, inputs, gauge, k)
    step = rectangular(gauge.step_m / 2)
    sources = [
        Source("graduation at the reading", step, shape=Shape.RECTANGULAR, basis="step / √12"),
        Source("repeatability", gauge.repeatability_m, freedom=gauge.freedom, basis="spread of repeats"),
        Source("zero correction", correction_standard_m(facts, reading_set), shared=True, basis="re-zero check"),
    ]
    if gauge.step_at_zero:
        sources.append(Source("graduation at the zero", step, shared=True, shape=Shape.RECTANGULAR,
                              basis="step / √12"))  # fmt: skip
    if setup.setting_master_version_id is not None:
        standard = metres(facts.master(setup.setting_master_version_id).standard_um)
        sources.append(Source("setting master", standard, shared=True, basis="its certificate"))
    if feature.is_diameter:
        sources.append(_untaken(facts, setup.quantity, metres(setup.zero_um) + deviation_m))
    return combine(what, sources, k)


def _untaken(facts: JobFacts, quantity: Quantity, size_m: float) -> Source:
    """What may lie in temperatures that nobody took."""
    alpha = expansion_of(material_of(facts.card, quantity), facts.materials)
    return Source("temperatures not taken", UNTAKEN_HALF_WIDTH_K / sqrt(3), "K", size_m * alpha, True,
                  Shape.RECTANGULAR, basis=f"part and master within ±{UNTAKEN_HALF_WIDTH_K:g} K")  # fmt: skip
