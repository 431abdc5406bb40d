"""What a reading stands for and every error it carries: its gauge, its zero, who read it, how warm everything was."""

from collections.abc import Hashable
from datetime import timedelta
from decimal import Decimal
from math import hypot, inf, sqrt

from vallostasis.core.features.catalogue import MadeOf, PartKind, feature_of
from vallostasis.core.gauges.zero_checks import Drift, drift_of, zero_of
from vallostasis.core.notation.lengths import metres
from vallostasis.core.records.gauges import GaugeVersion, SettingMaster
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.rows import Quantity, Reading, ReadingSet, Setup, ZeroedOn
from vallostasis.core.records.spec_card import SpecCard
from vallostasis.core.records.temperatures import Temperature
from vallostasis.core.records.values import is_relative
from vallostasis.core.thermal.expansion import EXPANSION_HALF_WIDTH, expansion_of
from vallostasis.core.uncertainty.budget import Budget, Estimate, Move, Shape, Source, combine, estimate, stated
from vallostasis.core.uncertainty.half_widths import rectangular
from vallostasis.core.uncertainty.reading_errors import (
    GaugeSources,
    Known,
    ReadOf,
    SizeInputs,
    gauge_errors,
    size_errors,
    zero_errors,
)

# A shop thermometer on a clean face. [K] Common practice, no published source.
THERMOMETER_HALF_WIDTH_K = 0.5
# How far part and master may differ in one room when nobody took their temperatures. [K] Common practice.
UNTAKEN_HALF_WIDTH_K = 2.0
# A temperature tells how warm a part is for so long, before it was taken and after. Common practice.
TEMPERATURE_HOLDS = timedelta(hours=4)
# A micrometer is set on its own standard: half width of that. [m] Common practice, no published source.
OWN_STANDARD_HALF_WIDTH_M = 2e-6


def material_of(card: SpecCard, quantity: Quantity) -> str:
    """Material of the part that a feature belongs to."""
    return {
        MadeOf.BLOCK: card.block_material,
        MadeOf.LINER: card.liner_material,
        MadeOf.PISTON: card.piston_material,
    }[feature_of(quantity).made_of]


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

    Common practice.
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
    freedom = inf if gauge.repeatability_freedom is None else float(gauge.repeatability_freedom)
    people = inf if gauge.reproducibility_freedom is None else float(gauge.reproducibility_freedom)
    return GaugeSources(metres(gauge.resolution_um), metres(gauge.repeatability_um), freedom, gauge.has_zero,
                        metres(gauge.reproducibility_um), people)  # fmt: skip


def reading_of_gauge(gauge: GaugeVersion, reading: Hashable = 0, zero: Hashable = 0) -> Estimate:
    """A reading of nought by a gauge alone, with what gauge, zero and people bring to it. [m]"""
    of = ReadOf(reading, gauge.gauge_version_id, zero)
    return estimate(0.0, gauge_errors(gauge_sources(gauge), of))


def budget_of_gauge(gauge: GaugeVersion, coverage_factor: float) -> Budget:
    """Budget of one reading by a gauge alone. [m] GUM 5.1.2."""
    return stated(f"one reading of {gauge.name}", reading_of_gauge(gauge), coverage_factor).budget


def master_reading_budget(gauge: GaugeVersion, master: SettingMaster, coverage_factor: float = 2.0) -> Budget:
    """Budget of a master read with a gauge, against the size of its certificate. [m]

    Notes
    -----
    The gauge and its zero, and the certificate; GUM 5.1.2.
    """
    certificate = Source("setting master", metres(master.standard_um), shared=True, basis="its certificate",
                         error=("master", master.setting_master_version_id))  # fmt: skip
    sources = (*gauge_errors(gauge_sources(gauge), ReadOf()), certificate)
    return combine(f"{master.name} by {gauge.name}", sources, coverage_factor)


