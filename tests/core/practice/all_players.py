"""Every player of every exercise."""

from tests.core.practice.players import ROCKERS, Player, slip_players
from vallostasis.core.practice.catalogue import EXERCISES
from vallostasis.core.practice.slips import Slips

PLAYERS: tuple[Player, ...] = (
    *ROCKERS,
    *(player for one in EXERCISES if isinstance(one.truth(0), Slips) for player in slip_players(one)),
)
