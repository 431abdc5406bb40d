"""People and gauges of the shop."""

from decimal import Decimal
from uuid import UUID

from vallostasis.core.notation import parse_length
from vallostasis.core.records import GaugeVersion, Person
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.store import gauges, people
from vallostasis.store.rows import Conn


def add_person(conn: Conn, name: str) -> Person:
    """Add somebody by name."""
    if any(person.name.casefold() == name.casefold() for person in people.list_people(conn)):
        raise Refused(f"{name} is already here: choose the name, or add another.", "name", RefusalCode.TAKEN)
    return people.add_person(conn, name)


def save_gauge(
    conn: Conn,
    gauge_id: UUID | None,
    based_on_version: int,
    name: str,
    kind: str,
    resolution: str,
    repeatability: str,
    tip: str,
    note: str,
) -> GaugeVersion:
    """Add a gauge, or save a new version of one; lengths are typed in shop notation, bare ones in µm."""
    resolution_um = parse_length(resolution, "µm", confirmed=True).value_um
    repeatability_um = parse_length(repeatability, "µm", confirmed=True).value_um
    _check(resolution_um, repeatability_um)
    if gauge_id is None:
        if any(gauge.name.casefold() == name.casefold() for gauge in gauges.list_gauges(conn)):
            raise Refused(f"There is a gauge called {name}: give this one another name.", "name", RefusalCode.TAKEN)
        gauge_id = gauges.add_gauge(conn, name, kind)
        version = 1
    else:
        gauges.lock_gauge(conn, gauge_id)
        newest = gauges.get_gauge(conn, gauge_id)
        if newest.version != based_on_version:
            raise Refused(
                f"Version {newest.version} of {newest.name} was saved meanwhile: look at it, then save yours on top.",
                "based_on_version",
                RefusalCode.STALE,
            )
        version = newest.version + 1
    gauges.add_gauge_version(conn, gauge_id, version, resolution_um, repeatability_um, tip, note)
    return gauges.get_gauge(conn, gauge_id)


def _check(resolution_um: Decimal, repeatability_um: Decimal) -> None:
    if not 0 < resolution_um <= 1000:
        raise Refused("The graduation of a gauge lies above 0 and up to 1 mm: type it, such as 2 µm.", "resolution")
    if not 0 <= repeatability_um <= 1000:
        raise Refused("Repeatability lies between 0 and 1 mm: type it, such as 3 µm.", "repeatability")
