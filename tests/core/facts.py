"""A job in memory, told event by event, for tests of what holds now."""

from dataclasses import dataclass, field, replace
from datetime import UTC, datetime, timedelta
from decimal import Decimal
from typing import Any
from uuid import UUID, uuid4

from tests.core.card import FLAT, wet_card
from vallostasis.core.records.gauges import GaugeVersion
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.preparation import Inspection, InspectionKind, InspectionOutcome, PrepKind, PrepStep
from vallostasis.core.records.route_marks import (
    Finding,
    FindingKind,
    MarkKind,
    Operation,
    OperationMark,
    SchoolChoice,
)
from vallostasis.core.records.rows import (
    CardVersion,
    Cut,
    FittedShim,
    Fitting,
    FittingOut,
    Hole,
    Job,
    Liner,
    Place,
    Quantity,
    Reading,
    ReadingSet,
    Setup,
    Strike,
    Unreadable,
    ZeroCheck,
    ZeroCorrection,
)
from vallostasis.core.records.spec_card import SpecCard
from vallostasis.core.records.temperatures import Temperature
from vallostasis.core.tape.fact_kinds import KIND_OF_ROWS

WHEN = datetime(2026, 1, 2, 3, 4, tzinfo=UTC)
JOB_ID = uuid4()
EMPTY: dict[str, Any] = {name: () for name in KIND_OF_ROWS if name != "holes"}
HOURS = (12.0, 3.0, 6.0, 9.0)


def level(mm: float, axis: float | None = None) -> Place:
    """A place at a depth, on an axis."""
    return Place(level_um=Decimal(str(mm * 1000)), axis_deg=axis)


