"""What can be done about a sunk hole: heights by hand, costs by hand, what is held, and worth it or not."""

from dataclasses import replace
from decimal import Decimal

import pytest

from tests.core.card import FLAT
from tests.core.facts import Story
from tests.core.test_matching_jobs import wet
from vallostasis.core.options.sunk import OptionKind, SunkHole, options_for
from vallostasis.core.options.worth import worth_of
from vallostasis.core.records.prices import PriceKind, PriceList, ShopPrice
from vallostasis.core.records.rows import Quantity
from vallostasis.core.uncertainty.decision import State

LIP = "lip"


def priced(**money: float | None) -> PriceList:
    """A shop of 68 an hour: hours and days as they usually are, money as it is told by the name of the kind."""
    usual = PriceList()
    told = {"HOUR": 68.0, "SHIM": 24.5, "RING": 64.0, "SKIM": 0.0, "BLOCK": 900.0, **money}
    rows = []
    for kind in PriceKind:
        row, own = usual.of(kind), told.get(kind.name, 0.0)
        rows.append(ShopPrice(kind, row.hours, None if own is None else Decimal(str(own)), row.days, "€"))
    return PriceList(tuple(rows))


def laid(story: Story, number: int = 2, prices: PriceList | None = None) -> SunkHole:
    found = options_for(story.facts(), story.hole_rows[number - 1], prices or priced())
    assert isinstance(found, SunkHole), found
    return found


def sunk() -> Story:
    """Hole 2 stands 20 high, under a least of 50; 1 and 3 stand 80 and 85. Neighbours may differ by 50."""
    story = wet((8_880, 8_930, 8_880), (8_960, 8_950, 8_965))
    story.card = replace(story.card, layout=replace(story.card.layout, holes=3, heads=((1, 2, 3),)))
    for hole, height in zip(story.hole_rows, (80, 20, 85), strict=True):
        fitting = story.facts().present_fitting(hole.hole_id)
        assert fitting is not None
        story.read(Quantity.PROTRUSION, fitting.fitting_id, (height,) * 4)
    return story


def um(value_m: float) -> float:
    return round(value_m * 1e6, 3)


def test_each_option_says_how_every_hole_stands_afterwards() -> None:
    """By hand, limits 50 to 125, on a shim 75 to 125 aimed at 100; the ring is aimed at the middle, 87.5."""
    found = {one.kind: one for one in laid(sunk()).options}
    heights = {kind: [um(row.value.value_m) for row in one.holes] for kind, one in found.items()}
    assert heights[OptionKind.LEAVE] == [80, 20, 85]
    assert heights[OptionKind.CUT] == [80, 100, 85]
    assert heights[OptionKind.RING] == [80, 87.5, 85]
    # 30 short and its ±, in whole steps of ten, for every hole alike.
    skim = um(found[OptionKind.SKIM].skim_m)
    assert heights[OptionKind.SKIM] == [80 + skim, 20 + skim, 85 + skim]
    left = found[OptionKind.SKIM].holes[1]
    assert left.state is State.IN
    assert 0 <= um(left.value.value_m - 50e-6 - left.value.expanded_m) < 10
    assert found[OptionKind.LEAVE].out == 1
    assert [row.state for row in found[OptionKind.CUT].holes] == [State.IN, None, State.IN]
    assert [row.least_m for row in found[OptionKind.CUT].holes] == pytest.approx([50e-6, 75e-6, 50e-6])
    assert [row.least_m for row in found[OptionKind.RING].holes] == pytest.approx([50e-6] * 3)


def test_an_exchange_is_told_hole_by_hole_or_why_there_is_none() -> None:
    """By hand: 8.930 with the 8.990 of hole 1 stands 60, which is 50 and its ± from the least."""
    crossed = wet((8_880, 8_920), (8_985, 8_955))
    found = {one.kind: one for one in laid(crossed).options}
    assert [um(row.value.value_m) for row in found[OptionKind.EXCHANGE].holes] == [75, 65]
    assert (found[OptionKind.EXCHANGE].detail, found[OptionKind.EXCHANGE].cost.hours) == ("2 liners moved", 2)
    still = {one.kind: one for one in laid(wet((8_880, 8_930), (8_955, 8_955))).options}
    assert still[OptionKind.EXCHANGE].why_not == "No exchange makes it better."


