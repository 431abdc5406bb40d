"""Pits, scores and fire-ring marks: which may stay on a deck, which have to go, and which a cut of the ledge takes."""

from dataclasses import dataclass
from enum import StrEnum

import numpy as np

from vallostasis.core.notation.lengths import metres
from vallostasis.core.protrusion.measured import depths_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.route_marks import Finding, FindingKind
from vallostasis.core.records.rows import Hole
from vallostasis.core.shapes.clock import angle_of_hour
from vallostasis.core.shapes.plane import different_positions, fit_plane

DECK, LEDGE = "deck", "ledge"
# How surely a rule or a pointer places the edge of a mark, ± half width. Common practice, no published source.
PLACED_WITHIN_M = 1e-3


class MarkVerdict(StrEnum):
    """What a mark asks for."""

    STAYS = "may stay"
    SKIM = "skim or repair"
    NEAR = "too near to tell"
    NO_DEPTH = "depth not read"
    NO_LAND = "no land on the card"
    CUT = "a cut takes it"


@dataclass(frozen=True, slots=True)
class JudgedMark:
    """A mark where it lies, and what it asks for; ``skim_m`` is what would have to come off the deck. [h], [m]"""

    finding: Finding
    hole: int
    verdict: MarkVerdict
    words: str
    distance_m: float | None
    depth_m: float | None
    skim_m: float


def judge_deck_mark(distance_m: float | None, depth_m: float | None, land_m: float | None) -> tuple[MarkVerdict, str]:
    """Say whether a mark on a deck may stay.

    Parameters
    ----------
    distance_m : float or None
        From the edge of the counterbore to the nearest edge of the mark; None where it was not said. [m]
    depth_m : float or None
        How deep it is; None where nobody read it. [m]
    land_m : float or None
        Width of the sealing land round the counterbore, from the card. [m]

    Returns
    -------
    tuple of MarkVerdict and str
        What it asks for, and why.

    Notes
    -----
    Outside the land a pit may stay, inside it has to be skimmed out or repaired: common practice, no published source.
    A mark whose edge lies within 1 mm of the edge of the land is too near to tell.
    """
    if land_m is None:
        return MarkVerdict.NO_LAND, "the card does not say how wide the sealing land is"
    if distance_m is None:
        return MarkVerdict.NEAR, "nobody said how far from the edge it lies"
    if distance_m > land_m + PLACED_WITHIN_M:
        return MarkVerdict.STAYS, "outside the sealing land"
    if distance_m > land_m - PLACED_WITHIN_M:
        return MarkVerdict.NEAR, "within 1 mm of the edge of the land: place it more exactly, or treat it as inside"
    if depth_m is None:
        return MarkVerdict.NO_DEPTH, "inside the sealing land: read how deep it is"
    return MarkVerdict.SKIM, "inside the sealing land"


@once
def marks_of(facts: JobFacts) -> tuple[JudgedMark, ...]:
    """Return every mark on deck and ledges that stands, with what it asks for. [m]

    One on a ledge that was found before the last cut of its hole is gone with it. House rule.
    """
    numbers = {hole.hole_id: hole for hole in facts.holes}
    found = []
    for one in facts.standing(facts.findings):
        hole = None if one.hole_id is None else numbers.get(one.hole_id)
        if one.kind is not FindingKind.MARK or hole is None:
            continue
        depth = None if one.figure is None else metres(one.figure)
        distance = None if one.distance_um is None else metres(one.distance_um)
        if one.part == LEDGE:
            cut = facts.last_cut(hole.hole_id)
            if cut is None or cut.event < one.event:
                verdict = MarkVerdict.NO_DEPTH if depth is None else MarkVerdict.CUT
                words = "on the ledge: read how deep it is" if depth is None else "on the ledge: a cut goes below it"
                found.append(JudgedMark(one, hole.number, verdict, words, distance, depth, 0.0))
            continue
        verdict, words = judge_deck_mark(distance, depth, facts.card.seat.sealing_land.metres)
        skim = depth if depth is not None and verdict is MarkVerdict.SKIM else 0.0
        found.append(JudgedMark(one, hole.number, verdict, words, distance, depth, skim))
    return tuple(found)


@dataclass(frozen=True, slots=True)
class Pit:
    """The bottom of a mark on a ledge: where, and how deep below the deck. [h], [m]"""

    hour: float
    bottom_m: float


def pits_of(facts: JobFacts, hole: Hole) -> tuple[Pit, ...]:
    """Return the bottoms of the marks on the ledge of a hole that a cut has to take. [m]

    Notes
    -----
    Ledge at that clock position, from the plane through the depths read, and the depth of the mark below it; with fewer
    than three positions from the deepest reading. House rule.
    """
    survey = depths_of(facts, hole)
    read = [(row.place.hour, row.value_m) for row in survey.read]
    depths = [(hour, value) for hour, value in read if hour is not None and value is not None]
    if not depths:
        return ()
    angles = np.array([angle_of_hour(hour) for hour, _ in depths])
    values = [value for _, value in depths]
    plane = fit_plane(angles, values) if different_positions(angles) >= 3 else None
    pits = []
    for one in marks_of(facts):
        hour, depth = one.finding.hour, one.depth_m
        if one.hole == hole.number and one.finding.part == LEDGE and hour is not None and depth is not None:
            here = max(values) if plane is None else plane.at(angle_of_hour(hour))
            pits.append(Pit(hour, here + depth))
    return tuple(pits)