@dataclass
class Story:
    """Append-only, like the store: every method tells one event and returns the id of its row."""

    holes: int = 2
    card: SpecCard = field(default_factory=wet_card)
    rows: dict[str, list[Any]] = field(default_factory=dict)
    event: int = 0
    resolution_um: float = 2
    repeatability_um: float = 2.5
    gauge_fields: dict[str, Any] = field(default_factory=dict)
    person: str = "Wren"
    pace: timedelta = timedelta(0)
    complaint: str = ""

    def __post_init__(self) -> None:
        self.hole_rows = tuple(Hole(uuid4(), number, "") for number in range(1, self.holes + 1))
        self.gauge = GaugeVersion(uuid4(), uuid4(), "Sled", "depth gauge", 1, Decimal(str(self.resolution_um)),
                                  Decimal(str(self.repeatability_um)), "", "", **self.gauge_fields)  # fmt: skip
        self.setups = {quantity: self._setup(quantity) for quantity in Quantity}

        self.look(InspectionKind.CORNER, None, InspectionOutcome.WAIVED)

    def look(
        self,
        kind: InspectionKind,
        hole: int | None,
        outcome: InspectionOutcome = InspectionOutcome.SOUND,
        figure_um: float | None = None,
    ) -> int:
        """Somebody looks at a hole, at the block or at all holes, or waives it; returns the event."""
        event = self._next()
        figure = None if figure_um is None else Decimal(str(figure_um))
        self._add("inspections", Inspection(uuid4(), kind, self.hole_id(hole), outcome, "a test", figure, "", self.now,
                                            self.person, event))  # fmt: skip
        return event

    def prepare(self, kind: PrepKind, count: int, place: str = "") -> None:
        """A step of making the block ready is written down."""
        self._add("prep_steps", PrepStep(uuid4(), kind, place, count, "", self.now, self.person, self._next()))

    def _next(self) -> int:
        self.event += 1
        return self.event

    def _add(self, kind: str, row: Any) -> None:
        self.rows.setdefault(kind, []).append(row)

    def _setup(self, quantity: Quantity, land: str = FLAT) -> UUID:
        setup = Setup(
            uuid4(), quantity, self.gauge.gauge_id, land, "deck", "bar", None, True, WHEN, "Wren", self._next()
        )
        self._add("setups", setup)
        return setup.setup_id

    def set_up(self, quantity: Quantity, **fields: Any) -> UUID:
        """Choose how something is read from now on: fields of the setup that differ from the usual."""
        usual = {"hold_down": "bar", "hold_down_torque_nm": None, "shared_zero": True, "land": FLAT, "datum": "deck"}
        row = Setup(uuid4(), quantity, self.gauge.gauge_id, chosen_at=WHEN, chosen_by="Wren", event=self._next(),
                    **{**usual, **fields})  # fmt: skip
        self._add("setups", row)
        self.setups[quantity] = row.setup_id
        return row.setup_id

    def look_at_zero(self, quantity: Quantity, moved_um: float) -> ZeroCheck:
        """The zero of what something is read with is looked at again."""
        row = ZeroCheck(uuid4(), self.setups[quantity], Decimal(str(moved_um)), str(moved_um), WHEN, self.person,
                        self._next())  # fmt: skip
        self._add("zero_checks", row)
        return row

    def correct(self, check: ZeroCheck, drift: Any) -> None:
        """Correct every reading that a moved zero made doubtful, as the one action on the screen does.

        A zero that moved by less than the gauge can show makes nothing doubtful: there is nothing to correct.
        """
        from vallostasis.core.gauges.zero_checks import open_doubts, shift_for

        doubt = next((one for one in open_doubts(self.facts()) if one.check == check), None)
        if doubt is None:
            return
        shift = shift_for(check.moved_um, drift, self.gauge)
        for one in doubt.sets:
            self._add("corrections", ZeroCorrection(one.reading_set_id, shift.correction_um, shift.standard_um, "", "",
                                                    WHEN, "Wren", self._next(), doubt.since_event,
                                                    check.event))  # fmt: skip

    def cannot_read(self, fitting: UUID, hour: float, reason: str) -> None:
        """Say that a position of a fitted liner cannot be read."""
        self._add("unreadables", Unreadable(fitting, hour, True, reason, WHEN, self.person, self._next()))

    def change_land(self, land: str) -> None:
        self.setups[Quantity.PROTRUSION] = self._setup(Quantity.PROTRUSION, land)

    @property
    def now(self) -> datetime:
        """When the next thing happens; everything at one time where the story has no pace."""
        return WHEN + (self.event + 1) * self.pace

    def hole_id(self, hole: int | None) -> UUID | None:
        """Id of a hole by its number, none for the block."""
        return None if hole is None else self.hole_rows[hole - 1].hole_id

    def mark(
        self,
        operation: Operation,
        hole: int | None = None,
        kind: MarkKind = MarkKind.DONE,
        count: int | None = None,
        at: datetime | None = None,
    ) -> int:
        """An operation is marked by hand; returns the event."""
        now = self.now
        event = self._next()
        self._add("operation_marks", OperationMark(operation, self.hole_id(hole), kind, "", count, at or now, now,
                                                   self.person, event))  # fmt: skip
        return event

    def choose(self, question: str, side: str) -> None:
        """The job follows a side of a question."""
        self._add("school_choices", SchoolChoice(question, side, "", self.now, self.person, self._next()))

    def find(
        self, kind: FindingKind, hole: int | None, word: str, figure: Decimal | None = None, part: str = "", **lies: Any
    ) -> None:
        """Something is found as the engine is stripped."""
        self._add("findings", Finding(uuid4(), self.hole_id(hole), kind, part, word, "", figure, "", self.now,
                                      self.person, self._next(), **lies))  # fmt: skip

    def take_temperature(self, body: str, celsius: float) -> None:
        """Somebody takes a temperature of the block or the room."""
        self._add("temperatures", Temperature(uuid4(), body, "", Decimal(str(celsius)), str(celsius), self.now,
                                              self.person, self._next()))  # fmt: skip

    def liner(self, mark: str) -> UUID:
        row = Liner(uuid4(), mark, "", "")
        self._add("liners", row)
        return row.liner_id

    def fit(self, hole: int, liner: UUID, *shims_um: int) -> UUID:
        hole_id = self.hole_rows[hole - 1].hole_id
        present = self.facts().present_fitting(hole_id)
        row = Fitting(uuid4(), hole_id, liner, self.now, "Wren", self._next())
        self._add("fittings", row)
        for place, um in enumerate(shims_um):
            self._add("fitting_shims", FittedShim(row.fitting_id, place, Decimal(um), None, str(um), "bevel down"))
        if present is not None:
            self._add(
                "fitting_outs", FittingOut(present.fitting_id, None, row.fitting_id, self.now, "Wren", self._next())
            )
        return row.fitting_id

    def draw(self, hole: int) -> int:
        """The liner of a hole is drawn by itself; returns the event."""
        present = self.facts().present_fitting(self.hole_rows[hole - 1].hole_id)
        assert present is not None
        event = self._next()
        self._add("fitting_outs", FittingOut(present.fitting_id, None, None, self.now, "Wren", event))
        return event

    def cut(self, hole: int, depth_um: int, shim_um: int) -> UUID:
        hole_id = self.hole_rows[hole - 1].hole_id
        present = self.facts().present_fitting(hole_id)
        row = Cut(uuid4(), hole_id, Decimal(depth_um), str(depth_um), Decimal(30), 2, Decimal(shim_um), Decimal(15), "",
                  self.now, "Wren", self._next())  # fmt: skip
        self._add("cuts", row)
        if present is not None:
            self._add("fitting_outs", FittingOut(present.fitting_id, row.cut_id, None, self.now, "Wren", self._next()))
        return row.cut_id

    def read(
        self,
        quantity: Quantity,
        target: UUID,
        values_um: tuple[float, ...],
        after_cut: UUID | None = None,
        hours: tuple[float, ...] = HOURS,
    ) -> list[UUID]:
        """One set of readings round the clock of a fitting, a ledge or a flange."""
        kind = {Quantity.PROTRUSION: "fitting_id", Quantity.COUNTERBORE_DEPTH: "hole_id", Quantity.FLANGE_THICKNESS:
                "liner_id"}[quantity]  # fmt: skip
        opened = ReadingSet(uuid4(), self.setups[quantity], self.gauge.gauge_version_id, None, None, after_cut, None,
                            None, self.now, "Wren", self._next())  # fmt: skip
        self._add("sets", replace(opened, **{kind: target}))
        ids = []
        for number, value in enumerate(values_um):
            hour = None if quantity is Quantity.FLANGE_THICKNESS else hours[number % len(hours)]
            row = Reading(uuid4(), opened.reading_set_id, hour, Decimal(str(value)), str(value), "µm", self.now,
                          self.person, self._next())  # fmt: skip
            self._add("readings", row)
            ids.append(row.reading_id)
        return ids

    def survey(
        self, quantity: Quantity, sizes_um: dict[Place, tuple[float, ...]], **target: UUID | str | Decimal
    ) -> None:
        """One set of readings place by place of a hole, a liner, a fitting or a part by name."""
        opened = ReadingSet(uuid4(), self.setups[quantity], self.gauge.gauge_version_id, None, None, None, None, None,
                            self.now, "Wren", self._next())  # fmt: skip
        self._add("sets", replace(opened, **target))
        for place, sizes in sizes_um.items():
            for size in sizes:
                row = Reading(uuid4(), opened.reading_set_id, place.hour, Decimal(str(size)), str(size), "µm", self.now,
                              self.person, self._next(), place.level_um, place.axis_deg, place.along_um,
                              place.across_um)  # fmt: skip
                self._add("readings", row)

    def strike(self, struck: bool = True, **row: UUID | int) -> None:
        ids = {"reading_id": None, "cut_id": None, "fitting_id": None, **row}
        self._add(
            "strikes", Strike(**ids, struck=struck, reason="", made_at=self.now, made_by="Wren", event=self._next())
        )

    def facts(self) -> JobFacts:
        kinds = [name for name in KIND_OF_ROWS if name in self.rows]
        return JobFacts(
            job=Job(JOB_ID, "1", "One", "Basin Trust", self.complaint, "", WHEN),
            card_version=CardVersion(uuid4(), uuid4(), 1, WHEN, "Ines"),
            card=self.card,
            holes=self.hole_rows,
            gauge_versions=(self.gauge,),
            **EMPTY | {kind: tuple(self.rows[kind]) for kind in kinds},
        )
