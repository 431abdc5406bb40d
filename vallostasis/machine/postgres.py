"""A private PostgreSQL cluster on loopback: made once, started with the application, stopped with it."""

import contextlib
import fcntl
import os
import pwd
import secrets
import shutil
import socket
import subprocess
import threading
from collections.abc import Iterator
from pathlib import Path

from psycopg.conninfo import make_conninfo

# How soon a server that died is started again. [s]
LOOK_AGAIN_S = 1.0
PORTS_TRIED = 3
DATABASE_USER = "vallostasis"
# Serves as this: it reads and adds, and owns nothing, so that it cannot switch off what keeps facts as they are.
APPLICATION_USER = "vallostasis_app"


class MachineError(Exception):
    """Something on this machine is in the way; the text says what to do."""


def server_programs() -> Path:
    """Folder with initdb, pg_ctl and postgres of the newest PostgreSQL installed."""
    found = [path for path in Path("/usr/lib/postgresql").glob("*/bin") if (path / "pg_ctl").exists()]
    if found:
        return max(found, key=lambda path: int(path.parent.name))
    on_path = shutil.which("pg_ctl")
    if on_path:
        return Path(on_path).resolve().parent
    raise MachineError("PostgreSQL is missing: install Debian's package postgresql, or set VALLO_DSN.")


