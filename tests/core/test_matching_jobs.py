"""A matching of a job in words and as a tray list: what limits it by hand, dry sleeves by their press, step by step."""

from dataclasses import replace
from decimal import Decimal
from uuid import uuid4

import pytest

from tests.core.card import limit, wet_card
from tests.core.facts import WHEN, Story, level
from tests.core.test_fits import AXES, LEVELS, TERMS
from tests.core.test_fits import told as told_dry
from vallostasis.core.matching.chosen import StepKind, TrayStep, chosen_matching
from vallostasis.core.matching.of_job import BlockMatching, MatchWishes, goals_in_order, matching_of
from vallostasis.core.matching.problem import Goal
from vallostasis.core.matching.swaps_of_job import swaps_of
from vallostasis.core.matching.words import what_limits
from vallostasis.core.records.matchings import MatchedPlace
from vallostasis.core.records.rows import Quantity, Stamp
from vallostasis.core.uncertainty.decision import State


def wet(depths_um: tuple[float, ...], flanges_um: tuple[float, ...]) -> Story:
    """A wet block whose ledges and flanges were read, its liners in their holes in turn."""
    story = Story(holes=len(depths_um))
    for hole, depth in zip(story.hole_rows, depths_um, strict=True):
        story.read(Quantity.COUNTERBORE_DEPTH, hole.hole_id, (depth,) * 4)
    for number, flange in enumerate(flanges_um, 1):
        liner = story.liner(f"L{number}")
        story.read(Quantity.FLANGE_THICKNESS, liner, (flange,) * 4)
        if number <= len(depths_um):
            story.fit(number, liner)
    return story


def matched(story: Story, wishes: MatchWishes = MatchWishes()) -> BlockMatching:
    found = matching_of(story.facts(), wishes)
    assert isinstance(found, BlockMatching), found
    return found


def came_to(found: BlockMatching, goal: Goal) -> int | None:
    """What a goal came to; None where it was not asked for."""
    return next((one.value for one in found.matched.reached if one.what is goal), None)


# Limits of the card 50 to 125. Holes 2, 3 and 4 want 8.965 and more; of the liners only L3 is that thick.
SUNK = ((8_880, 8_915, 8_917, 8_920), (8_960, 8_945, 8_990, 8_940))


def test_what_limits_it_is_told_by_holes_and_the_liners_they_share() -> None:
    """By hand: three holes ask for 8.915 + 0.050 and its ±, one flange of 8.990 is that thick."""
    story = wet(*SUNK)
    alone = matched(story, MatchWishes(cuts=False))
    told = what_limits(story.facts(), alone)
    assert sum(one.state is not State.IN for one in alone.holes) == told.outside == 2
    asks, only = told.proof
    assert asks.startswith("Holes 2, 3 and 4 ask for flanges of 8.97")
    assert asks.endswith("or more.")
    assert only == "Only L3 has that: 3 holes, 1 liner."
    assert told.orders == 24
    # L2 in hole 2 stands 30 high: 20 and its ± under the limit, and no order of the three does better.
    u_um = next(way.value.expanded_m for way in alone.holes[1].ways if way.liner == "L4") * 1e6
    assert told.helps[0] == "2 more liners that fit holes 2, 3 and 4"
    assert told.helps[1].startswith(f"a least protrusion {20 + u_um:.0f} µm (")
    assert len(told.helps) == 2, "a greatest protrusion that gives way helps nobody who stands too low"


def test_two_shims_do_what_no_exchange_does_and_the_chance_says_so() -> None:
    story = wet(*SUNK)
    found = matched(story)
    cut = [one for one in found.holes if one.cut is not None]
    assert len(cut) == came_to(found, Goal.CUTS) == 2
    assert all(one.state is State.IN for one in found.holes if one.cut is None)
    for one in cut:
        assert one.state is None
        # The middle of the window on a shim, 75 to 125, and less sure than what was read.
        assert one.stands.value_m == pytest.approx(100e-6)
        assert one.cut is not None and one.cut.cut is not None
        assert one.cut.cut.from_touch_off_m >= 25e-6 - 1e-9, "the card wants 0.025 of clean-up at least"
    chances = [one.chance for one in found.holes]
    assert found.chance <= min(chances) < 1.0
    assert any(one.startswith("cuts in ") for one in what_limits(story.facts(), found).helps)


