"""The application as it runs: its database, its backups, the demo's devices beside it, its address."""

import contextlib
import logging
import os
import socket
import subprocess
import sys
import threading
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta

import psycopg

from vallostasis.api.door import addresses
from vallostasis.core.records.roles import Role
from vallostasis.machine import packages
from vallostasis.machine.addresses import free_from, hosts_at, listen
from vallostasis.machine.certificate import Certificate, given_certificate, own_certificate
from vallostasis.machine.packages import say
from vallostasis.machine.postgres import APPLICATION_USER, MachineError, PrivateCluster, only_one
from vallostasis.machine.serving import Server
from vallostasis.main import create_app
from vallostasis.services.backups import Schedule, back_up_when_due
from vallostasis.services.demo_devices import DEVICES
from vallostasis.services.demo_loading import link_demo_gauge, load_demo, store_is_empty
from vallostasis.services.pairing import make_code
from vallostasis.settings import Settings
from vallostasis.store.application_user import grant_application
from vallostasis.store.database import NotOurs, migrate


def serve(settings: Settings, *, demo_gauge_port: int | None) -> None:
    """Start what is missing, and serve until it is stopped; for the demo with its jobs and devices."""
    logging.basicConfig(level=logging.WARNING, format="%(message)s")
    with contextlib.ExitStack() as stack:
        if demo_gauge_port is not None:
            demo_gauge_port = free_from(demo_gauge_port, DEVICES)
        certificate = _certificate(settings)
        listening = listen(settings.host, settings.port)
        packages.ensure_debian_packages(packages.FOR_RUNNING)
        packages.ensure_web_build()
        cluster = None if settings.dsn else PrivateCluster(settings.data)
        if cluster is not None:
            stack.enter_context(only_one(settings.data))
            say(f"starting PostgreSQL in {settings.data}")
            stack.callback(cluster.stop)
            settings = settings.model_copy(update={"dsn": cluster.start()})
            stack.enter_context(_watched(cluster))
        _prepare_database(settings.dsn, demo_gauge_port)
        stack.enter_context(_backed_up(settings))
        if cluster is not None:
            with psycopg.connect(settings.dsn) as conn:
                grant_application(conn, APPLICATION_USER, cluster.application_password())
            settings = settings.model_copy(update={"dsn": cluster.application_dsn(settings.dsn)})
        if demo_gauge_port is not None:
            stack.enter_context(_demo_gauge(demo_gauge_port))
        with contextlib.suppress(KeyboardInterrupt):
            _Server(settings, certificate).run(sockets=listening)


@contextlib.contextmanager
def _watched(cluster: PrivateCluster) -> Iterator[None]:
    """Bring the database back when it dies while the application runs."""
    stopping = threading.Event()
    watcher = threading.Thread(target=cluster.watch, args=(stopping,), daemon=True)
    watcher.start()
    try:
        yield
    finally:
        stopping.set()
        watcher.join()


LOOK_AFTER_BACKUPS_EVERY_S = 60.0


@contextlib.contextmanager
def _backed_up(settings: Settings) -> Iterator[None]:
    """Write backups as they fall due while the application runs; what goes wrong is told, and tried again."""
    schedule = Schedule(settings.backup_folder, timedelta(hours=settings.backup_every_h), settings.backups_kept)
    stopping = threading.Event()

    def look() -> None:
        while not stopping.wait(LOOK_AFTER_BACKUPS_EVERY_S):
            try:
                back_up_when_due(settings.dsn, schedule, datetime.now(UTC))
            except (MachineError, psycopg.Error, OSError) as error:
                logging.getLogger("vallostasis").warning("no backup could be written: %s", error)

    threading.Thread(target=look, name="backups", daemon=True).start()
    try:
        yield
    finally:
        stopping.set()


@contextlib.contextmanager
def _demo_gauge(port: int) -> Iterator[None]:
    """Run the simulated gauge as a process of its own; it goes with the application."""
    process = subprocess.Popen(
        [sys.executable, "-m", "vallostasis.cli", "gauge", "--port", str(port), "--parent", str(os.getpid())]
    )
    try:
        yield
    finally:
        process.terminate()
        process.wait(timeout=10)


def _prepare_database(dsn: str, demo_gauge_port: int | None) -> None:
    try:
        with psycopg.connect(dsn) as conn:
            migrate(conn)
            if demo_gauge_port is not None:
                if store_is_empty(conn):
                    say("loading the demo job")
                    load_demo(conn)
                link_demo_gauge(conn, demo_gauge_port)
    except NotOurs as error:
        raise MachineError(str(error)) from None
    except psycopg.OperationalError as error:
        raise MachineError(f"The database cannot be reached: {error}") from None


class _Server(Server):
    """Prints the address once it is there, and how to let other devices in."""

    def __init__(self, settings: Settings, of: Certificate | None) -> None:
        app = create_app(settings, "" if of is None else of.fingerprint)
        tls = {} if of is None else {"ssl_certfile": of.cert, "ssl_keyfile": of.key}
        proxy = {"proxy_headers": True, "forwarded_allow_ips": "127.0.0.1,::1"} if settings.proxy_name else {}
        super().__init__(app, log_level="warning", **tls, **proxy)
        self.settings = settings
        self.fingerprint = "" if of is None else of.fingerprint

    async def startup(self, sockets: list[socket.socket] | None = None) -> None:
        await super().startup(sockets=sockets)
        if not self.started:
            return
        print(f"\nVallostasis is at {self.settings.scheme}://127.0.0.1:{self.settings.port}/   (Ctrl-C stops it)",
              flush=True)  # fmt: skip
        if self.settings.pairing:
            with psycopg.connect(self.settings.dsn) as conn:
                code = make_code(conn, Role.OWNER).code
            for address in addresses(self.settings):
                print(f"for devices in the shop: {address}/pair#{code}")
            print("The code lets one device of the owner in within ten minutes; more codes: Gauges and people.")
            if self.fingerprint:
                print(f"Our certificate, to be compared in the browser, SHA-256:\n  {self.fingerprint}")
            sys.stdout.flush()


def _certificate(settings: Settings) -> Certificate | None:
    if (settings.tls_cert is None) is not (settings.tls_key is None):
        raise MachineError("A certificate needs its key: give --tls-cert and --tls-key together.")
    if settings.tls_cert is not None and settings.tls_key is not None:
        return given_certificate(settings.tls_cert, settings.tls_key)
    return own_certificate(settings.data / "tls", hosts_at(settings.host)) if settings.tls else None
