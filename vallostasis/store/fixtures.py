"""The plates, bars, blocks and pads of the shop."""

from dataclasses import asdict, dataclass
from decimal import Decimal
from uuid import UUID

from vallostasis.core.records.clamping import Fixture, FixtureKind
from vallostasis.store.changes import announce
from vallostasis.store.rows import Conn, fetch_all


@dataclass(frozen=True, slots=True)
class NewFixture:
    """A fixture as it is saved. [µm]"""

    name: str
    kind: FixtureKind
    fits: str
    thickness_um: Decimal | None
    material: str
    changed: str
    note: str


def list_fixtures(conn: Conn) -> tuple[Fixture, ...]:
    """Return every fixture as it is now, by name."""
    query = """
        SELECT DISTINCT ON (lower(f.name)) f.name, f.kind, f.fits, f.thickness_um, f.material, f.changed, f.note,
               f.saved_at, p.name AS saved_by
          FROM fixture f JOIN person p ON p.person_id = f.saved_by
         ORDER BY lower(f.name), f.event DESC
    """
    return fetch_all(conn, Fixture, query)


def add_fixture(conn: Conn, new: NewFixture, by: UUID) -> None:
    """Save a fixture; under a name that is known it takes the place of the one before."""
    conn.execute(
        """
        INSERT INTO fixture (name, kind, fits, thickness_um, material, changed, note, saved_by)
        VALUES (%(name)s, %(kind)s, %(fits)s, %(thickness_um)s, %(material)s, %(changed)s, %(note)s, %(by)s)
        """,
        {**asdict(new), "by": by},
    )
    announce(conn, None)
