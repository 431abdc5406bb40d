"""Pages that leave the house: for the owner in plain words, for another shop with sizes and what to leave alone."""

from collections.abc import Callable
from datetime import UTC, datetime
from uuid import UUID

from vallostasis.core.boring.faces_kept import faces_kept
from vallostasis.core.calendar.of_jobs import promise_of
from vallostasis.core.orders.now import orders_of
from vallostasis.core.protrusion.measured import judge_job
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.orders import OrderKind
from vallostasis.core.route.clocks import clocks_of
from vallostasis.core.route.route import route_of
from vallostasis.core.uncertainty.decision import State
from vallostasis.documents.owner_page import BriefPage, HoleSquare, OwnerPage, Photo, brief_html, owner_html
from vallostasis.store import notes
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn

Page = Callable[[Conn, UUID], str]
# So many photos go along with a page.
MOST_PHOTOS = 6
# What a state is called by somebody who never held a gauge.
PLAIN = {
    State.IN: "right",
    State.OUT: "not right yet",
    State.CANNOT_TELL: "being looked at",
    State.READ_AGAIN: "to be measured again",
    State.NOT_MEASURED: "not measured yet",
}


def owner_page(conn: Conn, job_id: UUID) -> str:
    """Return the page for the owner: one file that needs nothing else."""
    facts, now = load_job_facts(conn, job_id), datetime.now(UTC)
    route, promise = route_of(facts), promise_of(facts)
    waits = tuple(one.wait for one in clocks_of(facts, now).waits if one.end is None)
    page = OwnerPage(
        job=facts.job,
        engine=facts.card.engine,
        written_at=now,
        done=tuple(one.kind.title for one in route.operations if one.evidence.is_done),
        to_come=tuple(one.kind.title for one in route.operations if not one.evidence.is_done),
        waits=tuple((one.words, one.expected) for one in waits),
        promised=None if promise is None else promise.promised,
        told="" if promise is None else promise.told,
        holes=tuple(HoleSquare(one.hole, PLAIN[one.state], one.state is State.IN) for one in judge_job(facts).holes),
        found=_found(facts),
        declined=tuple((one.what, one.reason) for one in facts.standing(facts.declined)),
        photos=_photos(conn, facts),
    )
    return owner_html(page)


def _photos(conn: Conn, facts: JobFacts) -> tuple[Photo, ...]:
    """The newest photos of the job: a page that is sent stays small."""
    kept = [one for one in facts.notes if one.photo_here and one.note_id not in facts.struck][-MOST_PHOTOS:]
    return tuple(Photo(*notes.get_photo(conn, one.note_id), one.words) for one in kept)


def _found(facts: JobFacts) -> tuple[str, ...]:
    numbers = {hole.hole_id: hole.number for hole in facts.holes}
    return tuple(
        f"{f'Cylinder {numbers[one.hole_id]}' if one.hole_id is not None else 'The block'}: {one.part} {one.word}"
        + (f", {one.words}" if one.words else "")
        for one in facts.standing(facts.findings)
    )


def brief_page(conn: Conn, job_id: UUID) -> str:
    """Return one page for another shop: what was measured and how, what is asked, what must not be touched."""
    facts = load_job_facts(conn, job_id)
    now = orders_of(facts, datetime.now(UTC).date())
    asked = tuple((one.order.what, one.order.words, one.order.wanted_typed) for one in now
                  if one.order.kind in (OrderKind.OUTSIDE, OrderKind.MADE) and one.is_awaited)  # fmt: skip
    used = dict.fromkeys(one.setup_id for one in facts.sets)
    setups = [one for one in facts.setups if one.setup_id in used]
    surveys = tuple((one.quantity.value, f"zeroed on {one.zeroed_on.value}", one.load or "free") for one in setups)
    return brief_html(BriefPage(facts.job, facts.card.engine, facts.card.construction.value, facts.card.block_material,
                                len(facts.holes), surveys, asked, tuple(faces_kept(facts))))  # fmt: skip
