"""Causes of residuals that are known, and the checks that tell them apart: data, with their own short texts.

A residual is protrusion as read less what the parts say, hole by hole. Everything here is common practice, no published
source: how often a cause is met, how large it is, how long a check takes.
"""

from dataclasses import dataclass
from enum import StrEnum

UM = 1e-6


class Pattern(StrEnum):
    """On which holes a cause shows, and how."""

    NONE = "nowhere"
    ALL = "every hole alike"
    MAKE = "every liner of one make"
    ONE = "one hole"
    SHIMMED = "one hole, by its shims"
    SLOPE = "along the block"
    BOW = "a bow along the block"


@dataclass(frozen=True, slots=True)
class Cause:
    """A cause: how it shows, between which effects it can lie, and how often it is met among all. [m], [1]"""

    name: str
    shows: str
    pattern: Pattern
    low_m: float
    high_m: float
    prior: float


@dataclass(frozen=True, slots=True)
class Check:
    """A check: what is read again, with which tools, in how many minutes; which causes it would find, and how surely.

    Where one of those is at work it reads the effect, else nothing. [m], [min]
    """

    name: str
    tools: str
    minutes: float
    finds: frozenset[str]
    standard_m: float


SCATTER = "nothing but scatter"
CAUSES = (
    Cause(SCATTER, "no more than the readings scatter", Pattern.NONE, 0.0, 0.0, 0.43),
    Cause("lip under the micrometer", "the flange was read too thick, the hole seems low", Pattern.MAKE, -300 * UM,
          -20 * UM, 0.12),
    Cause("lip under the indicator", "the reading stands on the lip, the hole seems high", Pattern.MAKE, 20 * UM,
          300 * UM, 0.06),
    Cause("zero of the gauge moved", "every hole is off by the same", Pattern.ALL, -150 * UM, 150 * UM, 0.08),
    Cause("clamp too light, seal pushing back", "every liner stands up by about the same", Pattern.ALL, 5 * UM,
          120 * UM, 0.06),
    Cause("burr, dirt or compound under the flange", "one liner stands up", Pattern.ONE, 5 * UM, 200 * UM, 0.09),
    Cause("ledge read on a burr, or sunk between the spots", "one liner stands lower than its ledge says", Pattern.ONE,
          -200 * UM, -5 * UM, 0.06),
    Cause("wrong liner written down", "one hole has another flange than its record", Pattern.ONE, -300 * UM, 300 * UM,
          0.03),
    Cause("shim counted, not there", "one hole is low by just its shims", Pattern.SHIMMED, 0.0, 0.0, 0.03),
    Cause("deck sloped under the gauge", "the holes go from low to high along the block", Pattern.SLOPE, -100 * UM,
          100 * UM, 0.02),
    Cause("deck bowed under the gauge", "the holes in the middle stand off from those at the ends", Pattern.BOW,
          -100 * UM, 100 * UM, 0.02),
)  # fmt: skip
CHECKS = (
    Check("look at the zero of the gauge again", "the gauge and its block", 3, frozenset({"zero of the gauge moved"}),
          2 * UM),
    Check("read the flange on its flat land, away from the lip", "micrometer with a fine anvil", 4,
          frozenset({"lip under the micrometer", "wrong liner written down"}), 3 * UM),
    Check("move the tip to the flat land and read once more", "the gauge as it stands", 2,
          frozenset({"lip under the indicator"}), 3 * UM),
    Check("clamp to more torque and read again", "bars, torque wrench", 12,
          frozenset({"clamp too light, seal pushing back", "burr, dirt or compound under the flange"}), 5 * UM),
    Check("draw the liner and look under its flange", "puller, lamp, stone", 40,
          frozenset({"burr, dirt or compound under the flange", "shim counted, not there",
                     "ledge read on a burr, or sunk between the spots", "wrong liner written down"}), 8 * UM),
    Check("lay a straightedge along the deck", "straightedge, feelers", 8,
          frozenset({"deck sloped under the gauge", "deck bowed under the gauge"}), 10 * UM),
)  # fmt: skip
