"""The ± of a cut as a bar of its parts: what flange, shim, spacer, stop and gauge bring to it."""

from collections import defaultdict
from dataclasses import dataclass
from math import sqrt

from vallostasis.core.uncertainty.budget import Budget, Shape

# Which part of the stack a source belongs to, by a word in its name; what is left is of the gauge.
PARTS = ("stop", "graduation", "shim", "spacer", "gasket", "flange")


@dataclass(frozen=True, slots=True)
class StackShare:
    """One part: how far it can be off by itself, ±, and its share in the variance. [m], [1]"""

    name: str
    half_width_m: float
    share: float


def stack_up_of(budget: Budget) -> tuple[StackShare, ...]:
    """Sum a budget up by the parts of the stack, the greatest share first.

    Parameters
    ----------
    budget : Budget
        Of a protrusion by the stop. [m]

    Returns
    -------
    tuple of StackShare
        Shares of the variance add to one; half widths add to the worst case, a normal part with twice its standard
        uncertainty, a rectangular one with its half width. [m]

    Notes
    -----
    Worst case and root sum of squares side by side: common practice, no published source; shares GUM 5.1.3.
    """
    variance: dict[str, float] = defaultdict(float)
    width: dict[str, float] = defaultdict(float)
    for source in budget.sources:
        name = next((part for part in PARTS if part in source.name.casefold()), "gauge")
        own = source.contribution_m
        variance[name] += own**2
        width[name] = sqrt(width[name] ** 2 + (own * (sqrt(3) if source.shape is Shape.RECTANGULAR else 2)) ** 2)
    total = sum(variance.values())
    shares = (StackShare(name, width[name], 0.0 if total == 0 else variance[name] / total) for name in variance)
    return tuple(sorted(shares, key=lambda one: -one.share))
