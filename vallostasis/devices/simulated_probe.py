"""A simulated probe: writes the file that it would after touching deck and bores of a block of a known truth."""

import random
from collections.abc import Mapping
from math import cos, pi, sin

# A probe scatters by so much, and the block lies askew on its table by so much over a length. [µm], [1]
SCATTER_UM = 1.5
ASKEW_X, ASKEW_Y = 0.0021, -0.0013


def probe_file(
    centres_um: Mapping[int, tuple[float, float]], lean: Mapping[int, tuple[float, float]], radius_um: float, seed: int
) -> str:
    """Write a probing as CSV: part (deck, or the number of a bore), x, y, z in mm.

    Parameters
    ----------
    centres_um, lean : mapping
        Where each bore meets the deck [µm], and what its axis moves over a length of depth [1].
    radius_um : float
        Radius of the bores. [µm]
    seed : int
        Where chance begins: the same file every time.
    """
    noise = random.Random(seed)
    rows = ["# simulated probe, millimetres, z down", "part,x,y,z"]

    def touch(part: str, x: float, y: float, z: float) -> None:
        # Small angles: the table carries the block askew.
        seen = (x - ASKEW_X * z, y - ASKEW_Y * z, z + ASKEW_X * x + ASKEW_Y * y)
        rows.append(",".join([part, *(f"{(one + noise.gauss(0, SCATTER_UM)) / 1000:.4f}" for one in seen)]))

    for x, y in centres_um.values():
        for corner in ((-1, -1), (1, -1), (1, 1), (-1, 1)):
            touch("deck", x + corner[0] * radius_um * 1.05, y + corner[1] * radius_um * 1.05, 0.0)
    for hole, (x, y) in centres_um.items():
        for depth in (15_000.0, 60_000.0, 110_000.0):
            for step in range(8):
                turn = step * pi / 4
                touch(str(hole), x + lean[hole][0] * depth + radius_um * cos(turn),
                      y + lean[hole][1] * depth + radius_um * sin(turn), depth)  # fmt: skip
    return "\n".join(rows) + "\n"
