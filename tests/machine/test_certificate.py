"""A certificate of our own, against Python's ssl, which verifies chain, name and time as a browser does."""

import hashlib
import os
import ssl
import stat
import subprocess
import sys
import threading
import urllib.request
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest

from vallostasis.machine.certificate import GOOD_FOR, RENEWED_BEFORE, given_certificate, own_certificate
from vallostasis.machine.packages import ROOT
from vallostasis.machine.postgres import MachineError
from vallostasis.machine.serving import Server
from vallostasis.main import create_app
from vallostasis.settings import Settings

AT = datetime(2026, 11, 29, tzinfo=UTC)


def _digest(path: Path) -> str:
    return hashlib.sha256(ssl.PEM_cert_to_DER_cert(path.read_text())).hexdigest().upper()


def test_whoever_trusts_it_reaches_the_application_by_name_and_address(tmp_path: Path, empty_dsn: str) -> None:
    made = own_certificate(tmp_path, ["192.0.2.7"])
    settings = Settings(dsn=empty_dsn, tls=True)
    server = Server(create_app(settings, made.fingerprint), host="127.0.0.1", port=0, log_level="critical",
                    ssl_certfile=made.cert, ssl_keyfile=made.key)  # fmt: skip
    thread = threading.Thread(target=server.run)
    thread.start()
    while not server.started:
        thread.join(0.02)
    try:
        trusting = ssl.create_default_context(cafile=str(made.cert))
        for name in ("127.0.0.1", "localhost"):
            with urllib.request.urlopen(f"https://{name}:{server.port}/healthz", context=trusting) as answer:
                assert answer.status == 200
        with pytest.raises(urllib.error.URLError, match="self-signed"):
            urllib.request.urlopen(f"https://127.0.0.1:{server.port}/healthz")
        # NIST SP 800-52 Rev. 2: nothing below TLS 1.2.
        old = ssl.SSLContext(ssl.PROTOCOL_TLS_CLIENT)
        old.load_verify_locations(made.cert)
        with pytest.warns(DeprecationWarning):
            old.maximum_version = ssl.TLSVersion.TLSv1_1
        with pytest.raises(urllib.error.URLError):
            urllib.request.urlopen(f"https://127.0.0.1:{server.port}/healthz", context=old)
    finally:
        server.should_exit = True
        thread.join()


def test_its_fingerprint_is_the_digest_of_what_is_served(tmp_path: Path) -> None:
    made = own_certificate(tmp_path, [])
    assert made.fingerprint.replace(":", "") == _digest(made.cert)
    assert len(made.fingerprint.split(":")) == 32


def test_its_key_is_closed_to_others(tmp_path: Path) -> None:
    made = own_certificate(tmp_path / "tls", [])
    assert stat.S_IMODE(made.key.stat().st_mode) == 0o600
    assert stat.S_IMODE(made.key.parent.stat().st_mode) == 0o700


def test_it_stays_until_it_runs_out_or_the_machine_is_reached_elsewhere(tmp_path: Path) -> None:
    first = own_certificate(tmp_path, ["192.0.2.7"], AT)
    assert own_certificate(tmp_path, ["192.0.2.7"], AT + timedelta(days=300)) == first
    # An address that is gone needs no new one.
    assert own_certificate(tmp_path, [], AT) == first
    moved = own_certificate(tmp_path, ["192.0.2.8"], AT)
    assert moved.fingerprint != first.fingerprint
    late = own_certificate(tmp_path, ["192.0.2.8"], AT + GOOD_FOR - RENEWED_BEFORE + timedelta(hours=2))
    assert late.fingerprint != moved.fingerprint


def test_one_whose_key_is_gone_or_spoilt_is_made_anew(tmp_path: Path) -> None:
    first = own_certificate(tmp_path, [])
    first.key.unlink()
    second = own_certificate(tmp_path, [])
    assert second.fingerprint != first.fingerprint
    second.cert.write_text("spoilt")
    assert own_certificate(tmp_path, []).fingerprint != second.fingerprint


def test_a_certificate_of_others_is_taken_or_refused_with_a_sentence(tmp_path: Path) -> None:
    own = own_certificate(tmp_path, [])
    assert given_certificate(own.cert, own.key).fingerprint == ""
    with pytest.raises(MachineError, match="holds no certificate"):
        given_certificate(own.key, own.key)
    with pytest.raises(MachineError, match="holds no private key"):
        given_certificate(own.cert, own.cert)
    with pytest.raises(MachineError, match="holds no certificate"):
        given_certificate(tmp_path / "nothing.pem", own.key)


@pytest.mark.parametrize(
    ("options", "words"),
    [
        (["--tls-cert", "nothing.pem"], "give --tls-cert and --tls-key together"),
        (["--tls-cert", "nothing.pem", "--tls-key", "nothing.pem"], "holds no certificate in PEM form"),
    ],
)
def test_a_start_with_half_a_certificate_says_what_is_missing(
    tmp_path: Path, options: list[str], words: str
) -> None:  # fmt: skip
    started = subprocess.run(
        [sys.executable, "-m", "vallostasis.cli", "start", *options], cwd=ROOT, capture_output=True, text=True,
        env={**os.environ, "VALLO_DATA": str(tmp_path / "data")},
    )  # fmt: skip
    assert started.returncode == 1
    assert words in started.stderr
    assert not (tmp_path / "data").exists()
