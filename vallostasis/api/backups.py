"""How backups stand: the newest, room on the disk, what is wrong."""

from datetime import UTC, datetime, timedelta

from fastapi import APIRouter, Request
from pydantic import BaseModel, Field

from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.services.backups import Schedule, backups_now
from vallostasis.settings import Settings

router = APIRouter(prefix="/api", tags=["shop"], responses=ERROR_RESPONSES)


class BackupsView(BaseModel):
    """Where backups go, how old the newest is, and what is wrong in words."""

    folder: str
    every_h: float
    newest_at: datetime | None = Field(description="Null while there is none.")
    newest_bytes: int
    count: int
    free_bytes: int = Field(description="Room left where backups go.")
    warnings: list[str]


@router.get("/backups")
def read_backups(request: Request) -> BackupsView:
    """Say how backups stand; the database is not asked."""
    settings: Settings = request.app.state.settings
    schedule = Schedule(settings.backup_folder, timedelta(hours=settings.backup_every_h), settings.backups_kept)
    now = backups_now(schedule, datetime.now(UTC))
    return BackupsView(
        folder=now.folder,
        every_h=settings.backup_every_h,
        newest_at=now.newest_at,
        newest_bytes=now.newest_bytes,
        count=now.count,
        free_bytes=now.free_bytes,
        warnings=list(now.warnings),
    )
