"""Causes of residuals that are known, and the checks that tell them apart: data, with their own short texts.

A residual is protrusion as read less what the parts say, hole by hole and round the clock. A shop writes its own
beside these, or one of the same name in their place.

References
----------
.. [1] Common practice, no published source: how often a cause is met, how large it is, how it shows; how long a check
   takes, which share of a cause it shows, how surely it reads. The height of a lip, 0.02 to 0.3 mm, likewise.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum

UM = 1e-6


class Pattern(StrEnum):
    """Where a cause shows, and how. Common practice, no published source."""

    NONE = "nowhere"
    ALL = "every hole alike"
    MAKE = "every liner of one make"
    ONE = "one hole"
    SHIMMED = "one hole, by its shims"
    SPACER = "every hole, by a spacer"
    SLOPE = "along the block"
    BOW = "a bow along the block"
    TILT = "one hole, high on one side and low on the other"
    SIDE = "one hole, lifted on one side"


# What lies in the block, the gauge or a make, not in one hole: looked for before any hole is touched.
COMMON = frozenset({Pattern.ALL, Pattern.MAKE, Pattern.SPACER, Pattern.SLOPE, Pattern.BOW})


class CheckAt(StrEnum):
    """Where a check is made: at a hole, once for the whole block, or on a liner of a make that lies on the bench."""

    HOLE = "a hole"
    BLOCK = "the block"
    BENCH = "a liner of that make on the bench"


@dataclass(frozen=True, slots=True)
class Cause:
    """A cause: how it shows, between which effects it can lie, and how often it is met among all. [m], [1]

    ``prior`` is how much it counts beside the others before anything is read: how often it is met, more where its
    effects lie close together. The effect of a tilt is from the middle to its high side, that of a lifted side what the
    middle rises by.
    """

    name: str
    shows: str
    pattern: Pattern
    low_m: float
    high_m: float
    prior: float


@dataclass(frozen=True, slots=True)
class Check:
    """A check: what is done with which tools in how many minutes, what is typed, and which causes it would find. [min]

    ``finds`` says which share of its effect a cause would show in it, nought for any other; ``standard_m`` is how well
    it reads. [1], [m]
    """

    name: str
    tools: str
    minutes: float
    asks: str
    at: CheckAt
    finds: tuple[tuple[str, float], ...]
    standard_m: float

    def share(self, cause: str) -> float:
        """Return which share of its effect a cause shows in this check. [1] By definition."""
        return dict(self.finds).get(cause, 0.0)


@dataclass(frozen=True, slots=True)
class Known:
    """The causes and checks that are known to a shop."""

    causes: tuple[Cause, ...]
    checks: tuple[Check, ...]

    def check(self, name: str) -> Check | None:
        """Return the check of a name; None where there is none."""
        return next((one for one in self.checks if one.name == name), None)

    def cause(self, name: str) -> Cause | None:
        """Return the cause of a name; None where there is none."""
        return next((one for one in self.causes if one.name == name), None)

    def with_own(self, causes: Sequence[Cause], checks: Sequence[Check]) -> "Known":
        """Return them with the shop's own, which take the place of those of the same name. House rule."""
        named, done = {one.name: one for one in causes}, {one.name: one for one in checks}
        return Known(
            tuple({**{one.name: one for one in self.causes}, **named}.values()),
            tuple({**{one.name: one for one in self.checks}, **done}.values()),
        )


SCATTER = "nothing but scatter"
LIP_MICROMETER = "lip under the micrometer"
LIP_INDICATOR = "lip under the indicator"
ZERO = "zero of the gauge moved"
CLAMP = "clamp too light, seal pushing back"
WARM = "parts warm when they were read"
SPACER = "spacer counted, not there"
BURR = "burr, dirt or compound under the flange"
SUNK = "ledge read on a burr, or sunk between the spots"
WRONG = "wrong liner written down"
LIFTED = "liner lifted after it was pressed"
SHIM = "shim counted, not there"
FLANGE_TILT = "flange not square to its liner"
LEDGE_TILT = "ledge not square where it was not read"
SIDE = "dirt on one side under the flange"
DECK_SLOPE = "deck sloped under the gauge"
DECK_BOW = "deck bowed under the gauge"

