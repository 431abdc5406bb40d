"""Size the block or size the sleeve: both ways to the press that is wanted, side by side on the same readings.

References
----------
.. [1] By definition of a press: what comes off the diameter of either part takes as much from it. What a hone can
   follow and a grinder cannot is common practice, no published source.
"""

from dataclasses import dataclass

from vallostasis.core.fits.effects import FitWalls
from vallostasis.core.fits.fit import Fit
from vallostasis.core.fits.needs import to_take_off, too_loose
from vallostasis.core.fits.wanted import Sizing
from vallostasis.core.records.spec_card import SpecCard
from vallostasis.core.trail import Phrase, Term
from vallostasis.core.uncertainty.budget import Stated


@dataclass(frozen=True, slots=True)
class SizedPart:
    """One way to the press. [m]

    ``takes_off`` is the most that comes off the diameter of the part; ``egg_m`` what stays uneven round the worst
    level once it is sized; ``wall_m`` the part's wall a side then, ``least_m`` the least that the card allows.
    """

    sizing: Sizing
    takes_off: Stated | None
    levels: int
    egg_m: float
    wall_m: float | None
    least_m: float | None
    is_chosen: bool

    @property
    def is_thin(self) -> bool:
        """Whether its wall is then thinner than the card allows. By its card."""
        return self.wall_m is not None and self.least_m is not None and self.wall_m < self.least_m


@dataclass(frozen=True, slots=True)
class Sizings:
    """Both ways side by side, and what speaks for one of them."""

    ways: tuple[SizedPart, SizedPart]
    better: Sizing | None
    says: Phrase


def sizings_of(card: SpecCard, fit: Fit, walls: FitWalls | None) -> Sizings | None:
    """Score both ways to the press wanted.

    Parameters
    ----------
    card : SpecCard
        Least walls.
    fit : Fit
        The fit as it is.
    walls : FitWalls or None
        Both walls, where they are known. [m]

    Returns
    -------
    Sizings or None
        None where no press is aimed at. A hone takes each axis by itself, so the block follows an egg-shaped bore; a
        ground sleeve is round, and what the hole is out of round by stays in the press [1]_ of the module. [m]
    """
    if fit.wanted is None or fit.wanted.aim_m is None:
        return None
    rows = to_take_off(fit)
    most = rows[0].stock if rows else None
    off = 0.0 if most is None else max(0.0, most.value_m)
    ways = (
        SizedPart(Sizing.BLOCK, most, len(rows), 0.0, None if walls is None else walls.boss_wall_m - off / 2,
                  card.fits.least_boss_wall.metres, fit.sizing is Sizing.BLOCK),
        SizedPart(Sizing.SLEEVE, most, len(rows), _egg(fit), None if walls is None else walls.liner_wall_m - off / 2,
                  card.fits.least_liner_wall.metres, fit.sizing is Sizing.SLEEVE),
    )  # fmt: skip
    better, says = _better(fit, ways)
    return Sizings(ways, better, says)


def _egg(fit: Fit) -> float:
    """What a round sleeve leaves uneven at the worst level: its axes' greatest press less its least. [m]"""
    spreads = [max(one.press.value_m for one in level.places) - min(one.press.value_m for one in level.places)
               for level in fit.levels]  # fmt: skip
    return max(spreads)


def _better(fit: Fit, ways: tuple[SizedPart, SizedPart]) -> tuple[Sizing | None, Phrase]:
    block, sleeve = ways
    loose = too_loose(fit)
    if loose:
        words = f"Neither way: at {loose[0].name} metal is missing, and sizing takes away. Another liner, or a sleeve."
        return None, Phrase(words)
    if not block.levels:
        return None, Phrase("Nothing comes off either way.")
    if block.is_thin and not sleeve.is_thin:
        return Sizing.SLEEVE, Phrase("Size the sleeve: honed, the wall of the block would be thinner than the card "
                                     "allows.")  # fmt: skip
    if sleeve.is_thin and not block.is_thin:
        return Sizing.BLOCK, Phrase("Size the block: ground, the wall of the sleeve would be thinner than the card "
                                    "allows.")  # fmt: skip
    within = max(place.press.expanded_m for level in fit.levels for place in level.places)
    if sleeve.egg_m > within:
        return Sizing.BLOCK, Phrase("Size the block: a hone follows the hole, a ground sleeve is round and would keep "
                                    "{e} of it in the press.", (Term("e", sleeve.egg_m),))  # fmt: skip
    if block.levels == len(fit.levels):
        return None, Phrase("Either way: the whole length gives, and the hole is round. The sleeve can be had again, "
                            "the block cannot.")  # fmt: skip
    return Sizing.BLOCK, Phrase(f"Size the block: only {block.levels} of {len(fit.levels)} levels give, and a hone can "
                                "dwell there.")  # fmt: skip
