"""Files brought in as the application does, without the child that takes them apart there."""

import hashlib
from uuid import UUID

from vallostasis.documents.job_on_file import read_job
from vallostasis.documents.readings_table import read_table
from vallostasis.services import job_import, reading_import
from vallostasis.services.job_import import JobBroughtIn, JobWish
from vallostasis.services.reading_import import ImportReport, ImportWish
from vallostasis.store import people
from vallostasis.store.rows import Conn

MOVER = "Mover"


def import_readings(conn: Conn, job_id: UUID, content: bytes, wish: ImportWish, by: UUID) -> ImportReport:
    """Bring in the readings of a table."""
    return reading_import.import_readings(conn, job_id, read_table(content), wish, by)


def import_job(conn: Conn, content: bytes, as_copy: bool, number: str, without_photos: bool = False) -> JobBroughtIn:
    """Bring in a job by somebody who is added where nobody is here."""
    known = {person.name: person.person_id for person in people.list_people(conn)}
    by = known.get(MOVER) or people.add_person(conn, MOVER).person_id
    wish = JobWish("job.json", hashlib.sha256(content).hexdigest(), as_copy, number, without_photos)
    return job_import.import_job(conn, read_job(content), wish, by)
