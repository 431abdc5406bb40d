"""Photos as they come from a phone or camera: what they are, and that they can be shown."""

import hashlib
import io
from dataclasses import dataclass

from PIL import Image, UnidentifiedImageError

LARGEST_PHOTO_BYTES = 10_000_000
EXTENSIONS = {"image/jpeg": "jpg", "image/png": "png", "image/webp": "webp"}
_MEDIA_TYPES = {"JPEG": "image/jpeg", "PNG": "image/png", "WEBP": "image/webp"}


class NotAPhoto(Exception):
    """The file is no photo that can be kept; the text says what to do."""


@dataclass(frozen=True, slots=True)
class Photo:
    """A photo that can be kept: its bytes as they came, media type, and the digest that names it."""

    content: bytes
    media_type: str
    sha256: str


def read_photo(content: bytes) -> Photo:
    """Look at a photo.

    Raises
    ------
    NotAPhoto
        If it is larger than 10 MB, or none of JPEG, PNG and WebP.
    """
    if len(content) > LARGEST_PHOTO_BYTES:
        raise NotAPhoto("The photo is larger than 10 MB: take it smaller.")
    try:
        with Image.open(io.BytesIO(content), formats=tuple(_MEDIA_TYPES)) as image:
            media_type = _MEDIA_TYPES[str(image.format)]
            image.verify()
    except Image.DecompressionBombError:
        raise NotAPhoto("The photo has more points than any camera here takes: take it smaller.") from None
    except (UnidentifiedImageError, OSError, SyntaxError, ValueError):
        raise NotAPhoto("That is no photo that can be shown: choose a JPEG, PNG or WebP.") from None
    return Photo(content, media_type, hashlib.sha256(content).hexdigest())


def photo_file(media_type: str, sha256: str) -> str:
    """Name of a photo in the archive of a job."""
    return f"photos/{sha256}.{EXTENSIONS[media_type]}"
