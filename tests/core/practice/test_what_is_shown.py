"""Whoever reads the screen alone arrives at what is right: answers worked out from what is shown, not from the truth.

Sums by definition of the stack, of an offset and of free expansion; numbers said read as the notation reads them.
"""

from typing import Any

import pytest

from vallostasis.core.boring.centring import offset_of_bar
from vallostasis.core.notation.spoken import said_in_digits
from vallostasis.core.notation.typed_lengths import parse_length
from vallostasis.core.practice.aloud import NUMBERS_ALOUD
from vallostasis.core.practice.case import CASE
from vallostasis.core.practice.centring import CENTRE
from vallostasis.core.practice.cutter import CUTTER
from vallostasis.core.practice.detective import DETECTIVE
from vallostasis.core.practice.dials import READ_DIALS
from vallostasis.core.practice.exercise import Move
from vallostasis.core.practice.hot_fit import HOT_FIT
from vallostasis.core.practice.pictures import DialPicture, FactsPicture, HolesPicture, PlotPicture
from vallostasis.core.practice.pressing import PRESSING
from vallostasis.core.practice.shims import SHIM_DRILL
from vallostasis.core.practice.slips import Slip, Slips
from vallostasis.core.trail import Phrase

SEEDS = range(40)
NOISE_M = 6e-6


def values(phrase: Phrase) -> list[float]:
    return [term.value for term in phrase.terms]


def fact(slip: Slip | FactsPicture, begins: str) -> float:
    rows = slip.facts if isinstance(slip, Slip) else slip.rows
    return next(values(row.value)[0] for row in rows if row.name.startswith(begins))


def slip_of(slips: Slips, skill: str) -> Slip:
    return next(slip for slip in slips.slips if slip.asked[0].skill == skill)


@pytest.mark.parametrize("seed", SEEDS)
def test_cut_and_shim_follow_from_the_sheet(seed: int) -> None:
    """Read on the spacer plate, which counts once: by definition of the stack."""
    for slip in SHIM_DRILL.truth(seed).slips:
        height = fact(slip, "protrusion from the deck") + fact(slip, "spacer plate")
        aim, worn = fact(slip, "to stand proud"), fact(slip, "the worn ledge")
        shelf = next(values(row.value) for row in slip.facts if row.name == "shims on the shelf")
        shim = min(one for one in shelf if height + one - aim >= worn - 1e-9)
        assert slip.asked[0].right == pytest.approx(height + shim - aim)
        assert slip.asked[1].right == pytest.approx(shim)


@pytest.mark.parametrize("seed", SEEDS)
def test_a_size_follows_from_the_dial_and_what_it_was_set_on(seed: int) -> None:
    for slip in READ_DIALS.truth(seed).slips:
        dial = next(one for one in slip.pictures if isinstance(one, DialPicture))
        assert slip.asked[0].right == pytest.approx(fact(slip, "the zero was set on") + dial.value_m, abs=1e-10)
        turns = dial.value_m / dial.division_m / dial.per_turn
        said = slip.facts[-1].value.text
        assert said == f"{('', 'once', 'twice')[int(abs(turns))]}, {'forward' if turns > 0 else 'back'}"


@pytest.mark.parametrize("seed", SEEDS)
def test_calls_that_need_no_asking_are_what_the_notation_reads(seed: int) -> None:
    read = 0
    for slip in NUMBERS_ALOUD.truth(seed).slips:
        if any(word in slip.say for word in ("mil", "wall", "half of", "sixteenth")):
            continue
        if slip.say == "plus a thou and a half":
            assert slip.asked[0].right == pytest.approx(1.5 * 25.4e-6)
            read += 1
            continue
        length = parse_length(said_in_digits(slip.say), "thou", None, confirmed=True)
        assert slip.asked[0].right == pytest.approx(float(length.value_um) * 1e-6), slip.say
        read += 1
    assert read == 2


@pytest.mark.parametrize("seed", SEEDS)
def test_the_case_follows_from_its_readings_and_the_lip(seed: int) -> None:
    slips = CASE.truth(seed)
    land, again = slip_of(slips, "the land that counts"), slip_of(slips, "every hole again")
    lip, read = fact(land, "the lip stands"), fact(land, "read on the flat")
    assert land.asked[0].right == pytest.approx(read + lip)
    row = next(one for one in again.pictures if isinstance(one, HolesPicture))
    assert row.least_m is not None
    assert row.greatest_m is not None
    on_the_lip = [hole.value_m + lip for hole in row.holes if hole.value_m is not None]
    out = sum(not row.least_m <= value <= row.greatest_m for value in on_the_lip)
    assert (again.asked[0].right, len(on_the_lip)) == (out, 6)
    # On the flat one hole alone reads out: the low one.
    low = [hole for hole in row.holes if hole.value_m is not None and hole.value_m < row.least_m]
    assert [hole.value_m for hole in low] == [pytest.approx(read)]
    assert [hole.state for hole in row.holes].count("out") == 1


