"""What the force of a pull says: tilt, dirt under the flange, metal shaved off, or a true seat; and what it cannot.

What each does to the force against the depth stands with its rule: common practice, no published source.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum

import numpy as np

from vallostasis.core.fits.going_in import GoingIn
from vallostasis.core.fits.pull import Expected, PullNow, PullState, expected_at
from vallostasis.core.notation.lengths import metres
from vallostasis.core.records.pulls import PullMarkKind
from vallostasis.core.trail import Phrase, Term


class CurveSays(StrEnum):
    """What a curve says."""

    AS_EXPECTED = "as expected"
    SEATED = "true seat"
    EARLY = "stands on something before it is home"
    TILTED = "tilted or dry from the start"
    SHAVED = "metal was shaved off"
    LOOSE = "easier than the readings say"
    NOT_TOLD = "not told"


@dataclass(frozen=True, slots=True)
class ForceRead:
    """A force that was read: how far from home [m], how much [N]."""

    to_go_m: float
    force_n: float


@dataclass(frozen=True, slots=True)
class CurveFound:
    """One thing that a curve says, in words."""

    says: CurveSays
    words: Phrase


# Forces read this much apart from the band are no scatter of a gauge. [1]
BEYOND = 0.1
# A flange that touches with more to go than this stands on something. [m]
EARLY_M = 1e-3
# A fall this deep below the greatest before it, while it should rise, is metal that went. [1]
FALLS_BY = 0.25
LEAST_POINTS = 4
# A skewed liner comes straight: at its start it takes so many times the share of what was expected. [1]
STRAIGHTENS = 1.3


def forces_of(now: PullNow) -> tuple[ForceRead, ...]:
    """Return the forces read on a pull, in their order. [m], [N] By definition."""
    return tuple(ForceRead(metres(one.to_go_um), float(one.mark.force_kn) * 1000) for one in now.points
                 if one.mark.force_kn is not None and one.mark.kind is not PullMarkKind.HELD)  # fmt: skip


def curve_of(now: PullNow, going: GoingIn | None) -> tuple[CurveFound, ...]:
    """Say what a pull shows, held against what was expected of it.

    Parameters
    ----------
    now : PullNow
        The pull as it stands.
    going : GoingIn or None
        The way in that was expected; None where the walls are not known.

    Returns
    -------
    tuple of CurveFound
        What can be told, and what cannot with the reason. Common practice, no published source.
    """
    found = [*_contact(now), *_felt(now)]
    forces = forces_of(now)
    if going is None:
        found.append(_not_told("What force was to be expected is not known: the walls are not on the card."))
    elif len(forces) < LEAST_POINTS:
        found.append(_not_told("Too few forces were read to tell tilt from shaving: a load cell or the gauge of the "
                               "press, read every few turns, would."))  # fmt: skip
    else:
        found += against_band(forces, [expected_at(going, one.to_go_m) for one in forces])
    return tuple(found)


def _not_told(words: str) -> CurveFound:
    return CurveFound(CurveSays.NOT_TOLD, Phrase(words))


def _contact(now: PullNow) -> list[CurveFound]:
    """Where the flange touched against where the ledge should be."""
    at = next((one for one in now.points if one.mark.kind is PullMarkKind.TOUCHES), None)
    if at is None or at.mark.to_go_um is None:
        return []
    left = metres(at.mark.to_go_um)
    term = (Term("left", left, "size"),)
    if left > EARLY_M:
        return [CurveFound(CurveSays.EARLY, Phrase(
            "It touched with {left} still to go by the gauge: dirt, compound or a burr lies under the flange, or the "
            "depth was counted wrong. Draw it, look, wipe the seat.", term))]  # fmt: skip
    return [CurveFound(CurveSays.SEATED, Phrase("It touched where the ledge is, within what the count can tell."))]


def _felt(now: PullNow) -> list[CurveFound]:
    kinds = [one.kind for one in now.marks]
    found = []
    if PullMarkKind.POPS in kinds:
        found.append(CurveFound(CurveSays.NOT_TOLD, Phrase(
            "It popped: stick and slip of a dry or skewed liner. By feel alone that is not told from metal going off: "
            "the bore read again shows it as close-in that is missing.")))  # fmt: skip
    if PullMarkKind.TWISTS in kinds:
        found.append(CurveFound(CurveSays.TILTED, Phrase("It twisted: one side gripped before the other.")))
    if PullMarkKind.STOPPED in kinds and now.state is PullState.STOPPED:
        found.append(_not_told("It stands half-way: the force to go on is above what was expected, or the tool is at "
                               "its end."))  # fmt: skip
    return found


def against_band(forces: Sequence[ForceRead], expected: Sequence[Expected]) -> list[CurveFound]:
    """Hold forces that were read against the band that was expected. [N]

    A share of the force that is alike all along is friction or tilt; one that falls away after a peak, while it should
    go on rising, is metal that went; all below the band is a fit looser than it was read. Common practice, no published
    source.
    """
    read = np.array([one.force_n for one in forces])
    high = np.array([one.high_n for one in expected])
    low = np.array([one.low_n for one in expected])
    middle = np.maximum([one.middle_n for one in expected], 1.0)
    if (read <= high * (1 + BEYOND)).all() and (read >= low * (1 - BEYOND)).all():
        return [CurveFound(CurveSays.AS_EXPECTED, Phrase("The force stayed inside what the readings expected."))]
    peak = int(read.argmax())
    share = read / middle
    if len(read) // 3 < peak < len(read) - 1 and read[-1] < (1 - FALLS_BY) * read[peak] and middle[-1] >= middle[peak]:
        return [CurveFound(CurveSays.SHAVED, Phrase(
            "The force fell while it should have risen: metal was shaved off on the way. Look for a lip at the top of "
            "the hole and for bright flakes; the press is less than it was read."))]  # fmt: skip
    if (read > high * (1 + BEYOND)).any():
        first = int((read > high * (1 + BEYOND)).argmax())
        early = first <= len(read) // 3 and share[0] > STRAIGHTENS * share[-1]
        words = (
            "The force was above the band from the start: skewed, or dry. What is lost of it further down is the liner "
            "coming straight."
            if early
            else "The force rose above the band: tighter than read, dry, or skewed. It is not told which without a "
            "reading of the bore after."
        )
        return [CurveFound(CurveSays.TILTED if early else CurveSays.NOT_TOLD, Phrase(words))]
    return [
        CurveFound(
            CurveSays.LOOSE,
            Phrase(
                "It went in easier than the readings say: better oiled, or looser than read. The close-in tells which."
            ),
        )
    ]
