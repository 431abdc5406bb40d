"""Why no arrangement puts every liner in, and the smallest thing that would: proven, not tried.

References
----------
.. [1] P. Hall, On representatives of subsets, J. London Math. Soc. s1-10 (1935) 26: holes that have fewer liners
   between them than they are themselves cannot all be filled.
.. [2] J. E. Hopcroft, R. M. Karp, SIAM J. Comput. 2 (1973) 225: the largest matching, as SciPy finds it.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import csr_array
from scipy.sparse.csgraph import maximum_bipartite_matching

from vallostasis.core.matching.problem import Matching

Allowed = NDArray[np.bool_]


@dataclass(frozen=True, slots=True)
class TooFew:
    """Holes that have too few liners between them, by their places: those liners, and how many more it takes."""

    holes: tuple[int, ...]
    liners: tuple[int, ...]

    @property
    def short(self) -> int:
        """How many of the holes must stay without one. By definition."""
        return len(self.holes) - len(self.liners)


def allowed_of(problem: Matching, outside: Sequence[Sequence[bool]]) -> Allowed:
    """Return which liner may go into which hole and is in there; a locked hole takes its own alone. By definition."""
    allowed = ~np.array(outside, dtype=bool)
    for hole in problem.holes:
        if (kept := problem.stays(hole)) is not None:
            others = np.arange(allowed.shape[1]) != kept
            allowed[hole, others] = False
            allowed[np.arange(allowed.shape[0]) != hole, kept] = False
    return allowed


def matched_of(allowed: Allowed) -> NDArray[np.intp]:
    """Return the liner of each hole in a largest matching, −1 for none. Hopcroft and Karp [2]_."""
    return np.asarray(maximum_bipartite_matching(csr_array(allowed), perm_type="column"))


def too_few(allowed: Allowed) -> TooFew | None:
    """Name the holes that have too few liners between them; None where every hole can be filled.

    Parameters
    ----------
    allowed : array of bool, shape (holes, liners)
        Which liner is in in which hole.

    Returns
    -------
    TooFew or None
        Every hole that can be reached from an empty one by giving a liner up and taking another: those share all the
        liners that any of them can have, which is fewer than they are, and so the proof, Hall [1]_.
    """
    matched = matched_of(allowed)
    reached = [int(one) for one in np.flatnonzero(matched < 0)]
    if not reached:
        return None
    owner = {int(liner): hole for hole, liner in enumerate(matched) if liner >= 0}
    liners: set[int] = set()
    # Holes are added while they are walked over: each liner brings the hole that has it.
    for hole in reached:
        for liner in map(int, np.flatnonzero(allowed[hole])):
            if liner not in liners:
                liners.add(liner)
                reached.append(owner[liner])
    return TooFew(tuple(sorted(reached)), tuple(sorted(liners)))


def least_widening(short: NDArray[np.int64]) -> int | None:
    """Return the least by which a limit has to give way for every hole to be filled; None where nothing helps.

    Parameters
    ----------
    short : array of int, shape (holes, liners)
        By how much each liner misses the limit in each hole, nought where it keeps it, negative where it cannot go
        there whatever the limit. [nm]

    Returns
    -------
    int or None
        The least of those numbers at which a matching fills every hole. [nm]

    Notes
    -----
    A wider limit lets in no less, so the least is found by halving; each step is a largest matching [2]_.
    """
    steps = np.unique(short[short >= 0])
    low, high = 0, len(steps)
    while low < high:
        middle = (low + high) // 2
        filled = (matched_of((short >= 0) & (short <= steps[middle])) >= 0).all()
        low, high = (low, middle) if filled else (middle + 1, high)
    return int(steps[low]) if low < len(steps) else None


def one_more_for(allowed: Allowed) -> int | None:
    """Return a hole for which one more liner, made for it, would let every other be filled; None where one is too few.

    By leaving it out: the largest matching of the others [2]_.
    """
    for hole in range(allowed.shape[0]):
        if (matched_of(np.delete(allowed, hole, axis=0)) >= 0).all():
            return hole
    return None
