"""Who goes where: against every arrangement there is, and on jobs with parts that their readings contradict."""

from dataclasses import replace
from itertools import pairwise, permutations, product

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.facts import Story
from tests.core.test_matching_jobs import wet
from tests.deep import DEEP
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.matching.of_job import BlockMatching, MatchWishes, Move, matching_of, moves_of
from vallostasis.core.matching.problem import GOALS, Goal, HeadWindow, Matching, ShimSize
from vallostasis.core.matching.solver import match
from vallostasis.core.matching.why_not import least_widening, one_more_for, too_few
from vallostasis.core.records.rows import Quantity

EXAMPLES = 1000 if DEEP else 40
LEAST, GREATEST, TARGET = 60_000, 90_000, 75_000


# The order that puts few moves first, for whoever would rather leave what is home.
FEWEST_MOVED = (Goal.OUTSIDE, Goal.MOVES, Goal.ADJACENT, Goal.SPREAD)


def stands_as(problem: Matching, liners: tuple[int, ...], on: tuple[int | None, ...]) -> list[int]:
    """Height of every hole, worked out anew; ``on`` is the shim each is cut for, −1 where it is cut for none named."""
    as_it_is = [problem.heights_nm[hole][one] if problem.heights_nm else problem.flanges_nm[one] - depth
                for hole, (depth, one) in enumerate(zip(problem.depths_nm, liners, strict=True))]  # fmt: skip
    return [TARGET if shim is not None else own for own, shim in zip(as_it_is, on, strict=True)]


def broken(problem: Matching, stands: list[int]) -> int:
    """Rules between holes that are broken, worked out anew."""
    pairs = [abs(stands[a] - stands[b]) for bank in problem.banks for a, b in pairwise(bank)]
    far = sum(one > problem.neighbour_nm for one in pairs) if problem.neighbour_nm is not None else 0
    averages = [(head, sum(stands[at] for at in head.holes) / len(head.holes)) for head in problem.heads]
    return far + sum(not head.low_nm <= one <= head.high_nm for head, one in averages)


def score(problem: Matching, liners: tuple[int, ...], on: tuple[int | None, ...]) -> dict[Goal, int]:
    """What an arrangement comes to, every goal worked out anew."""
    stands = stands_as(problem, liners, on)
    left = [(hole, one) for hole, one in enumerate(liners) if on[hole] is None]
    if problem.outside:
        outside = sum(problem.outside[hole][one] for hole, one in left)
    else:
        outside = sum(not LEAST <= stands[hole] <= GREATEST for hole, _ in left)
    apart = [abs(stands[a] - stands[b]) for bank in problem.banks for a, b in pairwise(bank)]
    used = [one for one in on if one is not None and one >= 0]
    return {
        Goal.OUTSIDE: outside,
        Goal.RULES: broken(problem, stands),
        Goal.CUTS: len(liners) - len(left),
        Goal.ORDERS: sum(max(0, used.count(at) - shim.stock) for at, shim in enumerate(problem.shims)),
        Goal.HONING: sum(problem.honing_nm[hole][one] for hole, one in left if problem.honing_nm),
        Goal.ADJACENT: max(apart, default=0),
        Goal.SPREAD: max(stands) - min(stands),
        Goal.GRADES: sum(problem.unlike[hole][one] for hole, one in enumerate(liners) if problem.unlike),
        Goal.MOVES: sum(now is not None and now != then for now, then in zip(problem.present, liners, strict=False)),
        Goal.PRICE: sum(problem.shims[one].price for one in used),
    }


def ways_to_cut(problem: Matching, liners: tuple[int, ...]) -> list[list[int | None]]:
    """How each hole may be dealt with for the liner that goes there: left, or cut."""
    may: list[list[int | None]] = []
    for hole, one in enumerate(liners):
        if problem.target_nm is None or (problem.may_cut and not problem.may_cut[hole]):
            may.append([None])
        elif problem.shims:
            may.append([None, *(problem.cut_on[hole][one] if problem.cut_on else range(len(problem.shims)))])
        else:
            may.append([None, -1])
    return may


def best_of_all(problem: Matching, goals: tuple[Goal, ...]) -> tuple[int, ...]:
    """Brute force over every order of the liners and every set of cuts."""

    def allowed(liners: tuple[int, ...]) -> bool:
        stays = zip(problem.locked, problem.present, liners, strict=False)
        return all(not lock or now is None or now == then for lock, now, then in stays)

    holes = len(problem.depths_nm)
    return min(tuple(scored[goal] for goal in goals)
               for liners in permutations(range(len(problem.flanges_nm)), holes) if allowed(liners)
               for on in product(*ways_to_cut(problem, liners)) if (scored := score(problem, liners, on)))  # fmt: skip


