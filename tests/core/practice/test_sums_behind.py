"""The sums behind the exercises, held against closed forms and check values, each with its source."""

from math import cos, pi, radians

import numpy as np
import pytest

from tests.core.practice.players_of_bores import bore, hone
from tests.core.practice.players_of_cuts import cut_right
from vallostasis.core.practice.bore_sums import BORE_SUMS, GAUGE_SUMS
from vallostasis.core.practice.centring import CENTRE
from vallostasis.core.practice.centring import after as bored
from vallostasis.core.practice.clean_up_game import FORTY, SLEEVE, TWENTY, CleanUpTruth
from vallostasis.core.practice.cutter import CUTTER
from vallostasis.core.practice.detective import DETECTIVE
from vallostasis.core.practice.drop import DRY_ICE, FREEZER, DropTruth
from vallostasis.core.practice.exercise import Move
from vallostasis.core.practice.hone import ALL, HoneTruth
from vallostasis.core.practice.hone import after as honed
from vallostasis.core.practice.hot_fit import HotTruth
from vallostasis.core.practice.pressing import PRESSING
from vallostasis.core.practice.rocking import ROCKING, RockTruth
from vallostasis.core.practice.shims import SHIM_DRILL, cut_for
from vallostasis.core.practice.slips import Asked, Slips
from vallostasis.core.practice.whole_job import ESTIMATE

THOU = 25.4e-6
NM = 1e-9


def _asked(slips: Slips, skill: str) -> Asked:
    return next(one for slip in slips.slips for one in slip.asked if one.skill == skill)


def test_two_points_see_the_oval_and_three_points_the_lobes() -> None:
    """A diameter is two opposite radii; a three-point gauge reads the circle through its feet. By definition."""
    truth = RockTruth(100_000_000, (10_000, 100, 10, 10, ""), 0, (9_000, 7_000, 5_000), (30_000, 30_000, 0), 40,
                      (0, 20_000, 0), 15, (0,))  # fmt: skip
    oval = [truth.across("two-point", "middle", angle) for angle in range(180)]
    assert max(oval) - min(oval) == pytest.approx(30e-6)
    assert oval.index(max(oval)) == 40
    assert np.mean(oval) == pytest.approx(7e-6)

    def radius(angle: float) -> float:
        return 7e-6 / 2 + 20e-6 * cos(3 * radians(angle - 15)) + 30e-6 / 4 * cos(2 * radians(angle - 40))

    for angle in (0, 30, 77):
        feet = [radius(angle + third) for third in (0, 120, 240)]
        assert truth.across("three-point", "middle", angle) == pytest.approx(2 * float(np.mean(feet)))


def test_a_tilted_gauge_reads_the_chord() -> None:
    """Chord across a tilted line: d/cos φ, about d·φ²/2 more; by definition. Least where it stands square."""
    truth = ROCKING.truth(5)
    size = truth.ring_nm * NM + truth.across("two-point", "top", 45)
    square = truth.square_deg("top", 45)
    grown = truth.shows("two-point", "top", 45, square + 2.0) - truth.shows("two-point", "top", 45, square)
    assert grown == pytest.approx(size * radians(2.0) ** 2 / 2, rel=2e-3)
    tilts = np.arange(-4, 4.01, 0.1)
    shown = [truth.shows("two-point", "top", 45, tilt) for tilt in tilts]
    assert tilts[int(np.argmin(shown))] == pytest.approx(square, abs=0.051)


@pytest.mark.parametrize(
    ("starts_thou", "aim_thou", "cut_thou"), [(-5, 6.0, 19), (-5, 3.5, 21.5), (-2, 6.0, 22), (-2, 3.5, 24.5)]
)
def test_cut_for_a_shim_of_thirty(starts_thou: float, aim_thou: float, cut_thou: float) -> None:
    """Common practice, no published source: for a 30 shim from −5 a cut of 19 to 21.5, from −2 one of 22 to 24.5."""
    start, shim, aim = (round(one * 25_400) for one in (starts_thou, 30, aim_thou))
    assert cut_for(start, shim, aim) * NM == pytest.approx(cut_thou * THOU)


