"""Taking readings at the bench: parse, ask where something is odd, append, strike."""

from dataclasses import dataclass, replace
from datetime import timedelta
from decimal import Decimal
from uuid import UUID

from vallostasis.core.errors import NotationError, Suggestion
from vallostasis.core.job_facts import JobFacts
from vallostasis.core.lengths import Unit
from vallostasis.core.measuring.circumstances import outside_range, size_on_card
from vallostasis.core.measuring.clock import hour_name
from vallostasis.core.measuring.odd_reading import ask_if_odd
from vallostasis.core.notation import ExpectedRange, ParsedLength, as_entered, parse_length
from vallostasis.core.records import GaugeVersion, Hole, Liner, Quantity, Reading, ReadingSet, Setup, ZeroedOn
from vallostasis.core.spec_card import SpecCard, typed_with_unit
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.store import gauges, jobs, readings
from vallostasis.store.job_facts import load_job_facts, lock_job_facts
from vallostasis.store.known_jobs import remember_job
from vallostasis.store.revisions import Revision
from vallostasis.store.rows import Conn

# How far a reading may stand from the nearest of its set without being asked about, where the card
# says nothing of how much one liner may vary. [µm] Common practice, no published source.
USUAL_SPREAD_UM: dict[Quantity, Decimal] = {
    Quantity.PROTRUSION: Decimal(60),
    Quantity.COUNTERBORE_DEPTH: Decimal(200),
    Quantity.FLANGE_THICKNESS: Decimal(50),
}
LONGEST_ZERO_UM = Decimal(10_000_000)
# A set may spread this many times wider than the card allows before slips are looked for.
SPREAD_OF_ALLOWED = Decimal("1.25")


@dataclass(frozen=True, slots=True)
class ReadingToTake:
    """What was typed, and where it belongs; ``read_before`` answers the question repeat or correct.

    ``waited_s`` is how long ago it was taken: a bench out of reach sends it when the link returns. [s]
    """

    reading_id: UUID
    quantity: Quantity
    hole: int | None
    hour: float | None
    liner_mark: str
    land: str
    text: str
    bare_unit: Unit
    confirmed: bool
    read_before: str
    new_pass: bool
    part_temp_c: Decimal | None
    waited_s: float = 0.0


@dataclass(frozen=True, slots=True)
class Target:
    """What a reading is of: exactly one of fitting, hole or liner."""

    fitting_id: UUID | None = None
    hole_id: UUID | None = None
    after_cut_id: UUID | None = None
    liner_id: UUID | None = None


@dataclass(frozen=True, slots=True)
class Taken:
    """A reading as recorded; what the job is with it, where nothing else changed, once that is committed."""

    reading: Reading
    facts: JobFacts | None
    revision: Revision


def take_reading(conn: Conn, job_id: UUID, ask: ReadingToTake, taken_by: UUID) -> Taken:
    """Append one reading; asks back by Refused where what was typed can be meant two ways."""
    locked = lock_job_facts(conn, job_id)
    facts = locked.facts
    known = facts.reading(ask.reading_id)
    if known is not None:
        if known.typed != ask.text.strip() or known.hour != ask.hour:
            raise _id_used_before()
        return Taken(known, facts, locked.after)
    target = target_of(facts, ask)
    setup = setup_for(conn, facts, ask, taken_by)
    parsed = parse_length(ask.text, ask.bare_unit, expected_range(facts.card, setup), ask.confirmed)
    if not ask.confirmed:
        _ask_if_out_of_range(facts.newest_gauge(setup.gauge_id), parsed)
    present = None if ask.new_pass else _open_set(facts, target, setup)
    standing = [] if present is None else facts.standing_readings(present)
    if not ask.confirmed:
        ask_if_odd(parsed, tuple(reading.value_um for reading in standing), usual_spread_um(facts.card, ask.quantity))
    same_place = [reading for reading in standing if reading.hour == ask.hour]
    if same_place and ask.read_before not in ("repeat", "correct"):
        raise Refused(_read_before(same_place, ask), "text", RefusalCode.READ_BEFORE)
    corrected = same_place if ask.read_before == "correct" else []
    for reading in corrected:
        readings.add_strike(conn, job_id, True, f"corrected to {parsed.typed}", taken_by, reading_id=reading.reading_id)
    set_id = present.reading_set_id if present else new_set(conn, job_id, target, setup, ask.part_temp_c, taken_by)
    taken = readings.add_reading(conn, _new_reading(ask, set_id, parsed), taken_by)
    if taken is None:
        raise _id_used_before()
    alone = present is not None and not corrected
    return Taken(taken, facts.with_reading(taken) if alone else None, locked.after)


