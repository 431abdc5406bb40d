"""One shape for everything that is refused, whatever refused it."""

import logging
from collections.abc import Sequence
from typing import Any

import psycopg
from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from psycopg_pool import PoolTimeout
from pydantic import BaseModel, Field
from starlette.exceptions import HTTPException

from vallostasis.core.errors import CoreError, NotationError, OutOfDomain, Suggestion
from vallostasis.documents.not_read import NotRead
from vallostasis.documents.pdf_printer import NotPrinted
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.store.rows import NotFound
from vallostasis.store.watch import Standing, standing_of

log = logging.getLogger("vallostasis")


class NotAdmitted(Exception):
    """Whoever asks is not let in, or may not do that."""

    def __init__(self, status: int, code: str, message: str) -> None:
        super().__init__(message)
        self.status, self.code = status, code


class Problem(BaseModel):
    """What is wrong at one field; the field is a dotted path."""

    field: str
    message: str


class SuggestedText(BaseModel):
    """One answer to a question: words to show, text to send, and whether to send it as confirmed."""

    label: str
    text: str
    confirm: bool


class ErrorBody(BaseModel):
    """Why a request was not carried out, and what would help."""

    code: str = Field(
        description="wrong, not paired, not signed in, not yours, asks, read before, stale, taken, not found, "
        "too large, too slow, too often, not printed, unavailable"
    )
    message: str
    problems: list[Problem]
    suggestions: list[SuggestedText]


ERROR_RESPONSES: dict[int | str, dict[str, Any]] = {
    status: {"model": ErrorBody, "description": what}
    for status, what in {
        400: "The body of the request cannot be read.",
        401: "This device is not paired, or nobody is signed in.",
        403: "The request does not come from our own pages, or somebody else may do it.",
        404: "There is no such thing.",
        409: "It cannot be done as things stand; the message asks back.",
        413: "The request is too large.",
        422: "Something in the request has to be put right.",
        503: "The database cannot be reached.",
    }.items()
}

_WORDS: dict[str, str] = {
    "missing": "This is needed: fill it in.",
    "uuid_parsing": "This is no id: take it from a list.",
    "string_too_long": "Too long: type at most {max_length} characters.",
    "string_too_short": "This is needed: fill it in.",
    "string_type": "Type text here.",
    "string_pattern_mismatch": "A character here cannot be kept: type the text again.",
    "greater_than": "This must be above {gt}.",
    "greater_than_equal": "This must be at least {ge}.",
    "less_than": "This must be below {lt}.",
    "less_than_equal": "This must be at most {le}.",
    "finite_number": "This must be a finite number.",
    "float_parsing": "Type a number here.",
    "int_parsing": "Type a whole number here.",
    "int_from_float": "Type a whole number here.",
    "decimal_parsing": "Type a number here.",
    "bool_parsing": "Answer true or false here.",
    "json_invalid": "The request is no JSON: {error}.",
    "enum": "Choose one of: {expected}.",
    "literal_error": "Choose one of: {expected}.",
    "too_short": "At least {min_length} needed here.",
    "too_long": "At most {max_length} here.",
}


def error_response(
    status: int,
    code: str,
    message: str,
    problems: Sequence[tuple[str, str]] = (),
    suggestions: Sequence[Suggestion] = (),
) -> JSONResponse:
    """Build an answer in the one error shape."""
    body = ErrorBody(
        code=code,
        message=message,
        problems=[Problem(field=field, message=text) for field, text in problems],
        suggestions=[SuggestedText(label=s.label, text=s.text, confirm=s.confirm) for s in suggestions],
    )
    return JSONResponse(body.model_dump(), status_code=status)


def _field_problem(error: dict[str, Any]) -> tuple[str, str]:
    place = [str(part) for part in error["loc"] if part not in ("body", "query", "path")]
    words = _WORDS.get(error["type"])
    context = {key: value for key, value in (error.get("ctx") or {}).items()}
    message = words.format(**context) if words else f"{error['msg'].removeprefix('Value error, ').rstrip('.')}."
    return ".".join(place), message


def install_error_handlers(app: FastAPI) -> None:
    """Answer every refusal in the one shape."""
    _of_the_core_and_services(app)
    _of_http(app)
    _of_the_database(app)

    @app.exception_handler(Exception)
    def broken(_: Request, error: Exception) -> JSONResponse:
        log.error("unexpected error", exc_info=error)
        return error_response(500, "broken", "Something is wrong in the application: it is written in its log.")


