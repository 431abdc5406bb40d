"""A whole job with its photos as one ZIP: the job file, and every photo under the digest of its bytes."""

import io
import zipfile
from collections.abc import Iterable
from dataclasses import dataclass

from vallostasis.documents.not_read import NotRead
from vallostasis.documents.photo import LARGEST_PHOTO_BYTES, NotAPhoto, Photo, photo_file, read_photo

JOB_FILE = "job.json"
LARGEST_JOB_FILE_BYTES = 20_000_000
LARGEST_PHOTOS_BYTES = 300_000_000
MOST_FILES = 2_000


class NotAnArchive(NotRead):
    """The file is no archive of a job; the text says what to do."""


@dataclass(frozen=True, slots=True)
class JobArchive:
    """The job file of an archive, and its photos by digest."""

    job_file: bytes
    photos: dict[str, Photo]


def is_archive(content: bytes) -> bool:
    """Whether a file is a ZIP, by how it begins."""
    return content[:4] == b"PK\x03\x04"


def write_archive(job_file: bytes, photos: Iterable[Photo]) -> bytes:
    """Pack a job file and its photos; photos are packed as they are, they are compressed already."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr(JOB_FILE, job_file)
        for name, content in {photo_file(one.media_type, one.sha256): one.content for one in photos}.items():
            archive.writestr(name, content, zipfile.ZIP_STORED)
    return out.getvalue()


def read_archive(content: bytes) -> JobArchive:
    """Unpack a job archive; what is neither job file nor photo is left alone.

    Raises
    ------
    NotAnArchive
        If it cannot be unpacked, lacks its job file, or holds more than a job can.
    """
    try:
        with zipfile.ZipFile(io.BytesIO(content)) as archive:
            return _unpacked(archive)
    except (zipfile.BadZipFile, RuntimeError, EOFError, OSError, ValueError):
        raise NotAnArchive("The ZIP is damaged: take the job out again.") from None


def _unpacked(archive: zipfile.ZipFile) -> JobArchive:
    entries = {entry.filename: entry for entry in archive.infolist()}
    if JOB_FILE not in entries:
        raise NotAnArchive(f"The ZIP holds no {JOB_FILE}: choose the one that the proof page gives out.")
    photos = [entry for name, entry in entries.items() if name.startswith("photos/") and not entry.is_dir()]
    if entries[JOB_FILE].file_size > LARGEST_JOB_FILE_BYTES or len(photos) > MOST_FILES:
        raise NotAnArchive("The ZIP unpacks to more than a job can hold.")
    if any(entry.file_size > LARGEST_PHOTO_BYTES for entry in photos):
        raise NotAnArchive("A photo in the ZIP is larger than 10 MB.")
    if sum(entry.file_size for entry in photos) > LARGEST_PHOTOS_BYTES:
        raise NotAnArchive("The photos in the ZIP take more than 300 MB.")
    found: dict[str, Photo] = {}
    for entry in photos:
        try:
            photo = read_photo(archive.read(entry))
        except NotAPhoto as error:
            raise NotAnArchive(f"{entry.filename}: {error}") from None
        found[photo.sha256] = photo
    return JobArchive(archive.read(entries[JOB_FILE]), found)
