"""Every exercise there is, in the order of the work."""

from typing import Any

from vallostasis.core.practice.aloud import NUMBERS_ALOUD
from vallostasis.core.practice.bore_sums import BORE_SUMS, GAUGE_SUMS
from vallostasis.core.practice.case import CASE
from vallostasis.core.practice.centring import CENTRE
from vallostasis.core.practice.clean_up_game import CLEAN_UP
from vallostasis.core.practice.cutter import CUTTER
from vallostasis.core.practice.detective import DETECTIVE
from vallostasis.core.practice.dials import READ_DIALS
from vallostasis.core.practice.drop import DROP
from vallostasis.core.practice.exercise import Exercise
from vallostasis.core.practice.hone import HONE
from vallostasis.core.practice.hot_fit import HOT_FIT
from vallostasis.core.practice.plates import PLATES
from vallostasis.core.practice.pressing import PRESSING
from vallostasis.core.practice.rocking import ROCKING
from vallostasis.core.practice.sequence import SEQUENCE
from vallostasis.core.practice.shims import DECK_SUMS, SHIM_DRILL
from vallostasis.core.practice.whole_job import ESTIMATE

EXERCISES: tuple[Exercise[Any], ...] = (
    *(ROCKING, READ_DIALS, NUMBERS_ALOUD, GAUGE_SUMS),
    *(DETECTIVE, CUTTER, SHIM_DRILL, DECK_SUMS),
    *(DROP, HOT_FIT, PRESSING),
    *(HONE, CENTRE, PLATES, CLEAN_UP, BORE_SUMS),
    *(ESTIMATE, SEQUENCE, CASE),
)
BY_NAME = {one.name: one for one in EXERCISES}
