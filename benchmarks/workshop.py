"""What the benchmarks stand on: a private PostgreSQL, a served application, a large block."""

import contextlib
import http.client
import multiprocessing
import socket
import tempfile
import threading
import time
from collections.abc import Iterator
from dataclasses import dataclass, replace
from decimal import Decimal
from multiprocessing.process import BaseProcess
from pathlib import Path
from typing import Any
from uuid import UUID, uuid4

import psycopg

from vallostasis.core.records.rows import Place, Quantity
from vallostasis.core.records.spec_card import SpecCard
from vallostasis.demo import ferry_lanthorn as ferry
from vallostasis.machine.postgres import PrivateCluster
from vallostasis.machine.serving import Server
from vallostasis.main import create_app
from vallostasis.services import fitting, jobs, readings, shop, spec_cards
from vallostasis.services.demo_loading import load_demo
from vallostasis.settings import Settings
from vallostasis.store import jobs as job_rows
from vallostasis.store import readings as reading_rows
from vallostasis.store.database import migrate
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn

HOLES = 16
READINGS = 2000
HOLES_OF_A_BENCH = 6
START_SECONDS = 60


def figure(value: float, unit: str, aim: float | None = None, digits: int = 1) -> dict[str, Any]:
    """A figure with what it should be at most, where there is an aim."""
    ok = aim is None or value <= aim
    return {"value": round(value, digits), "unit": unit, "aim": "none" if aim is None else f"≤ {aim:g}", "ok": ok}


@contextlib.contextmanager
def database(*, durable: bool = False) -> Iterator[str]:
    with tempfile.TemporaryDirectory(prefix="vallo-bench-", dir="/tmp", ignore_cleanup_errors=True) as folder:
        Path(folder).chmod(0o755)
        cluster = PrivateCluster(Path(folder) / "cluster", durable=durable)
        try:
            dsn = cluster.start()
            with psycopg.connect(dsn) as conn:
                migrate(conn)
            yield dsn
        finally:
            cluster.stop()


@contextlib.contextmanager
def served(dsn: str) -> Iterator[int]:
    """Serve the application; gives its port."""
    server = Server(create_app(Settings(dsn=dsn)), host="127.0.0.1", port=0, log_level="error")
    thread = threading.Thread(target=server.run, daemon=True)
    thread.start()
    while not server.started:
        thread.join(0.02)
    try:
        yield server.port
    finally:
        server.should_exit = True
        thread.join()


@dataclass(frozen=True)
class Served:
    """The application in a process of its own, with an endpoint beside it that does nothing."""

    port: int
    process: BaseProcess


