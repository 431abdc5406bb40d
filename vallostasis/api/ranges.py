"""What numbers a script may send: ranges of the trade, and the unit that a number far outside seems to be in."""

from collections.abc import Callable
from typing import Annotated

from pydantic import AfterValidator, Field
from pydantic.fields import FieldInfo

# How many metres one of each is. Exact: 1 in = 25.4 mm (1959).
_UNITS = {"mm": 1e-3, "inches": 25.4e-3, "thou": 25.4e-6, "µm": 1e-6}
_FULL_TURN_RAD = 6.2832


def _within(least: float, greatest: float, what: str) -> Callable[[float], float]:
    def check(value: float) -> float:
        if least <= value <= greatest:
            return value
        meant = [f"{value * size:.6g} for {unit}" for unit, size in _UNITS.items() if least <= value * size <= greatest]
        hint = f" Send metres: {' or '.join(meant)}." if meant else ""
        raise ValueError(f"{what} is between {least:g} and {greatest:g} m, this is {value:g}.{hint}")

    return check


def _shown(least: float, greatest: float) -> FieldInfo:
    info: FieldInfo = Field(
        allow_inf_nan=False, description="[m]", json_schema_extra={"minimum": least, "maximum": greatest}
    )
    return info


# What stands proud of a face or is left to a limit.
Small = Annotated[float, _shown(-5e-3, 5e-3), AfterValidator(_within(-5e-3, 5e-3, "A small length like protrusion"))]
NotNegativeSmall = Annotated[float, _shown(0, 5e-3), AfterValidator(_within(0, 5e-3, "A cut or an accuracy"))]
Uncertainty = Annotated[float, _shown(0, 1e-3), AfterValidator(_within(0, 1e-3, "A standard uncertainty"))]
Depth = Annotated[float, _shown(1e-5, 0.3), AfterValidator(_within(1e-5, 0.3, "A depth below the deck or a flange"))]
Between = Annotated[float, _shown(0, 0.05), AfterValidator(_within(0, 0.05, "A spacer or gasket"))]
Shim = Annotated[float, _shown(1e-6, 0.02), AfterValidator(_within(1e-6, 0.02, "The thickness of a shim"))]
Size = Annotated[float, _shown(1e-3, 3), AfterValidator(_within(1e-3, 3, "A diameter or the size of a master"))]
Reading = Annotated[float, _shown(-3, 3), AfterValidator(_within(-3, 3, "A reading round a circle"))]


def _degrees(angles: list[float]) -> list[float]:
    if len(angles) > 2 and 1 < max(angles) - min(angles) <= _FULL_TURN_RAD and min(angles) >= -_FULL_TURN_RAD:
        raise ValueError("These angles all lie within seven degrees: they seem to be in radians. Send degrees.")
    return angles


Angle = Annotated[float, Field(allow_inf_nan=False, ge=-3600, le=3600)]
Angles = Annotated[list[Angle], Field(max_length=360), AfterValidator(_degrees)]
# So many at most of what belongs to one part.
FEW = Field(max_length=360)
