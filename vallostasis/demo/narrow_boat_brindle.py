"""Narrow-boat Brindle: a sister twin of Quillet, further on: hole 1 ready to fit, hole 2 fitted, bored and honed.

Everything here is invented. The deliberate mistake: liner two went in dry on one side and popped, and what it lost on
the way shows in the close-in below the rings.
"""

from dataclasses import dataclass, replace
from decimal import Decimal
from math import cos, radians, sin

from vallostasis.core.features.plan import pattern_of
from vallostasis.core.records.honing import HoneStage
from vallostasis.core.records.pulls import PullMarkKind
from vallostasis.core.records.route_marks import FindingKind, Operation
from vallostasis.core.records.rows import Place, Quantity, ZeroedOn
from vallostasis.core.records.spec_card import CardLevel, FeatureSheet, Length, SpecCard
from vallostasis.demo.hidden_truth import Bench, BlockTruth, DemoJob, GaugeTruth, HoleTruth, LinerTruth
from vallostasis.demo.narrow_boat import AXES, INCH_UM, LEVELS, OUTSIDE_LEVELS, THOU_UM, _book, _own
from vallostasis.demo.narrow_boat import spec_card as card_of_twin
from vallostasis.demo.narrow_boat import spec_card_read as card_of_twin_read
from vallostasis.demo.route_play import MarkPlay, RoutePlay, found
from vallostasis.demo.survey_play import (
    BAR_INDICATOR,
    BORE_GAUGE,
    LONG_MICROMETER,
    MAIN_RING,
    RULE,
    SLEEVE_RING,
    SurveyPlay,
    TypedPlace,
    master_um,
)

SEED = 26061
FREE = "free, no plate; main caps torqued"
NUMBER = "26-061"
BLOCK = BlockTruth((HoleTruth(7_925.0), HoleTruth(7_930.0)),
                   (LinerTruth("B1", "Aldmoor", "A-35", 7_950.0), LinerTruth("B2", "Aldmoor", "A-35", 7_945.0)),
                   {})  # fmt: skip
# How far each block bore lies below its liner's outside, level by level from the top. [thou]
PRESS_THOU = {1: (0.38, 0.46, 0.54, 0.47, 0.40), 2: (0.80, 0.95, 1.15, 1.05, 0.85)}
# What the walls make of a press, and what the roughness takes of it: the truth of this block, not the card's. [1]
TRUE_SHARE, LOST_THOU = 0.75, 0.26
# Below the rings metal went as it popped: so much of the press was gone there. [1]
SHAVED = 0.25
INSIDE_UM = 4.745 * INCH_UM
FINISHED_UM, BORED_UM = 4.7505 * INCH_UM, 4.7464 * INCH_UM
# Pistons as their maker ground them, across the pin; the liner is wanted six thou over them.
PISTON_UM = {1: 4.7446 * INCH_UM, 2: 4.7445 * INCH_UM}


def outside_um(number: int, level_um: float) -> float:
    """True outside of a liner at a depth, with its barrel. [µm]"""
    share = level_um / (9.5 * INCH_UM)
    return 5.0012 * INCH_UM + 0.6 * THOU_UM * (1 - (2 * share - 1) ** 2) + (0.2 * THOU_UM if number == 2 else 0.0)


def press_um(number: int, level_um: float) -> float:
    """True press of a level. [µm]"""
    depths = [float(depth) * INCH_UM for _, depth in LEVELS]
    presses = [one * THOU_UM for one in PRESS_THOU[number]]
    if level_um <= depths[0]:
        return presses[0]
    for at in range(1, len(depths)):
        if level_um <= depths[at]:
            share = (level_um - depths[at - 1]) / (depths[at] - depths[at - 1])
            return presses[at - 1] + share * (presses[at] - presses[at - 1])
    return presses[-1]


