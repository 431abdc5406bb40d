"""A block made ready to be cut. What is asked for is common practice, no published source; sums are checked by hand."""

from dataclasses import replace
from decimal import Decimal
from math import pi, sqrt

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.card import length, limit, wet_card
from tests.core.facts import Story
from tests.core.test_hold_points import _hold
from tests.core.test_route import _far, story_of
from vallostasis.core.counterbore.cut_plan import Shortfall
from vallostasis.core.counterbore.deck_marks import MarkVerdict, judge_deck_mark, marks_of, pits_of
from vallostasis.core.counterbore.dependents import compression_after, compression_ratio, dependents_of
from vallostasis.core.counterbore.hole_plan import HolePlan, HoleRefusal, plan_hole
from vallostasis.core.counterbore.preparation import NOT_TOLD, PlugsAt, preparation_of, refuse_power_tool
from vallostasis.core.counterbore.seat_corner import NOT_MEASURED, rides_up_m
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.records.card_checks import check_card
from vallostasis.core.records.preparation import InspectionKind, InspectionOutcome, PrepKind
from vallostasis.core.records.route_marks import FindingKind, HoldPoint, Operation
from vallostasis.core.records.rows import Place, Quantity, ZeroedOn
from vallostasis.core.records.spec_card import (
    Construction,
    DependentHeight,
    FeatureSheet,
    HeightKind,
    Obstruction,
    SpecCard,
)
from vallostasis.core.route.hold_points import HoldState
from vallostasis.core.tape.tape import tape_of
from vallostasis.core.uncertainty.decision import State

MM = 1e-3


def _seat(card: SpecCard, **fields: str | None) -> SpecCard:
    return replace(card, seat=replace(card.seat, **{name: limit(mm) for name, mm in fields.items()}))


def _ready_to_plan(card: SpecCard | None = None) -> tuple[Story, object]:
    """Hole 1 with everything that a plan needs but the corner of its ledge."""
    story = Story(card=card or wet_card())
    story.rows.pop("inspections")
    liner = story.liner("L1")
    story.fit(1, liner)
    story.read(Quantity.FLANGE_THICKNESS, liner, (8_900,))
    story.read(Quantity.COUNTERBORE_DEPTH, story.hole_rows[0].hole_id, (8_850, 8_856, 8_862, 8_856))
    return story, story.hole_rows[0]


class TestPlugs:
    def test_what_goes_in_comes_out_place_by_place(self) -> None:
        story = story_of(Construction.WET_TOP_FLANGE)
        for place, count in (("bores", 6), ("oil holes", 9), ("journals", 0)):
            story.prepare(PrepKind.PLUGS_IN, count, place)
        assert _far(story, Operation.PLUG)[0] is State.IN
        for place, count in (("bores", 5), ("oil holes", 10)):
            story.prepare(PrepKind.PLUGS_OUT, count, place)
        ready = preparation_of(story.facts())
        assert ready.still_in == (PlugsAt("bores", 6, 5), PlugsAt("oil holes", 9, 10))
        story.prepare(PrepKind.PLUGS_OUT, 1, "bores")
        story.prepare(PrepKind.PLUGS_IN, 1, "oil holes")
        assert preparation_of(story.facts()).plugs_missing == ""

    def test_the_wash_and_the_release_are_held_while_they_differ(self) -> None:
        story = story_of(Construction.WET_TOP_FLANGE)
        story.prepare(PrepKind.PLUGS_IN, 3, "bores")
        for before in (Operation.WASH, Operation.RELEASE):
            held = [one for one in route_holds(story) if one.hold is HoldPoint.PLUGS_OUT and one.before is before]
            assert [one.missing for one in held] == ["bores: 3 plugs went in, 0 came out"]
        story.prepare(PrepKind.PLUGS_OUT, 3, "bores")
        assert _hold(story.facts(), HoldPoint.PLUGS_OUT).state is HoldState.CLEAR

    def test_one_side_counted_without_its_place_is_held_against_the_sum(self) -> None:
        story = story_of(Construction.WET_TOP_FLANGE)
        story.prepare(PrepKind.PLUGS_IN, 6, "bores")
        story.prepare(PrepKind.PLUGS_IN, 2, "oil holes")
        story.mark(Operation.WASH, count=7)
        ready = preparation_of(story.facts())
        assert ready.still_in == (PlugsAt("in all", 8, 7),)
        assert NOT_TOLD in {one.place for one in ready.plugs}

    def test_a_place_nobody_counted_leaves_plugging_undone(self) -> None:
        story = story_of(Construction.WET_TOP_FLANGE)
        story.prepare(PrepKind.PLUGS_IN, 6, "bores")
        assert _far(story, Operation.PLUG) == (State.NOT_MEASURED, "plugs of oil holes, journals not counted in")


