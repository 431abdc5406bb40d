"""A hundred thousand strings: each is a length or is refused with a reason; no unit is ever guessed in silence."""

import random
import string

from vallostasis.core.errors import CoreError, NotationError
from vallostasis.core.notation.entry_line import Position, parse_entry_line
from vallostasis.core.notation.lengths import MICROMETRES_PER
from vallostasis.core.notation.typed_lengths import parse_length

STRINGS = 100_000
PIECES = (
    "1", "2.5", ".0005", "7-1/16", "1/2", "1 1/2", "5/100", "3,2", "12", "0", "+", "-", "−", " ", "mm", "µm", "um",
    "thou", "tenths", "tenth", "t", "in", '"', "inch", "half a", "mil", "point", "a hair", "over", "under", "proud",
    "sunk", "6h", "h", "12h", "hole 3", "°", "e9", "nan", "inf", "٣", "½", "\t", "\x00", "/", ".", ",", "--", "1e5",
    "0x1",
)  # fmt: skip
WORDS_OF_UNIT = ("mm", "µm", "um", "thou", "tenth", "t", "in", '"', "micron")


def _string(rng: random.Random) -> str:
    if rng.random() < 0.3:
        return "".join(rng.choice(string.printable) for _ in range(rng.randrange(12)))
    return rng.choice(("", " ")).join(rng.choice(PIECES) for _ in range(rng.randrange(1, 6)))


def test_every_string_is_a_length_or_a_clear_refusal() -> None:
    rng = random.Random(26_11_26)
    taken = refused = 0
    for _ in range(STRINGS):
        text, bare = _string(rng), rng.choice(("thou", "mm", "0.01 mm", "inch"))
        try:
            parsed = parse_length(text, bare)
        except NotationError as error:
            assert str(error).strip(), text
            refused += 1
            continue
        taken += 1
        assert parsed.value_um.is_finite(), text
        assert parsed.unit in MICROMETRES_PER, text
        # A unit that was not typed is the one of the field, and is said to be.
        if not parsed.unit_was_typed:
            assert parsed.unit == bare, text
            assert not any(word in text.lower() for word in ("mm", "µm", "um", "thou", "tenth")), text
        else:
            assert any(word in text.lower() for word in WORDS_OF_UNIT) or any(
                word in text for word in ("half", "over", "under")
            ), text
    assert taken > 0.02 * STRINGS, "a parser that refused everything would pass too"
    assert refused > 0.2 * STRINGS


def test_every_entry_line_is_understood_or_refused() -> None:
    rng = random.Random(1)
    for _ in range(STRINGS // 5):
        text = _string(rng)
        try:
            line = parse_entry_line(text, Position(1, 12.0), (1, 2, 3), "thou")
        except CoreError as error:
            assert str(error).strip(), text
            continue
        assert line.position.hole in (1, 2, 3), text
        assert line.position.hour is None or 0 < line.position.hour <= 12, text
