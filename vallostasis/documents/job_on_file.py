"""A job as it comes from a file: its JSON, or a ZIP of that and its photos."""

from dataclasses import dataclass

from vallostasis.documents.job_archive import is_archive, read_archive
from vallostasis.documents.job_file import JobFile, read_job_file
from vallostasis.documents.not_read import NotRead

LARGEST_JSON_BYTES = 5_000_000


@dataclass(frozen=True, slots=True)
class JobOnFile:
    """A job's file, and the photos by digest where it came with them."""

    file: JobFile
    photos: dict[str, bytes]


def refuse_at_a_look(content: bytes) -> None:
    """Raise NotRead for what is no job file by its size or how it begins: nothing has to be taken apart for that."""
    if is_archive(content):
        return
    if len(content) > LARGEST_JSON_BYTES:
        raise NotRead("The file is larger than 5 MB, more than a job's JSON may be.")
    if not content.lstrip(b" \t\r\n").startswith((b"{", b"[")):
        raise NotRead("This is no job file: at the beginning, neither JSON nor a ZIP; the proof page gives one out.")


def read_job(content: bytes) -> JobOnFile:
    """Read a job from its JSON, or from its ZIP with photos.

    Raises
    ------
    NotRead
        If it is neither, or holds more than a job can.
    """
    if is_archive(content):
        archive = read_archive(content)
        photos = {name: photo.content for name, photo in archive.photos.items()}
        return JobOnFile(read_job_file(archive.job_file), photos)
    refuse_at_a_look(content)
    return JobOnFile(read_job_file(content), {})
