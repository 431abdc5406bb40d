"""The chain over a job: brought up to date and held against what is recorded whenever its head is given out."""

import hashlib
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.tape.chain import Link, first_difference, links_of
from vallostasis.documents.job_file import JobFile, facts_on_file
from vallostasis.documents.job_on_file import JobOnFile
from vallostasis.services.refused import Refused
from vallostasis.store import chain, spec_cards
from vallostasis.store.fact_rows import record_fact
from vallostasis.store.job_facts import read_what_is_kept
from vallostasis.store.jobs import lock_job
from vallostasis.store.new_record_facts import NewPrinting
from vallostasis.store.revisions import hold
from vallostasis.store.rows import Conn, NotFound


@dataclass(frozen=True, slots=True)
class Chain:
    """The chain of a job as it stands; ``broken_at`` is the first entry that is not as it was linked."""

    links: tuple[Link, ...]
    broken_at: int | None

    @property
    def entries(self) -> int:
        """How many events it holds."""
        return len(self.links) - 1

    @property
    def head(self) -> str:
        """Its newest link."""
        return self.links[-1].sha256


@dataclass(frozen=True, slots=True)
class Held:
    """Something held against what is recorded: whether it stands, of which job, in words."""

    stands: bool
    job_id: UUID | None
    words: tuple[str, ...]


def chain_of(conn: Conn, job_id: UUID) -> Chain:
    """Append what was recorded since to the chain of a job, under its lock, and hold all of it against its links."""
    hold(conn, job_id)
    links = links_now(conn, job_id)
    kept = chain.list_links(conn, job_id)
    broken_at = first_difference(kept, links)
    if broken_at is None:
        chain.add_links(conn, job_id, links[len(kept) :])
    return Chain(links, broken_at)


def links_now(conn: Conn, job_id: UUID) -> tuple[Link, ...]:
    """Chain what the tables hold of a job, whatever is known of it; nothing is appended."""
    return links_of(facts := read_what_is_kept(conn, job_id), _shared(conn, facts))


def _shared(conn: Conn, facts: JobFacts) -> dict[UUID, Any]:
    """What a job rests on of what is the shop's: gauges, masters and cards, by version."""
    versions = {one.spec_card_version_id for one in facts.cards_chosen}
    return _by_version(facts) | {version_id: spec_cards.get_version(conn, version_id)[1] for version_id in versions}


def _by_version(facts: JobFacts) -> dict[UUID, Any]:
    return {one.gauge_version_id: one for one in facts.gauge_versions} | {
        one.setting_master_version_id: one for one in facts.masters
    }


def links_of_file(file: JobFile) -> tuple[Link, ...]:
    """Chain what a file says of its job."""
    facts = facts_on_file(file)
    cards = {one.version.spec_card_version_id: one.card for one in file.history.cards}
    return links_of(facts, _by_version(facts) | cards)


def note_printing(conn: Conn, job_id: UUID, pdf: bytes, at: Chain, by: UUID) -> None:
    """Record that a proof went out."""
    lock_job(conn, job_id)
    record_fact(conn, NewPrinting(job_id, hashlib.sha256(pdf).hexdigest(), at.entries, at.head), by)


def on_record(conn: Conn, most: int) -> tuple[chain.OnRecord, ...]:
    """List what went out and came in, the newest first."""
    return chain.list_on_record(conn, most)


def hold_pdf(conn: Conn, content: bytes) -> Held:
    """Say whether a PDF is a proof that went out from here, and whether what stands on it is recorded still."""
    found = chain.find_printing(conn, hashlib.sha256(content).hexdigest())
    if found is None:
        return Held(False, None, (
            "No proof that went out from here is this file: it was made elsewhere, or changed since.",))  # fmt: skip
    printed = f"printed {found.printed_at:%Y-%m-%d %H:%M} UTC by {found.printed_by}"
    whose = f"Proof of job {found.number}, {found.name}, {printed}."
    return _held_at(conn, found.job_id, found.entries, found.head, whose)


def hold_head(conn: Conn, text: str) -> Held:
    """Say whether a head, as printed or as its picture was read, is one of a job here that still stands."""
    sha256 = "".join(text.split()).rpartition(":")[2].casefold()
    if len(sha256) != 64 or set(sha256) - set("0123456789abcdef"):
        raise Refused("A head is 64 figures and letters from a to f: type all of it, or read its picture.", "head")
    found = chain.find_head(conn, sha256)
    if found is None:
        return Held(False, None, ("No job here ever had this head.",))
    return _held_at(conn, found.job_id, found.entry, sha256, f"Head of job {found.number}, {found.name}.")


def _held_at(conn: Conn, job_id: UUID, entries: int, head: str, whose: str) -> Held:
    now = chain_of(conn, job_id)
    stands = entries < len(now.links) and now.links[entries].sha256 == head
    if not stands:
        changed = f" Entry {now.broken_at} is the first that is not as it was." if now.broken_at is not None else ""
        return Held(False, job_id, (whose, f"What was recorded up to entry {entries} was changed since.{changed}"))
    return Held(True, job_id, (whose, f"All {entries} entries are recorded as they were.", *_since(now, entries)))


def _since(now: Chain, entries: int) -> tuple[str, ...]:
    more = now.entries - entries
    return (f"{more} more recorded since.",) if more > 0 else ()


def hold_job(conn: Conn, read: JobOnFile) -> Held:
    """Hold a job's file against what is recorded here, entry by entry."""
    job = read.file.facts.job
    whose = f"File of job {job.number}, {job.name}, written {read.file.written_at:%Y-%m-%d %H:%M} UTC."
    try:
        now = chain_of(conn, job.job_id)
    except NotFound:
        return Held(False, None, (whose, "That job is not here: bring it in first, or look where it was made."))
    on_file = links_of_file(read.file)
    differs = first_difference((one.sha256 for one in on_file), now.links)
    if differs is None:
        entries = len(on_file) - 1
        return Held(True, job.job_id, (whose, f"All {entries} entries are recorded as the file says.",
                                       *_since(now, entries)))  # fmt: skip
    if differs >= len(now.links):
        return Held(
            False,
            job.job_id,
            (whose, f"The file holds {len(on_file) - len(now.links)} entries more than are recorded here."),
        )
    return Held(
        False, job.job_id, (whose, f"Entry {differs} is the first that the file tells otherwise than it is recorded.")
    )