def test_what_it_costs_by_hand() -> None:
    """68 an hour: a ring 3.5 h, a refit 1 h and 64; a skim 5.5 h; waiting is side by side."""
    found = {one.kind: one.cost for one in laid(sunk()).options}
    assert (found[OptionKind.LEAVE].money, found[OptionKind.LEAVE].days) == (0.0, 0.0)
    ring = found[OptionKind.RING]
    assert (ring.hours, ring.parts, ring.days, ring.money) == (4.5, 64.0, 9.0, 64.0 + 4.5 * 68)
    assert (found[OptionKind.SKIM].money, found[OptionKind.SKIM].days) == (5.5 * 68, 4.0)
    assert found[OptionKind.BLOCK].money == 900 + 16 * 68
    cut = next(one for one in laid(sunk()).options if one.kind is OptionKind.CUT)
    # Refit, cut and its passes, a sixtieth of an hour each; a shim that lies on the shelf waits for nothing.
    assert cut.cost.hours > 1.6
    assert cut.cost.days == 0.0
    assert cut.cost.money == pytest.approx(68 * cut.cost.hours + (cut.cost.parts or 0))
    assert cut.spent_m > 25e-6
    unknown = {one.kind: one.cost for one in laid(sunk(), prices=priced(RING=None)).options}
    assert (unknown[OptionKind.RING].parts, unknown[OptionKind.RING].money) == (None, None)
    no_rate = {one.kind: one.cost for one in laid(sunk(), prices=PriceList()).options}
    assert no_rate[OptionKind.SKIM].hours == 5.5 and no_rate[OptionKind.SKIM].money is None


def test_every_hole_that_is_not_proven_in_gets_its_ring_and_its_price() -> None:
    """By hand: 20 is out, 55 with its ±8 cannot be told over a least of 50: two rings of 64, two of 4.5 h."""
    story = wet((8_880, 8_930, 8_910), (8_960, 8_950, 8_965))
    ring = next(one for one in laid(story).options if one.kind is OptionKind.RING)
    assert [um(row.value.value_m) for row in ring.holes] == [80, 87.5, 87.5]
    assert (ring.cost.parts, ring.cost.hours, ring.cost.days) == (128.0, 9.0, 9.0)


def test_the_cheapest_that_is_sure_enough_is_suggested_and_the_surest_where_none_is() -> None:
    """The skim puts 1 and 3 out of the window at the top; the cut is cheaper than the ring where both are sure."""
    found = laid(sunk())
    chances = {one.kind: one.chance or 0.0 for one in found.options}
    assert chances[OptionKind.LEAVE] < 0.01
    assert chances[OptionKind.RING] > 0.9
    told = [one for one in found.options if one.chance is not None and one.chance >= 0.9 and one.keeps]
    cheapest = min(told, key=lambda one: one.cost.money or 0.0)
    assert found.suggested is cheapest.kind
    fine = laid(wet((8_880, 8_880), (8_960, 8_960)))
    assert fine.suggested is OptionKind.LEAVE
    reasons = {one.kind: one.why_not for one in fine.options}
    assert all(reasons[kind].startswith("No hole is too low") for kind in (OptionKind.SKIM, OptionKind.RING))


def test_a_hole_out_by_its_readings_round_stays_out_whatever_its_centre_says() -> None:
    """By hand: 40 to 100 round hole 1 differ by 60, the card lets 40; a skim lifts all of it and cures no tilt."""
    story = sunk()
    fitting = story.facts().present_fitting(story.hole_rows[0].hole_id)
    assert fitting is not None
    story.read(Quantity.PROTRUSION, fitting.fitting_id, (50, 80, 110, 80))
    found = {one.kind: one for one in laid(story).options}
    for kind in (OptionKind.LEAVE, OptionKind.SKIM, OptionKind.RING):
        assert um(found[kind].holes[0].value.value_m) == 80 + um(found[kind].skim_m)
        assert found[kind].holes[0].state is State.OUT, kind
    # Hole 2 is out at every reading until the skim lifts each of them.
    assert [found[kind].holes[1].state for kind in (OptionKind.LEAVE, OptionKind.SKIM)] == [State.OUT, State.IN]


