"""Whether the application and its database answer."""

import psycopg
from fastapi import APIRouter, Request
from fastapi.responses import JSONResponse
from psycopg_pool import PoolTimeout
from pydantic import BaseModel

from vallostasis import __version__
from vallostasis.store.database import schema_version
from vallostasis.store.watch import Standing, standing_of

router = APIRouter(tags=["health"])


class Health(BaseModel):
    """Version of the application, state of its database, schema version reached."""

    version: str
    database: Standing
    schema_version: int | None


@router.get("/healthz", response_model=Health, responses={503: {"model": Health}})
def read_health(request: Request) -> JSONResponse:
    """Say whether everything answers; 503 when the database does not."""
    try:
        with request.app.state.pool.connection(timeout=2.0) as conn:
            health = Health(version=__version__, database=Standing.UP, schema_version=schema_version(conn))
        return JSONResponse(health.model_dump())
    except (psycopg.Error, PoolTimeout) as error:
        known: Standing = request.app.state.watch.standing
        standing = known if isinstance(error, PoolTimeout) else standing_of(error)
        away = Health(version=__version__, database=Standing.BUSY if standing is Standing.UP else standing,
                      schema_version=None)  # fmt: skip
        return JSONResponse(away.model_dump(), status_code=503)
