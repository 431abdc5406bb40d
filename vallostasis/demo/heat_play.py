"""A liner that drops hot and cold as it went in an invented job: moments, temperatures and heights."""

from dataclasses import dataclass

from vallostasis.core.records.heat_runs import HeatMarkKind


@dataclass(frozen=True, slots=True)
class DropMarkPlay:
    """Something noted so long after the liner came out of the cold; ``read`` is a temperature or a height as typed."""

    after_s: float
    kind: HeatMarkKind
    read: str = ""
    words: str = ""


@dataclass(frozen=True, slots=True)
class DropPlay:
    """A drop: temperatures planned [°C], seconds planned, two people, and what happened, so many hours ago."""

    hole: int
    liner: str
    drops: str
    calls: str
    block_c: float
    liner_c: float
    enter_s: float
    home_s: float
    block_kg: float
    ago_h: float
    marks: tuple[DropMarkPlay, ...]
