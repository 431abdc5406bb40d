"""A hole bored to its piston: the size, the passes as they add up, what the tool springs, what is asked."""

from dataclasses import replace
from datetime import timedelta
from decimal import Decimal
from uuid import uuid4

import numpy as np
import pytest

from tests.core.card import dry_card, length, limit
from tests.core.facts import WHEN, Story, level
from tests.core.test_fits import words
from vallostasis.core.boring.ledger import Ledger, ledger_of, spring_of
from vallostasis.core.boring.programme import zero_due
from vallostasis.core.boring.setting import SettingNow, setting_now
from vallostasis.core.boring.target import BoreTarget, target_of
from vallostasis.core.features.parts import part_with_key
from vallostasis.core.records.bar_settings import BarSetting, BoreDatum
from vallostasis.core.records.boring_passes import BoringPass, PassKind
from vallostasis.core.records.route_marks import MarkKind, Operation
from vallostasis.core.records.rows import Place, Quantity
from vallostasis.core.records.spec_card import BoreTerms, CardLevel, Construction, FeatureSheet, LadderStep
from vallostasis.core.route.shown import mark_of
from vallostasis.core.surveys.survey import survey_of
from vallostasis.core.trail import Phrase
from vallostasis.core.uncertainty.decision import State

LEVELS = tuple(CardLevel(name, length(depth)) for name, depth in (("top", "15"), ("bottom", "135")))
SKIRT = (CardLevel("below the pin", length("25")),)
AXES = (0.0, 90.0)
BORED = 0.10046


def told(*, piston_um: float | None = 100_400.0, load: str = "piston new", clearance: bool = True,
         book: str = "99.92") -> Story:  # fmt: skip
    """A parent bore of 100.000 worn at its top, piston and clearance as asked."""
    sheets = [FeatureSheet(Quantity.BLOCK_BORE, limit("100"), levels=LEVELS, axes_deg=AXES),
              FeatureSheet(Quantity.PISTON_SKIRT, limit(book), levels=SKIRT, axes_deg=AXES)]  # fmt: skip
    if clearance:
        sheets.append(FeatureSheet(Quantity.PISTON_CLEARANCE, least=limit("0.070"), greatest=limit("0.110")))
    ladder = (LadderStep(length("0.50")),)
    card = dry_card(*sheets, construction=Construction.PARENT_BORE, bores=BoreTerms(hone_stock=limit("0.030"),
                    ladder=ladder), piston_material="aluminium")  # fmt: skip
    story = Story(card=card, resolution_um=0.2, repeatability_um=0.2)
    hole = story.hole_rows[0].hole_id
    worn = {(15.0, 0.0): 100_080.0, (15.0, 90.0): 100_120.0, (135.0, 0.0): 100_010.0, (135.0, 90.0): 100_012.0}
    story.survey(Quantity.BLOCK_BORE, {level(d, a): (size,) for (d, a), size in worn.items()}, hole_id=hole)
    if piston_um is not None:
        story.set_up(Quantity.PISTON_SKIRT, load=load)
        story.survey(Quantity.PISTON_SKIRT, {Place(level_um=Decimal(25_000), axis_deg=0.0): (piston_um - 300,),
                                             Place(level_um=Decimal(25_000), axis_deg=90.0): (piston_um,)},
                     part="piston-1")  # fmt: skip
    return story


def target(story: Story, **warm: float) -> BoreTarget:
    facts = story.facts()
    found = target_of(facts, facts.holes[0], **warm)
    assert isinstance(found, BoreTarget)
    return found


def bore(story: Story, dial_um: float, diameter_um: float | None = None, kind: PassKind = PassKind.CUT,
         minutes: float | None = None) -> None:  # fmt: skip
    event = story._next()
    read = None if diameter_um is None else Decimal(str(diameter_um))
    took = None if minutes is None else Decimal(str(minutes))
    made = BoringPass(uuid4(), story.hole_rows[0].hole_id, kind, Decimal(str(dial_um)), "", read, "", None, took, "",
                      WHEN + timedelta(minutes=event), "Wren", event)  # fmt: skip
    story._add("boring_passes", made)


