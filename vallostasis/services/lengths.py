"""Lengths typed into forms: read at their field, and asked about where a common slip explains them."""

from vallostasis.core.notation.lengths import Unit
from vallostasis.core.notation.typed_lengths import ExpectedRange, ParsedLength, parse_length
from vallostasis.services.refused import typed_at


def read_usual(field: str, text: str, bare_unit: Unit, usual: ExpectedRange | None, confirmed: bool) -> ParsedLength:
    """Read a length at its field; one that is not usual there is asked about, unless that was answered."""
    with typed_at(field):
        return parse_length(text, bare_unit, usual, confirmed)
