"""Setting masters and their versions."""

from dataclasses import asdict, dataclass
from datetime import date
from decimal import Decimal
from uuid import UUID

from vallostasis.core.records.gauges import SettingMaster
from vallostasis.store.changes import announce
from vallostasis.store.revisions import advance_shop
from vallostasis.store.rows import Conn, fetch_all, fetch_one

COLUMNS = """
    v.setting_master_version_id, v.setting_master_id, m.name, v.version, v.size_um, v.typed, v.standard_um, v.material,
    v.calibrated_on, v.due_on, v.owner, v.note
"""
FROM = "setting_master m JOIN setting_master_version v USING (setting_master_id)"


@dataclass(frozen=True, slots=True)
class MasterSheet:
    """What is written about a master: everything but its name. [µm]"""

    size_um: Decimal
    typed: str
    standard_um: Decimal
    material: str
    calibrated_on: date | None
    due_on: date | None
    owner: str
    note: str


def list_masters(conn: Conn) -> tuple[SettingMaster, ...]:
    """Return the newest version of every master, by size."""
    query = f"""
        SELECT * FROM (SELECT DISTINCT ON (m.name) {COLUMNS} FROM {FROM} ORDER BY m.name, v.version DESC) newest
         ORDER BY size_um, name
    """
    return fetch_all(conn, SettingMaster, query)


def list_masters_of_job(conn: Conn, job_id: UUID) -> tuple[SettingMaster, ...]:
    """Return the versions of masters that gauges were set on for a job."""
    query = f"""
        SELECT {COLUMNS} FROM {FROM}
         WHERE v.setting_master_version_id IN (SELECT setting_master_version_id FROM setup WHERE job_id = %(job_id)s)
         ORDER BY m.name, v.version
    """
    return fetch_all(conn, SettingMaster, query, {"job_id": job_id})


def get_master(conn: Conn, setting_master_id: UUID) -> SettingMaster:
    """Return the newest version of one master; raise NotFound if there is none with that id."""
    query = f"SELECT {COLUMNS} FROM {FROM} WHERE m.setting_master_id = %(id)s ORDER BY v.version DESC LIMIT 1"
    return fetch_one(conn, SettingMaster, query, {"id": setting_master_id}, "setting master")


def lock_master(conn: Conn, setting_master_id: UUID) -> None:
    """Hold a master until the transaction ends, so that two people cannot save its next version at once."""
    conn.execute("SELECT 1 FROM setting_master WHERE setting_master_id = %(id)s FOR UPDATE", {"id": setting_master_id})


def add_master(conn: Conn, name: str) -> UUID:
    """Add a master without a version yet; the database refuses a name twice."""
    query = "INSERT INTO setting_master (name) VALUES (%(name)s) RETURNING setting_master_id"
    return UUID(str(conn.execute(query, {"name": name}).fetchone()[0]))  # type: ignore[index]


def add_master_version(conn: Conn, setting_master_id: UUID, version: int, sheet: MasterSheet) -> None:
    """Save the next version of a master."""
    conn.execute(
        """
        INSERT INTO setting_master_version (setting_master_id, version, size_um, typed, standard_um, material,
                                            calibrated_on, due_on, owner, note)
        VALUES (%(id)s, %(version)s, %(size_um)s, %(typed)s, %(standard_um)s, %(material)s, %(calibrated_on)s,
                %(due_on)s, %(owner)s, %(note)s)
        """,
        {"id": setting_master_id, "version": version, **asdict(sheet)},
    )
    advance_shop(conn)
    announce(conn, None)
