"""Photos as they come from a phone or camera: what they are, that they can be shown, and what is left out of them."""

import hashlib
import io
import threading
from dataclasses import dataclass

from PIL import ExifTags, Image, ImageOps, UnidentifiedImageError

LARGEST_PHOTO_BYTES = 10_000_000
# Four bytes each while a photo is taken apart; a camera of 40 megapixels is more than a bench needs.
MOST_PIXELS = 40_000_000
AT_ONCE = 2
QUALITY = 90
EXTENSIONS = {"image/jpeg": "jpg", "image/png": "png", "image/webp": "webp"}
_MEDIA_TYPES = {"JPEG": "image/jpeg", "PNG": "image/png", "WEBP": "image/webp"}
_FORMATS = {media_type: name for name, media_type in _MEDIA_TYPES.items()}
_turn = threading.BoundedSemaphore(AT_ONCE)


class NotAPhoto(Exception):
    """The file is no photo that can be kept; the text says what to do."""


@dataclass(frozen=True, slots=True)
class Photo:
    """A photo that can be kept: its bytes, media type, and the digest that names it."""

    content: bytes
    media_type: str
    sha256: str


def take_photo(content: bytes, keep_place: bool = False) -> Photo:
    """Take a photo as it comes from a camera: written anew, so that nothing but the picture is kept of the file.

    When it was taken stays in it; where it was taken only on purpose.

    Raises
    ------
    NotAPhoto
        As read_photo does.
    """
    media_type = read_photo(content).media_type
    with _turn, Image.open(io.BytesIO(content)) as image:
        out, exif = io.BytesIO(), _kept(image.getexif(), keep_place)
        upright = ImageOps.exif_transpose(image)
        if media_type != "image/png":
            upright = upright.convert("RGB")
        upright.save(out, _FORMATS[media_type], quality=QUALITY, exif=exif)
    written = out.getvalue()
    if len(written) > LARGEST_PHOTO_BYTES:
        raise NotAPhoto("The photo is larger than 10 MB: take it smaller.")
    return Photo(written, media_type, hashlib.sha256(written).hexdigest())


def _kept(exif: Image.Exif, keep_place: bool) -> bytes:
    kept = Image.Exif()
    when = exif.get_ifd(ExifTags.IFD.Exif).get(ExifTags.Base.DateTimeOriginal)
    if when:
        kept.get_ifd(ExifTags.IFD.Exif)[ExifTags.Base.DateTimeOriginal] = when
    place = exif.get_ifd(ExifTags.IFD.GPSInfo)
    if keep_place and place:
        kept.get_ifd(ExifTags.IFD.GPSInfo).update(place)
    # Written out: one that holds lists alone counts as empty to some of the writers.
    return kept.tobytes() if when or (keep_place and place) else b""


def read_photo(content: bytes) -> Photo:
    """Look at a photo all through, and leave it as it is.

    Raises
    ------
    NotAPhoto
        If it is larger than 10 MB or 40 megapixels, or none of JPEG, PNG and WebP.
    """
    if len(content) > LARGEST_PHOTO_BYTES:
        raise NotAPhoto("The photo is larger than 10 MB: take it smaller.")
    try:
        with _turn, Image.open(io.BytesIO(content), formats=tuple(_MEDIA_TYPES)) as image:
            media_type = _MEDIA_TYPES[str(image.format)]
            if image.width * image.height > MOST_PIXELS:
                raise NotAPhoto("The photo has more than 40 million points: take it smaller.")
            image.verify()
        # What was verified is used up; a second look decodes every point.
        with _turn, Image.open(io.BytesIO(content), formats=(str(image.format),)) as again:
            again.load()
    except Image.DecompressionBombError:
        raise NotAPhoto("The photo has more points than any camera here takes: take it smaller.") from None
    except (UnidentifiedImageError, OSError, SyntaxError, ValueError, EOFError):
        raise NotAPhoto("That is no photo that can be shown: choose a JPEG, PNG or WebP.") from None
    return Photo(content, media_type, hashlib.sha256(content).hexdigest())


def photo_file(media_type: str, sha256: str) -> str:
    """Name of a photo in the archive of a job."""
    return f"photos/{sha256}.{EXTENSIONS[media_type]}"
