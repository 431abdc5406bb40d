"""What a card is asked first: what a plan needs of it, by how the engine is lined. House rules.

Everything else a card may say is asked when somebody looks for it. A plan says itself what it misses.
"""

from dataclasses import dataclass
from enum import StrEnum

from vallostasis.core.records.spec_card import Construction


class AskedKind(StrEnum):
    """How a field is typed: a limit with its source, a length of its own, or several sizes on one line."""

    SMALL_LIMIT = "small limit"
    SIZE_LIMIT = "size limit"
    LENGTH = "length"
    SHIMS = "shims"


@dataclass(frozen=True, slots=True)
class AskedField:
    """A field of the card by its path, as the trade calls it."""

    path: str
    label: str
    kind: AskedKind


def _small(path: str, label: str) -> AskedField:
    return AskedField(path, label, AskedKind.SMALL_LIMIT)


def _size(path: str, label: str) -> AskedField:
    return AskedField(path, label, AskedKind.SIZE_LIMIT)


_PROTRUSION = (
    _small("limits.least_without_shim", "least, no shim"),
    _small("limits.greatest_without_shim", "greatest, no shim"),
)
_SEAT = (
    _small("limits.least_with_shim", "least on a shim"),
    _small("limits.greatest_with_shim", "greatest on a shim"),
    _size("seat.flange_nominal", "flange"),
    _size("seat.counterbore_nominal", "counterbore depth"),
    _small("seat.cleanup_least", "least clean-up cut"),
    _size("seat.ledge_least", "least ledge left"),
    AskedField("shims", "shims that can be had", AskedKind.SHIMS),
    AskedField("cutter.graduation", "one graduation of the cutter", AskedKind.LENGTH),
    AskedField("cutter.stop_accuracy", "its stop is good to ±", AskedKind.LENGTH),
)
_DRY = (
    _small("fits.light.least", "light press, least"),
    _small("fits.light.greatest", "light press, greatest"),
    _size("fits.boss_outside", "outside of the block's wall"),
    _size("fits.liner_inside", "liner's bore before it goes in"),
    _size("fits.liner_length", "liner's length"),
)
_BORE = (
    _small("bores.hone_stock", "stock left for the hone"),
    _small("bores.centre_move", "centre may move by"),
    _size("bores.wall", "wall of the block"),
    _size("bores.least_wall", "least wall left"),
)
_BY_CONSTRUCTION: dict[Construction, tuple[AskedField, ...]] = {
    Construction.WET_TOP_FLANGE: (*_PROTRUSION, *_SEAT),
    Construction.WET_BOTTOM_SEAT: (*_PROTRUSION, *_SEAT),
    Construction.INSERT: (*_PROTRUSION, *_SEAT),
    Construction.DRY_FLANGED: (*_PROTRUSION, *_DRY, *_BORE[:1]),
    Construction.DRY_PLAIN: (*_DRY, *_BORE[:1]),
    Construction.PARENT_BORE: _BORE,
    Construction.COATED: _BORE,
}


def asked_first(construction: Construction) -> tuple[AskedField, ...]:
    """Return what a plan of such an engine needs of its card, in the order in which a book is read."""
    return _BY_CONSTRUCTION[construction]
