"""Causes by hand: bounds, priors, the check that tells, and what is never claimed."""

import numpy as np
import pytest

from tests.core.test_matching_jobs import wet
from vallostasis.core.causes.of_job import AddsUp, adds_up
from vallostasis.core.causes.table import CAUSES, CHECKS, Cause, Check, Pattern
from vallostasis.core.causes.weigh import Finding, Residuals, far_off, next_check, weigh
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.records.rows import Quantity
from vallostasis.core.uncertainty.budget import Source, estimate, weighted
from vallostasis.core.uncertainty.joint import joint_covariance

UM = 1e-6


def residuals(*um: float, makes: str = "", u_um: float = 3.0, shims_um: tuple[float, ...] = ()) -> Residuals:
    count = len(um)
    return Residuals(tuple(range(1, count + 1)), tuple(one * UM for one in um), np.eye(count) * (u_um * UM) ** 2,
                     tuple(makes) or ("",) * count, tuple(one * UM for one in shims_um) or (0.0,) * count)  # fmt: skip


def test_a_share_of_weights_is_worked_out_by_hand_for_two_causes() -> None:
    """Two holes of u 3 that stand 6 and 6: scatter costs (4 + 4) / 2, one offset fits all and costs half ln 2.

    ln of the ratio is 4 − ½·ln 2 with even priors: 1 / (1 + e^−3.653) = 0.975.
    """
    causes = (Cause("none", "", Pattern.NONE, 0, 0, 0.5), Cause("all", "", Pattern.ALL, -1e-3, 1e-3, 0.5))
    found = weigh(residuals(6, 6), causes=causes)
    assert [one.name for one in found] == ["all", "none"]
    assert found[0].weight == pytest.approx(0.97473, abs=1e-4)
    assert found[0].effects_m[0] == pytest.approx(6e-6)
    # An odd prior of 1 to 9 takes ln 9 off.
    odd = (causes[0], Cause("all", "", Pattern.ALL, -1e-3, 1e-3, 0.5 / 9))
    ratio = np.exp(4 - 0.5 * np.log(2) - np.log(9))
    assert weigh(residuals(6, 6), causes=odd)[0].weight == pytest.approx(ratio / (1 + ratio), abs=1e-6)


def test_an_effect_keeps_to_what_its_cause_can_be() -> None:
    """A lip lifts by 20 to 300: 9 is no lip, and its fit stands at the bound."""
    lip = tuple(one for one in CAUSES if one.name in ("lip under the indicator", "nothing but scatter"))
    found = {one.name: one for one in weigh(residuals(0, 0, 9, 9, makes="AABB"), causes=lip)}
    assert found["lip under the indicator"].effects_m == pytest.approx((20e-6,))
    assert found["nothing but scatter"].weight > 0.5


def test_the_make_is_named_where_all_of_it_is_low_and_the_hole_where_only_one_is() -> None:
    both = weigh(residuals(0, 1, -93, 2, -1, -91, makes="PPQPPQ"))
    assert (both[0].causes, both[0].where) == (("lip under the micrometer",), ((3, 6),))
    assert both[0].effects_m[0] == pytest.approx(-92e-6, abs=1e-6)
    one = weigh(residuals(0, 1, 60, 2, -1, 1, makes="PPQPPQ"))
    assert (one[0].causes, one[0].where) == (("burr, dirt or compound under the flange",), ((3,),))
    shim = weigh(residuals(0, 1, -100, 2, makes="PPPP", shims_um=(0, 0, 100, 0)))
    assert "shim counted, not there" in {each for found in shim[:3] for each in found.causes}


