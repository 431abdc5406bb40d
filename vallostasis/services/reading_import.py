"""Readings from a table: every row is checked as if it were typed, and all are taken, or none."""

from collections import defaultdict
from dataclasses import dataclass
from datetime import UTC, datetime
from decimal import Decimal
from enum import StrEnum
from uuid import UUID, uuid5

from vallostasis.core.errors import CoreError
from vallostasis.core.features.catalogue import PartKind, feature_of, is_surveyed
from vallostasis.core.features.parts import Target
from vallostasis.core.gauges.read_with_gauge import read_with_gauge
from vallostasis.core.notation.lengths import MICROMETRES_PER, Unit
from vallostasis.core.notation.odd_reading import ask_if_odd
from vallostasis.core.notation.typed_lengths import ParsedLength
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity, Setup, ZeroedOn
from vallostasis.documents.readings_table import TableRow
from vallostasis.services.block import ChangedState, changed_states
from vallostasis.services.reading_target import (
    ReadingToTake,
    known_land,
    target_of,
)
from vallostasis.services.readings import (
    ask_if_out_of_range,
    expected_range,
    new_set,
    setup_for,
    usual_spread_um,
)
from vallostasis.services.refused import Refused
from vallostasis.store import jobs, people, readings
from vallostasis.store.fact_rows import record_fact
from vallostasis.store.job_facts import load_job_facts, read_job_facts
from vallostasis.store.new_facts import NewStrike
from vallostasis.store.rows import Conn

# What stands where the screen of a reading does that was typed.
FROM_A_TABLE = "a table"


class Take(StrEnum):
    """What to do with the rows: only look at them, take all or nothing, or leave the bad ones out."""

    ONLY_CHECK = "only check"
    ALL_OR_NOTHING = "all or nothing"
    LEAVE_BAD_OUT = "leave bad rows out"


class Verdict(StrEnum):
    """What becomes of a row."""

    GOOD = "good"
    HERE_ALREADY = "here already"
    BAD = "bad"


@dataclass(frozen=True, slots=True)
class ImportWish:
    """How a table is to be read. ``import_id`` is made once for a file: sending it again doubles nothing."""

    import_id: UUID
    take: Take
    quantity: Quantity
    small_unit: Unit
    size_unit: Unit
    as_written: bool


@dataclass(frozen=True, slots=True)
class RowReport:
    """One row of the file: where it belongs, what it says, and why it is not taken where it is not."""

    number: int
    where: str
    words: str
    verdict: Verdict
    message: str


@dataclass(frozen=True, slots=True)
class ImportReport:
    """Every row of a file, how many readings were recorded, and which states change with the good rows."""

    rows: tuple[RowReport, ...]
    taken: int
    changes: tuple[ChangedState, ...] = ()


@dataclass(frozen=True, slots=True)
class _Reading:
    """A row understood: a reading with its place, its pass and who took it when."""

    row: TableRow
    ask: ReadingToTake
    target: Target
    pass_name: str
    repeat: int
    parsed: ParsedLength
    taken_by: UUID
    taken_at: datetime | None

    @property
    def place(self) -> tuple[object, ...]:
        """One position, or one land of a flange, in one pass."""
        return (*self.one_set, self.ask.place)

    @property
    def one_set(self) -> tuple[object, ...]:
        """What goes into one set together."""
        return (self.target, self.pass_name, self.ask.land.casefold())


def import_readings(conn: Conn, job_id: UUID, table: tuple[TableRow, ...], wish: ImportWish, by: UUID) -> ImportReport:
    """Check the rows of a table and record what the wish says; every target gets a pass of its own."""
    jobs.lock_job(conn, job_id)
    checker = _Checker(load_job_facts(conn, job_id), wish, by, {p.name: p.person_id for p in people.list_people(conn)})
    reports = [checker.check(row) for row in table]
    bad = any(report.verdict is Verdict.BAD for report in reports)
    if wish.take is Take.ONLY_CHECK or (bad and wish.take is Take.ALL_OR_NOTHING):
        return ImportReport(tuple(reports), 0, _changes(conn, checker.facts, checker.good, by))
    _record(conn, checker.facts, checker.good, by)
    return ImportReport(tuple(reports), len(checker.good))


