"""What errors a reading carries: its gauge, the zero it was set on, who read it, its master and how warm both were.

References
----------
.. [1] JCGM 100:2008 (GUM), 4.3.7 rectangular inputs, 5.1.2 combined standard uncertainty, F.2.2.1 resolution.
"""

from collections.abc import Hashable
from dataclasses import dataclass
from math import inf

from vallostasis.core.records.temperatures import REFERENCE_C
from vallostasis.core.thermal.expansion import Body, to_20c
from vallostasis.core.uncertainty.budget import (
    Budget,
    Estimate,
    Shape,
    Source,
    combine,
    difference_of,
    estimate,
    mean_of,
    stated,
)
from vallostasis.core.uncertainty.half_widths import rectangular


@dataclass(frozen=True, slots=True)
class Known:
    """A quantity and its standard uncertainty, in one unit."""

    value: float
    standard: float = 0.0


@dataclass(frozen=True, slots=True)
class GaugeSources:
    """What a gauge brings to a reading: step [m], repeatability [m] and from how many repeats it is known.

    ``has_zero`` counts both once more, for the zero: it is a reading too. ``people_m`` is what one person reads
    differently from another, known from ``people_freedom``.
    """

    step_m: float
    repeatability_m: float
    freedom: float = inf
    has_zero: bool = True
    people_m: float = 0.0
    people_freedom: float = inf


@dataclass(frozen=True, slots=True)
class SizeInputs:
    """Everything that a size read as a deviation from a master depends on. [m], [°C], [1/K]"""

    set_size_m: Known
    deviation_m: float
    master_c: Known
    master_alpha: Known
    part_c: Known
    part_alpha: Known

    def size_at_20c_m(self) -> float:
        """Size at 20 °C. [m]"""
        master = Body(self.master_c.value, self.master_alpha.value)
        part = Body(self.part_c.value, self.part_alpha.value)
        return to_20c(self.set_size_m.value, self.deviation_m, master, part).size_m

    @property
    def per_reading(self) -> float:
        """What a metre on the gauge makes at 20 °C. [1] GUM 5.1.3: the derivative of the size."""
        return 1 / (1 + self.part_alpha.value * (self.part_c.value - REFERENCE_C))


@dataclass(frozen=True, slots=True)
class ReadOf:
    """What names the errors of one reading: itself, its gauge, its zero, its set, its person."""

    reading: Hashable = "reading"
    gauge: Hashable = "gauge"
    zero: Hashable = "zero"
    set: Hashable = "set"
    person: Hashable = "person"


def gauge_errors(gauge: GaugeSources, of: ReadOf, per_reading: float = 1.0) -> tuple[Source, ...]:
    """Errors that a gauge, its zero and who reads it bring to one reading.

    Notes
    -----
    step/√12 (GUM F.2.2.1) and repeatability at the reading, both again at the zero, which is a reading too: common to
    all readings on it, and to none on another. What people add is common to all that one of them reads in one set.
    """
    step, flat = rectangular(gauge.step_m / 2), Shape.RECTANGULAR
    found = [
        Source("graduation at the reading", step, "m", per_reading, shape=flat, basis="step / √12",
               error=("step", of.reading)),
        Source("repeatability", gauge.repeatability_m, "m", per_reading, freedom=gauge.freedom,
               basis="spread of repeats", error=("repeat", of.reading), spread=("repeat", of.gauge)),
    ]  # fmt: skip
    if gauge.has_zero:
        found += zero_errors(gauge, of, per_reading)
    if gauge.people_m > 0:
        found.append(
            Source("between people", gauge.people_m, "m", per_reading, True, freedom=gauge.people_freedom,
                   basis="gauge study", error=("person", of.set, of.person), spread=("people", of.gauge))
        )  # fmt: skip
    return tuple(found)


def zero_errors(gauge: GaugeSources, of: ReadOf, per_reading: float = 1.0) -> tuple[Source, ...]:
    """Errors of the zero of a gauge, or of a look at it: those of one reading. GUM 4.3.7 and F.2.2.1."""
    return (
        Source("graduation at the zero", rectangular(gauge.step_m / 2), "m", per_reading, True,
               Shape.RECTANGULAR, basis="step / √12", error=("zero step", of.zero)),
        Source("repeatability at the zero", gauge.repeatability_m, "m", per_reading, True, freedom=gauge.freedom,
               basis="spread of repeats", error=("zero repeat", of.zero), spread=("repeat", of.gauge)),
    )  # fmt: skip


def size_errors(inputs: SizeInputs, of: ReadOf) -> tuple[Source, ...]:
    """Errors of master and temperatures of a size at 20 °C that was read as a deviation from a set size.

    Notes
    -----
    First-order propagation of D20 = (M·(1 + α_m(T_m − 20)) + d)/(1 + α(T − 20)), GUM 5.1.2 [1]_ of the module.
    """
    size, set_size = inputs.size_at_20c_m(), inputs.set_size_m.value
    master_k, part_k = inputs.master_c.value - REFERENCE_C, inputs.part_c.value - REFERENCE_C
    one = inputs.per_reading
    return (
        Source("setting master", inputs.set_size_m.standard, "m", (1 + inputs.master_alpha.value * master_k) * one,
               True, basis="its certificate", error=("master", of.gauge)),
        Source("temperature of the master", inputs.master_c.standard, "K", set_size * inputs.master_alpha.value * one,
               True, error=("master temperature", of.zero)),
        Source("expansion of the master", inputs.master_alpha.standard, "1/K", set_size * master_k * one, True,
               error=("master expansion", of.gauge)),
        Source("temperature of the part", inputs.part_c.standard, "K", -size * inputs.part_alpha.value * one, True,
               error=("part temperature", of.set)),
        Source("expansion of the part", inputs.part_alpha.standard, "1/K", -size * part_k * one, True,
               error=("part expansion", of.set)),
    )  # fmt: skip


def size_budget(what: str, inputs: SizeInputs, gauge: GaugeSources, coverage_factor: float = 2.0) -> Budget:
    """Budget of one size at 20 °C that was read as a deviation from a set size, own sources first.

    Raises
    ------
    OutOfDomain
        If an uncertainty is negative or an input is not finite.

    Notes
    -----
    The errors of gauge_errors and size_errors, combined; GUM 5.1.2 [1]_ of the module.
    """
    of = ReadOf()
    sources = (*gauge_errors(gauge, of, inputs.per_reading), *size_errors(inputs, of))
    return combine(what, sources, coverage_factor)


def _sizes(inputs: SizeInputs, gauge: GaugeSources, readings: int) -> list[Estimate]:
    """So many readings of one size by one gauge, from one zero. [m]"""
    every = [ReadOf(reading) for reading in range(readings)]
    return [
        estimate(inputs.size_at_20c_m(),
                 (*gauge_errors(gauge, of, inputs.per_reading), *size_errors(inputs, of)))
        for of in every
    ]  # fmt: skip


def mean_of_sizes(inputs: SizeInputs, gauge: GaugeSources, readings: int, coverage_factor: float) -> Budget:
    """Budget of the mean of so many readings of one size: own errors shrink, shared ones do not. GUM 4.2.3. [m]"""
    return stated(f"mean of {readings}", mean_of(_sizes(inputs, gauge, readings)), coverage_factor).budget


def difference_of_sizes(inputs: SizeInputs, gauge: GaugeSources, coverage_factor: float) -> Budget:
    """Budget of the difference of two readings from one zero: what they share cancels. GUM F.1.2.3. [m]"""
    return stated("difference", difference_of(*_sizes(inputs, gauge, 2)), coverage_factor).budget