def route_holds(story: Story):  # type: ignore[no-untyped-def]
    from vallostasis.core.route.route import route_of

    return route_of(story.facts()).holds


class TestDeck:
    def test_cleaning_is_shown_by_its_steps_or_by_a_mark(self) -> None:
        story = story_of(Construction.WET_TOP_FLANGE)
        assert _far(story, Operation.CLEAN) == (State.NOT_MEASURED, "not done yet")
        story.prepare(PrepKind.SCRAPED, 2, "scraper")
        assert _far(story, Operation.CLEAN)[1] == "bolt holes are not chased, nothing said of the dowels"
        story.prepare(PrepKind.BOLT_HOLES, 14)
        story.prepare(PrepKind.DOWELS, 0)
        story.prepare(PrepKind.SCRAPED, 1, "flat stone")
        assert _far(story, Operation.CLEAN) == (
            State.IN, "3 scrape passes, 14 bolt holes chased, 0 dowels drawn")  # fmt: skip
        marked = story_of(Construction.WET_TOP_FLANGE)
        marked.mark(Operation.CLEAN)
        assert _far(marked, Operation.CLEAN)[0] is State.IN

    def test_steps_stand_on_the_tape_and_can_be_struck(self) -> None:
        story = story_of(Construction.WET_TOP_FLANGE)
        story.prepare(PrepKind.PLUGS_IN, 3, "bores")
        row = next(one for one in tape_of(story.facts()) if one.words.startswith("3 plugs in"))
        assert row.words == "3 plugs in of the bores"
        story.strike(of_event=row.event)
        assert preparation_of(story.facts()).plugs == ()

    @pytest.mark.parametrize("tool", ["power grinder", "angle grinder", "a disc", "die-grinder", "wire wheel"])
    def test_a_power_tool_is_refused_in_words(self, tool: str) -> None:
        with pytest.raises(OutOfDomain, match="hollow between the bolts"):
            refuse_power_tool(tool)

    @pytest.mark.parametrize("tool", ["scraper and solvent", "flat stone", "flat sanding block, dry"])
    def test_hand_tools_are_not(self, tool: str) -> None:
        refuse_power_tool(tool)

    def test_no_cut_before_the_deck_is_judged_flat(self) -> None:
        points = tuple(length(one) for one in ("0", "168")), tuple(length(one) for one in ("-50", "50"))
        sheet = FeatureSheet(Quantity.DECK_FLATNESS, greatest=limit("0.05"), along=points[0], across=points[1])
        story = story_of(Construction.WET_TOP_FLANGE)
        story.card = replace(story.card, features=(sheet,))
        story.cut(1, 8_900, 100)
        assert _hold(story.facts(), HoldPoint.DECK_JUDGED).missing.startswith("deck is not measured")
        story.set_up(Quantity.DECK_FLATNESS, zeroed_on=ZeroedOn.PART)
        flat = {
            Place(along_um=Decimal(a), across_um=Decimal(b)): (0.0,) for a in (0, 168_000) for b in (-50_000, 50_000)
        }
        story.survey(Quantity.DECK_FLATNESS, flat, part="deck")
        assert _hold(story.facts(), HoldPoint.DECK_JUDGED).state is HoldState.CLEAR


