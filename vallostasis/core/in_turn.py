"""Aims made small one after the other by a constraint solver, each kept as the next is made small.

References
----------
.. [1] L. Perron, F. Didier, CP-SAT of OR-Tools: a solver of constraints over whole numbers.
"""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from typing import Generic, TypeVar

from ortools.sat.python import cp_model

# One aim is given up after that long, and what was found until then is told with its gap. [s]
LONGEST_S = 5.0

What = TypeVar("What")


@dataclass(frozen=True, slots=True)
class Reached(Generic[What]):
    """One aim: what is made small, how small it became, and the bound below which it cannot go."""

    what: What
    value: int
    bound: int

    @property
    def proven(self) -> bool:
        """Whether nothing better exists. By comparison."""
        return self.value == self.bound


def in_turn(
    model: cp_model.CpModel,
    aims: Iterable[tuple[What, Callable[[], cp_model.LinearExprT]]],
    hinted: Sequence[cp_model.IntVar],
    linearization_level: int,
) -> tuple[tuple[Reached[What], ...], list[int]]:
    """Make one aim after the other small.

    Parameters
    ----------
    model : CpModel
        What has to hold; each aim is added to it once it is reached.
    aims : iterable of tuple
        What is made small, the first above all, and what makes its expression when its turn comes.
    hinted : sequence of IntVar
        Switches from whose state the next aim begins.
    linearization_level : int
        How much of the relaxation is used; what suits depends on what ties the switches together.

    Returns
    -------
    tuple of tuple and list
        Every aim that was reached, and the value of each variable by its index; both empty where nothing was found.

    Notes
    -----
    CP-SAT [1]_ of the module with one worker and a fixed seed, so that the same question gives the same answer. Hints
    name the switches that are on: the rest follows.
    """
    solver = cp_model.CpSolver()
    solver.parameters.num_workers, solver.parameters.random_seed = 1, 1
    solver.parameters.linearization_level = linearization_level
    solver.parameters.max_time_in_seconds = LONGEST_S
    reached: list[Reached[What]] = []
    values: list[int] = []
    for what, expression_of in aims:
        expression = expression_of()
        model.minimize(expression)
        status = solver.solve(model)
        if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
            break
        value = round(solver.objective_value)
        reached.append(
            Reached(what, value, value if status == cp_model.OPTIMAL else round(solver.best_objective_bound))
        )
        values = list(solver.response_proto.solution)
        model.add(expression <= value)
        model.clear_hints()  # type: ignore[no-untyped-call]
        for switch in hinted:
            if values[switch.index]:
                model.add_hint(switch, 1)
    return tuple(reached), values