def test_one_more_liner_is_told_with_the_flange_it_wants() -> None:
    """By hand: hole 2, 8.915 deep, wants 50 to 125 over it with its ± at either end."""
    story = wet((8_880, 8_915), (8_960, 8_945))
    told = what_limits(story.facts(), matched(story, MatchWishes(cuts=False)))
    assert told.outside == 1
    assert told.proof == (told.proof[0], "No liner has that.")
    # L1 in it stands 45 high under a least of 50, u 4.24: 1.18 u short, which a table of the normal law says is 0.119.
    assert matched(story, MatchWishes(cuts=False)).holes[1].chance == pytest.approx(0.119, abs=0.01)
    assert told.proof[0].startswith("Hole 2 asks for a flange of 8.97")
    assert told.helps[0].startswith("one liner with a flange of 8.97")
    assert "to 9.03" in told.helps[0] and told.helps[0].endswith("for hole 2")


def test_locks_tell_what_they_cost() -> None:
    story = wet((8_880, 8_920), (8_985, 8_955))
    locked = matched(story, MatchWishes(frozenset({1}), cuts=False))
    assert [one.then for one in locked.holes] == ["L1", "L2"]
    told = what_limits(story.facts(), locked)
    assert told.locks == "The locks cost: holes outside 1, without them 0."
    assert told.proof[1] == "No liner that may move has that."
    assert any(one.startswith("a least protrusion") for one in told.helps), "L1, that would do, is locked"
    assert what_limits(story.facts(), matched(story)).locks == ""


def test_what_is_home_and_read_is_taken_as_read() -> None:
    """By its parts hole 1 stands 80 high; its reading of 86 is the one that counts while its liner stays."""
    story = wet((8_880, 8_885), (8_960, 8_965))
    fitting = story.facts().present_fitting(story.hole_rows[0].hole_id)
    assert fitting is not None
    story.read(Quantity.PROTRUSION, fitting.fitting_id, (86,) * 4)
    own, other = matched(story).holes[0].ways
    assert (own.value.value_m, other.value.value_m) == (pytest.approx(86e-6), pytest.approx(85e-6))


def test_a_rule_between_neighbours_is_kept_before_anything_is_even() -> None:
    """By hand: 118 and 58 are both in, 60 apart; the card lets neighbours differ by 50. Exchanged both are 88."""
    story = wet((8_880, 8_910), (8_998, 8_968))
    assert [round(way.value.value_m * 1e6) for one in matched(story).holes for way in one.ways] == [118, 88, 88, 58]
    found = matched(story, MatchWishes(cuts=False))
    assert (came_to(found, Goal.RULES), [one.then for one in found.holes]) == (0, ["L2", "L1"])
    kept = matched(story, MatchWishes(frozenset({1}), cuts=False))
    assert came_to(kept, Goal.RULES) == 1
    assert kept.chance < 0.2


def test_a_head_average_is_kept_and_drawn_in_by_its_uncertainty() -> None:
    """By hand: 55, 60 and 65 are all in by themselves; the card wants 70 on average, which no exchange gives."""
    card = wet_card()
    story = wet((8_900, 8_900, 8_900), (8_955, 8_960, 8_965))
    story.card = replace(card, limits=replace(card.limits, head_average_least=limit("0.070")))
    story.card = replace(story.card, layout=replace(card.layout, holes=3, heads=((1, 2, 3),)))
    found = matched(story, MatchWishes(cuts=False))
    (window,) = found.problem.heads
    assert 70_000 < window.low_nm < 80_000
    assert window.high_nm == 1_000_000_000
    assert (came_to(found, Goal.OUTSIDE), came_to(found, Goal.RULES)) == (1, 1)
    assert found.chance < 0.05


