"""Holes, liners and shims to match, and what is wanted of the match. Lengths are whole nanometres.

What a liner comes to in a hole is its protrusion, or for a dry liner its press.
"""

from dataclasses import dataclass
from enum import StrEnum
from typing import TypeVar

from vallostasis.core.errors import OutOfDomain


class Goal(StrEnum):
    """What is made small, in the order in which it is asked for."""

    OUTSIDE = "holes outside"
    RULES = "rules between holes broken"
    CUTS = "holes cut and shimmed"
    ORDERS = "shims to order"
    HONING = "metal to hone"
    ADJACENT = "greatest difference between neighbours"
    SPREAD = "spread over all holes"
    GRADES = "liners of another grade than the bore"
    MOVES = "liners moved"
    PRICE = "price of the shims"


GOALS = (Goal.OUTSIDE, Goal.CUTS, Goal.ADJACENT, Goal.SPREAD, Goal.MOVES)
LENGTHS = (Goal.HONING, Goal.ADJACENT, Goal.SPREAD)


@dataclass(frozen=True, slots=True)
class ShimSize:
    """A shim: how many lie on the shelf, and what one costs, in hundredths of the currency."""

    stock: int
    price: int = 0


@dataclass(frozen=True, slots=True)
class HeadWindow:
    """Holes under one head and what the average of their heights keeps to. [nm]"""

    holes: tuple[int, ...]
    low_nm: int
    high_nm: int


T = TypeVar("T")
Rows = tuple[tuple[T, ...], ...]


@dataclass(frozen=True, slots=True)
class Matching:
    """Holes and liners to match. [nm]

    ``depths_nm`` are the ledges below the deck, ``flanges_nm`` what stands on them, at least as many; ``banks`` are
    rows of holes, neighbours in their order; ``target_nm`` is where a hole that is cut and shimmed stands, whatever its
    liner, None where nothing is cut; ``may_cut`` says which. ``present`` is the liner in each hole now, None where
    nobody knows one; ``locked`` whether that one stays where it is.

    Row by hole, column by liner, each given or left to follow: ``heights_nm`` as it is, instead of flange less depth;
    ``outside`` as it is, instead of by the limits; ``honing_nm`` taken off for it; ``unlike`` where the grades differ;
    ``cut_on`` the places in ``shims`` on which the hole can be cut for it. ``neighbour_nm`` is the most that two
    neighbours may differ by, ``heads`` what averages keep to.
    """

    depths_nm: tuple[int, ...]
    flanges_nm: tuple[int, ...]
    lower_nm: int
    upper_nm: int
    banks: Rows[int]
    target_nm: int | None = None
    may_cut: tuple[bool, ...] = ()
    present: tuple[int | None, ...] = ()
    locked: tuple[bool, ...] = ()
    heights_nm: Rows[int] = ()
    outside: Rows[bool] = ()
    honing_nm: Rows[int] = ()
    unlike: Rows[bool] = ()
    shims: tuple[ShimSize, ...] = ()
    cut_on: Rows[tuple[int, ...]] = ()
    neighbour_nm: int | None = None
    heads: tuple[HeadWindow, ...] = ()

    @property
    def holes(self) -> range:
        """The holes in turn."""
        return range(len(self.depths_nm))

    @property
    def liners(self) -> range:
        """The liners in turn."""
        return range(len(self.flanges_nm))

    def height_nm(self, hole: int, liner: int) -> int:
        """What a liner comes to in a hole as it is. [nm] Flange less depth, by definition."""
        if self.heights_nm:
            return self.heights_nm[hole][liner]
        return self.flanges_nm[liner] - self.depths_nm[hole]

    def is_outside(self, hole: int, liner: int) -> bool:
        """Whether it is outside there as it is. By comparison."""
        if self.outside:
            return self.outside[hole][liner]
        return not self.lower_nm <= self.height_nm(hole, liner) <= self.upper_nm

    def is_cuttable(self, hole: int) -> bool:
        """Whether a hole may be cut at all."""
        return self.target_nm is not None and (not self.may_cut or self.may_cut[hole])

    def stays(self, hole: int) -> int | None:
        """The liner that is locked into a hole; None where any may come."""
        return self.present[hole] if self.locked and self.locked[hole] and self.present else None


def check_matching(problem: Matching) -> None:
    """Refuse what cannot be matched: fewer liners than holes, limits the wrong way round, holes that are not there."""
    holes, liners = len(problem.depths_nm), len(problem.flanges_nm)
    if not holes:
        raise OutOfDomain("there is no hole to fill", "depths_nm")
    if liners < holes:
        raise OutOfDomain(f"{holes} holes and {liners} liners: every hole needs one", "flanges_nm")
    if problem.lower_nm > problem.upper_nm:
        raise OutOfDomain("the lower limit is above the upper one", "lower_nm")
    if any(not 0 <= one < holes for bank in problem.banks for one in bank):
        raise OutOfDomain("a bank names a hole that is not there", "banks")
    for name, given in (("may_cut", problem.may_cut), ("present", problem.present), ("locked", problem.locked)):
        if given and len(given) != holes:
            raise OutOfDomain(f"one entry for each of {holes} holes, or none at all", name)
    if any(one is not None and not 0 <= one < liners for one in problem.present):
        raise OutOfDomain("a hole holds a liner that is not there", "present")
    kept = [one for hole in problem.holes if (one := problem.stays(hole)) is not None]
    if len(set(kept)) != len(kept):
        raise OutOfDomain("two holes are locked to one liner: unlock one of them", "locked")
