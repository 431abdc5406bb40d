"""Every exercise there is, in the order of the work."""

from typing import Any

from vallostasis.core.practice.aloud import NUMBERS_ALOUD
from vallostasis.core.practice.cutter import CUTTER
from vallostasis.core.practice.detective import DETECTIVE
from vallostasis.core.practice.dials import READ_DIALS
from vallostasis.core.practice.drop import DROP
from vallostasis.core.practice.exercise import Exercise
from vallostasis.core.practice.hot_fit import HOT_FIT
from vallostasis.core.practice.pressing import PRESSING
from vallostasis.core.practice.rocking import ROCKING
from vallostasis.core.practice.shims import DECK_SUMS, SHIM_DRILL

EXERCISES: tuple[Exercise[Any], ...] = (
    ROCKING,
    READ_DIALS,
    NUMBERS_ALOUD,
    DETECTIVE,
    CUTTER,
    SHIM_DRILL,
    DECK_SUMS,
    DROP,
    HOT_FIT,
    PRESSING,
)
BY_NAME = {one.name: one for one in EXERCISES}
