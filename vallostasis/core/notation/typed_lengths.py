"""Shop notation: lengths as the trade types and says them, read exactly and never guessed.

``parse_length`` turns a text into an exact decimal number of micrometres; ``lengths.format_length``
is its mirror. What could mean two things is asked about, with the answers ready to take.

References
----------
.. [1] International yard and pound agreement, 1959: 1 in = 25.4 mm exactly. What the words mean is common practice.
"""

import re
from collections.abc import Mapping
from dataclasses import dataclass, replace
from decimal import Decimal, localcontext

from vallostasis.core.errors import NotationError, Suggestion
from vallostasis.core.notation.lengths import METRIC_UNITS, MICROMETRES_PER, Unit, metres
from vallostasis.core.notation.numbers_said import refuse_vague, take_number
from vallostasis.core.notation.spoken import said_in_digits
from vallostasis.core.trail import Step, Term

LONGEST_TEXT = 60

_UNIT_WORDS: dict[str, Unit] = {
    "thou": "thou", "thous": "thou", "th": "thou", "tenth": "tenth", "tenths": "tenth", "t": "tenth",
    '"': "inch", "in": "inch", "inch": "inch", "inches": "inch",
    "mm": "mm", "millimetre": "mm", "millimetres": "mm",
    "µm": "µm", "um": "µm", "micron": "µm", "microns": "µm", "micrometre": "µm", "micrometres": "µm",
}  # fmt: skip
_SIGN_WORDS = {"proud": 1, "sunk": -1}
_OVERSIZE_WORDS = {"over": 1, "under": -1}
# What these mean depends on what is read; where nothing says so they are asked about.
_SENSE_WORDS = ("shallow", "deep", "tight", "loose")
# Spaces that a page or a phone puts between number and unit: no-break, narrow, thin, hair, figure, ideographic.
_SPACES = dict.fromkeys("\xa0\u2000\u2001\u2002\u2003\u2004\u2005\u2006\u2007\u2008\u2009\u200a\u202f\u205f\u3000", " ")
# Oversizes in millimetres are cut in fractions of one; in inches in thousandths. Common practice, no published source.
_LARGEST_MM_OVER, _LARGEST_INCH_OVER, _LEAST_THOU_OVER = Decimal(3), Decimal("0.25"), Decimal(1)


@dataclass(frozen=True, slots=True)
class ExpectedRange:
    """What a field takes without asking, from least to greatest. [µm]"""

    least_um: Decimal
    greatest_um: Decimal


@dataclass(frozen=True, slots=True)
class ParsedLength:
    """A length as typed: exact value [µm], the number and unit it was given in, the text itself."""

    value_um: Decimal
    number: Decimal
    unit: Unit
    typed: str
    unit_was_typed: bool

    def in_unit(self, unit: Unit) -> "ParsedLength":
        """Return the same number, had it been given in another unit. By definition of the units."""
        return replace(self, value_um=_exact(self.number * MICROMETRES_PER[unit]), unit=unit)


def unit_step(parsed: ParsedLength) -> Step:
    """Write the conversion of a typed length out as one line of arithmetic; the result in m."""
    size = MICROMETRES_PER[parsed.unit]
    return Step(
        f"“{parsed.typed}” is {parsed.number} × {size} µm",
        "length = number × unit",
        (Term("number", float(parsed.number), "count"), Term("unit", metres(size))),
        Term("length", metres(parsed.value_um)),
        "1 in = 25.4 mm exactly (international yard and pound agreement, 1959)",
    )


def as_entered(typed: str, typed_unit: str) -> str:
    """A kept text with the unit that a bare number took when it was entered."""
    number, side = said_per_side(typed)
    if any(character.isalpha() or character == '"' for character in number):
        return typed
    return f"{number} × 0.01 mm{side}" if typed_unit == "0.01 mm" else f"{number} {typed_unit}{side}"


_PER_SIDE = re.compile(r"\s*(?:\b(?:per|a|each)\s+side|/\s*side)\s*$", re.IGNORECASE)


def said_per_side(typed: str) -> tuple[str, str]:
    """Split off that a length was told per side: 0.02 and " per side", or the whole text and nothing. House wording."""
    side = _PER_SIDE.search(typed)
    return (typed, "") if side is None else (typed[: side.start()], " per side")


