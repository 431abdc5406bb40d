"""The counterbore cutters of the shop, their cards, what was done to them, and the switch that ends a pass."""

from dataclasses import asdict, dataclass
from datetime import date
from decimal import Decimal
from uuid import UUID

from vallostasis.core.records.cut_runs import CutterService, CutterVersion
from vallostasis.store.changes import announce
from vallostasis.store.rows import Conn, fetch_all

NEWEST = """
    SELECT DISTINCT ON (c.name) c.cutter_id, c.name, v.version, v.bit, v.bit_projection_um, v.oil, v.collars,
           v.stop_set, v.graduation_um, v.stop_accuracy_um, v.graduation_error_percent, v.torque_nm, v.bore_least_um,
           v.bore_greatest_um, v.vacuum_every, v.note, v.saved_at, p.name AS saved_by
      FROM cutter c JOIN cutter_version v USING (cutter_id) JOIN person p ON p.person_id = v.saved_by
"""


@dataclass(frozen=True, slots=True)
class CutterSheet:
    """What is written about a cutter: everything but its name. [µm], [N·m]"""

    bit: str
    bit_projection_um: Decimal | None
    oil: str
    collars: str
    stop_set: str
    graduation_um: Decimal
    stop_accuracy_um: Decimal
    graduation_error_percent: Decimal
    torque_nm: Decimal | None
    bore_least_um: Decimal | None
    bore_greatest_um: Decimal | None
    vacuum_every: int
    note: str


def list_cutters(conn: Conn) -> tuple[CutterVersion, ...]:
    """Return the newest card of every cutter, by name."""
    return fetch_all(conn, CutterVersion, f"{NEWEST} ORDER BY c.name, v.version DESC")


def find_cutter(conn: Conn, name: str) -> CutterVersion | None:
    """Return the card of the cutter of that name, or None."""
    query = f"{NEWEST} WHERE lower(c.name) = lower(%(name)s) ORDER BY c.name, v.version DESC"
    found = fetch_all(conn, CutterVersion, query, {"name": name})
    return found[0] if found else None


def add_cutter(conn: Conn, name: str) -> UUID:
    """Add a cutter without a card yet; the database refuses a name twice."""
    query = "INSERT INTO cutter (name) VALUES (%(name)s) RETURNING cutter_id"
    return UUID(str(conn.execute(query, {"name": name}).fetchone()[0]))  # type: ignore[index]


def lock_cutter(conn: Conn, cutter_id: UUID) -> None:
    """Hold a cutter until the transaction ends, so that two people cannot save its next card at once."""
    conn.execute("SELECT 1 FROM cutter WHERE cutter_id = %(id)s FOR UPDATE", {"id": cutter_id})


def add_cutter_version(conn: Conn, cutter_id: UUID, version: int, sheet: CutterSheet, by: UUID) -> None:
    """Save the next card of a cutter."""
    conn.execute(
        """
        INSERT INTO cutter_version (cutter_id, version, bit, bit_projection_um, oil, collars, stop_set, graduation_um,
                                    stop_accuracy_um, graduation_error_percent, torque_nm, bore_least_um,
                                    bore_greatest_um, vacuum_every, note, saved_by)
        VALUES (%(id)s, %(version)s, %(bit)s, %(bit_projection_um)s, %(oil)s, %(collars)s, %(stop_set)s,
                %(graduation_um)s, %(stop_accuracy_um)s, %(graduation_error_percent)s, %(torque_nm)s, %(bore_least_um)s,
                %(bore_greatest_um)s, %(vacuum_every)s, %(note)s, %(by)s)
        """,
        {"id": cutter_id, "version": version, "by": by, **asdict(sheet)},
    )
    announce(conn, None)


def list_services(conn: Conn) -> tuple[CutterService, ...]:
    """Return everything that was done to cutters, newest first."""
    query = """
        SELECT s.cutter_id, s.kind, s.words, s.done_on, p.name AS noted_by
          FROM cutter_service s JOIN person p ON p.person_id = s.noted_by
         ORDER BY s.done_on DESC, s.event DESC
    """
    return fetch_all(conn, CutterService, query)


def add_service(conn: Conn, cutter_id: UUID, kind: str, words: str, done_on: date, by: UUID) -> None:
    """Record what was done to a cutter."""
    conn.execute(
        """
        INSERT INTO cutter_service (cutter_id, kind, words, done_on, noted_by)
        VALUES (%(cutter_id)s, %(kind)s, %(words)s, %(done_on)s, %(by)s)
        """,
        {"cutter_id": cutter_id, "kind": kind, "words": words, "done_on": done_on, "by": by},
    )
    announce(conn, None)


@dataclass(frozen=True, slots=True)
class PassSwitchRow:
    """Where the switch sends its lines."""

    url: str
    simulated: bool


def present_switch(conn: Conn) -> PassSwitchRow | None:
    """Return the switch that is set up; None where there is none."""
    found = fetch_all(conn, PassSwitchRow, "SELECT url, simulated FROM pass_switch ORDER BY event DESC LIMIT 1")
    return found[0] if found else None


def set_up_switch(conn: Conn, url: str, simulated: bool) -> None:
    """Listen to the switch there from now on."""
    conn.execute(
        "INSERT INTO pass_switch (url, simulated) VALUES (%(url)s, %(simulated)s)", {"url": url, "simulated": simulated}
    )
    announce(conn, None)
