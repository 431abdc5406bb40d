"""Which liner goes into which hole, which holes are cut: one goal after the other, proven or with its gap.

References
----------
.. [1] L. Perron, F. Didier, CP-SAT of OR-Tools: a solver of constraints over whole numbers.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import partial
from itertools import pairwise

from ortools.sat.python import cp_model

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.in_turn import Reached, in_turn
from vallostasis.core.matching.problem import GOALS, Goal, Matching, Rows, check_matching


@dataclass(frozen=True, slots=True)
class Matched:
    """The liner of each hole, which holes are cut and on which shim, how each stands then [nm], and every goal."""

    liners: tuple[int, ...]
    cut: tuple[bool, ...]
    stands_nm: tuple[int, ...]
    reached: tuple[Reached[Goal], ...]
    on_shim: tuple[int | None, ...] = ()

    @property
    def proven(self) -> bool:
        """Whether every goal was proven. By comparison."""
        return all(one.proven for one in self.reached)


class _Model:
    """A switch for each liner that stands as it is in each hole, one for each hole that is cut, and what follows."""

    def __init__(self, problem: Matching) -> None:
        self.problem, self.model = problem, cp_model.CpModel()
        self.goes = [[self.model.new_bool_var("") for _ in problem.liners] for _ in problem.holes]
        self.cut = [self.model.new_bool_var("") for _ in problem.holes]
        self.stays_as_it_is = [[self.model.new_bool_var("") for _ in problem.liners] for _ in problem.holes]
        self.on = [[self.model.new_bool_var("") for _ in problem.shims] for _ in problem.holes]
        self.order = [self.model.new_int_var(0, len(problem.holes), "") for _ in problem.shims]
        for at in problem.holes:
            self.model.add_exactly_one(self.goes[at])
            for one in problem.liners:
                # As it is: it goes there, and the hole is not cut.
                self.model.add_implication(self.stays_as_it_is[at][one], self.goes[at][one])
            self.model.add_exactly_one([*self.stays_as_it_is[at], self.cut[at]])
            if not problem.is_cuttable(at):
                self.model.add(self.cut[at] == 0)
            if (kept := problem.stays(at)) is not None:
                self.model.add(self.goes[at][kept] == 1)
        for one in problem.liners:
            self.model.add_at_most_one(self.goes[at][one] for at in problem.holes)
        if problem.shims:
            self._shims()
        self.stands = [self._stands(at) for at in problem.holes]

    def _shims(self) -> None:
        """A hole that is cut lies on one shim, on which it can be cut for its liner; the rest is to be ordered."""
        for at in self.problem.holes:
            self.model.add(sum(self.on[at]) == self.cut[at])
            if not self.problem.cut_on:
                continue
            for one in self.problem.liners:
                barred = [switch for place, switch in enumerate(self.on[at])
                          if place not in self.problem.cut_on[at][one]]  # fmt: skip
                if len(barred) == len(self.on[at]):
                    self.model.add_implication(self.goes[at][one], self.cut[at].negated())
                else:
                    for switch in barred:
                        self.model.add_bool_or([switch.negated(), self.goes[at][one].negated()])
        for place, shim in enumerate(self.problem.shims):
            self.model.add(sum(row[place] for row in self.on) <= shim.stock + self.order[place])

    def _would_stand(self, at: int) -> list[int]:
        return [self.problem.height_nm(at, one) for one in self.problem.liners]

    def _stands(self, at: int) -> cp_model.IntVar:
        ways = self._would_stand(at)
        target = self.problem.target_nm or 0
        stands = self.model.new_int_var(min(*ways, target), max(*ways, target), "")
        chosen = sum(way * switch for way, switch in zip(ways, self.stays_as_it_is[at], strict=True))
        self.model.add(stands == chosen + target * self.cut[at])
        return stands

    def goal(self, goal: Goal) -> cp_model.LinearExprT:
        """What a goal makes small. Common practice, no published source."""
        problem = self.problem
        match goal:
            case Goal.OUTSIDE:
                return sum(self._outside(at) for at in problem.holes)
            case Goal.RULES:
                return self._rules()
            case Goal.CUTS:
                return sum(self.cut)
            case Goal.ORDERS:
                return sum(self.order)
            case Goal.HONING:
                return self._counted(problem.honing_nm, self.stays_as_it_is)
            case Goal.GRADES:
                return self._counted(problem.unlike, self.goes)
            case Goal.MOVES:
                kept = [self.goes[at][one] for at, one in enumerate(problem.present) if one is not None]
                return len(kept) - sum(kept)
            case Goal.PRICE:
                return sum(shim.price * row[place] for row in self.on for place, shim in enumerate(problem.shims))
            case Goal.ADJACENT:
                return self._apart()
            case Goal.SPREAD:
                return self._spread()

    def _counted(
        self, rows: Rows[int] | Rows[bool], switches: list[list[cp_model.IntVar]]
    ) -> cp_model.LinearExprT:  # fmt: skip
        return sum(int(rows[at][one]) * switches[at][one] for at in self.problem.holes if rows
                   for one in self.problem.liners)  # fmt: skip

    @property
    def _widest(self) -> int:
        return max(max(map(abs, self._would_stand(at))) for at in self.problem.holes) + abs(self.problem.target_nm or 0)

    @property
    def _neighbours(self) -> list[tuple[int, int]]:
        return [pair for bank in self.problem.banks for pair in pairwise(bank)]

    def _apart(self) -> cp_model.IntVar:
        most = self.model.new_int_var(0, 2 * self._widest, "")
        for one, other in self._neighbours:
            self.model.add(most >= self.stands[one] - self.stands[other])
            self.model.add(most >= self.stands[other] - self.stands[one])
        return most

    def _spread(self) -> cp_model.LinearExprT:
        """Highest less lowest, each tied to the heights: with only bounds between them a proof creeps nm by nm."""
        highest = self.model.new_int_var(-self._widest, self._widest, "")
        lowest = self.model.new_int_var(-self._widest, self._widest, "")
        self.model.add_max_equality(highest, self.stands)
        self.model.add_min_equality(lowest, self.stands)
        return highest - lowest

    def _rules(self) -> cp_model.LinearExprT:
        """Pairs of neighbours that differ by too much, and heads whose average keeps to no window."""
        broken = []
        if self.problem.neighbour_nm is not None:
            for one, other in self._neighbours:
                keeps = self.model.new_bool_var("")
                apart, most = self.stands[one] - self.stands[other], self.problem.neighbour_nm
                self.model.add_linear_constraint(apart, -most, most).only_enforce_if(keeps)
                broken.append(keeps.negated())
        for head in self.problem.heads:
            keeps, total = self.model.new_bool_var(""), sum(self.stands[at] for at in head.holes)
            low, high = head.low_nm * len(head.holes), head.high_nm * len(head.holes)
            self.model.add_linear_constraint(total, low, high).only_enforce_if(keeps)
            broken.append(keeps.negated())
        return sum(broken)

    def _outside(self, at: int) -> cp_model.LinearExprT:
        problem = self.problem
        target_is_out = problem.target_nm is not None and not (
            problem.lower_nm <= problem.target_nm <= problem.upper_nm
        )
        out = [switch for one, switch in enumerate(self.stays_as_it_is[at]) if problem.is_outside(at, one)]
        # With shims of their own only those are named on which the hole is in.
        return sum(out) + (self.cut[at] if target_is_out and not problem.cut_on else 0)


def match(problem: Matching, goals: Sequence[Goal] = GOALS) -> Matched:
    """Choose a liner for every hole, and which holes are cut and shimmed.

    Parameters
    ----------
    problem : Matching
        Holes, liners, limits. [nm]
    goals : sequence of Goal
        What is made small, the first above all; the user may put them in another order.

    Returns
    -------
    Matched
        Every goal with its bound, and so whether it is proven best. [nm]

    Raises
    ------
    OutOfDomain
        If no matching is asked for.

    Notes
    -----
    CP-SAT [1]_ of the module, one goal after the other, each kept as the next is made small; one worker and a fixed
    seed, so that the same block gives the same answer.
    """
    check_matching(problem)
    built = _Model(problem)
    hinted = [switch for row in (*built.goes, *built.stays_as_it_is, built.cut, *built.on) for switch in row]
    reached, values = in_turn(built.model, ((goal, partial(built.goal, goal)) for goal in goals), hinted, 1)
    if not values:
        raise OutOfDomain("no arrangement was found in the time given: lock fewer holes", "locked")
    return _found(built, values, reached)


def _found(built: _Model, values: list[int], reached: tuple[Reached[Goal], ...]) -> Matched:
    liners = tuple(next(one for one, switch in enumerate(row) if values[switch.index]) for row in built.goes)
    on_shim = tuple(next((at for at, switch in enumerate(row) if values[switch.index]), None) for row in built.on)
    return Matched(liners, tuple(bool(values[one.index]) for one in built.cut),
                   tuple(values[one.index] for one in built.stands), reached, on_shim)  # fmt: skip