def test_the_shim_asked_for_is_the_thinnest_that_cleans_up() -> None:
    for seed in range(30):
        for slip in SHIM_DRILL.truth(seed).slips:
            cut, shim = slip.asked
            worn = next(fact.value.terms[0].value for fact in slip.facts if "cleans up" in fact.name)
            assert cut.right >= worn
            if shim.right > 31 * THOU:
                assert cut.right - 5 * THOU < worn


def _hot() -> HotTruth:
    return HotTruth(95_000_000, 38_100, 130_000_000, 96_000_000, 88_000_000, 100, 100, 170, 80_000)


def test_hot_fits_by_the_handbook() -> None:
    """Free expansion, iron 11.0e-6/K in aluminium 23.0e-6/K: 0.096 mm a 100 mm lost at +80 K; gone at +33 K for
    1.5 thou on 95 mm; 130 mm sink 0.125 mm at +80 K. Closed form."""
    hot = _hot()
    assert hot.press_nm * NM - hot.press_hot_m == pytest.approx(0.96e-3 * 0.095, rel=2e-3)
    assert hot.gone_at_c - 20 == pytest.approx(33.4, abs=0.2)
    assert hot.sinks_m == pytest.approx(-0.125e-3, rel=2e-3)
    assert hot.gap_m == pytest.approx(80 * (96e-3 * 23e-6 - 95e-3 * 11e-6))
    by_hand = 88.080e-3 * (1 + 11e-6 * 80) - 88e-3 * (1 + 23e-6 * 150)
    assert hot.clearance_m == pytest.approx(by_hand)


def test_room_to_drop_by_the_handbook() -> None:
    """95 mm, block 80 °C, liner −18 °C: 0.171 mm with constant coefficients; those of the cold are less, within 3 %."""
    truth = DropTruth(95_000_000, 0, 130_000_000, 80_000, 900, 250, 40_000)
    assert truth.room(80, FREEZER, True, 0.0) == pytest.approx(0.171e-3, rel=0.03)
    # Dry ice shrinks iron by 0.108 mm a 100 mm in all, 0.041 of it by −18 °C; constant coefficients, within a tenth.
    more = truth.room(80, DRY_ICE, True, 0.0) - truth.room(80, FREEZER, True, 0.0)
    assert more == pytest.approx(0.95 * (0.108 - 0.0418) * 1e-3, rel=0.1)
    # One node each in air: after a time constant e⁻¹ is left of what it was off; closed form.
    assert truth.temperatures(80, FREEZER, 900)[0] == pytest.approx(20 + 60 / np.e)
    assert truth.room(80, FREEZER, False, 100) == pytest.approx(truth.room(80, FREEZER, True, 100) - 2 * 15e-6)
    assert truth.rooms(80, FREEZER, False)[3] == pytest.approx(truth.room(80, FREEZER, False, 90))
    # Read warm at 50 °C the iron liner lies lower: 130 mm by 12e-6/K less over 30 K; closed form.
    assert truth.reads_hot(80) == pytest.approx(80e-6 - 0.130 * 12e-6 * 30)


def test_a_press_closes_and_pushes_as_lame_has_it() -> None:
    """Close-in of the bore per press, two rings of one material: Lamé in closed form, (1 − (D/c)²)/(1 − (a/D)²)·a/D…"""
    truth = PRESSING.truth(4)
    a, d, c = truth.rings.inside_m, truth.rings.fit_m, truth.rings.outside_m
    e, press = 110e9, truth.press_m(0.5)
    # Fatter in the middle by its barrel, which both ends lack.
    assert press == pytest.approx((truth.press_nm + truth.barrel_nm) * NM)
    assert truth.press_m(0.0) == truth.press_m(1.0) == pytest.approx(truth.press_nm * NM)
    pressure = press / d * e / ((d**2 + a**2) / (d**2 - a**2) + (c**2 + d**2) / (c**2 - d**2))
    closes = pressure * 2 * d**2 / (d**2 - a**2) / e * a
    assert truth.closes_m == pytest.approx(closes)
    # Force of a half that is in: friction × pressure × area, summed by hand over fine slices.
    shares = (np.arange(2000) + 0.5) / 4000
    slices = [truth.press_m(share) / press * pressure for share in shares]
    by_hand = 0.12 * float(np.mean(slices)) * pi * d * truth.length_mm / 2000
    assert truth.force(truth.length_mm / 2, 0.0, False) == pytest.approx(by_hand, rel=2e-3)
    assert truth.force(truth.length_mm / 2, 200e-6, False) > by_hand