class _Checker:
    """Reads row after row; a row is also checked against those before it."""

    def __init__(self, facts: JobFacts, wish: ImportWish, by: UUID, known_people: dict[str, UUID]) -> None:
        self.facts, self.wish, self.by, self.people = facts, wish, by, known_people
        self.here = {reading.reading_id for reading in facts.readings}
        self.good: list[_Reading] = []
        self._rows_of_place: dict[tuple[object, ...], int] = {}
        self._values: dict[tuple[object, ...], list[Decimal]] = defaultdict(list)

    def check(self, row: TableRow) -> RowReport:
        """Say what becomes of a row; a good one is kept to be recorded."""
        where, words = _where(row), " ".join(part for part in (row["reading"], row["unit"]) if part)
        try:
            reading = self._understood(row)
            if reading.ask.reading_id in self.here:
                return RowReport(row.number, where, words, Verdict.HERE_ALREADY, "")
            self._fits_the_others(reading)
        except (CoreError, Refused) as error:
            return RowReport(row.number, where, words, Verdict.BAD, str(error))
        self.good.append(reading)
        note = "its zero correction is not taken over" if row["zero_correction"] not in ("", "0") else ""
        return RowReport(row.number, where, words, Verdict.GOOD, note)

    def _understood(self, row: TableRow) -> _Reading:
        quantity = _quantity(row, self.wish.quantity)
        setup = self._setup(quantity)
        deviation = setup.zeroed_on is not ZeroedOn.DATUM and is_surveyed(quantity)
        bare = self.wish.size_unit if feature_of(quantity).is_size and not deviation else self.wish.small_unit
        ask = ReadingToTake(
            reading_id=self._id(row),
            quantity=quantity,
            hole=_whole(row, "hole", "The hole is a number"),
            hour=_hour(row),
            liner_mark=_liner_mark(row, quantity),
            land=row["land"],
            text=row["reading"],
            bare_unit=_unit(row, bare),
            confirmed=self.wish.as_written,
            read_before="",
            new_pass=True,
            part_temp_c=_number(row, "part_temp_c", -60, 300),
            part=_part_key(row, quantity),
            level_um=_um(row, "level_mm"),
            axis_deg=_axis(row),
            along_um=_um(row, "along_mm"),
            across_um=_um(row, "across_mm"),
        )
        target = target_of(self.facts, ask)
        self._same_circumstances(row, ask, target)
        allowed, gauge = expected_range(self.facts.card, setup), self.facts.newest_gauge(setup.gauge_id)
        parsed = read_with_gauge(ask.text, ask.bare_unit, setup, gauge, allowed, self.wish.as_written)
        if not self.wish.as_written:
            ask_if_out_of_range(gauge, setup, parsed)
        if row["value_um"] and _number(row, "value_um", -(10**9), 10**9) != parsed.value_um:
            raise Refused(f"The row says {row['value_um']} µm and {row['reading']}: which is right?")
        repeat = _whole(row, "repeat", "The repeat is a number, 1 for the first") or 1
        return _Reading(row, ask, target, row["set"], repeat, parsed, self._who(row), _when(row))

    def _id(self, row: TableRow) -> UUID:
        """Its own id where this job knows it, else one that is the same whenever this file is sent."""
        try:
            own = UUID(row["reading_id"])
        except ValueError:
            own = None
        return own if own in self.here and own is not None else uuid5(self.wish.import_id, str(row.number))

    def _setup(self, quantity: Quantity) -> Setup:
        setup = self.facts.present_setup(quantity)
        if setup is None:
            raise Refused(f"Choose the gauge for {quantity.value} first.")
        return setup

    def _same_circumstances(self, row: TableRow, ask: ReadingToTake, target: Target) -> None:
        """Readings taken otherwise do not go into one set with those taken as the job reads now."""
        setup = self._setup(ask.quantity)
        gauge = self.facts.newest_gauge(setup.gauge_id)
        torque = setup.hold_down_torque_nm
        now_by_column = {
            "gauge": gauge.name,
            "datum": setup.datum,
            "hold_down": setup.hold_down,
            "hold_down_torque_nm": "" if torque is None else f"{torque.normalize():f}",
            "land": setup.land,
            "load": setup.load,
            "method": setup.method,
            "zeroed_on": setup.zeroed_on.value,
            "zero_um": f"{setup.zero_um.normalize():f}",
        }
        if ask.quantity is Quantity.FLANGE_THICKNESS and row["land"]:
            now_by_column["land"] = known_land(self.facts, row["land"])
        for column, now in now_by_column.items():
            if row[column] and row[column].casefold() != now.casefold():
                raise Refused(
                    f"The row was read with {column.replace('_', ' ')} {row[column]}, the job now reads with "
                    f"{now or 'none'}: choose that first, then bring the file in."
                )
        fitting = next((f for f in self.facts.fittings if f.fitting_id == target.fitting_id), None)
        if fitting is not None and row["liner"]:
            mark = self.facts.liner(fitting.liner_id).mark
            if mark.casefold() != row["liner"].casefold():
                raise Refused(f"Hole {ask.hole} holds {mark}, the row is of {row['liner']}.")

    def _who(self, row: TableRow) -> UUID:
        if not row["taken_by"]:
            return self.by
        for name, person_id in self.people.items():
            if name.casefold() == row["taken_by"].casefold():
                return person_id
        raise Refused(f"Nobody here is called {row['taken_by']}: add the person, or leave the column out.")

    def _fits_the_others(self, reading: _Reading) -> None:
        place = (*reading.place, reading.repeat)
        earlier = self._rows_of_place.get(place)
        if earlier is not None:
            raise Refused(
                f"Repeat {reading.repeat} of this position stands in row {earlier} already: number the repeats."
            )
        others = self._values[reading.one_set]
        if not self.wish.as_written and not reading.row["struck"]:
            spread = usual_spread_um(self.facts.card, reading.ask.quantity)
            ask_if_odd(reading.parsed, tuple(others), spread)
        self._rows_of_place[place] = reading.row.number
        if not reading.row["struck"]:
            others.append(reading.parsed.value_um)


