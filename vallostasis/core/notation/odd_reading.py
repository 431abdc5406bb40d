"""A second look at a reading that does not fit its set: slips of sign, point and digits."""

import itertools
from decimal import Decimal

from vallostasis.core.errors import NotationError, Suggestion
from vallostasis.core.notation.typed_lengths import ParsedLength


def ask_if_odd(parsed: ParsedLength, others_um: tuple[Decimal, ...], tolerance_um: Decimal) -> None:
    """Ask about a reading that stands far from its set where a common slip would explain it.

    Parameters
    ----------
    parsed : ParsedLength
        The reading as typed. [µm]
    others_um : tuple of Decimal
        Unstruck readings of the same set. [µm]
    tolerance_um : Decimal
        How far from the nearest of them a reading may stand without being asked about. [µm]

    Raises
    ------
    NotationError
        Asking "did you mean" with the likelier reading, and with "as typed".

    Notes
    -----
    Slips looked for: lost sign, decimal point moved by one, two digits exchanged. A reading that
    none of them explains is taken as it is. Needs two other readings to know what is usual.
    Common practice, no published source.
    """
    if len(others_um) < 2 or _near(parsed.value_um, others_um, tolerance_um):
        return
    scale = parsed.value_um / parsed.number if parsed.number else Decimal(1)
    slips = [
        ("the sign", -parsed.number),
        ("the decimal point", parsed.number / 10),
        ("the decimal point", parsed.number * 10),
        *(("two digits", n) for n in _swapped(parsed.number)),
    ]
    for what, number in slips:
        if _near(number * scale, others_um, tolerance_um):
            text = _typed_again(number, parsed)
            raise NotationError(
                f"{parsed.typed} stands far from the other readings of this hole: is it a slip of {what}?",
                parsed.typed,
                (Suggestion(text, text), Suggestion(f"{parsed.typed}, as typed", parsed.typed, confirm=True)),
            )


def _typed_again(number: Decimal, parsed: ParsedLength) -> str:
    if parsed.unit == "0.01 mm":
        return f"{format((number / 100).normalize(), 'f')} mm"
    return f"{format(number.normalize(), 'f')} {parsed.unit}"


def _near(value_um: Decimal, others_um: tuple[Decimal, ...], tolerance_um: Decimal) -> bool:
    return min(abs(value_um - other) for other in others_um) <= tolerance_um


def _swapped(number: Decimal) -> list[Decimal]:
    """All numbers that come from exchanging two neighbouring digits."""
    text = format(number, "f")
    places = [i for i, character in enumerate(text) if character.isdigit()]
    swapped = []
    for first, second in itertools.pairwise(places):
        characters = list(text)
        characters[first], characters[second] = characters[second], characters[first]
        swapped.append(Decimal("".join(characters)))
    return swapped
