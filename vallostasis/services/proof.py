"""Handing a job over: proof sheet, readings, job file."""

from datetime import UTC, datetime
from uuid import UUID

from vallostasis.core.notation.lengths import Unit
from vallostasis.documents import job_file, proof, readings_csv
from vallostasis.documents.job_archive import write_archive
from vallostasis.documents.judged_holes import judged_holes
from vallostasis.documents.liner_label import liner_label as liner_label_page
from vallostasis.documents.photo import Photo
from vallostasis.documents.proof_chain import ProofChain
from vallostasis.services.block import block_of_job
from vallostasis.services.chain import Chain, chain_of
from vallostasis.services.reading_target import known_hole
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.store import notes, spec_cards
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn


def proof_html(conn: Conn, job_id: UUID, unit: Unit) -> str:
    """Write the proof sheet as HTML."""
    return proof_sheet(conn, job_id, unit)[0]


def proof_sheet(conn: Conn, job_id: UUID, unit: Unit) -> tuple[str, Chain]:
    """Write the proof sheet as HTML, with the chain that stands on it."""
    chain = chain_of(conn, job_id)
    now = block_of_job(conn, job_id)
    stamp = ProofChain(job_id, chain.entries, chain.head, chain.broken_at)
    return proof.proof_html(now.facts, now.judgement, unit, datetime.now(UTC), stamp), chain


def liner_label(conn: Conn, job_id: UUID, number: int, unit: Unit) -> str:
    """Write the label of the liner in a hole; refused while none is in it."""
    facts = load_job_facts(conn, job_id)
    hole = known_hole(facts, number)
    fitting = facts.present_fitting(hole.hole_id)
    if fitting is None:
        raise Refused(f"No liner is in hole {number}: it gets its label once it is home.", "hole", RefusalCode.STALE)
    return liner_label_page(facts, hole, fitting, unit)


def readings_as_csv(conn: Conn, job_id: UUID) -> str:
    """Write all readings as CSV."""
    return readings_csv.readings_csv(load_job_facts(conn, job_id))


def readings_as_xlsx(conn: Conn, job_id: UUID) -> bytes:
    """Write all readings as a workbook."""
    return readings_csv.readings_xlsx(load_job_facts(conn, job_id))


def job_as_archive(conn: Conn, job_id: UUID) -> bytes:
    """Write the whole job with its photos as a ZIP."""
    facts = load_job_facts(conn, job_id)
    here = [note for note in facts.notes if note.photo_here]
    photos = (Photo(*notes.get_photo(conn, note.note_id), note.photo_sha256) for note in here)
    return write_archive(job_as_json(conn, job_id), photos)


def job_as_json(conn: Conn, job_id: UUID) -> bytes:
    """Write the whole job as JSON."""
    head = chain_of(conn, job_id).head
    facts = load_job_facts(conn, job_id)
    versions = dict.fromkeys(one.spec_card_version_id for one in facts.cards_chosen)
    cards = tuple(job_file.CardOnFile(*spec_cards.get_version(conn, version_id)) for version_id in versions)
    return job_file.job_file(facts, judged_holes(facts), cards, datetime.now(UTC), head)
