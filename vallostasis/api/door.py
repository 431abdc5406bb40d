"""Who is let in, as what: asked before anything of a request's body is read."""

import time
from collections.abc import Callable
from dataclasses import dataclass
from datetime import timedelta
from typing import NoReturn

import psycopg
from fastapi import Depends, Request, Response
from psycopg_pool import PoolTimeout
from starlette.concurrency import run_in_threadpool
from starlette.types import ASGIApp, Receive, Scope, Send

from vallostasis.api.errors import NotAdmitted, error_response
from vallostasis.core.records.roles import Role, lesser
from vallostasis.machine.addresses import reached_at
from vallostasis.services import pairing, reader_links, sign_ins
from vallostasis.settings import Settings, is_loopback
from vallostasis.store import passwords, security_log
from vallostasis.store.pairing import PairedDevice
from vallostasis.store.passwords import SignedIn
from vallostasis.store.reader_links import ReaderLink
from vallostasis.store.rows import Conn
from vallostasis.store.security_log import SecurityKind

COOKIE = "vallo-session"
PERSON_COOKIE = "vallo-person"
READER_COOKIE = "vallo-reader"
THIS_MACHINE = "this machine"
NOT_PAIRED = "This device is not paired: scan the code shown on a paired screen, or type it here."
NOT_SIGNED_IN = "Say who you are: sign in with your name and password."
THE_OWNERS = "That is the owner's: do it at the machine itself, or sign in as an owner."
ONE_PROOF = "This link shows one proof and nothing else."
# What a device that is not let in may bring: a code, or the token of a link.
BRINGS_A_KEY = frozenset({"/api/network/devices", "/api/network/readers"})
# What somebody at a device that is let in may do before signing in.
TO_SIGN_IN = frozenset({"/api/sign-in", "/api/sign-out"})


@dataclass(frozen=True, slots=True)
class Admitted:
    """Whoever asks: at which paired device (none at the machine itself), who is signed in, or by which link."""

    role: Role
    device: PairedDevice | None = None
    person: SignedIn | None = None
    link: ReaderLink | None = None


def at_this_machine(request: Request) -> bool:
    """Whether a request comes from the machine itself, over loopback and through no proxy."""
    forwarded = "x-forwarded-for" in request.headers or "forwarded" in request.headers
    return not forwarded and request.client is not None and is_loopback(request.client.host)


class NobodySignsIn:
    """Remembers for a moment that nobody has a password: a bench that takes a reading does not wait to be told so."""

    FOR_S = 1.0

    def __init__(self, clock: Callable[[], float] = time.monotonic) -> None:
        self._clock = clock
        self._until = 0.0

    def note(self, is_asked: bool) -> None:
        """Remember what the database said, or that a password was set."""
        self._until = 0.0 if is_asked else self._clock() + self.FOR_S

    @property
    def is_sure(self) -> bool:
        """Whether it was said so a moment ago."""
        return self._clock() < self._until


def device_asking(request: Request, conn: Conn) -> PairedDevice | None:
    """Return the paired device behind a request; None at the machine itself, and where none is asked for."""
    settings: Settings = request.app.state.settings
    if not settings.pairing or at_this_machine(request):
        return None
    return pairing.device_of(conn, request.cookies.get(COOKIE, ""))


def is_inside(request: Request, device: PairedDevice | None) -> bool:
    """Whether a request comes from the machine itself, or from a device that is let in."""
    settings: Settings = request.app.state.settings
    return not settings.pairing or at_this_machine(request) or device is not None


def who_asks(request: Request, conn: Conn) -> Admitted:
    """Say who is behind a request, and what they may do.

    Raises
    ------
    NotAdmitted
        If the device was not paired, or nobody signed in where the shop wants it.
    """
    device = device_asking(request, conn)
    if not is_inside(request, device):
        link = reader_links.link_of(conn, request.cookies.get(READER_COOKIE, ""))
        if link is None:
            raise NotAdmitted(401, "not paired", NOT_PAIRED)
        return Admitted(Role.READER, link=link)
    role = Role.OWNER if device is None else Role(device.role)
    is_asked = passwords.is_asked(conn)
    request.app.state.nobody_signs_in.note(is_asked)
    if not is_asked:
        return Admitted(role, device)
    person = sign_ins.signed_in(conn, request.cookies.get(PERSON_COOKIE, ""))
    if person is not None:
        return Admitted(lesser(role, Role(person.role)), device, person)
    if request.url.path in TO_SIGN_IN:
        return Admitted(Role.MACHINIST, device)
    raise NotAdmitted(401, "not signed in", NOT_SIGNED_IN)


