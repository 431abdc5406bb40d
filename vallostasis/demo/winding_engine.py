"""Winding Engine Tamsin: one slow steam cylinder, thick and old, to be bored on the mill with a budget of stock.

Everything here is invented. It wore barrel-wise at both ends of the stroke and lies lower on one side of its core. The
deliberate mistake: its oversizes were added up on the radius in an old note, which the wall map contradicts.
"""

from dataclasses import dataclass
from math import cos, radians

from vallostasis.core.features.plan import pattern_of
from vallostasis.core.operations.schools import BORED_FINISH, FINISH
from vallostasis.core.records.boring_passes import PassKind
from vallostasis.core.records.route_marks import FindingKind, Operation
from vallostasis.core.records.rows import Place, Quantity, ZeroedOn
from vallostasis.core.records.spec_card import (
    Arrangement,
    BoreTerms,
    CardLevel,
    CardUnit,
    Construction,
    Cutter,
    FeatureSheet,
    Judged,
    LadderStep,
    Land,
    Layout,
    Length,
    Limit,
    Limits,
    Measuring,
    Seat,
    SourceStatus,
    SpecCard,
    StepKind,
)
from vallostasis.core.shapes.clock import angle_of_hour
from vallostasis.core.spec_cards.card_lengths import read_typed_card
from vallostasis.demo.hidden_truth import Bench, BlockTruth, DemoJob, GaugeTruth
from vallostasis.demo.route_play import FindingPlay, MarkPlay, RoutePlay, SchoolPlay
from vallostasis.demo.survey_play import BAR_INDICATOR, INSIDE_MICROMETER, WALL_GAUGE, SurveyPlay, TypedPlace

SEED = 26071
NUMBER = "26-071"
DRAWING = "Tamsin drawing 4, cylinder"
MM_UM = 1000.0
UNWORN_UM = 203.31 * MM_UM
LEVELS = (("counterbore end", "12"), ("upper reversal", "30"), ("upper stroke", "90"), ("middle", "170"),
          ("lower stroke", "250"), ("lower reversal", "310"), ("below the rings", "335"))  # fmt: skip
HOURS = (12.0, 1.5, 3.0, 4.5, 6.0, 7.5, 9.0, 10.5)
AXES = (0.0, 45.0, 90.0, 135.0)
RING_TOP, RING_BOTTOM = "24", "318"


def wear_um(depth_um: float, angle_rad: float) -> float:
    """Wear a side: most where the piston turns round, more where it lay on the floor of the cylinder at 6 h. [µm]"""
    depth = depth_um / MM_UM
    if not float(RING_TOP) <= depth <= float(RING_BOTTOM):
        return 0.0
    ends = 0.35 + 0.65 * ((depth - 171) / 147) ** 2
    side = ((1 + cos(angle_rad - radians(angle_of_hour(6.0)))) / 2) ** 2
    return ends * (90.0 + 160.0 * side)


def truth_um(quantity: Quantity, place: Place) -> float:
    """What a perfect gauge at 20 °C would find. [µm]"""
    depth = float(place.level_um or 0)
    if quantity is Quantity.BLOCK_BORE:
        axis = radians(place.axis_deg or 0)
        return UNWORN_UM + wear_um(depth, axis) + wear_um(depth, axis + radians(180))
    angle = radians(angle_of_hour(place.hour or 12.0))
    if quantity is Quantity.WEAR_STEP:
        return wear_um(depth, angle)
    return (15.9 - 1.1 * cos(angle - radians(angle_of_hour(4.5)))) * MM_UM - wear_um(depth, angle)


# The step that was decided, on the diameter, and what the tool takes of its dial: it springs. [µm], [1]
STEP_UM, TAKES = 1.27 * MM_UM, 0.95
NOMINAL_UM = 203.2 * MM_UM


@dataclass(frozen=True, slots=True)
class BarPassPlay:
    """A pass of the bar as it was typed: dial a side, the diameter after it where somebody read it, minutes. [mm]"""

    kind: PassKind
    dial: str
    diameter: str
    minutes: str
    words: str = ""


def bar_passes() -> tuple[BarPassPlay, ...]:
    """Every pass, read after each as the tool left it: the last two equal, and a spring pass at the same setting."""
    size, made = UNWORN_UM, []
    for kind, dial, words in (
        (PassKind.TRIAL, 0.10, "light, all round by ear but for 5 h to 7 h"), (PassKind.CUT, 0.20, ""),
        (PassKind.CUT, 0.20, "bright all round from here"), (PassKind.CUT, 0.055, ""), (PassKind.CUT, 0.055, ""),
    ):  # fmt: skip
        size += 2 * TAKES * dial * MM_UM
        made.append(BarPassPlay(kind, f"{dial:g}", f"{size / MM_UM:.3f}", "18", words))
    made.append(BarPassPlay(PassKind.SPRING, "0", f"{BORED_UM / MM_UM:.3f}", "15"))
    return tuple(made)


# What the bar and its spring pass left. [µm]
BORED_UM = NOMINAL_UM + STEP_UM


def bored() -> SurveyPlay:
    """The bore read again at every place once it was bored."""
    bench, typed = Bench(SEED + 2), []
    for place in pattern_of(read_typed_card(spec_card())[0], Quantity.BLOCK_BORE)[0].places:
        read = bench.read(BORED_UM + 3 * cos(2 * radians(place.axis_deg or 0)), INSIDE_MICROMETER)
        typed.append(TypedPlace("Tobiah", "hole-1", place, f"{read / MM_UM:.3f}", "mm"))
    return SurveyPlay(Quantity.BLOCK_BORE, INSIDE_MICROMETER.name, ZeroedOn.DATUM, tuple(typed), load="free, no plate",
                      anew=True)  # fmt: skip


