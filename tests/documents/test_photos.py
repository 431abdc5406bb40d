"""Photos and job archives: what is kept, and that a broken file is told from a whole one."""

import hashlib
import io
import zipfile

import pytest
from hypothesis import given
from hypothesis import strategies as st
from PIL import ExifTags, Image

from vallostasis.documents.job_archive import JOB_FILE, NotAnArchive, is_archive, read_archive, write_archive
from vallostasis.documents.photo import NotAPhoto, photo_file, read_photo, take_photo


def picture(kind: str = "JPEG", size: tuple[int, int] = (40, 30)) -> bytes:
    out = io.BytesIO()
    Image.new("RGB", size, (120, 90, 60)).save(out, kind)
    return out.getvalue()


@pytest.mark.parametrize(("kind", "media_type"), [("JPEG", "image/jpeg"), ("PNG", "image/png"), ("WEBP", "image/webp")])
def test_a_photo_is_looked_at_and_left_as_it_is(kind: str, media_type: str) -> None:
    content = picture(kind)
    photo = read_photo(content)
    assert (photo.content, photo.media_type) == (content, media_type)
    assert photo.sha256 == hashlib.sha256(content).hexdigest()


def _from_a_phone(kind: str) -> bytes:
    """Held sideways, with time and place, and something behind its end."""
    exif = Image.Exif()
    exif[ExifTags.Base.Orientation] = 6
    exif[ExifTags.Base.Model] = "Phone of somebody"
    exif.get_ifd(ExifTags.IFD.Exif)[ExifTags.Base.DateTimeOriginal] = "2026:03:04 05:06:07"
    exif.get_ifd(ExifTags.IFD.GPSInfo).update({ExifTags.GPS.GPSLatitudeRef: "N", ExifTags.GPS.GPSLatitude: (50, 1, 2)})
    out = io.BytesIO()
    Image.new("RGB", (40, 30), (120, 90, 60)).save(out, kind, exif=exif)
    return out.getvalue() + b"<script>alert(1)</script>"


@pytest.mark.parametrize("kind", ["JPEG", "PNG", "WEBP"])
@pytest.mark.parametrize("keep_place", [False, True])
def test_a_photo_is_written_anew_upright_with_its_time_and_without_its_place(kind: str, keep_place: bool) -> None:
    photo = take_photo(_from_a_phone(kind), keep_place)
    assert photo.sha256 == hashlib.sha256(photo.content).hexdigest()
    assert b"<script>" not in photo.content
    assert b"Phone of somebody" not in photo.content
    with Image.open(io.BytesIO(photo.content)) as image:
        exif = image.getexif()
        assert (image.format, image.size) == (kind, (30, 40))
        assert exif.get_ifd(ExifTags.IFD.Exif) == {ExifTags.Base.DateTimeOriginal: "2026:03:04 05:06:07"}
        assert (ExifTags.GPS.GPSLatitude in exif.get_ifd(ExifTags.IFD.GPSInfo)) is keep_place
        red, green, blue = image.convert("RGB").getpixel((5, 5))  # type: ignore[misc]
    assert (abs(red - 120), abs(green - 90), abs(blue - 60)) < (4, 4, 4)


def test_a_photo_of_more_points_than_a_camera_takes_is_refused_unopened() -> None:
    # 64 megapixels of one colour: some 60 kB.
    large = picture("PNG", (8_000, 8_000))
    assert len(large) < 300_000
    for take in (read_photo, take_photo):
        with pytest.raises(NotAPhoto, match="40 million points"):
            take(large)


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
