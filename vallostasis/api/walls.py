"""The wall of one hole: its bore under every load, what the load changes, wear, and what was found on it."""

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query

from vallostasis.api.deps import Conn
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.wall_models import WallView, wall_view
from vallostasis.core.records.rows import Quantity
from vallostasis.services import walls

router = APIRouter(prefix="/api/jobs/{job_id}/walls", tags=["bores"], responses=ERROR_RESPONSES)


@router.get("/{hole}")
def read_wall(
    job_id: UUID,
    hole: int,
    conn: Conn,
    of: Annotated[
        Quantity | None, Query(description="Which bore of the hole; the one that runs where not said.")
    ] = None,
    expanded: Annotated[bool, Query(description="Whether fields carry their ±.")] = False,
) -> WallView:
    """Return what is known of the wall of a hole."""
    facts, wall, title, quantities = walls.wall_now(conn, job_id, hole, of, expanded)
    return wall_view(facts, wall, title, quantities)