def demo_job() -> DemoJob:
    """Return the job as it stood before it was decided: everything read."""
    bench = Bench(SEED)
    return DemoJob(
        number=NUMBER,
        name="Winding Engine Tamsin",
        customer="Tamsin Mine Trust",
        complaint="Blows past the piston at both ends of the stroke; how often can it still be bored?",
        serial="cylinder 1",
        card=spec_card(),
        block=BlockTruth((), (), {}),
        before_fitting=(),
        shims={},
        after_fitting=(),
        surveys=(
            SurveyPlay(Quantity.BLOCK_BORE, INSIDE_MICROMETER.name, ZeroedOn.DATUM,
                       _read(bench, Quantity.BLOCK_BORE, INSIDE_MICROMETER, "Tobiah", 3), load="free, no plate",
                       ago_h=30),
            SurveyPlay(Quantity.WEAR_STEP, BAR_INDICATOR.name, ZeroedOn.DATUM,
                       _read(bench, Quantity.WEAR_STEP, BAR_INDICATOR, "Wren", 3),
                       method="indicator on the unworn band", ago_h=30),
            SurveyPlay(Quantity.WALL_THICKNESS, WALL_GAUGE.name, ZeroedOn.DATUM,
                       _read(bench, Quantity.WALL_THICKNESS, WALL_GAUGE, "Ines", 2), ago_h=30),
        ),
        route=RoutePlay(
            schools=(SchoolPlay(FINISH, BORED_FINISH, "low pressure, wet steam: it wears in by itself", "Ines"),),
            findings=(
                FindingPlay(FindingKind.CONDITION, "Wren", "bore", "worn one-sided", 1, "heavier on the floor"),
                FindingPlay(FindingKind.PRIOR_WORK, "Wren", "block", "oversize stamped", 1,
                            "a note of 1938 says 1.3 mm taken in all: on the radius or the diameter is not said"),
                FindingPlay(FindingKind.WALL, "Wren", "bore", "water mark", 1, hour=6.0, until_hour=7.0,
                            from_depth="140 mm", until_depth="180 mm"),
            ),
            marks=(MarkPlay(Operation.STRIP, "Wren", 60, "covers off, piston and rod out"),),
        ),
    )  # fmt: skip


def _read(bench: Bench, quantity: Quantity, gauge: GaugeTruth, by: str, digits: int) -> tuple[TypedPlace, ...]:
    pattern = pattern_of(read_typed_card(spec_card())[0], quantity)[0]
    return tuple(
        TypedPlace(by, "hole-1", place, f"{bench.read(truth_um(quantity, place), gauge) / MM_UM:.{digits}f}", "mm")
        for place in pattern.places
    )


def _drawn(typed: str) -> Limit:
    return Limit(Length(typed), DRAWING, SourceStatus.SPECIFICATION)


def _agreed(typed: str, source: str) -> Limit:
    return Limit(Length(typed), source, SourceStatus.OWN_EXPERIENCE)


def spec_card() -> SpecCard:
    """Return the card of the cylinder: millimetres, 8 in by name, no head that clamps it."""
    none = Limit(None)
    levels = tuple(CardLevel(name, Length(depth)) for name, depth in LEVELS)
    return SpecCard(
        name="Tamsin, steam cylinder",
        engine="Tamsin winding engine",
        unit=CardUnit.MM,
        construction=Construction.PARENT_BORE,
        block_material="grey iron",
        liner_material="grey iron",
        layout=Layout(Arrangement.IN_LINE, 1, ((1,),), "one cylinder", "the valve chest", Length("300"),
                      Length("203.2")),
        limits=Limits(none, none, none, none, none, none, none, none, none),
        seat=Seat(none, none, none, none, none),
        measuring=Measuring("end face", "the clean end face", (), "", None, (12.0, 3.0, 6.0, 9.0)),
        lands=(Land("end face", Length("0")),),
        shims=(),
        cutter=Cutter("none", Length("0.05"), Length("0.05")),
        piston_material="cast iron",
        features=(
            FeatureSheet(Quantity.BLOCK_BORE, _drawn("203.2"),
                         out_of_round=_agreed("0.15", "as rings of the trust bear"),
                         taper=_agreed("0.20", "as rings of the trust bear"), levels=levels, axes_deg=AXES),
            FeatureSheet(Quantity.WEAR_STEP, levels=levels[1:6], hours=HOURS),
            FeatureSheet(Quantity.WALL_THICKNESS, levels=(levels[2], levels[3], levels[4]), hours=HOURS),
        ),
        bores=BoreTerms(
            ring_top=_drawn(RING_TOP),
            ring_bottom=_drawn(RING_BOTTOM),
            thrust_hour=6.0,
            judged=Judged.FREE,
            hone_stock=_agreed("0.05", "a bored finish, a few strokes of the hone"),
            centre_move=_agreed("0.5", "rod and gland follow so much"),
            wall=_drawn("16"),
            least_wall=_agreed("12.7", "agreed with the boiler inspector, to be confirmed by him"),
            rebore=_agreed("1.27", "50 thou, 150 in all"),
            all_alike=False,
            ladder=tuple(LadderStep(Length(step), StepKind.TO_ORDER, 8, "rings cast and turned to size")
                         for step in ("1.27", "2.54", "3.81")),
        ),
    )  # fmt: skip
