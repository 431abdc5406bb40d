"""People and gauges of the shop."""

from dataclasses import dataclass
from datetime import date
from decimal import Decimal
from uuid import UUID

from vallostasis.core.features.usual_lengths import GAUGE_STEP, REPEATABILITY, TIP_RADIUS
from vallostasis.core.gauges.gauge_study import Adopted
from vallostasis.core.notation.lengths import Unit, micrometres
from vallostasis.core.notation.typed_lengths import ExpectedRange
from vallostasis.core.records.gauges import GaugeVersion
from vallostasis.core.records.rows import Person
from vallostasis.services.lengths import read_usual
from vallostasis.services.refused import RefusalCode, Refused, version_after
from vallostasis.store import gauges, people
from vallostasis.store.rows import Conn

LONGEST_UM = Decimal(10_000_000)


def add_person(conn: Conn, name: str) -> Person:
    """Add somebody by name."""
    if any(person.name.casefold() == name.casefold() for person in people.list_people(conn)):
        raise Refused(f"{name} is already here: choose the name, or add another.", "name", RefusalCode.TAKEN)
    return people.add_person(conn, name)


@dataclass(frozen=True, slots=True)
class GaugeEntry:
    """A gauge as it is written down, lengths as typed: step and repeatability small lengths, the others sizes."""

    name: str
    kind: str
    resolution: str
    repeatability: str
    tip: str = ""
    note: str = ""
    range_from: str = ""
    range_to: str = ""
    tip_radius: str = ""
    calibrated_on: date | None = None
    due_on: date | None = None
    owner: str = ""
    master: str = ""
    faults: str = ""
    confirmed: bool = False
    small_unit: Unit = "µm"
    size_unit: Unit = "mm"


def save_gauge(conn: Conn, gauge_id: UUID | None, based_on_version: int, entry: GaugeEntry) -> GaugeVersion:
    """Add a gauge, or save a new version of one."""
    sheet = _sheet(entry)
    if gauge_id is None:
        if any(gauge.name.casefold() == entry.name.casefold() for gauge in gauges.list_gauges(conn)):
            raise Refused(
                f"There is a gauge called {entry.name}: give this one another name.", "name", RefusalCode.TAKEN
            )
        gauge_id = gauges.add_gauge(conn, entry.name, entry.kind)
        version = 1
    else:
        gauges.lock_gauge(conn, gauge_id)
        newest = gauges.get_gauge(conn, gauge_id)
        version = version_after(newest.version, based_on_version, newest.name)
    gauges.add_gauge_version(conn, gauge_id, version, sheet)
    return gauges.get_gauge(conn, gauge_id)


def _sheet(entry: GaugeEntry) -> gauges.GaugeSheet:
    resolution_um = _length("resolution", entry.resolution, entry.small_unit, GAUGE_STEP, entry.confirmed)
    repeatability_um = _length("repeatability", entry.repeatability, entry.small_unit, REPEATABILITY, entry.confirmed)
    if resolution_um is None or not 0 < resolution_um <= 1000:
        raise Refused("The graduation of a gauge lies above 0 and up to 1 mm: type it, such as 2 µm.", "resolution")
    if repeatability_um is None or not 0 <= repeatability_um <= 1000:
        raise Refused("Repeatability lies between 0 and 1 mm: type it, such as 3 µm.", "repeatability")
    range_from_um = _length("range_from", entry.range_from, entry.size_unit, None, True)
    range_to_um = _length("range_to", entry.range_to, entry.size_unit, None, True)
    if (range_from_um is None) is not (range_to_um is None):
        missing = "range_from" if range_from_um is None else "range_to"
        raise Refused("A range has two ends: type both, or neither.", missing)
    if range_from_um is not None and range_to_um is not None and range_from_um >= range_to_um:
        raise Refused("The range ends below where it begins: type its upper end here.", "range_to")
    tip_radius_um = _length("tip_radius", entry.tip_radius, entry.size_unit, TIP_RADIUS, entry.confirmed)
    if tip_radius_um is not None and tip_radius_um < 0:
        raise Refused("A radius cannot be negative: type it, such as 0.4 mm.", "tip_radius")
    if entry.calibrated_on is not None and entry.due_on is not None and entry.due_on < entry.calibrated_on:
        raise Refused("It would be due before it was calibrated: check both dates.", "due_on")
    return gauges.GaugeSheet(resolution_um, repeatability_um, entry.tip, entry.note, range_from_um, range_to_um,
                             tip_radius_um, entry.calibrated_on, entry.due_on, entry.owner, entry.master,
                             entry.faults)  # fmt: skip


def sheet_of_gauge(gauge: GaugeVersion, found: Adopted, gauge_study_id: UUID | None) -> gauges.GaugeSheet:
    """Return the sheet of a gauge with what a study found, everything else as it is."""
    repeatability_um = max(micrometres(found.repeatability_m), Decimal("0.0001"))
    reproducibility_um = micrometres(found.reproducibility_m)
    people = round(Decimal(found.reproducibility_freedom), 3) if reproducibility_um > 0 else None
    return gauges.GaugeSheet(gauge.resolution_um, repeatability_um, gauge.tip, gauge.note, gauge.range_from_um,
                             gauge.range_to_um, gauge.tip_radius_um, gauge.calibrated_on, gauge.due_on, gauge.owner,
                             gauge.master, gauge.faults, found.repeatability_freedom, gauge_study_id,
                             reproducibility_um, people)  # fmt: skip


def _length(field: str, text: str, unit: Unit, usual: ExpectedRange | None, confirmed: bool) -> Decimal | None:
    """Read a length of a gauge; None where nothing is typed."""
    if not text.strip():
        return None
    value_um = read_usual(field, text, unit, usual, confirmed).value_um
    if abs(value_um) > LONGEST_UM:
        raise Refused("No gauge of this trade is that long: check number and unit.", field)
    return value_um
