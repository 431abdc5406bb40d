"""Which temperatures let a liner drop: pairs for the clearance wanted, what each way asks for, what it risks.

The press is that of the worst pair of readings: the greatest of the liner against the least of its hole, with the ± of
both. A press that nobody measured is refused.

References
----------
.. [1] JCGM 100:2008 (GUM), F.1.2.3: greatest liner less least hole, what both share cancels.
.. [2] Incropera and DeWitt, lumped capacitance, from memory: how long a part soaks.
.. [3] Heat of sublimation of dry ice 571 kJ/kg and of vaporisation of nitrogen 199 kJ/kg, from memory.
"""

from dataclasses import dataclass
from enum import StrEnum
from math import log, pi

import numpy as np

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.fits.effects import liner_inside_m
from vallostasis.core.fits.fit import Fit
from vallostasis.core.fits.going_in import liner_length_m
from vallostasis.core.heat.stuffs import (
    BLOCK_LIMITS,
    LINER_LIMITS,
    PAINT_LIMIT,
    Medium,
    MediumKind,
    kind_of,
    metal_of,
    rubber_limits,
    stuff_of,
)
from vallostasis.core.heat.transient import Sizes
from vallostasis.core.heat.window import Spreads
from vallostasis.core.records.conversion_terms import GrooveIn
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.spec_card import SpecCard
from vallostasis.core.records.temperatures import REFERENCE_C
from vallostasis.core.thermal.drop import Stuff
from vallostasis.core.thermal.expansion import expansion_of
from vallostasis.core.thermal.films import film_of
from vallostasis.core.thermal.shrink import Pair, block_needed, course_of, liner_needed, table_of
from vallostasis.core.trail import Phrase, Term
from vallostasis.core.uncertainty.budget import Stated, difference_of, stated, value_of

# Faces of a stepped hole differ by more: a collar does not pass the land below it. [m] House rule.
STEPPED_M = 0.5e-3
# To drop freely, on the diameter, where nobody says otherwise: 1.5 thou. [m] Common practice, no published source.
WANTED_M = 38.1e-6
# A part has soaked once it is this near to what it stands in. [K] House rule.
SOAKED_K = 2.0
# Held down until block and liner are this near to the room. [K] House rule.
HELD_K = 5.0
# Of what boils, the part takes half; the rest goes to box and air. [1] Common practice.
PART_TAKES = 0.5
# A ribbed casting shows the air so many times its volume to the power of two thirds. [1] House rule.
SHOWS_AIR = 18.0
# The wall of the block round a hole where its card says nothing. [m] House rule.
USUAL_WALL_M = 0.011
# How well temperatures are known when nothing measures them at the moment of leaving. [K] Common practice.
LINER_OFF_K, BLOCK_OFF_K = 2.0, 3.0
FILM_OFF, BLOCK_AIR_OFF = 0.2, 0.25
EMISSIVITY = 0.7


class Drops(StrEnum):
    """What a clearance means for the hands."""

    FREELY = "drops freely"
    PUSH = "needs a push"
    GRABS = "grabs"


@dataclass(frozen=True, slots=True)
class HeatFit:
    """A fit as heat sees it. [m], [kg]

    ``press`` is greatest liner less least hole; ``worst_m`` the same at its upper end.
    """

    press: Stated
    outside_m: float
    sizes: Sizes
    pair: Pair
    wall_m: float
    wall_known: bool
    liner_kg: float

    @property
    def worst_m(self) -> float:
        """The press of the worst pair of readings. [m] GUM F.1.2.3 [1]_ of the module."""
        return self.press.value_m + self.press.expanded_m


@dataclass(frozen=True, slots=True)
class Limit:
    """A temperature that something does not bear. [°C] ``is_least`` where it must not be colder."""

    what: str
    celsius: float
    is_least: bool
    why: str


