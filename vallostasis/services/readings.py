"""Taking readings at the bench: parse, ask where something is odd, append, strike."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import timedelta
from decimal import Decimal
from uuid import UUID

from vallostasis.core.errors import CoreError, Suggestion
from vallostasis.core.features.catalogue import feature_of, is_surveyed
from vallostasis.core.features.parts import Target, holes_of, parts_of, target_of_set
from vallostasis.core.features.usual_lengths import usual_of
from vallostasis.core.gauges.circumstances import outside_range
from vallostasis.core.gauges.read_with_gauge import read_with_gauge
from vallostasis.core.notation.lengths import both_size
from vallostasis.core.notation.odd_reading import ask_if_odd
from vallostasis.core.notation.typed_lengths import ExpectedRange, ParsedLength, as_entered
from vallostasis.core.operations.disturbances import disturbed_by
from vallostasis.core.pistons.frozen import passed_by_name, why_not_frozen
from vallostasis.core.records.gauges import GaugeVersion
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity, Reading, ReadingSet, Setup, ZeroedOn
from vallostasis.core.records.spec_card import SpecCard, sheet_of
from vallostasis.core.shapes.clock import hour_name
from vallostasis.core.surveys.places import spacer_changed
from vallostasis.services.fitting import put_in_as_found
from vallostasis.services.reading_target import ReadingToTake, known_land, target_of
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.store import gauges, readings
from vallostasis.store.fact_rows import list_facts, record_fact
from vallostasis.store.job_facts import load_job_facts, lock_job_facts, read_job_facts
from vallostasis.store.known_jobs import newest_known, remember_job
from vallostasis.store.new_facts import NewSet, NewSetup, NewStrike
from vallostasis.store.rows import AsyncConn, Conn

# A set may spread this many times wider than the card allows before slips are looked for.
SPREAD_OF_ALLOWED = Decimal("1.25")
# A size this far from the card's nominal is asked about. [µm] Common practice, no published source.
USUAL_OFF_NOMINAL_UM = Decimal(3000)


@dataclass(frozen=True, slots=True)
class _Decided:
    """What becomes of a reading as the job stands: its value, the set it goes into, what it corrects."""

    target: Target
    setup: Setup
    parsed: ParsedLength
    present: ReadingSet | None
    corrected: tuple[Reading, ...]


async def append_if_unchanged(conn: AsyncConn, job_id: UUID, ask: ReadingToTake, taken_by: UUID) -> Reading | None:
    """Append a reading as most are: into the set that is open, of a job that is known and stands as it is known.

    One statement, which does nothing when the job changed meanwhile. None where it is another case: then it is to be
    looked at with the job locked.
    """
    known = newest_known(job_id)
    if known is None or ask.waited_s or known.facts.reading(ask.reading_id) is not None:
        return None
    setup = known.facts.present_setup(ask.quantity)
    if setup is None or _other_land(ask, setup):
        return None
    try:
        decided = _decide(known.facts, ask, setup)
    except (Refused, CoreError):
        # It may be refused for something that was put right meanwhile.
        return None
    if decided.present is None or decided.corrected:
        return None
    new = _new_reading(ask, decided.present.reading_set_id, decided.parsed)
    added = await readings.add_reading_at(conn, job_id, known.revision, new, taken_by)
    if added is None:
        return None
    remember_job(job_id, added.revision, known.facts.with_reading(added.reading))
    return added.reading


def take_and_know(conn: Conn, job_id: UUID, ask: ReadingToTake, taken_by: UUID) -> Reading:
    """Append one reading with the job locked, and know the job as it stands with it, so that the next is quick."""
    taken = take_reading(conn, job_id, ask, taken_by)
    load_job_facts(conn, job_id)
    return taken


def take_reading(conn: Conn, job_id: UUID, ask: ReadingToTake, taken_by: UUID) -> Reading:
    """Append one reading with the job locked; asks back by Refused where what was typed can be meant two ways."""
    with conn.transaction():
        return _take(conn, lock_job_facts(conn, job_id), ask, taken_by)[0]


def take_readings(conn: Conn, job_id: UUID, asks: Iterable[tuple[ReadingToTake, UUID]]) -> None:
    """Append many readings, each with who took it, with the job locked once: it is read anew only for a new set."""
    with conn.transaction():
        facts = lock_job_facts(conn, job_id)
        for ask, by in asks:
            taken, is_all = _take(conn, facts, ask, by)
            facts = facts.with_reading(taken) if is_all else read_job_facts(conn, job_id)


def _take(conn: Conn, facts: JobFacts, ask: ReadingToTake, taken_by: UUID) -> tuple[Reading, bool]:
    """Append one reading; return it, and whether it is all that was written."""
    job_id = facts.job.job_id
    known = facts.reading(ask.reading_id)
    if known is not None:
        if known.typed != ask.text.strip() or not known.stands_at(ask.place):
            raise _id_used_before()
        return known, False
    facts = _with_a_liner(conn, facts, ask, taken_by)
    # Refused before a setup is written for another land.
    target_of(facts, ask)
    decided = _decide(facts, ask, setup_for(conn, facts, ask, taken_by))
    for reading in decided.corrected:
        reason = f"corrected to {decided.parsed.typed}"
        record_fact(conn, NewStrike(job_id, True, reason, reading_id=reading.reading_id), taken_by)
    present = decided.present
    set_id = (
        new_set(conn, job_id, decided.target, decided.setup, ask.part_temp_c, taken_by)
        if present is None
        else present.reading_set_id
    )
    taken = readings.add_reading(conn, _new_reading(ask, set_id, decided.parsed), taken_by)
    if taken is None:
        raise _id_used_before()
    return taken, present is not None and not decided.corrected


def _with_a_liner(conn: Conn, facts: JobFacts, ask: ReadingToTake, by: UUID) -> JobFacts:
    """Protrusion read in a hole of which nothing is known yet is that of the liner it came in with, as found."""
    hole = None if ask.hole is None else facts.hole_numbered(ask.hole)
    if (
        ask.quantity is not Quantity.PROTRUSION
        or hole is None
        or ask.hour is None
        or not facts.is_as_found(hole.hole_id)
    ):
        return facts
    put_in_as_found(conn, facts, hole, by, f"as found {hole.number}")
    return load_job_facts(conn, facts.job.job_id)


def _decide(facts: JobFacts, ask: ReadingToTake, setup: Setup) -> _Decided:
    target = target_of(facts, ask)
    _ask_if_not_frozen(facts, ask)
    parsed = _parse(facts, ask, setup)
    if not ask.confirmed:
        ask_if_out_of_range(facts.newest_gauge(setup.gauge_id), setup, parsed)
    present = None if ask.new_pass else _open_set(facts, target, setup)
    standing = [] if present is None else facts.standing_readings(present)
    if not ask.confirmed:
        ask_if_odd(parsed, tuple(reading.value_um for reading in standing), usual_spread_um(facts.card, ask.quantity))
    place = ask.place
    same_place = [reading for reading in standing if reading.stands_at(place)]
    if same_place and ask.read_before not in ("repeat", "correct"):
        raise Refused(_read_before(same_place, ask), "text", RefusalCode.READ_BEFORE)
    corrected = tuple(same_place) if ask.read_before == "correct" else ()
    return _Decided(target, setup, parsed, present, corrected)


def _ask_if_not_frozen(facts: JobFacts, ask: ReadingToTake) -> None:
    """Ring gaps are those of a finished bore: 2.5 more on it opens a gap by 7.9."""
    number = ask.part.rpartition("-")[2]
    hole = facts.hole_numbered(int(number)) if ask.quantity is Quantity.RING_GAP and number.isdigit() else None
    why = "" if hole is None or passed_by_name(facts, hole) else why_not_frozen(facts, hole)
    if why:
        raise Refused(f"Ring gaps are read once the bore is frozen: {why}. See to it first, or pass the hold point of "
                      "the pistons by your name on the route.", "text", RefusalCode.HOLD)  # fmt: skip


def _parse(facts: JobFacts, ask: ReadingToTake, setup: Setup) -> ParsedLength:
    expected, gauge = expected_range(facts.card, setup), facts.newest_gauge(setup.gauge_id)
    return read_with_gauge(ask.text, ask.bare_unit, setup, gauge, expected, ask.confirmed, ask.from_gauge)


def _id_used_before() -> Refused:
    return Refused("That reading id was used for another reading: send a new one.", "reading_id", RefusalCode.TAKEN)


def _new_reading(ask: ReadingToTake, set_id: UUID, parsed: ParsedLength) -> readings.NewReading:
    return readings.NewReading(ask.reading_id, set_id, parsed.value_um, parsed.typed, parsed.unit,
                               timedelta(seconds=ask.waited_s), place=ask.place, device=ask.device,
                               from_gauge=ask.from_gauge)  # fmt: skip


def _read_before(same_place: list[Reading], ask: ReadingToTake) -> str:
    there = ", ".join(as_entered(reading.typed, reading.typed_unit) for reading in same_place)
    where = "" if ask.hour is None else f" at {hour_name(ask.hour)}"
    what = f"Hole {ask.hole}{where}" if ask.hole is not None else f"The flange of {ask.liner_mark}"
    if ask.part:
        what = "This place"
    return f"{what} was read before ({there}): is this a repeat, or does it correct the first?"


def usual_spread_um(card: SpecCard, quantity: Quantity) -> Decimal:
    """Return how far a reading may stand from its set without being asked about. [µm]"""
    allowed = card.limits.variation_round.length
    if quantity is Quantity.PROTRUSION and allowed is not None:
        return allowed.um * SPREAD_OF_ALLOWED
    return feature_of(quantity).usual_spread_um


def ask_if_out_of_range(gauge: GaugeVersion, setup: Setup, parsed: ParsedLength) -> None:
    """Ask back where a gauge cannot have shown what was typed.

    The range of a gauge for diameters is that of the sizes it enters or spans, of any other that of its scale.
    """
    spans_sizes = feature_of(setup.quantity).is_diameter
    if spans_sizes and setup.zeroed_on is ZeroedOn.PART:
        return
    if outside_range(gauge, parsed.value_um + (setup.zero_um if spans_sizes else Decimal(0))):
        assert gauge.range_from_um is not None
        assert gauge.range_to_um is not None
        raise Refused(
            f"{gauge.name} reads from {both_size(gauge.range_from_um)} to {both_size(gauge.range_to_um)}, "
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
    """As the card's limits or nominal lead to expect, else what is usual for such a thing."""
    on_card = _expected_of_card(card, quantity)
    return usual_of(quantity, card.layout.bore.um) if on_card is None else on_card


