"""The plan of a drop: worst pair, temperatures and what they are held against, the window, water, room."""

from dataclasses import fields, replace
from math import log, pi

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.integrate import quad, solve_ivp
from skfem import Basis, BilinearForm, ElementLineP1, MeshLine, asm
from skfem.helpers import dot, grad

from tests.core.card import limit
from tests.core.facts import level
from tests.core.test_fits import TERMS, told
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.fits.fit import Fit, fit_of
from vallostasis.core.heat.plan import HeatPlan, Tried, heat_plan, medium_of, room_told, steps_of
from vallostasis.core.heat.planner import (
    SOAKED_K,
    Drops,
    HeatFit,
    against,
    block_cools_s,
    boils_kg,
    drops,
    heat_fit,
    held_s,
    limits_of,
    line_of,
    soak_s,
    spreads_of,
    ways_of,
)
from vallostasis.core.heat.seals import seals_in_heat
from vallostasis.core.heat.stuffs import MEDIA, Medium, kind_of, metal_of, rubber_limits, stuff_of
from vallostasis.core.heat.transient import AIR_K, RADIATES, Draws, Sizes, followed, in_full
from vallostasis.core.heat.window import DRAWN, Spreads, Window, drawn, drop_window, worst_at_start
from vallostasis.core.records.conversion_terms import ConversionTerms, GrooveIn, SealRing
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity
from vallostasis.core.thermal.drop import Stuff
from vallostasis.core.thermal.shrink import constant_course, course_of
from vallostasis.core.trail import Phrase
from vallostasis.core.uncertainty.budget import value_of

TRIED = Tried(80.0, -18.0, 38e-6, 20.0, 0.5, 40.0, 5.0, 30.0, True)
ALUMINIUM = {"block_material": "cast aluminium", "liner_material": "grey iron"}


def facts_of(**fields_: object) -> JobFacts:
    return told(**fields_)[0].facts()  # type: ignore[arg-type]


def fit_in(facts: JobFacts) -> Fit:
    fit = fit_of(facts, facts.holes[0], "A")
    assert isinstance(fit, Fit)
    return fit


def heated(facts: JobFacts) -> HeatFit:
    found = heat_fit(facts, fit_in(facts))
    assert isinstance(found, HeatFit)
    return found


def planned(tried: Tried = TRIED, **fields_: object) -> HeatPlan:
    facts = facts_of(**{**ALUMINIUM, **fields_})
    found = heat_plan(facts, fit_in(facts), tried)
    assert isinstance(found, HeatPlan)
    return found


def test_the_worst_pair_is_the_greatest_liner_against_the_least_hole() -> None:
    """By hand: 104.009 outside at its middle against 103.980: 29, and the ± of both on top."""
    facts = facts_of()
    found = heated(facts)
    assert found.press.value_m == pytest.approx(29e-6)
    fit = fit_in(facts)
    assert found.outside_m == max(value_of(one) for one in fit.outside.estimates)
    assert found.worst_m == pytest.approx(29e-6 + found.press.expanded_m)
    assert found.worst_m > max(level.press.value_m for level in fit.levels)
    assert found.pair.clearance(20.0, 20.0) == pytest.approx(-found.worst_m), "the worst pair is what heat has to open"
    assert found.wall_m == pytest.approx((0.125 - found.outside_m) / 2)
    assert found.wall_known
    assert found.liner_kg == pytest.approx(7200 * pi / 4 * (found.outside_m**2 - 0.1**2) * 0.15)


def test_the_tightest_place_of_a_hole_decides_and_another_face_does_not() -> None:
    """By hand: 103.965 at its tightest against 104.009; a land of 103.2 below is a face of its own."""
    story, hole, _ = told()
    sizes = {15.0: 103_980.0, 75.0: 103_965.0, 135.0: 103_200.0}
    story.survey(Quantity.BLOCK_BORE, {level(d, a): (one,) for d, one in sizes.items() for a in (0.0, 90.0)},
                 hole_id=hole)  # fmt: skip
    found = heated(story.facts())
    assert found.press.value_m == pytest.approx(44e-6)


def test_what_the_card_does_not_say_is_asked_for() -> None:
    facts = facts_of(terms=replace(TERMS, liner_inside=limit("105")))
    refused = heat_fit(facts, fit_in(facts))
    assert isinstance(refused, Phrase)
    assert "no wall" in refused.text