def truth_um(quantity: Quantity, part: str, place: Place, cut_um: float | None = None) -> float | None:
    """What a perfect gauge at 20 °C would find. [µm]"""
    number = int(part[-1]) if part[-1].isdigit() else 1
    level, axis = float(place.level_um or 0), radians(place.axis_deg or 0)
    oval = 0.06 * THOU_UM * cos(2 * (axis - radians(70)))
    if quantity is Quantity.LINER_OUTSIDE:
        return outside_um(number, level)
    if quantity is Quantity.BLOCK_BORE:
        return outside_um(number, level) - press_um(number, level) + oval
    if quantity is Quantity.LINER_INSIDE:
        return INSIDE_UM + 0.1 * THOU_UM * number
    if quantity is Quantity.LINER_BORE:
        if cut_um is not None:
            return cut_um + oval
        kept = SHAVED if number == 2 and 0.7 < level / (9.5 * INCH_UM) < 0.85 else 1.0
        net = max(press_um(number, level) * kept - LOST_THOU * THOU_UM, 0.0)
        return INSIDE_UM + 0.1 * THOU_UM * number - TRUE_SHARE * net + oval
    if quantity is Quantity.MAIN_BORE:
        return main_um(number, place.axis_deg or 0.0, pressed=cut_um is not None)
    if quantity is Quantity.MAIN_LINE:
        return main_line_um(number, place.hour or 12.0, pressed=cut_um is not None)
    if quantity is Quantity.PISTON_SKIRT:
        return PISTON_UM[number] - (0.3 * THOU_UM if place.axis_deg == 0.0 else 0.0)
    return None


def main_um(number: int, axis_deg: float, pressed: bool) -> float:
    """True size of a main bore; pressing the sleeve of hole two drew the middle web in on one diagonal. [µm]"""
    drawn = {45.0: -0.9, 90.0: -0.4, 135.0: 0.2}[axis_deg] if pressed and number == 2 else 0.0
    return 2.6254 * INCH_UM + (drawn + {1: 0.0, 2: 0.05, 3: -0.1}[number]) * THOU_UM


def main_line_um(number: int, hour: float, pressed: bool) -> float:
    """What an indicator on the bar reads round a main bore: the bar sags, the middle web went up. [µm]"""
    upright = {1: 0.0, 2: 0.15 + (0.75 if pressed else 0.0), 3: 0.2}[number]
    across = {1: 0.1, 2: 0.05 + (0.35 if pressed else 0.0), 3: 0.0}[number]
    angle = radians(30.0 * hour)
    return THOU_UM * (upright * cos(angle) + across * sin(angle))


def mains(pressed: bool) -> tuple[SurveyPlay, ...]:
    """The mains as somebody read them, before anything was pressed or after."""
    bench, parts = Bench(SEED + (3 if pressed else 2)), ("main-1", "main-2", "main-3")
    cut_um = 1.0 if pressed else None
    sizes = _read(bench, Quantity.MAIN_BORE, parts, BORE_GAUGE, MAIN_RING, cut_um)
    typed = []
    for part in parts:
        for place in pattern_of(spec_card_read(), Quantity.MAIN_LINE)[0].places:
            truth = truth_um(Quantity.MAIN_LINE, part, place, cut_um)
            assert truth is not None
            thou = bench.read(truth, BAR_INDICATOR) / THOU_UM
            typed.append(TypedPlace("Tobiah", part, place, f"{thou:+.1f}", "thou"))
    line = SurveyPlay(Quantity.MAIN_LINE, BAR_INDICATOR.name, ZeroedOn.DATUM, tuple(typed), load="caps torqued",
                      method="bar through all main bores")  # fmt: skip
    ago_h = 0.2 if pressed else 1.0
    return replace(sizes, ago_h=ago_h, anew=False), replace(line, ago_h=ago_h)


@dataclass(frozen=True, slots=True)
class HoneRoundPlay:
    """A round of the hone: so many double strokes, and the size that it left. [µm]"""

    stage: HoneStage
    strokes: int
    left_um: float


# What each round left to the finished size. [thou]
ROUNDS = (
    (HoneStage.ROUGH, 20, 3.52), (HoneStage.ROUGH, 20, 2.86), (HoneStage.ROUGH, 20, 2.32), (HoneStage.ROUGH, 22, 1.70),
    (HoneStage.ROUGH, 13, 1.34), (HoneStage.FINE, 20, 1.17), (HoneStage.FINE, 20, 1.02), (HoneStage.FINE, 20, 0.85),
    (HoneStage.FINE, 54, 0.41), (HoneStage.FINE, 30, 0.14), (HoneStage.BRUSH, 50, 0.04),
)  # fmt: skip