def _expected_of_card(card: SpecCard, quantity: Quantity) -> ExpectedRange | None:
    if quantity is Quantity.PROTRUSION:
        limits = card.limits
        named = (limits.least_without_shim, limits.greatest_without_shim, limits.least_with_shim,
                 limits.greatest_with_shim)  # fmt: skip
        values = [limit.length.um for limit in named if limit.length is not None]
        if not values:
            return None
        window = max(max(values) - min(values), Decimal(40))
        return ExpectedRange(min(values) - 6 * window, max(values) + 6 * window)
    if is_surveyed(quantity):
        sheet = sheet_of(card, quantity)
        if sheet is None or sheet.nominal.length is None or quantity is Quantity.TRIAL_FIT:
            return None
        wide = USUAL_OFF_NOMINAL_UM if feature_of(quantity).is_size else 6 * sheet.nominal.length.um
        return ExpectedRange(sheet.nominal.length.um - wide, sheet.nominal.length.um + wide)
    seat = card.seat
    nominal = seat.counterbore_nominal if quantity is Quantity.COUNTERBORE_DEPTH else seat.flange_nominal
    if nominal.length is None:
        return None
    allowed = Decimal(2000) if quantity is Quantity.COUNTERBORE_DEPTH else Decimal(600)
    return ExpectedRange(nominal.length.um - allowed, nominal.length.um + allowed)


