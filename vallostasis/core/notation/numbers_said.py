"""The number of a length as the trade types and says it: decimals, fractions, words for them.

Which words are numbers, and which are no measure at all: common practice, no published source.
"""

import re
from decimal import Decimal, localcontext
from fractions import Fraction

from vallostasis.core.errors import NotationError, Suggestion

MOST_DIGITS = 15
_VAGUE = ("hair", "few", "bit", "smidge", "touch", "some", "couple", "about", "roughly", "nearly", "shade")
_COUNT_WORDS = {
    "one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "seven": 7, "eight": 8,
    "nine": 9, "ten": 10, "eleven": 11, "twelve": 12,
}  # fmt: skip
_TEN_WORDS = {**_COUNT_WORDS, "zero": 0, "nought": 0, "oh": 0}
_NUMBER = re.compile(
    r"(?P<whole>\d+)(?P<join>\s*-\s*|\s+)(?P<mixed_top>\d+)\s*/\s*(?P<mixed_bottom>\d+)"
    r"|(?P<top>\d+)\s*/\s*(?P<bottom>\d+)"
    r"|(?P<decimal>\d+[.,]\d*|[.,]\d+|\d+)"
)


def refuse_vague(words: str) -> None:
    """Refuse words that nobody can check later, such as a hair or a bit."""
    for vague in _VAGUE:
        if re.search(rf"\b{vague}\b", words):
            raise NotationError(
                f"“{vague}” is not a measure, nobody can check it later: read the gauge and type the number.",
                vague,
            )


def take_number(words: str, typed: str) -> tuple[Decimal, str]:
    """Read the number at the start, exactly, and return what is left; ask where it can be meant in two ways."""
    refuse_vague(words)
    if re.match(r"points?\b", words):
        _ask_point(words, typed)
    spoken = _spoken_decimal(words) or _spoken_number(words)
    if spoken:
        return spoken
    match = _NUMBER.match(words)
    if not match:
        raise NotationError(
            f"“{typed}” is not understood: start with a number, such as 2.5, 1 1/2 thou or 0.05 mm.", typed
        )
    if sum(c.isdigit() for c in match.group()) > MOST_DIGITS:
        raise NotationError(f"Too many digits: type at most {MOST_DIGITS}.", match.group())
    return _number_of(match), words[match.end() :]


def _ask_point(words: str, typed: str) -> None:
    sign = "-" if re.match(r"\s*(-|−|minus\b)", typed.lower()) else ""
    digits = "".join(_digits_in(re.sub(r"^points?", "", words)))
    raise NotationError(
        "“point” is said for the decimal point and for a hundredth of a millimetre: which is meant?",
        "point",
        (Suggestion(f"{sign}0.{digits} of the field's unit", f"{sign}0.{digits}"),
         Suggestion(f"{sign}{digits} hundredths of a millimetre", f"{sign}{digits}/100 mm")) if digits else (),
    )  # fmt: skip


def _digits_in(words: str) -> list[str]:
    """Digits as typed or spoken one after the other, up to the first word that is none."""
    found = []
    for word in words.split():
        if word.isdigit():
            found.append(word)
        elif _TEN_WORDS.get(word, 10) < 10:
            found.append(str(_TEN_WORDS[word]))
        else:
            break
    return found


def _spoken_decimal(words: str) -> tuple[Decimal, str] | None:
    """Read ``one point five`` and ``2 point 25``: between digits, point is the decimal point."""
    match = re.match(rf"(?P<whole>\d+|{'|'.join(_TEN_WORDS)}) point (?P<rest>.*)", words)
    digits = _digits_in(match.group("rest")) if match else []
    if match is None or not digits:
        return None
    whole = match.group("whole")
    number = f"{_TEN_WORDS.get(whole, whole)}.{''.join(digits)}"
    if sum(c.isdigit() for c in number) > MOST_DIGITS:
        raise NotationError(f"Too many digits: type at most {MOST_DIGITS}.", match.group())
    return Decimal(number), " " + " ".join(match.group("rest").split()[len(digits) :])


