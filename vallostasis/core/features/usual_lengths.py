"""What a length of each kind usually is in this trade: outside it a slip of unit, point or sign is asked about.

All ranges are common practice, no published source. [µm]
"""

from dataclasses import replace
from decimal import Decimal

from vallostasis.core.errors import NotationError, Suggestion
from vallostasis.core.features.catalogue import feature_of
from vallostasis.core.notation.lengths import Unit
from vallostasis.core.notation.typed_lengths import ExpectedRange, ParsedLength, likelier_readings
from vallostasis.core.records.rows import Quantity

GAUGE_STEP = ExpectedRange(Decimal("0.1"), Decimal(1_000))
REPEATABILITY = ExpectedRange(Decimal(0), Decimal(500))
TIP_RADIUS = ExpectedRange(Decimal(50), Decimal(20_000))
MASTER_SIZE = ExpectedRange(Decimal(1_000), Decimal(2_000_000))
MASTER_EXPANDED = ExpectedRange(Decimal(0), Decimal(50))
STUDIED_WINDOW = ExpectedRange(Decimal(2), Decimal(2_000))
SHIM = ExpectedRange(Decimal(10), Decimal(6_000))
CUT_DEPTH = ExpectedRange(Decimal(300), Decimal(60_000))
ZERO_MOVED = ExpectedRange(Decimal(-500), Decimal(500))
# Where the card says nothing: proud or sunk, and small things such as gaps, steps and flatness.
PROTRUSION = ExpectedRange(Decimal(-1_000), Decimal(2_000))
SMALL_THING = ExpectedRange(Decimal(-3_000), Decimal(5_000))
# A diameter of the hole's own parts lies between these shares of the bore.
_OF_BORE = (Decimal("0.5"), Decimal("1.5"))


def usual_of(quantity: Quantity, bore_um: Decimal) -> ExpectedRange | None:
    """Return what a feature usually measures where its card gives no size; None where nothing is usual. [µm]

    Common practice, no published source.
    """
    if quantity is Quantity.TRIAL_FIT:
        return None
    if quantity is Quantity.PROTRUSION:
        return PROTRUSION
    if not feature_of(quantity).is_size:
        return SMALL_THING
    if feature_of(quantity).is_diameter and quantity is not Quantity.MAIN_BORE:
        return ExpectedRange(bore_um * _OF_BORE[0], bore_um * _OF_BORE[1])
    return None


def ask_if_below_step(parsed: ParsedLength, step_um: Decimal, usual: ExpectedRange | None) -> None:
    """Ask about a reading that is not nought and smaller than half a step of its gauge.

    Parameters
    ----------
    parsed : ParsedLength
        The deviation as typed. [µm]
    step_um : Decimal
        One step of the gauge; half of it can be read between two graduations. [µm]
    usual : ExpectedRange or None
        What the field takes. [µm]

    Raises
    ------
    NotationError
        Asking with the readings of the same digits that the gauge can show.

    Notes
    -----
    Common practice, no published source: 0.0035 in a field of thou is an inch typed as a thou.
    """
    if not 0 < abs(parsed.value_um) < step_um / 2:
        return
    likelier = [text for text, value_um in likelier_readings(parsed, usual or PROTRUSION) if abs(value_um) >= step_um]
    raise NotationError(
        f"{parsed.number} {parsed.unit} is less than this gauge can show, {step_um.normalize():f} µm "
        f"({(step_um / Decimal('25.4')):.2f} thou) a step: "
        "did you mean one of these?",
        parsed.typed,
        (*(Suggestion(text, text) for text in likelier),
         Suggestion(f"{parsed.number} {parsed.unit}, as typed", parsed.typed, confirm=True)),
    )  # fmt: skip


# So near to the size a gauge was zeroed on, and with so many decimals, a number is a size and no deviation. [µm]
_NEAR_ZERO_UM = Decimal(3_000)
_SIZE_OF: dict[Unit, tuple[Unit, int]] = {"thou": ("inch", 3), "0.01 mm": ("mm", 2), "µm": ("mm", 2)}


def whole_size_of(parsed: ParsedLength, zero_um: Decimal) -> ParsedLength | None:
    """Return the deviation from ``zero_um`` that a whole size means which was typed in its place, or None. [µm]

    Parameters
    ----------
    parsed : ParsedLength
        What was typed, read as a deviation. [µm]
    zero_um : Decimal
        The size that the gauge was zeroed on. [µm]

    Returns
    -------
    ParsedLength or None
        The size's number and unit, with the deviation as its value. [µm]

    Raises
    ------
    NotationError
        Asking, where few decimals leave open which of the two it is.

    Notes
    -----
    5.0003 on a ring of 5.000 in is a size; 5 may be five thou over it. Common practice, no published source.
    """
    if zero_um <= 0:
        return None
    if parsed.unit_was_typed:
        is_size = parsed.unit in ("inch", "mm") and abs(parsed.value_um - zero_um) <= _NEAR_ZERO_UM
        return replace(parsed, value_um=parsed.value_um - zero_um) if is_size else None
    unit, decimals = _SIZE_OF.get(parsed.unit, ("mm", 2))
    size = parsed.in_unit(unit)
    if abs(size.value_um - zero_um) > _NEAR_ZERO_UM:
        return None
    exponent = parsed.number.as_tuple().exponent
    if isinstance(exponent, int) and -exponent >= decimals:
        return replace(size, value_um=size.value_um - zero_um)
    bare = "hundredths of a mm" if parsed.unit == "0.01 mm" else parsed.unit
    offered = f"{parsed.number / 100} mm" if parsed.unit == "0.01 mm" else f"{parsed.number} {parsed.unit}"
    raise NotationError(
        f"Is {parsed.typed} the whole size, or {parsed.number} {bare} off the size the gauge was zeroed on?",
        parsed.typed,
        (Suggestion(f"the size {parsed.number} {unit}", f"{parsed.number} {unit}"),
         Suggestion(f"{parsed.number} {bare} off it", offered)),
    )  # fmt: skip