def _standard_set_on(facts: JobFacts, setup: Setup) -> tuple[str, float]:
    """Material of what a gauge was set on, and the standard uncertainty of its size. [m]"""
    if setup.setting_master_version_id is None:
        return "steel", rectangular(OWN_STANDARD_HALF_WIDTH_M)
    on = facts.master(setup.setting_master_version_id)
    return on.material, metres(on.standard_um)


def size_inputs(facts: JobFacts, reading_set: ReadingSet, key: str, deviation_m: float) -> SizeInputs | None:
    """Everything that a size of a set depends on; None where a temperature is missing. [m]"""
    setup = facts.setup(reading_set.setup_id)
    own_scale = setup.zeroed_on is ZeroedOn.DATUM
    part_c = part_temperature(facts, reading_set, key)
    reference_c = setup.gauge_temp_c if own_scale else setup.master_temp_c
    if part_c is None or reference_c is None:
        return None
    return _inputs_at(facts, setup, deviation_m, float(part_c), float(reference_c))


def _inputs_at(facts: JobFacts, setup: Setup, deviation_m: float, part_c: float, reference_c: float) -> SizeInputs:
    """Everything that a size depends on, both temperatures given. [m], [°C]"""
    own_scale = setup.zeroed_on is ZeroedOn.DATUM
    thermometer, spread = rectangular(THERMOMETER_HALF_WIDTH_K), rectangular(EXPANSION_HALF_WIDTH)
    master, standard = _standard_set_on(facts, setup)
    return SizeInputs(
        set_size_m=Known(deviation_m if own_scale else metres(setup.zero_um), standard),
        deviation_m=0.0 if own_scale else deviation_m,
        master_c=Known(reference_c, thermometer),
        master_alpha=Known(expansion_of(master, facts.materials), spread),
        part_c=Known(part_c, thermometer),
        part_alpha=Known(expansion_of(material_of(facts.card, setup.quantity), facts.materials), spread),
    )


@once
def estimate_of_reading(facts: JobFacts, reading: Reading, key: str) -> Estimate:
    """What one reading stands for, at 20 °C where temperatures are known, with every error it carries. [m]

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    reading : Reading
        The reading.
    key : str
        Which thermometer reading counts for its part.

    Notes
    -----
    A correction of a whole set brings an error of its own beside that of the zero. One that follows from a look at the
    zero puts the error of that look in the place of the zero's, as far as its move is taken off.
    """
    reading_set = facts.reading_set(reading.reading_set_id)
    gauge = gauge_sources(facts.gauge_version(reading_set.gauge_version_id))
    of = ReadOf(reading.reading_id, reading_set.gauge_version_id, zero_of(facts, reading_set, reading),
                reading_set.reading_set_id, reading.taken_by)  # fmt: skip
    deviation, found, moves = metres(reading.value_um), list[Source](), list[Move]()
    for correction in facts.corrections_of(reading):
        drift = drift_of(facts, correction)
        if drift is None:
            deviation += metres(correction.correction_um)
            found.append(Source("zero correction", metres(correction.standard_um), shared=True, basis="re-zero check",
                                error=("correction", correction.reading_set_id, correction.event)))  # fmt: skip
            continue
        check, how = drift
        looked = ReadOf(of.reading, of.gauge, ("look", check.zero_check_id), of.set, of.person)
        if how is Drift.AT_ONCE:
            deviation += metres(correction.correction_um)
            of = looked
        elif gauge.has_zero:
            moves.append(Move(check.zero_check_id, metres(check.moved_um), reading.event, zero_errors(gauge, of),
                              zero_errors(gauge, looked)))  # fmt: skip
    value, sources = _value_and_errors(facts, reading_set, key, gauge, of, deviation)
    return estimate(value, (*sources, *found), tuple(moves))


