"""Everything recorded about one job, and what of it holds now.

The facts are append-only; what is present follows from them: strikes are looked up, a liner is in
its hole until it came out for a cause that still stands, a ledge is what was read since the last cut.

What holds now follows by definition of the facts, which never change; house rules where a line says so.
"""

from collections import defaultdict
from collections.abc import Hashable, Iterable
from dataclasses import dataclass, fields, replace
from decimal import Decimal
from functools import cached_property
from itertools import pairwise
from typing import Any, Protocol, TypeVar
from uuid import UUID

from vallostasis.core.records.gauges import GaugeVersion, SettingMaster
from vallostasis.core.records.job_rows import JobRows
from vallostasis.core.records.notes import ReadingNote
from vallostasis.core.records.route_marks import (
    SchoolChoice,
    WaitEnd,
    Waiver,
)
from vallostasis.core.records.rows import (
    Cut,
    FittedShim,
    Fitting,
    Hole,
    Liner,
    Quantity,
    Reading,
    ReadingSet,
    Setup,
    Strike,
    ZeroCorrection,
)


class Eventful(Protocol):
    """A row with its number in the order of everything recorded."""

    @property
    def event(self) -> int:
        """Its number."""


EventfulT = TypeVar("EventfulT", bound=Eventful)


@dataclass(frozen=True)
class JobFacts(JobRows):
    """All rows of one job, and what of them holds now."""

    def __post_init__(self) -> None:
        """Put rows in the order in which they were recorded, in whatever order they came."""
        for name in (one.name for one in fields(self) if one.name != "readings"):
            rows = getattr(self, name)
            numbers = [getattr(row, "event", 0) for row in rows] if isinstance(rows, tuple) else []
            if any(first > second for first, second in pairwise(numbers)):
                object.__setattr__(self, name, tuple(sorted(rows, key=lambda row: row.event)))

    @cached_property
    def worked_out(self) -> dict[Hashable, Any]:
        """Answers of functions marked with ``once``: facts never change, so an answer never does."""
        return {}

    @cached_property
    def readings_by_set(self) -> dict[UUID, list[Reading]]:
        """Readings of each set, struck ones too."""
        groups: dict[UUID, list[Reading]] = defaultdict(list)
        for reading in self.readings:
            groups[reading.reading_set_id].append(reading)
        for group in groups.values():
            group.sort(key=lambda reading: reading.event)
        return groups

    @cached_property
    def struck(self) -> dict[UUID, Strike]:
        """Readings, cuts, fittings, notes and temperatures that are struck now, with the strike that holds.

        A reading of a set that was closed is struck with it.
        """
        struck = {row: one for row, one in self.newest_strikes.items() if isinstance(row, UUID) and one.struck}
        for closed in self.sets if self.struck_events else ():
            if (strike := self.struck_events.get(closed.event)) is not None:
                for reading in self.readings_by_set.get(closed.reading_set_id, ()):
                    struck.setdefault(reading.reading_id, strike)
        return struck

    @cached_property
    def struck_events(self) -> dict[int, Strike]:
        """Events of what else is struck now, with the strike that holds: sets, setups, looks, corrections, letters."""
        return {row: one for row, one in self.newest_strikes.items() if isinstance(row, int) and one.struck}

    @cached_property
    def newest_strikes(self) -> dict[UUID | int, Strike]:
        """The strike that holds of everything that was ever struck or restored."""
        return {strike.row: strike for strike in self.strikes if strike.row is not None}

    @cached_property
    def standing_corrections(self) -> tuple[ZeroCorrection, ...]:
        """Zero corrections that are not struck, oldest first."""
        return self.standing(self.corrections)

    @cached_property
    def standing_wait_ends(self) -> dict[UUID, WaitEnd]:
        """How waits ended that did; the newest end of a wait holds."""
        return {one.wait_id: one for one in self.standing(self.wait_ends)}

    @cached_property
    def schools(self) -> dict[str, SchoolChoice]:
        """The side that holds of every question this job has chosen one of."""
        return {one.question: one for one in self.standing(self.school_choices)}

    @cached_property
    def standing_waivers(self) -> dict[tuple[Quantity, str], Waiver]:
        """Features of parts that are not read, by name."""
        newest = {(one.quantity, one.part): one for one in self.standing(self.waivers)}
        return {what: one for what, one in newest.items() if one.waived}

    def standing(self, rows: tuple[EventfulT, ...]) -> tuple[EventfulT, ...]:
        """Rows of one kind that are not struck, oldest first; for kinds that a strike names by their event."""
        return tuple(row for row in rows if row.event not in self.struck_events) if self.struck_events else rows

    def came_with_engine(self, fitting: Fitting) -> bool:
        """Whether a fitting is the liner that stood in its hole as the engine came in, marked by its number.

        House rule: the first of its hole, before any cut, under the mark that it is given then.
        """
        number = next(hole.number for hole in self.holes if hole.hole_id == fitting.hole_id)
        earlier = [one for one in self.standing_fittings(fitting.hole_id) if one.event < fitting.event]
        cut_before = [cut for cut in self.standing_cuts(fitting.hole_id) if cut.event < fitting.event]
        mark = self.liner(fitting.liner_id).mark
        return not earlier and not cut_before and mark in (str(number), f"as found {number}")

    def reading(self, reading_id: UUID) -> Reading | None:
        """Return one reading of the job, struck or not, or None."""
        return self._readings_by_id.get(reading_id)

    @cached_property
    def _readings_by_id(self) -> dict[UUID, Reading]:
        return {reading.reading_id: reading for reading in self.readings}

    def with_reading(self, reading: Reading) -> "JobFacts":
        """Return the facts with one more reading, the newest thing recorded."""
        facts = replace(self, readings=(*self.readings, reading))
        # What was grouped before is carried on, so that a long job takes its readings as fast as a short one.
        of_set = [*self.readings_by_set.get(reading.reading_set_id, ()), reading]
        vars(facts).update(
            readings_by_set={**self.readings_by_set, reading.reading_set_id: of_set},
            _readings_by_id={**self._readings_by_id, reading.reading_id: reading},
            struck=self.struck,
            struck_events=self.struck_events,
            newest_strikes=self.newest_strikes,
            _setups_by_id=self._setups_by_id,
            _present_fittings=self._present_fittings,
        )
        return facts

    def hole_numbered(self, number: int) -> Hole | None:
        """Return the hole with that number, or None."""
        return next((hole for hole in self.holes if hole.number == number), None)

    def liner(self, liner_id: UUID) -> Liner:
        """Return one liner of the job."""
        return next(liner for liner in self.liners if liner.liner_id == liner_id)

    def setup(self, setup_id: UUID) -> Setup:
        """Return one setup of the job, with its temperatures as they were put right."""
        return self._setups_by_id[setup_id]

    def first_setup(self, setup_id: UUID) -> Setup:
        """Return the setup that others only corrected the temperatures of."""
        setup = self._setups_by_id[setup_id]
        return setup if setup.corrects is None else self.first_setup(setup.corrects)

    @cached_property
    def _setups_by_id(self) -> dict[UUID, Setup]:
        by_id = {one.setup_id: one for one in self.setups}
        first: dict[UUID, UUID] = {}
        temperatures: dict[UUID, tuple[Decimal | None, Decimal | None]] = {}
        for one in self.setups:
            first[one.setup_id] = one.setup_id if one.corrects is None else first[one.corrects]
            if one.event not in self.struck_events or one.corrects is None:
                temperatures[first[one.setup_id]] = (one.master_temp_c, one.gauge_temp_c)
        for setup_id, one in by_id.items():
            master_c, gauge_c = temperatures[first[setup_id]]
            if (one.master_temp_c, one.gauge_temp_c) != (master_c, gauge_c):
                by_id[setup_id] = replace(one, master_temp_c=master_c, gauge_temp_c=gauge_c)
        return by_id

    def present_setup(self, quantity: Quantity) -> Setup | None:
        """Return the newest setup for a quantity that is not struck."""
        chosen = [one for one in self.setups if one.quantity is quantity and one.event not in self.struck_events]
        return chosen[-1] if chosen else None

    def newest_gauge(self, gauge_id: UUID) -> GaugeVersion:
        """Return a gauge as it is now."""
        return max((one for one in self.gauge_versions if one.gauge_id == gauge_id), key=lambda one: one.version)

    def gauge_version(self, gauge_version_id: UUID) -> GaugeVersion:
        """Return the version of a gauge that a set was read with."""
        return next(gauge for gauge in self.gauge_versions if gauge.gauge_version_id == gauge_version_id)

    def standing_cuts(self, hole_id: UUID) -> list[Cut]:
        """Cuts of a hole that are not struck, oldest first."""
        return [cut for cut in self.cuts if cut.hole_id == hole_id and cut.cut_id not in self.struck]

    def last_cut(self, hole_id: UUID) -> Cut | None:
        """Return the newest cut of a hole that is not struck."""
        cuts = self.standing_cuts(hole_id)
        return cuts[-1] if cuts else None

    def standing_fittings(self, hole_id: UUID) -> list[Fitting]:
        """Fittings of a hole that are not struck, oldest first."""
        return [f for f in self.fittings if f.hole_id == hole_id and f.fitting_id not in self.struck]

    def is_as_found(self, hole_id: UUID) -> bool:
        """Whether nothing was done to a hole since the engine came in, so that its liner came with it. House rule."""
        return not self.standing_fittings(hole_id) and not self.standing_cuts(hole_id)

    def is_out(self, fitting_id: UUID) -> bool:
        """Whether a fitted liner came out again for a cause that still stands."""
        return any(
            out.fitting_id == fitting_id
            and (out.because_cut_id or out.because_fitting_id) not in self.struck
            and out.event not in self.struck_events
            for out in self.fitting_outs
        )

    def present_fitting(self, hole_id: UUID) -> Fitting | None:
        """Return the liner that is in a hole now, or None when the hole is open."""
        return self._present_fittings.get(hole_id)

    @cached_property
    def _present_fittings(self) -> dict[UUID, Fitting]:
        return {
            fitting.hole_id: fitting
            for fitting in self.fittings
            if fitting.fitting_id not in self.struck and not self.is_out(fitting.fitting_id)
        }

    def hole_of_liner(self, liner_id: UUID) -> Hole | None:
        """Return the hole in which a liner sits now, or None."""
        for hole in self.holes:
            fitting = self.present_fitting(hole.hole_id)
            if fitting is not None and fitting.liner_id == liner_id:
                return hole
        return None

    def shims_of(self, fitting_id: UUID) -> tuple[FittedShim, ...]:
        """Shims under a fitted liner, from the ledge upwards."""
        return tuple(shim for shim in self.fitting_shims if shim.fitting_id == fitting_id)

    def newest_protrusion_set(self, fitting_id: UUID) -> ReadingSet | None:
        """Return the newest set of protrusion readings of a fitting."""
        return _newest(s for s in self.sets_of(Quantity.PROTRUSION) if s.fitting_id == fitting_id)

    def newest_depth_set(self, hole_id: UUID) -> ReadingSet | None:
        """Return the newest set of ledge depths read since the last cut of a hole."""
        cut = self.last_cut(hole_id)
        after = None if cut is None else cut.cut_id
        sets = self.sets_of(Quantity.COUNTERBORE_DEPTH)
        return _newest(s for s in sets if s.hole_id == hole_id and s.after_cut_id == after)

    def newest_flange_set(self, liner_id: UUID, land: str) -> ReadingSet | None:
        """Return the newest set of flange thicknesses of a liner at a land that has a standing reading."""
        return _newest(
            s for s in self.sets_of(Quantity.FLANGE_THICKNESS)
            if s.liner_id == liner_id and self.setup(s.setup_id).land == land and self.standing_readings(s)
        )  # fmt: skip

    def sets_of(self, quantity: Quantity) -> list[ReadingSet]:
        """Return the sets of one feature that were not closed, oldest first."""
        of = self._quantity_of_setup
        return [s for s in self.sets if of[s.setup_id] is quantity and s.event not in self.struck_events]

    @cached_property
    def _quantity_of_setup(self) -> dict[UUID, Quantity]:
        return {setup.setup_id: setup.quantity for setup in self.setups}

    def standing_readings(self, reading_set: ReadingSet) -> list[Reading]:
        """Readings of a set that are not struck."""
        readings = self.readings_by_set.get(reading_set.reading_set_id, [])
        return [one for one in readings if one.reading_id not in self.struck] if self.struck else list(readings)

    @cached_property
    def standing_notes(self) -> dict[UUID, list[ReadingNote]]:
        """Notes of each reading and each finding that are not struck, oldest first."""
        groups: dict[UUID, list[ReadingNote]] = defaultdict(list)
        for note in self.notes:
            on = note.reading_id or note.finding_id
            if on is not None and note.note_id not in self.struck:
                groups[on].append(note)
        return groups

    def correction_of(self, reading_set: ReadingSet) -> ZeroCorrection | None:
        """Return the newest zero correction of a whole set."""
        of_set = [c for c in self.standing_corrections if c.reading_set_id == reading_set.reading_set_id]
        made = [c for c in of_set if c.after_event is None]
        return made[-1] if made else None

    def corrections_of(self, reading: Reading) -> tuple[ZeroCorrection, ...]:
        """Return every zero correction that holds for a reading: the newest of its set, and those between checks."""
        of_set = [c for c in self.standing_corrections if c.reading_set_id == reading.reading_set_id]
        whole = [c for c in of_set if c.after_event is None]
        between = {(c.after_event, c.until_event): c for c in of_set if c.after_event is not None and c.covers(reading)}
        return (*whole[-1:], *between.values())

    def reading_set(self, reading_set_id: UUID) -> ReadingSet:
        """Return one set of the job."""
        return self._sets_by_id[reading_set_id]

    @cached_property
    def _sets_by_id(self) -> dict[UUID, ReadingSet]:
        return {one.reading_set_id: one for one in self.sets}

    def master(self, version_id: UUID) -> SettingMaster:
        """Return the version of a setting master that a gauge was set on."""
        return next(one for one in self.masters if one.setting_master_version_id == version_id)


def _newest(sets: Iterable[ReadingSet]) -> ReadingSet | None:
    return max(sets, key=lambda s: s.event, default=None)
