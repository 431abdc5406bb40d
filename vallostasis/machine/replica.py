"""A second PostgreSQL on loopback that has everything the first has committed, and can take its place."""

import psycopg
from psycopg.conninfo import conninfo_to_dict, make_conninfo

from vallostasis.machine.postgres import PrivateCluster

# Only PostgreSQL decides which of two servers takes what is recorded: an application looks for the one that does.
TAKES_READINGS, READS_ONLY = "read-write", "prefer-standby"


class Replica(PrivateCluster):
    """A streaming replica of a cluster of the same machine."""

    def follow(self, primary: PrivateCluster, primary_dsn: str) -> str:
        """Copy the primary, follow it from now on, and return how to connect; it is waited for at each commit."""
        self._prepare_folder()
        self._password_file().write_text(primary.password)
        of = conninfo_to_dict(primary_dsn)
        copied = make_conninfo(host=of["host"], port=of["port"], user=of["user"], password=of["password"])
        self._run("pg_basebackup", "-D", str(self.data), "-X", "stream", "-c", "fast", "-R", "-d", copied)
        dsn = self.start()
        with psycopg.connect(primary_dsn, autocommit=True) as conn:
            # A reading is acknowledged once the replica has it, and has applied it: whoever asks there sees it.
            conn.execute("ALTER SYSTEM SET synchronous_standby_names = '*'")
            conn.execute("ALTER SYSTEM SET synchronous_commit = 'remote_apply'")
            conn.execute("SELECT pg_reload_conf()")
        return dsn

    def take_over(self) -> None:
        """Be the primary from now on, waiting for no other."""
        self._run("pg_ctl", "promote", "-w", "-t", "60", "-D", str(self.data))
        with psycopg.connect(self.start(), autocommit=True) as conn:
            conn.execute("ALTER SYSTEM RESET synchronous_standby_names")
            conn.execute("SELECT pg_reload_conf()")


def of_both(one: str, other: str, who: str) -> str:
    """How an application reaches whichever of two servers is what it looks for: ``who`` is one of the above."""
    first, second = conninfo_to_dict(one), conninfo_to_dict(other)
    return make_conninfo(one, host=f"{first['host']},{second['host']}", port=f"{first['port']},{second['port']}",
                         target_session_attrs=who, connect_timeout=2)  # fmt: skip
