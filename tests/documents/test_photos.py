"""Photos and job archives: what is kept, and that a broken file is told from a whole one."""

import hashlib
import io
import zipfile

import pytest
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image

from vallostasis.documents.job_archive import JOB_FILE, NotAnArchive, is_archive, read_archive, write_archive
from vallostasis.documents.photo import NotAPhoto, photo_file, read_photo


def picture(kind: str = "JPEG", size: tuple[int, int] = (40, 30)) -> bytes:
    out = io.BytesIO()
    Image.new("RGB", size, (120, 90, 60)).save(out, kind)
    return out.getvalue()


@pytest.mark.parametrize(("kind", "media_type"), [("JPEG", "image/jpeg"), ("PNG", "image/png"), ("WEBP", "image/webp")])
def test_a_photo_is_kept_as_it_came(kind: str, media_type: str) -> None:
    content = picture(kind)
    photo = read_photo(content)
    assert (photo.content, photo.media_type) == (content, media_type)
    assert photo.sha256 == hashlib.sha256(content).hexdigest()


@pytest.mark.parametrize(
    ("content", "words"),
    [
        (b"", "no photo"),
        (b"<svg xmlns='http://www.w3.org/2000/svg'/>", "no photo"),
        (picture("GIF"), "JPEG, PNG or WebP"),
        (picture("PNG")[:60], "no photo"),
        (picture() + b"\x00" * 10_000_000, "larger than 10 MB"),
    ],
)
def test_what_is_no_photo_is_refused(content: bytes, words: str) -> None:
    with pytest.raises(NotAPhoto, match=words):
        read_photo(content)


@given(st.binary(max_size=300))
def test_whatever_the_bytes_a_photo_is_read_or_refused(content: bytes) -> None:
    for start in (b"", b"\xff\xd8\xff", b"\x89PNG\r\n\x1a\n", b"RIFF\x00\x00\x00\x00WEBP"):
        with pytest.raises(NotAPhoto):
            read_photo(start + content)


def test_an_archive_gives_back_what_went_in_and_packs_a_photo_once() -> None:
    photos = [read_photo(picture()), read_photo(picture("PNG")), read_photo(picture())]
    packed = write_archive(b'{"job": 1}', photos)
    assert is_archive(packed)
    archive = read_archive(packed)
    assert archive.job_file == b'{"job": 1}'
    assert archive.photos == {photo.sha256: photo for photo in photos}
    assert len(zipfile.ZipFile(io.BytesIO(packed)).namelist()) == 3


def _zip(files: dict[str, bytes]) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, content in files.items():
            archive.writestr(name, content)
    return out.getvalue()


@pytest.mark.parametrize(
    ("content", "words"),
    [
        (b"PK\x03\x04 and nothing", "damaged"),
        (_zip({"photos/a.jpg": picture()}), "holds no job.json"),
        (_zip({JOB_FILE: b"{}", "photos/a.jpg": b"no photo"}), "photos/a.jpg: That is no photo"),
        (_zip({JOB_FILE: b" " * 20_000_001}), "more than a job can hold"),
        (_zip({JOB_FILE: b"{}", "photos/a.jpg": b" " * 10_000_001}), "larger than 10 MB"),
    ],
)
def test_an_archive_that_is_none_is_refused_before_it_is_unpacked(content: bytes, words: str) -> None:
    with pytest.raises(NotAnArchive, match=words):
        read_archive(content)


def test_a_name_in_the_archive_leads_nowhere_else() -> None:
    """A photo is known by its bytes; the name it is packed under is never used."""
    archive = read_archive(_zip({JOB_FILE: b"{}", "photos/../../etc/passwd": picture()}))
    assert list(archive.photos) == [read_photo(picture()).sha256]
    assert photo_file("image/png", "ab" * 32) == f"photos/{'ab' * 32}.png"
