"""The entry line: ``[hole] [clock]h value``, parts left out come from where the gauge stands now."""

import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace

from vallostasis.core.errors import NotationError, Suggestion
from vallostasis.core.notation.lengths import Unit
from vallostasis.core.notation.spoken import said_line
from vallostasis.core.notation.typed_lengths import ExpectedRange, ParsedLength, parse_length

_HOUR = re.compile(
    r"^(?:(?:#|hole|h(?:ole)?\s*no\.?)\s*)?(?:(?P<hole>\d{1,2})\s+)?"
    r"(?:at\s+)?(?P<hour>\d{1,2}(?:[.]5|:30)?)\s*h(?:\s+|$)(?P<value>.*)$",
    re.I,
)
_HOLE_FIRST = re.compile(r"^(?:#\s*|hole\s*)?(?P<hole>\d{1,2})\s+(?P<value>.+)$", re.I)
_BARE_HOLE = re.compile(r"^(?P<named>#\s*|hole\s*)?(?P<hole>\d{1,2})$", re.I)


Reads = Callable[[str], ParsedLength]


@dataclass(frozen=True, slots=True)
class Position:
    """Where a reading belongs: hole number and clock position [h]; None where it is not known yet."""

    hole: int | None
    hour: float | None


@dataclass(frozen=True, slots=True)
class EntryLine:
    """A line understood: its position, and the reading, or None when the line only chooses a hole."""

    position: Position
    reading: ParsedLength | None


def parse_entry_line(
    line: str,
    present: Position,
    holes: tuple[int, ...],
    bare_unit: Unit,
    expected: ExpectedRange | None = None,
    confirmed: bool = False,
    senses: Mapping[str, int] | None = None,
) -> EntryLine:
    """Read one line typed at the bench.

    Parameters
    ----------
    line : str
        What was typed, for example ``5 6h 1.6``, ``6h -2``, ``+1.5`` or ``#5``.
    present : Position
        Where the gauge stands; fills the parts left out.
    holes : tuple of int
        Hole numbers of this block.
    bare_unit, expected, confirmed, senses
        As in parse_length.

    Returns
    -------
    EntryLine
        Position and reading; no reading when ``#5``, or a bare number where no position is shown, chooses a hole.

    Raises
    ------
    NotationError
        Naming what is not understood, an unknown hole, or asking which of two readings is meant.
    """
    text = said_line(line.strip())

    def reads(value: str) -> ParsedLength:
        return parse_length(value, bare_unit, expected, confirmed, senses)

    bare = _BARE_HOLE.match(text)
    # At a position that is shown a bare number is always a reading: a hole is named there with #.
    shown = present.hole is not None and present.hour is not None
    if bare and (bare["named"] or (not shown and int(bare["hole"]) in holes)):
        return EntryLine(Position(_known_hole(bare["hole"], holes), None), None)
    with_hour = _HOUR.match(text)
    if with_hour:
        hour = _hour(with_hour["hour"])
        hole = _known_hole(with_hour["hole"], holes) if with_hour["hole"] else present.hole
        if not with_hour["value"].strip():
            return EntryLine(Position(hole, hour), None)
        position = Position(hole, hour)
        return EntryLine(position, _length_at(position, with_hour["value"], reads))
    split = _HOLE_FIRST.match(text)
    if split is None:
        return EntryLine(present, reads(line.strip()))
    return _hole_or_whole_number(text, split, present, holes, reads)


def _hole_or_whole_number(
    text: str,
    split: re.Match[str],
    present: Position,
    holes: tuple[int, ...],
    reads: Reads,
) -> EntryLine:
    """``5 1/2``: hole 5 reading a half, or five and a half here? Asked when both can be read."""
    whole, part = can_be_read(text, reads), can_be_read(split["value"], reads)
    if whole and (not part or int(split["hole"]) not in holes):
        return EntryLine(present, reads(text))
    if whole and part:
        raise NotationError(
            f"“{text}” can be read two ways: type the clock with h, or choose.",
            text,
            (Suggestion(f"hole {split['hole']} reads {split['value']}",
                        f"{split['hole']} {present.hour or 12:g}h {split['value']}"),
             Suggestion(f"{text} here", f"+{text}")),
        )  # fmt: skip
    hole = _known_hole(split["hole"], holes)
    hour = present.hour if present.hole in (hole, None) else None
    position = Position(hole, hour)
    return EntryLine(position, _length_at(position, split["value"], reads))


def _length_at(position: Position, text: str, reads: Reads) -> ParsedLength:
    """Read a length; what is asked back keeps the position that was typed with it."""
    try:
        return reads(text)
    except NotationError as error:
        hole = "" if position.hole is None else f"{position.hole} "
        hour = "" if position.hour is None else f"{position.hour:g}h "
        error.suggestions = tuple(replace(s, text=f"{hole}{hour}{s.text}") for s in error.suggestions)
        raise


def can_be_read(text: str, reads: Reads) -> bool:
    """Whether a text is a length, be it one that is asked about. House rule."""
    try:
        reads(text)
    except NotationError as error:
        return bool(error.suggestions)
    return True


def _known_hole(text: str, holes: tuple[int, ...]) -> int:
    if int(text) not in holes:
        raise NotationError(
            f"There is no hole {text}: this block has holes {min(holes)} to {max(holes)}."
            if holes
            else f"There is no hole {text}: this block has no holes yet.",
            text,
        )
    return int(text)


def _hour(text: str) -> float:
    hour = float(text.replace(":30", ".5"))
    if not 0 < hour <= 12:
        raise NotationError(f"There is no {text} h on the clock: positions run from 1 h to 12 h.", f"{text}h")
    return hour
