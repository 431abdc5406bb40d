"""What limits a matching, in words: the proof that no exchange does it, and the smallest thing that would.

References
----------
.. [1] P. Hall, J. London Math. Soc. s1-10 (1935) 26: as in ``why_not``.
"""

from collections import Counter
from dataclasses import dataclass
from decimal import Decimal
from math import perm

import numpy as np
from numpy.typing import NDArray

from vallostasis.core.block_plans.problem import nanometres
from vallostasis.core.matching.of_job import BlockMatching
from vallostasis.core.matching.problem import Goal
from vallostasis.core.matching.ways import PRESS, PROTRUSION, Ways
from vallostasis.core.matching.why_not import TooFew, allowed_of, least_widening, one_more_for, too_few
from vallostasis.core.notation.lengths import both_size, micrometres
from vallostasis.core.protrusion.measured import flange_part
from vallostasis.core.records.job_facts import JobFacts


@dataclass(frozen=True, slots=True)
class WhatLimits:
    """Why no exchange puts all in, as a proof in words; what would; and what the locks cost. Empty where all are in.

    ``outside`` is how many holes an exchange leaves outside at best, of ``orders`` orders of the liners.
    """

    proof: tuple[str, ...] = ()
    helps: tuple[str, ...] = ()
    locks: str = ""
    orders: int = 0
    outside: int = 0


def what_limits(facts: JobFacts, found: BlockMatching) -> WhatLimits:
    """Say what keeps an exchange from putting every liner in, and the smallest thing that would.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job, for the flanges.
    found : BlockMatching
        The best arrangement. [m]

    Returns
    -------
    WhatLimits
        By Hall's theorem [1]_: holes that have fewer liners between them than they are. [m]
    """
    orders = perm(len(found.table.liners), len(found.table.holes))
    allowed = allowed_of(found.problem, found.problem.outside)
    limited = too_few(allowed)
    locks = _locks(found)
    if limited is None:
        return WhatLimits(locks=locks, orders=orders)
    proof = _proof(facts, found, limited)
    helps = [*_liner(facts, found.table, allowed, limited), *_limits(found, facts), *_cuts(found)]
    return WhatLimits(proof, tuple(helps), locks, orders, limited.short)


def _many(words: list[str]) -> str:
    return words[0] if len(words) == 1 else f"{', '.join(words[:-1])} and {words[-1]}"


def _holes(table: Ways, places: tuple[int, ...]) -> str:
    numbers = [str(table.holes[at].number) for at in places]
    return f"{'Hole' if len(numbers) == 1 else 'Holes'} {_many(numbers)}"


def _size(value_m: float) -> str:
    return both_size(micrometres(value_m))


def _small(value_nm: int) -> str:
    um = Decimal(value_nm) / 1000
    return f"{um:.0f} µm ({um / Decimal('25.4'):.1f} thou)"


def flange_wanted(facts: JobFacts, table: Ways, at: int) -> tuple[float, float] | None:
    """Return the thinnest and the thickest flange with which a hole is in, its ± taken off. [m]

    What a liner misses is what its flange misses: the sum of the stack turned over, common practice.
    """
    for liner, stands in zip(table.liners, table.rows[at], strict=True):
        flange = flange_part(facts, liner, facts.card.measuring.land)
        if table.of != PROTRUSION or flange is None or table.now[at] == liner.mark:
            continue
        value, u = stands.value.value_m, stands.value.expanded_m
        return flange.size_m + stands.least_m + u - value, flange.size_m + stands.greatest_m - u - value
    return None


