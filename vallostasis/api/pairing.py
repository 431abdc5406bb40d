"""Devices on the shop's network: who is let in, pairing another one, signing out."""

from datetime import datetime
from typing import Literal
from uuid import UUID

from fastapi import APIRouter, Request, Response
from pydantic import BaseModel, Field
from starlette.exceptions import HTTPException

from vallostasis.api.deps import Conn, Name, ShortText
from vallostasis.api.door import (
    COOKIE,
    LetIn,
    OwnersOnly,
    address_of,
    addresses,
    admitted,
    at_this_machine,
    by_whom,
    device_asking,
    is_inside,
    refuse_for_the_owner,
    set_key,
    who_asks,
)
from vallostasis.api.errors import ERROR_RESPONSES, NotAdmitted
from vallostasis.core.records.roles import Role
from vallostasis.documents.qr_code import qr_svg
from vallostasis.services import guesses, pairing
from vallostasis.services.refused import Refused
from vallostasis.settings import Settings
from vallostasis.store import passwords, security_log
from vallostasis.store.pairing import PairedDevice, list_devices
from vallostasis.store.security_log import SecurityKind

router = APIRouter(prefix="/api", tags=["pairing"], responses=ERROR_RESPONSES)


class DeviceView(BaseModel):
    """A device that is let in."""

    paired_device_id: UUID
    name: str
    role: Role
    paired_at: datetime
    expires_at: datetime


class SignInView(BaseModel):
    """Somebody who can sign in."""

    person_id: UUID
    name: str


class NetworkView(BaseModel):
    """How this application is reached, and how the device that asks stands."""

    open: bool = Field(description="Whether other devices of the network can reach it.")
    at_this_machine: bool = Field(description="Whether the request came over loopback.")
    device: DeviceView | None = Field(description="The paired device that asks; null at the machine itself.")
    addresses: list[str] = Field(description="Where other devices reach it, empty unless let in.")
    role: Role | None = Field(description="What whoever asks may do; null where nobody is let in yet.")
    sign_in: list[SignInView] = Field(description="Who can sign in here: empty where the shop does not want it.")
    person: SignInView | None = Field(description="Who is signed in.")
    fingerprint: str = Field(description="SHA-256 of our own certificate, empty where there is none.")


class CodeView(BaseModel):
    """A code that lets one device in."""

    code: str
    address: str = Field(description="Address with the code in it, for the browser of the other device.")
    qr_svg: str
    expires_at: datetime


class PairBody(BaseModel):
    """The code as typed or scanned, and what to call the device."""

    code: ShortText
    device: Name


@router.get("/network")
def read_network(request: Request, conn: Conn) -> NetworkView:
    """Say how the application is reached and as what whoever asks is let in; needs no pairing."""
    settings: Settings = request.app.state.settings
    device = device_asking(request, conn)
    inside = is_inside(request, device)
    # At a device that is let in, everybody who can sign in is named.
    can = passwords.list_passwords(conn) if inside else ()
    try:
        who = who_asks(request, conn)
    except NotAdmitted:
        who = None
    person = None if who is None else who.person
    return NetworkView(
        open=settings.pairing,
        at_this_machine=at_this_machine(request),
        device=None if device is None else _view(device),
        addresses=addresses(settings) if settings.pairing and inside else [],
        role=None if who is None else who.role,
        sign_in=[SignInView(person_id=one.person_id, name=one.name) for one in can],
        person=None if person is None else SignInView(person_id=person.person_id, name=person.name),
        fingerprint=request.app.state.fingerprint if inside else "",
    )


class CodeBody(BaseModel):
    """What the device may do that the code lets in."""

    role: Literal["owner", "machinist"] = "machinist"


@router.post("/network/codes", status_code=201, dependencies=[LetIn, OwnersOnly])
def make_pairing_code(request: Request, conn: Conn, body: CodeBody | None = None) -> CodeView:
    """Make a code for one more device, shown as text and for a camera."""
    settings: Settings = request.app.state.settings
    role = Role((body or CodeBody()).role)
    made = pairing.make_code(conn, role)
    words = f"for {'an owner' if role is Role.OWNER else 'a machinist'}, made at {by_whom(request)}"
    security_log.note(conn, SecurityKind.CODE_MADE, words, address_of(request))
    # After the # it never leaves the browser that scanned it, and stands in no log.
    fingerprint = request.app.state.fingerprint
    address = f"{addresses(settings)[0]}/pair#{made.code}{f'.{fingerprint}' if fingerprint else ''}"
    return CodeView(code=made.code, address=address, qr_svg=qr_svg(address), expires_at=made.expires_at)


@router.post("/network/devices", status_code=201)
def pair_device(body: PairBody, request: Request, conn: Conn, response: Response) -> DeviceView:
    """Let a device in by its code; it keeps a session cookie from now on."""
    of = address_of(request)
    if not guesses.may_try_a_key(conn, of):
        raise HTTPException(429, "Too many codes were wrong: wait ten minutes, then take the one shown now.")
    try:
        session = pairing.open_session(conn, body.code, body.device)
    except Refused:
        _note_wrong_code(request, body.device)
        raise
    security_log.note(conn, SecurityKind.PAIRED, f"{session.device.name}, {session.device.role}", of)
    set_key(request, response, COOKIE, session.token, pairing.SESSION_GOOD_FOR)
    return _view(session.device)


def _note_wrong_code(request: Request, device: str) -> None:
    """In a transaction of its own: that of the request comes to nothing."""
    with request.app.state.pool.connection() as conn:
        security_log.note(conn, SecurityKind.WRONG_CODE, device, address_of(request))
        if not guesses.may_try_a_key(conn, address_of(request)):
            security_log.note(conn, SecurityKind.TOO_MANY, f"{device}: no more tries for now", address_of(request))


class SecurityEventView(BaseModel):
    """One thing that happened at the door."""

    kind: SecurityKind
    words: str
    address: str
    at: datetime


MOST_EVENTS = 100


@router.get("/network/log", dependencies=[LetIn, OwnersOnly])
def list_security_log(conn: Conn) -> list[SecurityEventView]:
    """Who got in, who was sent away, what was brought back, the newest first."""
    found = security_log.list_security_events(conn, MOST_EVENTS)
    return [SecurityEventView.model_validate(one, from_attributes=True) for one in found]


@router.get("/network/devices", dependencies=[LetIn, OwnersOnly])
def list_paired_devices(conn: Conn) -> list[DeviceView]:
    """Every device that is let in now."""
    return [_view(device) for device in list_devices(conn)]


@router.post("/network/devices/{paired_device_id}/sign-out", dependencies=[LetIn])
def sign_out_device(paired_device_id: UUID, request: Request, conn: Conn) -> list[DeviceView]:
    """Let a device in no longer, this one or, for an owner, another; returns those still let in."""
    who = admitted(request)
    is_own = who.device is not None and who.device.paired_device_id == paired_device_id
    if not is_own and who.role is not Role.OWNER:
        refuse_for_the_owner(request)
    name = next((one.name for one in list_devices(conn) if one.paired_device_id == paired_device_id), "")
    pairing.sign_out(conn, paired_device_id)
    if name:
        security_log.note(conn, SecurityKind.SIGNED_OUT, f"{name}, at {by_whom(request)}", address_of(request))
    return [_view(device) for device in list_devices(conn)] if who.role is Role.OWNER else []


def _view(device: PairedDevice) -> DeviceView:
    return DeviceView(
        paired_device_id=device.paired_device_id,
        name=device.name,
        role=device.role,
        paired_at=device.paired_at,
        expires_at=device.expires_at,
    )
