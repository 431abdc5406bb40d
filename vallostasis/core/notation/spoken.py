"""Numbers as they are said, and as dictation writes them down: turned into the digits that the notation reads.

How numbers are said in a shop: common practice, no published source. Nothing is guessed: words that are no number
stay as they are, for the notation to take or to ask about.
"""

import re
from collections.abc import Iterator

_ONES = {
    "zero": 0, "nought": 0, "oh": 0, "one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "seven": 7,
    "eight": 8, "nine": 9, "ten": 10, "eleven": 11, "twelve": 12, "thirteen": 13, "fourteen": 14, "fifteen": 15,
    "sixteen": 16, "seventeen": 17, "eighteen": 18, "nineteen": 19,
}  # fmt: skip
_TENS = {"twenty": 20, "thirty": 30, "forty": 40, "fifty": 50, "sixty": 60, "seventy": 70, "eighty": 80, "ninety": 90}
_PARTS = {"quarter": 4, "eighth": 8, "sixteenth": 16, "sixty-fourth": 64}
_WRITTEN = {"½": "1/2", "¼": "1/4", "¾": "3/4", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8"}
_NUMBER_WORDS = "|".join((*_ONES, *_TENS, "hundred"))
_CLOCK = re.compile(r"\b(?P<hour>\d{1,2})\s*o\s*['’]?\s*clock\b", re.IGNORECASE)
_NAMED = re.compile(r"^(?:hole|cylinder|number)\s+(?P<hole>\d{1,2})\s*(?:,|:|\bat\b|\breads?\b)?\s*", re.IGNORECASE)


def said_in_digits(text: str) -> str:
    """Write the numbers of a text that is said in digits; a text without number words comes back as it is.

    Parameters
    ----------
    text : str
        Such as ``minus one and a half``, ``seven tenths``, ``eight point eight five eight``, ``two over``, ``1½``.

    Returns
    -------
    str
        ``minus 1 and a half``, ``7 tenths``, ``8.858``, ``2 over``, ``1 1/2``.
    """
    for sign, written in _WRITTEN.items():
        text = re.sub(rf"(?<=\d){sign}", f" {written}", text).replace(sign, written)
    text = re.sub(r"^negative\b", "minus", text, flags=re.IGNORECASE)
    if not re.search(rf"\b(?:{_NUMBER_WORDS})\b", text, re.IGNORECASE):
        return text
    return _with_parts(" ".join(_numbers(_words(text))))


def said_line(text: str) -> str:
    """Write a line that names hole and clock as the entry line has it: ``hole five at six o'clock, minus two``."""
    line = _CLOCK.sub(r"\g<hour>h", said_in_digits(text))
    if line == text:
        return text
    named = _NAMED.match(line)
    rest = line[named.end() :] if named else line
    rest = re.sub(r"^(?:at\s+)?(\d{1,2})h\s*(?:,|:|\breads?\b)?\s*", r"\1h ", rest, flags=re.IGNORECASE)
    # A hole and a clock are named apart; a hole alone chooses it.
    if named is None:
        return rest.strip()
    return f"{named['hole']} {rest}".strip() if rest.strip() else f"#{named['hole']}"


def _words(text: str) -> list[str]:
    """Words, with twenty-five as two of them and signs of their own apart."""
    tens = "|".join(_TENS)
    return re.sub(rf"\b({tens})-(?=[a-z])", r"\1 ", text, flags=re.IGNORECASE).replace(",", " , ").split()


def _numbers(words: list[str]) -> Iterator[str]:
    """Give the words with each run of number words as one number; after point, digit after digit."""
    at = 0
    while at < len(words):
        number, used = _number_at(words, at)
        if used == 0:
            yield words[at]
            at += 1
            continue
        at += used
        digits, used = _decimals_at(words, at)
        at += used
        yield f"{number}.{digits}" if digits else str(number)


def _number_at(words: list[str], start: int) -> tuple[int, int]:
    """Return the whole number that begins at a word, and how many words it takes: two hundred and five."""
    value, at, last = 0, start, 0
    while at < len(words):
        word = words[at].lower()
        ones = _ONES.get(word)
        if word in _TENS and last in (0, 100):
            value, last = value + _TENS[word], 10
        elif ones is not None and (last == 0 or (last == 10 and 0 < ones < 10) or (last == 100 and ones > 0)):
            value, last = value + ones, 1
        elif word == "hundred" and (at == start or (last == 1 and value < 10)):
            value, last = max(value, 1) * 100, 100
        elif word == "and" and last == 100 and _is_number(words, at + 1):
            pass
        elif at == start and word.isdigit() and _is_number(words, at + 2) and words[at + 1].lower() == "point":
            return int(word), 1
        else:
            break
        at += 1
    return value, at - start


def _decimals_at(words: list[str], start: int) -> tuple[str, int]:
    """Return the digits said after point, and how many words they take, point with them."""
    if start >= len(words) or words[start].lower() != "point":
        return "", 0
    digits = ""
    at = start + 1
    while at < len(words):
        word = words[at].lower()
        if word.isdigit():
            digits += word
        elif _ONES.get(word, 10) < 10:
            digits += str(_ONES[word])
        else:
            break
        at += 1
    return (digits, at - start) if digits else ("", 0)


def _is_number(words: list[str], at: int) -> bool:
    return at < len(words) and (words[at].lower() in _ONES or words[at].lower() in _TENS or words[at].isdigit())


def _with_parts(text: str) -> str:
    """Three eighths and 1 and three quarters as fractions; tenths stay the unit that they are."""
    for word, bottom in _PARTS.items():
        text = re.sub(rf"\b(\d+) and (\d+) {word}s?\b", rf"\1 \2/{bottom}", text, flags=re.IGNORECASE)
        text = re.sub(rf"\b(\d+) {word}s?\b", rf"\1/{bottom}", text, flags=re.IGNORECASE)
    return text.replace(" ,", ",")
