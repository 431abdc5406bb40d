"""Ferry Lanthorn, starboard: the sister of the port engine, five holes cut and proved by runs, the sixth stopped.

Everything here is invented. Pits on every ledge ask for the quarter-millimetre shims, and the shelf is short of one.
The deliberate mistake: the switch was pressed twice for the fifth pass of hole 4, and the second tap was refused.
"""

import random
from dataclasses import dataclass, replace

from vallostasis.core.records.preparation import InspectionKind, PrepKind
from vallostasis.core.records.route_marks import FindingKind, Operation
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import Length, ShimSize, SpecCard
from vallostasis.demo import ferry_lanthorn as port
from vallostasis.demo.hidden_truth import (
    MICROMETER,
    SLED,
    Bench,
    BlockTruth,
    DemoJob,
    HoleTruth,
    LinerTruth,
    TypedReading,
)
from vallostasis.demo.route_play import FindingPlay, LookPlay, MarkPlay, RoutePlay, StepPlay, found

SEED = 26039
NUMBER = "26-039"
SHIM_UM, PIT = 250.0, "0.15 mm"
# What is true of the cutter, and nobody was told: its stop scatters less than its card says. [µm]
STOP_SCATTER_UM = 6.0
FINISHED, STOPPED_AT = 5, 7
# More than any of these cuts wants: a run that is counted out ends before.
MOST_PASSES = 14

HOLES = tuple(HoleTruth(depth, tilt, -tilt / 2) for depth, tilt in
              ((8861.0, 4), (8858.0, -3), (8864.0, 5), (8860.0, 2), (8857.0, -4), (8862.0, 3)))  # fmt: skip
LINERS = tuple(LinerTruth(f"R{n}", "Pellerby", "P-2214", flange) for n, flange in
               enumerate((8900.0, 8901.0, 8899.0, 8900.0, 8902.0, 8901.0), start=1))  # fmt: skip
BLOCK = BlockTruth(HOLES, LINERS, {n: f"R{n}" for n in range(1, 7)})


@dataclass(frozen=True, slots=True)
class RunPlay:
    """A run as it was cut: seconds of every pass, depths read after, protrusion read once its liner was in. [s]"""

    hole: int
    by: str
    depth: str
    pass_s: tuple[float, ...]
    ledge: tuple[TypedReading, ...] = ()
    protrusion: tuple[TypedReading, ...] = ()
    shim_measured: str = ""


def demo_job() -> DemoJob:
    """Return the job as it stood before the first run."""
    bench = Bench(SEED)
    before = [_flange(bench, liner) for liner in LINERS]
    before += [_depth(bench, number, hour, HOLES[number - 1].ledge_depth_um(hour)) for number in range(1, 7)
               for hour in port.HOURS]  # fmt: skip
    after = [_protrusion(bench, number, hour, LINERS[number - 1].flange_um - HOLES[number - 1].ledge_depth_um(hour))
             for number in range(1, 7) for hour in port.HOURS]  # fmt: skip
    sound = "sound"
    return DemoJob(
        number=NUMBER,
        name="Ferry Lanthorn, starboard",
        customer="Basin Ferry Trust",
        complaint="The sister engine: ledges pitted like the other's, done before it leaks too.",
        serial="FW6-0419-S",
        card=spec_card(),
        block=BLOCK,
        before_fitting=tuple(before),
        shims={},
        after_fitting=tuple(after),
        route=RoutePlay(
            findings=(
                *found("Wren", FindingKind.CONDITION, "liner", sound, sound, sound, sound, sound, sound),
                *found("Wren", FindingKind.GASKET, "fire ring", sound, sound, "carbon passing", sound, sound, sound),
                *(FindingPlay(FindingKind.MARK, "Wren", "ledge", "pit", hole, "", PIT, 6.0) for hole in range(1, 7)),
            ),
            steps=(
                StepPlay(PrepKind.SCRAPED, "Wren", 4, "scraper and solvent"),
                StepPlay(PrepKind.BOLT_HOLES, "Wren", 14),
                StepPlay(PrepKind.DOWELS, "Wren", 2),
                *(StepPlay(PrepKind.PLUGS_IN, "Tobiah", count, place) for count, place in
                  ((6, "bores"), (9, "oil holes"), (7, "journals"))),
            ),
            looks=(
                LookPlay(InspectionKind.CRACK_LEDGE, "Tobiah", "dye, all six"),
                LookPlay(InspectionKind.CRACK_DECK, "Tobiah", "dye"),
                LookPlay(InspectionKind.PRESSURE, "Ines", "2 bar, half an hour"),
                LookPlay(InspectionKind.CORNER, "Tobiah", "radius gauge, all six", "0.4 mm"),
            ),
            marks=(
                MarkPlay(Operation.STRIP, "Wren", 60, "pits on every ledge at 6 h"),
                MarkPlay(Operation.DECIDE, "Ines", 40, "all six on quarter-millimetre shims, agreed with the Trust"),
            ),
        ),
    )  # fmt: skip


def runs() -> tuple[RunPlay, ...]:
    """Return the runs in the order in which they were cut: five finished, one stopped in the middle."""
    noise, bench = random.Random(SEED), Bench(SEED + 1)
    played = []
    for number in range(1, 7):
        aimed = LINERS[number - 1].flange_um + SHIM_UM - 100.0
        passes = MOST_PASSES if number <= FINISHED else STOPPED_AT
        times = tuple(round(noise.gauss(62, 7), 1) for _ in range(passes))
        if number > FINISHED:
            played.append(RunPlay(number, "Tobiah", f"{aimed / 1000:.3f} mm", times))
            continue
        # What the graduations give, held by the stop, which scatters.
        depth = aimed + noise.gauss(0, STOP_SCATTER_UM)
        shim = SHIM_UM + noise.gauss(0, 1.5)
        stands = LINERS[number - 1].flange_um + shim - depth
        ledge = tuple(_depth(bench, number, hour, depth) for hour in port.HOURS)
        proud = tuple(_protrusion(bench, number, hour, stands) for hour in port.HOURS)
        played.append(RunPlay(number, "Wren", f"{aimed / 1000:.3f} mm", times, ledge, proud, f"{shim / 1000:.3f} mm"))
    return tuple(played)


def _flange(bench: Bench, liner: LinerTruth) -> TypedReading:
    thickness = bench.read(liner.flange_um, MICROMETER)
    return TypedReading(Quantity.FLANGE_THICKNESS, "Ines", f"{thickness / 1000:.3f}", "mm", liner_mark=liner.mark)


def _depth(bench: Bench, number: int, hour: float, truth_um: float) -> TypedReading:
    text = f"{bench.read(truth_um, SLED) / 1000:.3f}"
    return TypedReading(Quantity.COUNTERBORE_DEPTH, "Tobiah", text, "mm", number, hour)


def _protrusion(bench: Bench, number: int, hour: float, truth_um: float) -> TypedReading:
    return TypedReading(Quantity.PROTRUSION, "Wren", f"{bench.read(truth_um, SLED) / 10:.1f}", "0.01 mm", number, hour)


def spec_card() -> SpecCard:
    """Return the card of the sister, with what lies on the shelf for it."""
    card = port.spec_card()
    shims = tuple(ShimSize(Length(size), stock, None) for size, stock in
                  (("0.10", 2), ("0.15", 0), ("0.20", 3), ("0.25", 5), ("0.50", 1)))  # fmt: skip
    return replace(card, name="Fennick 6W, starboard", shims=shims, features=())
