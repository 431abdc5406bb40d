"""Devices on the shop's network: who is let in, pairing another one, signing out."""

from datetime import datetime
from uuid import UUID

import psycopg
from fastapi import APIRouter, Depends, Request, Response
from psycopg_pool import PoolTimeout
from pydantic import BaseModel, Field
from starlette.concurrency import run_in_threadpool
from starlette.exceptions import HTTPException
from starlette.types import ASGIApp, Receive, Scope, Send

from vallostasis.api.deps import Conn, Name, ShortText
from vallostasis.api.errors import ERROR_RESPONSES, error_response
from vallostasis.documents.qr_code import qr_svg
from vallostasis.machine.addresses import reached_at
from vallostasis.services import pairing
from vallostasis.services.pairing import Guesses
from vallostasis.services.refused import Refused
from vallostasis.settings import Settings, is_loopback
from vallostasis.store import security_log
from vallostasis.store.pairing import PairedDevice, list_devices
from vallostasis.store.security_log import SecurityKind

COOKIE = "vallo-session"
THIS_MACHINE = "this machine"


def device_asking(request: Request) -> PairedDevice | None:
    """Return the paired device behind a request, or None."""
    with request.app.state.pool.connection() as conn:
        return pairing.device_of(conn, request.cookies.get(COOKIE, ""))


def at_this_machine(request: Request) -> bool:
    """Whether a request comes from the machine itself, over loopback."""
    return request.client is not None and is_loopback(request.client.host)


NOT_PAIRED = "This device is not paired: scan the code shown on a paired screen, or type it here."


async def let_in(request: Request) -> None:
    """Refuse a device of the network that was not paired; the machine itself needs no pairing."""
    settings: Settings = request.app.state.settings
    if not settings.pairing or at_this_machine(request):
        return
    request.state.device = await run_in_threadpool(device_asking, request)
    if request.state.device is None:
        raise HTTPException(401, NOT_PAIRED)


async def _let_in_once(request: Request) -> None:
    """Refuse a device that was not paired, asked about already where it brought something."""
    if getattr(request.state, "device", None) is None:
        await let_in(request)


