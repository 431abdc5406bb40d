"""Every player of every exercise."""

from collections.abc import Callable, Sequence
from dataclasses import replace
from typing import Any

from tests.core.practice import players_of_bores, players_of_cuts, players_of_fits
from tests.core.practice.players import ROCKERS, Player, answer_all, rock, slip_players
from vallostasis.core.practice.catalogue import EXERCISES
from vallostasis.core.practice.detective import DETECTIVE
from vallostasis.core.practice.exercise import Exercise, Move
from vallostasis.core.practice.rocking import ROCKING
from vallostasis.core.practice.shims import SHIM_DRILL
from vallostasis.core.practice.slips import Slips

PLAYERS: tuple[Player, ...] = (
    *ROCKERS,
    *players_of_cuts.PLAYERS,
    *players_of_fits.PLAYERS,
    *players_of_bores.PLAYERS,
    Player(
        SHIM_DRILL,
        "too slow",
        lambda truth: [replace(move, at_s=truth.seconds + 1) for move in answer_all(truth)],
        skill="in time",
    ),
    *(player for one in EXERCISES if isinstance(one.truth(0), Slips) for player in slip_players(one)),
)


# Traps that only some seeds have: who steps into each, and in which of them it counts.
SOMETIMES: tuple[tuple[Exercise[Any], str, Callable[[Any], Sequence[Move]], Callable[[Any], bool]], ...] = (
    (ROCKING, "T37", lambda truth: rock(truth, three=False), lambda truth: truth.lobe_nm[1] > 0),
    *((DETECTIVE, *row) for row in players_of_cuts.WHERE_IT_IS),
    *players_of_bores.WHERE_IT_IS,
)
