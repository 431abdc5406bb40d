"""The arithmetic behind an answer, step by step, so that "why" can always be opened.

Values stay SI; whoever shows a step formats them in the unit chosen at that moment.
"""

from dataclasses import dataclass
from typing import Literal

Kind = Literal["small", "within", "size", "angle", "count", "share"]


@dataclass(frozen=True, slots=True)
class Term:
    """One number of a step.

    ``kind`` says how it is shown: a small length [m], an expanded uncertainty [m]
    (``within``, rounded up), a size [m], an angle [deg], a count, a share [1].
    """

    symbol: str
    value: float
    kind: Kind = "small"
    note: str = ""


@dataclass(frozen=True, slots=True)
class Step:
    """One line of arithmetic: what it is, its formula, the numbers filled in, where it comes from."""

    what: str
    formula: str
    terms: tuple[Term, ...]
    result: Term
    source: str = ""


@dataclass(frozen=True, slots=True)
class Phrase:
    """A sentence with numbers in it: each ``{symbol}`` in the text stands for the term of that symbol."""

    text: str
    terms: tuple[Term, ...] = ()