class PairedFirst:
    """Asks whether a device is paired before anything of its body is read."""

    # What a device that is not paired may send: its code.
    OPEN = "/api/network/devices"

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Pass the request on, or answer 401."""
        brings = scope["type"] == "http" and scope["method"] not in ("GET", "HEAD", "OPTIONS")
        if brings and scope["path"].startswith("/api") and scope["path"] != self.OPEN:
            try:
                await let_in(Request(scope))
            except HTTPException:
                await error_response(401, "not paired", NOT_PAIRED)(scope, receive, send)
                return
            except (psycopg.Error, PoolTimeout):
                # Whoever answers below says how the database stands.
                pass
        await self.app(scope, receive, send)


def address_of(request: Request) -> str:
    """Return the address that a request came from."""
    return request.client.host if request.client else ""


def device_name(request: Request) -> str:
    """Name the screen that asks: as it was paired, or this machine."""
    device: PairedDevice | None = getattr(request.state, "device", None)
    return THIS_MACHINE if device is None else device.name


LetIn = Depends(_let_in_once)
router = APIRouter(prefix="/api", tags=["pairing"], responses=ERROR_RESPONSES)


class DeviceView(BaseModel):
    """A device that is let in."""

    paired_device_id: UUID
    name: str
    paired_at: datetime
    expires_at: datetime


class NetworkView(BaseModel):
    """How this application is reached, and how the device that asks stands."""

    open: bool = Field(description="Whether other devices of the network can reach it.")
    at_this_machine: bool = Field(description="Whether the request came over loopback.")
    device: DeviceView | None = Field(description="The paired device that asks; null at the machine itself.")
    addresses: list[str] = Field(description="Where other devices reach it, empty unless let in.")


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
def read_network(request: Request) -> NetworkView:
    """Say how the application is reached and whether this device is let in; needs no pairing."""
    settings: Settings = request.app.state.settings
    device = device_asking(request) if settings.pairing and not at_this_machine(request) else None
    inside = at_this_machine(request) or device is not None
    return NetworkView(
        open=settings.pairing,
        at_this_machine=at_this_machine(request),
        device=None if device is None else _view(device),
        addresses=reached_at(settings.host, settings.port) if settings.pairing and inside else [],
    )


@router.post("/network/codes", status_code=201, dependencies=[LetIn])
def make_pairing_code(request: Request, conn: Conn) -> CodeView:
    """Make a code for one more device, shown as text and for a camera."""
    settings: Settings = request.app.state.settings
    made = pairing.make_code(conn)
    security_log.note(conn, SecurityKind.CODE_MADE, f"made at {device_name(request)}", address_of(request))
    # After the # it never leaves the browser that scanned it, and stands in no log.
    address = f"{reached_at(settings.host, settings.port)[0]}/pair#{made.code}"
    return CodeView(code=made.code, address=address, qr_svg=qr_svg(address), expires_at=made.expires_at)


@router.post("/network/devices", status_code=201)
def pair_device(body: PairBody, request: Request, conn: Conn, response: Response) -> DeviceView:
    """Let a device in by its code; it keeps a session cookie from now on."""
    of = address_of(request)
    guesses: Guesses = request.app.state.guesses
    if not guesses.may(of):
        raise HTTPException(429, "Too many codes were wrong: wait ten minutes, then take the one shown now.")
    try:
        session = pairing.open_session(conn, body.code, body.device)
    except Refused:
        guesses.wrong(of)
        _note_wrong_code(request, body.device, still=guesses.may(of))
        raise
    security_log.note(conn, SecurityKind.PAIRED, session.device.name, of)
    response.set_cookie(
        COOKIE,
        session.token,
        max_age=int(pairing.SESSION_GOOD_FOR.total_seconds()),
        httponly=True,
        samesite="strict",
    )
    return _view(session.device)


def _note_wrong_code(request: Request, device: str, *, still: bool) -> None:
    """In a transaction of its own: that of the request comes to nothing."""
    with request.app.state.pool.connection() as conn:
        security_log.note(conn, SecurityKind.WRONG_CODE, device, address_of(request))
        if not still:
            security_log.note(conn, SecurityKind.TOO_MANY, f"{device}: no more tries for now", address_of(request))


class SecurityEventView(BaseModel):
    """One thing that happened at the door."""

    kind: SecurityKind
    words: str
    address: str
    at: datetime


MOST_EVENTS = 100


@router.get("/network/log", dependencies=[LetIn])
def list_security_log(conn: Conn) -> list[SecurityEventView]:
    """Who got in, who was sent away, what was brought back, the newest first."""
    found = security_log.list_security_events(conn, MOST_EVENTS)
    return [SecurityEventView.model_validate(one, from_attributes=True) for one in found]


@router.get("/network/devices", dependencies=[LetIn])
def list_paired_devices(conn: Conn) -> list[DeviceView]:
    """Every device that is let in now."""
    return [_view(device) for device in list_devices(conn)]


@router.post("/network/devices/{paired_device_id}/sign-out", dependencies=[LetIn])
def sign_out_device(paired_device_id: UUID, request: Request, conn: Conn) -> list[DeviceView]:
    """Let a device in no longer, this one or another; returns those still let in."""
    name = next((one.name for one in list_devices(conn) if one.paired_device_id == paired_device_id), "")
    pairing.sign_out(conn, paired_device_id)
    if name:
        words = f"{name}, at {device_name(request)}"
        security_log.note(conn, SecurityKind.SIGNED_OUT, words, address_of(request))
    return [_view(device) for device in list_devices(conn)]


def _view(device: PairedDevice) -> DeviceView:
    return DeviceView(
        paired_device_id=device.paired_device_id,
        name=device.name,
        paired_at=device.paired_at,
        expires_at=device.expires_at,
    )