def setup_for(conn: Conn, facts: JobFacts, ask: ReadingToTake, by: UUID) -> Setup:
    """Return the setup a reading is taken under; another land of a flange makes a setup of its own."""
    setup = facts.present_setup(ask.quantity)
    if setup is None:
        raise Refused(f"Choose the gauge for {ask.quantity.value} first.", "quantity")
    if not _other_land(ask, setup):
        return setup
    land = known_land(facts, ask.land)
    new = NewSetup(facts.job.job_id, setup.quantity, setup.gauge_id, land, setup.datum, setup.hold_down,
                   setup.hold_down_torque_nm, setup.shared_zero, setup.zeroed_on, setup.zero_um, setup.zero_typed,
                   setup.load, setup.method, setup.setting_master_version_id, setup.master_temp_c,
                   setup.gauge_temp_c)  # fmt: skip
    record_fact(conn, new, by)
    setups: tuple[Setup, ...] = list_facts(conn, "setups", facts.job.job_id)
    return next(one for one in setups if one.setup_id == new.setup_id)


def _other_land(ask: ReadingToTake, setup: Setup) -> bool:
    return ask.quantity is Quantity.FLANGE_THICKNESS and bool(ask.land) and ask.land != setup.land


def _open_set(facts: JobFacts, target: Target, setup: Setup) -> ReadingSet | None:
    """Return the newest set of the target, if it was read under the circumstances that hold now."""
    sets = [s for s in facts.sets_of(setup.quantity) if target_of_set(s) == target]
    if not sets:
        return None
    then = facts.setup(sets[-1].setup_id)
    if then.circumstances() != setup.circumstances() or then.zero != setup.zero or spacer_changed(facts, sets[-1]):
        return None
    part = next((one for one in parts_of(facts, setup.quantity) if one.target == target), None)
    if part is not None and disturbed_by(facts, setup.quantity, holes_of(part), sets[-1]) is not None:
        return None
    newest = facts.newest_gauge(setup.gauge_id)
    return sets[-1] if sets[-1].gauge_version_id == newest.gauge_version_id else None


def new_set(conn: Conn, job_id: UUID, target: Target, setup: Setup, part_temp_c: Decimal | None, by: UUID) -> UUID:
    """Open a set for a target."""
    gauge = gauges.get_gauge(conn, setup.gauge_id)
    new = NewSet(job_id, setup.setup_id, gauge.gauge_version_id, target.fitting_id, target.hole_id,
                 target.after_cut_id, target.liner_id, part_temp_c, target.part)  # fmt: skip
    record_fact(conn, new, by)
    return new.reading_set_id