class TestLooks:
    def test_no_cut_before_cracks_were_looked_for_or_waived_by_name(self) -> None:
        story = story_of(Construction.WET_TOP_FLANGE)
        story.cut(1, 8_900, 100)
        missing = "no crack check of the ledge of hole 1, no crack check of the deck, no pressure test"
        assert _hold(story.facts(), HoldPoint.LOOKED_FOR_CRACKS, 1).missing == missing
        story.look(InspectionKind.CRACK_LEDGE, None)
        story.look(InspectionKind.CRACK_DECK, None, InspectionOutcome.WAIVED)
        story.look(InspectionKind.PRESSURE, None)
        assert all(one.state is HoldState.CLEAR for one in route_holds(story)
                   if one.hold is HoldPoint.LOOKED_FOR_CRACKS)  # fmt: skip
        story.look(InspectionKind.CRACK_LEDGE, 1, InspectionOutcome.FAULT)
        assert "not sound: a test" in _hold(story.facts(), HoldPoint.LOOKED_FOR_CRACKS, 1).missing

    def test_no_plan_until_the_corner_is_measured_or_waived(self) -> None:
        story, hole = _ready_to_plan()
        refused = plan_hole(story.facts(), hole)
        assert isinstance(refused, HoleRefusal)
        assert refused.reason == NOT_MEASURED
        story.look(InspectionKind.CORNER, 1, InspectionOutcome.WAIVED)
        assert isinstance(plan_hole(story.facts(), hole), HolePlan)
        story.look(InspectionKind.CORNER, None, InspectionOutcome.FAULT)
        refused = plan_hole(story.facts(), hole)
        assert isinstance(refused, HoleRefusal)
        assert refused.reason.startswith("The corner of the ledge is not sound")

    def test_a_flange_sharper_than_the_corner_rides_on_it(self) -> None:
        card = _seat(wet_card(), flange_edge="0.5")
        story, hole = _ready_to_plan(card)
        story.look(InspectionKind.CORNER, None, figure_um=500)
        assert isinstance(plan_hole(story.facts(), hole), HolePlan)
        story.look(InspectionKind.CORNER, 1, figure_um=800)
        refused = plan_hole(story.facts(), hole)
        assert isinstance(refused, HoleRefusal)
        assert "would ride" in refused.reason
        # The corner after the cut is that of the bit.
        story.card = replace(card, cutter=replace(card.cutter, bit_corner=limit("0.4")))
        assert isinstance(plan_hole(story.facts(), hole), HolePlan)

    @given(st.floats(1e-5, 3e-3), st.floats(0, 3e-3), st.floats(0, 1e-4))
    def test_how_high_it_rides_is_where_the_quarter_circle_stands(self, r: float, edge: float, gap: float) -> None:
        """Against the circle itself, sampled: the flat of the flange begins at edge + gap from the wall."""
        x = edge + gap + np.linspace(0, 2 * r, 4001)
        corner = np.where(x < r, r - np.sqrt(np.clip(r**2 - (r - x) ** 2, 0, None)), 0.0)
        assert rides_up_m(r, edge, gap) == pytest.approx(float(np.max(corner)), abs=1e-12)

    def test_known_points_of_it(self) -> None:
        assert rides_up_m(MM, 0) == pytest.approx(MM)
        assert rides_up_m(MM, MM) == 0
        assert rides_up_m(MM, MM * (1 - 1 / sqrt(2))) == pytest.approx(MM * (1 - 1 / sqrt(2)))
        with pytest.raises(OutOfDomain):
            rides_up_m(-MM, 0)