@st.composite
def problems(draw: st.DrawFn) -> Matching:
    holes = draw(st.integers(2, 4))
    liners = holes + draw(st.integers(0, 1))
    size = st.integers(0, 120_000)
    depths = tuple(8_880_000 + draw(size) // 2 for _ in range(holes))
    flanges = tuple(8_950_000 + draw(size) for _ in range(liners))
    split = draw(st.integers(1, holes))
    present = tuple(draw(st.permutations(range(liners)))[:holes]) if draw(st.booleans()) else ()
    locked = tuple(draw(st.booleans()) for _ in range(holes)) if present else ()
    target = TARGET if draw(st.booleans()) else None
    may_cut = tuple(draw(st.booleans()) for _ in range(holes)) if target and draw(st.booleans()) else ()
    return Matching(depths, flanges, LEAST, GREATEST, (tuple(range(split)), tuple(range(split, holes))), target,
                    may_cut, present, locked)  # fmt: skip


def _table(draw: st.DrawFn, one: st.SearchStrategy, holes: int, liners: int) -> tuple[tuple, ...]:  # type: ignore[type-arg]
    return tuple(tuple(draw(one) for _ in range(liners)) for _ in range(holes))


@st.composite
def problems_of_a_shop(draw: st.DrawFn) -> Matching:
    """Three holes with tables of their own: heights, verdicts, honing, grades, shims with stock and price, rules."""
    plain = draw(problems().filter(lambda one: len(one.depths_nm) <= 3))
    holes, liners = len(plain.depths_nm), len(plain.flanges_nm)
    shims = tuple(ShimSize(draw(st.integers(0, 2)), draw(st.integers(0, 500))) for _ in range(draw(st.integers(1, 2))))
    on = st.sets(st.integers(0, len(shims) - 1)).map(lambda some: tuple(sorted(some)))
    window = HeadWindow(tuple(range(holes)), 60_000, draw(st.integers(70_000, 90_000)))
    return replace(
        plain, heights_nm=_table(draw, st.integers(20_000, 130_000), holes, liners),
        outside=_table(draw, st.booleans(), holes, liners),
        honing_nm=_table(draw, st.integers(0, 9_000), holes, liners),
        unlike=_table(draw, st.booleans(), holes, liners), shims=shims, cut_on=_table(draw, on, holes, liners),
        neighbour_nm=draw(st.integers(0, 60_000)) if draw(st.booleans()) else None,
        heads=(window,) if draw(st.booleans()) else (),
    )  # fmt: skip


def _is_the_best(problem: Matching, goals: tuple[Goal, ...]) -> None:
    found = match(problem, goals)
    assert found.proven
    assert tuple(one.value for one in found.reached) == best_of_all(problem, goals)
    # What it says it is, it is: liners used once, heights as they follow, the score that was claimed.
    assert len(set(found.liners)) == len(found.liners)
    on = tuple(None if not cut else -1 if shim is None else shim
               for cut, shim in zip(found.cut, found.on_shim, strict=True))  # fmt: skip
    scored = score(problem, found.liners, on)
    assert {one.what: one.value for one in found.reached} == {one.what: scored[one.what] for one in found.reached}
    assert list(found.stands_nm) == stands_as(problem, found.liners, on)


@settings(max_examples=EXAMPLES)
@given(problems(), st.sampled_from([GOALS, FEWEST_MOVED]))
def test_nothing_is_better_than_what_is_called_proven(problem: Matching, goals: tuple[Goal, ...]) -> None:
    """Every order of the liners with every set of cuts, scored by code of the test."""
    _is_the_best(problem, goals)


@settings(max_examples=EXAMPLES)
@given(problems_of_a_shop(), st.permutations(list(Goal)))
def test_nor_with_shims_honing_grades_and_rules_in_any_order_of_the_goals(problem: Matching, goals: list[Goal]) -> None:
    """As above, with everything that a job brings, whatever is asked for first."""
    _is_the_best(problem, tuple(goals))


@settings(max_examples=1000 if DEEP else 20, deadline=None)
@given(
    st.lists(st.integers(8_860_000, 8_920_000), min_size=6, max_size=6),
    st.lists(st.integers(8_940_000, 9_010_000), min_size=6, max_size=7 if DEEP else 6),
)
def test_six_holes_against_every_order(depths: list[int], flanges: list[int]) -> None:
    """All 720 orders of six liners; deep a thousand blocks, also of seven liners with their 5,040."""
    problem = Matching(tuple(depths), tuple(flanges), LEAST, GREATEST, ((0, 1, 2), (3, 4, 5)), present=tuple(range(6)))
    _is_the_best(problem, GOALS)


@settings(max_examples=4 * EXAMPLES)
@given(st.tuples(st.integers(1, 5), st.integers(0, 1)).flatmap(
    lambda size: st.lists(st.lists(st.integers(-1, 4), min_size=sum(size), max_size=sum(size)), min_size=size[0],
                          max_size=size[0])))  # fmt: skip
def test_why_not_names_holes_that_truly_have_too_few(rows: list[list[int]]) -> None:
    """Numbers are what each liner misses in each hole; every order of the liners tried by code of the test."""
    misses = np.array(rows)
    holes = len(rows)

    def filled(allowed: np.ndarray) -> int:  # type: ignore[type-arg]
        count, liners = allowed.shape
        return max(sum(allowed[hole, one] for hole, one in enumerate(order))
                   for order in permutations(range(liners), count))  # fmt: skip

    allowed = misses == 0
    limited, most = too_few(allowed), filled(allowed)
    if limited is None:
        assert most == holes
    else:
        assert limited.short == holes - most > 0
        # The proof: whatever any of these holes can have is among those liners, and they are fewer.
        assert {one for hole in limited.holes for one in np.flatnonzero(allowed[hole])} == set(limited.liners)
    by = next((step for step in range(5) if filled((misses >= 0) & (misses <= step)) == holes), None)
    assert least_widening(misses) == by
    hole = one_more_for(allowed)
    one_more = [at for at in range(holes) if holes == 1 or filled(np.delete(allowed, at, axis=0)) == holes - 1]
    assert hole == (one_more[0] if one_more else None)


def test_by_hand_two_liners_exchanged_put_both_in() -> None:
    """Ledges 100 and 130 µm apart from the flanges: 8.880 and 8.910 under 8.985 and 8.960."""
    crossed = Matching((8_880_000, 8_910_000), (8_985_000, 8_955_000), LEAST, GREATEST, ((0, 1),), present=(0, 1))
    found = match(crossed, FEWEST_MOVED)
    # As they are they stand 105 and 45 high; exchanged 75 and 75.
    assert (found.liners, found.stands_nm) == ((1, 0), (75_000, 75_000))
    assert [one.value for one in found.reached] == [0, 2, 0, 0]


@pytest.mark.parametrize(
    ("changed", "field"),
    [
        ({"flanges_nm": (1,)}, "flanges_nm"), ({"lower_nm": 100_000}, "lower_nm"), ({"banks": ((0, 5),)}, "banks"),
        ({"locked": (True,)}, "locked"), ({"present": (0, 9)}, "present"), ({"depths_nm": ()}, "depths_nm"),
        ({"present": (0, 0), "locked": (True, True)}, "locked"),
    ],
)  # fmt: skip
def test_what_cannot_be_matched_is_refused_at_its_field(changed: dict[str, object], field: str) -> None:
    good = {"depths_nm": (0, 0), "flanges_nm": (70_000, 71_000), "lower_nm": LEAST, "upper_nm": GREATEST,
            "banks": ((0, 1),)}  # fmt: skip
    with pytest.raises(OutOfDomain) as refused:
        match(Matching(**{**good, **changed}))  # type: ignore[arg-type]
    assert refused.value.quantity == field


def _told(flanges_um: tuple[float, ...], depths_um: tuple[float, ...]) -> Story:
    """A wet block whose ledges and flanges were read, its liners in their holes."""
    return wet(depths_um, flanges_um)


def _matched(story: Story, wishes: MatchWishes = MatchWishes(goals=FEWEST_MOVED, cuts=False)) -> BlockMatching:
    found = matching_of(story.facts(), wishes)
    assert isinstance(found, BlockMatching), found
    return found


def test_moves_put_out_first_what_goes_to_the_bench() -> None:
    """By hand: 8.910 wants a flange of 8.970 to 9.000; only 8.990 is that thick, and 8.955 gives way to it."""
    holes = _matched(_told((8_950, 8_955, 8_990), (8_880, 8_910))).holes
    assert moves_of(holes) == (Move("L2", 2, None), Move("L3", None, 2))


def test_a_liner_whose_parts_its_reading_contradicts_is_left_where_it_is() -> None:
    """A flange read over the lip: the great trap is to move it about by that number."""
    story = _told((8_985, 8_955, 8_970), (8_880, 8_910, 8_900))
    assert len(_matched(story).holes) == 3
    fitting = story.facts().present_fitting(story.hole_rows[2].hole_id)
    assert fitting is not None
    story.read(Quantity.PROTRUSION, fitting.fitting_id, (170, 170, 170, 170))
    found = _matched(story)
    assert [one.hole for one in found.holes] == [1, 2]
    assert all(way.liner != "L3" for one in found.holes for way in one.ways)
    assert any("hole 3: its parts and its reading disagree" in one for one in found.table.missing)


def test_a_liner_whose_flange_nobody_read_stays_and_its_hole_with_it() -> None:
    told = _told((8_985, 8_955, 8_970, 8_960), (8_880, 8_910, 8_900))
    told.fit(3, told.liner("X"))
    found = _matched(told)
    assert [one.hole for one in found.holes] == [1, 2]
    assert "X: its flange is not read" in " ".join(found.table.missing)
    assert all(move.liner != "X" for move in found.moves)


def test_a_locked_hole_keeps_its_liner() -> None:
    story = _told((8_985, 8_955), (8_880, 8_910))
    free = _matched(story)
    assert [(one.now, one.then) for one in free.holes] == [("L1", "L2"), ("L2", "L1")]
    kept = _matched(story, MatchWishes(frozenset({1}), FEWEST_MOVED, cuts=False))
    assert [(one.now, one.then) for one in kept.holes] == [("L1", "L1"), ("L2", "L2")]


def test_what_is_not_read_is_named() -> None:
    said = matching_of(Story(holes=2).facts())
    assert isinstance(said, str)
    assert "hole 1: its ledge is not read all round" in said