@contextlib.contextmanager
def served_apart(dsn: str, read_dsn: str = "") -> Iterator[Served]:
    """Serve from a process of its own, so that clients here do not share its interpreter."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port = int(probe.getsockname()[1])
    process = multiprocessing.get_context("spawn").Process(
        target=serve_with_empty, args=(dsn, port, read_dsn), daemon=True
    )
    process.start()
    try:
        _wait_until_up(port)
        yield Served(port, process)
    finally:
        process.terminate()
        process.join()


def serve_with_empty(dsn: str, port: int, read_dsn: str = "") -> None:
    """Serve the application, and an endpoint that takes and gives nothing."""
    app = create_app(Settings(dsn=dsn, read_dsn=read_dsn))
    app.add_api_route("/empty", _nothing, methods=["POST"])
    app.router.routes.insert(0, app.router.routes.pop())
    Server(app, host="127.0.0.1", port=port, log_level="error").run()


def _nothing() -> None:
    return None


def _wait_until_up(port: int) -> None:
    deadline = time.monotonic() + START_SECONDS
    while time.monotonic() < deadline:
        connection = http.client.HTTPConnection("127.0.0.1", port)
        with contextlib.suppress(OSError), contextlib.closing(connection):
            connection.request("GET", "/healthz")
            if connection.getresponse().status == 200:
                return
        time.sleep(0.05)
    raise RuntimeError("the application did not start")


def bench_jobs(dsn: str, count: int) -> list[dict[str, str]]:
    """So many jobs with every liner fitted and a set open in each hole, and who reads there."""
    made = []
    with psycopg.connect(dsn) as conn:
        person = shop.add_person(conn, "Wren").person_id
        shop.save_gauge(conn, None, 0, shop.GaugeEntry("Sled", "depth gauge", "2", "2.5"))
        card_id = spec_cards.add_card(conn, ferry.spec_card(), person)
        for number in range(count):
            new = job_rows.NewJob(f"B-{number}", f"Bench {number}", "", "", "")
            job_id = jobs.take_in_job(conn, new, card_id, person)
            for hole in job_rows.list_holes(conn, job_id):
                jobs.add_liner(conn, job_id, f"L{hole.number}", "", "")
                fitting.record_fitting(
                    conn, hole.hole_id, uuid4(), f"L{hole.number}", (), person, made_ready=fitting.ALL_READY
                )
                _take(conn, job_id, person, "8.5", hole=hole.number, hour=6.0)
            set_id = load_job_facts(conn, job_id).sets[0].reading_set_id
            made.append({"job_id": str(job_id), "set_id": str(set_id), "person_id": str(person)})
    return made


def demo_job(dsn: str) -> UUID:
    with psycopg.connect(dsn) as conn:
        return load_demo(conn)


def large_job(dsn: str) -> UUID:
    """Sixteen holes with two thousand readings, struck ones among them."""
    with psycopg.connect(dsn) as conn:
        person = shop.add_person(conn, "Ines").person_id
        shop.save_gauge(conn, None, 0, shop.GaugeEntry("Sled", "depth gauge", "2", "2.5"))
        shop.save_gauge(conn, None, 0, shop.GaugeEntry("Micrometer", "micrometer", "1", "1.5"))
        card_id = spec_cards.add_card(conn, _large_card(), person)
        job_id = jobs.take_in_job(conn, job_rows.NewJob("B-16", "Sixteen", "", "", ""), card_id, person)
        _read_all_round(conn, job_id, person)
    return job_id


def _large_card() -> SpecCard:
    card = ferry.spec_card()
    heads = tuple(tuple(range(first, first + 4)) for first in range(1, HOLES, 4))
    return replace(card, layout=replace(card.layout, holes=HOLES, heads=heads))


def _read_all_round(conn: Conn, job_id: UUID, person: UUID) -> None:
    """The first reading of each set as people take it, the repeats straight into the store."""
    for hole in job_rows.list_holes(conn, job_id):
        mark = f"L{hole.number}"
        jobs.add_liner(conn, job_id, mark, "", "")
        _take(conn, job_id, person, "8.900", quantity=Quantity.FLANGE_THICKNESS, liner_mark=mark, bare_unit="mm")
        fitting.record_fitting(conn, hole.hole_id, uuid4(), mark, (), person, made_ready=fitting.ALL_READY)
        for hour in ferry.HOURS:
            _take(conn, job_id, person, "8.815", quantity=Quantity.COUNTERBORE_DEPTH, hole=hole.number, hour=hour,
                  bare_unit="mm")  # fmt: skip
            _take(conn, job_id, person, "8.5", hole=hole.number, hour=hour)
    facts = load_job_facts(conn, job_id)
    sets = [s.reading_set_id for s in facts.sets if s.fitting_id is not None]
    for number in range(READINGS - len(facts.readings)):
        value = Decimal(80 + number % 11)
        place = Place(hour=ferry.HOURS[number // len(sets) % 4])
        new = reading_rows.NewReading(uuid4(), sets[number % len(sets)], value, f"{value / 10}", "0.01 mm", place=place)
        reading_rows.add_reading(conn, new, person)


def _take(conn: Conn, job_id: UUID, person: UUID, text: str, **where: object) -> None:
    fields: dict[str, object] = {
        "reading_id": uuid4(), "quantity": Quantity.PROTRUSION, "hole": None, "hour": None, "liner_mark": "",
        "land": "", "text": text, "bare_unit": "0.01 mm", "confirmed": True, "read_before": "", "new_pass": False,
        "part_temp_c": None,
    }  # fmt: skip
    readings.take_reading(conn, job_id, readings.ReadingToTake(**{**fields, **where}), person)  # type: ignore[arg-type]