@dataclass(frozen=True, slots=True)
class Way:
    """One way to the clearance wanted: both temperatures, what brings them about, what stands against it. [°C], [s]

    ``block_c`` or ``liner_c`` is None where no temperature reaches it.
    """

    name: str
    medium: Medium
    block_c: float | None
    liner_c: float | None
    against: tuple[str, ...]
    soak_s: float | None
    boils_kg: float | None


def heat_fit(facts: JobFacts, fit: Fit) -> HeatFit | Phrase:
    """Return a fit as heat sees it.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    fit : Fit
        The fit at 20 °C.

    Returns
    -------
    HeatFit or Phrase
        Or what of the card is missing. [m]

    Notes
    -----
    Greatest reading of the liner less least of the hole: whatever passes what as it goes down [1]_ of the module.
    """
    card = facts.card
    length = liner_length_m(card)
    if length is None:
        return Phrase("Write the length of the liner on the card: how much warms and cools follows from it.")
    greatest = max(fit.outside.estimates, key=value_of)
    near = [one for one in fit.bore.estimates if abs(value_of(one) - value_of(greatest)) < STEPPED_M]
    if not near:
        return Phrase("What was read of hole and liner are sizes of different faces: read both where they meet.")
    least = min(near, key=value_of)
    press = stated("press, worst pair", difference_of(greatest, least), card.coverage_factor)
    outside, inside = value_of(greatest), liner_inside_m(card)
    if not 0 < inside < outside:
        return Phrase("The liner has no wall by the card: check its inside against what was read outside.")
    per_k = [expansion_of(one, facts.materials) for one in (card.liner_material, card.block_material)]
    courses = [
        course_of(one, rate) for one, rate in zip((card.liner_material, card.block_material), per_k, strict=True)
    ]
    stuffs = [stuff_of(one, rate) for one, rate in zip((card.liner_material, card.block_material), per_k, strict=True)]
    sizes = Sizes(inside, outside, length, stuffs[0], stuffs[1], courses[0], courses[1])
    boss = card.fits.boss_outside.metres
    wall = USUAL_WALL_M if boss is None or boss <= outside else (boss - outside) / 2
    weighs = stuffs[0].rho * pi / 4 * (outside**2 - inside**2) * length
    worst = outside - press.value_m - press.expanded_m
    return HeatFit(press, outside, sizes, Pair(worst, outside, courses[1], courses[0]), wall, boss is not None, weighs)


def drops(clearance_m: float, wanted_m: float) -> Drops:
    """Say what a clearance of the worst pair means for the hands. [m] House rule: what may touch never drops freely."""
    if clearance_m >= wanted_m:
        return Drops.FREELY
    return Drops.PUSH if clearance_m > 0 else Drops.GRABS


def limits_of(card: SpecCard) -> tuple[Limit, ...]:
    """Return what block, liner and seals do not bear. [°C] Common practice; seals by their card, or from memory."""
    found = []
    metal = metal_of(card.block_material)
    warmest, why = BLOCK_LIMITS[metal]
    found.append(Limit(f"the block, {card.block_material}", warmest, False, why))
    found.append(Limit("paint", PAINT_LIMIT[0], False, PAINT_LIMIT[1]))
    if metal_of(card.liner_material) in LINER_LIMITS:
        coldest, why = LINER_LIMITS["iron"]
        found.append(Limit(f"the liner, {card.liner_material}", coldest, True, why))
    for seal in card.conversion.seals:
        known = rubber_limits(seal.material)
        cold = seal.coldest_c if seal.coldest_c is not None else None if known is None else known[0]
        warm = seal.warmest_c if seal.warmest_c is not None else None if known is None else known[1]
        if seal.groove_in is GrooveIn.LINER and cold is not None:
            found.append(Limit(f"seal {seal.name}", cold, True, "put it on after the cold, or it cracks as it bends"))
        if seal.groove_in is GrooveIn.BLOCK and warm is not None:
            found.append(Limit(f"seal {seal.name}", warm, False, "put it in after the oven"))
    return tuple(found)