def _id_used_before() -> Refused:
    return Refused("That reading id was used for another reading: send a new one.", "reading_id", RefusalCode.TAKEN)


def remember_taken(conn: Conn, job_id: UUID, taken: Taken) -> None:
    """Keep what the job is with a reading; only once its transaction is committed."""
    if taken.facts is not None:
        remember_job(conn, job_id, taken.revision, taken.facts)


def _new_reading(ask: ReadingToTake, set_id: UUID, parsed: ParsedLength) -> readings.NewReading:
    return readings.NewReading(ask.reading_id, set_id, ask.hour, parsed.value_um, parsed.typed, parsed.unit,
                               timedelta(seconds=ask.waited_s))  # fmt: skip


def _read_before(same_place: list[Reading], ask: ReadingToTake) -> str:
    there = ", ".join(as_entered(reading.typed, reading.typed_unit) for reading in same_place)
    where = "" if ask.hour is None else f" at {hour_name(ask.hour)}"
    what = f"Hole {ask.hole}{where}" if ask.hole is not None else f"The flange of {ask.liner_mark}"
    return f"{what} was read before ({there}): is this a repeat, or does it correct the first?"


def usual_spread_um(card: SpecCard, quantity: Quantity) -> Decimal:
    """Return how far a reading may stand from its set without being asked about. [µm]"""
    allowed = card.limits.variation_round.length
    if quantity is Quantity.PROTRUSION and allowed is not None:
        return allowed.um * SPREAD_OF_ALLOWED
    return USUAL_SPREAD_UM[quantity]


def _ask_if_out_of_range(gauge: GaugeVersion, parsed: ParsedLength) -> None:
    if outside_range(gauge, parsed.value_um):
        assert gauge.range_from_um is not None
        assert gauge.range_to_um is not None
        raise Refused(
            f"{gauge.name} reads from {gauge.range_from_um / 1000:f} to {gauge.range_to_um / 1000:f} mm, "
            f"{as_entered(parsed.typed, parsed.unit)} lies outside: is it a slip, or another gauge?",
            "text",
            RefusalCode.ASKS,
            (Suggestion("Take it as read", "", confirm=True),),
        )


def expected_range(card: SpecCard, setup: Setup) -> ExpectedRange | None:
    """Return what a reading may be without being asked about, as the gauge shows it from its zero. [µm]"""
    size = _expected_size(card, setup.quantity)
    if size is None or setup.zeroed_on is ZeroedOn.PART:
        return None
    return ExpectedRange(size.least_um - setup.zero_um, size.greatest_um - setup.zero_um)


def _expected_size(card: SpecCard, quantity: Quantity) -> ExpectedRange | None:
    if quantity is Quantity.PROTRUSION:
        limits = card.limits
        named = (limits.least_without_shim, limits.greatest_without_shim, limits.least_with_shim,
                 limits.greatest_with_shim)  # fmt: skip
        values = [limit.length.um for limit in named if limit.length is not None]
        if not values:
            return None
        window = max(max(values) - min(values), Decimal(40))
        return ExpectedRange(min(values) - 6 * window, max(values) + 6 * window)
    seat = card.seat
    nominal = seat.counterbore_nominal if quantity is Quantity.COUNTERBORE_DEPTH else seat.flange_nominal
    if nominal.length is None:
        return None
    allowed = Decimal(2000) if quantity is Quantity.COUNTERBORE_DEPTH else Decimal(600)
    return ExpectedRange(nominal.length.um - allowed, nominal.length.um + allowed)


