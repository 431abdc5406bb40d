"""Clock positions on the deck, seen from above with the front of the engine to the left."""

from collections.abc import Iterable

from vallostasis.core.errors import OutOfDomain


def turned(angle_deg: float, period_deg: float) -> float:
    """An angle brought into [0, period): the remainder of a tiny negative float is the period itself. [deg]"""
    left = angle_deg % period_deg
    return 0.0 if left >= period_deg else left


def angle_of_hour(hour: float) -> float:
    """Angle of a clock position, clockwise from the front of the engine.

    Parameters
    ----------
    hour : float
        Clock position, above 0 up to 12. [h]

    Returns
    -------
    float
        Angle from 0 (9 h, the front) up to 360. [deg]

    Raises
    ------
    OutOfDomain
        If the clock has no such position.

    Notes
    -----
    θ = 30°·(h − 9): 9 h is the front, 12 h and 3 h follow clockwise. House convention.
    """
    if not 0 < hour <= 12:
        raise OutOfDomain(f"a clock position is above 0 and up to 12 h, it is {hour:g}", "hour")
    return (30.0 * (hour - 9.0)) % 360.0


def hour_of_angle(angle_deg: float) -> float:
    """Clock position of an angle counted clockwise from the front; the mirror of angle_of_hour. [h]

    House convention.
    """
    hour = (angle_deg / 30.0 + 9.0) % 12.0
    return hour if hour > 0 else 12.0


def hour_name(hour: float) -> str:
    """Name a clock position the way it is typed, such as ``6h`` or ``10.5h``."""
    return f"{hour:g}h"


def hour_names(hours: Iterable[float]) -> str:
    """Name clock positions one after the other, such as ``6h, 9h``."""
    return ", ".join(hour_name(hour) for hour in hours)
