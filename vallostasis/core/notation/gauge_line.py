"""One line as a gauge sends it: read by an editable pattern, with its own unit.

A pattern is plain text with ``{value}`` where the number stands and, where the gauge sends one,
``{unit}``; everything else is taken literally, spaces in any number. ``01A{value}`` reads
``01A+0.032``, ``{value} {unit}`` reads ``-1.25 thou``.
"""

import re
from dataclasses import dataclass
from decimal import Decimal
from typing import get_args

from vallostasis.core.errors import NotationError
from vallostasis.core.notation.lengths import MICROMETRES_PER, Unit

LONGEST_LINE = 120
LONGEST_PATTERN = 60
_NUMBER = r"(?P<value>[+-]?\s*[0-9]{1,9}(?:[.,][0-9]{1,9})?)"
_UNIT = r"(?P<unit>[A-Za-zµ\"]{1,12})"
_UNITS: dict[str, Unit] = {
    "mm": "mm", "um": "µm", "µm": "µm", "in": "inch", "inch": "inch", '"': "inch", "thou": "thou",
}  # fmt: skip
GAUGE_UNITS: tuple[Unit, ...] = tuple(unit for unit in get_args(Unit) if unit not in ("tenth", "0.01 mm"))


@dataclass(frozen=True, slots=True)
class GaugeValue:
    """What a gauge says: exact value [µm] and the text to keep with the reading."""

    value_um: Decimal
    text: str
    unit: Unit


class WrongUnit(NotationError):
    """The gauge sends another unit than it is set up for."""


def compile_pattern(pattern: str) -> re.Pattern[str]:
    """Turn a line pattern into what reads lines by it.

    Raises
    ------
    NotationError
        If the pattern has no ``{value}``, more than one, or braces that mean nothing.
    """
    text = pattern.strip()
    if not text or len(text) > LONGEST_PATTERN:
        raise NotationError(f"A line pattern has up to {LONGEST_PATTERN} characters, such as {{value}} {{unit}}.")
    parts = re.split(r"(\{value\}|\{unit\}|\s+)", text)
    if parts.count("{value}") != 1 or parts.count("{unit}") > 1:
        raise NotationError("A line pattern holds {value} once, and {unit} at most once.", text)
    if any("{" in part or "}" in part for part in parts if part not in ("{value}", "{unit}")):
        raise NotationError("Braces stand only in {value} and {unit}.", text)
    named = {"{value}": _NUMBER, "{unit}": _UNIT}
    body = "".join(named.get(part, r"\s*" if part.isspace() else re.escape(part)) for part in parts)
    return re.compile(rf"\s*{body}\s*")


def read_gauge_line(line: str, pattern: re.Pattern[str], unit: Unit) -> GaugeValue:
    """Read one line of a gauge.

    Parameters
    ----------
    line : str
        The line without its end.
    pattern : re.Pattern
        From compile_pattern.
    unit : str
        Unit the gauge is set up for; it holds where the line names none.

    Returns
    -------
    GaugeValue
        Exact value [µm], positive when proud, and the text with its unit.

    Raises
    ------
    WrongUnit
        If the line names another unit: somebody pressed the unit key.
    NotationError
        If the line does not fit the pattern.

    Notes
    -----
    1 in = 25.4 mm by definition.
    """
    match = pattern.fullmatch(line) if len(line) <= LONGEST_LINE else None
    if match is None:
        raise NotationError(f"The gauge sent “{line[:LONGEST_PATTERN]}”, which does not fit its line pattern.", line)
    said = match.groupdict().get("unit")
    sent = unit if said is None else _UNITS.get(said.lower())
    if sent is None:
        raise NotationError(f"The gauge sent the unit “{said}”, which is not known here.", said or "")
    if sent != unit:
        raise WrongUnit(f"The gauge sends {sent}, it is set up for {unit}: press its unit key, or set it up anew.")
    number = Decimal(re.sub(r"\s", "", match["value"]).replace(",", "."))
    value_um = Decimal(format((number * MICROMETRES_PER[unit]).normalize(), "f"))
    return GaugeValue(value_um, f"{number:+f} {unit}", unit)


@dataclass(frozen=True, slots=True)
class ThermometerValue:
    """What a thermometer says: exact value [°C] and the text to keep."""

    celsius: Decimal
    text: str


def read_thermometer_line(line: str, pattern: re.Pattern[str]) -> ThermometerValue:
    """Read one line of a thermometer set to °C.

    Raises
    ------
    WrongUnit
        If the line names another unit: somebody pressed the unit key.
    NotationError
        If the line does not fit the pattern.
    """
    match = pattern.fullmatch(line.replace("°", "")) if len(line) <= LONGEST_LINE else None
    if match is None:
        raise NotationError(f"The thermometer sent “{line[:LONGEST_PATTERN]}”, which does not fit its pattern.", line)
    said = match.groupdict().get("unit")
    if said is not None and said.upper() != "C":
        raise WrongUnit(f"The thermometer sends °{said.upper()}, it is set up for °C: press its unit key.")
    number = Decimal(re.sub(r"\s", "", match["value"]).replace(",", "."))
    return ThermometerValue(number, f"{number:f} C")
