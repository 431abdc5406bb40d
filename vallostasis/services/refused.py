"""A request that is understood but cannot be carried out as it stands."""

from collections.abc import Iterator
from contextlib import contextmanager
from enum import StrEnum

from vallostasis.core.errors import NotationError, Suggestion


class RefusalCode(StrEnum):
    """What kind of answer the person has to give."""

    WRONG = "wrong"
    ASKS = "asks"
    READ_BEFORE = "read before"
    STALE = "stale"
    TAKEN = "taken"
    HOLD = "hold point"


class Refused(Exception):
    """Says what is wrong at which field, and offers the answers that would help."""

    def __init__(
        self,
        message: str,
        field: str = "",
        code: RefusalCode = RefusalCode.WRONG,
        suggestions: tuple[Suggestion, ...] = (),
        problems: tuple[tuple[str, str], ...] = (),
    ) -> None:
        super().__init__(message)
        self.field = field
        self.code = code
        self.suggestions = suggestions
        self.problems = problems or (((field, message),) if field else ())


@contextmanager
def typed_at(field: str) -> Iterator[None]:
    """Name the field in which a notation that is not understood was typed."""
    try:
        yield
    except NotationError as error:
        error.field = field
        raise


def version_after(newest: int, based_on: int, name: str) -> int:
    """Return the version to save, or refuse where somebody saved one since."""
    if newest != based_on:
        raise Refused(
            f"Version {newest} of {name} was saved meanwhile: look at it, then save yours on top.",
            "based_on_version",
            RefusalCode.STALE,
        )
    return newest + 1
