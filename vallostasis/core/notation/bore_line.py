"""The entry line for bores: ``[hole] [level] [axis]d value``, parts left out come from where the gauge stands now."""

import re
from dataclasses import dataclass
from decimal import Decimal

from vallostasis.core.errors import NotationError, Suggestion
from vallostasis.core.notation.entry_line import Reads, can_be_read
from vallostasis.core.notation.lengths import MICROMETRES_PER, Unit, both_depth
from vallostasis.core.notation.typed_lengths import ParsedLength, parse_length

_AXIS = re.compile(r"^(?P<axis>\d{1,3}(?:\.\d+)?)(?:d|°|deg)$", re.I)
_HOLE = re.compile(r"^#?(?P<hole>\d{1,2})$")
_NAMED_HOLE = re.compile(r"^(?:#|hole)\s*(\d)", re.I)
_WORD = re.compile(r"^[a-z][a-z.]*$", re.I)
# A depth typed this near to a level means that level. [µm] House rule.
SAME_DEPTH_UM = Decimal(2000)


@dataclass(frozen=True, slots=True)
class BoreLevel:
    """A level that the card asks to be read: its name and depth below the deck. [µm]"""

    name: str
    depth_um: Decimal


@dataclass(frozen=True, slots=True)
class BorePlan:
    """What a line may name: holes of the block, levels and axes of the card [deg], the unit of a bare depth."""

    holes: tuple[int, ...]
    levels: tuple[BoreLevel, ...]
    axes_deg: tuple[float, ...]
    depth_unit: Unit


@dataclass(frozen=True, slots=True)
class BorePlace:
    """Where a reading belongs: hole, level below the deck [µm] and axis [deg]; None where it is not known yet."""

    hole: int | None
    level_um: Decimal | None
    axis_deg: float | None


@dataclass(frozen=True, slots=True)
class BoreLine:
    """A line understood: its place, and the reading, or None when the line only chooses a place."""

    place: BorePlace
    reading: ParsedLength | None


def parse_bore_line(line: str, present: BorePlace, plan: BorePlan, reads: Reads) -> BoreLine:
    """Read one line typed for a bore. House rule.

    Parameters
    ----------
    line : str
        What was typed, for example ``2 m 45d 1.4``: hole 2, middle, axis 45°, and the reading; ``90d -0.2``,
        ``rt 0d 3``, ``2 4.7 45d 1.4`` with the level by its depth, ``+1.4`` or ``#2``.
    present : BorePlace
        Where the gauge stands; fills the parts left out.
    plan : BorePlan
        Holes, levels and axes that may be named.
    reads : callable
        Reads a length as the gauge shows it.

    Returns
    -------
    BoreLine
        Place and reading; no reading where only a place is named.

    Raises
    ------
    NotationError
        Naming what is not understood, an unknown hole, level or axis, or asking which level is meant.
    """
    tokens = _NAMED_HOLE.sub(r"#\1", line.strip()).split()
    if not tokens:
        raise NotationError("Type hole, level, axis and reading, such as 2 m 45d 1.4.", line)
    at = next((index for index, token in enumerate(tokens) if _AXIS.match(token)), None)
    named = tokens[:at] if at is not None else _named_without_axis(tokens, plan)
    value = " ".join(tokens[len(named) if at is None else at + 1 :])
    if at is None and named and named[0].isdigit() and value:
        # “2 thou” and “1 1/2” begin like a hole.
        whole, rest = can_be_read(line.strip(), reads), can_be_read(value, reads)
        if whole and rest:
            raise NotationError(
                f"“{line.strip()}” can be read two ways: type the axis with d, or choose.",
                line,
                (Suggestion(f"hole {named[0]} reads {value}", f"#{line.strip()}"),
                 Suggestion(f"{line.strip()} here", f"+{line.strip()}")),
            )  # fmt: skip
        if whole:
            return BoreLine(present, reads(line.strip()))
    hole, level_text = _hole_and_rest(named, plan, only=at is None and not value)
    level = present.level_um if not level_text else _level(level_text, plan, line)
    axis = present.axis_deg if at is None else _axis(tokens[at], plan)
    place = BorePlace(present.hole if hole is None else hole, level, axis)
    return BoreLine(place, reads(value) if value else None)


def _named_without_axis(tokens: list[str], plan: BorePlan) -> list[str]:
    """What stands before the reading where no axis is named: a hole, then the words of a level."""
    named = []
    rest = list(tokens)
    first = _HOLE.match(rest[0])
    only_chooses = first is not None and not rest[0].isdigit()
    if first and (only_chooses or (len(rest) > 1 and int(first["hole"]) in plan.holes)):
        named.append(rest.pop(0))
    while rest and _WORD.match(rest[0]) and rest[0].casefold() not in MICROMETRES_PER:
        if not _levels_called(" ".join([*named[_starts(named) :], rest[0]]), plan):
            break
        named.append(rest.pop(0))
    return named


def _starts(named: list[str]) -> int:
    """Where the words of a level begin among what is named."""
    return 1 if named and _HOLE.match(named[0]) else 0


def _hole_and_rest(named: list[str], plan: BorePlan, *, only: bool) -> tuple[int | None, str]:
    if not named:
        return None, ""
    first = _HOLE.match(named[0])
    if first is None:
        return None, " ".join(named)
    number = int(first["hole"])
    plain = named[0].isdigit()
    if number not in plan.holes:
        if plain and len(named) == 1 and not only:
            return None, named[0]
        has = f"holes {min(plan.holes)} to {max(plan.holes)}" if plan.holes else "no holes yet"
        raise NotationError(f"There is no hole {number}: this block has {has}.", named[0])
    return number, " ".join(named[1:])


def _levels_called(text: str, plan: BorePlan) -> list[BoreLevel]:
    """Levels that words can mean: the whole name, the letters its words begin with, or its beginning."""
    wanted = text.casefold().replace(".", "")

    def initials(name: str) -> str:
        return "".join(word[0] for word in name.casefold().split())

    named = [one for one in plan.levels if one.name]
    whole = [one for one in named if one.name.casefold() == wanted]
    begin = [one for one in named if initials(one.name) == wanted]
    return whole or begin or [one for one in named if one.name.casefold().startswith(wanted)]


def _level(text: str, plan: BorePlan, line: str) -> Decimal:
    names = ", ".join(f"{one.name} {both_depth(one.depth_um)}".strip() for one in plan.levels)
    found = _levels_called(text, plan)
    if len(found) == 1:
        return found[0].depth_um
    if found:
        raise NotationError(
            f"“{text}” can be {' or '.join(one.name for one in found)}: type more of its name.",
            text,
            tuple(Suggestion(one.name, line.replace(text, one.name, 1)) for one in found),
        )
    try:
        depth = parse_length(text, plan.depth_unit, confirmed=True).value_um
    except NotationError:
        raise NotationError(f"There is no level called {text}: the card has {names}.", text) from None
    nearest = min(plan.levels, key=lambda one: abs(one.depth_um - depth), default=None)
    if nearest is None or abs(nearest.depth_um - depth) > SAME_DEPTH_UM:
        raise NotationError(f"There is no level at {both_depth(depth)}: the card has {names}.", text)
    return nearest.depth_um


def _axis(token: str, plan: BorePlan) -> float:
    found = _AXIS.match(token)
    assert found is not None
    axis = float(found["axis"]) % 180
    if plan.axes_deg and axis not in plan.axes_deg:
        axes = ", ".join(f"{one:g}" for one in plan.axes_deg)
        raise NotationError(f"The card asks for no axis {axis:g}°: it has {axes}.", token)
    return axis
