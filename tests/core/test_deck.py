"""The plan of a deck: faces that clean up, sealing lands, every aim with what moves with it, volumes in both units."""

from dataclasses import replace
from datetime import timedelta

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.optimize import minimize

from tests.core.card import length, limit, wet_card
from tests.core.facts import HOURS, Story
from vallostasis.core.deck.face import faces_of
from vallostasis.core.deck.plan import Aim, DeckOption, deck_plan
from vallostasis.core.deck.surface import Bore, Surface, bores_of_row, least_cut, near_bores, off_at, surface_of
from vallostasis.core.deck.volume import bore_for_volume, swept
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.operations import schools
from vallostasis.core.records.route_marks import HoldPoint, Operation
from vallostasis.core.records.rows import Place, Quantity
from vallostasis.core.records.spec_card import (
    Arrangement,
    DependentHeight,
    FeatureSheet,
    HeightKind,
)
from vallostasis.core.route.evidence import evidence_of_route
from vallostasis.core.route.hold_points import in_the_way
from vallostasis.core.uncertainty.decision import State

GRID_ALONG, GRID_ACROSS = (0.0, 0.15, 0.3), (-0.1, 0.0, 0.1)


def face(heights_um: list[list[float]]) -> Surface:
    return Surface(np.array(GRID_ALONG), np.array(GRID_ACROSS), np.array(heights_um) * 1e-6)


def test_the_least_cut_of_a_face_that_lies_level_is_its_range() -> None:
    """The highest point comes down to the lowest: by hand, 12 less −8."""
    assert least_cut(face([[0, 12, 8], [-8, 4, 2], [-6, 0, 0]]), None, may_tilt=False).depth_m == pytest.approx(20e-6)


def test_a_face_that_only_leans_costs_nothing_once_it_is_set() -> None:
    leaning = face([[10 * i - 4 * j for j in range(3)] for i in range(3)])
    cut = least_cut(leaning, None, may_tilt=True)
    assert cut.depth_m == pytest.approx(0, abs=1e-10)
    assert cut.fall_along == pytest.approx(10e-6 / 0.15)
    assert cut.fall_across == pytest.approx(-4e-6 / 0.1)
    assert least_cut(leaning, None, may_tilt=False).depth_m == pytest.approx(28e-6)


@given(st.lists(st.lists(st.integers(-60, 60), min_size=3, max_size=3), min_size=3, max_size=3))
def test_no_other_tilt_takes_less(heights: list[list[int]]) -> None:
    """Against scipy's Nelder-Mead over both tilts, from the answer and from level: none finds a smaller range."""
    surface = face([[float(one) for one in row] for row in heights])
    best = least_cut(surface, None, may_tilt=True).depth_m * 1e6
    x, y = (one.ravel() for one in np.meshgrid(surface.along_m, surface.across_m, indexing="ij"))
    z = surface.heights_m.ravel() * 1e6

    def range_at(tilt: np.ndarray) -> float:
        return float(np.ptp(z - tilt[0] * x - tilt[1] * y))

    tried = minimize(range_at, [0.0, 0.0], method="Nelder-Mead", options={"xatol": 1e-3, "fatol": 1e-6}).fun
    assert best <= tried + 1e-4
    assert best <= range_at(np.zeros(2)) + 1e-6


def test_a_low_corner_does_not_cost_the_sealing_land() -> None:
    surface = face([[0, 0, -80], [0, 0, 0], [0, 0, 0]])
    bores = bores_of_row((1, 2), 0.15, 0.1, surface.along_m, surface.across_m)
    whole = least_cut(surface, None, may_tilt=False).depth_m
    land = least_cut(surface, near_bores(surface, bores, 0.005), may_tilt=False).depth_m
    assert whole == pytest.approx(80e-6)
    # Bilinear by hand: at (75 mm − 55 mm·sin φ, 55 mm·cos φ) the corner counts (1 − x/150)(y/100): most at its rim.
    angles = np.linspace(0, np.pi / 2, 2001)
    x, y = 0.075 - 0.055 * np.sin(angles), 0.055 * np.cos(angles)
    assert land == pytest.approx(80e-6 * np.max((1 - x / 0.15) * (y / 0.1)), rel=0.02)
    assert land < whole


def test_a_dip_within_the_land_costs_what_it_is_deep() -> None:
    surface = face([[0, 0, 0], [0, -80, 0], [0, 0, 0]])
    bores = bores_of_row((1, 2), 0.15, 0.1, surface.along_m, surface.across_m)
    # The dip lies 25 mm from the rim of both bores: within a land of 40 mm, outside one of 20.
    wide, narrow = (least_cut(surface, near_bores(surface, bores, land), False).depth_m for land in (0.040, 0.020))
    assert wide == pytest.approx(80e-6, rel=0.02)
    assert narrow < 78e-6


