"""Which sign the words deep, shallow, tight and loose give a reading. Common practice, no published source."""

from vallostasis.core.features.catalogue import feature_of
from vallostasis.core.records.rows import Quantity


def senses_of(quantity: Quantity) -> dict[str, int]:
    """Signs of the words that have one for a feature; the others are asked about.

    A ledge that is deep lies farther below the deck. A tight bore is small, a tight liner or piston large, a tight gap
    small.
    """
    feature = feature_of(quantity)
    words = {"deep": feature.deep, "shallow": -feature.deep, "tight": feature.tight, "loose": -feature.tight}
    return {word: sign for word, sign in words.items() if sign}