def ledger(story: Story, bored_m: float | None = BORED, **cuts: Decimal) -> Ledger:
    facts = story.facts()
    return ledger_of(facts, facts.holes[0], bored_m, **cuts)


def test_a_bore_is_its_piston_and_the_clearance_never_a_round_number() -> None:
    """Skirt across the pin 100.400, clearance 0.070 to 0.110: 100.490 finished, 0.030 of it the hone's."""
    found = target(told())
    assert found.piston.value_m == pytest.approx(0.1004)
    assert found.clearance_m == pytest.approx(90e-6)
    assert found.finished.value_m == pytest.approx(0.10049)
    assert found.bored.value_m == pytest.approx(0.10046)
    assert found.near is not None
    # The round 100.500 leaves 0.100.
    assert found.near.leaves.value_m == pytest.approx(100e-6)
    assert found.near.is_inside
    big = target(told(piston_um=100_470.0))
    assert big.near is not None and not big.near.is_inside
    assert big.near.leaves.value_m == pytest.approx(30e-6)


def test_warm_and_hot_are_told() -> None:
    story = told()
    story.take_temperature("part", 30.0)
    found = target(story, bore_c=20.0, piston_c=20.0)
    assert found.hot_m == pytest.approx(90e-6)
    assert found.reads_large_m == pytest.approx(0.10049 * 10 * 10.5e-6, rel=0.1)
    seized = target(story, bore_c=40.0, piston_c=200.0)
    assert seized.hot_m < 0
    assert any("seizes" in one for one in seized.cautions)


def runs(least: str, greatest: str, runs_with: str, bore_c: float | None, piston_c: float | None) -> Story:
    """A card whose engine runs warm: what is wanted between its limits cold, and as it runs."""
    story = told()
    sheets = tuple(
        replace(one, least=limit(least), greatest=limit(greatest)) if one.quantity is Quantity.PISTON_CLEARANCE else one
        for one in story.card.features
    )
    terms = replace(story.card.bores, runs_with=limit(runs_with), bore_runs_c=bore_c, piston_runs_c=piston_c)
    story.card = replace(story.card, features=sheets, bores=terms)
    return story


def test_a_piston_that_runs_hotter_than_its_bore_gets_its_clearance_from_that() -> None:
    """Aluminium 22.0, iron 10.5 per million and K (handbook, from memory): a piston of 100.400 grows by 397.6 at
    200 °C, its bore at 120 °C by 105.4 and by what it is larger; 50 as they run are 341.8 cold, by hand."""
    found = target(runs("0.3", "0.42", "0.05", 120.0, 200.0))
    assert found.clearance_m == pytest.approx(341.8e-6, abs=0.1e-6)
    assert found.hot_m == pytest.approx(50e-6, abs=1e-9)
    assert (found.bore_c, found.piston_c, found.runs_with_m) == (120.0, 200.0, pytest.approx(50e-6))
    # Somebody tries other temperatures: the size stays, the clearance as it runs moves.
    tried = target(runs("0.3", "0.42", "0.05", 120.0, 200.0), bore_c=120.0, piston_c=230.0)
    assert tried.clearance_m == pytest.approx(found.clearance_m)
    assert tried.hot_m < found.hot_m


def test_a_clearance_by_the_habit_of_another_engine_names_no_size() -> None:
    story = runs("0.07", "0.11", "0.05", 120.0, 200.0)
    facts = story.facts()
    refused = target_of(facts, facts.holes[0])
    assert isinstance(refused, Phrase)
    assert "one of the two is wrong for this engine" in refused.text
    assert refused.terms[0].value == pytest.approx(50e-6)
    assert refused.terms[1].value == pytest.approx(341.8e-6, abs=0.1e-6)