def against(limits: tuple[Limit, ...], block_c: float | None, liner_c: float | None) -> tuple[str, ...]:
    """Say which limits a pair of temperatures passes. [°C] By comparison."""
    passed: dict[tuple[float, str], list[str]] = {}
    for one in limits:
        too_hot = not one.is_least and block_c is not None and block_c > one.celsius
        too_cold = one.is_least and liner_c is not None and liner_c < one.celsius
        if too_hot or too_cold:
            passed.setdefault((one.celsius, one.why), []).append(one.what)
    return tuple(f"{' and '.join(names)}: {celsius:.0f} °C at the {'least' if celsius < REFERENCE_C else 'most'}; {why}"
                 for (celsius, why), names in passed.items())  # fmt: skip


def line_of(fit: HeatFit, clearance_m: float, liners_c: tuple[float, ...]) -> tuple[tuple[float, float], ...]:
    """Return pairs of temperatures that leave a clearance to the worst pair. [m], [°C]

    Block for each liner, where it is within what expansion is known of; free expansion, ISO 1, by courses.
    """
    pair, (celsius, strains) = fit.pair, table_of(fit.pair.block)
    liner = pair.liner_m * (1 + np.interp(liners_c, *table_of(pair.liner)))
    needs = (liner + clearance_m) / pair.hole_m - 1
    known = [(liner_c, need) for liner_c, need in zip(liners_c, needs, strict=True)
             if strains[0] <= need <= strains[-1]]  # fmt: skip
    return tuple((liner_c, float(np.interp(need, strains, celsius))) for liner_c, need in known)


def soak_s(kind: MediumKind, stuff: Stuff, wall_m: float, away_k: float, both_faces: bool = True) -> float:
    """Return how long a wall stands in a medium until it has soaked. [s]

    Parameters
    ----------
    kind : MediumKind
        The medium.
    stuff : Stuff
        What the wall is made of.
    wall_m : float
        How thick it is. [m]
    away_k : float
        How far from the medium it begins. [K]
    both_faces : bool
        Whether the medium reaches both.

    Returns
    -------
    float
        Lumped: time constant ρ·c·w/(film·faces) times the logarithm of what is left [2]_ of the module.
    """
    if abs(away_k) <= SOAKED_K:
        return 0.0
    return stuff.rho * stuff.c * wall_m / (kind.film * (2 if both_faces else 1)) * log(abs(away_k) / SOAKED_K)


def liner_soak_s(fit: HeatFit, kind: MediumKind, away_k: float) -> float:
    """Return how long a liner stands in a medium that reaches both of its faces. [s] Lumped [2]_ of the module."""
    return soak_s(kind, fit.sizes.liner, (fit.outside_m - fit.sizes.inside_m) / 2, away_k)


def boils_kg(kind: MediumKind, kg: float, stuff: Stuff, away_k: float) -> float | None:
    """Return what of a medium boils off to cool a part; None of one that does not boil. [kg]

    Heat of the part over that of the medium [3]_ of the module, twice over for box and air: common practice.
    """
    return None if kind.boils_j_kg is None else kg * stuff.c * abs(away_k) / kind.boils_j_kg / PART_TAKES


def ways_of(facts: JobFacts, fit: HeatFit, wanted_m: float, air_c: float, oven_c: float) -> tuple[Way, ...]:
    """Return every way to the clearance wanted beside each other: heat only, cold only, both.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    fit : HeatFit
        The fit.
    wanted_m : float
        Clearance of the worst pair as it drops. [m]
    air_c, oven_c : float
        The room, and the oven of the shop. [°C]

    Returns
    -------
    tuple of Way
        House rule on common practice; temperatures by free expansion, ISO 1. [°C]

    Raises
    ------
    OutOfDomain
        If nothing is wanted.
    """
    if wanted_m <= 0:
        raise OutOfDomain("to drop freely it needs some clearance", "wanted")
    limits, found = limits_of(facts.card), []
    found.append(_way(fit, limits, "heat only", Medium.OVEN, block_needed(fit.pair, wanted_m, air_c), air_c, air_c))
    for medium in (Medium.FREEZER, Medium.DRY_ICE, Medium.NITROGEN):
        cold_c = kind_of(medium).celsius
        assert cold_c is not None
        reaches = liner_needed(fit.pair, wanted_m, air_c)
        enough = reaches is not None and reaches >= cold_c
        found.append(_way(fit, limits, f"{medium.value} only", medium, air_c if enough else None, cold_c, air_c))
        block_c = block_needed(fit.pair, wanted_m, cold_c)
        if not enough:
            found.append(_way(fit, limits, f"{medium.value} and heat", medium, block_c, cold_c, air_c))
    bath = _way(fit, limits, f"{oven_c:.0f} °C and cold", Medium.OVEN, oven_c, liner_needed(fit.pair, wanted_m, oven_c),
                air_c)  # fmt: skip
    return (*found, bath)


