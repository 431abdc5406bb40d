"""What a device, a person or a link shows to be let in: only its hash is kept."""

import hashlib
import secrets


def new_token() -> str:
    """Draw a token of 256 bits."""
    return secrets.token_urlsafe(32)


def hashed(token: str) -> bytes:
    """Hash of a random token; unlike a password it cannot be guessed, so no slow hash is needed."""
    return hashlib.sha256(token.encode()).digest()
