"""The gauge cabinet: masters that gauges are set on, what was done to gauges, and which gauge is fit for what."""

from dataclasses import dataclass
from datetime import date
from decimal import Decimal, InvalidOperation
from uuid import UUID

from vallostasis.core.features.usual_lengths import MASTER_EXPANDED, MASTER_SIZE
from vallostasis.core.notation.lengths import Unit, micrometres
from vallostasis.core.notation.typed_lengths import ExpectedRange, as_entered, parse_length
from vallostasis.core.records.gauges import GaugeVersion, MasterReading, SettingMaster
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.temperatures import RoomAssumed
from vallostasis.core.surveys.fitness import DecisionAsked, GaugeFit, decisions_of, fit_for
from vallostasis.core.surveys.set_budget import master_reading_budget
from vallostasis.services.lengths import read_usual
from vallostasis.services.refused import RefusalCode, Refused, version_after
from vallostasis.services.temperatures import read_temperature
from vallostasis.store import gauge_services, gauges, master_readings, materials, room, setting_masters
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn

LARGEST_UM = Decimal(2_000_000)
WIDEST_UM = Decimal(100)
FARTHEST_OFF_UM = Decimal(500)
LARGEST_EXPANSION = Decimal(100)
COLDEST_ROOM_C, WARMEST_ROOM_C, WIDEST_ROOM_K = -30, 50, 30


@dataclass(frozen=True, slots=True)
class MasterEntry:
    """A master as it is written down, lengths as typed: its size, and its expanded uncertainty (k = 2)."""

    name: str
    size: str
    expanded: str
    material: str = "steel"
    calibrated_on: date | None = None
    due_on: date | None = None
    owner: str = ""
    note: str = ""
    confirmed: bool = False
    small_unit: Unit = "µm"
    size_unit: Unit = "mm"


def save_master(conn: Conn, setting_master_id: UUID | None, based_on_version: int, entry: MasterEntry) -> SettingMaster:
    """Add a setting master, or save a new version of one."""
    sheet = _sheet(entry)
    if setting_master_id is None:
        if any(one.name.casefold() == entry.name.casefold() for one in setting_masters.list_masters(conn)):
            raise Refused(f"There is a master called {entry.name}: give this one another name.", "name",
                          RefusalCode.TAKEN)  # fmt: skip
        setting_master_id = setting_masters.add_master(conn, entry.name)
        version = 1
    else:
        setting_masters.lock_master(conn, setting_master_id)
        newest = setting_masters.get_master(conn, setting_master_id)
        version = version_after(newest.version, based_on_version, newest.name)
    setting_masters.add_master_version(conn, setting_master_id, version, sheet)
    return setting_masters.get_master(conn, setting_master_id)


def _sheet(entry: MasterEntry) -> setting_masters.MasterSheet:
    size_um, typed = _length("size", entry.size, entry.size_unit, MASTER_SIZE, entry.confirmed)
    if not 0 < size_um <= LARGEST_UM:
        raise Refused("A master has a size above 0 and up to 2 m: type it, such as 100.0003 mm.", "size")
    expanded_um, _ = _length("expanded", entry.expanded, entry.small_unit, MASTER_EXPANDED, entry.confirmed)
    if not 0 <= expanded_um <= WIDEST_UM:
        raise Refused("Its uncertainty lies between 0 and 100 µm: type what its certificate says.", "expanded")
    if entry.calibrated_on is not None and entry.due_on is not None and entry.due_on < entry.calibrated_on:
        raise Refused("It would be due before it was calibrated: check both dates.", "due_on")
    return setting_masters.MasterSheet(size_um, typed, expanded_um / 2, entry.material, entry.calibrated_on,
                                       entry.due_on, entry.owner, entry.note)  # fmt: skip


def _length(field: str, text: str, bare_unit: Unit, usual: ExpectedRange, confirmed: bool) -> tuple[Decimal, str]:
    parsed = read_usual(field, text, bare_unit, usual, confirmed)
    return parsed.value_um, as_entered(parsed.typed, parsed.unit)


def note_service(conn: Conn, gauge_id: UUID, kind: str, words: str, done_on: date, by: UUID) -> None:
    """Record what was done to a gauge."""
    gauges.get_gauge(conn, gauge_id)
    if done_on > date.today():
        raise Refused("That day is still to come: type when it was done.", "done_on")
    gauge_services.add_service(conn, gauge_id, kind, words, done_on, by)


@dataclass(frozen=True, slots=True)
class FitFor:
    """A decision of the card, how fit every gauge is for it, and which one is in use."""

    asked: DecisionAsked
    fits: tuple[GaugeFit, ...]
    in_use: UUID | None