@pytest.mark.parametrize(("clear", "means"), [
    (40e-6, Drops.FREELY), (38e-6, Drops.FREELY), (37.9e-6, Drops.PUSH), (1e-9, Drops.PUSH), (0.0, Drops.GRABS),
    (-5e-6, Drops.GRABS),
])  # fmt: skip
def test_what_may_touch_never_drops_freely(clear: float, means: Drops) -> None:
    assert drops(clear, 38e-6) is means


def test_every_way_leaves_the_worst_pair_what_was_wanted() -> None:
    facts = facts_of(**ALUMINIUM)
    fit = heated(facts)
    ways = ways_of(facts, fit, 38e-6, 20.0, 80.0)
    for way in ways:
        if way.block_c is None or way.liner_c is None:
            continue
        clear = fit.pair.clearance(way.block_c, way.liner_c)
        cold = kind_of(way.medium).celsius
        # A medium that is colder than it has to be leaves more.
        if way.liner_c == cold and way.block_c == 20.0:
            assert clear >= 38e-6
        else:
            assert clear == pytest.approx(38e-6, abs=2e-9)
    by_name = {way.name: way for way in ways}
    assert by_name["heat only"].liner_c == 20.0
    assert by_name["freezer only"].block_c is None, "an iron liner does not shrink by so much in a freezer"
    assert by_name["dry ice only"].block_c == 20.0
    assert by_name["dry ice only"].boils_kg is not None
    assert by_name["heat only"].boils_kg is None
    assert any("brittle" in one for one in by_name["liquid nitrogen only"].against)
    assert by_name["80 °C and cold"].block_c == 80.0
    with pytest.raises(OutOfDomain):
        ways_of(facts, fit, 0.0, 20.0, 80.0)


def test_limits_of_block_liner_paint_and_seals_are_named_where_they_are_passed() -> None:
    seals = (SealRing("upper", material="nitrile"), SealRing("lower", material="nitrile"),
             SealRing("ring", GrooveIn.BLOCK, material="FKM", warmest_c=110.0),
             SealRing("odd", material="leather"))  # fmt: skip
    card = facts_of(**ALUMINIUM, conversion=ConversionTerms(seals=seals)).card
    limits = limits_of(card)
    assert against(limits, 80.0, -18.0) == ()
    cold = against(limits, 20.0, -40.0)
    assert len(cold) == 1
    assert "seal upper and seal lower: -30 °C at the least" in cold[0]
    hot = against(limits, 160.0, 20.0)
    assert [one.split(":")[0] for one in hot] == ["the block, cast aluminium", "paint", "seal ring"]
    assert "150 °C at the most" in hot[0] and "110 °C at the most" in hot[2]
    assert not any("150" in one for one in against(limits_of(facts_of().card), 160.0, 20.0)), "iron bears more"
    assert any("brittle" in one for one in against(limits, 20.0, -120.0))
    assert against(limits, None, None) == ()
    assert rubber_limits("leather") is None
    assert rubber_limits("red silicone") == (-55.0, 200.0)
    assert metal_of("cast alloy") == "aluminium"


def test_soak_mass_and_time_held_by_hand() -> None:
    """Lumped: ρ·c·w/(h·faces) times the logarithm; heat of the part over that of the ice, twice; exponential."""
    iron, ice = stuff_of("grey iron", 10.5e-6), kind_of(Medium.DRY_ICE)
    assert soak_s(ice, iron, 0.002, -98.5) == pytest.approx(7200 * 460 * 0.002 / (60 * 2) * log(98.5 / SOAKED_K))
    assert soak_s(ice, iron, 0.002, -98.5, both_faces=False) == pytest.approx(2 * soak_s(ice, iron, 0.002, -98.5))
    assert soak_s(ice, iron, 0.002, 1.0) == 0
    assert boils_kg(ice, 0.6, iron, -98.5) == pytest.approx(2 * 0.6 * 460 * 98.5 / 571e3)
    assert boils_kg(kind_of(Medium.OVEN), 0.6, iron, 60.0) is None
    block = stuff_of("cast aluminium", 21.5e-6)
    constant = block_cools_s(block, 22.0, 130.0, 20.0)
    # Handbook order of magnitude: 22 kg of aluminium in still air takes about fifty minutes.
    assert 1800 < constant < 4500
    assert held_s(block, 22.0, 130.0, 20.0) == pytest.approx(constant * log(110 / 5))
    assert held_s(block, 22.0, 24.0, 20.0) == 0
    with pytest.raises(OutOfDomain):
        block_cools_s(block, 0.0, 100.0, 20.0)
    assert stuff_of("unobtainium", 1e-5).rho == 7200.0