def target_of(facts: JobFacts, ask: ReadingToTake) -> Target:
    """Return what a reading is of as the job stands now, or refuse at the field."""
    if ask.quantity is Quantity.FLANGE_THICKNESS:
        return Target(liner_id=known_liner(facts, ask.liner_mark).liner_id)
    hole = known_hole(facts, ask.hole)
    if ask.hour is None:
        raise Refused("At which clock position? Type it with h, such as 6h.", "hour")
    if ask.quantity is Quantity.COUNTERBORE_DEPTH:
        cut = facts.last_cut(hole.hole_id)
        return Target(hole_id=hole.hole_id, after_cut_id=None if cut is None else cut.cut_id)
    fitting = facts.present_fitting(hole.hole_id)
    if fitting is None:
        raise Refused(f"Hole {hole.number} has no liner: record the fitting first, then read it.", "hole")
    return Target(fitting_id=fitting.fitting_id)


def known_hole(facts: JobFacts, number: int | None) -> Hole:
    """Return the hole with that number, or refuse at the field."""
    if number is None:
        raise Refused("Which hole? Type its number first.", "hole")
    hole = facts.hole_numbered(number)
    if hole is None:
        numbers = [hole.number for hole in facts.holes]
        raise Refused(f"There is no hole {number}: this block has holes {min(numbers)} to {max(numbers)}.", "hole")
    return hole


def known_liner(facts: JobFacts, mark: str) -> Liner:
    """Return the liner with that mark, or refuse at the field."""
    for liner in facts.liners:
        if liner.mark.casefold() == mark.strip().casefold():
            return liner
    marks = ", ".join(liner.mark for liner in facts.liners) or "none yet"
    raise Refused(f"There is no liner marked {mark or '…'}: this job has {marks}.", "liner_mark")


def known_land(facts: JobFacts, name: str) -> str:
    """Return the card's own name of a land, or refuse at the field."""
    lands = [land.name for land in facts.card.lands]
    for land in lands:
        if land.casefold() == name.casefold():
            return land
    raise Refused(f"The card has no land called {name}: it has {', '.join(lands)}.", "land")


def setup_for(conn: Conn, facts: JobFacts, ask: ReadingToTake, by: UUID) -> Setup:
    """Return the setup a reading is taken under; another land of a flange makes a setup of its own."""
    setup = facts.present_setup(ask.quantity)
    if setup is None:
        raise Refused(f"Choose the gauge for {ask.quantity.value} first.", "quantity")
    if ask.quantity is not Quantity.FLANGE_THICKNESS or not ask.land or ask.land == setup.land:
        return setup
    land = known_land(facts, ask.land)
    new = readings.NewSetup(facts.job.job_id, setup.quantity, setup.gauge_id, land, setup.datum, setup.hold_down,
                            setup.hold_down_torque_nm, setup.shared_zero, setup.zeroed_on, setup.zero_um,
                            setup.zero_typed)  # fmt: skip
    setup_id = readings.add_setup(conn, new, by)
    return next(s for s in readings.list_setups(conn, facts.job.job_id) if s.setup_id == setup_id)


def _open_set(facts: JobFacts, target: Target, setup: Setup) -> ReadingSet | None:
    """Return the newest set of the target, if it was read under the circumstances that hold now."""
    sets = [
        s for s in facts.sets
        if (s.fitting_id, s.hole_id, s.after_cut_id, s.liner_id)
        == (target.fitting_id, target.hole_id, target.after_cut_id, target.liner_id)
    ]  # fmt: skip
    if not sets:
        return None
    then = facts.setup(sets[-1].setup_id)
    if then.circumstances() != setup.circumstances() or then.zero != setup.zero:
        return None
    newest = facts.newest_gauge(setup.gauge_id)
    return sets[-1] if sets[-1].gauge_version_id == newest.gauge_version_id else None


