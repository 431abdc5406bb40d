"""A dry liner started by hand before it is pulled in: how deep it goes tells how it will press.

A quarter to a third of its length, then the puller: common practice, no published source.
"""

from dataclasses import dataclass
from typing import Literal

LEAST_SHARE, GREATEST_SHARE = 1 / 4, 1 / 3
START_SAYS = {
    "tight": "less than a quarter is tight.",
    "right": "a quarter to a third is right, by common practice.",
    "loose": "more than a third is loose.",
}


@dataclass(frozen=True, slots=True)
class HandStart:
    """Share of the liner's length that went in by hand [1], and what that says of the fit."""

    share: float
    fit: Literal["tight", "right", "loose"]


def hand_start(inserted_m: float, length_m: float) -> HandStart:
    """Judge a hand start.

    Parameters
    ----------
    inserted_m : float
        How far the liner went in by hand, from the deck down. [m]
    length_m : float
        Its whole length, greater than nought. [m]

    Notes
    -----
    Common practice, no published source.
    """
    share = inserted_m / length_m
    if inserted_m < LEAST_SHARE * length_m:
        return HandStart(share, "tight")
    return HandStart(share, "loose" if inserted_m > GREATEST_SHARE * length_m else "right")
