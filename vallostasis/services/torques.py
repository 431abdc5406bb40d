"""Reading torques as typed."""

import re
from decimal import Decimal, InvalidOperation

from vallostasis.core.notation.lengths import NM_PER_LBF_FT
from vallostasis.services.refused import Refused

MOST_NM = Decimal(10_000)
_NEWTON_METRES = re.compile(r"^(.*?)\s*(?:n\s*[·.*]?\s*m)$")
_POUND_FEET = re.compile(r"^(.*?)\s*(?:(?:lbf?|ft)\s*[·.*-]?\s*(?:ft|lbf?)|lbs?\s*ft|ft\s*lbs?)$")


def read_torque(text: str, field: str) -> Decimal | None:
    """Read a torque as typed: 70, 70 N·m, 52 lbf·ft; a bare number is N·m. None where nothing is typed. [N·m]"""
    words = text.strip().casefold().replace(",", ".")
    if not words:
        return None
    newton_metres, pound_feet = _NEWTON_METRES.match(words), _POUND_FEET.match(words)
    number = (pound_feet or newton_metres).group(1) if pound_feet or newton_metres else words  # type: ignore[union-attr]
    try:
        value = Decimal(number.strip())
    except InvalidOperation:
        raise Refused("A torque is a number such as 70 N·m, or 52 lbf·ft.", field) from None
    torque = round(value * Decimal(repr(NM_PER_LBF_FT)), 2) if pound_feet else value
    if not torque.is_finite() or not 0 <= torque <= MOST_NM:
        raise Refused(f"Nothing here is tightened so: type a torque between 0 and {MOST_NM} N·m.", field)
    return round(torque, 2)