def test_stones_take_what_they_say_and_a_warm_bore_reads_large() -> None:
    """100 mm of iron 10 K warm reads 0.43 thou large (closed form); 70 grit takes 0.5 µm a stroke, common practice."""
    truth = HoneTruth(100_000_000, (60_000, 60_000, 60_000), ((0,) * 12,) * 3)
    one = Move("hone", {"strokes": 1.0, "grit": "70", "where": "top", "tension": "light", "above": 25.0, "below": 25.0})
    now = honed(truth, [one])
    assert now.left_nm == pytest.approx([59_500, 60_000, 60_000])
    evenly = Move(
        "hone", {"strokes": 30.0, "grit": "70", "where": ALL, "tension": "light", "above": 25.0, "below": 25.0}
    )
    even = honed(truth, [evenly]).left_nm
    # A third of each stroke at each level, less as the stones load: an eightieth a stroke, to six tenths less.
    by_hand = 60_000 - sum(500 * (1 - 0.6 * at / 80) / 3 for at in range(30))
    assert even == pytest.approx([by_hand] * 3)
    bell = Move("hone", {"strokes": 30.0, "grit": "70", "where": ALL, "tension": "light", "above": 55.0, "below": 5.0})
    out = honed(truth, [bell]).left_nm
    assert out[0] < out[1] < out[2]
    assert out[1] == pytest.approx(even[1])
    firm = honed(truth, [Move("hone", {**one.given, "tension": "firm"})])
    assert 60_000 - firm.left_nm[0] == pytest.approx(1.5 * 500)
    assert firm.celsius - 20 == pytest.approx(2.2 * (now.celsius - 20))
    warm = honed(truth, [evenly] * 7)
    reading = honed(truth, [*[evenly] * 7, Move("measure", {"level": "middle"})]).said[-1].terms[0].value
    heat = 0.43 * THOU / 10 * (warm.celsius - 20)
    assert warm.celsius > 25
    assert reading + warm.left_nm[1] * NM == pytest.approx(heat, rel=0.01)
    cooler = honed(truth, [*[evenly] * 7, Move("wait", {"minutes": 25.0})])
    assert cooler.celsius - 20 == pytest.approx((warm.celsius - 20) / np.e)


def test_a_spring_pass_takes_what_the_tool_sprang_back() -> None:
    """Each pass at the same setting leaves the spring's share of what it took: a geometric series, closed form."""
    truth = CENTRE.truth(2)
    share = truth.spring_permille / 1000
    cut = Move("cut", {"dial": 100e-6})
    now = bored(truth, [cut])
    assert (now.size_nm - truth.start_nm) * NM == pytest.approx(200e-6 * (1 - share))
    twice = bored(truth, [cut, Move("cut", {"dial": 0.0})])
    assert (twice.size_nm - truth.start_nm) * NM == pytest.approx(200e-6 * (1 - share**2))


def test_a_score_takes_twice_its_depth() -> None:
    """A scratch 6 thou deep needs 12 on the diameter (common practice), and 2 for the hone."""
    truth = CleanUpTruth(((6 * 25_400),) * 5 + ((13 * 25_400),))
    assert truth.needs_nm(1) * NM == pytest.approx(14 * THOU)
    assert (truth.worst, truth.size) == (6, FORTY)
    assert CleanUpTruth(((6 * 25_400),) * 6).size == TWENTY
    sleeved = CleanUpTruth(((6 * 25_400),) * 5 + ((25 * 25_400),))
    assert (sleeved.right(6), sleeved.right(1)) == (SLEEVE, TWENTY)