def dry(bores_um: tuple[float, ...], outsides_um: tuple[float, ...]) -> Story:
    """Dry sleeves that are as they are at every level: bores of the block, outsides of liners A, B, …"""
    story, _, liner = told_dry(TERMS)
    story.rows = {name: rows for name, rows in story.rows.items() if name not in ("sets", "readings")}
    for row, size in zip(story.hole_rows, bores_um, strict=True):
        story.survey(Quantity.BLOCK_BORE, {level(d, a): (size,) for _, d in LEVELS for a in AXES}, hole_id=row.hole_id)
    liners = [liner, *(story.liner(mark) for mark in "BCD"[: len(outsides_um) - 1])]
    for one, size in zip(liners, outsides_um, strict=True):
        story.survey(Quantity.LINER_OUTSIDE, {level(d, a): (size,) for _, d in LEVELS for a in AXES}, liner_id=one)
    return story


def test_dry_sleeves_go_where_least_is_honed() -> None:
    """By hand, light press 5 to 21, aim 13: bores 103.980 and 104.000; A 104.013 and B 103.993 fit either way crossed.

    A in 1 presses 33 and takes 20 off, B in 2 is 7 loose; crossed they press 13 each.
    """
    found = matched(dry((103_980, 104_000), (104_013, 103_993)))
    assert [one.then for one in found.holes] == ["B", "A"]
    assert came_to(found, Goal.HONING) == 0
    assert [round(one.stands.value_m * 1e6, 3) for one in found.holes] == [13, 13]
    assert [round(way.honing_m * 1e6, 3) for way in found.holes[0].ways] == [20, 0]
    assert [way.state for way in found.holes[1].ways] == [State.IN, State.OUT]
    # A spare that is a little too tight for hole 1 costs 12 where the other two fit as they are.
    spare = matched(dry((103_980, 104_000), (104_013, 103_980, 104_005)))
    assert [one.then for one in spare.holes] == ["C", "A"]
    assert came_to(spare, Goal.HONING) == 12_000
    assert [round(one.stands.value_m * 1e6, 3) for one in spare.holes] == [13, 13]


def test_goals_that_were_not_named_follow_and_no_cut_is_made_for_evenness() -> None:
    """Put in order while nothing is cut, the goals name no cut: it comes right after what is in all the same."""
    usual = (Goal.OUTSIDE, Goal.RULES, Goal.CUTS, Goal.ORDERS, Goal.MOVES, Goal.ADJACENT)
    assert goals_in_order((), usual) == usual
    assert goals_in_order((Goal.OUTSIDE, Goal.ADJACENT, Goal.HONING), usual) == (
        Goal.OUTSIDE, Goal.CUTS, Goal.ORDERS, Goal.ADJACENT, Goal.RULES, Goal.MOVES)  # fmt: skip
    assert goals_in_order((Goal.ADJACENT,), usual)[:4] == (Goal.OUTSIDE, Goal.CUTS, Goal.ORDERS, Goal.ADJACENT)
    found = matched(sunk_with_spares(), MatchWishes(goals=(Goal.ADJACENT, Goal.SPREAD)))
    assert came_to(found, Goal.CUTS) == 0


def sunk_with_spares() -> Story:
    """Two holes that are in as they are, 10 apart: only a cut of both would make them alike."""
    return wet((8_880, 8_890), (8_960, 8_960))


def test_a_centre_that_is_in_makes_no_hole_in() -> None:
    """By hand: 40 and 100 across the hole stand 70 in the middle; 60 round is more than the card's 40."""
    story = wet((8_880, 8_885), (8_950, 8_965))
    fitting = story.facts().present_fitting(story.hole_rows[0].hole_id)
    assert fitting is not None
    story.read(Quantity.PROTRUSION, fitting.fitting_id, (40, 70, 100, 70))
    own = matched(story).holes[0].ways[0]
    assert own.value.value_m == pytest.approx(70e-6)
    assert own.state is State.OUT


