"""What ./vallo calls: demo, start, test, bench."""

import contextlib
import json
import logging
import os
import signal
import socket
import subprocess
import sys
import threading
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from pathlib import Path
from types import FrameType
from typing import Annotated

import psycopg
import typer

from vallostasis.api.door import addresses
from vallostasis.core.records.roles import Role
from vallostasis.demo.ferry_lanthorn import SEED
from vallostasis.devices.simulated_gauge import SimulatedGauge
from vallostasis.documents.job_on_file import read_job
from vallostasis.documents.not_read import NotRead
from vallostasis.machine import checks, packages
from vallostasis.machine import client as web_client
from vallostasis.machine.addresses import free_from, hosts_at, listen
from vallostasis.machine.certificate import Certificate, given_certificate, own_certificate
from vallostasis.machine.packages import say
from vallostasis.machine.postgres import APPLICATION_USER, MachineError, PrivateCluster, only_one
from vallostasis.machine.serving import Server
from vallostasis.machine.supervisor import keep_running
from vallostasis.main import create_app
from vallostasis.services.backups import Schedule, back_up_when_due, bring_back, make_backup
from vallostasis.services.chain import hold_job, hold_pdf
from vallostasis.services.demo_loading import DEVICES, demo_devices, link_demo_gauge, load_demo, store_is_empty
from vallostasis.services.pairing import make_code
from vallostasis.services.shops_apart import bring_shop_up
from vallostasis.settings import DEFAULT_PORT, Settings
from vallostasis.store.application_user import grant_application
from vallostasis.store.database import NotOurs, migrate, newest_schema, schema_version

app = typer.Typer(add_completion=False, no_args_is_help=True, help="Vallostasis: liners proved hole by hole.")
Port = Annotated[int, typer.Option(help="Port to serve at.", min=1, max=65535)]
Host = Annotated[
    str | None,
    typer.Option(help="Address of this machine to serve at, 0.0.0.0 for all; other devices then have to be paired."),
]
Tls = Annotated[bool, typer.Option("--tls", help="Encrypt, with a certificate that this machine makes for itself.")]
TlsCert = Annotated[Path | None, typer.Option("--tls-cert", help="Encrypt with this certificate, in PEM form.")]
TlsKey = Annotated[Path | None, typer.Option("--tls-key", help="The key of that certificate, in PEM form.")]
GaugePort = Annotated[int, typer.Option(help="Port on 127.0.0.1 at which the simulated gauge talks.", min=1, max=65535)]
DEFAULT_GAUGE_PORT = 8430


@app.command()
def demo(
    port: Port = DEFAULT_PORT,
    host: Host = None,
    gauge_port: GaugePort = DEFAULT_GAUGE_PORT,
    tls: Tls = False,
    tls_cert: TlsCert = None,
    tls_key: TlsKey = None,
) -> None:
    """Install what is missing, build, start the database, load the demo job and its talking gauge, serve."""
    _serve(_settings(port, host, tls, tls_cert, tls_key), demo_gauge_port=gauge_port)


@app.command()
def start(
    port: Port = DEFAULT_PORT,
    host: Host = None,
    supervise: Annotated[bool, typer.Option("--supervise", help="Start it again whenever it crashed.")] = False,
    tls: Tls = False,
    tls_cert: TlsCert = None,
    tls_key: TlsKey = None,
) -> None:
    """Serve as demo does, without loading demo data."""
    if supervise:
        sys.exit(keep_running([sys.executable, "-m", "vallostasis.cli", *sys.argv[1:]]))
    _serve(_settings(port, host, tls, tls_cert, tls_key), demo_gauge_port=None)


def _settings(port: int, host: str | None, tls: bool, tls_cert: Path | None, tls_key: Path | None) -> Settings:
    """What is set in the environment, and over it what was typed."""
    typed = {"port": port, "host": host, "tls": tls or None, "tls_cert": tls_cert, "tls_key": tls_key}
    return Settings(**{name: value for name, value in typed.items() if value is not None})  # type: ignore[arg-type]


@app.command()
def gauge(
    port: GaugePort = DEFAULT_GAUGE_PORT,
    parent: Annotated[int | None, typer.Option(help="End when the process of this number ends.")] = None,
) -> None:
    """Be the demo's devices, each at its own port from this one on: gauges and thermometers, until it is stopped."""
    signal.signal(signal.SIGTERM, _stop)
    with _told(), contextlib.suppress(KeyboardInterrupt), contextlib.ExitStack() as stack:
        try:
            devices = demo_devices(port, SEED)
        except OSError:
            raise MachineError(f"A port from {port} on is taken: choose another with --port.") from None
        for device in devices:
            stack.enter_context(device)
        for device in devices[1:]:
            threading.Thread(target=device.serve_forever, daemon=True).start()
        say(f"{len(devices)} devices talk at socket://127.0.0.1:{port} and the ports after it")
        if parent is not None:
            threading.Thread(target=_stop_with_parent, args=(devices[0], parent), daemon=True).start()
        devices[0].serve_forever()


def _stop_with_parent(server: SimulatedGauge, parent: int) -> None:
    """End with the application, even when it was killed and could not say goodbye."""
    while os.getppid() == parent and not server.stopping.wait(0.5):
        pass
    server.shutdown()


@app.command()
def test(
    deep: Annotated[
        bool, typer.Option("--deep", help="Draw thousands of readings, and try changes of the core.")
    ] = False,
) -> None:
    """Set up what tests need and run everything: style, types, layers, core, store, API, browser."""
    with _told():
        packages.ensure_debian_packages({**packages.FOR_RUNNING, **packages.FOR_TESTS})
        packages.ensure_web_build()
    sys.exit(checks.run_all(deep=deep))