def _refuse_what_a_reader_may_not(request: Request, link: ReaderLink) -> None:
    if request.method != "GET" or request.url.path not in ("/api/reading", f"/api/jobs/{link.job_id}/proof.html"):
        raise NotAdmitted(403, "not yours", ONE_PROOF)


async def let_in(request: Request) -> None:
    """Refuse whoever is not let in; remember for this request who it is."""
    settings: Settings = request.app.state.settings
    if (not settings.pairing or at_this_machine(request)) and request.app.state.nobody_signs_in.is_sure:
        request.state.admitted = Admitted(Role.OWNER)
        return

    def ask() -> Admitted:
        with request.app.state.pool.connection() as conn:
            return who_asks(request, conn)

    admitted = await run_in_threadpool(ask)
    if admitted.link is not None:
        _refuse_what_a_reader_may_not(request, admitted.link)
    request.state.admitted = admitted


async def _let_in_once(request: Request) -> None:
    """Let in, asked about already where something was brought; who is signed in records under no other name."""
    if getattr(request.state, "admitted", None) is None:
        await let_in(request)
    person = admitted(request).person
    if person is not None:
        await _refuse_another_name(request, person)


async def _refuse_another_name(request: Request, person: SignedIn) -> None:
    named = [request.query_params.get("person_id"), await _named_in_the_body(request)]
    if any(isinstance(one, str) and one.lower() != str(person.person_id) for one in named):
        words = f"{person.name} is signed in: sign out first, then whoever it is signs in."
        raise NotAdmitted(403, "not yours", words)


async def _named_in_the_body(request: Request) -> object:
    """Whoever a body names, however it says that it is written: the endpoint reads it in more than one way."""
    kind = request.headers.get("content-type", "").casefold()
    if kind.startswith(("multipart/form-data", "application/x-www-form-urlencoded")):
        return (await request.form()).get("person_id")
    try:
        body = await request.json()
    except (ValueError, RecursionError):
        # Whoever reads the body says what is wrong with it.
        return None
    return body.get("person_id") if isinstance(body, dict) else None


class AdmittedFirst:
    """Asks who it is before anything of a request's body is read."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Pass the request on, or answer 401 or 403."""
        brings = scope["type"] == "http" and scope["method"] not in ("GET", "HEAD", "OPTIONS")
        if brings and scope["path"].startswith("/api") and scope["path"] not in BRINGS_A_KEY:
            try:
                await let_in(Request(scope))
            except NotAdmitted as refused:
                await error_response(refused.status, refused.code, str(refused))(scope, receive, send)
                return
            except (psycopg.Error, PoolTimeout):
                # Whoever answers below says how the database stands.
                pass
        await self.app(scope, receive, send)


def admitted(request: Request) -> Admitted:
    """Who is behind a request that was let in."""
    found: Admitted = request.state.admitted
    return found


def _owners_only(request: Request) -> None:
    if admitted(request).role is not Role.OWNER:
        refuse_for_the_owner(request)


def refuse_for_the_owner(request: Request) -> NoReturn:
    """Refuse what is the owner's, and keep on record that it was tried: in a transaction of its own."""
    with request.app.state.pool.connection() as conn:
        words = f"{request.method} {request.url.path}, at {by_whom(request)}"
        security_log.note(conn, SecurityKind.REFUSED, words, address_of(request))
    raise NotAdmitted(403, "not yours", THE_OWNERS)


def address_of(request: Request) -> str:
    """Return the address that a request came from."""
    return request.client.host if request.client else ""


def device_name(request: Request) -> str:
    """Name the screen that asks: as it was paired, or this machine."""
    device = admitted(request).device
    return THIS_MACHINE if device is None else device.name


def by_whom(request: Request) -> str:
    """Say where something was done, and by whom where somebody is signed in."""
    person = admitted(request).person
    return device_name(request) if person is None else f"{device_name(request)}, {person.name}"


def addresses(settings: Settings) -> list[str]:
    """Where other devices reach this application: at the proxy's name where there is one."""
    if settings.proxy_name:
        return [f"https://{settings.proxy_name}"]
    return reached_at(settings.host, settings.port, settings.scheme)


def set_key(request: Request, response: Response, cookie: str, token: str, good_for: timedelta) -> None:
    """Give a browser the token that it shows from now on: no script reads it, no other site sends it."""
    response.set_cookie(cookie, token, max_age=int(good_for.total_seconds()), httponly=True, samesite="strict",
                        secure=request.url.scheme == "https")  # fmt: skip


LetIn = Depends(_let_in_once)
OwnersOnly = Depends(_owners_only)