def _of_the_core_and_services(app: FastAPI) -> None:
    @app.exception_handler(NotPrinted)
    def not_printed(_: Request, error: NotPrinted) -> JSONResponse:
        return error_response(503, "not printed", str(error))

    @app.exception_handler(NotRead)
    def not_read(_: Request, error: NotRead) -> JSONResponse:
        return error_response(422, "wrong", str(error), [("file", str(error))])

    @app.exception_handler(NotationError)
    def not_understood(_: Request, error: NotationError) -> JSONResponse:
        code = RefusalCode.ASKS if error.suggestions else RefusalCode.WRONG
        return error_response(422, code.value, str(error), [(error.field, str(error))], error.suggestions)

    @app.exception_handler(OutOfDomain)
    def out_of_domain(_: Request, error: OutOfDomain) -> JSONResponse:
        return error_response(422, "wrong", str(error), [(error.quantity, str(error))])

    @app.exception_handler(CoreError)
    def core_refused(_: Request, error: CoreError) -> JSONResponse:
        return error_response(422, "wrong", str(error))

    @app.exception_handler(Refused)
    def refused(_: Request, error: Refused) -> JSONResponse:
        status = 422 if error.code is RefusalCode.WRONG else 409
        return error_response(status, error.code.value, str(error), error.problems, error.suggestions)

    @app.exception_handler(NotFound)
    def not_found(_: Request, error: NotFound) -> JSONResponse:
        return error_response(404, "not found", str(error))


def _of_http(app: FastAPI) -> None:
    @app.exception_handler(RequestValidationError)
    def not_valid(_: Request, error: RequestValidationError) -> JSONResponse:
        problems = [_field_problem(dict(problem)) for problem in error.errors()]
        first = problems[0] if problems else ("", "The request is not understood.")
        message = f"{first[0]}: {first[1]}" if first[0] else first[1]
        return error_response(422, "wrong", message, problems)

    @app.exception_handler(NotAdmitted)
    def not_admitted(_: Request, error: NotAdmitted) -> JSONResponse:
        return error_response(error.status, error.code, str(error))

    @app.exception_handler(HTTPException)
    def http_refused(request: Request, error: HTTPException) -> JSONResponse:
        codes = {404: "not found", 405: "wrong", 413: "too large", 429: "too often"}
        words = {
            400: "The body of the request cannot be read: send JSON in UTF-8, or a form with its boundary.",
            404: f"There is nothing at {request.url.path}.",
            405: "That cannot be done at this address.",
        }
        return error_response(
            error.status_code, codes.get(error.status_code, "wrong"), words.get(error.status_code, str(error.detail))
        )


def _of_the_database(app: FastAPI) -> None:
    @app.exception_handler(psycopg.errors.UniqueViolation)
    def taken(_: Request, error: psycopg.errors.UniqueViolation) -> JSONResponse:
        return error_response(409, "taken", f"That is there already: {error.diag.message_detail or 'choose another'}.")

    @app.exception_handler(psycopg.errors.ForeignKeyViolation)
    def named_but_not_there(_: Request, error: psycopg.errors.ForeignKeyViolation) -> JSONResponse:
        # The detail ends: … is not present in table "person".
        what = (error.diag.message_detail or "").rstrip('".').rpartition('"')[2] or "row"
        message = f"There is no {what.replace('_', ' ')} with that id: choose one from the list."
        return error_response(404, "not found", message, [(f"{what}_id", message)])

    @app.exception_handler(psycopg.DataError)
    def not_storable(_: Request, error: psycopg.DataError) -> JSONResponse:
        return error_response(422, "wrong", "A value in the request cannot be kept: type it again.")

    @app.exception_handler(psycopg.errors.CheckViolation)
    def out_of_bounds(_: Request, error: psycopg.errors.CheckViolation) -> JSONResponse:
        # Where it is kept a number is rounded: a clock position of 0.001 h would be none.
        return error_response(422, "wrong", "A value in the request lies outside what can be kept: type it again.")

    @app.exception_handler(psycopg.InternalError)
    def database_broken(_: Request, error: psycopg.InternalError) -> JSONResponse:
        return _unavailable(error, standing_of(error))

    @app.exception_handler(psycopg.OperationalError)
    def database_away(_: Request, error: psycopg.OperationalError) -> JSONResponse:
        return _unavailable(error, standing_of(error))

    @app.exception_handler(PoolTimeout)
    def no_connection(request: Request, error: PoolTimeout) -> JSONResponse:
        # None is free in time: too many are at it, or there is none to be had.
        standing: Standing = request.app.state.watch.standing
        return _unavailable(error, Standing.BUSY if standing is Standing.UP else standing)


NOT_RECORDED = "nothing was recorded: keep what you typed and try again"
STANDING_WORDS = {
    Standing.UP: f"The database could not do that, {NOT_RECORDED}.",
    Standing.BUSY: f"The database is busy with something else, {NOT_RECORDED} in a moment.",
    Standing.FULL: f"The disk of the database is full, {NOT_RECORDED} once there is room on it.",
    Standing.STOPPED: f"The database is stopped or just starting, {NOT_RECORDED} when it runs.",
    Standing.UNREACHABLE: f"The database cannot be reached, {NOT_RECORDED} when it answers.",
}


def _unavailable(error: Exception, standing: Standing) -> JSONResponse:
    log.warning("database %s: %s", standing, error)
    return error_response(503, "unavailable", STANDING_WORDS[standing])