def parse_diameter(
    text: str,
    bare_unit: Unit,
    expected: ExpectedRange | None = None,
    confirmed: bool = False,
    senses: Mapping[str, int] | None = None,
) -> ParsedLength:
    """Read a diameter or a difference of two; what is told per side is doubled. [µm]

    A diameter has two sides: 2 thou per side are 4 on it. By definition; else as parse_length.
    """
    number, side = said_per_side(text.strip())
    if not side:
        return parse_length(text, bare_unit, expected, confirmed, senses)
    half = parse_length(number, bare_unit, None, True, senses)
    doubled = replace(half, value_um=_exact(2 * half.value_um), number=2 * half.number, typed=text.strip())
    if not confirmed:
        _ask_if_unlikely(doubled, bare_unit, expected)
    return doubled


def parse_length(
    text: str,
    bare_unit: Unit,
    expected: ExpectedRange | None = None,
    confirmed: bool = False,
    senses: Mapping[str, int] | None = None,
) -> ParsedLength:
    """Read one length in shop notation.

    Parameters
    ----------
    text : str
        What was typed, for example ``+1.5``, ``7-1/16"``, ``half a thou`` or ``5 sunk``.
    bare_unit : str
        Unit that a number without a unit takes.
    expected : ExpectedRange, optional
        What the field takes without asking. [µm]
    confirmed : bool
        True when the person has already answered "yes, as typed".
    senses : mapping of str to int, optional
        Which sign deep, shallow, tight and loose give here, by measuring.senses; else they are asked about.

    Returns
    -------
    ParsedLength
        The exact value [µm], positive when proud, with the unit as entered.

    Raises
    ------
    NotationError
        Naming the characters that were not understood, or asking which of several readings is meant.

    Notes
    -----
    Exact arithmetic on fractions throughout; a fraction without a finite decimal is refused.
    1 in = 25.4 mm exactly (1959).
    """
    typed = text.strip()
    words = _part_before_unit(said_in_digits(_cleaned(typed)))
    sign, words = _take_sign(words, typed)
    number, rest = take_number(words, typed)
    unit, unit_was_typed, word_sign = _take_unit(rest, typed, _Said(number, sign, senses or {}), bare_unit)
    if sign and word_sign:
        raise NotationError(
            "The sign is said twice: use + or -, or proud or sunk, not both.",
            characters=typed,
            suggestions=(Suggestion(f"{number} {unit} proud", f"+{number} {unit}"),
                         Suggestion(f"{number} {unit} sunk", f"-{number} {unit}")),
        )  # fmt: skip
    signed = number * (sign or word_sign or 1)
    parsed = ParsedLength(_exact(signed * MICROMETRES_PER[unit]), signed, unit, typed, unit_was_typed)
    if not confirmed:
        _ask_if_unlikely(parsed, bare_unit, expected)
    return parsed


def _exact(value: Decimal) -> Decimal:
    """Drop trailing zeros without changing the value or falling into exponents."""
    with localcontext() as context:
        context.prec = 60
        return Decimal(format(value.normalize(), "f"))


def _cleaned(typed: str) -> str:
    if not typed:
        raise NotationError("Nothing was typed: type a reading such as 2.5, -1 1/2 thou or 0.05 mm.")
    if len(typed) > LONGEST_TEXT:
        raise NotationError(f"Too long for a reading: type at most {LONGEST_TEXT} characters.")
    strange = "".join(c for c in typed if not c.isprintable() and c not in _SPACES)
    if strange:
        shown = ", ".join(f"U+{ord(c):04X}" for c in strange)
        raise NotationError(f"Characters that cannot be read: {shown}. Type the reading again.", strange)
    table: dict[str, str | int | None] = {"μ": "µ", "−": "-", "–": "-", "″": '"', "”": '"', **_SPACES}
    words = typed.lower().translate(str.maketrans(table))
    return re.sub(r"\s+", " ", words)


_UNIT_FIRST = re.compile(
    r"(?P<sign>(?:[+-]|plus|minus)?\s*)(?P<whole>\d+|an?) (?P<unit>[a-zµ]+)"
    r" and (?P<part>(?:an? )?(?:half|quarter)|\d+/\d+)\b"
)


