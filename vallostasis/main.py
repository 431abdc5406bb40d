"""Wires settings, connection pool, routers and error handlers; nothing else."""

import itertools
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager

from fastapi import FastAPI

from vallostasis import __version__
from vallostasis.api import door, health, pairing, reader_links, readings, sign_ins, tape
from vallostasis.api.errors import install_error_handlers
from vallostasis.api.guards import BodyLimit, OwnPagesOnly, SecurityHeaders
from vallostasis.api.pages import mount_assets, mount_pages
from vallostasis.api.subjects import OF_ALL, OF_SUBJECT
from vallostasis.devices.link_board import LinkBoard
from vallostasis.devices.targets import networks
from vallostasis.documents.file_reader import FileReader
from vallostasis.documents.pdf_printer import PdfPrinter
from vallostasis.services.change_feed import ChangeFeed
from vallostasis.settings import Settings
from vallostasis.store.database import async_pool, open_pool
from vallostasis.store.watch import DatabaseWatch


@asynccontextmanager
async def _lifespan(app: FastAPI) -> AsyncIterator[None]:
    """What an application has while it runs: connections, devices, children that print and read."""
    dsn, patience_s = app.state.settings.dsn, app.state.settings.database_patience_s
    app.state.pool = open_pool(dsn, patience_s)
    read_dsn = app.state.settings.read_dsn
    app.state.read_pool = open_pool(read_dsn, patience_s) if read_dsn else app.state.pool
    app.state.async_pool = async_pool(dsn, patience_s)
    await app.state.async_pool.open()
    app.state.watch = DatabaseWatch(dsn, patience_s)
    app.state.watch.open()
    app.state.links = LinkBoard(networks(app.state.settings.gauge_networks.split(",")))
    app.state.printer = PdfPrinter()
    app.state.nobody_signs_in = door.NobodySignsIn()
    app.state.reader = FileReader()
    app.state.feed = ChangeFeed(dsn)
    app.state.feed.open()
    yield
    app.state.feed.close()
    app.state.links.close()
    app.state.watch.close()
    await app.state.async_pool.close()
    if app.state.read_pool is not app.state.pool:
        app.state.read_pool.close()
    app.state.pool.close()


def _larger_bodies(settings: Settings) -> dict[str, int]:
    """Addresses by their ends that take more than others. [bytes]"""
    return {
        "/jobs/imports": settings.largest_archive_bytes,
        "/verifications": settings.largest_archive_bytes,
        "/imports": settings.largest_file_bytes,
        "/scans": settings.largest_scan_bytes,
        "/probes": settings.largest_file_bytes,
        "/scans/preview": settings.largest_file_bytes,
        "/notes": settings.largest_photo_bytes,
    }


def create_app(settings: Settings, fingerprint: str = "") -> FastAPI:
    """Build the application for one set of settings; the pool opens with it and closes with it."""
    app = FastAPI(
        title="Vallostasis",
        version=__version__,
        summary="Protrusion, counterbores and shims of cylinder liners: measured, decided and proved hole by hole.",
        docs_url=None,
        redoc_url=None,
        lifespan=_lifespan,
        separate_input_output_schemas=False,
        # The client's functions carry the names of the endpoints.
        generate_unique_id_function=lambda route: route.name,
    )
    app.state.settings = settings
    app.state.fingerprint = fingerprint
    app.add_middleware(BodyLimit, largest=settings.largest_body_bytes, larger=_larger_bodies(settings))
    app.add_middleware(door.AdmittedFirst)
    app.add_middleware(OwnPagesOnly, host=settings.host, proxy_name=settings.proxy_name)
    app.add_middleware(SecurityHeaders)
    mount_assets(app, settings.web)
    # Readings first: addresses are tried in this order, and a bench waits for each of them.
    app.include_router(readings.router, dependencies=[door.LetIn])
    app.include_router(tape.router, dependencies=[door.LetIn])
    for module in (health, pairing, sign_ins, reader_links):
        app.include_router(module.router)
    for router in (*itertools.chain.from_iterable(OF_SUBJECT.values()), *OF_ALL):
        app.include_router(router, dependencies=[door.LetIn])
    install_error_handlers(app)
    mount_pages(app, settings.web)
    return app