def test_what_nobody_has_read_has_no_verdict() -> None:
    """By its parts alone a hole stands 80: a chance, no verdict."""
    first = next(one for one in laid(wet((8_880, 8_930), (8_960, 8_950))).options if one.kind is OptionKind.LEAVE)
    assert [row.state for row in first.holes] == [None, None]
    assert first.holes[0].chance > 0.9 > 0.1 > first.holes[1].chance


def test_a_shim_that_the_card_prices_is_paid_once() -> None:
    """By hand: a 0.15 shim is not on the shelf; at 9.50 on the card the list's 24.50 is not paid on top."""
    story = sunk()
    sizes = tuple(replace(one, stock=0, price=Decimal("9.50")) for one in story.card.shims)
    story.card = replace(story.card, shims=sizes)
    cut = next(one for one in laid(story).options if one.kind is OptionKind.CUT)
    assert (cut.cost.parts, cut.cost.days) == (9.5, 7.0)
    story.card = replace(story.card, shims=tuple(replace(one, price=None) for one in sizes))
    free = next(one for one in laid(story).options if one.kind is OptionKind.CUT)
    assert (free.cost.parts, free.cost.days) == (24.5, 7.0)


def test_nothing_final_is_offered_while_parts_and_reading_contradict_each_other() -> None:
    story = sunk()
    fitting = story.facts().present_fitting(story.hole_rows[1].hole_id)
    assert fitting is not None
    story.read(Quantity.PROTRUSION, fitting.fitting_id, (-70,) * 4)
    found = laid(story)
    assert "disagree" in found.hold
    barred = {one.kind for one in found.options if one.why_not == found.hold}
    assert barred == {OptionKind.CUT, OptionKind.RING, OptionKind.SKIM}


def test_the_true_land_is_the_one_of_the_card_and_the_other_is_shown_for_what_it_is() -> None:
    """By hand: the lip stands 49 over the flat land, so that 20 would read 69 over it, and be called in."""
    story = sunk()
    liner = story.facts().liners[1].liner_id
    story.setups[Quantity.FLANGE_THICKNESS] = story._setup(Quantity.FLANGE_THICKNESS, LIP)
    story.read(Quantity.FLANGE_THICKNESS, liner, (8_999,) * 4)
    (other,) = laid(story).other_lands
    assert (other.land, um(other.value.value_m), other.state) == (LIP, 69, State.IN)
    story.change_land(LIP)
    said = options_for(story.facts(), story.hole_rows[1], priced())
    assert isinstance(said, str)
    assert "read over the lip" in said and f"judges the {FLAT}" in said


def test_what_must_be_known_first_is_said() -> None:
    story = Story(holes=2)
    said = options_for(story.facts(), story.hole_rows[1], priced())
    assert said == "Read the protrusion of hole 2, or its ledge and its flange, first."


@pytest.mark.parametrize(
    ("money", "worth", "day", "total", "words"),
    [
        # 400, four days and eight hours of work at 50 a day: 400 + 5 · 50.
        (400, 2_000, 50, 650, "650 € of an engine worth 2,000 €: 32 %."),
        (400, 1_000, 50, 650, "650 € of an engine worth 1,000 €: more than half."),
        (400, 600, 50, 650, "Not worth it: 650 € of an engine worth 600 €."),
        (400, None, 0, 400, ""),
    ],
)
def test_worth_it_or_not_by_hand(money: float, worth: float | None, day: float, total: float, words: str) -> None:
    found = worth_of(money, 8.0, 4.0, worth, day, "€")
    assert found.total == total
    assert found.words.startswith(words)
