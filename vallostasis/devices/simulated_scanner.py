"""A simulated roundness instrument: writes the file that it would, of a wall known by its hidden truth."""

import random
from collections.abc import Callable, Sequence
from math import cos, radians, sin

# A spindle wanders by less than this between two levels, and its probe scatters by so much. [µm]
OFF_CENTRE_UM = 40.0
SCATTER_UM = 0.25

# Radius of a wall at a depth [µm] and an angle clockwise from the front [rad].
RadiusUm = Callable[[float, float], float]


def scan_file(radius_um: RadiusUm, depths_um: Sequence[float], steps: int, seed: int) -> str:
    """Write a scan as CSV: angle in degrees, level in mm, radius in mm as read about the spindle.

    Parameters
    ----------
    radius_um : callable
        The wall. [µm]
    depths_um : sequence of float
        Levels. [µm]
    steps : int
        Points of one turn.
    seed : int
        Where chance begins: the same file every time.
    """
    noise = random.Random(seed)
    off_x, off_y = (noise.uniform(-OFF_CENTRE_UM, OFF_CENTRE_UM) for _ in range(2))
    lines = ["# simulated roundness instrument, angles clockwise from the front, levels down from the deck",
             "angle_deg,level_mm,radius_mm"]  # fmt: skip
    for depth in depths_um:
        for step in range(steps):
            degrees = step * 360.0 / steps
            angle = radians(degrees)
            read = radius_um(depth, angle) + _along(off_x, off_y, angle) + noise.gauss(0, SCATTER_UM)
            lines.append(f"{degrees:.3f},{depth / 1000:.3f},{read / 1000:.6f}")
    return "\n".join(lines) + "\n"


def _along(x: float, y: float, angle: float) -> float:
    return x * cos(angle) + y * sin(angle)