@pytest.mark.parametrize(("load", "words_of"), [("piston used", "used"), ("skirt may have collapsed", "collapsed")])
def test_a_piston_that_has_run_is_named(load: str, words_of: str) -> None:
    assert any(words_of in one for one in target(told(load=load)).cautions)
    assert target(told(), bore_c=20.0, piston_c=20.0).cautions == ()


def test_without_a_measured_piston_no_size_is_named_but_the_sum_of_a_round_one() -> None:
    """Trap: 100.500 less a book piston of 99.920 + 0.500 leaves 0.080 where 0.090 are wanted, if it were so."""
    facts = told(piston_um=None).facts()
    refused = target_of(facts, facts.holes[0])
    assert isinstance(refused, Phrase)
    assert "Nobody measured piston 1" in refused.text
    assert [round(term.value * 1e6) for term in refused.terms] == [100_500, 100_420, 80, 90]
    # A book piston larger than the bore is one of an oversize already: 100.500 less 100.410.
    oversize = told(piston_um=None, book="100.41").facts()
    already = target_of(oversize, oversize.holes[0])
    assert isinstance(already, Phrase)
    assert [round(term.value * 1e6) for term in already.terms] == [100_500, 100_410, 90, 90]
    without = told(clearance=False).facts()
    said = target_of(without, without.holes[0])
    assert isinstance(said, Phrase)
    assert "no clearance" in said.text


def test_before_the_first_pass_what_is_to_go_counts_from_the_least_level() -> None:
    """A cone-worn bore: 12 to go is at a depth. Metal begins where it wore least, at the bottom: 100.011."""
    found = ledger(told())
    assert found.start is not None
    assert (found.start.value_m, found.start_at) == (pytest.approx(0.100011), "bottom")
    assert found.to_go_m == pytest.approx(449e-6)
    assert found.next is not None
    # 449 less 50 for the last in cuts of at most 400 on the diameter: one, then the last.
    assert (found.next.total, found.next_dial_m) == (2, pytest.approx(199.5e-6))
    assert not found.rows


@pytest.mark.parametrize(("left_um", "passes"), [(40, 1), (70, 1), (80, 2), (449, 2)])
def test_no_hair_is_cut_before_the_last_pass(left_um: float, passes: int) -> None:
    """Common practice, no published source: up to half as much again as the last cut goes in one."""
    found = ledger(told(), 0.100011 + left_um * 1e-6, last_um=Decimal(50))
    assert found.next is not None
    assert found.next.total == passes
    assert sum(float(one) for one in found.next.dials_um) == pytest.approx(left_um / 2)


def test_a_tool_that_springs_is_learned_and_the_next_dial_makes_up_for_it() -> None:
    """Each cut takes 0.9 of what its dial says: regression through the origin gives 0.9."""
    story = told()
    bore(story, 40, 100_060, PassKind.TRIAL)
    size = 100_060.0
    for dial in (50.0, 40.0, 60.0):
        size += 2 * dial * 0.9
        bore(story, dial, size, minutes=15)
    found = ledger(story)
    assert found.spring is not None
    assert (found.spring.ratio, found.spring.passes) == (pytest.approx(0.9), 3)
    assert found.present_m == pytest.approx(size * 1e-6)
    assert found.is_read
    assert found.minutes == 15.0
    assert found.to_go_m == pytest.approx(BORED - size * 1e-6)
    assert found.next is not None and found.next_dial_m is not None
    assert found.next_dial_m == pytest.approx(float(found.next.dials_um[0]) * 1e-6 / 0.9)
    assert found.rows[-1].off_m == pytest.approx(0.0, abs=1e-9)
    assert found.asks == ()