@pytest.mark.parametrize("seed", SEEDS)
def test_the_explorer_shows_for_the_case_what_is_right_for_it(seed: int) -> None:
    truth: Any = HOT_FIT.truth(seed)
    sheet = HOT_FIT.position(truth, ()).pictures[-1]
    assert isinstance(sheet, FactsPicture)
    look = {"block": float(truth.block_c), "liner": float(truth.liner_c), "fit": fact(sheet, "iron sleeve"),
            "press": fact(sheet, "press cold"), "stands": fact(sheet, "it stands on a seat")}  # fmt: skip
    now = HOT_FIT.position(truth, [Move("look", look)])
    assert values(now.said[-1]) == pytest.approx([truth.press_hot_m, truth.sinks_m])
    plot = now.pictures[0]
    assert isinstance(plot, PlotPicture)
    assert plot.spots[0].y == pytest.approx(truth.press_hot_m)
    height = next(line for line in plot.lines if line.name.startswith("height"))
    # The block runs along the axis, the sleeve as much warmer as was set: straight lines, so any two points tell.
    slope = (height.ys[-1] - height.ys[0]) / (height.xs[-1] - height.xs[0])
    assert height.ys[0] + slope * (truth.block_c - height.xs[0]) == pytest.approx(truth.sinks_m)


@pytest.mark.parametrize("seed", SEEDS)
def test_the_low_liner_adds_up_from_its_parts(seed: int) -> None:
    """Flange over 8.9 mm and ledge under it are what stands on the lip, by definition; within its noise."""
    truth = DETECTIVE.truth(seed)
    where = {"hole": str(truth.low)}
    lip = Move("read", {**where, "land": "inner lip", "clamp": "to the card"})
    said = DETECTIVE.position(truth, [Move("ledge", where), Move("flange", where), lip]).said
    ledge, flange, read = (values(phrase)[0] for phrase in said)
    assert ledge + flange == pytest.approx(read, abs=NOISE_M)


@pytest.mark.parametrize("seed", SEEDS)
def test_feelers_bring_the_bar_to_the_middle_and_pits_do_not(seed: int) -> None:
    truth = CENTRE.truth(seed)
    gaps = values(CENTRE.position(truth, [Move("feelers")]).said[-1])
    x, y, _, uneven = offset_of_bar(gaps)
    assert uneven == pytest.approx(0.0, abs=1e-9)
    shifted = Move("shift", {"along": -x, "across": -y})
    assert values(CENTRE.position(truth, [shifted, Move("feelers")]).said[-1]) == pytest.approx([gaps[0] + x] * 4)
    off = [
        values(CENTRE.position(truth, [shifted, Move("indicator", {"at": str(angle)})]).said[-1])[0]
        for angle in range(0, 360, 45)
    ]
    assert sorted(off)[:5] == pytest.approx([0.0] * 5, abs=1e-9)
    assert min(sorted(off)[5:]) > 150e-6


@pytest.mark.parametrize("seed", SEEDS)
def test_the_ledge_to_cut_and_the_bed_to_shim_stand_on_their_sheets(seed: int) -> None:
    cutter, press = CUTTER.truth(seed), PRESSING.truth(seed)
    sheet = CUTTER.position(cutter, ()).pictures[-1]
    assert isinstance(sheet, FactsPicture)
    to_cut = fact(sheet, "flange") + fact(sheet, "shim") - fact(sheet, "to stand proud") - fact(sheet, "ledge under")
    assert to_cut == pytest.approx(cutter.to_cut_nm * 1e-9)
    bed = PRESSING.position(press, [Move("look")]).pictures[-1]
    assert isinstance(bed, FactsPicture)
    square = {"along": -fact(bed, "bed, along"), "across": -fact(bed, "bed, across")}
    after = PRESSING.position(press, [Move("look"), Move("shim", square)]).pictures[-1]
    assert isinstance(after, FactsPicture)
    assert (fact(after, "bed, along"), fact(after, "bed, across")) == pytest.approx((0.0, 0.0))
