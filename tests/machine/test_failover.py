"""A primary killed under streaming capture: its replica takes over, and nothing that was acknowledged is lost."""

from pathlib import Path

from benchmarks.failover import WITHIN_S, drill
from tests.deep import DEEP
from vallostasis.machine.postgres import PrivateCluster
from vallostasis.machine.replica import Replica

BEFORE, AFTER = (200, 200) if DEEP else (20, 20)


def test_a_replica_takes_over_and_nothing_acknowledged_is_lost_or_doubled(demo_folder: Path, folder: Path) -> None:
    primary = PrivateCluster(demo_folder)
    try:
        found = drill(primary, Replica(folder / "replica"), BEFORE, AFTER)
    finally:
        primary.stop()
    assert found.acknowledged >= BEFORE + AFTER
    assert (found.lost, found.doubled) == (0, 0)
    # Patience, not a speed: the aim of fifteen seconds is the drill's own.
    assert found.writes_again_s < 10 * WITHIN_S
    assert found.floor_from_replica
    assert all(words.startswith("503") for words in found.said), found.said
