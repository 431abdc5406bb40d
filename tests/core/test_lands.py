"""Lands of a make: running change, batch alert, old against new, by hand and against drawn parts."""

from dataclasses import replace

import numpy as np
import pytest

from tests.core.facts import Story
from tests.core.test_causes import over_the_lip
from tests.core.test_matching_jobs import wet
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.lands.batches import OffLiner, batch_alerts, off_liners
from vallostasis.core.lands.land_map import compared, land_map, liners_read, verdict
from vallostasis.core.lands.populations import two_kinds
from vallostasis.core.records.rows import Quantity
from vallostasis.core.uncertainty.budget import Source, estimate, stated

UM = 1e-6


def test_two_kinds_are_told_and_one_is_not_called_two() -> None:
    """Drawn: of 300 makes of one kind hardly one is called two; six u apart are told in nineteen of twenty."""
    rng = np.random.default_rng(42)
    alarms = found = 0
    for _ in range(300):
        count = int(rng.integers(6, 25))
        u = np.full(count, 3 * UM)
        one = rng.normal(0, 8, count) * UM
        alarms += two_kinds(list(one), list(u)) is not None
        upper = np.arange(count) >= count // 2
        kinds = two_kinds(list(one + upper * 60 * UM), list(u))
        found += kinds is not None and set(kinds.upper) == set(np.flatnonzero(upper))
    assert alarms <= 0.03 * 300
    assert found >= 0.95 * 300


def test_two_kinds_by_hand() -> None:
    kinds = two_kinds([90 * UM, 2 * UM, 1 * UM, 92 * UM, 0.0, 91 * UM], [2 * UM] * 6)
    assert kinds is not None
    assert (set(kinds.lower), set(kinds.upper)) == ({1, 2, 4}, {0, 3, 5})
    assert kinds.apart_m == pytest.approx(90 * UM)
    # One that stands off by itself may be a slip; four are too few; what is read badly is not told apart.
    assert two_kinds([0.0, 1 * UM, 2 * UM, 1 * UM, 90 * UM], [2 * UM] * 5) is None
    assert two_kinds([0.0, 1 * UM, 90 * UM, 91 * UM], [2 * UM] * 4) is None
    assert two_kinds([90 * UM, 2 * UM, 1 * UM, 92 * UM, 0.0, 91 * UM], [60 * UM] * 6) is None
    with pytest.raises(OutOfDomain):
        two_kinds([0.0, 1.0], [1.0])


def lipped(lips_um: tuple[float, ...], *, batches: str = "") -> Story:
    """Liners whose flat land is read, and their lip so much higher, one after the other."""
    story = wet((8_900,) * len(lips_um), (8_980,) * len(lips_um))
    story.set_up(Quantity.FLANGE_THICKNESS, land="lip")
    for liner, lip in zip(story.facts().liners, lips_um, strict=True):
        story.read(Quantity.FLANGE_THICKNESS, liner.liner_id, (8_980 + lip,) * 4)
    story.rows["liners"] = [replace(one, make="Quarnforth", batch=batch) for one, batch in
                            zip(story.rows["liners"], batches or [""] * len(lips_um), strict=True)]  # fmt: skip
    return story


def test_a_running_change_of_a_lip_is_noticed_with_what_tells_it_apart() -> None:
    """Six liners with lips of 30 and three of 95 after them; the flat lands are all one."""
    lips = (30, 31, 29, 30, 32, 28, 95, 94, 96)
    found = land_map(liners_read(lipped(lips).facts()), "Quarnforth")
    assert (found.reference, [one.land for one in found.lands]) == ("flat land", ["flat land", "lip"])
    lip = found.lands[1]
    assert lip.kinds is not None
    assert lip.kinds.apart_m == pytest.approx(65 * UM, abs=0.1 * UM)
    assert lip.mean_m == pytest.approx(np.mean(lips) * UM, abs=0.1 * UM)
    assert lip.deviation_m == pytest.approx(np.std(lips, ddof=1) * UM, abs=0.1 * UM)
    assert len(found.notices) == 1
    assert "65 µm apart" in found.notices[0]
    assert "a running change" in found.notices[0]
    by_batch = land_map(liners_read(lipped(lips, batches="aaaaaabbb").facts()), "Quarnforth")
    assert "by batch a against b" in by_batch.notices[0]
    level = land_map(liners_read(lipped((30,) * 9).facts()), "Quarnforth")
    assert level.notices == ()
    assert land_map(liners_read(lipped(lips).facts()), "nobody").lands == ()