def _proof(facts: JobFacts, found: BlockMatching, limited: TooFew) -> tuple[str, ...]:
    """The holes, what they ask for, and the liners that have it and may move. Hall [1]_ of the module."""
    table = found.table
    marks = [table.liners[one].mark for one in limited.liners]
    locked = [found.problem.stays(at) for at in found.problem.holes]
    others = [one for one in found.problem.liners if one not in limited.liners and one not in locked]
    too_low = all(table.rows[at][one].value.value_m < table.rows[at][one].least_m + table.rows[at][one].value.expanded_m
                  for at in limited.holes for one in others)  # fmt: skip
    too_high = all(table.rows[at][one].value.value_m
                   > table.rows[at][one].greatest_m - table.rows[at][one].value.expanded_m
                   for at in limited.holes for one in others)  # fmt: skip
    wanted = [one for at in limited.holes if (one := flange_wanted(facts, table, at)) is not None]
    single = len(limited.holes) == 1
    asks = f"{_holes(table, limited.holes)} {'asks' if single else 'ask'} for "
    if len(wanted) == len(limited.holes) and (too_low or too_high) and others:
        edge = min(one[0] for one in wanted) if too_low else max(one[1] for one in wanted)
        asks += f"{'a flange' if single else 'flanges'} of {_size(edge)} or {'more' if too_low else 'less'}."
    elif table.of == PRESS:
        asks += "a tighter liner." if too_low else "liners of another outside."
    else:
        asks += "flanges that lie between its limits." if single else "flanges that lie between their limits."
    if not marks:
        return (asks, f"No liner {'that may move ' if any(one is not None for one in locked) else ''}has that.")
    may_move = " and may move" if any(one is not None for one in locked) else ""
    has = f"Only {_many(marks)} {'has' if len(marks) == 1 else 'have'} that{may_move}: {len(limited.holes)} "
    return (asks, has + f"holes, {len(marks)} {'liner' if len(marks) == 1 else 'liners'}.")


def _liner(facts: JobFacts, table: Ways, allowed: NDArray[np.bool_], limited: TooFew) -> list[str]:
    at = one_more_for(allowed)
    if at is None:
        return [f"{limited.short} more liners that fit {_holes(table, limited.holes).lower()}"]
    wanted = flange_wanted(facts, table, at)
    number = table.holes[at].number
    if wanted is None or wanted[0] > wanted[1]:
        return []
    return [f"one liner with a flange of {_size(wanted[0])} to {_size(wanted[1])}, for hole {number}"]


def _short(found: BlockMatching, *, below: bool) -> NDArray[np.int64]:
    """By how much each liner misses one limit in each hole; −1 where it misses the other or may not go there. [nm]"""
    table = found.table
    free = allowed_of(found.problem, [[False] * len(row) for row in table.rows])
    short = np.zeros(free.shape, dtype=np.int64)
    for at, row in enumerate(table.rows):
        for one, stands in enumerate(row):
            u = stands.value.expanded_m
            low = nanometres(stands.least_m + u - stands.value.value_m)
            high = nanometres(stands.value.value_m - stands.greatest_m + u)
            misses, other = (low, high) if below else (high, low)
            short[at, one] = -1 if other > 0 or not free[at, one] else max(0, misses)
    return short


def _limits(found: BlockMatching, facts: JobFacts) -> list[str]:
    """The least by which one limit of the card would have to give way: never a wish, always its owner's word. [nm]"""
    if found.table.of != PROTRUSION:
        return []
    told = []
    for below, words in ((True, "a least protrusion {} lower"), (False, "a greatest protrusion {} higher")):
        by = least_widening(_short(found, below=below))
        if by:
            told.append(words.format(_small(by)) + ", if who owns the limit agrees")
    return told


def _cuts(found: BlockMatching) -> list[str]:
    if found.table.of == PRESS:
        return []
    if found.table.cutting is None:
        return [found.table.why_no_cut] if found.table.why_no_cut else []
    sizes = Counter(one.shim_m for one in found.holes if one.shim_m is not None)
    if not sizes:
        return []
    cut = [str(one.hole) for one in found.holes if one.cut is not None]
    if len(cut) == 1:
        return [f"a cut in hole {cut[0]} on a shim of {_size(min(sizes))}"]
    shims = _many([f"{count} of {_size(size)}" for size, count in sorted(sizes.items())])
    return [f"cuts in holes {_many(cut)} on shims, {shims}"]


def _locks(found: BlockMatching) -> str:
    """What the locked liners cost: the first goal that is better without them. By comparison."""
    if found.unlocked is None:
        return ""
    for with_locks, free in zip(found.matched.reached, found.unlocked.reached, strict=False):
        if with_locks.value > free.value:
            of = with_locks.what
            values = [_small(one.value) if of in (Goal.ADJACENT, Goal.SPREAD, Goal.HONING) else str(one.value)
                      for one in (with_locks, free)]  # fmt: skip
            return f"The locks cost: {of.value} {values[0]}, without them {values[1]}."
    return "The locks cost nothing."
