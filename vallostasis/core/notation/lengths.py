"""Lengths: units, exact conversion, and writing them so that none is rounded across a limit."""

from decimal import ROUND_CEILING, ROUND_HALF_UP, Decimal
from typing import Literal

from vallostasis.core.errors import OutOfDomain, require_finite

Unit = Literal["thou", "tenth", "inch", "mm", "0.01 mm", "µm"]

# Exact by definition: 1 in = 25.4 mm (international yard and pound agreement, 1959).
MICROMETRES_PER: dict[Unit, Decimal] = {
    "thou": Decimal("25.4"),
    "tenth": Decimal("2.54"),
    "inch": Decimal(25400),
    "mm": Decimal(1000),
    "0.01 mm": Decimal(10),
    "µm": Decimal(1),
}
METRIC_UNITS: tuple[Unit, ...] = ("mm", "0.01 mm", "µm")

_DIGITS: dict[Unit, int] = {"thou": 1, "tenth": 0, "inch": 4, "mm": 3, "0.01 mm": 1, "µm": 0}


def format_length(
    value_m: float | Decimal,
    unit: Unit,
    digits: int | None = None,
    signed: bool = True,
    limits_m: tuple[float, ...] = (),
) -> str:
    """Write a length so that it is never rounded across a limit.

    Parameters
    ----------
    value_m : float or Decimal
        The length. [m]
    unit : str
        Unit to show it in.
    digits : int, optional
        Decimals; by default thou to a tenth, µm to 1, mm to 3, inch to 4.
    signed : bool
        Show a plus sign.
    limits_m : tuple of float
        Limits that the shown number must stand on the same side of. [m]

    Returns
    -------
    str
        The number without its unit, with more digits where rounding would cross a limit.

    Raises
    ------
    OutOfDomain
        If the value is not finite.

    Notes
    -----
    1 in = 25.4 mm exactly (1959); never across a limit is a house rule.
    """
    require_finite(value_m=float(value_m))
    size = MICROMETRES_PER[unit]
    exact = Decimal(repr(float(value_m))) if isinstance(value_m, float) else value_m
    number = exact * 1_000_000 / size
    digits = _DIGITS[unit] if digits is None else digits
    for extra in range(4):
        shown = number.quantize(Decimal(1).scaleb(-digits - extra), ROUND_HALF_UP)
        if all(_same_side(number, shown, Decimal(repr(limit)) * 1_000_000 / size) for limit in limits_m):
            break
    text = format(shown, "f")
    if shown == 0:
        text = text.lstrip("-")
    return f"+{text}" if signed and shown > 0 else text


def format_uncertainty(expanded_m: float, unit: Unit) -> str:
    """Write an expanded uncertainty [m] in a unit, rounded up: it must never look smaller than it is.

    Raises
    ------
    OutOfDomain
        If the value is not finite.

    Rounded up: GUM 7.2.6.
    """
    require_finite(expanded_m=expanded_m)
    number = Decimal(repr(expanded_m)) * 1_000_000 / MICROMETRES_PER[unit]
    # Float noise a million times below the last digit shown is no reason to round up.
    step = Decimal(1).scaleb(-_DIGITS[unit])
    return format((number - step * Decimal("1e-6")).quantize(step, ROUND_CEILING), "f")


def _same_side(exact: Decimal, shown: Decimal, limit: Decimal) -> bool:
    # Limits and sums carry float noise far below a picometre; that is no crossing.
    if abs(exact - limit) < Decimal("1e-9"):
        return True
    return (exact < limit) == (shown < limit) and (exact > limit) == (shown > limit)


def metres(value_um: Decimal) -> float:
    """Convert an exact length [µm] to the core's float [m]. SI prefix, by definition."""
    return float(value_um) / 1e6


def micrometres(value_m: float, digits: int = 4) -> Decimal:
    """Convert a float [m] to a decimal [µm], rounded far below any gauge's resolution.

    Raises
    ------
    OutOfDomain
        If the value is not finite.

    SI prefix, by definition.
    """
    if not abs(value_m) < float("inf"):
        raise OutOfDomain(f"length must be finite, it is {value_m}", "value_m")
    return round(Decimal(repr(value_m)) * 1_000_000, digits)


def both_small(value_um: Decimal) -> str:
    """Write a small length in both of the shop's units: 53 µm (2.1 thou). By definition of the units."""
    value_m = metres(value_um)
    return f"{format_length(value_m, 'µm', signed=False)} µm ({format_length(value_m, 'thou', signed=False)} thou)"


def both_size(value_um: Decimal) -> str:
    """Write a size in both of the shop's units: 8.900 mm (0.3504 in). By definition of the units."""
    value_m = metres(value_um)
    return f"{format_length(value_m, 'mm', signed=False)} mm ({format_length(value_m, 'inch', signed=False)} in)"


def both_depth(depth_um: Decimal) -> str:
    """Write where something lies in both of the shop's units, no finer than it was set: 63.5 mm (2.5 in).

    By definition of the units.
    """
    inches = format(round(depth_um / 25_400, 3), "f")
    return f"{depth_um / 1000:f} mm ({inches.rstrip('0').rstrip('.') if '.' in inches else inches} in)"


# The pound-force is 4.4482216152605 N, the foot 0.3048 m, both exact by definition.
NM_PER_LBF_FT = 4.4482216152605 * 0.3048


def both_torques(torque_nm: float) -> str:
    """Write a torque in both units: 70 N·m (52 lbf·ft). By definition of the units."""
    return f"{torque_nm:g} N·m ({torque_nm / NM_PER_LBF_FT:.0f} lbf·ft)"


def both_temperatures(celsius: float) -> str:
    """Write a temperature in both scales: 21.5 °C (71 °F). By definition of the scales."""
    return f"{celsius:g} °C ({celsius * 9 / 5 + 32:.0f} °F)"