def _changes(conn: Conn, facts: JobFacts, good: list[_Reading], by: UUID) -> tuple[ChangedState, ...]:
    """Find what the good rows would change, by recording them for once and taking it all back."""
    with conn.transaction(force_rollback=True):
        _record(conn, facts, good, by)
        return changed_states(facts, read_job_facts(conn, facts.job.job_id))


def _record(conn: Conn, facts: JobFacts, good: list[_Reading], by: UUID) -> None:
    setups: dict[tuple[Quantity, str], Setup] = {}
    sets: dict[tuple[Target, str, UUID], UUID] = {}
    rows: list[tuple[readings.NewReading, UUID]] = []
    for one in good:
        ask, parsed = one.ask, one.parsed
        if (ask.quantity, ask.land) not in setups:
            setups[ask.quantity, ask.land] = setup_for(conn, facts, ask, by)
        setup = setups[ask.quantity, ask.land]
        key = (one.target, one.pass_name, setup.setup_id)
        if key not in sets:
            sets[key] = new_set(conn, facts.job.job_id, one.target, setup, ask.part_temp_c, by)
        new = readings.NewReading(ask.reading_id, sets[key], parsed.value_um, parsed.typed, parsed.unit,
                                  taken_at=one.taken_at, place=ask.place, device=FROM_A_TABLE)  # fmt: skip
        rows.append((new, one.taken_by))
    readings.add_readings(conn, rows)
    for one in good:
        if one.row["struck"]:
            reason = one.row["strike_reason"] or "struck in the file"
            record_fact(conn, NewStrike(facts.job.job_id, True, reason, reading_id=one.ask.reading_id), by)