def new_set(conn: Conn, job_id: UUID, target: Target, setup: Setup, part_temp_c: Decimal | None, by: UUID) -> UUID:
    """Open a set for a target."""
    gauge = gauges.get_gauge(conn, setup.gauge_id)
    new = readings.NewSet(job_id, setup.setup_id, gauge.gauge_version_id, target.fitting_id, target.hole_id,
                          target.after_cut_id, target.liner_id, part_temp_c)  # fmt: skip
    return readings.add_set(conn, new, by)


def correct_zero(conn: Conn, job_id: UUID, set_id: UUID, text: str, bare_unit: Unit, reason: str, by: UUID) -> None:
    """Record that the zero of a set was found moved: added to all its readings, as uncertain as the gauge's step."""
    jobs.lock_job(conn, job_id)
    facts = load_job_facts(conn, job_id)
    reading_set = next((s for s in facts.sets if s.reading_set_id == set_id), None)
    if reading_set is None:
        raise Refused("There is no such set in this job.", "reading_set_id")
    parsed = parse_length(text, bare_unit, ExpectedRange(Decimal(-500), Decimal(500)), confirmed=False)
    gauge = facts.gauge_version(reading_set.gauge_version_id)
    # The zero is read once more with the same gauge, so the correction carries that reading's own part.
    standard_um = (gauge.resolution_um**2 / 12 + gauge.repeatability_um**2).sqrt()
    readings.add_correction(conn, set_id, parsed.value_um, standard_um, parsed.typed, reason, by)


def change_setup(conn: Conn, new: readings.NewSetup, by: UUID, bare_unit: Unit = "mm") -> None:
    """Read with another gauge, zero, land, datum or clamp from now on; every hole read otherwise re-opens."""
    jobs.lock_job(conn, new.job_id)
    facts = load_job_facts(conn, new.job_id)
    gauges.get_gauge(conn, new.gauge_id)
    new = _with_zero(facts.card, new, bare_unit)
    lands = [land.name for land in facts.card.lands]
    if new.quantity is not Quantity.COUNTERBORE_DEPTH and new.land not in lands:
        raise Refused(f"Choose one of the card's lands: {', '.join(lands)}.", "land")
    readings.add_setup(conn, new, by)


def _with_zero(card: SpecCard, new: readings.NewSetup, bare_unit: Unit) -> readings.NewSetup:
    """Find the size the gauge was zeroed on: as typed, or as the card gives it where nothing was typed."""
    typed = new.zero_typed.strip()
    if new.zeroed_on in (ZeroedOn.DATUM, ZeroedOn.PART):
        if typed:
            raise Refused(f"Zeroed on the {new.zeroed_on.value} it stands at no size: leave this empty.", "zero")
        return replace(new, zero_um=Decimal(0), zero_typed="")
    on_card = size_on_card(card, new.quantity, new.zeroed_on)
    if not typed and on_card is None:
        raise Refused(f"Type the size that the gauge shows as nought on the {new.zeroed_on.value}.", "zero")
    if not typed and on_card is not None:
        is_size = new.quantity is not Quantity.PROTRUSION
        return replace(new, zero_um=on_card.um, zero_typed=typed_with_unit(on_card, card.unit, is_size=is_size))
    try:
        parsed = parse_length(typed, bare_unit, confirmed=True)
    except NotationError as error:
        error.field = "zero"
        raise
    if abs(parsed.value_um) > LONGEST_ZERO_UM:
        raise Refused("No part here is that long: check number and unit.", "zero")
    if on_card is not None and parsed.value_um != on_card.um:
        raise Refused(
            f"The card's {new.zeroed_on.value} is {on_card.um.normalize():f} µm, not {parsed.value_um.normalize():f}: "
            "leave this empty to take the card's, or say it was zeroed on a setting master.",
            "zero",
        )
    return replace(new, zero_um=parsed.value_um, zero_typed=_with_unit(parsed))


