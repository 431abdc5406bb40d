"""Reading temperatures as typed."""

from decimal import Decimal, InvalidOperation

from vallostasis.core.errors import Suggestion
from vallostasis.services.refused import RefusalCode, Refused

COLDEST_C, HOTTEST_C = Decimal(-200), Decimal(400)
# Where parts are measured it is so warm; common practice, no published source.
USUAL_C = (Decimal(-10), Decimal(50))


def read_temperature(text: str, field: str = "text", confirmed: bool = True) -> Decimal:
    """Read a temperature as typed: 21.5, 21.5 C, 70 F. Asks where it is unlikely while measuring. [°C]"""
    words = text.strip().replace("°", "").replace(",", ".").replace("−", "-")
    unit = words[-1:].upper() if words[-1:].upper() in ("C", "F") else ""
    number = words.removesuffix(words[-1:]) if unit else words
    try:
        value = Decimal(number.strip())
    except InvalidOperation:
        raise Refused("A temperature is a number such as 21.5, or 70 F.", field) from None
    celsius = _celsius(value) if unit == "F" else value
    if not value.is_finite() or not COLDEST_C <= celsius <= HOTTEST_C:
        raise Refused(f"No part here is that warm: type it between {COLDEST_C} and {HOTTEST_C} °C.", field)
    if not confirmed and not USUAL_C[0] <= celsius <= USUAL_C[1]:
        _ask(value, unit, celsius, field)
    return celsius


def _celsius(fahrenheit: Decimal) -> Decimal:
    return round((fahrenheit - 32) * 5 / 9, 2)


def _ask(value: Decimal, unit: str, celsius: Decimal, field: str) -> None:
    offered = []
    if unit != "F" and USUAL_C[0] <= _celsius(value) <= USUAL_C[1]:
        offered.append(Suggestion(f"{value} °F, {_celsius(value):.1f} °C", f"{value} F"))
    if unit == "F" and USUAL_C[0] <= value <= USUAL_C[1]:
        offered.append(Suggestion(f"{value} °C", f"{value} C"))
    offered.append(Suggestion(f"{value} °{unit or 'C'}, as typed", f"{value} {unit or 'C'}", confirm=True))
    raise Refused(
        f"{celsius:f} °C is unlikely where something is measured: is it a slip, or another scale?",
        field,
        RefusalCode.ASKS,
        tuple(offered),
    )
