"""A whole database into one file and out of it again, by PostgreSQL's own programs."""

import contextlib
import os
import shutil
import subprocess
import zipfile
from pathlib import Path

import psycopg
from psycopg.conninfo import conninfo_to_dict

from vallostasis.machine.postgres import MachineError, server_programs

DUMP, MANIFEST = "database.dump", "manifest.json"
LONGEST_S = 3600
_AS_VARIABLE = {
    "host": "PGHOST", "port": "PGPORT", "user": "PGUSER", "password": "PGPASSWORD", "dbname": "PGDATABASE",
    "target_session_attrs": "PGTARGETSESSIONATTRS",
}  # fmt: skip


def _environment(dsn: str) -> dict[str, str]:
    """Name the database by variables: arguments are seen by everybody on the machine."""
    named = conninfo_to_dict(dsn)
    return {**os.environ, **{_AS_VARIABLE[key]: str(value) for key, value in named.items() if key in _AS_VARIABLE}}


def _schema(dsn: str) -> str:
    """Name of the schema that whoever connects so works in: a shop's own where several share a database."""
    with psycopg.connect(dsn) as conn:
        row = conn.execute("SELECT current_schema()").fetchone()
    return str(row[0]) if row else "public"


def _run(program: str, arguments: list[str], dsn: str) -> None:
    found = server_programs() / program
    done = subprocess.run([str(found), *arguments], env=_environment(dsn), stdin=subprocess.DEVNULL,
                          stdout=subprocess.DEVNULL, stderr=subprocess.PIPE, text=True, timeout=LONGEST_S)  # fmt: skip
    if done.returncode != 0:
        raise MachineError(f"{program} failed: {done.stderr.strip()[-600:]}")


def write_backup(dsn: str, snapshot: str, manifest: bytes, file: Path) -> None:
    """Dump what a snapshot of the database shows into a file, beside what is to be found in it.

    The file is there whole or not at all.
    """
    dump, part = file.with_name(f"{file.name}.dump"), file.with_name(f"{file.name}.part")
    try:
        file.parent.mkdir(parents=True, exist_ok=True, mode=0o750)
        _run("pg_dump", ["--format=custom", f"--snapshot={snapshot}", "--no-owner", "--no-privileges",
                         f"--schema={_schema(dsn)}", f"--file={dump}"], dsn)  # fmt: skip
        _run("pg_restore", ["--list", str(dump)], dsn)
        with zipfile.ZipFile(part, "w", zipfile.ZIP_STORED) as packed:
            packed.writestr(MANIFEST, manifest)
            packed.write(dump, DUMP)
        part.chmod(0o600)
        part.replace(file)
    except OSError as error:
        raise MachineError(f"{file} cannot be written: {error.strerror or error}.") from None
    finally:
        for left in (dump, part):
            with contextlib.suppress(OSError):
                left.unlink(missing_ok=True)


def read_manifest(file: Path) -> bytes:
    """Return what a backup says that is in it; raise MachineError where it is none."""
    try:
        with zipfile.ZipFile(file) as packed:
            if packed.testzip() is not None:
                raise MachineError(f"{file} is damaged: take an older backup.")
            return packed.read(MANIFEST)
    except (OSError, KeyError, zipfile.BadZipFile) as error:
        raise MachineError(f"{file} is no backup of ./vallo backup: {error}.") from None


def restore_backup(dsn: str, file: Path, folder: Path) -> None:
    """Put what a backup holds into an empty database: all of it, or nothing."""
    dump = folder / "restoring.dump"
    try:
        with zipfile.ZipFile(file) as packed, packed.open(DUMP) as source, dump.open("wb") as out:
            shutil.copyfileobj(source, out)
        dump.chmod(0o600)
        _run("pg_restore", ["--single-transaction", "--exit-on-error", "--no-owner", "--no-privileges",
                            f"--schema={_schema(dsn)}", f"--dbname={conninfo_to_dict(dsn)['dbname']}", str(dump)],
             dsn)  # fmt: skip
    except OSError as error:
        raise MachineError(f"{file} cannot be unpacked into {folder}: {error.strerror or error}.") from None
    finally:
        with contextlib.suppress(OSError):
            dump.unlink(missing_ok=True)