def _with_unit(parsed: ParsedLength) -> str:
    """A length that can be typed again as it stands."""
    if parsed.unit == "0.01 mm":
        return f"{(parsed.value_um / 1000).normalize():f} mm"
    return as_entered(parsed.typed, parsed.unit)


def strike(conn: Conn, row_id: UUID, struck: bool, reason: str, by: UUID) -> UUID:
    """Strike out or restore a reading, cut, fitting or note; return the job it belongs to."""
    job_id = jobs.job_of_recorded(conn, row_id)
    jobs.lock_job(conn, job_id)
    facts = load_job_facts(conn, job_id)
    if (row_id in facts.struck) is struck:
        raise Refused("It is struck already." if struck else "It is not struck.", "struck")
    kind = "reading_id"
    if any(cut.cut_id == row_id for cut in facts.cuts):
        kind = "cut_id"
    elif any(fitting.fitting_id == row_id for fitting in facts.fittings):
        kind = "fitting_id"
    elif any(note.note_id == row_id for note in facts.notes):
        kind = "note_id"
    builds_on = kind in ("cut_id", "fitting_id")
    if builds_on:
        _only_the_newest(facts, row_id)
    readings.add_strike(conn, job_id, struck, reason, by, **{kind: row_id})
    if builds_on:
        _no_liner_twice(load_job_facts(conn, job_id))
    return job_id


def mark_unreadable(conn: Conn, hole_id: UUID, hour: float, unreadable: bool, reason: str, by: UUID) -> UUID:
    """Record that a position of the liner in a hole cannot be read, or can be again; return the job."""
    job_id = jobs.job_of_hole(conn, hole_id)
    jobs.lock_job(conn, job_id)
    facts = load_job_facts(conn, job_id)
    fitting = facts.present_fitting(hole_id)
    if fitting is None:
        raise Refused("The hole has no liner: there is nothing to read in it yet.", "hour")
    if unreadable and not reason.strip():
        raise Refused("Why can it not be read? Type the reason, such as a stud in the way.", "reason")
    if hour not in facts.card.measuring.required_hours:
        raise Refused(f"The card does not ask for {hour_name(hour)}: simply leave it out.", "hour")
    if (hour in facts.unreadable_hours(fitting.fitting_id)) is unreadable:
        raise Refused("It is said already." if unreadable else "Nothing was said about it.", "hour")
    readings.add_unreadable(conn, job_id, fitting.fitting_id, hour, unreadable, reason.strip(), by)
    return job_id


def _only_the_newest(facts: JobFacts, row_id: UUID) -> None:
    """Cuts and fittings of a hole build on each other: only the last one standing can be taken back."""
    for hole in facts.holes:
        rows = [(cut.event, cut.cut_id) for cut in facts.cuts if cut.hole_id == hole.hole_id]
        rows += [(f.event, f.fitting_id) for f in facts.fittings if f.hole_id == hole.hole_id]
        if row_id not in [row for _, row in rows]:
            continue
        later = [row for event, row in rows if event > dict((r, e) for e, r in rows)[row_id]]
        if any(row not in facts.struck for row in later):
            raise Refused(f"Something was recorded for hole {hole.number} after it: strike that first.", "row_id")


def _no_liner_twice(facts: JobFacts) -> None:
    seen: dict[UUID, int] = {}
    for hole in facts.holes:
        fitting = facts.present_fitting(hole.hole_id)
        if fitting is None:
            continue
        if fitting.liner_id in seen:
            mark = facts.liner(fitting.liner_id).mark
            raise Refused(
                f"That would put {mark} into holes {seen[fitting.liner_id]} and {hole.number} at once: "
                "take it out of the other hole first.",
                "row_id",
            )
        seen[fitting.liner_id] = hole.number