def test_letters_of_a_grade_decide_before_anything_is_honed() -> None:
    """Both sleeves fit both bores; the letters put A with a and B with b, whatever presses more evenly."""
    story = dry((103_980, 103_982), (103_995, 103_993))
    plain = matched(story)
    assert Goal.GRADES not in {one.what for one in plain.matched.reached}
    letters = {f"hole-{number}": mark for number, mark in ((1, "b"), (2, "A"))} | {"liner-A": "a", "liner-B": "B "}
    for part, mark in letters.items():
        story._add("stamps", Stamp(uuid4(), part, mark, WHEN, "Wren", story._next()))
    found = matched(story)
    assert [one.then for one in found.holes] == ["B", "A"]
    assert came_to(found, Goal.GRADES) == 0
    assert [one.what for one in found.matched.reached][:2] == [Goal.OUTSIDE, Goal.GRADES]
    story._add("stamps", Stamp(uuid4(), "hole-1", "c", WHEN, "Wren", story._next()))
    assert came_to(matched(story), Goal.GRADES) == 1


def test_what_is_honed_for_the_tightest_level_is_missing_at_the_loosest() -> None:
    """By hand: 33 at the middle takes 20 off, which leaves 15 − 20 at the ends: out, though the mean is in."""
    story = dry((103_980,) * 2, (103_993, 103_993))
    odd = story.liner("B2")
    sizes = {15.0: 103_995.0, 75.0: 104_013.0, 135.0: 103_995.0}
    story.survey(Quantity.LINER_OUTSIDE, {level(d, a): (sizes[d],) for _, d in LEVELS for a in AXES}, liner_id=odd)
    way = next(one for one in matched(story).holes[0].ways if one.liner == "B2")
    assert (round(way.honing_m * 1e6, 3), way.state) == (20, State.OUT)


def test_a_dry_sleeve_that_is_loose_everywhere_is_told_and_no_ledge_is_cut() -> None:
    story = dry((103_980, 104_000), (103_990, 103_985))
    found = matched(story)
    told = what_limits(story.facts(), found)
    assert told.outside == 1
    assert told.proof == ("Hole 2 asks for a tighter liner.", "No liner has that.")
    assert found.table.cutting is None and "no ledge is cut" in found.table.why_no_cut


def choose(story: Story, *places: tuple[int, str, int | None]) -> None:
    """Somebody takes an order: hole, liner, shim it is cut for."""
    one, liners = uuid4(), {liner.mark: liner.liner_id for liner in story.facts().liners}
    for hole, mark, shim in places:
        shim_um = None if shim is None else Decimal(shim)
        story._add("matched_places", MatchedPlace(one, story.hole_rows[hole - 1].hole_id, liners[mark], shim_um, WHEN,
                                                  "Wren", story._next()))  # fmt: skip


def steps(story: Story) -> list[tuple[StepKind, int, bool, bool]]:
    chosen = chosen_matching(story.facts())
    assert chosen is not None
    return [(one.kind, one.hole, one.done, one.ready) for one in chosen.steps]


D, C, F, R = StepKind.DRAW, StepKind.CUT, StepKind.FIT, StepKind.READ


