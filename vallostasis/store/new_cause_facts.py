"""What can be recorded of what does not add up: experiments, what came of them, cases kept. [µm], [min]"""

from dataclasses import dataclass
from decimal import Decimal
from typing import ClassVar
from uuid import UUID

from vallostasis.core.records.experiments import Matter


@dataclass(frozen=True, slots=True)
class NewExperiment:
    """An experiment that is begun; its id was made by the client."""

    rows: ClassVar = "experiments"
    experiment_id: UUID
    job_id: UUID
    matter: Matter
    check_name: str
    places: str
    change: str
    expected: str


@dataclass(frozen=True, slots=True)
class NewExperimentResult:
    """What came of an experiment."""

    rows: ClassVar = "experiment_results"
    job_id: UUID
    experiment_id: UUID
    value_um: Decimal | None
    typed: str
    typed_unit: str
    words: str
    minutes: Decimal
    money: Decimal | None


@dataclass(frozen=True, slots=True)
class NewKeptCase:
    """A case that is kept; its id was made by the client."""

    rows: ClassVar = "kept_cases"
    case_id: UUID
    job_id: UUID
    matter: Matter
    symptom: str
    shape: str
    false_leads: str
    cause: str
    found_with: str
    minutes: Decimal
    words: str