def test_a_land_over_another_is_told_by_what_the_two_readings_do_not_share() -> None:
    """GUM F.1.2.3: the zero of the gauge is in both, so that it is in neither's difference: no wider than both."""
    found = land_map(liners_read(lipped((30, 31)).facts()), "Quarnforth")
    (_, size), *_rest = found.lands[0].reads
    (_, over), *_ = found.lands[1].reads
    assert over.value_m == pytest.approx(30 * UM, abs=0.1 * UM)
    assert over.expanded_m <= size.expanded_m * np.sqrt(2) + 1e-12


def test_old_and_new_are_identical_only_where_every_land_was_read_on_both() -> None:
    liners = liners_read(lipped((30, 30, 95)).facts())
    same = compared(liners[0], liners[1], ("flat land", "lip"))
    assert [one.alike for one in same] == [True, True]
    assert "Alike on every land" in verdict(same)
    other = compared(liners[0], liners[2], ("flat land", "lip"))
    assert [one.alike for one in other] == [True, False]
    assert other[1].difference is not None
    assert other[1].difference.value_m == pytest.approx(65 * UM, abs=0.1 * UM)
    assert verdict(other) == "They differ on the lip."
    unknown = compared(liners[0], liners[1], ("flat land", "lip", "bead"))
    assert [one.alike for one in unknown] == [None, True, True]
    assert "nobody can call them identical" in verdict(unknown)
    # What is read so badly that a seat's worth could hide in it is not known either.
    rough = {land: estimate(one.value_m, (Source("rough", 20 * UM),)) for land, one in liners[1].lands.items()}
    assert [one.alike for one in compared(liners[0], replace(liners[1], lands=rough), ())] == [None, None]


def off(job: str, um: float, batch: str = "7", u_um: float = 6) -> OffLiner:
    value = stated("off", estimate(um * UM, (Source("u", u_um / 2 * UM),)), 2.0)
    return OffLiner(job, job, 3, "L2", "Quarnforth", batch, value)


def test_a_batch_that_is_off_alike_on_two_jobs_is_told_before_the_third() -> None:
    alerts = batch_alerts([off("one", -92), off("two", -90), off("three", 60)])
    assert [(one.batch, round(one.middle_m * 1e6)) for one in alerts] == [("7", -91)]
    assert "91 µm too low" in alerts[0].words
    assert "one hole 3, two hole 3" in alerts[0].words
    assert batch_alerts([off("one", -92), off("one", -90)]) == (), "one job is no two"
    assert batch_alerts([off("one", -92, ""), off("two", -90, "")]) == (), "nobody wrote the batch down"
    assert batch_alerts([off("one", -92), off("two", -92, "8")]) == ()
    assert batch_alerts([off("one", -200), off("two", -20)]) == (), "not alike"


def test_what_is_off_on_a_job_is_told_with_its_batch() -> None:
    story = over_the_lip()
    story.rows["liners"] = [replace(one, make="Quarnforth", batch="7") for one in story.rows["liners"]]
    found = off_liners(story.facts())
    assert [(one.hole, one.batch, round(one.off.value_m * 1e6)) for one in found] == [(3, "7", -60)]
    assert off_liners(wet((8_900,), (8_980,)).facts()) == ()
