"""The stream of what changes, for every open screen."""

from collections.abc import AsyncIterator
from typing import Literal
from uuid import UUID

from fastapi import APIRouter, Request
from fastapi.sse import EventSourceResponse
from pydantic import BaseModel, Field

from vallostasis.api.door import let_in
from vallostasis.api.errors import NotAdmitted
from vallostasis.services.change_feed import ChangeFeed

router = APIRouter(prefix="/api", tags=["changes"])


class ChangeView(BaseModel):
    """A job that changed; null where everything may have changed."""

    kind: Literal["beat", "changed"] = Field(description="A beat says that the link stands and all is quiet.")
    job_id: UUID | None


@router.get("/changes", response_class=EventSourceResponse)
async def stream_changes(request: Request) -> AsyncIterator[ChangeView]:
    """Tell of every change as it is committed, whichever process made it."""
    feed: ChangeFeed = request.app.state.feed
    of = request.client.host if request.client else ""
    async for change in feed.changes(of):
        # Whoever was signed out meanwhile hears no more: asking again, it is told why.
        try:
            await let_in(request)
        except NotAdmitted:
            return
        if change is None:
            yield ChangeView(kind="beat", job_id=None)
        else:
            yield ChangeView(kind="changed", job_id=change.job_id)