def test_what_comes_off_at_a_bore_is_what_the_cutter_reaches_there() -> None:
    surface = face([[0, 0, 0], [0, 0, 0], [30, 30, 30]])
    bores = bores_of_row((1, 2), 0.15, 0.1, surface.along_m, surface.across_m)
    cut = least_cut(surface, None, may_tilt=False)
    offs = [off_at(surface, bore, cut, cut.depth_m) for bore in bores]
    # In the mean the second bore stands half as high as the end, the first is at the bottom: by symmetry.
    assert offs == [pytest.approx(0, abs=1e-9), pytest.approx(15e-6, rel=0.01)]
    assert off_at(surface, bores[0], cut, 10e-6) == pytest.approx(-20e-6)


def test_the_first_bore_stands_half_a_pitch_from_the_first_line() -> None:
    bores = bores_of_row((3, 4), 0.15, 0.1, np.array([0.02, 0.32]), np.array([-0.1, 0.1]))
    assert bores == (Bore(3, pytest.approx(0.095), 0.0, 0.05), Bore(4, pytest.approx(0.245), 0.0, 0.05))


@pytest.mark.parametrize("more", [{}, {(0.0, 0.1): 0.0}])
def test_what_is_no_grid_is_refused(more: dict[tuple[float, float], float]) -> None:
    points = {(0.0, 0.0): 0.0, (0.1, 0.0): 0.0, **more}
    with pytest.raises(OutOfDomain, match=r"two lines|was not read"):
        surface_of(points)


@pytest.mark.parametrize(
    ("cylinders", "bore_mm", "stroke_mm", "cm3"),
    [
        # Machinery's Handbook, swept volume π/4·D²·S·n; 4 × 78.54 cm² × 100 mm by hand.
        (4, 100.0, 100.0, 3141.59),
        (1, 25.4, 25.4, 12.870),
    ],
)
def test_a_volume_is_said_in_both_units_from_one_number(
    cylinders: int, bore_mm: float, stroke_mm: float, cm3: float
) -> None:
    """1 cu in is 16.387064 cm³ exactly (NIST SP 811, appendix B)."""
    found = swept(cylinders, bore_mm / 1e3, stroke_mm / 1e3)
    assert found.cm3 == pytest.approx(cm3, rel=1e-4)
    assert found.cubic_inches * 16.387064 == pytest.approx(found.cm3, rel=1e-12)


def test_the_bore_of_a_volume_gives_that_volume_and_costs_half_its_growth_of_wall() -> None:
    now = swept(4, 0.0815, 0.085)
    found = bore_for_volume(4, now.volume_m3 * 1.1, 0.0815, 0.085, wall_m=0.006)
    assert swept(4, found.bore_m, 0.085).volume_m3 == pytest.approx(now.volume_m3 * 1.1)
    assert found.per_cent == pytest.approx(10)
    assert found.wall_m == pytest.approx(0.006 - (found.bore_m - 0.0815) / 2)
    with pytest.raises(OutOfDomain, match="above nought"):
        bore_for_volume(4, 0.0, 0.08, 0.08)


class Block:
    """Two wet liners in a block whose face was read on the machine; limits 50 to 125 µm."""

    def __init__(self, tilts: bool = False, **card: object) -> None:
        base = wet_card()
        sheet = FeatureSheet(Quantity.DECK_FLATNESS, greatest=limit("0.050"),
                             along=tuple(length(str(int(one * 1000))) for one in GRID_ALONG),
                             across=tuple(length(str(int(one * 1000))) for one in GRID_ACROSS))  # fmt: skip
        card = {"layout": replace(base.layout, holes=2, banks=((1, 2),)), **card}
        seen = replace(base, features=(sheet, FeatureSheet(Quantity.DECK_HEIGHT, least=limit("299.9"))), **card)  # type: ignore[arg-type]
        self.story = Story(card=seen, resolution_um=0.2, repeatability_um=0.2, pace=timedelta(seconds=1))
        self.story.take_temperature("part", 20.0)
        load = "block on its feet" if tilts else "block level on the machine"
        self.story.set_up(Quantity.DECK_FLATNESS, load=load, method="indicator grid")
        self.limits = base.limits

    def face(self, heights_um: list[list[float]], part: str = "deck") -> None:
        places = {
            Place(along_um=round(x * 1e6), across_um=round(y * 1e6)): (heights_um[i][j],)  # type: ignore[arg-type]
            for i, x in enumerate(GRID_ALONG)
            for j, y in enumerate(GRID_ACROSS)
        }
        self.story.survey(Quantity.DECK_FLATNESS, places, part=part)

    def height(self, um: float, part: str = "deck") -> None:
        self.story.survey(Quantity.DECK_HEIGHT, {Place(): (um,)}, part=part)

    def liner(self, hole: int, um: float) -> None:
        fitting = self.story.fit(hole, self.story.liner(f"L{hole}"))
        self.story.read(Quantity.PROTRUSION, fitting, (um,) * len(HOURS))

    def option(self, aim: Aim, asked_m: float | None = None) -> DeckOption:
        plan = deck_plan(self.story.facts(), asked_m)
        return next(one for one in plan.options if one.aim is aim)