def _spoken_number(words: str) -> tuple[Decimal, str] | None:
    count = "|".join(_COUNT_WORDS)
    match = re.match(rf"(?:(?P<n>\d+|{count}) and )?(?:an? )?(?P<part>half|quarter)\b(?: an?\b)?", words)
    if match:
        whole = match.group("n")
        number = Decimal(_COUNT_WORDS.get(whole, 0) or whole) if whole else Decimal(0)
        return number + (Decimal("0.5") if match.group("part") == "half" else Decimal("0.25")), words[match.end() :]
    match = re.match(rf"(?P<n>{count}|an?)\b(?= [a-z])", words)
    if match:
        return Decimal(_COUNT_WORDS.get(match.group("n"), 1)), words[match.end() :]
    return None


def _number_of(match: re.Match[str]) -> Decimal:
    part = match.groupdict()
    if part["decimal"]:
        return _decimal_of(part["decimal"])
    whole, top, bottom = part["whole"] or "0", part["mixed_top"] or part["top"], part["mixed_bottom"] or part["bottom"]
    if int(bottom) == 0:
        raise NotationError("A fraction cannot have 0 below the line.", match.group())
    _ask_about_fraction(match, int(whole), Fraction(int(top), int(bottom)))
    value = int(whole) + Fraction(int(top), int(bottom))
    rest = value.denominator
    for prime in (2, 5):
        while rest % prime == 0:
            rest //= prime
    if rest != 1:
        raise NotationError(
            f"{match.group()} has no finite decimal, so it cannot be kept exactly: type it as a decimal.", match.group()
        )
    with localcontext() as context:
        context.prec = 60
        return Decimal(value.numerator) / Decimal(value.denominator)


def _ask_about_fraction(match: re.Match[str], whole: int, part: Fraction) -> None:
    """Ask about what may be a slip: 11/2 for 1 1/2, a mixed number with more than one above the line, a minus apart."""
    said = match.group()
    top, bottom = match["mixed_top"] or match["top"], match["mixed_bottom"] or match["bottom"]
    if match["join"] is not None and re.fullmatch(r"\s+-\s*|\s*-\s+", match["join"]):
        raise NotationError(
            f"{said}: is the line between them a hyphen or a minus?", said,
            (*_finite(f"{whole} {top}/{bottom}", whole + part), *_finite(f"{whole} less {top}/{bottom}", whole - part)),
        )  # fmt: skip
    if part < 1:
        return
    meant = []
    if match["join"] is None and len(top) > 1 and int(top[1:]) < int(bottom) and int(top[1:]) > 0:
        meant = _finite(f"{top[0]} {top[1:]}/{bottom}", int(top[0]) + Fraction(int(top[1:]), int(bottom)))
    raise NotationError(
        f"{said} is more than one above the line: a space left out, or is it meant so?", said,
        (*meant, *_finite("as it stands", whole + part)),
    )  # fmt: skip


def _finite(words: str, value: Fraction) -> list[Suggestion]:
    """Offer a fraction as the decimal it is; nothing where it has none."""
    exact = Decimal(value.numerator) / Decimal(value.denominator)
    if Fraction(exact) != value:
        return []
    text = format(exact.normalize(), "f")
    return [Suggestion(f"{words}, {text}", text)]


def _decimal_of(digits: str) -> Decimal:
    if "," in digits and re.fullmatch(r"[1-9]\d{0,2},\d{3}", digits):
        plain = digits.replace(",", "")
        raise NotationError(
            f"{digits}: is the comma a decimal comma or does it part thousands?",
            ",",
            (Suggestion(f"{digits.replace(',', '.')} (decimal comma)", digits.replace(",", ".")),
             Suggestion(f"{plain} (thousands)", plain)),
        )  # fmt: skip
    return Decimal(digits.replace(",", "."))
