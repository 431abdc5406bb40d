"""What a press does to liner and block, level by level: pressure, stress, close-in, and whether the walls bear it.

References
----------
.. [1] JCGM 100:2008 (GUM), 5.1.2: the ± of a close-in from that of the press and that of the walls taken as rings.
"""

from dataclasses import dataclass, replace

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.fits.fit import Fit, FitLevel
from vallostasis.core.fits.materials import FitMaterial, fit_material
from vallostasis.core.fits.thick_walled import (
    Ends,
    Pressed,
    Rings,
    close_in_share,
    lost_to_roughness,
    pressed,
    von_mises,
)
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import SpecCard, sheet_of
from vallostasis.core.trail import Phrase
from vallostasis.core.uncertainty.budget import Estimate, Source, Stated, mean_of, stated, value_of, weighted

# A block is no ring: what its close-in is off by, as a standard uncertainty of its share. [1] Half of what plane stress
# and plane strain differ by; house rule.
WALLS_WITHIN = 0.04


@dataclass(frozen=True, slots=True)
class FitWalls:
    """Both walls of a fit as rings: what they are made of, what the roughness takes of the press. [m]

    ``otherwise`` is the pressure with other ends as a share of that with free ends. [1]
    """

    rings: Rings
    liner: FitMaterial
    block: FitMaterial
    lost_m: float
    roughness_known: bool
    otherwise: tuple[tuple[Ends, float], ...]

    @property
    def liner_wall_m(self) -> float:
        """Wall of the liner, a side. [m] By definition."""
        return (self.rings.fit_m - self.rings.inside_m) / 2

    @property
    def boss_wall_m(self) -> float:
        """Wall of the block round it, a side. [m] By definition."""
        return (self.rings.outside_m - self.rings.fit_m) / 2


@dataclass(frozen=True, slots=True)
class LevelEffect:
    """What the press of one level does. [Pa], [m]

    ``liner_share`` and ``block_share`` are the stress as a share of what the material bears [1].
    """

    level: FitLevel
    pressure_pa: float
    hoop_liner_pa: float
    hoop_block_pa: float
    liner_share: float
    block_share: float
    close_in: Stated
    boss_grows_m: float


@dataclass(frozen=True, slots=True)
class ThinWall:
    """A wall of a fit held against the least that the card allows. [m]"""

    what: str
    wall_m: float
    least_m: float | None

    @property
    def is_thin(self) -> bool:
        """Whether it is thinner than that. By its card."""
        return self.least_m is not None and self.wall_m < self.least_m


def liner_inside_m(card: SpecCard) -> float:
    """Inside of a liner before it goes in, by the card: its own field, the sheet of its bore, or the engine's bore. [m]

    House rule.
    """
    own = card.fits.liner_inside.metres
    sheet = sheet_of(card, Quantity.LINER_BORE)
    drawn = None if sheet is None else sheet.nominal.metres
    return own or drawn or card.layout.bore.metres


def walls_of(facts: JobFacts, fit: Fit) -> FitWalls | Phrase:
    """Return both walls of a fit as rings, or what is missing to tell them.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    fit : Fit
        The fit.

    Returns
    -------
    FitWalls or Phrase
        Diameter of the fit: the mean of the liner's outside. Lamé rings by thick_walled; common practice for a boss.
    """
    card = facts.card
    outside = card.fits.boss_outside.metres
    liner, block = fit_material(card.liner_material), fit_material(card.block_material)
    if outside is None:
        return Phrase("Stress, close-in and force wait for the outside of the block's wall: write it on the card.")
    if liner is None or block is None:
        said = card.liner_material if liner is None else card.block_material
        return Phrase(f"Nobody told how stiff “{said}” is: name iron, steel, aluminium or bronze on the card.")
    fit_m = value_of(mean_of([level.liner for level in fit.levels]))
    try:
        rings = Rings(liner_inside_m(card), fit_m, outside, liner.elastic, block.elastic)
    except OutOfDomain as error:
        return Phrase(f"The walls on the card are none: {error}. Check inside, fit and outside.")
    bore_rz, liner_rz = card.fits.bore_rz.metres, card.fits.liner_rz.metres
    lost = lost_to_roughness(bore_rz or 0.0, liner_rz or 0.0)
    free = rings.give(Ends.FREE)
    otherwise = tuple((ends, free / rings.give(ends)) for ends in (Ends.HELD, Ends.BONDED))
    return FitWalls(rings, liner, block, lost, bore_rz is not None and liner_rz is not None, otherwise)