def test_the_check_that_tells_most_a_minute_is_proposed_and_its_reading_moves_the_weights() -> None:
    """One cause in two, found by a check that is sure: a whole bit; the quick one before the thorough one."""
    causes = (Cause("a", "", Pattern.ALL, 20 * UM, 100 * UM, 0.5), Cause("b", "", Pattern.ALL, 20 * UM, 100 * UM, 0.5))
    slow = Check("slow", "", 40, frozenset({"a"}), 2 * UM)
    quick = Check("quick", "", 4, frozenset({"b"}), 2 * UM)
    found = weigh(residuals(50, 50, 50), causes=causes, checks=(slow, quick))
    singles = [one for one in found if len(one.causes) == 1]
    assert [one.weight / sum(each.weight for each in singles) for one in singles] == pytest.approx([0.5, 0.5])
    proposed = next_check(singles and found, checks=(slow, quick))
    assert proposed is not None and proposed.check is quick
    assert proposed.bits > 0.5
    assert proposed.expected_m == pytest.approx(50e-6, abs=2e-6)
    after = weigh(residuals(50, 50, 50), (Finding("quick", (1, 2, 3), 0.0),), causes, (slow, quick))
    assert after[0].causes == ("a",)
    assert after[0].weight > 0.99
    done = (Finding("quick", (1, 2, 3), 0.0), Finding("slow", (1, 2, 3), 50e-6))
    assert next_check(after, (slow, quick), done) is None


def test_far_off_is_the_worst_single_one_or_all_of_them_together() -> None:
    """By hand: one of 9 is three u of 3; four of 4.5 are each 1.5 u and together 3."""
    assert far_off(residuals(9, 0, 0)) == pytest.approx(3.0)
    assert far_off(residuals(4.5, 4.5, 4.5, 4.5)) == pytest.approx(3.0)


def test_what_cannot_be_weighed_is_refused() -> None:
    with pytest.raises(OutOfDomain):
        weigh(residuals(9))
    with pytest.raises(OutOfDomain):
        weigh(residuals(9, 9), (Finding("no such check", (1,), 0.0),))
    none = Residuals((1, 2), (0.0, 0.0), np.zeros((2, 2)), ("", ""), (0.0, 0.0))
    with pytest.raises(OutOfDomain):
        weigh(none)


def test_every_check_finds_causes_of_the_table() -> None:
    names = {one.name for one in CAUSES}
    assert all(one.finds <= names and one.finds for one in CHECKS)
    assert sum(one.prior for one in CAUSES) == pytest.approx(1.0)


def test_the_joint_covariance_is_that_of_drawn_errors() -> None:
    """GUM F.1.2.3, by drawing: a zero that two readings share, and one of their own each."""
    zero, a, b = Source("zero", 4 * UM, error="zero"), Source("a", 3 * UM, error="a"), Source("b", 2 * UM, error="b")
    one, other = estimate(0.0, (zero, a)), weighted(((-2.0, estimate(0.0, (zero, b))),))
    rng = np.random.default_rng(4)
    z, x, y = (rng.normal(0, u, 400_000) for u in (4, 3, 2))
    drawn = np.cov(np.vstack([z + x, -2 * (z + y)]))
    assert joint_covariance([one, other]) / UM**2 == pytest.approx(drawn, rel=0.02)


def test_a_job_whose_liner_was_read_over_its_lip_says_so() -> None:
    """By hand: five holes stand as their parts say, hole 3 stands 60 under what its flange says."""
    story = wet((8_900,) * 4, (8_980, 8_980, 9_040, 8_980))
    for hole, height in zip(story.hole_rows, (80, 81, 80, 79), strict=True):
        fitting = story.facts().present_fitting(hole.hole_id)
        assert fitting is not None
        story.read(Quantity.PROTRUSION, fitting.fitting_id, (height,) * 4)
    found = adds_up(story.facts())
    assert isinstance(found, AddsUp)
    assert [one.adds_up for one in found.holes] == [True, True, False, True]
    assert round(found.holes[2].residual.value_m * 1e6) == -60
    assert found.far_off > 3
    assert found.explained[0].where == ((3,),)
    assert found.proposed is not None
    story.read(Quantity.FLANGE_THICKNESS, story.facts().liners[2].liner_id, (8_980,) * 4)
    again = adds_up(story.facts())
    assert isinstance(again, AddsUp)
    assert (again.explained, again.proposed) == ((), None)
    few = adds_up(wet((8_900,), (8_980,)).facts())
    assert isinstance(few, str) and "hole 1" in few