def _part_before_unit(words: str) -> str:
    """Put the part where it is read: two thou and a half are 2 1/2 thou."""
    said = _UNIT_FIRST.match(words)
    if said is None or not (said["unit"] in _UNIT_WORDS or re.fullmatch(r"mils?|points?", said["unit"])):
        return words
    whole = said["whole"] if said["whole"].isdigit() else "1"
    part = "1/2" if said["part"].endswith("half") else "1/4" if said["part"].endswith("quarter") else said["part"]
    return f"{said['sign']}{whole} {part} {said['unit']}{words[said.end() :]}"


def _take_sign(words: str, typed: str) -> tuple[int, str]:
    match = re.match(r"(\+|-|plus\b|minus\b)\s*", words)
    if not match:
        return 0, words
    rest = words[match.end() :]
    if re.match(r"(\+|-|plus\b|minus\b)", rest):
        raise NotationError("Two signs: type one + or one -.", typed[: match.end() + 1])
    return (1 if match.group(1) in ("+", "plus") else -1), rest


@dataclass(frozen=True, slots=True)
class _Said:
    """What was said before the unit: number, sign, and what words of sense mean here."""

    number: Decimal
    sign: int
    senses: Mapping[str, int]

    @property
    def signed(self) -> str:
        """Number with its sign, as it is offered again."""
        return f"{'-' if self.sign < 0 else '+' if self.sign > 0 else ''}{self.number}"


def _take_unit(rest: str, typed: str, said: _Said, bare_unit: Unit) -> tuple[Unit, bool, int]:
    """Return the unit, whether it was typed, and the sign that a word gave."""
    refuse_vague(rest)
    number = said.number
    unit: Unit | None = None
    word_sign, oversize = 0, ""
    words = re.findall(r'"|[^\s"]+', rest)
    said = _with_word_sign(said, words)
    for word in words:
        if re.fullmatch(r"mils?|points?", word):
            _ask_mil_or_point(word, said)
        if word in ("high", "low") or (word in _SENSE_WORDS and word not in said.senses):
            _ask_which_way(word, number)
        if (word in _SIGN_WORDS or word in said.senses) and not word_sign:
            word_sign = _SIGN_WORDS.get(word) or said.senses[word]
        elif word in _OVERSIZE_WORDS and not word_sign:
            word_sign, oversize = _OVERSIZE_WORDS[word], word
        elif word in _UNIT_WORDS and unit is None:
            unit = _UNIT_WORDS[word]
        elif word != "of" or unit is not None:
            raise NotationError(
                f"“{word}” is not understood after {number}: units are thou, tenths, in, mm and µm.", word
            )
    if unit == "tenth" and bare_unit in METRIC_UNITS:
        raise NotationError(
            f"{typed}: tenths of what? This field is in millimetres.", typed,
            (Suggestion(f"{number} tenths of a thou", f"{_tenth(said)} thou"),
             Suggestion(f"{number} tenths of a millimetre", f"{_tenth(said)} mm")),
        )  # fmt: skip
    if oversize and unit is None:
        return _unit_of_oversize(oversize, number, bare_unit), True, word_sign
    return unit or bare_unit, unit is not None, word_sign


def _with_word_sign(said: _Said, words: list[str]) -> _Said:
    """Give what is asked back the sign that a word says, wherever it stands."""
    named = {**_SIGN_WORDS, **said.senses}
    signs = [named[word] for word in words if word in named]
    return said if said.sign or not signs else _Said(said.number, signs[0], said.senses)


def _tenth(said: _Said) -> str:
    return f"{'-' if said.sign < 0 else ''}{said.number * Decimal('0.1')}"


def _ask_which_way(word: str, number: Decimal) -> None:
    if word in ("high", "low"):
        raise NotationError(
            f"“{word}” is said both ways: type proud (above the deck) or sunk (below it).", word,
            (Suggestion("proud", f"+{number}"), Suggestion("sunk", f"-{number}")),
        )  # fmt: skip
    raise NotationError(
        f"“{word}” has no sign for what is read here: which is meant?", word,
        (Suggestion(f"more, +{number}", f"+{number}"), Suggestion(f"less, -{number}", f"-{number}")),
    )  # fmt: skip