class PrivateCluster:
    """One cluster in one folder; runs as the postgres user when started as root."""

    def __init__(self, folder: Path, *, durable: bool = True) -> None:
        self.folder = folder
        self.data = folder / "pg"
        self.durable = durable
        self.programs = server_programs()
        self.as_postgres = os.geteuid() == 0

    @property
    def is_made(self) -> bool:
        """Whether there is a cluster in its folder."""
        return (self.data / "PG_VERSION").exists()

    @property
    def password(self) -> str:
        """Password of its owner, drawn when the cluster was made."""
        return self._password_file().read_text().strip()

    @property
    def is_running(self) -> bool:
        """Whether its server runs."""
        return self._running_port() is not None

    def start(self, port: int | None = None) -> str:
        """Make the cluster if there is none, start it, at a port if one is named, and return how to connect."""
        self._prepare_folder()
        if not self.is_made:
            self._initialise()
        running = self._running_port()
        if running is None:
            self._forget_the_dead()
            port = self._start_at(port) if port else self._start_at_a_free_port()
        else:
            port = running
        return (f"host=127.0.0.1 port={port} user={DATABASE_USER} password={self.password} "
                "dbname=postgres connect_timeout=5")  # fmt: skip

    def _start_at(self, port: int) -> int:
        log = str(self.folder / "postgres.log")
        self._run("pg_ctl", "start", "-w", "-t", "60", "-D", str(self.data), "-l", log, "-o", self._options(port))
        return port

    def _start_at_a_free_port(self, tries: int = PORTS_TRIED) -> int:
        """Somebody may take a port between its being found free and the server's start: then another is tried."""
        try:
            return self._start_at(_free_port())
        except MachineError:
            if tries == 1:
                raise
            return self._start_at_a_free_port(tries - 1)

    def application_dsn(self, owner_dsn: str) -> str:
        """How the application reaches the database that its owner reaches so: as a user that owns nothing."""
        return make_conninfo(owner_dsn, user=APPLICATION_USER, password=self.application_password())

    def application_password(self) -> str:
        """Password of the application's own user, drawn when it is first asked for."""
        file = self.folder / "app-password"
        if not file.exists():
            file.touch(mode=0o600)
            file.write_text(secrets.token_urlsafe(24))
        return file.read_text().strip()

    def watch(self, stopping: threading.Event) -> None:
        """Start the server again at its port whenever it is found dead, until told to stop."""
        port = self._running_port()
        while not stopping.wait(LOOK_AGAIN_S):
            if self._running_port() is None:
                with contextlib.suppress(MachineError):
                    self.start(port)

    def stop(self) -> None:
        """Stop the server; open transactions are rolled back, everything committed is on disk."""
        if self._running_port() is not None:
            self._run("pg_ctl", "stop", "-w", "-m", "fast", "-t", "60", "-D", str(self.data))

    def _options(self, port: int) -> str:
        # The socket lives in the cluster's own folder; a long path falls back to loopback TCP alone.
        sockets = str(self.data) if len(str(self.data)) < 80 else ""
        options = f"-h 127.0.0.1 -p {port} -k '{sockets}'"
        return options if self.durable else f"{options} -c fsync=off -c full_page_writes=off"

    def _password_file(self) -> Path:
        return self.folder / "password"

    def _prepare_folder(self) -> None:
        try:
            self.folder.mkdir(parents=True, exist_ok=True, mode=0o750)
            if self.as_postgres:
                account = pwd.getpwnam("postgres")
                os.chown(self.folder, account.pw_uid, account.pw_gid)
        except KeyError:
            raise MachineError("There is no postgres user: install Debian's package postgresql.") from None
        except OSError as error:
            raise MachineError(f"{self.folder} cannot be used ({error}): set VALLO_DATA.") from None

    def _initialise(self) -> None:
        password = self._password_file()
        password.write_text(secrets.token_urlsafe(24))
        password.chmod(0o600)
        if self.as_postgres:
            account = pwd.getpwnam("postgres")
            os.chown(password, account.pw_uid, account.pw_gid)
        self._run("initdb", "-D", str(self.data), "-U", DATABASE_USER, f"--pwfile={password}", "--auth=scram-sha-256",
                  "--encoding=UTF8", "--locale=C.UTF-8", "--data-checksums")  # fmt: skip

    def _running_port(self) -> int | None:
        """Port of a running server of this cluster, one left behind by a kill too; None when none runs."""
        pid_file = self.data / "postmaster.pid"
        with contextlib.suppress(OSError, ValueError, IndexError):
            lines = pid_file.read_text().splitlines()
            if _is_postgres(int(lines[0])):
                return int(lines[3])
        return None

    def _forget_the_dead(self) -> None:
        """Remove the pid file of a killed server whose process nobody has collected: it counts as alive elsewhere."""
        pid_file = self.data / "postmaster.pid"
        with contextlib.suppress(OSError, ValueError, IndexError):
            if _process_state(int(pid_file.read_text().splitlines()[0])) == "Z":
                pid_file.unlink()

    def _run(self, program: str, *arguments: str) -> None:
        command = [str(self.programs / program), *arguments]
        if self.as_postgres:
            command = ["runuser", "-u", "postgres", "--", *command]
        # A file instead of a pipe: the server inherits it and would hold a pipe open for good.
        log = self.folder / f"{program}.log"
        with log.open("wb") as out:
            done = subprocess.run(command, stdout=out, stderr=subprocess.STDOUT, stdin=subprocess.DEVNULL, cwd="/")
        if done.returncode != 0:
            raise MachineError(f"{program} failed: {log.read_text(errors='replace').strip()[-600:]}")


def _is_postgres(pid: int) -> bool:
    """Whether a process of that number is a living PostgreSQL server; a stale file may name a number used again."""
    with contextlib.suppress(OSError):
        return Path(f"/proc/{pid}/comm").read_text().strip() == "postgres" and _process_state(pid) != "Z"
    return False


def _process_state(pid: int) -> str:
    """State letter of a process, Z for one that is dead but not collected; empty when there is none."""
    with contextlib.suppress(OSError):
        return Path(f"/proc/{pid}/stat").read_text().rpartition(")")[2].split()[0]
    return ""


def _free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


@contextlib.contextmanager
def only_one(folder: Path) -> Iterator[None]:
    """Hold a data folder, so that a second ./vallo does not stop the database of the first."""
    folder.mkdir(parents=True, exist_ok=True, mode=0o750)
    with (folder / "in-use").open("w") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            raise MachineError(f"Another ./vallo uses {folder}: stop it, or set VALLO_DATA.") from None
        yield
