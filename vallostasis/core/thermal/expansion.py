"""Temperatures of part, gauge and master: sizes brought to 20 °C, and how long a part must soak.

References
----------
.. [1] ISO 1:2022, Geometrical product specifications: Standard reference temperature, 20 °C.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import exp, log

import numpy as np

from vallostasis.core.errors import OutOfDomain, require_finite
from vallostasis.core.records.temperatures import REFERENCE_C, Material
from vallostasis.core.trail import Step, Term

# A part this near to the room is soaked: what is left moves 100 mm of iron by half a micrometre. [K] Common practice.
SOAKED_WITHIN_K = 0.5
# No block in air cools slower than with this time constant: what seems to does not approach the room. [s] House rule.
SLOWEST_TAU_S = 7 * 24 * 3600.0

# Linear expansion near room temperature [1/K], from memory of handbook tables; half widths in EXPANSION_HALF_WIDTH.
EXPANSION_PER_K = {
    "iron": 10.5e-6,
    "ductile iron": 11.2e-6,
    "aluminium": 22.0e-6,
    "steel": 11.5e-6,
    "bronze": 18.0e-6,
    "carbide": 5.5e-6,
    "ceramic": 10.0e-6,
}
EXPANSION_HALF_WIDTH = 1e-6


# What a material is called, the telling words first: an alloy iron is iron, an aluminium bronze is bronze.
MATERIAL_WORDS = (
    ("ductile", "ductile iron"),
    ("nodular", "ductile iron"),
    ("bronze", "bronze"),
    ("carbide", "carbide"),
    ("ceramic", "ceramic"),
    ("steel", "steel"),
    ("iron", "iron"),
    ("aluminium", "aluminium"),
    ("aluminum", "aluminium"),
    ("alloy", "aluminium"),
)


def expansion_of(material: str, library: Sequence[Material] = ()) -> float:
    """Coefficient of expansion of a material named in words, that of iron where it is not known. [1/K]"""
    known = known_expansion(material, library)
    return EXPANSION_PER_K["iron"] if known is None else known


def known_expansion(material: str, library: Sequence[Material] = ()) -> float | None:
    """Coefficient of expansion of a material named in words, None where no word of it is known. [1/K]

    What the shop wrote down under exactly that name, or under a word of it, goes before what is built in.
    """
    written = {one.name.casefold(): float(one.alpha_per_k) for one in library}
    words = material.casefold()
    for name in sorted(written, key=len, reverse=True):
        if name == words or name in words:
            return written[name]
    return next((EXPANSION_PER_K[name] for said, name in MATERIAL_WORDS if said in words), None)


@dataclass(frozen=True, slots=True)
class Body:
    """A body that measures or is measured: its temperature [°C] and expansion [1/K]."""

    temperature_c: float
    alpha_per_k: float


@dataclass(frozen=True, slots=True)
class At20:
    """A size at 20 °C, what was added to reach it, and the size as read. [m]"""

    size_m: float
    correction_m: float
    as_read_m: float


def to_20c(set_size_m: float, deviation_m: float, master: Body, part: Body) -> At20:
    """Bring a size read as a deviation from a set size to 20 °C.

    Parameters
    ----------
    set_size_m : float
        Size of the master at 20 °C on which the gauge was set. [m]
    deviation_m : float
        What the gauge showed on the part. [m]
    master, part : Body
        Temperatures while setting and reading, and expansions.

    Returns
    -------
    At20
        Size at 20 °C; correction = that size less set size plus deviation.

    Raises
    ------
    OutOfDomain
        If an input is not finite, or a body would have shrunk to nothing.

    Notes
    -----
    D20 = (M·(1 + α_m(T_m − 20)) + d) / (1 + α(T − 20)). The gauge itself is taken to keep the temperature it was set
    at; expansion over small differences is taken as linear.
    Definition of the mean coefficient; ISO 1.
    """
    require_finite(set_size=set_size_m, deviation=deviation_m, master_c=master.temperature_c,
                   part_c=part.temperature_c, master_alpha=master.alpha_per_k, part_alpha=part.alpha_per_k)  # fmt: skip
    grown = 1 + part.alpha_per_k * (part.temperature_c - REFERENCE_C)
    if grown <= 0:
        raise OutOfDomain("a part cannot shrink to nothing: check temperature and expansion", "part_alpha")
    as_read = set_size_m + deviation_m
    warm_master = set_size_m * (1 + master.alpha_per_k * (master.temperature_c - REFERENCE_C))
    size = (warm_master + deviation_m) / grown
    return At20(size, size - as_read, as_read)


def to_20c_step(at: At20, deviation_m: float) -> Step:
    """Write the way to 20 °C out as one line of arithmetic. [m]"""
    terms = (Term("as read", at.as_read_m, "size"), Term("d", deviation_m), Term("correction", at.correction_m))
    return Step("Size at 20 °C", "(M·(1 + α_m·(T_m − 20)) + d) / (1 + α·(T − 20))", terms,
                Term("D20", at.size_m, "size"), "ISO 1: reference temperature 20 °C")  # fmt: skip


def warm_effect_m(size_m: float, part: Body) -> float:
    """How much larger a part reads than it is at 20 °C, for a gauge true at 20 °C. [m] First order of to_20c; ISO 1."""
    return size_m * part.alpha_per_k * (part.temperature_c - REFERENCE_C)


@dataclass(frozen=True, slots=True)
class Soak:
    """How a part cools or warms towards the room: time constant, and how long until it is soaked. [s]"""

    time_constant_s: float
    seconds_left: float


def soak_from_readings(times_s: Sequence[float], temperatures_c: Sequence[float], room_c: float) -> Soak | None:
    """Tell from a few temperatures when a part will be as the room is.

    Parameters
    ----------
    times_s : sequence of float, shape (n,)
        When each was taken, rising. [s]
    temperatures_c : sequence of float, shape (n,)
        Temperatures of the part. [°C]
    room_c : float
        Temperature of the room. [°C]

    Returns
    -------
    Soak or None
        None where it cannot be told: fewer than two readings away from the room, or a part that does not approach it.

    Raises
    ------
    OutOfDomain
        If the numbers of times and temperatures differ.

    Notes
    -----
    Newton's law of cooling, T − T_room = (T0 − T_room)·exp(−t/τ): least squares on the logarithm. Holds for a part
    that is warm all through in still air; a block still warm inside cools slower than its face says.

    References
    ----------
    .. [1] Incropera and DeWitt, Fundamentals of Heat and Mass Transfer, lumped capacitance method (from memory).
    """
    if len(times_s) != len(temperatures_c):
        raise OutOfDomain(f"{len(times_s)} times do not fit {len(temperatures_c)} temperatures", "times_s")
    off = [(t, abs(c - room_c)) for t, c in zip(times_s, temperatures_c, strict=True)]
    away = [(t, k) for t, k in off if k > SOAKED_WITHIN_K]
    if off and off[-1][1] <= SOAKED_WITHIN_K:
        return Soak(0.0, 0.0)
    if len({t for t, _ in away}) < 2:
        return None
    slope, height = np.polyfit([t for t, _ in away], [log(k) for _, k in away], 1)
    if not slope < -1 / SLOWEST_TAU_S:
        return None
    now = exp(height + slope * times_s[-1])
    return Soak(float(-1 / slope), float(max(0.0, log(SOAKED_WITHIN_K / now) / slope)))