def gauges_for_job(conn: Conn, job_id: UUID) -> list[FitFor]:
    """Say for every decision of a job's card which gauges of the cabinet would do."""
    facts: JobFacts = load_job_facts(conn, job_id)
    cabinet, today = gauges.list_gauges(conn), date.today()
    found = []
    for asked in decisions_of(facts.card):
        every = (fit_for(asked, gauge, facts.card.coverage_factor, today) for gauge in cabinet)
        fits = sorted((one for one in every if one is not None), key=lambda one: one.expanded_m)
        setup = facts.present_setup(asked.quantity)
        found.append(FitFor(asked, tuple(fits), None if setup is None else setup.gauge_id))
    return found


@dataclass(frozen=True, slots=True)
class MasterRead:
    """A master read with a gauge: how far off it stood, and whether that is more than the two can explain. [µm]"""

    reading: MasterReading
    gauge: GaugeVersion
    expanded_um: Decimal
    agrees: bool


def list_master_readings(conn: Conn) -> list[MasterRead]:
    """Return every reading of a master with what it says of the gauge."""
    by_gauge = {gauge.gauge_id: gauge for gauge in gauges.list_gauges(conn)}
    masters = {one.setting_master_id: one for one in setting_masters.list_masters(conn)}
    found = []
    for reading in master_readings.list_master_readings(conn):
        gauge = by_gauge[reading.gauge_id]
        expanded_um = micrometres(master_reading_budget(gauge, masters[reading.setting_master_id]).expanded_m, 2)
        found.append(MasterRead(reading, gauge, expanded_um, abs(reading.off_um) <= expanded_um))
    return found


@dataclass(frozen=True, slots=True)
class MasterReadingToTake:
    """A master read with a gauge, as typed: its size, in whose shop."""

    reading_id: UUID
    setting_master_id: UUID
    gauge_id: UUID
    shop: str
    text: str
    bare_unit: Unit


def read_master(conn: Conn, ask: MasterReadingToTake, by: UUID) -> None:
    """Record what a gauge showed on a master."""
    master = setting_masters.get_master(conn, ask.setting_master_id)
    gauge = gauges.get_gauge(conn, ask.gauge_id)
    near = ExpectedRange(master.size_um - FARTHEST_OFF_UM, master.size_um + FARTHEST_OFF_UM)
    parsed = parse_length(ask.text, ask.bare_unit, near, confirmed=False)
    if not near.least_um <= parsed.value_um <= near.greatest_um:
        raise Refused(f"{master.name} is {master.typed}: type the whole size that the gauge shows on it.", "text")
    typed = as_entered(parsed.typed, parsed.unit)
    master_readings.add_master_reading(
        conn,
        ask.reading_id,
        master.setting_master_version_id,
        gauge.gauge_version_id,
        ask.shop,
        parsed.value_um,
        typed,
        by,
    )


def assume_room(conn: Conn, mean: str, standard: str, by: UUID) -> RoomAssumed:
    """Write down how warm the shop is taken to be where nobody took a temperature: mean, and spread in kelvin."""
    mean_c = read_temperature(mean, "mean")
    try:
        standard_k = Decimal(standard.strip().replace(",", "."))
    except InvalidOperation:
        raise Refused("Type the spread in kelvin, such as 5.", "standard") from None
    if not standard_k.is_finite() or not 0 <= standard_k <= WIDEST_ROOM_K:
        raise Refused(f"A shop varies by 0 to {WIDEST_ROOM_K} K: type its standard deviation.", "standard")
    if not COLDEST_ROOM_C <= mean_c <= WARMEST_ROOM_C:
        raise Refused(
            f"A shop is between {COLDEST_ROOM_C} and {WARMEST_ROOM_C} °C: type its usual temperature.", "mean"
        )
    room.add_room(conn, mean_c, standard_k, by)
    return room.get_room(conn)


def write_material(conn: Conn, name: str, alpha: str, hottest_c: Decimal | None, source: str, by: UUID) -> None:
    """Write down how a material expands, typed in millionths per kelvin."""
    try:
        millionths = Decimal(alpha.strip().replace(",", "."))
    except InvalidOperation:
        raise Refused("Type the expansion in millionths per kelvin, such as 10.5.", "alpha") from None
    if not millionths.is_finite() or not 0 <= millionths <= LARGEST_EXPANSION:
        raise Refused("Materials of this trade expand by 0 to 100 millionths per kelvin.", "alpha")
    materials.add_material(conn, name, millionths / 1_000_000, hottest_c, source, by)
