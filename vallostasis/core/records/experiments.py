"""Experiments on what does not add up: one change at a time, what was expected, what came of it; cases kept of them."""

from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from enum import StrEnum
from uuid import UUID

from vallostasis.core.notation.lengths import metres


class Matter(StrEnum):
    """What does not add up."""

    HEIGHTS = "heights"
    BORES = "bores"


@dataclass(frozen=True, slots=True)
class Experiment:
    """One thing that is changed or looked at, before it is known what comes of it.

    ``check_name`` is that of the table, empty for a change of somebody's own; ``places`` are hole numbers with commas,
    empty for the whole block.
    """

    experiment_id: UUID
    matter: Matter
    check_name: str
    places: str
    change: str
    expected: str
    begun_at: datetime
    begun_by: str
    event: int

    @property
    def holes(self) -> tuple[int, ...]:
        """Its holes by number; none for the whole block."""
        return tuple(int(one) for one in self.places.split(",") if one.strip())


@dataclass(frozen=True, slots=True)
class ExperimentResult:
    """What came of an experiment: what was read as typed, words, minutes of work, money. [µm]

    ``value_um`` is None where nothing was read as a number.
    """

    experiment_id: UUID
    value_um: Decimal | None
    typed: str
    typed_unit: str
    words: str
    minutes: Decimal
    money: Decimal | None
    settled_at: datetime
    settled_by: str
    event: int

    @property
    def value_m(self) -> float | None:
        """What was read; None where it is no number. [m]"""
        return None if self.value_um is None else metres(self.value_um)


@dataclass(frozen=True, slots=True)
class KeptCase:
    """An anomaly that was settled, kept to be found again: how it showed, what was tried in vain, what it was.

    ``shape`` is its residuals as text, one line for each: hole, angle or none, µm.
    """

    case_id: UUID
    matter: Matter
    symptom: str
    shape: str
    false_leads: str
    cause: str
    found_with: str
    minutes: Decimal
    words: str
    kept_at: datetime
    kept_by: str
    event: int