@app.command()
def bench(
    json_file: Annotated[Path | None, typer.Option("--json", help="Write the figures to this file.")] = None,
    deep: Annotated[bool, typer.Option("--deep", help="Grow the store to ten million readings, in 8 GB.")] = False,
) -> None:
    """Run the benchmarks: ratios within one run where two things compare."""
    with _told():
        packages.ensure_debian_packages({**packages.FOR_RUNNING, **packages.FOR_TESTS})
        packages.ensure_web_build()
        figures = checks.run_benchmarks(deep=deep)
    for name, figure in figures.items():
        verdict = "ok" if figure["ok"] else "MISSED"
        print(f"{name:44} {figure['value']:>10} {figure['unit']:8} aim {figure['aim']:8} {verdict}")
    if json_file is not None:
        json_file.write_text(json.dumps(figures, indent=1) + "\n", encoding="utf-8")
    sys.exit(0 if all(figure["ok"] for figure in figures.values()) else 1)


@app.command()
def verify(file: Annotated[Path, typer.Argument(help="A proof as PDF, or a job as JSON or ZIP.")]) -> None:
    """Hold a file against what is recorded here; exit code 1 where it does not stand, 2 where it cannot be told."""
    with _told():
        try:
            content = file.read_bytes()
        except OSError as error:
            raise MachineError(f"{file} cannot be read: {error.strerror}.") from None
        with _database(Settings()) as dsn, psycopg.connect(dsn) as conn:
            if schema_version(conn) != newest_schema():
                raise MachineError("The database is of another version: start the application once, then verify.")
            try:
                held = hold_pdf(conn, content) if content.startswith(b"%PDF-") else hold_job(conn, read_job(content))
            except NotRead as error:
                print(error, file=sys.stderr)
                sys.exit(2)
    print("\n".join(("It stands." if held.stands else "It does not stand.", *held.words)))
    sys.exit(0 if held.stands else 1)


@app.command()
def backup(file: Annotated[Path, typer.Argument(help="The file to write.")]) -> None:
    """Write everything recorded into one file, while the application runs or not."""
    with _told(), _database(Settings()) as dsn:
        made = make_backup(dsn, file)
    size = f"{file.stat().st_size / 1e6:.1f} MB"
    print(f"{file}: {made['rows'].get('job', 0)} jobs, {sum(made['rows'].values())} rows, {size}")


@app.command()
def restore(file: Annotated[Path, typer.Argument(help="A file of ./vallo backup.")]) -> None:
    """Bring a backup back into an empty data folder (VALLO_DATA) or database (VALLO_DSN), and verify it."""
    with _told(), contextlib.ExitStack() as stack:
        settings = Settings()
        packages.ensure_debian_packages(packages.FOR_RUNNING)
        settings.data.mkdir(parents=True, exist_ok=True, mode=0o750)
        if settings.dsn:
            dsn = settings.dsn
        else:
            stack.enter_context(only_one(settings.data))
            cluster = PrivateCluster(settings.data)
            stack.callback(cluster.stop)
            dsn = cluster.start()
        brought = bring_back(dsn, file, settings.data)
    print(f"restored and verified: {brought['rows'].get('job', 0)} jobs, {sum(brought['rows'].values())} rows, made "
          f"{brought['made_at'][:16]} UTC")  # fmt: skip


@contextlib.contextmanager
def _database(settings: Settings) -> Iterator[str]:
    """How the database is reached: the one that is named, or the private one, started for as long as it takes."""
    if settings.dsn:
        yield settings.dsn
        return
    cluster = PrivateCluster(settings.data)
    if not cluster.is_made:
        raise MachineError(f"There is no database in {settings.data}: set VALLO_DATA, or VALLO_DSN.")
    was_running = cluster.is_running
    try:
        yield cluster.start()
    finally:
        if not was_running:
            cluster.stop()


@app.command()
def shop(name: Annotated[str, typer.Argument(help="Small letters, digits and _, at most 40.")]) -> None:
    """Make room for one more shop in the database of VALLO_DSN, or bring its tables up to this version."""
    with _told():
        print(bring_shop_up(Settings().dsn, name))


@app.command()
def lock() -> None:
    """Renew the locks of the Python packages, after pyproject.toml changed or to take newer releases."""
    with _told():
        packages.renew_locks()


@app.command(name="openapi")
def write_openapi(path: Path) -> None:
    """Write the OpenAPI document, from which the TypeScript client is generated."""
    document = create_app(Settings()).openapi()
    path.write_text(json.dumps(document, indent=1, ensure_ascii=False) + "\n", encoding="utf-8")


@app.command()
def client() -> None:
    """Bring the generated TypeScript client up to date with the API."""
    with _told():
        packages.ensure_web_packages()
    web_client.generate(web_client.OPENAPI, web_client.CLIENT)


@contextlib.contextmanager
def _told() -> Iterator[None]:
    """Turn what is in the way into a sentence and an exit code."""
    try:
        yield
    except MachineError as error:
        print(error, file=sys.stderr)
        sys.exit(1)


def _serve(settings: Settings, *, demo_gauge_port: int | None) -> None:
    logging.basicConfig(level=logging.WARNING, format="%(message)s")
    # uvicorn raises the signal again once it has shut down: as SystemExit it still stops the database.
    signal.signal(signal.SIGTERM, _stop)
    with _told(), contextlib.ExitStack() as stack:
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


def _stop(_signal: int, _frame: FrameType | None) -> None:
    sys.exit(0)


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


if __name__ == "__main__":
    app(prog_name="./vallo")
