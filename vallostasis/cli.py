"""What ./vallo calls: demo, start, test, bench."""

import contextlib
import gc
import json
import os
import signal
import sys
import threading
from collections.abc import Iterator
from pathlib import Path
from types import FrameType
from typing import TYPE_CHECKING, Annotated

import psycopg
import typer

from vallostasis.machine import checks, packages
from vallostasis.machine import client as web_client
from vallostasis.machine.packages import say
from vallostasis.machine.postgres import MachineError, PrivateCluster, only_one
from vallostasis.machine.supervisor import keep_running
from vallostasis.settings import DEFAULT_PORT, Settings

if TYPE_CHECKING:
    from vallostasis.devices.simulated_gauge import SimulatedGauge

# What a command alone needs it brings in itself: all of the application takes seconds, and tests or a gauge need none.

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


def _serve(settings: Settings, *, demo_gauge_port: int | None) -> None:
    # uvicorn raises the signal again once it has shut down: as SystemExit it still stops the database.
    signal.signal(signal.SIGTERM, _stop)
    # Nothing of what is brought in goes again: it is not looked through, neither while it grows nor later.
    gc.disable()
    from vallostasis.running import serve

    gc.freeze()
    gc.enable()
    with _told():
        serve(settings, demo_gauge_port=demo_gauge_port)


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
    from vallostasis.demo.ferry_lanthorn import SEED
    from vallostasis.services.demo_devices import demo_devices

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


def _stop_with_parent(server: "SimulatedGauge", parent: int) -> None:
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
    from vallostasis.documents.job_on_file import read_job
    from vallostasis.documents.not_read import NotRead
    from vallostasis.services.chain import hold_job, hold_pdf
    from vallostasis.store.database import newest_schema, schema_version

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
    from vallostasis.services.backups import make_backup

    with _told(), _database(Settings()) as dsn:
        made = make_backup(dsn, file)
    size = f"{file.stat().st_size / 1e6:.1f} MB"
    print(f"{file}: {made['rows'].get('job', 0)} jobs, {sum(made['rows'].values())} rows, {size}")


@app.command()
def restore(file: Annotated[Path, typer.Argument(help="A file of ./vallo backup.")]) -> None:
    """Bring a backup back into an empty data folder (VALLO_DATA) or database (VALLO_DSN), and verify it."""
    from vallostasis.services.backups import bring_back

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
    from vallostasis.services.shops_apart import bring_shop_up

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
    from vallostasis.main import create_app

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


def _stop(_signal: int, _frame: FrameType | None) -> None:
    sys.exit(0)


if __name__ == "__main__":
    app(prog_name="./vallo")