def hone_rounds() -> tuple[HoneRoundPlay, ...]:
    """Return the rounds of hole two."""
    return tuple(HoneRoundPlay(stage, many, FINISHED_UM - left * THOU_UM) for stage, many, left in ROUNDS)


@dataclass(frozen=True, slots=True)
class PullMarkPlay:
    """Something noted of a pull: so far to go [mm], with so much force [kN], after so many seconds."""

    kind: PullMarkKind
    after_s: float
    to_go_mm: str = ""
    force_kn: str = ""
    words: str = ""


@dataclass(frozen=True, slots=True)
class PullPlay:
    """A pull as it went: which hole and liner, with what, by whom, so many hours ago."""

    hole: int
    liner: str
    tool: str
    cranks: str
    watches: str
    ago_h: float
    marks: tuple[PullMarkPlay, ...]


def pull() -> PullPlay:
    """Hole two: it popped at 139 mm, was squared and oiled, and then rose steadily until it touched."""
    kinds = PullMarkKind
    steps = ((205.0, "0.6"), (180.0, "1.3"), (160.0, "2.0"), (139.0, "4.2"))
    later = ((120.0, "2.7"), (100.0, "3.4"), (80.0, "4.1"), (60.0, "4.8"), (40.0, "5.4"), (20.0, "6.0"), (5.0, "6.5"))
    marks = [PullMarkPlay(kinds.DEPTH, 30 + 20 * at, f"{depth:g}", force) for at, (depth, force) in enumerate(steps)]
    marks += [
        PullMarkPlay(kinds.POPS, 120, words="three bangs, the handle jumped"),
        PullMarkPlay(kinds.STOPPED, 126, words="gap under the flange wider at 3 h"),
        PullMarkPlay(kinds.FREED, 246, words="drawn back a turn, squared on the bars, oiled again"),
    ]
    marks += [PullMarkPlay(kinds.DEPTH, 270 + 24 * at, f"{depth:g}", force) for at, (depth, force) in enumerate(later)]
    marks += [PullMarkPlay(kinds.SMOOTH, 300), PullMarkPlay(kinds.TOUCHES, 470, "0.5", "6.7")]
    return PullPlay(2, "B2", "Screw puller", "Wren", "Tobiah", 0.3, tuple(sorted(marks, key=lambda one: one.after_s)))


def demo_job() -> DemoJob:
    """Return the job as it stood before the pull."""
    bench = Bench(SEED)
    return DemoJob(
        number=NUMBER,
        name="Narrow-boat Brindle",
        customer="Hollin Wharf Boat Club",
        complaint="Bores worn past the last oversize; new dry liners in both.",
        serial="OT-1093",
        card=spec_card(),
        block=BLOCK,
        before_fitting=(),
        shims={},
        after_fitting=(),
        surveys=(
            _read(bench, Quantity.BLOCK_BORE, ("hole-1", "hole-2"), BORE_GAUGE, SLEEVE_RING),
            _read(bench, Quantity.LINER_OUTSIDE, ("liner-B1", "liner-B2"), LONG_MICROMETER, SLEEVE_RING),
            _read(bench, Quantity.LINER_INSIDE, ("liner-B1", "liner-B2"), BORE_GAUGE, SLEEVE_RING),
            _read(bench, Quantity.PISTON_SKIRT, ("piston-1", "piston-2"), LONG_MICROMETER, SLEEVE_RING),
            *mains(False),
            SurveyPlay(Quantity.TRIAL_FIT, RULE.name, ZeroedOn.DATUM,
                       (TypedPlace("Wren", "hole-1", Place(), "1.4", "inch", "B1"),
                        TypedPlace("Wren", "hole-2", Place(), "1.2", "inch", "B2")), load="oiled"),
        ),
        route=RoutePlay(
            findings=found("Wren", FindingKind.CONDITION, "bore", "worn out", "worn out"),
            marks=(
                MarkPlay(Operation.STRIP, "Wren", 90, "class letters on the deck: B and B"),
                MarkPlay(Operation.CAPS, "Tobiah", 88, "all three, book torque"),
                MarkPlay(Operation.HONE_BLOCK, "Ines", 72, "round three, light press", 1,
                         hold_reason="sleeves were measured first"),
                MarkPlay(Operation.HONE_BLOCK, "Ines", 71, "round three, light press", 2,
                         hold_reason="sleeves were measured first"),
                MarkPlay(Operation.FIT_PREP, "Wren", 0, "clean, dry, oiled", 1),
            ),
        ),
    )  # fmt: skip


