"""From what was typed to the size it stands for: the zero it was read on, and corrections of that zero."""

from decimal import Decimal

from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity, Reading, ReadingSet, Setup, ZeroedOn


def value_used_um(facts: JobFacts, reading_set: ReadingSet, reading: Reading) -> Decimal:
    """Return the size a reading stands for: what was read, the size the gauge was zeroed on, corrections. [µm]"""
    corrections = sum((one.correction_um for one in facts.corrections_of(reading)), Decimal(0))
    return reading.value_um + facts.setup(reading_set.setup_id).zero_um + corrections


def is_relative(facts: JobFacts, reading_set: ReadingSet) -> bool:
    """Readings zeroed on the part itself are differences: no size follows from them."""
    return only_differences(facts.setup(reading_set.setup_id))


def only_differences(setup: Setup) -> bool:
    """Whether a size is asked for and only differences are read; flatness is a difference itself."""
    return setup.zeroed_on is ZeroedOn.PART and setup.quantity is not Quantity.DECK_FLATNESS
