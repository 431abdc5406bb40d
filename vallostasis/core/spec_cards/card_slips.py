"""Slips on a card: limits in another unit, with a point slipped or a sign lost. Asked about, never changed.

All ranges are what engines of this trade have: common practice, no published source.
"""

from collections.abc import Iterator
from dataclasses import fields
from decimal import Decimal

from vallostasis.core.notation.lengths import MICROMETRES_PER
from vallostasis.core.records.spec_card import CONSTRUCTIONS_WITH_LEDGE, CardUnit, FieldProblem, Limit, SpecCard

# What a length of each kind usually is, least and greatest without its sign. [µm]
_SMALL = (Decimal(2), Decimal(600))
_THICK = (Decimal(300), Decimal(60_000))
_EDGE = (Decimal(50), Decimal(3_000))
_SHIM = (Decimal(10), Decimal(6_000))
_BORE = (Decimal(20_000), Decimal(1_200_000))
_STEP = (Decimal("0.5"), Decimal(200))
# Limits of a size lie near its nominal; greatest and least protrusion within one order and a half.
_OFF_NOMINAL_UM, _APART = Decimal(3_000), 20
# Clean-up that leaves an even witness all round. [µm]
USUAL_CLEANUP_UM = Decimal(25)
_FACTORS = (Decimal("25.4"), Decimal(10), Decimal(1000))


def unlikely_lengths(card: SpecCard) -> Iterator[FieldProblem]:
    """Ask about every length of a card that a common slip would explain."""
    for field, um, usual in _lengths(card):
        if um != 0 and not usual[0] <= abs(um) <= usual[1]:
            yield FieldProblem(field, _did_you_mean(card, um, usual))
    yield from _protrusion(card)
    yield from _sizes(card)
    yield from _left_empty(card)


def _lengths(card: SpecCard) -> Iterator[tuple[str, Decimal, tuple[Decimal, Decimal]]]:
    """Every length with what it usually is. [µm]"""
    for name in (field.name for field in fields(card.limits)):
        limit: Limit = getattr(card.limits, name)
        if limit.length is not None:
            yield f"limits.{name}", limit.length.um, _SMALL
    seat = {"flange_nominal": _THICK, "counterbore_nominal": _THICK, "ledge_at_nominal": _THICK,
            "ledge_least": _THICK, "cleanup_least": _SMALL, "sealing_land": _THICK, "flange_edge": _EDGE}  # fmt: skip
    for name, usual in seat.items():
        limit = getattr(card.seat, name)
        if limit.length is not None:
            yield f"seat.{name}", limit.length.um, usual
    yield from ((f"shims.{at}.thickness", one.thickness.um, _SHIM) for at, one in enumerate(card.shims))
    yield from ((f"lands.{at}.raised", one.raised.um, _SMALL) for at, one in enumerate(card.lands))
    yield "layout.bore", card.layout.bore.um, _BORE
    yield "layout.bore_pitch", card.layout.bore_pitch.um, _BORE
    yield "cutter.graduation", card.cutter.graduation.um, _STEP
    yield "cutter.stop_accuracy", card.cutter.stop_accuracy.um, (_STEP[0], _SMALL[1])
    for at, sheet in enumerate(card.features):
        for name in ("out_of_round", "taper"):
            limit = getattr(sheet, name)
            if limit.length is not None:
                yield f"features.{at}.{name}", limit.length.um, _SMALL


def _left_empty(card: SpecCard) -> Iterator[FieldProblem]:
    """Ask for what a cut cannot be planned without, where the card has shims to plan it for."""
    if card.shims and card.seat.cleanup_least.length is None and card.construction in CONSTRUCTIONS_WITH_LEDGE:
        yield FieldProblem(
            "seat.cleanup_least",
            "No cut can be planned without the least clean-up cut: an even witness all round, "
            f"{_shown(card, USUAL_CLEANUP_UM, small=True)}, is common practice. Type it, or save the card without.",
        )


def _did_you_mean(card: SpecCard, um: Decimal, usual: tuple[Decimal, Decimal]) -> str:
    """Name the readings of the same digits that would be usual."""
    small = usual[1] <= _SHIM[1]
    likelier = []
    for factor in _FACTORS:
        for times in (factor, 1 / factor):
            if usual[0] <= abs(um * times) <= usual[1]:
                likelier.append(_shown(card, um * times, small=small))
    meant = f": did you mean {' or '.join(dict.fromkeys(likelier))}?" if likelier else ": is number and unit right?"
    return (
        f"{_shown(card, um, small=small)} is far from what such a length is{meant} Type it with its unit, or "
        "save it as typed."
    )


def _shown(card: SpecCard, um: Decimal, *, small: bool) -> str:
    unit = "mm" if card.unit is CardUnit.MM else "thou" if small else "inch"
    value = um / MICROMETRES_PER[unit]  # type: ignore[index]
    return f"{round(value, 5).normalize():f} {unit}"


def _protrusion(card: SpecCard) -> Iterator[FieldProblem]:
    for kind in ("without_shim", "with_shim"):
        least, greatest = getattr(card.limits, f"least_{kind}").length, getattr(card.limits, f"greatest_{kind}").length
        if least is None or greatest is None:
            continue
        if least.um < 0 < greatest.um and -least.um < greatest.um:
            yield FieldProblem(
                f"limits.least_{kind}",
                f"{_shown(card, least.um, small=True)} lets the liner stand below the deck: is the sign meant? Save it "
                "as typed if it is.",
            )
        elif least.um > 0 and least.um * _APART <= greatest.um <= _SMALL[1]:
            yield FieldProblem(
                f"limits.least_{kind}",
                f"{_shown(card, least.um, small=True)} is very far below the greatest, "
                f"{_shown(card, greatest.um, small=True)}: is a point slipped in one of them?",
            )


def _sizes(card: SpecCard) -> Iterator[FieldProblem]:
    for at, sheet in enumerate(card.features):
        nominal = sheet.nominal.length
        for name in ("least", "greatest"):
            limit = getattr(sheet, name).length
            if nominal is not None and limit is not None and abs(limit.um - nominal.um) > _OFF_NOMINAL_UM:
                yield FieldProblem(
                    f"features.{at}.{name}",
                    f"{_shown(card, limit.um, small=False)} is far from nominal, "
                    f"{_shown(card, nominal.um, small=False)}: is number and unit right? Save it as typed if it is.",
                )