def test_the_pairs_of_a_chart_lie_on_their_clearance() -> None:
    fit = heated(facts_of(**ALUMINIUM))
    for wanted in (0.0, 38e-6):
        line = line_of(fit, wanted, (-195.8, -78.5, -18.0, 20.0))
        assert len(line) >= 2
        for liner_c, block_c in line:
            assert fit.pair.clearance(block_c, liner_c) == pytest.approx(wanted, abs=2e-9)


SIZES = Sizes(0.086, 0.095, 0.13, Stuff(7200.0, 460.0, 50.0, 10.5e-6), Stuff(2690.0, 920.0, 150.0, 21.5e-6),
              course_of("iron", 10.5e-6), course_of("aluminium", 21.5e-6))  # fmt: skip
SPREADS = Spreads(40e-6, 2e-6, 44e-6, -18.0, 2.0, 80.0, 3.0, 11.0, 0.2, 3000.0, 0.25, 0.012)


def window(spreads: Spreads = SPREADS, enter_s: float = 40.0, wanted_m: float = 38e-6) -> Window:
    return drop_window(SIZES, spreads, 20.0, enter_s, wanted_m)


def test_a_window_shuts_in_seconds_and_its_edges_stand_in_order() -> None:
    found = window()
    assert np.all(found.low_m <= found.likely_m)
    assert np.all(found.likely_m <= found.high_m)
    assert found.home_by_s is not None and found.grabs_s is not None and found.likely_s is not None
    assert 40 < found.home_by_s < found.grabs_s < found.likely_s < 120
    assert found.at(found.home_by_s)[0] == pytest.approx(38e-6, abs=1e-7)
    # In air it loses a hair in 40 seconds.
    assert found.at(0.0)[1] - found.at(40.0)[1] < 10e-6


def test_the_lower_edge_is_never_above_the_worst_pair_of_readings() -> None:
    for worst in (44e-6, 60e-6, 90e-6, 150e-6):
        spreads = replace(SPREADS, worst_press_m=worst)
        found = window(spreads)
        assert found.low_m[0] <= worst_at_start(SIZES, spreads) + 1e-9
        if worst_at_start(SIZES, spreads) <= 0:
            assert drops(float(found.low_m[0]), 38e-6) is Drops.GRABS
            assert found.home_by_s == 0.0


@settings(max_examples=25)
@given(st.floats(20, 120), st.floats(-190, 20), st.floats(5, 120))
def test_warmer_later_and_tighter_move_a_window_the_way_they_do(block: float, liner: float, enter: float) -> None:
    """Laws: a hotter block opens it, a colder liner opens it, a longer way through the air closes it."""
    base = window(replace(SPREADS, block_c=block, liner_c=liner), enter)
    hotter = window(replace(SPREADS, block_c=block + 20, liner_c=liner), enter)
    tighter = window(replace(SPREADS, block_c=block, liner_c=liner, press_m=50e-6, worst_press_m=54e-6), enter)
    assert hotter.at(0.0)[0] > base.at(0.0)[0] > tighter.at(0.0)[0]
    assert base.at(enter)[1] <= base.at(0.0)[1] + 1e-12


def test_a_window_without_a_way_into_it_is_refused() -> None:
    for wrong in ({"enter_s": -1.0}, {"enter_s": 4000.0}, {"wanted_m": 0.0}):
        with pytest.raises(OutOfDomain):
            window(**wrong)  # type: ignore[arg-type]


def one_draw(**changed: float) -> Draws:
    middle = drawn(SPREADS, np.full((1, DRAWN), 0.5))
    return replace(middle, **{name: np.array([value]) for name, value in changed.items()})


