"""Which holes of a block are cut, and on which shims: decided by a constraint solver, one aim after the other.

References
----------
.. [1] L. Perron, F. Didier, CP-SAT of OR-Tools: a solver of constraints over whole numbers.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import partial
from itertools import product

from ortools.sat.python import cp_model

from vallostasis.core.block_plans.problem import (
    NANOMETRES,
    BlockProblem,
    Choice,
    HoleToPlan,
    LockKind,
    apart_m,
    choices_of,
    cut_with,
    guard_m,
    head_window,
    least_depth_m,
    leave,
    nanometres,
    neighbours_of,
    own_depth_m,
    window_of,
)
from vallostasis.core.in_turn import Reached, in_turn
from vallostasis.core.uncertainty.budget import difference_of, value_of


@dataclass(frozen=True, slots=True)
class Solved:
    """What was chosen for each hole in turn, whether it stays open, and every aim in its order."""

    choices: tuple[Choice, ...]
    open: tuple[bool, ...]
    aims: tuple[Reached[str], ...]

    @property
    def proven_best(self) -> bool:
        """Whether every aim was proven."""
        return all(aim.proven for aim in self.aims)


class _Model:
    """The ways of every hole as switches, and what follows from them.

    With ``one_depth`` the protrusions of cut holes are counted from a ledge at nought, less one depth for all.
    """

    def __init__(self, problem: BlockProblem, ways: Sequence[tuple[Choice, ...]], *, one_depth: bool = False) -> None:
        self.problem, self.ways, self.one_depth = problem, ways, one_depth
        self.model = cp_model.CpModel()
        self.taken = [[self.model.new_bool_var("") for _ in own] for own in ways]
        self.open = [self.model.new_bool_var("") for _ in ways]
        self.order = [self.model.new_int_var(0, len(ways) if problem.may_order else 0, "") for _ in problem.shims]
        self.used = [self.model.new_bool_var("") for _ in problem.shims]
        self.deepest = max((way.height_nm or 0 for own in ways for way in own), default=0) if one_depth else 0
        shallow = [least_depth_m(problem, hole.parts) for hole in problem.holes if hole.parts is not None]
        shallowest = nanometres(min(shallow, default=0.0)) if one_depth else 0
        self.depth = self.model.new_int_var(shallowest, max(self.deepest, shallowest), "")
        self.place = {hole.hole: at for at, hole in enumerate(problem.holes)}
        for own, taken, is_open in zip(ways, self.taken, self.open, strict=True):
            self.model.add_exactly_one(taken)
            for way, switch in zip(own, taken, strict=True):
                if way.open:
                    self.model.add_implication(switch, is_open)
        self._shims()
        self._neighbours()
        self._heads()

    @property
    def every(self) -> list[tuple[Choice, cp_model.IntVar]]:
        """Every way of every hole with its switch."""
        pairs = zip(self.ways, self.taken, strict=True)
        return [(way, switch) for own, taken in pairs for way, switch in zip(own, taken, strict=True)]

    def _shims(self) -> None:
        for at, shim in enumerate(self.problem.shims):
            on_it = [switch for way, switch in self.every if way.shim == at]
            self.model.add(sum(on_it) <= shim.stock + self.order[at])
            for switch in on_it:
                self.model.add_implication(switch, self.used[at])

    def _neighbours(self) -> None:
        """A difference that is too much, or too near to tell, leaves both holes open."""
        for pair in neighbours_of(self.problem.rules.heads):
            if not all(number in self.place for number in pair):
                continue
            first, second = (self.place[number] for number in pair)
            known: dict[tuple[object, ...], bool] = {}
            for a, b in product(range(len(self.ways[first])), range(len(self.ways[second]))):
                one, other = self.ways[first][a], self.ways[second][b]
                # Shims of several sizes that lead to one height differ by nothing here.
                key = tuple((way.cut is None, way.height_nm) for way in (one, other))
                if self.one_depth and (one.cut is None) is not (other.cut is None):
                    self._beside_one_left((first, a), (second, b))
                    continue
                if key not in known:
                    known[key] = apart_m(self.problem.rules, one.protrusion, other.protrusion)[1]
                if not known[key]:
                    either = [self.taken[first][a].negated(), self.taken[second][b].negated()]
                    self.model.add_bool_or([*either, self.open[first]])
                    self.model.add_bool_or([*either, self.open[second]])

    def _beside_one_left(self, one: tuple[int, int], other: tuple[int, int]) -> None:
        """Hold a hole that is cut to the one depth against a neighbour that is left as it stands."""
        left, cut = (one, other) if self.ways[one[0]][one[1]].cut is None else (other, one)
        stays, goes = self.ways[left[0]][left[1]], self.ways[cut[0]][cut[1]]
        limit = self.problem.rules.neighbour_m
        if limit is None or stays.protrusion is None or goes.protrusion is None or stays.height_nm is None:
            return
        guard = guard_m(self.problem.rules, difference_of(stays.protrusion, goes.protrusion))
        most = max(0, nanometres(limit - guard))
        apart = (goes.height_nm or 0) - self.depth - stays.height_nm
        both = [self.taken[left[0]][left[1]], self.taken[cut[0]][cut[1]]]
        for hole in (left[0], cut[0]):
            self.model.add(apart <= most).only_enforce_if([*both, self.open[hole].negated()])
            self.model.add(apart >= -most).only_enforce_if([*both, self.open[hole].negated()])

    def _heads(self) -> None:
        """An average outside its window leaves every hole under the head open; it waits until all are known."""
        for head in self.problem.rules.heads:
            under = [self.place[number] for number in head if number in self.place]
            window = head_window(self.problem.rules, [self.ways[at] for at in under]) if under else None
            if window is None:
                continue
            known, keeps = self.model.new_bool_var(""), self.model.new_bool_var("")
            total: list[cp_model.LinearExprT] = []
            unknown = []
            for at in under:
                for way, switch in zip(self.ways[at], self.taken[at], strict=True):
                    if way.height_nm is None:
                        unknown.append(switch)
                    else:
                        total.append(way.height_nm * switch)
                if self.one_depth:
                    total.append(-1 * self._depth_of(at))
            self.model.add_bool_or([known, *unknown])
            low, high = (nanometres(one) * len(under) for one in window)
            self.model.add(sum(total) >= low).only_enforce_if(keeps)
            self.model.add(sum(total) <= high).only_enforce_if(keeps)
            for at in under:
                self.model.add_bool_or([keeps, known.negated(), self.open[at]])

    def _depth_of(self, at: int) -> cp_model.IntVar:
        """The one depth where a hole is cut, nought where it is left."""
        own = self.model.new_int_var(0, max(self.deepest, 0), "")
        for way, switch in zip(self.ways[at], self.taken[at], strict=True):
            self.model.add(own == (0 if way.cut is None else self.depth)).only_enforce_if(switch)
        return own

    def aims(self) -> list[tuple[str, cp_model.LinearExprT]]:
        """What is made small, one after the other. Common practice, no published source."""
        every = self.every
        ordered = [("shims to order", sum(self.order))] if self.problem.may_order else []
        return [
            *self.wanted,
            ("holes that stay open", sum(self.open)),
            ("holes that are cut", sum(switch for way, switch in every if way.cut is not None)),
            *ordered,
            ("ledge spent", sum(way.spent_nm * switch for way, switch in every)),
            ("shim sizes", sum(self.used)),
            ("price of the shims", self.price),
        ]

    @property
    def wanted(self) -> list[tuple[str, cp_model.LinearExprT]]:
        """What comes before all else where something was decided before: that it is kept."""
        against = [switch for way, switch in self.every if way.unwanted]
        return [("holes dealt with otherwise than decided", sum(against))] if against else []

    @property
    def price(self) -> cp_model.LinearExprT:
        """What the shims cost together. By definition."""
        prices = self.problem.shims
        return sum(prices[way.shim].price * switch for way, switch in self.every if way.shim is not None)


def solve_best(problem: BlockProblem) -> Solved:
    """Choose what is done to every hole: fewest open, fewest cut, least ledge spent, fewest sizes, least price.

    Parameters
    ----------
    problem : BlockProblem
        Holes, shims, rules. [m]

    Returns
    -------
    Solved
        One choice for each hole in turn; every aim with its bound, and so whether the plan is proven best.

    Raises
    ------
    OutOfDomain
        From the plans of single holes.

    Notes
    -----
    CP-SAT [1]_ of the module on whole nanometres, one aim after the other, each kept as the next is made small. With
    one worker and a fixed seed the same block gives the same plan.
    """
    ways = [choices_of(problem, hole) for hole in problem.holes]
    built = _Model(problem, ways)
    return _one_after_the_other(built, built.aims())


def solve_given(problem: BlockProblem, cut: Sequence[bool]) -> Solved:
    """Choose the shims where it is given which holes are cut; one that cannot be is left. By ``solve_best`` [1]_."""
    ways = [
        tuple(replace(way, unwanted=(way.cut is not None) is not is_cut) for way in choices_of(problem, hole))
        for hole, is_cut in zip(problem.holes, cut, strict=True)
    ]
    built = _Model(problem, ways)
    return _one_after_the_other(built, built.aims())


def solve_one_depth(problem: BlockProblem) -> tuple[Solved, float | None]:
    """Choose one depth for all holes that can be cut, and the shim of each.

    Parameters
    ----------
    problem : BlockProblem
        Holes, shims, rules; one that is locked to be left, or cannot be cut, is left. [m]

    Returns
    -------
    tuple of Solved and float or None
        The choices, and the depth from the deck; None where no hole can be cut. [m]

    Notes
    -----
    Fewest open, fewest sizes, fewest to order, least greatest distance from what each hole aims at, least depth, least
    price; CP-SAT [1]_ of the module, the depth a whole number of nanometres.
    """
    ways = [_at_nought(problem, hole) for hole in problem.holes]
    if not any(way.cut is not None for own in ways for way in own):
        return solve_given(problem, [False] * len(ways)), None
    built = _Model(problem, ways, one_depth=True)
    limits, model = problem.rules.limits, built.model
    off = model.new_int_var(0, max(built.deepest, 0), "")
    for hole, own, taken, is_open in zip(problem.holes, ways, built.taken, built.open, strict=True):
        if hole.parts is None:
            continue
        for way, switch in zip(own, taken, strict=True):
            if way.cut is None or way.height_nm is None:
                continue
            model.add(built.depth >= nanometres(least_depth_m(problem, hole.parts))).only_enforce_if(switch)
            if limits.greatest_depth_m is not None:
                model.add(built.depth <= nanometres(limits.greatest_depth_m)).only_enforce_if(switch)
            stands = way.height_nm - built.depth
            low, high = (nanometres(one) for one in window_of(problem.rules, way.cut))
            model.add(stands >= low).only_enforce_if([switch, is_open.negated()])
            model.add(stands <= high).only_enforce_if([switch, is_open.negated()])
            aimed = nanometres(hole.target_m)
            model.add(off >= stands - aimed).only_enforce_if(switch)
            model.add(off >= aimed - stands).only_enforce_if(switch)
    aims = [*built.wanted, ("holes that stay open", sum(built.open))]
    aims.append(("shim sizes", sum(built.used)))
    if problem.may_order:
        aims.append(("shims to order", sum(built.order)))
    aims += [("farthest from the aim", off), ("depth", built.depth),
             ("price of the shims", built.price)]  # fmt: skip
    solved = _one_after_the_other(built, aims)
    depths = [aim.value for aim in solved.aims if aim.what == "depth"]
    if not depths or all(way.cut is None for way in solved.choices):
        return solve_given(problem, [False] * len(ways)), None
    depth_m = depths[0] / NANOMETRES
    pairs = zip(problem.holes, solved.choices, strict=True)
    return replace(solved, choices=tuple(_at_depth(problem, hole, way, depth_m) for hole, way in pairs)), depth_m


def _at_nought(problem: BlockProblem, hole: HoleToPlan) -> tuple[Choice, ...]:
    """Ways to cut a hole with its protrusion counted from a ledge at nought: the depth is taken off by the solver."""
    if hole.parts is None or hole.lock is LockKind.LEAVE:
        return (leave(hole),)
    ways = []
    for at, shim in enumerate(problem.shims):
        if hole.lock_shim_m is not None and shim.size_m != hole.lock_shim_m:
            continue
        # Whatever the depth: what it gives is counted from a ledge at nought below.
        some_depth = max(own_depth_m(problem, hole, hole.parts, at), least_depth_m(problem, hole.parts))
        way = cut_with(problem, hole, at, some_depth, as_it_is=True)
        if way is not None and way.protrusion is not None and way.cut is not None:
            stands = value_of(way.protrusion) + way.cut.depth_m
            ways.append(replace(way, open=False, protrusion=replace(way.protrusion, value_m=stands, moves=())))
    # Left only where no depth does, or no shim is there for it.
    return (*ways, replace(leave(hole), unwanted=bool(ways)))


def _at_depth(problem: BlockProblem, hole: HoleToPlan, way: Choice, depth_m: float) -> Choice:
    if way.shim is None:
        return way
    cut = cut_with(problem, hole, way.shim, depth_m, as_it_is=True)
    assert cut is not None
    return cut


def _one_after_the_other(built: _Model, aims: Sequence[tuple[str, cp_model.LinearExprT]]) -> Solved:
    hinted = [switch for taken in built.taken for switch in taken]
    # The one depth is tied to every hole: its relaxation tells sooner that nothing is better.
    found, values = in_turn(built.model, ((what, partial(_as_it_is, one)) for what, one in aims), hinted, 2)
    if not values:
        return Solved(tuple(own[0] for own in built.ways), (True,) * len(built.ways), ())
    picked = [next(at for at, switch in enumerate(taken) if values[switch.index]) for taken in built.taken]
    chosen = tuple(own[at] for own, at in zip(built.ways, picked, strict=True))
    return Solved(chosen, tuple(bool(values[one.index]) for one in built.open), found)


def _as_it_is(expression: cp_model.LinearExprT) -> cp_model.LinearExprT:
    return expression
