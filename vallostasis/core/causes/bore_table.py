"""Causes of a bore that is not round and straight, and the checks that tell them apart: data, common practice.

A residual is a diameter less the middle of its own bore. How often a cause is met, how large it is and how long a check
takes is common practice, no published source.
"""

from enum import StrEnum

from vallostasis.core.causes.table import SCATTER, UM, Check, CheckAt


class BorePattern(StrEnum):
    """How a cause shows on the wall of a bore. Common practice, no published source."""

    NONE = "nowhere"
    NEIGHBOURS = "every bore, narrow along the block"
    OVAL = "one bore, narrow across some axis"
    BELL = "one bore, wide at its ends"
    WAIST = "one bore, narrow below the deck"
    LOBES = "one bore, four lobes below the deck"
    CONE = "one bore, widest at the top"
    SPOT = "one place of one bore"


SIDE_LOAD = "side loading between sleeves"
SQUEEZED = "squeezed by an oval block bore"
BELL = "bell-mouth from overrun"
WAIST = "waist left by a torque plate"
LOBES = "four lobes from the head bolts"
CONE = "wear cone"
TIGHT = "tight spot, matching a scuff"

# Name, how it shows, pattern, least and greatest effect on the diameter, how often it is met among all. [µm], [1]
BORE_CAUSES: tuple[tuple[str, str, BorePattern, float, float, float], ...] = (
    (SCATTER, "no more than a hone leaves and the readings scatter", BorePattern.NONE, 0, 0, 0.42),
    (SIDE_LOAD, "the bores press each other narrow along the block", BorePattern.NEIGHBOURS, 4, 150, 0.08),
    (SQUEEZED, "one bore is oval over its whole length", BorePattern.OVAL, 4, 200, 0.12),
    (BELL, "the ends are wide, the stones ran out too far", BorePattern.BELL, 4, 100, 0.08),
    (WAIST, "narrow a little below the deck, where the plate pulled it wide", BorePattern.WAIST, 4, 80, 0.06),
    (LOBES, "four lobes at the top, gone further down", BorePattern.LOBES, 4, 80, 0.06),
    (CONE, "worn at the top of ring travel, less and less below", BorePattern.CONE, 8, 600, 0.12),
    (TIGHT, "one place is narrow, all about it is not", BorePattern.SPOT, 6, 100, 0.06),
)
_ROUND = "How much narrower it is along the block without it, + where it opens"
BORE_CHECKS: tuple[Check, ...] = (
    Check("feel the spot with a lamp, read it and beside it once more", "lamp, bore gauge", 4,
          "How much narrower the spot is than beside it", CheckAt.HOLE, ((TIGHT, 1.0),), 3 * UM),
    Check("read the unworn band above the rings", "bore gauge", 4,
          "How much wider the worst of the travel is than the band", CheckAt.HOLE, ((CONE, 1.0),), 4 * UM),
    Check("read a finger deeper at both ends", "bore gauge", 4, "How much wider the ends are than a finger further in",
          CheckAt.HOLE, ((BELL, 0.8),), 3 * UM),
    Check("slacken the head bolts or the plate and read again", "wrench, bore gauge", 20,
          "By how much the shape at the top went away, middle to lobe", CheckAt.HOLE, ((LOBES, 1.0),), 3 * UM),
    Check("put the plate on and read again", "torque plate, bore gauge", 35,
          "By how much the narrow part below the deck opened", CheckAt.HOLE, ((WAIST, 1.0),), 3 * UM),
    Check("read it with the neighbour drawn", "puller, bore gauge", 60, _ROUND, CheckAt.HOLE, ((SIDE_LOAD, 0.5),),
          4 * UM),
    Check("draw the sleeve and read the block bore", "puller, bore gauge", 70,
          "How oval the block bore is, greatest less middle", CheckAt.HOLE, ((SQUEEZED, 1.0),), 5 * UM),
)  # fmt: skip
