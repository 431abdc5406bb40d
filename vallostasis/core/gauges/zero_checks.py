"""The zero looked at again: what a moved zero makes doubtful, and the corrections that follow from it.

References
----------
.. [1] JCGM 100:2008 (GUM), 4.3.7 rectangular distribution, 5.1.2 uncorrelated inputs.
"""

from bisect import bisect_right
from collections.abc import Hashable, Iterator
from dataclasses import dataclass
from decimal import Decimal
from enum import StrEnum
from uuid import UUID

from vallostasis.core.records.gauges import GaugeVersion
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.rows import Quantity, Reading, ReadingSet, Setup, ZeroCheck, ZeroCorrection


class Drift(StrEnum):
    """How a zero moved between two looks at it."""

    SOMEWHERE = "somewhere between"
    AT_ONCE = "before all of them"


@dataclass(frozen=True, slots=True)
class ZeroShift:
    """What to add to the readings, and its standard uncertainty. [µm]"""

    correction_um: Decimal
    standard_um: Decimal


def look_standard_um(gauge: GaugeVersion) -> Decimal:
    """Standard uncertainty of one look at the zero: it is read with the gauge like anything else. [µm]

    √(r²/12 + s²), GUM 4.3.7 and 5.1.2.
    """
    return (gauge.resolution_um**2 / 12 + gauge.repeatability_um**2).sqrt()


def zero_holds(moved_um: Decimal, gauge: GaugeVersion) -> bool:
    """Whether a zero still stands: what it moved by is no more than the gauge can show.

    Notes
    -----
    Two readings of the zero differ by chance within 2·√(2·(r²/12 + s²)); beyond that the zero has moved.
    GUM 5.1.2 with k = 2.
    """
    return abs(moved_um) <= 2 * Decimal(2).sqrt() * look_standard_um(gauge)


def shift_for(moved_um: Decimal, drift: Drift, gauge: GaugeVersion) -> ZeroShift:
    """What a moved zero asks to be added to the readings since it stood last.

    Notes
    -----
    Where it is not known when the zero moved, half of it is taken off and the whole of it is left as the width of a
    rectangular distribution: u = moved/√12 (GUM 4.3.7), as the row of the correction says; how the ± carries it is
    said at budget.stated. Where it moved before all of them, all of it is taken off. Either way the look itself is a
    reading of the gauge.
    """
    look = look_standard_um(gauge)
    if drift is Drift.AT_ONCE:
        return ZeroShift(-moved_um, look)
    return ZeroShift(-moved_um / 2, (look**2 + moved_um**2 / 12).sqrt())


def drift_of(facts: JobFacts, correction: ZeroCorrection) -> tuple[ZeroCheck, Drift] | None:
    """Return the look a correction follows from, and how the zero was said to have moved; None for a whole set's."""
    check = next((one for one in facts.standing(facts.zero_checks) if one.event == correction.until_event), None)
    if check is None:
        return None
    return check, Drift.AT_ONCE if correction.correction_um == -check.moved_um else Drift.SOMEWHERE


def zero_of(facts: JobFacts, reading_set: ReadingSet, reading: Reading) -> Hashable:
    """Name the zero that a reading was taken on: readings of one zero share its error, others do not.

    A gauge is zeroed when it is chosen, anew after a look that found it moved, and for a pass of its own; where the
    setup says so, for every set.

    House rule.
    """
    setup = facts.setup(reading_set.setup_id)
    zeroed = _zeroed_at(facts, setup.quantity, setup.gauge_id)
    since = zeroed[max(0, bisect_right(zeroed, reading.event) - 1)] if zeroed else setup.event
    own = None if setup.shared_zero else reading_set.reading_set_id
    return (setup.gauge_id, setup.quantity, since, own)


@once
def _zeroed_at(facts: JobFacts, quantity: Quantity, gauge_id: UUID) -> tuple[int, ...]:
    """Events at which a gauge was zeroed for a feature, rising."""
    setups = {s.setup_id: s for s in facts.setups if s.quantity is quantity and s.gauge_id == gauge_id}
    standing = [setup for setup in setups.values() if setup.event not in facts.struck_events]
    events = [setup.event for setup in standing if setup.corrects is None]
    gauge = facts.newest_gauge(gauge_id)
    looks = [one for one in facts.standing(facts.zero_checks) if one.setup_id in setups]
    events += [look.event for look in looks if not zero_holds(look.moved_um, gauge)]
    seen: set[Hashable] = set()
    for one in facts.sets_of(quantity):
        if one.setup_id not in setups:
            continue
        read_on = (one.fitting_id, one.hole_id, one.after_cut_id, one.liner_id, one.part, setups[one.setup_id].land)
        if read_on in seen:
            events.append(one.event)
        seen.add(read_on)
    return tuple(sorted(events))


@dataclass(frozen=True, slots=True)
class Doubt:
    """A moved zero, the event since which readings are doubtful, and the sets they stand in."""

    check: ZeroCheck
    setup: Setup
    since_event: int
    sets: tuple[ReadingSet, ...]
    reading_ids: tuple[UUID, ...]


def is_zero_looked_at(facts: JobFacts, reading_set: ReadingSet) -> bool:
    """Whether somebody looked at the zero after the newest reading of a set."""
    readings = facts.standing_readings(reading_set)
    newest = readings[-1].event if readings else reading_set.event
    quantity = facts.setup(reading_set.setup_id).quantity
    looks = [one for one in facts.standing(facts.zero_checks) if facts.setup(one.setup_id).quantity is quantity]
    return any(look.event > newest for look in looks)


def open_doubts(facts: JobFacts) -> tuple[Doubt, ...]:
    """Return every moved zero with the readings that nobody corrected or struck since."""
    return tuple(doubt for doubt in _doubts(facts) if doubt.reading_ids)


@once
def doubtful_readings(facts: JobFacts) -> dict[UUID, Doubt]:
    """Return readings that stand on a zero that was found moved, unless they are corrected or struck."""
    return {reading_id: doubt for doubt in open_doubts(facts) for reading_id in doubt.reading_ids}


def _doubts(facts: JobFacts) -> Iterator[Doubt]:
    good_since: dict[UUID, int] = {}
    for check in facts.standing(facts.zero_checks):
        setup = facts.first_setup(check.setup_id)
        since = good_since.get(setup.setup_id, setup.event)
        if zero_holds(check.moved_um, facts.newest_gauge(setup.gauge_id)):
            good_since[setup.setup_id] = check.event
            continue
        # The next look starts from here: what is read on a moved zero is known to be so from now on.
        good_since[setup.setup_id] = check.event
        # A gauge set again as it was before goes on with the set it was reading: sets of that gauge, whichever setup.
        sets = [s for s in facts.sets_of(setup.quantity) if facts.setup(s.setup_id).gauge_id == setup.gauge_id]
        doubtful: list[UUID] = []
        touched: list[ReadingSet] = []
        for one in sets:
            corrected = any(
                c.reading_set_id == one.reading_set_id and (c.after_event, c.until_event) == (since, check.event)
                for c in facts.standing_corrections
            )
            found = [r.reading_id for r in facts.standing_readings(one) if since < r.event < check.event]
            if found and not corrected:
                doubtful += found
                touched.append(one)
        yield Doubt(check, setup, since, tuple(touched), tuple(doubtful))