def test_the_tray_list_is_ticked_by_what_is_recorded_of_the_holes() -> None:
    story = wet((8_880, 8_910, 8_900), (8_985, 8_955, 8_970))
    assert chosen_matching(story.facts()) is None
    choose(story, (1, "L2", None), (2, "L1", None), (3, "L3", 100))
    assert steps(story) == [
        (D, 1, False, True), (D, 2, False, True), (D, 3, False, True), (C, 3, False, True),
        (F, 1, False, False), (F, 2, False, False), (F, 3, False, False),
        (R, 1, False, False), (R, 2, False, False), (R, 3, False, False),
    ]  # fmt: skip
    story.draw(1)
    assert steps(story)[0] == (D, 1, True, False)
    assert steps(story)[4] == (F, 1, False, False), "L2 still sits in hole 2"
    story.draw(2)
    assert steps(story)[4] == (F, 1, False, True)
    liners = {liner.mark: liner.liner_id for liner in story.facts().liners}
    fitting = story.fit(1, liners["L2"])
    assert (steps(story)[4], steps(story)[7]) == ((F, 1, True, False), (R, 1, False, True))
    story.read(Quantity.PROTRUSION, fitting, (75,) * 4)
    assert steps(story)[7] == (R, 1, True, True)
    story.cut(3, 8_970, 100)
    assert [one[2] for one in steps(story) if one[1] == 3] == [True, True, False, False]
    assert (F, 3, False, True) in steps(story)


def test_a_hole_that_stays_as_it_is_has_no_step_and_a_new_choice_takes_the_place_of_the_old() -> None:
    story = wet((8_880, 8_910), (8_985, 8_955, 8_970))
    choose(story, (1, "L1", None), (2, "L3", None))
    assert [(one.kind, one.hole, one.liner) for one in _chosen_steps(story)] == [
        (StepKind.DRAW, 2, "L2"), (StepKind.FIT, 2, "L3"), (StepKind.READ, 2, "L3")]  # fmt: skip
    choose(story, (1, "L3", None), (2, "L2", None))
    assert next((one.kind, one.hole) for one in _chosen_steps(story)) == (StepKind.DRAW, 1)


def _chosen_steps(story: Story) -> tuple[TrayStep, ...]:
    chosen = chosen_matching(story.facts())
    assert chosen is not None
    return chosen.steps


def test_the_swap_table_of_a_job_takes_shims_off_and_knows_a_cut_hole_as_another() -> None:
    """By hand: 1 read 90 with L1, cut and on a 0.100 shim 110 with L2: as another hole 10 with no shim."""
    story = wet((8_880, 8_910), (8_970, 8_960))
    assert swaps_of(story.facts()) == "No fitted liner was read yet: read the protrusion of what is in."
    liners = {liner.mark: liner.liner_id for liner in story.facts().liners}
    first = story.facts().present_fitting(story.hole_rows[0].hole_id)
    assert first is not None
    story.read(Quantity.PROTRUSION, first.fitting_id, (90,) * 4)
    story.draw(2)
    story.cut(1, 8_950, 100)
    again = story.fit(1, liners["L2"], 100)
    story.read(Quantity.PROTRUSION, again, (110,) * 4)
    found = swaps_of(story.facts())
    assert not isinstance(found, str)
    assert [(one.hole, one.liner, one.is_in) for one in found.fittings] == [
        ("1", "L1", False), ("1 once cut", "L2", True)]  # fmt: skip
    assert found.fittings[1].shims_m == pytest.approx(100e-6)
    assert [round(one.value.value_m * 1e6, 3) for one in found.table.holes] == [90, 10]
    assert found.proposed is not None and found.proposed.puts == (("1 once cut", "L1"),)


def test_a_reading_over_another_land_is_left_out_and_said() -> None:
    story = wet((8_880, 8_910), (8_970, 8_960))
    first = story.facts().present_fitting(story.hole_rows[0].hole_id)
    second = story.facts().present_fitting(story.hole_rows[1].hole_id)
    assert first is not None and second is not None
    story.read(Quantity.PROTRUSION, first.fitting_id, (90,) * 4)
    story.change_land("lip")
    story.read(Quantity.PROTRUSION, second.fitting_id, (130,) * 4)
    found = swaps_of(story.facts())
    assert not isinstance(found, str)
    assert [one.liner for one in found.fittings] == ["L1"]
    assert found.left_out == ("L2 in 2: read over the lip, not the flat land",)
