"""Which sign the words deep, shallow, tight and loose give a reading. Common practice, no published source."""

from vallostasis.core.records import Quantity

_BORES = (Quantity.BLOCK_BORE, Quantity.LINER_BORE, Quantity.MAIN_BORE, Quantity.COUNTERBORE_DIAMETER)
_OUTSIDES = (Quantity.LINER_OUTSIDE, Quantity.PISTON_SKIRT, Quantity.PISTON_CROWN)


def senses_of(quantity: Quantity) -> dict[str, int]:
    """Signs of the words that have one for a feature; the others are asked about.

    A ledge that is deep lies farther below the deck. A tight bore is small, a tight liner or piston large, a tight gap
    small.
    """
    if quantity is Quantity.COUNTERBORE_DEPTH:
        return {"deep": 1, "shallow": -1}
    if quantity in _BORES:
        return {"loose": 1, "tight": -1}
    if quantity in _OUTSIDES:
        return {"tight": 1, "loose": -1}
    return {}