def test_a_pass_nobody_read_counts_by_its_dial_with_a_wider_plus_minus() -> None:
    story = told()
    bore(story, 40, 100_060, PassKind.TRIAL)
    read = ledger(story)
    bore(story, 50)
    counted = ledger(story)
    assert not counted.is_read
    assert counted.present_m == pytest.approx(100.160e-3)
    assert counted.within_m > read.within_m
    assert counted.rows[-1].off_m is None
    unread = told()
    bore(unread, 40, kind=PassKind.TRIAL)
    assert ledger(unread).rows[0].expected_m is None, "a trial cut finds out where the tool stands"
    assert ledger(unread).present_m == pytest.approx(0.100011)
    bore(story, 0, 100_150, PassKind.SPRING)
    assert ledger(story).present_m == pytest.approx(100.150e-3)


@pytest.mark.parametrize(
    ("dial", "took", "asks"),
    [(50.0, 50.0, "read on the diameter"), (50.0, 200.0, "a pass missing"), (50.0, 140.0, "does not add up"),
     (50.0, -40.0, "reads smaller")],
)  # fmt: skip
def test_what_does_not_add_up_is_asked_about(dial: float, took: float, asks: str) -> None:
    story = told()
    bore(story, 40, 100_060, PassKind.TRIAL)
    bore(story, dial, 100_060 + took)
    found = ledger(story)
    assert len(found.asks) == 1
    assert asks in words(found.asks[0])


def test_a_bore_beyond_its_size_is_said_and_nothing_more_is_cut() -> None:
    story = told()
    bore(story, 40, 100_480, PassKind.TRIAL)
    found = ledger(story)
    assert found.next is None
    assert "larger than it was to be bored by 20" in words(found.asks[-1])
    assert ledger(story, None).to_go_m is None


def test_the_spring_holds_what_is_true_as_often_as_it_says() -> None:
    """2,000 tools with a hidden ratio, four passes each, readings that scatter by 2.5 µm: 95 ± 2 %. Student's t."""
    rng, held = np.random.default_rng(5), 0
    for _ in range(2000):
        true = rng.uniform(0.85, 1.02)
        dials = rng.uniform(40e-6, 120e-6, 4)
        sizes = np.concatenate([[0.0], np.cumsum(2 * dials * true)]) + rng.normal(0, 2.5e-6, 5)
        found = spring_of(list(dials), list(np.diff(sizes)))
        assert found is not None
        held += abs(found.ratio - true) <= found.within
    assert held / 2000 >= 0.93
    assert spring_of([50e-6], [90e-6]) is None


def test_probe_and_zero_are_looked_at_before_each_programme() -> None:
    """Common practice: a new setting, a pass of another hole, a rest of the machine each begin one."""
    story = told()
    first, second = story.hole_rows[:2]
    due = lambda hours=0.0: zero_due(story.facts(), story.facts().holes[0], story.now + timedelta(hours=hours))  # noqa: E731
    assert "nobody looked" in due()
    story.mark(Operation.BORE, 1, MarkKind.ZERO_LOOKED)
    assert due() == ""
    assert due(5) == "the machine stood since: look at probe and zero again"
    bore(story, 40, 100_060, PassKind.TRIAL)
    assert due() == ""
    set_bar(story, 20_000, 20_000, 20_000, 20_000, level="mains", set_at=story.now + timedelta(minutes=1))
    assert "set anew" in due()
    story.mark(Operation.BORE, 1, MarkKind.ZERO_LOOKED, at=story.now + timedelta(minutes=2))
    assert due() == ""
    made = BoringPass(uuid4(), second.hole_id, PassKind.CUT, Decimal(50), "", None, "", None, None, "",
                      story.now + timedelta(minutes=3), "Wren", story._next())  # fmt: skip
    story._add("boring_passes", made)
    assert "another hole" in due()
    assert first.number == 1
    # To look at a zero is not to bore: the operation is as far as it was, and nothing has to be read again.
    assert mark_of(story.facts(), Operation.BORE, story.facts().holes[0]) is None


