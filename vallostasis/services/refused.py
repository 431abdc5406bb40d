"""A request that is understood but cannot be carried out as it stands."""

from enum import StrEnum

from vallostasis.core.errors import Suggestion


class RefusalCode(StrEnum):
    """What kind of answer the person has to give."""

    WRONG = "wrong"
    ASKS = "asks"
    READ_BEFORE = "read before"
    STALE = "stale"
    TAKEN = "taken"


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
