"""Pistons in their holes: two methods that have to agree, marks, bores that are frozen, gaps that are read again."""

from datetime import timedelta
from decimal import Decimal
from math import pi
from uuid import uuid4

import pytest

from tests.core.card import dry_card, length, limit
from tests.core.facts import Story, level
from vallostasis.core.pistons.frozen import running, why_not_frozen
from vallostasis.core.pistons.match import Matched, matches_of
from vallostasis.core.pistons.order import order_sheet
from vallostasis.core.records.piston_matches import PinStyle, PistonMatch, PistonRun
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.records.rows import Place, Quantity
from vallostasis.core.records.spec_card import CardLevel, Construction, FeatureSheet
from vallostasis.core.uncertainty.budget import stated
from vallostasis.core.uncertainty.decision import State

AXES = (0.0, 90.0)
LEVELS = tuple(CardLevel(name, length(depth)) for name, depth in (("top", "15"), ("bottom", "135")))
PISTON = 100_400.0


class Pair:
    """A parent bore and its piston, read by an exact gauge."""

    def __init__(self) -> None:
        card = dry_card(
            FeatureSheet(Quantity.BLOCK_BORE, limit("100.49"), limit("100.47"), limit("100.51"), levels=LEVELS,
                         axes_deg=AXES),
            FeatureSheet(Quantity.PISTON_SKIRT, limit("100.4"), levels=(CardLevel("", length("25")),), axes_deg=AXES),
            FeatureSheet(Quantity.PISTON_CROWN, limit("100.0"), levels=(CardLevel("", length("5")),), axes_deg=AXES),
            FeatureSheet(Quantity.PISTON_CLEARANCE, least=limit("0.070"), greatest=limit("0.110")),
            construction=Construction.PARENT_BORE,
        )  # fmt: skip
        self.story = Story(card=card, resolution_um=0.2, repeatability_um=0.2, pace=timedelta(seconds=1))
        self.hole = self.story.hole_rows[0].hole_id
        self.story.take_temperature("part", 20.0)

    def bore(self, size_um: float) -> None:
        self.story.survey(Quantity.BLOCK_BORE, {level(d, a): (size_um,) for d in (15, 135) for a in AXES},
                          hole_id=self.hole)  # fmt: skip

    def piston(self, size_um: float = PISTON, crown_um: float | None = None) -> None:
        self.story.survey(Quantity.PISTON_SKIRT, {level(25, 0): (size_um - 300,), level(25, 90): (size_um,)},
                          part="piston-1")  # fmt: skip
        if crown_um is not None:
            self.story.survey(Quantity.PISTON_CROWN, {level(5, a): (crown_um,) for a in AXES}, part="piston-1")

    def feeler(self, gap_um: float, method: str = "feeler, piston against the other wall") -> None:
        self.story.set_up(Quantity.PISTON_CLEARANCE, method=method)
        self.story.survey(Quantity.PISTON_CLEARANCE, {Place(): (gap_um,)}, part="piston-1")

    def mark(self, text: str = "1F", hole: int = 1) -> None:
        row = PistonMatch(uuid4(), self.story.hole_rows[hole - 1].hole_id, text, "front", PistonRun.NEW, PinStyle.CLIPS,
                          "", self.story.now, "Wren", self.story._next())  # fmt: skip
        self.story._add("piston_matches", row)

    @property
    def now(self) -> Matched:
        return matches_of(self.story.facts())[0]


def whole(bore: float = PISTON + 90, gap: float = 90.0) -> Pair:
    pair = Pair()
    pair.bore(bore)
    pair.piston()
    pair.feeler(gap)
    pair.mark()
    return pair


def test_both_methods_inside_and_agreed_and_the_part_marked_is_in() -> None:
    """100.490 less 100.400 is 0.090 on the diameter; the blade found 0.090."""
    now = whole().now
    assert now.by_sizes is not None and now.by_feeler is not None
    assert now.by_sizes.value_m == pytest.approx(90e-6)
    assert now.by_feeler.value_m == pytest.approx(90e-6)
    assert now.agree is True
    assert (now.state, now.says) == (State.IN, ())


def test_two_methods_apart_are_a_question_and_no_average() -> None:
    """Bore less skirt is 104, the blade found 76: both inside, 28 apart, which nothing of theirs explains."""
    now = whole(PISTON + 104, 76).now
    assert now.apart is not None
    assert now.apart.value_m == pytest.approx(-28e-6)
    assert now.agree is False
    assert now.state is State.CANNOT_TELL
    assert "less than bore less skirt" in now.says[0].text
    assert "a question, no average" in now.says[0].text
    more = whole(PISTON + 76, 104).now
    assert "more than bore less skirt" in more.says[0].text
    # A blade in one of two gaps finds half, which is outside besides.
    assert whole(gap=45).now.state is State.OUT


