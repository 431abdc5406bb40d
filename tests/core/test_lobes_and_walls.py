"""Lobes, filters, clean-up and walls left against closed forms and the trade's own sums."""

import numpy as np
import pytest

from vallostasis.core.bores.clean_up import clean_up, smallest_step, touching_weights
from vallostasis.core.bores.wall_left import rebores_left, wall_left
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.shapes.lobes import distortion_of, even_profile, filtered, lobes_of

TURNS = np.arange(3600) * 2 * np.pi / 3600
THOU = 25.4e-6


def test_lobes_come_out_as_they_went_in():
    # Definition of the Fourier series.
    shape = 0.05 + 7e-6 * np.cos(2 * (TURNS - 0.4)) + 3e-6 * np.cos(5 * (TURNS - 1.1)) + 9e-6 * np.cos(TURNS)
    told = {lobe.order: lobe for lobe in lobes_of(shape)}
    assert 1 not in told
    assert told[2].amplitude_m == pytest.approx(7e-6, abs=1e-12)
    assert told[2].direction_deg == pytest.approx(np.degrees(0.4), abs=1e-6)
    assert told[5].amplitude_m == pytest.approx(3e-6, abs=1e-12)
    assert told[5].direction_deg == pytest.approx(np.degrees(1.1), abs=1e-6)
    assert told[3].amplitude_m < 1e-12


def test_the_filter_passes_half_at_its_cut_off():
    # ISO 16610-21: transmission of one half at the cut-off, exp(-ln2·4) at twice it.
    for order, passes in ((15, 0.5), (30, 0.5**4), (5, 0.5 ** (1 / 9))):
        through = filtered(1e-6 * np.cos(order * TURNS), 15)
        assert np.ptp(through) / 2e-6 == pytest.approx(passes, rel=1e-6)


def test_a_profile_of_several_turns_is_read_off_evenly():
    angles = np.concatenate([np.arange(0, 360, 7.5), np.arange(0, 360, 7.5) + 360])
    even = even_profile(angles, 0.05 + 2e-6 * np.cos(2 * np.radians(angles)), 720)
    assert lobes_of(even)[0].amplitude_m == pytest.approx(2e-6, rel=0.01)
    with pytest.raises(OutOfDomain, match="three different angles"):
        even_profile([0, 360, 180], [1, 1, 1])


def test_what_a_load_does_leaves_out_size_and_centre():
    angles = np.arange(0, 360, 10.0)
    turns = np.radians(angles)
    free = 0.05 + 1e-6 * np.sin(3 * turns)
    clamped = free - 4e-6 + 5e-6 * np.cos(turns - 0.3) + 2e-6 * np.cos(4 * (turns - 0.2))
    found = distortion_of(angles, free, clamped)
    assert found.size_m == pytest.approx(-8e-6, abs=1e-12)
    assert {lobe.order: round(lobe.amplitude_m * 1e9) for lobe in found.lobes if lobe.amplitude_m > 1e-9} == {4: 2000}
    assert next(one for one in found.lobes if one.order == 4).direction_deg == pytest.approx(np.degrees(0.2), abs=1e-6)
    # The order in which places were read is none of its business.
    mixed = np.random.default_rng(1).permutation(len(angles))
    again = distortion_of(angles[mixed], free[mixed], clamped[mixed])
    assert again.range_m == pytest.approx(found.range_m, abs=1e-15)
    with pytest.raises(OutOfDomain, match="even steps"):
        distortion_of([0, 80, 180, 240, 300], [1] * 5, [1] * 5)


def one_sided(wear: float) -> np.ndarray:
    radius = (0.1 + wear) / 2
    return np.column_stack([radius * np.cos(TURNS) + wear / 2, radius * np.sin(TURNS)])


def test_wear_on_one_side_needs_twice_as_much_on_the_drawn_centre():
    # Common practice, no published source: 0.20 mm on one side needs +0.40 on the centre, +0.20 with it moved.
    points = one_sided(0.2e-3)
    assert clean_up(points, (0, 0), 0, 0.0).diameter_m == pytest.approx(0.1004, abs=1e-9)
    best = clean_up(points, (0, 0), 0, None)
    assert best.diameter_m == pytest.approx(0.1002, abs=1e-9)
    assert (best.x_m, best.y_m) == pytest.approx((0.1e-3, 0), abs=1e-9)
    held = clean_up(points, (0, 0), 10e-6, 0.04e-3)
    assert held.diameter_m == pytest.approx(0.1004 - 2 * 0.04e-3 + 2 * 10e-6, abs=1e-9)
    assert smallest_step(0.1, [0.25e-3, 0.5e-3], held.diameter_m) == pytest.approx(0.5e-3)
    assert smallest_step(0.1, [0.25e-3], held.diameter_m) is None


@pytest.mark.parametrize("move", [0.0, 20e-6, None])
def test_weights_of_what_is_touched_are_the_slope_of_the_radius(move):
    rng = np.random.default_rng(4)
    turns = np.radians(np.arange(0, 360, 30.0))
    radius = 0.05 + 60e-6 * np.cos(turns - 0.7) + rng.normal(0, 15e-6, 12)
    points = np.column_stack([radius * np.cos(turns), radius * np.sin(turns)])
    found = clean_up(points, (0, 0), 0, move)
    weights = touching_weights(points, found.x_m, found.y_m, move)
    assert sum(weights.values()) == pytest.approx(1)
    for at in range(12):
        grown = points.copy()
        grown[at] *= 1 + 5e-9 / radius[at]
        slope = (clean_up(grown, (0, 0), 0, move).diameter_m - found.diameter_m) / 2 / 5e-9
        assert slope == pytest.approx(weights.get(at, 0.0), abs=2e-3)


def test_walls_are_a_side_and_wear_is_on_the_diameter():
    # Common practice, no published source: 50 thou a re-bore, 150 in all, is three re-bores.
    walls = [0.300 * 0.0254, 0.280 * 0.0254, 0.290 * 0.0254, 0.310 * 0.0254]
    left = wall_left(walls, [0, 90, 180, 270], 50 * THOU)
    assert left.at == 1
    assert left.least_m == pytest.approx(0.255 * 0.0254)
    assert rebores_left(0.280 * 0.0254, 0.205 * 0.0254, 50 * THOU) == 3
    assert rebores_left(0.279 * 0.0254, 0.205 * 0.0254, 50 * THOU) == 2
    assert rebores_left(0.1 * 0.0254, 0.205 * 0.0254, 50 * THOU) == 0
    # A centre that moves by 4 towards 90° takes 4 from that wall and gives 4 to the other.
    moved = wall_left(walls, [0, 90, 180, 270], 0, 4 * THOU, 90)
    assert (moved.walls_m - np.array(walls)) / THOU == pytest.approx([0, -4, 0, 4], abs=1e-9)
    with pytest.raises(OutOfDomain, match="above nought"):
        rebores_left(1, 0.5, 0)
    with pytest.raises(OutOfDomain, match="one place"):
        wall_left([], [], 0)