def _liner_mark(row: TableRow, quantity: Quantity) -> str:
    if feature_of(quantity).asks_liner:
        return row["part"] or row["liner"]
    return row["liner"] if quantity is Quantity.FLANGE_THICKNESS else ""


def _part_key(row: TableRow, quantity: Quantity) -> str:
    """Key of the part that a row is of: as it says, else its hole or its liner."""
    if not is_surveyed(quantity):
        return ""
    if row["part"] and not feature_of(quantity).asks_liner:
        return row["part"]
    if feature_of(quantity).part is PartKind.LINER:
        return f"liner-{row['liner']}"
    return f"hole-{row['hole']}"


def _um(row: TableRow, column: str) -> Decimal | None:
    millimetres = _number(row, column, -10_000, 10_000)
    return None if millimetres is None else millimetres * 1000


def _axis(row: TableRow) -> float | None:
    axis = _number(row, "axis_deg", 0, 179)
    return None if axis is None else float(axis)


def _where(row: TableRow) -> str:
    place = row["hole"] or row["liner"]
    clock = row["clock"].rstrip("hH ")
    repeat = f", repeat {row['repeat']}" if row["repeat"] not in ("", "1") else ""
    return f"{place}{f' at {clock}h' if clock else ''}{repeat}"


def _quantity(row: TableRow, otherwise: Quantity) -> Quantity:
    text = row["quantity"].casefold()
    if not text:
        return otherwise
    for quantity in Quantity:
        if text == quantity.value:
            return quantity
    raise Refused(f"{row['quantity']} is none of {', '.join(q.value for q in Quantity)}.")


def _unit(row: TableRow, otherwise: Unit) -> Unit:
    text = row["unit"].casefold().replace("um", "µm").replace("μ", "µ")
    if not text:
        return otherwise
    for unit in MICROMETRES_PER:
        if text == unit:
            return unit
    raise Refused(f"{row['unit']} is none of {', '.join(MICROMETRES_PER)}.")


def _whole(row: TableRow, column: str, otherwise: str) -> int | None:
    text = row[column]
    if not text:
        return None
    if not text.removesuffix(".0").isdecimal() or not 1 <= int(text.removesuffix(".0")) <= 1000:
        raise Refused(f"{otherwise}: the row says {text}.")
    return int(text.removesuffix(".0"))


def _hour(row: TableRow) -> float | None:
    text = row["clock"].casefold().removesuffix("h").strip().replace(",", ".").replace(":30", ".5")
    if not text:
        return None
    try:
        hour = float(text)
    except ValueError:
        hour = 0.0
    if not 0 < hour <= 12 or hour % 0.25:
        raise Refused(f"A clock position is above 0 and up to 12, such as 6h or 10.5h: the row says {row['clock']}.")
    return hour


def _number(row: TableRow, column: str, least: int, greatest: int) -> Decimal | None:
    text = row[column]
    if not text:
        return None
    try:
        value = Decimal(text)
    except ArithmeticError:
        value = Decimal("NaN")
    if not (value.is_finite() and least <= value <= greatest):
        raise Refused(f"{column.replace('_', ' ')} is a number from {least} to {greatest}: the row says {text}.")
    return value


def _when(row: TableRow) -> datetime | None:
    text = row["taken_at"]
    if not text:
        return None
    try:
        when = datetime.fromisoformat(text)
    except ValueError:
        raise Refused(f"{text} is no time such as 2026-11-25 14:30.") from None
    when = when if when.tzinfo else when.replace(tzinfo=UTC)
    if not datetime(1900, 1, 1, tzinfo=UTC) < when <= datetime.now(UTC):
        raise Refused(f"{text} lies in the future, or far back: no reading was taken then.")
    return when