class TestMarks:
    @pytest.mark.parametrize(
        ("distance_mm", "depth_mm", "land_mm", "verdict"),
        [
            (8.1, 0.5, 7, MarkVerdict.STAYS),
            (8.0, 0.5, 7, MarkVerdict.NEAR),
            (6.1, 0.5, 7, MarkVerdict.NEAR),
            (5.9, 0.06, 7, MarkVerdict.SKIM),
            (0.0, None, 7, MarkVerdict.NO_DEPTH),
            (None, 0.06, 7, MarkVerdict.NEAR),
            (3.0, 0.06, None, MarkVerdict.NO_LAND),
        ],
    )
    def test_inside_the_land_it_has_to_go(
        self, distance_mm: float | None, depth_mm: float | None, land_mm: float | None, verdict: MarkVerdict
    ) -> None:
        lengths = [None if one is None else one * MM for one in (distance_mm, depth_mm, land_mm)]
        assert judge_deck_mark(*lengths)[0] is verdict

    def test_the_deepest_of_those_inside_says_how_much_comes_off(self) -> None:
        story = Story(card=_seat(wet_card(), sealing_land="7"))
        for distance, depth in ((3_000, 60), (20_000, 400), (2_000, 35)):
            story.find(FindingKind.MARK, 2, "pit", Decimal(depth), "deck", hour=4.0, distance_um=Decimal(distance))
        marks = marks_of(story.facts())
        assert [one.verdict for one in marks] == [MarkVerdict.SKIM, MarkVerdict.STAYS, MarkVerdict.SKIM]
        assert [one.skim_m for one in marks] == pytest.approx([60e-6, 0, 35e-6])

    def test_a_pit_on_the_ledge_counts_for_the_depth_of_the_cut(self) -> None:
        story, hole = _ready_to_plan()
        story.look(InspectionKind.CORNER, None, InspectionOutcome.WAIVED)
        thin = plan_hole(story.facts(), hole)
        # The plane through the depths stands 8.862 deep at 6 h: the bottom of the pit lies 8.862 + 0.160 deep.
        story.find(FindingKind.MARK, 1, "pit", Decimal(160), "ledge", hour=6.0)
        (pit,) = pits_of(story.facts(), hole)
        assert pit.bottom_m == pytest.approx(9.022e-3, abs=1e-9)
        deep = plan_hole(story.facts(), hole)
        assert isinstance(thin, HolePlan)
        assert isinstance(deep, HolePlan)
        assert (thin.cut.shim_m, deep.cut.shim_m) == pytest.approx((0.1e-3, 0.25e-3))
        assert deep.cut.depth_m >= pit.bottom_m
        story.find(FindingKind.MARK, 1, "pit", Decimal(900), "ledge", hour=3.0)
        refused = plan_hole(story.facts(), hole)
        assert isinstance(refused, HoleRefusal)
        assert {one.what for one in refused.tried} >= {Shortfall.PIT}

    def test_a_cut_takes_the_marks_found_before_it(self) -> None:
        story, hole = _ready_to_plan()
        story.find(FindingKind.MARK, 1, "pit", Decimal(60), "ledge", hour=6.0)
        story.cut(1, 8_950, 150)
        assert marks_of(story.facts()) == ()
        story.find(FindingKind.MARK, 1, "pit", None, "ledge", hour=6.0)
        assert [one.verdict for one in marks_of(story.facts())] == [MarkVerdict.NO_DEPTH]
        assert pits_of(story.facts(), hole) == ()


class TestDependents:
    def test_a_skim_moves_every_height_by_its_own_sign(self) -> None:
        """A skim of x: protrusion and stand-out +x, piston to injector and valve −x. Common practice."""
        heights = (
            DependentHeight(HeightKind.STAND_OUT, length("0.62"), limit("0.45"), limit("0.70")),
            DependentHeight(HeightKind.INJECTOR, length("2.10"), limit("1.90")),
            DependentHeight(HeightKind.VALVE, length("1.35")),
        )
        card = replace(wet_card(), heights=heights)
        first, stand_out, injector, valve = dependents_of(card, 0.1e-3, shim_m=0.5e-3, cut_m=0.45e-3)
        assert (first.by_skim_m, first.by_shim_m) == pytest.approx((0.1e-3, 0.05e-3))
        after = [one.after_m for one in (stand_out, injector, valve)]
        assert after == pytest.approx([0.72e-3, 2.0e-3, 1.25e-3])
        assert [one.keeps for one in (stand_out, injector, valve)] == [False, True, None]
        assert all(one.by_shim_m == 0 for one in (stand_out, injector, valve))

    def test_compression_follows_the_clearance_volume(self) -> None:
        """Textbook numbers: a square engine of 100 × 100 mm with a ninth of its swept volume left has 10 : 1."""
        swept = pi / 4 * 0.1**2 * 0.1
        assert compression_ratio(0.1, 0.1, swept / 9, 0) == pytest.approx(10)
        # A skim of 1 mm takes a hundredth of the swept volume off the ninth that is left.
        assert compression_ratio(0.1, 0.1, swept / 9, 1e-3) == pytest.approx(1 + 1 / (1 / 9 - 0.01))
        with pytest.raises(OutOfDomain, match="touch"):
            compression_ratio(0.1, 0.1, swept / 9, 12e-3)

    def test_it_is_told_where_the_card_has_stroke_and_volume(self) -> None:
        card = wet_card()
        assert compression_after(card, 1e-4) is None
        before_and_after = compression_after(replace(card, stroke=limit("146"), clearance_volume_cm3=125.0), 1e-4)
        assert before_and_after is not None
        assert before_and_after[1] > before_and_after[0] > 10

    def test_what_stands_in_the_way_is_at_a_hole_of_the_block(self) -> None:
        card = replace(wet_card(), obstructions=(Obstruction(9, "gear case", 8, 10), Obstruction(1, "eye", 0, 13)))
        assert [one.field for one in check_card(card)] == ["obstructions.0.hole", "obstructions.1.from_hour"]