def share_borne(material: FitMaterial, radial_pa: float, hoop_pa: float) -> float:
    """Stress of a wall as a share of what its material bears. [1]

    Brittle iron by the greatest stress that pulls, and a quarter of it where it is only squeezed, since iron bears
    about four times as much so; others by von Mises. Maximum normal stress theory; the quarter is from memory.
    """
    if material.is_brittle:
        pulled, squeezed = max(hoop_pa, radial_pa, 0.0), -min(hoop_pa, radial_pa, 0.0)
        return max(pulled, squeezed / 4) / material.strength_pa
    return float(von_mises(radial_pa, hoop_pa)) / material.strength_pa


def close_in_of(walls: FitWalls, what: str, press: Estimate, k: float) -> Stated:
    """Return what a press closes the liner's bore in, on the diameter. [m] GUM 5.1.2 [1]_ of the module."""
    return stated(what, close_in_estimate(walls, press), k)


def close_in_estimate(walls: FitWalls, press: Estimate) -> Estimate:
    """Return the close-in of a press with what it carries. [m]

    GUM 5.1.2 [1]_ of the module: the share of the press by Lamé, with the errors of the press and of the share.
    """
    share = close_in_share(walls.rings)
    net = max(value_of(press) - walls.lost_m, 0.0)
    scaled = weighted(((share, press),))
    model = Source("block taken as a ring", WALLS_WITHIN, "1", share * net, shared=True, error="block taken as a ring",
                   basis="half of what plane stress and plane strain differ by")  # fmt: skip
    errors = dict(scaled.errors) | ({model.error: (model, 1.0)} if net > 0 else {})
    off = share * net - value_of(scaled)
    return replace(scaled, value_m=scaled.value_m + off, errors=errors)


def effect_at(walls: FitWalls, level: FitLevel, press: Estimate, k: float) -> LevelEffect:
    """Return what a press at a level does. [m] Lamé by thick_walled."""
    done: Pressed = pressed(walls.rings, max(value_of(press) - walls.lost_m, 0.0))
    p, in_liner, in_block = (float(one) for one in (done.pressure_pa, done.hoop_liner_bore_pa, done.hoop_boss_bore_pa))
    return LevelEffect(
        level, p, in_liner, in_block,
        share_borne(walls.liner, 0.0, in_liner), share_borne(walls.block, -p, in_block),
        close_in_of(walls, f"close-in, {level.name}", press, k), float(done.boss_grows_m),
    )  # fmt: skip


def press_estimate(level: FitLevel, taken_off_m: float = 0.0) -> Estimate:
    """Return the press of a level's means with so much metal off the diameter. [m] By definition."""
    press = weighted(((1.0, level.liner), (-1.0, level.bore)))
    return replace(press, value_m=press.value_m - taken_off_m)


def effects_of(facts: JobFacts, fit: Fit, walls: FitWalls, aim_m: float | None = None) -> tuple[LevelEffect, ...]:
    """Return what a fit does at every level, as it is or once it is sized to an aim. [m] Lamé by thick_walled."""
    k = facts.card.coverage_factor
    return tuple(
        effect_at(walls, level, press_estimate(level, taken_off(level, aim_m)), k) for level in fit.levels
    )  # fmt: skip


def taken_off(level: FitLevel, aim_m: float | None) -> float:
    """What sizing to an aim takes off the diameter at a level; nothing is put on. [m] By definition."""
    return 0.0 if aim_m is None else max(level.press.value_m - aim_m, 0.0)


def thin_walls(facts: JobFacts, walls: FitWalls) -> tuple[ThinWall, ThinWall]:
    """Hold both walls against the least of the card. [m] By its card."""
    fits = facts.card.fits
    return (ThinWall("liner", walls.liner_wall_m, fits.least_liner_wall.metres),
            ThinWall("block", walls.boss_wall_m, fits.least_boss_wall.metres))  # fmt: skip
