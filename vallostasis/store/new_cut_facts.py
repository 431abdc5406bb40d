"""What can be recorded of cutting counterbores: the block made ready, its plan, runs. [µm], [h]"""

from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from typing import ClassVar
from uuid import UUID

from vallostasis.core.records.cut_runs import RunMarkKind
from vallostasis.core.records.preparation import InspectionKind, InspectionOutcome, PrepKind


@dataclass(frozen=True, slots=True)
class NewPrepStep:
    """A step of making the block ready to be cut."""

    rows: ClassVar = "prep_steps"
    prep_step_id: UUID
    job_id: UUID
    kind: PrepKind
    place: str
    count: int
    words: str


@dataclass(frozen=True, slots=True)
class NewPlannedHole:
    """What the plan that is chosen does to one hole."""

    rows: ClassVar = "planned_holes"
    job_id: UUID
    plan_id: UUID
    hole_id: UUID
    rule: str
    datum: str
    undecided_too: bool
    lock: str
    lock_shim_um: Decimal | None
    target_um: Decimal | None
    depth_um: Decimal | None
    shim_um: Decimal | None
    place: int | None


@dataclass(frozen=True, slots=True)
class NewMatchedPlace:
    """The liner that goes into a hole by the matching that is chosen."""

    rows: ClassVar = "matched_places"
    job_id: UUID
    matching_id: UUID
    hole_id: UUID
    liner_id: UUID
    shim_um: Decimal | None


@dataclass(frozen=True, slots=True)
class NewOptionChoice:
    """What is decided to be done about a hole."""

    rows: ClassVar = "option_choices"
    option_choice_id: UUID
    job_id: UUID
    hole_id: UUID
    option: str
    reason: str
    worth: Decimal | None


@dataclass(frozen=True, slots=True)
class NewCutRun:
    """A run that is begun."""

    rows: ClassVar = "cut_runs"
    job_id: UUID
    run_id: UUID
    hole_id: UUID
    depth_um: Decimal
    start_um: Decimal
    shim_um: Decimal
    graduation_um: Decimal
    cutter: str
    vacuum_every: int


@dataclass(frozen=True, slots=True)
class NewRunPass:
    """A pass that was ended; its id was made by the client, so that sending it again never doubles it."""

    rows: ClassVar = "run_passes"
    job_id: UUID
    pass_id: UUID
    run_id: UUID
    number: int
    stop_hour: float
    noted_at: datetime


@dataclass(frozen=True, slots=True)
class NewRunMark:
    """Something looked at, measured or decided on a run."""

    rows: ClassVar = "run_marks"
    job_id: UUID
    run_mark_id: UUID
    run_id: UUID
    kind: RunMarkKind
    words: str = ""
    depth_um: Decimal | None = None
    typed: str = ""


@dataclass(frozen=True, slots=True)
class NewInspection:
    """A look at the block or a hole before metal is taken off, or that it is waived."""

    rows: ClassVar = "inspections"
    inspection_id: UUID
    job_id: UUID
    kind: InspectionKind
    hole_id: UUID | None
    outcome: InspectionOutcome
    words: str
    figure_um: Decimal | None
    typed: str