FLAT = [[0.0] * 3] * 3
LEAST, GREATEST = 50.0, 125.0


@pytest.fixture
def block() -> Block:
    found = Block()
    least, greatest = found.limits.least_without_shim.metres, found.limits.greatest_without_shim.metres
    assert (least, greatest) == pytest.approx((LEAST * 1e-6, GREATEST * 1e-6))
    return found


def test_liners_on_a_ledge_stand_higher_by_what_comes_off(block: Block) -> None:
    block.face(FLAT)
    block.liner(1, 60)
    block.liner(2, 80)
    option = block.option(Aim.ASKED, 30e-6)
    ends = [one.lowest.value_m for one in option.holes if one.lowest is not None]
    assert ends == [pytest.approx(90e-6), pytest.approx(110e-6, abs=1e-9)]
    assert [one.off_m for one in option.holes] == [pytest.approx(30e-6)] * 2


def test_the_lowest_liner_is_brought_up_until_it_is_in_by_its_uncertainty(block: Block) -> None:
    block.face(FLAT)
    block.liner(1, 25)
    block.liner(2, 60)
    assert block.option(Aim.LEAVE).state is State.OUT
    option = block.option(Aim.LOWEST)
    assert option.state is State.IN
    low = option.holes[0].lowest
    assert low is not None
    assert low.value_m == pytest.approx(LEAST * 1e-6 + low.expanded_m)
    least = deck_plan(block.story.facts()).least
    assert least is not None
    assert least.aim is Aim.LOWEST


def test_nothing_is_to_come_off_where_all_is_in(block: Block) -> None:
    block.face(FLAT)
    block.liner(1, 80)
    block.liner(2, 82)
    plan = deck_plan(block.story.facts())
    assert plan.least is not None
    assert (plan.least.aim, plan.least.deepest_m) == (Aim.LEAVE, 0)


def test_a_cut_that_leaves_old_face_is_not_in(block: Block) -> None:
    block.face([[0, 0, 0], [0, -70, 0], [0, 0, 0]])
    block.liner(1, 70)
    block.liner(2, 70)
    assert block.option(Aim.LEAVE).state is State.OUT
    block.face([[0, 0, 0], [0, -40, 0], [0, 0, 0]])
    assert block.option(Aim.LEAVE).state is State.IN
    short = block.option(Aim.ASKED, 20e-6)
    assert short.state is State.OUT
    assert "Old face is left" in short.says[0].text
    assert block.option(Aim.WHOLE).deepest_m == pytest.approx(40e-6, abs=1e-6)


def test_piston_injector_and_valve_move_with_the_deck_and_keep_their_limits_or_not() -> None:
    heights = (
        DependentHeight(HeightKind.STAND_OUT, length("0.62"), limit("0.45"), limit("0.65")),
        DependentHeight(HeightKind.INJECTOR, length("2.10"), limit("2.00"), limit("3")),
    )
    block = Block(heights=heights)
    block.face(FLAT)
    block.liner(1, 60)
    block.liner(2, 60)
    option = block.option(Aim.ASKED, 40e-6)
    assert [one.after_m for one in option.heights] == [pytest.approx(0.66e-3), pytest.approx(2.06e-3)]
    assert [one.keeps for one in option.heights] == [False, True]
    assert option.state is State.OUT
    assert block.option(Aim.ASKED, 20e-6).state is State.IN


def test_a_deck_that_its_card_keeps_is_cut_for_no_aim() -> None:
    """The sum is still told, the cut is neither recommended nor done without a name."""
    free, kept = Block(), Block(deck_kept="rings of wire let in")
    for one in (free, kept):
        one.face([[0, 12, 8], [-8, 4, 2], [-6, 0, 0]])
        for hole in (1, 2):
            one.liner(hole, 45)
    plan = deck_plan(kept.story.facts())
    assert plan.kept == ("the deck: rings of wire let in",)
    assert plan.is_kept
    assert plan.least is None
    assert [one.state for one in plan.options] == [one.state for one in deck_plan(free.story.facts()).options]
    assert deck_plan(free.story.facts()).least is not None
    for one, holds in ((free, False), (kept, True)):
        facts = one.story.facts()
        held = {now.hold for now in in_the_way(facts, Operation.DECK, None, "Wren", evidence_of_route(facts))}
        assert (HoldPoint.FACE_KEPT in held) is holds