_LESS = "What was read before, less what it reads now"
_MORE = "What it reads now, less what was read before"
HEIGHTS = Known(
    causes=(
        Cause(SCATTER, "no more than the readings scatter", Pattern.NONE, 0.0, 0.0, 0.37),
        Cause(LIP_MICROMETER, "the flange was read too thick, the hole seems low", Pattern.MAKE, -300 * UM, -20 * UM,
              0.11),
        Cause(LIP_INDICATOR, "the tip stands on the lip, the hole seems high", Pattern.MAKE, 20 * UM, 300 * UM, 0.06),
        Cause(ZERO, "every hole is off by the same", Pattern.ALL, -150 * UM, 150 * UM, 0.07),
        Cause(CLAMP, "every liner stands up by about the same", Pattern.ALL, 5 * UM, 120 * UM, 0.05),
        Cause(WARM, "every hole is off by a little, less once all is cold", Pattern.ALL, -40 * UM, 40 * UM, 0.05),
        Cause(SPACER, "every hole is off by just the spacer", Pattern.SPACER, 0.0, 0.0, 0.02),
        Cause(BURR, "one liner stands up", Pattern.ONE, 5 * UM, 200 * UM, 0.08),
        Cause(LIFTED, "one liner stands up, and goes home when it is pressed", Pattern.ONE, 10 * UM, 150 * UM, 0.03),
        Cause(SUNK, "one liner stands lower than its ledge says", Pattern.ONE, -200 * UM, -5 * UM, 0.06),
        Cause(WRONG, "one hole has another flange than its record", Pattern.ONE, -300 * UM, 300 * UM, 0.03),
        Cause(SHIM, "one hole is low by just its shims", Pattern.SHIMMED, 0.0, 0.0, 0.02),
        Cause(FLANGE_TILT, "one liner is high on one side, and that side goes round with it", Pattern.TILT, 8 * UM,
              120 * UM, 0.02),
        Cause(LEDGE_TILT, "one liner is high on one side, and that side stays where it is", Pattern.TILT, 8 * UM,
              120 * UM, 0.02),
        Cause(SIDE, "one liner is lifted on one side and home on the other", Pattern.SIDE, 5 * UM, 100 * UM, 0.03),
        Cause(DECK_SLOPE, "the holes go from low to high along the block", Pattern.SLOPE, -100 * UM, 100 * UM, 0.02),
        Cause(DECK_BOW, "the holes in the middle stand off from those at the ends", Pattern.BOW, -100 * UM, 100 * UM,
              0.02),
    ),
    checks=(
        Check("look at the zero of the gauge again", "the gauge and its block", 3,
              "What it shows on its datum now; + where it shows too much", CheckAt.BLOCK, ((ZERO, 1.0),), 2 * UM),
        Check("read a flange of that make on its flat land", "micrometer with a fine anvil", 3, _MORE, CheckAt.BENCH,
              ((LIP_MICROMETER, 1.0),), 3 * UM),
        Check("move the tip to the flat land and read once more", "the gauge as it stands", 2, _LESS, CheckAt.HOLE,
              ((LIP_INDICATOR, 1.0),), 3 * UM),
        Check("read the mark on the liner", "lamp, mirror", 2,
              "What the flange of that liner has more than the one on record", CheckAt.HOLE, ((WRONG, 1.0),), 4 * UM),
        Check("count the shims that are left", "the shelf and its list", 5, "The thickness found on the shelf, as −",
              CheckAt.HOLE, ((SHIM, 1.0),), 2 * UM),
        Check("look what lies under the bridge", "lamp", 2,
              "The spacer that is not there, as − if it was counted on the side of the liner", CheckAt.BLOCK,
              ((SPACER, 1.0),), 2 * UM),
        Check("lay a straightedge along the deck", "straightedge, feelers", 8,
              "How far the last hole stands off from the first, halved, or the middle from the ends", CheckAt.BLOCK,
              ((DECK_SLOPE, 1.0), (DECK_BOW, 1.0)), 10 * UM),
        Check("press it home again and read", "bars, press", 10, _LESS, CheckAt.HOLE,
              ((LIFTED, 1.0), (CLAMP, 0.3)), 4 * UM),
        Check("clamp to more torque and read again", "bars, torque wrench", 12, _LESS, CheckAt.HOLE,
              ((CLAMP, 0.7), (LIFTED, 0.8), (BURR, 0.2)), 4 * UM),
        Check("read again in the morning, all cold", "the gauge, a thermometer", 15, _LESS, CheckAt.BLOCK,
              ((WARM, 1.0),), 4 * UM),
        Check("draw the liner, look under its flange, read it on its flat land", "puller, lamp, stone, micrometer", 44,
              "What it was lifted by, or − what flange or ledge was read too much", CheckAt.HOLE,
              ((BURR, 1.0), (SIDE, 1.0), (SUNK, 1.0), (WRONG, 1.0), (SHIM, 1.0), (LIP_MICROMETER, 1.0)), 6 * UM),
        Check("turn the liner half round and read again", "puller, press", 50,
              "By how much its high side went round with it", CheckAt.HOLE, ((FLANGE_TILT, 1.0), (SIDE, 0.0)), 6 * UM),
        Check("read the ledge all round at eight places", "puller, depth gauge", 55,
              "How far the ledge is out of square, middle to high side", CheckAt.HOLE, ((LEDGE_TILT, 1.0),), 5 * UM),
    ),
)  # fmt: skip