def test_what_stands_is_flange_less_ledge_and_the_lip_lies_between() -> None:
    for seed in range(40):
        truth = DETECTIVE.truth(seed)
        high = truth.reads(0, 2, 2, "inner lip", "to the card")
        low = truth.reads(0, 2, 2, "outer flat", "to the card")
        assert high - low == pytest.approx(truth.lip_nm * NM)
        assert truth.stands(3, 2) == truth.flange_nm[2] - truth.ledge_nm[1]
        assert truth.reads(0, 2, 2, "inner lip", "free") - high == pytest.approx(truth.free_nm * NM)


def test_the_ledge_wanted_is_flange_and_shim_less_proud() -> None:
    """By definition of the stack; and the stop lets through what the truth says."""
    truth = CUTTER.truth(9)
    assert truth.wanted_nm == truth.flange_nm + truth.shim_nm - truth.aim_nm
    moves = cut_right(truth)
    reads = [Move("measure", {"clock": clock}) for clock in ("12", "6")]
    said = CUTTER.position(truth, [*moves[:6], *reads]).said[-2:]
    mean = sum(phrase.terms[0].value for phrase in said) / 2
    # The burr that is still on reads shallow.
    assert mean == pytest.approx((truth.wanted_nm - truth.burr_nm) * NM)


def test_sums_round_a_bore_by_the_handbook() -> None:
    """2.5 thou more opens a ring gap 7.85 (π times); 2.1 L are 128.1 in³; half an oversize comes off a wall."""
    slips = BORE_SUMS.truth(11)
    gap = next(slip for slip in slips.slips if slip.asked[0].skill == "ring gap")
    was, more = (fact.value.terms[0].value for fact in gap.facts)
    assert gap.asked[0].right == pytest.approx(was + more * 7.85 / 2.5, rel=1e-3)
    wall = next(slip for slip in slips.slips if slip.asked[0].skill == "wall and diameter")
    thick, over, _ = (fact.value.terms[0].value for fact in wall.facts)
    assert wall.asked[0].right == pytest.approx(thick - over / 2)
    litres = next(slip for slip in slips.slips if slip.asked[0].skill == "litres and inches")
    words = litres.facts[0].value.text.split()
    bore_mm, stroke_mm, cylinders = float(words[0]), float(words[3]), int(words[5])
    volume = cylinders * pi / 4 * bore_mm**2 * stroke_mm / 1e6
    assert litres.asked[0].right == pytest.approx(volume * 128.1 / 2.1, rel=1e-3)
    warm = _asked(GAUGE_SUMS.truth(11), "warm bores")
    assert isinstance(warm.right, float)
    assert warm.right < warm.wrong[0].value  # type: ignore[operator]


def test_one_return_for_six_good_ones_is_a_seventh() -> None:
    """Common practice, no published source: one in seven, not one in six; the high end of the hours, and tax apart."""
    slips = ESTIMATE.truth(8)
    returns = next(slip for slip in slips.slips if slip.asked[0].skill == "returns")
    cost = float(returns.facts[1].value.text)
    assert returns.asked[0].right == pytest.approx(cost / 7, abs=0.06)
    first = slips.slips[0]
    parts, outside = (float(first.facts[at].value.text) for at in (0, 1))
    high = float(first.facts[2].value.text.split()[-1])
    assert first.asked[0].right == pytest.approx((parts + outside + high * 80) * 1.2)


def test_players_end_where_the_sums_say() -> None:
    """The perfect hone is at size cold, the perfect bar at size: by the moves, not by the score."""
    truth = CENTRE.truth(6)
    assert abs(bored(truth, bore(truth)).size_nm - truth.bored_nm) < 50
    stock = HoneTruth(100_000_000, (50_000, 55_000, 60_000), ((0,) * 12,) * 3)
    assert max(abs(left) for left in honed(stock, hone(stock)).left_nm) < 200
