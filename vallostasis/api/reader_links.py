"""Links with which a customer reads one proof until a day."""

from datetime import UTC, datetime, timedelta
from uuid import UUID

from fastapi import APIRouter, Request, Response
from pydantic import BaseModel, Field

from vallostasis.api.deps import Conn, Name, ShortText
from vallostasis.api.door import READER_COOKIE, LetIn, OwnersOnly, address_of, addresses, admitted, by_whom, set_key
from vallostasis.api.errors import ERROR_RESPONSES, NotAdmitted
from vallostasis.documents.qr_code import qr_svg
from vallostasis.services import guesses, reader_links
from vallostasis.services.refused import Refused
from vallostasis.settings import Settings
from vallostasis.store import security_log
from vallostasis.store.jobs import get_job
from vallostasis.store.reader_links import ReaderLink, end_link, list_links
from vallostasis.store.rows import NotFound
from vallostasis.store.security_log import SecurityKind

router = APIRouter(prefix="/api", tags=["pairing"], responses=ERROR_RESPONSES)


class LinkBody(BaseModel):
    """Whom the link is for, and for how long."""

    job_id: UUID
    name: Name
    days: int = Field(30, ge=1, le=365)


class LinkView(BaseModel):
    """A link that stands."""

    reader_link_id: UUID
    job_id: UUID
    job_number: str
    job_name: str
    name: str
    made_at: datetime
    expires_at: datetime


class MadeLinkView(BaseModel):
    """A link as it is handed over: it is shown once."""

    link: LinkView
    address: str
    qr_svg: str


class ReaderBody(BaseModel):
    """What stands in the link."""

    token: ShortText


class ReadingView(BaseModel):
    """What a link shows, and until when."""

    job_id: UUID
    job_number: str
    job_name: str
    name: str
    expires_at: datetime


@router.get("/network/links", dependencies=[LetIn, OwnersOnly])
def list_reader_links(conn: Conn) -> list[LinkView]:
    """Every link that stands."""
    return [_view(one) for one in list_links(conn)]


@router.post("/network/links", status_code=201, dependencies=[LetIn, OwnersOnly])
def make_reader_link(body: LinkBody, request: Request, conn: Conn) -> MadeLinkView:
    """Make a link to the proof of a job; its address is told this once."""
    settings: Settings = request.app.state.settings
    if not settings.pairing:
        raise Refused(
            "Only this machine reaches Vallostasis now: start it with --host 0.0.0.0, then links can be given.",
            "job_id",
        )
    job = get_job(conn, body.job_id)
    made = reader_links.make_link(conn, job.job_id, body.name, body.days)
    words = f"{body.name}, the proof of {job.number}, {body.days} days, at {by_whom(request)}"
    security_log.note(conn, SecurityKind.LINK_MADE, words, address_of(request))
    address = f"{addresses(settings)[0]}/read#{made.token}"
    return MadeLinkView(link=_view(made.link), address=address, qr_svg=qr_svg(address))


@router.post("/network/links/{reader_link_id}/end", dependencies=[LetIn, OwnersOnly])
def end_reader_link(reader_link_id: UUID, request: Request, conn: Conn) -> list[LinkView]:
    """Let a link show nothing any longer; returns those that stand."""
    name = next((one.name for one in list_links(conn) if one.reader_link_id == reader_link_id), None)
    if name is None:
        raise NotFound("link", reader_link_id)
    end_link(conn, reader_link_id)
    security_log.note(conn, SecurityKind.LINK_ENDED, f"{name}, at {by_whom(request)}", address_of(request))
    return [_view(one) for one in list_links(conn)]


@router.post("/network/readers", status_code=201)
def open_reader_link(body: ReaderBody, request: Request, conn: Conn, response: Response) -> ReadingView:
    """Open a link in a browser: it keeps it until the link ends."""
    of = address_of(request)
    link = reader_links.link_of(conn, body.token) if guesses.may_try_a_key(conn, of) else None
    if link is None:
        # In a transaction of its own: that of the request comes to nothing.
        with request.app.state.pool.connection() as kept:
            security_log.note(kept, SecurityKind.WRONG_LINK, "no link, or one that ended", of)
        raise NotAdmitted(401, "not paired", "This link shows nothing any longer: ask the shop for another.")
    set_key(request, response, READER_COOKIE, body.token, link.expires_at - datetime.now(UTC) + timedelta(seconds=1))
    return _reading(link)


@router.get("/reading", dependencies=[LetIn])
def read_own_link(request: Request) -> ReadingView:
    """What the link shows with which this browser reads."""
    link = admitted(request).link
    if link is None:
        raise NotAdmitted(403, "not yours", "Nothing was opened here by a link.")
    return _reading(link)


def _view(link: ReaderLink) -> LinkView:
    return LinkView.model_validate(link, from_attributes=True)


def _reading(link: ReaderLink) -> ReadingView:
    return ReadingView.model_validate(link, from_attributes=True)
