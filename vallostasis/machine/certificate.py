"""A certificate of our own, for a shop that has none: made by this machine, known by its fingerprint."""

import contextlib
import ipaddress
import os
import socket
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path

from cryptography import x509
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import ExtendedKeyUsageOID, NameOID

from vallostasis.machine.postgres import MachineError

# Browsers refuse certificates that are good for longer than 398 days (CA/Browser Forum, ballot SC31, from memory).
GOOD_FOR = timedelta(days=397)
RENEWED_BEFORE = timedelta(days=30)


@dataclass(frozen=True, slots=True)
class Certificate:
    """Where certificate and key lie; the fingerprint of one that this machine made, else empty."""

    cert: Path
    key: Path
    fingerprint: str = ""


def own_certificate(folder: Path, addresses: Sequence[str], now: datetime | None = None) -> Certificate:
    """Return the certificate of this machine; made anew where there is none, it runs out, or an address is new."""
    at = now or datetime.now(UTC)
    cert, key = folder / "certificate.pem", folder / "key.pem"
    names = _names(addresses)
    present = _read(cert) if key.exists() else None
    if present is None or present.not_valid_after_utc - at < RENEWED_BEFORE or not names <= _names_in(present):
        folder.mkdir(parents=True, exist_ok=True, mode=0o700)
        present = _make(cert, key, names, at)
    return Certificate(cert, key, fingerprint_of(present))


def fingerprint_of(certificate: x509.Certificate) -> str:
    """SHA-256 of a certificate as browsers show it: pairs of digits parted by colons."""
    return certificate.fingerprint(hashes.SHA256()).hex(":").upper()


def given_certificate(cert: Path, key: Path) -> Certificate:
    """Return a certificate that the owner brings; a file that is none is refused with a sentence."""
    if _read(cert) is None:
        raise MachineError(f"{cert} holds no certificate in PEM form.")
    try:
        serialization.load_pem_private_key(key.read_bytes(), None)
    except (OSError, ValueError, TypeError) as error:
        raise MachineError(f"{key} holds no private key in PEM form without a password: {error}.") from None
    return Certificate(cert, key)


def _read(path: Path) -> x509.Certificate | None:
    try:
        return x509.load_pem_x509_certificate(path.read_bytes())
    except (OSError, ValueError):
        return None


def _names(addresses: Sequence[str]) -> frozenset[str]:
    own = socket.gethostname()
    return frozenset({"localhost", "127.0.0.1", own, f"{own}.local", *addresses})


def _names_in(certificate: x509.Certificate) -> frozenset[str]:
    held = certificate.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
    addresses = (str(one) for one in held.get_values_for_type(x509.IPAddress))
    return frozenset({*held.get_values_for_type(x509.DNSName), *addresses})


def _general_name(name: str) -> x509.GeneralName:
    with contextlib.suppress(ValueError):
        return x509.IPAddress(ipaddress.ip_address(name))
    return x509.DNSName(name)


def _make(cert: Path, key: Path, names: frozenset[str], at: datetime) -> x509.Certificate:
    private = ec.generate_private_key(ec.SECP256R1())
    name = x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, "Vallostasis in this shop")])
    made = (
        x509.CertificateBuilder()
        .subject_name(name)
        .issuer_name(name)
        .public_key(private.public_key())
        .serial_number(x509.random_serial_number())
        .not_valid_before(at - timedelta(hours=1))
        .not_valid_after(at + GOOD_FOR)
        .add_extension(x509.SubjectAlternativeName([_general_name(one) for one in sorted(names)]), critical=False)
        .add_extension(x509.BasicConstraints(ca=False, path_length=None), critical=True)
        .add_extension(x509.ExtendedKeyUsage([ExtendedKeyUsageOID.SERVER_AUTH]), critical=False)
        .sign(private, hashes.SHA256())
    )
    plain = private.private_bytes(
        serialization.Encoding.PEM, serialization.PrivateFormat.PKCS8, serialization.NoEncryption()
    )
    # The key first, closed to others from its first byte on: a certificate never stands without it.
    key.unlink(missing_ok=True)
    with os.fdopen(os.open(key, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "wb") as file:
        file.write(plain)
    cert.write_bytes(made.public_bytes(serialization.Encoding.PEM))
    return made
