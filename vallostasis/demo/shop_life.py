"""What goes on in the invented shop beside its jobs: gauge studies, the service log, a ring that is sent round."""

import random
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date

from vallostasis.core.notation.lengths import Unit
from vallostasis.core.records.prices import PriceKind
from vallostasis.demo.hidden_truth import MICROMETER, NOISE_SHARE, OLD_DIAL, SLED, GaugeTruth
from vallostasis.demo.survey_play import BORE_GAUGE, INDICATOR, LONG_MICROMETER, OLD_BORE_GAUGE, SLEEVE_RING

# What another pair of hands adds, and how much that differs from part to part. [µm]
HAND_UM, HAND_SPREAD_UM = 2.1, 1.5


@dataclass(frozen=True, slots=True)
class StudyPlay:
    """A study as it is planned, the true sizes of its parts [µm], and how many of its readings are taken."""

    gauge: GaugeTruth
    what: str
    tolerance: str
    people: tuple[str, ...]
    trials: int
    parts_um: tuple[float, ...]
    seed: int
    read: int

    def readings_um(self) -> Mapping[tuple[int, int, int], float]:
        """What each person reads on each part in each trial, to the graduation of the gauge. [µm]"""
        noise = random.Random(self.seed)
        step = self.gauge.resolution_um
        hands = [[HAND_UM * place + noise.gauss(0, HAND_SPREAD_UM) for place, _ in enumerate(self.people)]
                 for _ in self.parts_um]  # fmt: skip
        return {
            (part, place, trial): step * round(
                (size + hands[part][place] + noise.gauss(0, self.gauge.repeatability_um * NOISE_SHARE)) / step
            )
            for part, size in enumerate(self.parts_um)
            for place, _ in enumerate(self.people)
            for trial in range(self.trials)
        }  # fmt: skip


STUDIES = (
    StudyPlay(MICROMETER, "flange thickness of the Fennick", "40 µm", ("Ines", "Tobiah"), 3,
              (8902.3, 8903.8, 8896.4, 8903.1, 8908.6, 8904.2), 4, 36),
    StudyPlay(SLED, "protrusion of the ferry", "75 µm", ("Wren", "Tobiah"), 2, (62.0, 88.0, 117.0, 74.0), 5, 6),
)  # fmt: skip


# Parts of a study that somebody plans with a simulated gauge; more parts repeat them. [µm]
ANY_PARTS_UM = (64.0, 91.0, 78.0, 113.0, 70.0, 102.0, 85.0)


def part_of_study_um(what: str, part: str) -> float:
    """True size of a part, called ``part-0`` and on, of a study named with strokes for spaces. [µm]"""
    play = next((one for one in STUDIES if one.what.replace(" ", "-") == what), None)
    sizes = ANY_PARTS_UM if play is None else play.parts_um
    return sizes[int(part.rpartition("-")[2] or 0) % len(sizes)]


@dataclass(frozen=True, slots=True)
class ServiceNote:
    """One line of the service log."""

    gauge: str
    kind: str
    words: str
    done_on: date


SERVICES = (
    ServiceNote(OLD_DIAL.name, "wear found", "sticks near the end of its travel", date(2025, 2, 11)),
    ServiceNote(INDICATOR.name, "lent", "to the boatyard at Reedmere", date(2025, 6, 2)),
    ServiceNote(INDICATOR.name, "brought back", "with the foot cleaned", date(2025, 6, 19)),
    ServiceNote(BORE_GAUGE.name, "oiled", "after the damp week", date(2025, 9, 30)),
)


@dataclass(frozen=True, slots=True)
class RingRead:
    """A ring as a gauge showed it, in whose shop; empty: here."""

    master: str
    gauge: str
    text: str
    bare_unit: Unit
    shop: str = ""


RING_READ = (
    RingRead(SLEEVE_RING, BORE_GAUGE.name, "5.0001", "inch"),
    RingRead(SLEEVE_RING, LONG_MICROMETER.name, "5.0001", "inch"),
    RingRead(SLEEVE_RING, OLD_BORE_GAUGE.name, "5.0010", "inch", "Reedmere boatyard"),
)

# What things take in the invented shop: hours, money beside them, days of waiting.
CURRENCY = "€"
PRICES: tuple[tuple[PriceKind, float, float, float], ...] = (
    (PriceKind.HOUR, 1, 68, 0),
    (PriceKind.REFIT, 1, 0, 0),
    (PriceKind.CUT, 0.6, 0, 0),
    (PriceKind.SHIM, 0, 24.5, 6),
    (PriceKind.RING, 3.5, 64, 9),
    (PriceKind.SKIM, 5.5, 0, 4),
    (PriceKind.BLOCK, 18, 1450, 24),
)
