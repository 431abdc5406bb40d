"""Backups: what is in one, written down beside it, and held against what comes back."""

import json
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path
from shutil import disk_usage
from typing import Any

from vallostasis import __version__
from vallostasis.machine.dump import read_manifest, restore_backup, write_backup
from vallostasis.machine.postgres import MachineError
from vallostasis.services.chain import links_now
from vallostasis.store import jobs, security_log
from vallostasis.store.backups import at_one_moment, connected, count_rows
from vallostasis.store.database import is_empty, migrate, newest_schema, schema_version
from vallostasis.store.rows import Conn

ENDING = ".vallo-backup"
# A disk with less room than this, or than three backups take, runs short. [bytes]
LEAST_FREE_BYTES = 2 * 1024**3
LATE_AFTER = 2.0


@dataclass(frozen=True, slots=True)
class Schedule:
    """Where backups go, how often, and how many of them stay."""

    folder: Path
    every: timedelta
    kept: int


@dataclass(frozen=True, slots=True)
class BackupsNow:
    """How backups stand: the newest, how large it is, how many there are, room left, and what is wrong in words."""

    folder: str
    newest_at: datetime | None
    newest_bytes: int
    count: int
    free_bytes: int
    warnings: tuple[str, ...]


def manifest_of(conn: Conn) -> dict[str, Any]:
    """Count the rows of every table, and name the head of every job's chain."""
    heads = {}
    present = schema_version(conn)
    # What an older version kept is counted before it is migrated; its jobs cannot be read yet.
    for job in jobs.list_jobs(conn) if present == newest_schema() else ():
        links = links_now(conn, job.job_id)
        heads[str(job.job_id)] = {"number": job.number, "entries": len(links) - 1, "head": links[-1].sha256}
    return {"version": __version__, "schema": present, "rows": count_rows(conn), "jobs": heads}


def make_backup(dsn: str, file: Path) -> dict[str, Any]:
    """Write a backup of everything at one moment, whatever is recorded meanwhile; return what is in it."""
    with at_one_moment(dsn) as (conn, snapshot):
        manifest = {"made_at": datetime.now(UTC).isoformat(), **manifest_of(conn)}
        write_backup(dsn, snapshot, json.dumps(manifest, indent=1).encode(), file)
    return manifest


def bring_back(dsn: str, file: Path, folder: Path) -> dict[str, Any]:
    """Restore a backup into an empty database, and hold every table and every job against what was written down."""
    manifest: dict[str, Any] = json.loads(read_manifest(file))
    if manifest["schema"] > newest_schema():
        raise MachineError(
            f"The backup was made by a newer version ({manifest['version']}): install that, then restore."
        )
    with connected(dsn) as conn:
        if not is_empty(conn):
            raise MachineError("There is a store here already: restore into an empty data folder (VALLO_DATA).")
    restore_backup(dsn, file, folder)
    with connected(dsn) as conn:
        found = differences(manifest, manifest_of(conn))
        if found:
            raise MachineError(f"What came back is not what was backed up: {'; '.join(found)}.")
        migrate(conn)
        words = f"backup of {manifest['made_at'][:16]} UTC, {file.name}"
        security_log.note(conn, security_log.SecurityKind.RESTORED, words)
    return manifest


def differences(backed_up: dict[str, Any], restored: dict[str, Any]) -> list[str]:
    """Say in words what of a backup is not there."""
    rows = [
        f"{table} has {restored['rows'].get(table, 0)} rows of {count}"
        for table, count in backed_up["rows"].items()
        if restored["rows"].get(table, 0) != count
    ]
    heads = [
        f"job {one['number']} is not as it was"
        for job, one in backed_up["jobs"].items()
        if restored["jobs"].get(job) != one
    ]
    return rows + heads


def list_backups(folder: Path) -> list[Path]:
    """Return the backups of a folder, oldest first."""
    return sorted(folder.glob(f"*{ENDING}")) if folder.is_dir() else []


def backups_now(schedule: Schedule, now: datetime) -> BackupsNow:
    """Say how backups stand, with what is wrong."""
    files = list_backups(schedule.folder)
    newest = files[-1].stat() if files else None
    at = None if newest is None else datetime.fromtimestamp(newest.st_mtime, UTC)
    free = disk_usage(_existing(schedule.folder)).free
    size = 0 if newest is None else newest.st_size
    warnings = []
    if at is None:
        warnings.append("there is no backup yet")
    elif now - at > LATE_AFTER * schedule.every:
        warnings.append(f"the newest backup is {(now - at) / timedelta(hours=1):.0f} hours old")
    if free < max(LEAST_FREE_BYTES, 3 * size):
        warnings.append(f"the disk runs short: {free / 1e9:.1f} GB left")
    return BackupsNow(str(schedule.folder), at, size, len(files), free, tuple(warnings))


def _existing(folder: Path) -> Path:
    return next(one for one in (folder, *folder.parents) if one.exists())


def back_up_when_due(dsn: str, schedule: Schedule, now: datetime) -> Path | None:
    """Write a backup where the newest is old enough, and let the oldest go; return the one that was written."""
    files = list_backups(schedule.folder)
    if files and now - datetime.fromtimestamp(files[-1].stat().st_mtime, UTC) < schedule.every:
        return None
    file = schedule.folder / f"{now:%Y-%m-%d-%H%M%S}{ENDING}"
    make_backup(dsn, file)
    for old in list_backups(schedule.folder)[: -schedule.kept]:
        old.unlink(missing_ok=True)
    return file