def test_one_that_hung_free_is_named() -> None:
    pair = whole()
    pair.feeler(90, "feeler, piston hanging free")
    assert any("hung free" in said.text for said in pair.now.says)


def test_what_is_missing_is_not_measured() -> None:
    pair = Pair()
    assert pair.now.state is State.NOT_MEASURED
    pair.bore(PISTON + 90)
    pair.piston()
    assert (pair.now.state, pair.now.by_feeler) == (State.NOT_MEASURED, None)
    pair.feeler(90)
    assert pair.now.state is State.NOT_MEASURED
    pair.mark()
    assert pair.now.state is State.IN


def test_a_mark_on_two_pistons_and_a_crown_too_large_are_named() -> None:
    pair = whole()
    pair.mark("1f", hole=2)
    now = pair.now
    assert now.state is State.CANNOT_TELL
    assert any("stands on two pistons" in said.text for said in now.says)
    hot = whole()
    hot.piston(PISTON, PISTON + 20)
    assert hot.now.crown_less_m == pytest.approx(-20e-6)
    assert any("would seize" in said.text for said in hot.now.says)


def test_a_bore_that_was_changed_since_is_read_again_and_not_frozen() -> None:
    pair = whole()
    facts = pair.story.facts()
    assert pair.now.by_sizes is not None
    pair.story.mark(Operation.HONE, 1)
    facts = pair.story.facts()
    assert "changed since it was read" in why_not_frozen(facts, facts.holes[0])
    now = pair.now
    assert (now.state, now.by_sizes) == (State.READ_AGAIN, None)


def test_gaps_read_before_the_bore_grew_are_told_as_they_are_now() -> None:
    """Trap: 25 more on the bore opens the gap by π·25 = 78.5: closed form."""
    pair = whole()
    fitting = pair.story.fit(1, pair.story.liner("L1"))
    pair.story.survey(Quantity.RING_GAP, {level(15): (400.0,), level(135): (400.0,)}, fitting_id=fitting)
    pair.story.mark(Operation.HONE, 1)
    pair.bore(PISTON + 115)
    said = [one for one in pair.now.says if "opens a gap" in one.text]
    terms = {term.symbol: term.value for term in said[0].terms}
    assert terms["d"] == pytest.approx(25e-6)
    assert terms["n"] == pytest.approx(400e-6 + pi * 25e-6)
    assert Decimal(str(round(terms["o"] * 1e6, 2))) == Decimal("78.54")


def test_a_piston_is_ordered_between_what_the_bore_leaves_at_both_ends() -> None:
    """By hand: a bore of 100.482 to 100.490, each by its ±, less 0.070 in the least and 0.110 in the greatest."""
    pair = Pair()
    sizes = {(15, 0.0): 100_490.0, (15, 90.0): 100_486.0, (135, 0.0): 100_482.0, (135, 90.0): 100_484.0}
    pair.story.survey(Quantity.BLOCK_BORE, {level(d, a): (one,) for (d, a), one in sizes.items()}, hole_id=pair.hole)
    facts = pair.story.facts()
    sheet = order_sheet(facts, facts.holes[0])
    piston, rings = sheet.ordered
    survey = running(facts, facts.holes[0])
    within = {round(one.value_m * 1e6): one.expanded_m for one in (stated("b", e, 2) for e in survey.estimates)}
    assert piston.greatest_m == pytest.approx(100.482e-3 - within[100_482] - 70e-6)
    assert piston.least_m == pytest.approx(100.490e-3 + within[100_490] - 110e-6)
    assert (rings.least_m, rings.greatest_m) == (
        pytest.approx(100.482e-3 - within[100_482]), pytest.approx(100.490e-3 + within[100_490]))  # fmt: skip
    assert (piston.why_not, sheet.weeks) == (None, None)
    assert piston.material == facts.card.piston_material


def test_no_piston_is_ordered_to_a_bore_that_spends_its_clearance_or_is_unread() -> None:
    """0.040 between the limits of the clearance, 0.050 between the ends of the bore: no piston fits at both."""
    pair = Pair()
    assert order_sheet(pair.story.facts(), pair.story.facts().holes[0]).ordered[0].why_not is not None
    sizes = {(15, 0.0): 100_520.0, (15, 90.0): 100_520.0, (135, 0.0): 100_470.0, (135, 90.0): 100_470.0}
    pair.story.survey(Quantity.BLOCK_BORE, {level(d, a): (one,) for (d, a), one in sizes.items()}, hole_id=pair.hole)
    piston = order_sheet(pair.story.facts(), pair.story.facts().holes[0]).ordered[0]
    assert piston.least_m is None
    assert piston.why_not is not None
    assert piston.why_not.terms[0].value > 50e-6
    assert piston.why_not.terms[1].value == pytest.approx(40e-6)