def bore_two(sizes_um: tuple[float | None, ...]) -> tuple[SurveyPlay, ...]:
    """The bore of hole two each time it was read: as the press left it, then as somebody cut it. [µm]"""
    bench = Bench(SEED + 1)
    read = [_read(bench, Quantity.LINER_BORE, ("hole-2",), BORE_GAUGE, SLEEVE_RING, size) for size in sizes_um]
    # What the press left was read before the bar took it away.
    return (replace(read[0], ago_h=0.2), *read[1:])


WHY_BORED = "the block does not change a plate's worth: two thick sleeves"


def bored() -> MarkPlay:
    """Hole two was bored after the press."""
    return MarkPlay(Operation.BORE, "Wren", 0.05, "four thou left for the hone", 2, hold_reason=WHY_BORED)


def _read(
    bench: Bench,
    quantity: Quantity,
    parts: tuple[str, ...],
    gauge: GaugeTruth,
    master: str,
    cut_um: float | None = None,
) -> SurveyPlay:
    zero_um, typed = master_um(master), []
    for part in parts:
        for place in pattern_of(spec_card_read(), quantity)[0].places:
            truth = truth_um(quantity, part, place, cut_um)
            assert truth is not None
            thou = bench.read(truth - zero_um, gauge) / THOU_UM
            typed.append(TypedPlace("Tobiah", part, place, f"{thou:+.1f}", "thou"))
    load = {
        Quantity.PISTON_SKIRT: "piston new",
        Quantity.BLOCK_BORE: FREE,
        Quantity.LINER_BORE: FREE,
        Quantity.MAIN_BORE: "caps torqued",
    }.get(quantity, "")
    warm = "20.0" if quantity in (Quantity.BLOCK_BORE, Quantity.LINER_BORE, Quantity.MAIN_BORE) else ""
    return SurveyPlay(quantity, gauge.name, ZeroedOn.MASTER, tuple(typed), master, "20.0", block_c=warm,
                      part_c="" if warm else "20.0", load=load,
                      anew=cut_um is not None)  # fmt: skip


def _sheets(exact: bool) -> tuple[FeatureSheet, ...]:
    def depth(typed: str) -> Length:
        return Length(typed, Decimal(typed) * Decimal(INCH_UM)) if exact else Length(typed)

    levels = tuple(CardLevel(name, depth(typed)) for name, typed in LEVELS)
    outside = tuple(CardLevel(name, depth(typed)) for name, typed in OUTSIDE_LEVELS)
    return (
        FeatureSheet(Quantity.LINER_INSIDE, _book("4.7450"), levels=outside, axes_deg=(0.0, 90.0)),
        FeatureSheet(Quantity.LINER_BORE, _book("4.7500"), _book("4.7500"), _book("4.7510"), _own("0.6"), _own("0.8"),
                     levels, AXES),
        FeatureSheet(Quantity.MAIN_LINE, greatest=_own("0.5"), hours=(12.0, 3.0, 6.0, 9.0)),
        FeatureSheet(Quantity.PISTON_CLEARANCE, least=_own("5.0"), greatest=_own("7.0")),
    )  # fmt: skip


def spec_card() -> SpecCard:
    """Return the card: that of its sister, with the bore of the liners before and after."""
    card = card_of_twin()
    return replace(card, name="Twin sleeves, bored in place", features=(*card.features, *_sheets(False)))


def spec_card_read() -> SpecCard:
    """Return the card with the exact values that its features' places are read at."""
    card = card_of_twin_read()
    return replace(card, features=(*card.features, *_sheets(True)))
