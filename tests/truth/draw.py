"""Drawing what is really there, and what a gauge shows of it."""

from collections.abc import Iterable
from dataclasses import dataclass, field
from math import cos, radians, sin

import numpy as np

from tests.core.card import dry_card, wet_card
from tests.core.facts import Story
from vallostasis.core.records.rows import Place, Quantity
from vallostasis.core.records.spec_card import SpecCard


@dataclass
class Gauge:
    """A gauge with its true zero: what it shows is off by that, by scatter, and by its graduation. [µm]"""

    rng: np.random.Generator
    step_um: float = 1.0
    scatter_um: float = 1.0
    zero_um: float = 0.0
    moved_um: float = 0.0
    person_um: float = 0.0

    def zeroed(self) -> "Gauge":
        """Set to its zero: that is a reading of nought, and its error stays until the next."""
        self.moved_um = 0.0
        self.zero_um = -(self.shown(0.0) - self.off_um)
        return self

    @property
    def off_um(self) -> float:
        """What all its readings are off by now. [µm]"""
        return self.zero_um + self.moved_um + self.person_um

    def shown(self, truth_um: float) -> float:
        """What it shows of a size: exact in its steps."""
        seen = truth_um + self.off_um + self.rng.normal(0, self.scatter_um)
        return round(seen / self.step_um) * self.step_um if self.step_um else seen


@dataclass(frozen=True)
class Face:
    """A face round a hole: height at its middle, tilt, and single spots off it. [µm], [h]"""

    centre_um: float
    b_um: float = 0.0
    c_um: float = 0.0
    spots: dict[float, float] = field(default_factory=dict)

    def at(self, hour: float) -> float:
        """Its height at a clock position. [µm]"""
        angle = radians(30 * (hour - 9))
        return self.centre_um + self.b_um * cos(angle) + self.c_um * sin(angle) + self.spots.get(hour, 0.0)


def story(gauge: Gauge, card: SpecCard | None = None, holes: int = 2, **fields: object) -> Story:
    """A job whose gauge is said to be what the drawn one is."""
    return Story(holes, card or wet_card(), resolution_um=gauge.step_um or 1e-9, repeatability_um=gauge.scatter_um,
                 gauge_fields=dict(fields))  # fmt: skip


def read_face(
    told: Story, gauge: Gauge, quantity: Quantity, target: object, face: Face, hours: tuple[float, ...],
    repeats: int = 1,
) -> list[object]:  # fmt: skip
    """Somebody reads a face round the clock, each position so many times."""
    every = tuple(hour for hour in hours for _ in range(repeats))
    values = tuple(gauge.shown(face.at(hour)) for hour in every)
    return list(told.read(quantity, target, values, hours=every))  # type: ignore[arg-type]


def bore_story(gauge: Gauge, card: SpecCard, **setup: object) -> Story:
    """A job whose bores are read as deviations from a size."""
    told = story(gauge, card)
    told.set_up(Quantity.BLOCK_BORE, **setup)
    return told


def read_bore(told: Story, gauge: Gauge, truth: dict[Place, float], hole: int = 1, repeats: int = 1) -> None:
    """Somebody reads a bore place by place; the truth is as the gauge would show it without an error. [µm]"""
    sizes = {place: tuple(gauge.shown(size) for _ in range(repeats)) for place, size in truth.items()}
    told.survey(Quantity.BLOCK_BORE, sizes, hole_id=told.hole_rows[hole - 1].hole_id)


def share(hits: Iterable[bool]) -> tuple[float, float]:
    """Share of hits, and twice its own standard error. [1]"""
    found = np.array(list(hits), dtype=float)
    mean = float(found.mean())
    return mean, 2 * float(np.sqrt(max(mean * (1 - mean), 1 / len(found)) / len(found)))


__all__ = ["Face", "Gauge", "bore_story", "dry_card", "read_bore", "read_face", "share", "story", "wet_card"]
