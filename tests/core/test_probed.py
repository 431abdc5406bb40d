"""Bore centres from a probe against a block whose truth is known in closed form."""

import numpy as np
import pytest

from vallostasis.core.bores.probed import probed_block, read_back, written
from vallostasis.core.errors import OutOfDomain

PITCH = 0.12


def turned(points: np.ndarray, askew: float) -> np.ndarray:
    """The block as it lies on the table: leaned about y by an angle. Closed form."""
    c, s = np.cos(askew), np.sin(askew)
    return points @ np.array([[c, 0, s], [0, 1, 0], [-s, 0, c]]).T


def bore(x: float, y: float, lean: tuple[float, float]) -> np.ndarray:
    turns = np.arange(8) * np.pi / 4
    rings = [np.column_stack([x + lean[0] * z + 0.05 * np.cos(turns), y + lean[1] * z + 0.05 * np.sin(turns),
                              np.full(8, z)]) for z in (0.02, 0.07, 0.12)]  # fmt: skip
    return np.vstack(rings)


@pytest.mark.parametrize("askew", [0.0, 0.02, -0.05])
def test_shift_distance_and_lean_come_out_whatever_way_the_block_lies(askew: float) -> None:
    deck = np.array([[x, y, 0.0] for x in (-0.1, 0.15, 0.4) for y in (-0.08, 0.08)])
    # The second core has wandered by 30 µm across: laid on by least squares it shows 2/3 of that, the others 1/6 each,
    # so that the mean is nought and the row is not turned.
    bores = {1: bore(0, 0, (0, 0)), 2: bore(PITCH, 30e-6, (1e-4, 0)), 3: bore(2 * PITCH, 0, (0, -2e-4))}
    found = probed_block(
        turned(deck, askew), {hole: turned(one, askew) for hole, one in bores.items()}, [(1, 2, 3)], PITCH
    )
    assert found.deck_flat_m == pytest.approx(0, abs=1e-12)
    assert [abs(one.shift_y_m) for one in found.bores] == pytest.approx([10e-6, 20e-6, 10e-6], abs=5e-9)
    assert [one.shift_x_m for one in found.bores] == pytest.approx([0, 0, 0], abs=5e-9)
    assert [one.lean for one in found.bores] == pytest.approx([0, 1e-4, 2e-4], abs=1e-8)
    assert [one.diameter_m for one in found.bores] == pytest.approx([0.1] * 3, abs=2e-8)
    assert [one.holes for one in found.distances] == [(1, 2), (2, 3)]
    assert [one.off_m for one in found.distances] == pytest.approx([3.75e-9] * 2, abs=2e-9)


def test_what_is_written_is_read_back_part_by_part() -> None:
    points = np.array([[0, 0, 0], [0.1, 0, 0], [0, 0.1, 1e-6], [0.05, 0, 0.02]])
    deck, bores = read_back(written([0, 0, 0, 2], points))
    assert deck == pytest.approx(points[:3], abs=1e-12)
    assert bores[2] == pytest.approx(points[3:], abs=1e-12)
    with pytest.raises(OutOfDomain, match="no points"):
        read_back("[1, 2]")


@pytest.mark.parametrize(
    ("deck", "words"),
    [([[0, 0, 0], [1, 0, 0]], "three points"), ([[0, 0, 0], [0.1, 0, 0], [0.2, 0, 0]], "on a line")],
)
def test_a_deck_that_is_no_plane_is_refused(deck: list[list[float]], words: str) -> None:
    with pytest.raises(OutOfDomain, match=words):
        probed_block(np.array(deck, dtype=float), {}, [(1,)], PITCH)


def test_a_bore_with_too_few_points_is_refused() -> None:
    deck = np.array([[0, 0, 0], [0.1, 0, 0], [0, 0.1, 0]], dtype=float)
    with pytest.raises(OutOfDomain, match="bore 1 takes six"):
        probed_block(deck, {1: bore(0, 0, (0, 0))[:5]}, [(1,)], PITCH)
