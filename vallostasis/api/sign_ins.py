"""Signing in by name and password, where the shop wants it; who has one, and as what."""

from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from fastapi import APIRouter, Request, Response
from pydantic import BaseModel, StringConstraints
from starlette.exceptions import HTTPException

from vallostasis.api.deps import Conn
from vallostasis.api.door import PERSON_COOKIE, LetIn, OwnersOnly, address_of, admitted, by_whom, device_name, set_key
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.core.records.roles import Role
from vallostasis.services import guesses, sign_ins
from vallostasis.services.refused import Refused
from vallostasis.store import passwords, people, security_log
from vallostasis.store.security_log import SecurityKind

router = APIRouter(prefix="/api", tags=["pairing"], responses=ERROR_RESPONSES, dependencies=[LetIn])
PasswordText = Annotated[str, StringConstraints(max_length=200, pattern=r"^[^\x00-\x1f\x7f]*$")]


class PasswordBody(BaseModel):
    """A person, what they may do, and the password; an empty one takes it away."""

    of: UUID
    role: Literal["owner", "machinist"] = "machinist"
    password: PasswordText


class PasswordView(BaseModel):
    """Somebody who has a password, and may do what."""

    person_id: UUID
    name: str
    role: Role
    set_at: datetime


class SignInBody(BaseModel):
    """Who it is."""

    of: UUID
    password: PasswordText


class OwnPasswordBody(BaseModel):
    """The password of whoever is signed in, and the one to take from now on."""

    present: PasswordText
    password: PasswordText


class SignedInView(BaseModel):
    """Who is signed in now."""

    name: str


@router.get("/passwords", dependencies=[OwnersOnly])
def list_passwords(conn: Conn) -> list[PasswordView]:
    """Everybody who has a password."""
    return [
        PasswordView(person_id=one.person_id, name=one.name, role=one.role, set_at=one.set_at)
        for one in passwords.list_passwords(conn)
    ]


@router.post("/passwords", dependencies=[OwnersOnly])
def set_password(body: PasswordBody, request: Request, conn: Conn, response: Response) -> list[PasswordView]:
    """Give somebody a password, or take it away: from the first one on, whoever comes in signs in."""
    name = people.get_person(conn, body.of).name
    is_first = not passwords.is_asked(conn)
    request.app.state.nobody_signs_in.note(is_asked=True)
    if body.password == "":
        sign_ins.take_password_away(conn, body.of)
        security_log.note(conn, SecurityKind.PASSWORD_TAKEN, f"{name}, at {by_whom(request)}", address_of(request))
    else:
        sign_ins.set_password(conn, body.of, Role(body.role), body.password)
        words = f"{name}, {body.role}, at {by_whom(request)}"
        security_log.note(conn, SecurityKind.PASSWORD_SET, words, address_of(request))
        person = admitted(request).person
        # Whoever sets the first one, or their own anew, goes on without signing in again.
        if is_first or (person is not None and person.person_id == body.of):
            _keep_signed_in(request, response, sign_ins.sign_in(conn, body.of, body.password))
    return list_passwords(conn)


@router.post("/passwords/own")
def change_own_password(
    body: OwnPasswordBody, request: Request, conn: Conn, response: Response
) -> SignedInView:  # fmt: skip
    """Take another password, for whoever is signed in and knows the present one."""
    person = admitted(request).person
    if person is None:
        raise Refused("Nobody is signed in here: an owner gives passwords under Gauges and people.", "present")
    _refuse_guesses(request, conn, person.name)
    try:
        sign_ins.sign_in(conn, person.person_id, body.present)
    except Refused:
        _note_wrong_password(request, person.name)
        raise Refused("That is not the present password.", "present") from None
    sign_ins.set_password(conn, person.person_id, Role(person.role), body.password)
    security_log.note(conn, SecurityKind.PASSWORD_SET, f"{person.name}, their own", address_of(request))
    _keep_signed_in(request, response, sign_ins.sign_in(conn, person.person_id, body.password))
    return SignedInView(name=person.name)


@router.post("/sign-in")
def sign_in(body: SignInBody, request: Request, conn: Conn, response: Response) -> SignedInView:
    """Sign somebody in at this device, for a shift."""
    name = next((one.name for one in passwords.list_passwords(conn) if one.person_id == body.of), "somebody unknown")
    _refuse_guesses(request, conn, name)
    try:
        token = sign_ins.sign_in(conn, body.of, body.password)
    except Refused:
        _note_wrong_password(request, name)
        raise
    security_log.note(conn, SecurityKind.SIGNED_IN, f"{name}, at {device_name(request)}", address_of(request))
    _keep_signed_in(request, response, token)
    return SignedInView(name=name)


@router.post("/sign-out")
def sign_out(request: Request, conn: Conn, response: Response) -> SignedInView:
    """Sign whoever is signed in here out; the device stays let in."""
    person = admitted(request).person
    if person is not None:
        passwords.end_signed_in(conn, person.signed_in_id)
        words = f"{person.name}, at {device_name(request)}"
        security_log.note(conn, SecurityKind.SIGNED_OUT, words, address_of(request))
    response.delete_cookie(PERSON_COOKIE)
    return SignedInView(name="")


def _keep_signed_in(request: Request, response: Response, token: str) -> None:
    set_key(request, response, PERSON_COOKIE, token, sign_ins.SIGNED_IN_FOR)


def _refuse_guesses(request: Request, conn: Conn, name: str) -> None:
    if not guesses.may_try_a_password(conn, address_of(request), name):
        raise HTTPException(429, "Too many passwords were wrong: wait ten minutes, then try again.")


def _note_wrong_password(request: Request, name: str) -> None:
    """In a transaction of its own: that of the request comes to nothing."""
    with request.app.state.pool.connection() as conn:
        security_log.note(conn, SecurityKind.WRONG_PASSWORD, name, address_of(request))
        if not guesses.may_try_a_password(conn, address_of(request), name):
            words = f"{name}: no more tries for now"
            security_log.note(conn, SecurityKind.TOO_MANY_PASSWORDS, words, address_of(request))