def _way(fit: HeatFit, limits: tuple[Limit, ...], name: str, medium: Medium, block_c: float | None,
         liner_c: float | None, air_c: float) -> Way:  # fmt: skip
    kind, soaks, boils = kind_of(medium), None, None
    if block_c is not None and liner_c is not None:
        if medium is Medium.OVEN:
            # An oven reaches a wall of the block from one side only, or its time would be told too short.
            soaks = soak_s(kind, fit.sizes.block, fit.wall_m, block_c - air_c, both_faces=False)
        else:
            soaks = liner_soak_s(fit, kind, liner_c - air_c)
            boils = boils_kg(kind, fit.liner_kg, fit.sizes.liner, liner_c - air_c)
    return Way(name, medium, block_c, liner_c, against(limits, block_c, liner_c), soaks, boils)


def block_cools_s(stuff: Stuff, block_kg: float, block_c: float, air_c: float) -> float:
    """Return the time constant of a block in still air. [s]

    What it holds over its film and what of it the air reaches: a house rule for ribbed castings; Churchill and Chu for
    the film, from a face of 0.2 m.
    """
    if block_kg <= 0:
        raise OutOfDomain("a block weighs something: type its kilograms", "block_kg")
    face = SHOWS_AIR * float((block_kg / stuff.rho) ** (2 / 3))
    return block_kg * stuff.c / (film_of(block_c, air_c, 0.2, EMISSIVITY).total * face)


def spreads_of(fit: HeatFit, liner_c: float, block_c: float, air_c: float, block_kg: float) -> Spreads:
    """Return what of a drop is likely and how far off each may be. House rule on common practice. [m], [°C], [s]"""
    return Spreads(
        press_m=fit.press.value_m, press_off_m=fit.press.standard_m, worst_press_m=fit.worst_m, liner_c=liner_c,
        liner_off_k=LINER_OFF_K, block_c=block_c, block_off_k=BLOCK_OFF_K,
        film=film_of(liner_c, air_c, fit.sizes.length_m, EMISSIVITY).total, film_off=FILM_OFF,
        block_s=block_cools_s(fit.sizes.block, block_kg, block_c, air_c), block_s_off=BLOCK_AIR_OFF, ring_m=fit.wall_m,
    )  # fmt: skip


def held_s(stuff: Stuff, block_kg: float, block_c: float, air_c: float) -> float:
    """Return how long a liner is held down: until the block is within 5 K of the room. [s] Exponential, closed form."""
    away = abs(block_c - air_c)
    return 0.0 if away <= HELD_K else block_cools_s(stuff, block_kg, block_c, air_c) * log(away / HELD_K)


def says_of(low_m: float, wanted_m: float) -> Phrase:
    """Say what the worst pair does as it leaves the cold. [m] By comparison."""
    terms = (Term("c", low_m), Term("w", wanted_m))
    return {
        Drops.FREELY: Phrase("The worst pair leaves {c}: it drops.", terms),
        Drops.PUSH: Phrase(
            "The worst pair leaves {c}, less than the {w} wanted: it needs a push from the start.", terms
        ),
        Drops.GRABS: Phrase("The worst pair touches as it leaves the cold: it does not go in.", terms),
    }[drops(low_m, wanted_m)]
