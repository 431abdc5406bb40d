"""What was found on a wall: scores, pits, scuffs, and the stripes that show its shape after a round of honing."""

from dataclasses import dataclass
from math import atan2, cos, degrees, radians, sin

from vallostasis.core.bores.wall import Wall
from vallostasis.core.notation.lengths import metres
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import Finding, FindingKind
from vallostasis.core.records.rows import Hole
from vallostasis.core.shapes.clock import angle_of_hour, turned
from vallostasis.core.surveys.derived import DerivedKind
from vallostasis.core.surveys.stripes import STRIPES, newest_round

ON_A_WALL = (FindingKind.WALL, FindingKind.FEEL)
# What a depth in a score or pit is worth, read with a feeler or a needle. [m] Common practice, no published source.
DEPTH_EXPANDED_M = 25e-6
# What a stone or a bar has to take out; a scuff, a water mark or a stripe has no depth unless a nail catches in it.
DEEP_WORDS = ("score", "pitted area", "cavitation line")


@dataclass(frozen=True, slots=True)
class WallMark:
    """One thing found on a wall, by its letter. [m], [deg]

    ``depth_m`` is None where it was not read; ``needs_depth`` where it takes one to tell whether the bore cleans up.
    """

    letter: str
    finding: Finding
    angle_deg: float
    until_deg: float
    from_m: float
    until_m: float
    depth_m: float | None
    depth_expanded_m: float | None
    needs_depth: bool


def wall_marks(facts: JobFacts, hole: Hole) -> tuple[WallMark, ...]:
    """Return what stands on the wall of a hole, lettered in the order in which it was found. House rule."""
    found = [one for one in facts.standing(facts.findings) if one.kind in ON_A_WALL and one.hole_id == hole.hole_id]
    return tuple(_mark(at, one) for at, one in enumerate(found))


def _mark(at: int, one: Finding) -> WallMark:
    hour = 12.0 if one.hour is None else one.hour
    angle = angle_of_hour(hour)
    until = angle if one.until_hour is None else angle_of_hour(one.until_hour)
    depth = None if one.figure is None else metres(one.figure)
    deep = one.kind is FindingKind.WALL and (one.word in DEEP_WORDS or one.catches)
    first = 0.0 if one.from_um is None else metres(one.from_um)
    letter = chr(ord("A") + at % 26) + (str(at // 26) if at >= 26 else "")
    return WallMark(
        letter,
        one,
        angle,
        until if until >= angle else until + 360.0,
        first,
        first if one.until_um is None else metres(one.until_um),
        depth,
        None if depth is None else DEPTH_EXPANDED_M,
        deep and depth is None,
    )


def oval_of_stripes(facts: JobFacts, hole: Hole) -> float | None:
    """Return the direction of the larger diameter as stripes show it; None where none were drawn. [deg]

    Notes
    -----
    A stone passes over what lies low: dark areas and stripes that are left lie where the bore is larger. Their
    direction is the mean of their double angles, each by its width. Common practice, no published source.
    """
    x = y = 0.0
    for one in newest_round(facts, hole):
        if one.word in STRIPES and one.hour is not None:
            mark = _mark(0, one)
            middle, width = radians((mark.angle_deg + mark.until_deg) / 2), mark.until_deg - mark.angle_deg + 1.0
            x, y = x + width * cos(2 * middle), y + width * sin(2 * middle)
    return None if x == 0 and y == 0 else turned(degrees(atan2(y, x)) / 2, 180.0)


def stripes_beside_gauge(facts: JobFacts, wall: Wall) -> str:
    """Say which way a bore is oval by its stripes, and whether the gauge says so too. House rule: within 25°."""
    shown = oval_of_stripes(facts, wall.hole)
    if shown is None:
        return ""
    way = "in line with the crank" if min(shown, 180 - shown) < 45 else "across the crank"
    told = [one for load in wall.loads[-1:] for one in load.survey.derived if one.kind is DerivedKind.OVALITY]
    placed = [one for one in told if one.direction_deg is not None]
    said = f"Its stripes show the larger diameter at {shown:.0f}°, {way}"
    if not placed:
        return f"{said}; the gauge shows no direction beyond its scatter."
    worst = max(placed, key=lambda one: one.stated.value_m)
    assert worst.direction_deg is not None
    apart = abs(shown - worst.direction_deg) % 180
    apart = min(apart, 180 - apart)
    if apart <= STRIPES_WITHIN_DEG:
        return f"{said}; so does the gauge, at {worst.direction_deg:.0f}°."
    return f"{said}; the gauge has it at {worst.direction_deg:.0f}°: one of them misleads, read more axes."


# Stripes and a gauge that point this near to each other say the same. Common practice, no published source. [deg]
STRIPES_WITHIN_DEG = 25.0