def _unit_of_oversize(word: str, number: Decimal, bare_unit: Unit) -> Unit:
    """Oversizes take the field's unit where they can be meant in it: 20 over in inches is said in thousandths."""
    if bare_unit == "thou":
        return "thou"
    if bare_unit == "inch" and number >= _LEAST_THOU_OVER:
        return "thou"
    if bare_unit == "inch" and number <= _LARGEST_INCH_OVER:
        return "inch"
    if bare_unit == "mm" and number <= _LARGEST_MM_OVER:
        return "mm"
    raise NotationError(
        f"{number} {word}: in thousandths of an inch or in millimetres?", word,
        (Suggestion(f"{number} thou {word}", f"{number} thou {word}"),
         Suggestion(f"{number} mm {word}", f"{number} mm {word}")),
    )  # fmt: skip


def _ask_mil_or_point(word: str, said: _Said) -> None:
    number = said.signed
    whole = said.number == int(said.number)
    other = ("a hundredth of a millimetre", f"{number}/100 mm" if whole else f"{Decimal(number) / 100} mm")
    if word.startswith("mil"):
        other = ("millimetres", f"{number} mm")
    raise NotationError(
        f"“{word}” is used for two units: which is meant?", word,
        (Suggestion(f"{number} thou", f"{number} thou"), Suggestion(f"{number} {other[0]}", other[1])),
    )  # fmt: skip


# A number before the number of a unit would be read as one.
_IN_WORDS = {"0.01 mm": "hundredths of a mm"}


def _ask_if_unlikely(parsed: ParsedLength, bare_unit: Unit, expected: ExpectedRange | None) -> None:
    number, unit = parsed.number, parsed.unit
    as_typed = Suggestion(f"{number} {unit}, as typed", parsed.typed, confirm=True)
    if unit == "0.01 mm" and not parsed.unit_was_typed and 0 < abs(parsed.value_um) < 1:
        raise NotationError(
            f"{number} hundredths of a millimetre is under a micrometre: did you mean {number} mm?",
            parsed.typed, (Suggestion(f"{number} mm", f"{number} mm"), as_typed),
        )  # fmt: skip
    if expected is None or expected.least_um <= parsed.value_um <= expected.greatest_um:
        return
    raise NotationError(
        f"{number} {_IN_WORDS.get(unit, unit)} is far from what is expected here "
        f"({_plain(expected.least_um, bare_unit)} to {_plain(expected.greatest_um, bare_unit)} "
        f"{_IN_WORDS.get(bare_unit, bare_unit)}): "
        "did you mean one of these?",
        parsed.typed,
        (*(Suggestion(text, text) for text, _ in likelier_readings(parsed, expected)), as_typed),
    )


def _plain(value_um: Decimal, unit: Unit) -> str:
    return format(round(value_um / MICROMETRES_PER[unit], 3).normalize(), "f").replace("-", "−")


def likelier_readings(parsed: ParsedLength, expected: ExpectedRange) -> tuple[tuple[str, Decimal], ...]:
    """Other readings of the same digits that a field would take: units mixed up, point slipped, sign lost. [µm]

    Common practice, no published source: 25.4 and 1000 are units mixed up, 10 a point slipped by one.
    """
    candidates: list[tuple[str, Decimal]] = []
    for unit, size in MICROMETRES_PER.items():
        if unit not in (parsed.unit, "tenth"):
            candidates.append((f"{parsed.number} {unit}" if unit != "0.01 mm" else f"{parsed.number / 100} mm",
                               parsed.number * size))  # fmt: skip
    for factor in (Decimal("0.1"), Decimal(10)):
        shifted = _exact(parsed.number * factor)
        text = f"{shifted} {parsed.unit}" if parsed.unit != "0.01 mm" else f"{shifted / 100} mm"
        candidates.append((text, parsed.value_um * factor))
    sign = "-" if parsed.value_um > 0 else "+"
    in_unit = f"{abs(parsed.number)} {parsed.unit}" if parsed.unit != "0.01 mm" else f"{abs(parsed.number) / 100} mm"
    candidates.append((sign + in_unit, -parsed.value_um))
    return tuple(one for one in candidates if expected.least_um <= one[1] <= expected.greatest_um)
