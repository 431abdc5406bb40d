"""What the core refuses, and why.

Every refusal is one of these; the text is fit to be shown to the person at the bench.
"""

from dataclasses import dataclass


class CoreError(Exception):
    """Anything the core refuses."""


class OutOfDomain(CoreError):
    """A quantity has a value for which the formula does not hold."""

    def __init__(self, message: str, quantity: str = "") -> None:
        super().__init__(message)
        self.quantity = quantity


@dataclass(frozen=True, slots=True)
class Suggestion:
    """One answer to "did you mean": the words to show and the text that says it."""

    label: str
    text: str
    confirm: bool = False


class NotationError(CoreError):
    """Typed text that is no length, or more than one."""

    def __init__(self, message: str, characters: str = "", suggestions: tuple[Suggestion, ...] = ()) -> None:
        super().__init__(message)
        self.characters = characters
        self.suggestions = suggestions
        self.field = "text"


def require_finite(**quantities: float) -> None:
    """Raise OutOfDomain naming the first quantity that is not a finite number."""
    for name, value in quantities.items():
        if not abs(value) < float("inf"):
            raise OutOfDomain(f"{name} must be a finite number, it is {value}", name)


def require_not_negative(**quantities: float) -> None:
    """Raise OutOfDomain naming the first quantity that is negative or not finite."""
    require_finite(**quantities)
    for name, value in quantities.items():
        if value < 0:
            raise OutOfDomain(f"{name} must not be negative, it is {value}", name)