def _value_and_errors(
    facts: JobFacts, reading_set: ReadingSet, key: str, gauge: GaugeSources, of: ReadOf, deviation_m: float
) -> tuple[float, tuple[Source, ...]]:
    setup = facts.setup(reading_set.setup_id)
    as_read = metres(setup.zero_um) + deviation_m
    if not feature_of(setup.quantity).is_diameter or is_relative(facts, reading_set):
        return as_read, (*gauge_errors(gauge, of), *_master_error(facts, setup))
    inputs = size_inputs(facts, reading_set, key, deviation_m)
    if inputs is not None:
        return inputs.size_at_20c_m(), (*gauge_errors(gauge, of, inputs.per_reading),
                                        *_set_on(facts, setup, size_errors(inputs, of)))  # fmt: skip
    standard = Source("setting master", _standard_set_on(facts, setup)[1], shared=True, basis="its certificate")
    found = (standard, *_untaken(facts, setup, of, as_read))
    return as_read, (*gauge_errors(gauge, of), *_set_on(facts, setup, found))


def _set_on(facts: JobFacts, setup: Setup, sources: tuple[Source, ...]) -> tuple[Source, ...]:
    """Name the errors of what a gauge was set on by that: two gauges set on one ring share them."""
    on: Hashable = setup.setting_master_version_id or ("own standard", setup.gauge_id)
    names = {"setting master": ("master", on), "expansion of the master": ("master expansion", on)}
    basis = "its certificate" if setup.setting_master_version_id else "common practice: ±2 µm"
    return tuple(
        Source(s.name, s.standard, s.unit, s.sensitivity, s.shared, s.shape, s.freedom,
               basis if s.name == "setting master" else s.basis, names[s.name])
        if s.name in names else s
        for s in sources
    )  # fmt: skip


def _master_error(facts: JobFacts, setup: Setup) -> tuple[Source, ...]:
    if setup.setting_master_version_id is None:
        return ()
    standard = metres(facts.master(setup.setting_master_version_id).standard_um)
    return (Source("setting master", standard, shared=True, basis="its certificate",
                   error=("master", setup.setting_master_version_id)),)  # fmt: skip


def _untaken(facts: JobFacts, setup: Setup, of: ReadOf, size_m: float) -> tuple[Source, ...]:
    """What may lie in temperatures that nobody took.

    Notes
    -----
    Part and master both as warm as the room read wrong by D·(α − α_m)·(T − 20); its second-order part, what is not
    known of either expansion, is added in squares. What they differ by in one room makes D·α of it. GUM 5.1.2 and its
    note on second-order terms; the spread of the room is a setting of the shop.
    """
    part = expansion_of(material_of(facts.card, setup.quantity), facts.materials)
    master = expansion_of(_standard_set_on(facts, setup)[0], facts.materials)
    unknown = sqrt(2) * rectangular(EXPANSION_HALF_WIDTH)
    room = facts.room
    return (
        Source("room not taken: part and master expand differently", room.off_reference_k, "K",
               size_m * hypot(part - master, unknown), True,
               basis=f"shop setting: {room.mean_c:g} °C, u = {room.standard_k:g} K", error=("room", of.set)),
        Source("part and master not taken", rectangular(UNTAKEN_HALF_WIDTH_K), "K", size_m * part, True,
               Shape.RECTANGULAR, basis=f"within ±{UNTAKEN_HALF_WIDTH_K:g} K", error=("apart", of.set)),
    )  # fmt: skip


def with_a_thermometer(facts: JobFacts, reading_set: ReadingSet, reading: Reading) -> Budget | None:
    """Budget that one reading would have, had temperatures been taken in the room as it is assumed. [m]

    None where they were taken, or do not matter.

    GUM 5.1.2.
    """
    setup = facts.setup(reading_set.setup_id)
    if not feature_of(setup.quantity).is_diameter or is_relative(facts, reading_set):
        return None
    warm, deviation = float(facts.room.mean_c), metres(reading.value_um)
    inputs = _inputs_at(facts, setup, deviation, warm, warm)
    gauge, of = gauge_sources(facts.gauge_version(reading_set.gauge_version_id)), ReadOf()
    sources = (*gauge_errors(gauge, of, inputs.per_reading), *size_errors(inputs, of))
    return combine("one reading, temperatures taken", sources, facts.card.coverage_factor)