def test_the_short_way_follows_the_full_solution() -> None:
    """SciPy's BDF on four times the cells: within 1.6 µm until it touches, for draws from all over."""
    even = np.random.default_rng(5).uniform(0.02, 0.98, (12, DRAWN))
    times = np.concatenate([np.linspace(0, 40, 9)[:-1], 40 + 60 * np.linspace(0, 1, 60) ** 1.5])
    for row in even:
        draw = drawn(SPREADS, row[None, :])
        full, short = in_full(SIZES, draw, 20.0, 40.0, times), followed(SIZES, draw, 20.0, 40.0, times)[0]
        clear = full > 0
        assert np.max(np.abs(full - short)[clear]) < 1.6e-6
    with pytest.raises(OutOfDomain):
        in_full(SIZES, drawn(SPREADS, even), 20.0, 40.0, times)


def test_both_walls_conduct_as_finite_elements_say() -> None:
    """scikit-fem: both walls as lines in r over a wide gap that hardly closes; the same means after 30 s."""
    draw = one_draw(press_m=-2e-3, off_centre=0.0, film=1e-6, block_s=1e9, contact=5000.0)
    sizes = replace(SIZES, liner_course=constant_course(10.5e-6), block_course=constant_course(21.5e-6))
    ring = float(draw.ring_m[0])
    clear = in_full(sizes, draw, 20.0, 0.0, np.array([0.0, 30.0]))
    basis = []
    for inner, outer in ((0.043, 0.0475), (0.0475, 0.0475 + ring)):
        basis.append(Basis(MeshLine(np.linspace(inner, outer, 60)), ElementLineP1()))
    mass = BilinearForm(lambda u, v, w: u * v * w.x[0])
    stiff = BilinearForm(lambda u, v, w: dot(grad(u), grad(v)) * w.x[0])
    stuffs = (sizes.liner, sizes.block)
    masses = [asm(mass, one).toarray() * stuff.rho * stuff.c for one, stuff in zip(basis, stuffs, strict=True)]
    inverse = [np.linalg.inv(one) for one in masses]
    stiffness = [asm(stiff, one).toarray() * stuff.k for one, stuff in zip(basis, stuffs, strict=True)]
    n = masses[0].shape[0]
    film = AIR_K / (float(clear[0]) / 2 + AIR_K / 5000.0) + RADIATES

    def slopes(_t: float, both: np.ndarray) -> np.ndarray:
        flow = film * 0.0475 * (both[n] - both[n - 1])
        first, second = -stiffness[0] @ both[:n], -stiffness[1] @ both[n:]
        first[-1] += flow
        second[0] -= flow
        return np.concatenate([inverse[0] @ first, inverse[1] @ second])

    start = np.concatenate([np.full(n, -18.0), np.full(n, 80.0)])
    end = solve_ivp(slopes, (0, 30), start, method="BDF", rtol=1e-8).y[:, -1]
    means = []
    for one, cells, (inner, outer) in zip(
        basis, (end[:n], end[n:]), ((0.043, 0.0475), (0.0475, 0.0475 + ring)), strict=True
    ):
        means.append(float((asm(mass, one) @ cells).sum()) * 2 / (outer**2 - inner**2))
    liner, block = means
    hole = (0.095 + 2e-3) * (1 + 21.5e-6 * (block - 20))
    expected = hole - 0.095 * (1 + 10.5e-6 * (liner - 20))
    assert clear[0] - clear[1] == pytest.approx(float(clear[0]) - expected, rel=0.02)
    assert liner > -16


def test_off_centre_a_gap_conducts_by_the_root_of_its_eccentricity() -> None:
    """SciPy's quad of 1/gap round the clock; a wide gap, so that walls and its closing count for little."""
    wide = one_draw(press_m=-1e-3, contact=1e9, film=1e-9, block_s=1e12)
    times = np.array([0.0, 0.5])
    lost = {}
    for share in (0.0, 0.6, 0.9):
        clear = followed(SIZES, replace(wide, off_centre=np.array([share])), 20.0, 0.0, times)[0]
        lost[share] = float(clear[0] - clear[1])
    gap = float(followed(SIZES, wide, 20.0, 0.0, times)[0, 0]) / 2
    for share in (0.6, 0.9):
        mean = quad(lambda angle, e=share: 1 / (1 + e * np.cos(angle)), 0, 2 * pi)[0] / (2 * pi)
        expected = (mean * AIR_K / gap + RADIATES) / (AIR_K / gap + RADIATES)
        assert lost[share] / lost[0.0] == pytest.approx(expected, rel=0.02)