def test_the_block_keeps_its_least_height(block: Block) -> None:
    block.face(FLAT)
    block.liner(1, 60)
    block.liner(2, 60)
    block.height(299_950)
    option = block.option(Aim.ASKED, 30e-6)
    assert option.faces[0].height is not None
    assert option.faces[0].height.value_m == pytest.approx(0.29992)
    assert option.state is State.IN
    low = block.option(Aim.ASKED, 90e-6)
    assert low.faces[0].height_rule is not None
    assert low.faces[0].height_rule.decision.state is State.OUT
    assert any("The block is" in one.text for one in low.says)


def test_a_face_that_was_not_read_names_no_cut(block: Block) -> None:
    for aim in (Aim.LAND, Aim.WHOLE):
        option = block.option(aim)
        assert option.why_not == "the face was not read on a grid"
        assert option.state is State.NOT_MEASURED


def test_both_halves_come_to_one_height() -> None:
    layout = replace(wet_card().layout, arrangement=Arrangement.V, holes=4, banks=((1, 2), (3, 4)))
    block = Block(layout=layout)
    block.story.holes = 4
    block.story.__post_init__()
    block.face(FLAT, "deck-A")
    block.face([[0, 0, 0], [0, -30, 0], [0, 0, 0]], "deck-B")
    assert "was not read" in block.option(Aim.HALVES).why_not
    block.height(300_050, "deck-A")
    block.height(300_020, "deck-B")
    option = block.option(Aim.HALVES)
    left = [one.height.value_m for one in option.faces if one.height is not None]
    assert left[0] == pytest.approx(left[1])
    land = faces_of(block.story.facts())[1].land_cut
    assert land is not None
    assert option.faces[1].depth_m == pytest.approx(land.depth_m, abs=1e-6)
    assert option.faces[0].depth_m == pytest.approx(land.depth_m + 30e-6, abs=1e-6)


def test_liners_left_proud_end_in_the_face(block: Block) -> None:
    block.face(FLAT)
    block.liner(1, 150)
    block.story.choose(schools.HEIGHT, schools.LEFT_PROUD)
    assert "does not say what cleans the deck up" in block.option(Aim.PROUD).why_not
    card = block.story.card
    block.story.card = replace(card, conversion=replace(card.conversion, clean_up=limit("0.05")))
    option = block.option(Aim.PROUD)
    assert option.deepest_m == pytest.approx(50e-6)
    assert [one.lowest for one in option.holes] == [None, None]


def test_a_block_on_its_feet_may_be_set_to_suit_the_face() -> None:
    leaning = [[30.0 * i for _ in range(3)] for i in range(3)]
    on_feet, on_machine = Block(tilts=True), Block()
    for one in (on_feet, on_machine):
        one.face(leaning)
    assert on_feet.option(Aim.WHOLE).deepest_m == pytest.approx(0, abs=1e-6)
    assert on_machine.option(Aim.WHOLE).deepest_m == pytest.approx(60e-6, abs=1e-6)


def test_a_land_below_nought_is_refused(block: Block) -> None:
    with pytest.raises(OutOfDomain, match="land_m"):
        deck_plan(block.story.facts(), land_m=-0.001)


def test_a_deck_that_was_cut_is_read_again_before_it_is_planned(block: Block) -> None:
    block.face(FLAT)
    block.height(300_000)
    block.story.mark(Operation.DECK)
    (face,) = faces_of(block.story.facts())
    assert (face.surface, face.height) == (None, None)


def test_a_cut_to_the_bare_figure_is_not_called_clean(block: Block) -> None:
    block.face([[0, 0, 0], [0, -40, 0], [0, 0, 0]])
    block.liner(1, 70)
    block.liner(2, 70)
    (face,) = faces_of(block.story.facts())
    assert face.land_cut is not None
    assert face.within_m is not None
    depth, within = face.land_cut.depth_m, face.within_m
    assert block.option(Aim.LAND).deepest_m == pytest.approx(depth + within)
    states = [block.option(Aim.ASKED, depth + share * within).state for share in (-1.1, 0.0, 1.01)]
    assert states == [State.OUT, State.CANNOT_TELL, State.IN]


def test_a_liner_nobody_read_keeps_a_cut_from_being_called_in(block: Block) -> None:
    block.face(FLAT)
    block.liner(1, 80)
    assert block.option(Aim.LEAVE).state is State.NOT_MEASURED
    assert deck_plan(block.story.facts()).least is None
    block.liner(2, 80)
    assert block.option(Aim.LEAVE).state is State.IN
