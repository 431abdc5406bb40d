"""Reading temperatures as typed."""

from decimal import Decimal, InvalidOperation

from vallostasis.services.refused import Refused

COLDEST_C, HOTTEST_C = Decimal(-200), Decimal(400)


def read_temperature(text: str) -> Decimal:
    """Read a temperature as typed: 21.5, 21.5 C, 70 F. [°C]"""
    words = text.strip().replace("°", "").replace(",", ".")
    number, unit = (words[:-1], words[-1:].upper()) if words[-1:].upper() in ("C", "F") else (words, "C")
    try:
        value = Decimal(number.strip())
    except InvalidOperation:
        raise Refused("A temperature is a number such as 21.5, or 70 F.", "text") from None
    celsius = value if unit == "C" else round((value - 32) * 5 / 9, 2)
    if not value.is_finite() or not COLDEST_C <= celsius <= HOTTEST_C:
        raise Refused(f"No part here is that warm: type it between {COLDEST_C} and {HOTTEST_C} °C.", "text")
    return celsius