def set_bar(story: Story, *gaps_um: float, datum: BoreDatum = BoreDatum.UNWORN, **more: object) -> SettingNow:
    event = story._next()
    gaps = [Decimal(str(one)) for one in gaps_um] or [None] * 4
    row = BarSetting(uuid4(), story.hole_rows[0].hole_id, datum, *gaps, None, None, "", "", "", WHEN, "Wren", event)  # type: ignore[arg-type]
    story._add("bar_settings", replace(row, **more))  # type: ignore[arg-type]
    facts = story.facts()
    found = setting_now(facts, facts.holes[0])
    assert found is not None
    return found


def test_a_bar_is_moved_towards_the_wider_gap() -> None:
    """Gaps at 12, 3, 6, 9 h: wider at 12 by 120, so that the bar stands 60 too low; move it towards 12."""
    found = set_bar(told(), 20_060, 20_000, 19_940, 20_000, level="mains, 0.02 mm")
    assert found.centring is not None
    assert found.centring.offset.value_m == pytest.approx(60e-6)
    assert found.move_hour == pytest.approx(12.0)
    assert words(found.says[0]).startswith("Move the bar 60")
    assert "towards 12 h" in found.says[0].text
    nearly = set_bar(told(), 20_060, 20_016, 19_940, 19_984, level="mains")
    assert "towards 12.5 h" in nearly.says[0].text
    aslant = set_bar(told(), 20_060, 20_060, 19_940, 19_940, level="mains")
    assert aslant.move_hour == pytest.approx(1.5)
    assert aslant.centring is not None
    assert aslant.centring.offset.value_m == pytest.approx(60e-6 * 2**0.5)


def test_a_bar_in_the_middle_stays_and_an_end_that_is_worn_is_asked_about() -> None:
    middle = set_bar(told(), 20_005, 20_000, 20_000, 20_000, level="deck")
    assert middle.move_hour is None
    assert "stands in the middle" in middle.says[0].text
    oval = set_bar(told(), 20_200, 20_000, 20_200, 20_000, level="deck")
    assert any("not round there" in one.text for one in oval.says)
    bare = set_bar(told())
    assert bare.centring is None
    assert any("four clock positions" in one.text for one in bare.says)
    assert any("not square to the crank" in one.text for one in bare.says)
    mains = set_bar(told(), 20_000, 20_000, 20_000, 20_000, datum=BoreDatum.MAINS)
    assert not any("square to the crank" in one.text for one in mains.says)


def test_the_next_hole_is_held_against_the_drawing() -> None:
    """Pitch of the card 168 mm: two holes on, 336.1 lies 0.1 farther."""
    near = set_bar(told(), to_hole=2, apart_um=Decimal(168_020), level="mains")
    assert near.off_drawing_m == pytest.approx(20e-6)
    assert not any("than drawn" in one.text for one in near.says)
    far = set_bar(told(), to_hole=3, apart_um=Decimal(336_100), level="mains")
    assert far.off_drawing_m == pytest.approx(100e-6)
    assert any("farther than drawn" in one.text for one in far.says)


def test_a_pass_makes_what_was_read_before_it_to_be_read_again() -> None:
    """No verdict stands on a bore that was cut since; read again, that reading is what the bore has now."""
    story = told()
    part = part_with_key(story.facts(), Quantity.BLOCK_BORE, "hole-1")
    assert part is not None
    assert survey_of(story.facts(), Quantity.BLOCK_BORE, part).disturbed is None
    story.pace = timedelta(minutes=1)
    bore(story, 40, 100_060, PassKind.TRIAL)
    assert survey_of(story.facts(), Quantity.BLOCK_BORE, part).state is State.READ_AGAIN
    assert ledger(story).start is not None, "the ledger still begins where it began"
    again = {level(d, a): (100_070.0,) for d in (15.0, 135.0) for a in AXES}
    story.survey(Quantity.BLOCK_BORE, again, hole_id=story.hole_rows[0].hole_id)
    found = ledger(story)
    assert found.present_m == pytest.approx(100.070e-3)
    assert found.is_read
    assert found.start is not None
    assert found.start.value_m == pytest.approx(100.011e-3, abs=1e-6), "it began at its bottom, as read before"