def test_draws_are_even_or_normal_as_their_spreads_say() -> None:
    even = np.random.default_rng(1).uniform(0, 1, (20_000, DRAWN))
    draws = drawn(SPREADS, even)
    assert len(draws) == 20_000
    assert draws.press_m.std() == pytest.approx(2e-6, rel=0.03)
    assert draws.liner_c.mean() == pytest.approx(-18.0, abs=0.1)
    assert np.log(draws.film).std() == pytest.approx(0.2, rel=0.03)
    assert (draws.off_centre.min(), draws.off_centre.max()) == (
        pytest.approx(0, abs=0.01),
        pytest.approx(0.9, abs=0.01),
    )
    assert np.median(draws.contact) == pytest.approx(np.sqrt(2_000 * 10_000), rel=0.05)
    assert draws.ring_m.max() <= 0.012 * 1.33
    assert {one.name for one in fields(Draws)} == set(Draws.__dataclass_fields__)


def test_a_plan_holds_everything_of_one_drop() -> None:
    found = planned()
    assert found.at_start is Drops.FREELY
    assert found.cold == pytest.approx(found.fit.pair.clearance(80.0, -18.0))
    assert found.medium is not None and found.medium.medium is Medium.FREEZER
    assert found.boils_kg is None
    assert found.held_s > 600
    # By hand: 30 kg of aluminium by 60 K; a bath of 400 W/(m² K) soaks in 22/400 of what an oven takes.
    assert found.energy_j == pytest.approx(30 * 920 * 60)
    assert found.bath_s == pytest.approx(found.oven_s * 22 / 400)
    wall = (found.fit.outside_m - 0.1) / 2
    assert found.liner_s == pytest.approx(7200 * 460 * wall / (8 * 2) * log(38 / SOAKED_K))
    assert planned(replace(TRIED, liner_c=-40.0)).liner_s is None
    assert planned(replace(TRIED, block_c=20.0)).energy_j == 0
    assert "it drops" in found.says.text
    ice = planned(replace(TRIED, liner_c=-78.5))
    assert ice.boils_kg is not None and ice.boils_kg > 0
    assert ice.window.home_by_s is not None
    grabs = planned(replace(TRIED, block_c=10.0, liner_c=20.0))
    assert grabs.at_start is Drops.GRABS
    assert "does not go in" in grabs.says.text
    push = planned(replace(TRIED, block_c=48.0, liner_c=20.0, wanted_m=60e-6))
    assert push.at_start is Drops.PUSH
    assert medium_of(-40.0) is None
    with pytest.raises(OutOfDomain):
        planned(replace(TRIED, home_s=-1.0))


def test_water_in_a_pocket_is_refused_under_dry_ice() -> None:
    facts = facts_of(**ALUMINIUM)
    wet = replace(TRIED, pocket_wet=True)
    refused = heat_plan(facts, fit_in(facts), replace(wet, liner_c=-78.5))
    assert isinstance(refused, Phrase)
    assert "blow it dry" in refused.text
    assert isinstance(heat_plan(facts, fit_in(facts), wet), HeatPlan)


def test_frost_is_told_against_the_gap_and_gone_once_it_is_wiped() -> None:
    """Trade: 30 to 75 µm a side in two minutes can exceed the whole gap."""
    wiped, left = planned(replace(TRIED, enter_s=120.0)), planned(replace(TRIED, enter_s=120.0, wiped=False))
    assert (wiped.water.left, left.water.left) == (0.0, 1.0)
    assert left.water.is_wet and left.water.gathered.is_frost
    assert left.water.least_m < left.water.gathered.frost_m < left.water.most_m
    assert left.water.most_m > 20e-6
    assert left.water.gap_m == pytest.approx(left.window.at(120.0)[0] / 2)
    warm = planned(replace(TRIED, liner_c=18.0))
    assert not warm.water.is_wet


