"""Every exercise there is, in the order of the work."""

from typing import Any

from vallostasis.core.practice.aloud import NUMBERS_ALOUD
from vallostasis.core.practice.dials import READ_DIALS
from vallostasis.core.practice.exercise import Exercise
from vallostasis.core.practice.rocking import ROCKING

EXERCISES: tuple[Exercise[Any], ...] = (ROCKING, READ_DIALS, NUMBERS_ALOUD)
BY_NAME = {one.name: one for one in EXERCISES}
