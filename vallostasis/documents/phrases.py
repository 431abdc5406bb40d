"""A sentence of the core as it is printed: each of its numbers in the unit of the sheet."""

from vallostasis.core.notation.lengths import METRIC_UNITS, Unit, format_length, format_uncertainty
from vallostasis.core.trail import Phrase, Term


def said(phrase: Phrase, unit: Unit) -> str:
    """Write a phrase with its lengths in a unit."""
    return phrase.text.format(**{term.symbol: _term(term, unit) for term in phrase.terms})


def _term(term: Term, unit: Unit) -> str:
    if term.kind == "within":
        return format_uncertainty(term.value, unit)
    if term.kind == "size":
        size: Unit = "mm" if unit in METRIC_UNITS else "inch"
        return f"{format_length(term.value, size, signed=False)} {size}"
    if term.kind == "count":
        return f"{term.value:.0f}"
    if term.kind == "share":
        return f"{term.value:.0%}"
    return f"{term.value:.0f}°" if term.kind == "angle" else f"{format_length(term.value, unit, signed=False)} {unit}"