def test_frost_that_is_left_on_it_is_taken_off_what_is_clear() -> None:
    """Both sides: a liner that nobody wiped enters with twice its frost less."""
    wiped, left = (planned(replace(TRIED, enter_s=120.0, wiped=one)) for one in (True, False))
    dry, frosted = steps_of(wiped), steps_of(left)
    assert frosted[0].low_m == dry[0].low_m
    for one, other in zip(dry[1:], frosted[1:], strict=True):
        assert one.low_m - other.low_m == pytest.approx(2 * left.water.most_m)
    damp = replace(TRIED, enter_s=600.0, humidity=0.95, air_c=30.0, block_c=75.0)
    assert steps_of(planned(damp))[1].drops is Drops.FREELY
    assert steps_of(planned(replace(damp, wiped=False)))[1].drops is not Drops.FREELY


def test_the_start_is_called_no_better_than_its_window() -> None:
    """Temperatures are off as well as sizes: what the lower edge misses is not called to drop."""
    for block_c in np.arange(36.0, 60.0, 2.0):
        found = planned(replace(TRIED, block_c=float(block_c)))
        assert (found.at_start is Drops.FREELY) is (min(found.cold, float(found.window.low_m[0])) >= TRIED.wanted_m)
        if found.window.home_by_s == 0:
            assert found.at_start is not Drops.FREELY


def test_the_air_of_a_room_is_told_for_what_boils_off_only() -> None:
    told_ = room_told(Medium.DRY_ICE, 6.0, 60.0, 2.0, 1800.0, 20.0)
    assert told_.most_carbon_dioxide > 0.03
    assert told_.oxygen[0] == pytest.approx(0.2095)
    assert len(told_.times_s) == len(told_.oxygen) == len(told_.carbon_dioxide)
    with pytest.raises(OutOfDomain, match="gives off nothing"):
        room_told(Medium.OVEN, 1.0, 60.0, 2.0, 0.0, 20.0)


def test_every_medium_says_what_hurts() -> None:
    for one in MEDIA:
        assert one.cautions or one.medium is Medium.ROOM
    nitrogen = " ".join(kind_of(Medium.NITROGEN).cautions)
    for word in ("hammer", "oxygen", "closed vessel", "pit", "gloves", "Local rules first"):
        assert word in nitrogen


def test_spreads_come_from_the_fit_and_the_room() -> None:
    fit = heated(facts_of(**ALUMINIUM))
    found = spreads_of(fit, -18.0, 80.0, 20.0, 30.0)
    assert found.press_off_m == pytest.approx(fit.press.standard_m)
    assert found.worst_press_m == fit.worst_m
    assert 5 < found.film < 15
    assert found.block_s == pytest.approx(block_cools_s(fit.sizes.block, 30.0, 80.0, 20.0))


def test_each_ring_is_held_against_both_temperatures_in_its_order() -> None:
    """Nitrile from −30 to 100 °C, from memory of seal handbooks; a card's own figures go before."""
    seals = (
        SealRing("upper", material="nitrile"),
        SealRing("own", material="nitrile", coldest_c=-50.0, warmest_c=130.0),
        SealRing("block", GrooveIn.BLOCK, material="EPDM", warmest_c=90.0),
        SealRing("odd", material="leather"),
    )
    facts = facts_of(**ALUMINIUM, conversion=ConversionTerms(seals=seals))
    calm = seals_in_heat(facts, facts.holes[0], 80.0, -18.0)
    assert [one.seal.ring.name for one in calm] == ["upper", "own", "block", "odd"]
    assert [one.bears for one in calm] == [(-30.0, 100.0), (-50.0, 130.0), (-45.0, 90.0), None]
    assert [one.known_by for one in calm] == [
        "by its rubber, nitrile",
        "by the card",
        "by its rubber, EPDM",
        "not known",
    ]
    assert [one.minds == () for one in calm] == [True, True, True, False]
    rough = seals_in_heat(facts, facts.holes[0], 120.0, -40.0)
    assert ["after the cold" in " ".join(one.minds) for one in rough] == [True, False, False, False]
    assert ["slides along" in " ".join(one.minds) for one in rough] == [True, False, False, False]
    assert ["after the oven" in " ".join(one.minds) for one in rough] == [False, False, True, False]
    assert "put it on last" in rough[3].minds[0]
    assert seals_in_heat(facts_of(), facts_of().holes[0], 80.0, -18.0) == ()
