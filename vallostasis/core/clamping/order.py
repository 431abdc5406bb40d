"""In which order bolts are turned: from the middle outward in two rows, crosswise round a circle.

References
----------
.. [1] ASME PCC-1, Guidelines for Pressure Boundary Bolted Flange Joint Assembly: the star pattern (from memory).
"""

from vallostasis.core.errors import OutOfDomain

FEWEST, MOST = 2, 64


def order_of_rows(bolts: int) -> tuple[int, ...]:
    """Order of bolts that stand in two rows, numbered across and then along: 1 and 2 are the first pair.

    Parameters
    ----------
    bolts : int
        How many. [1]

    Returns
    -------
    tuple of int
        The middle pair first, then outward to either side by turns, each pair across the one before. [1]

    Raises
    ------
    OutOfDomain
        If there are fewer than two bolts, or more than 64.

    Notes
    -----
    A plate that is drawn down from its ends bridges in the middle. Common practice, no published source. A bolt without
    a partner stands alone at the end.
    """
    _require(bolts)
    pairs = [tuple(one for one in (first, first + 1) if one <= bolts) for first in range(1, bolts + 1, 2)]
    middle = (len(pairs) - 1) / 2
    outward = sorted(range(len(pairs)), key=lambda at: (abs(at - middle), at))
    return tuple(
        bolt for turn, at in enumerate(outward) for bolt in (pairs[at] if turn % 2 == 0 else reversed(pairs[at]))
    )


def order_of_circle(bolts: int) -> tuple[int, ...]:
    """Order of bolts round a circle, numbered round it.

    Parameters
    ----------
    bolts : int
        How many. [1]

    Returns
    -------
    tuple of int
        Each with the one opposite after it, and then across: the star pattern of [1]_ of the module. [1]

    Raises
    ------
    OutOfDomain
        If there are fewer than two bolts, or more than 64.
    """
    _require(bolts)
    half, quarter = bolts // 2, bolts // 4
    if bolts % 4 == 0:
        return tuple(one for at in _apart(quarter) for one in (at, at + half, at + quarter, at + half + quarter))
    if bolts % 2 == 0:
        return tuple(one for at in _apart(half) for one in (at, at + half))
    # An odd circle has no bolt opposite: the next one but half lies nearest to it.
    return tuple((turn * half) % bolts + 1 for turn in range(bolts))


def _apart(many: int) -> list[int]:
    """1 to ``many`` so that neighbours are not turned one after the other: odd ones first."""
    return [*range(1, many + 1, 2), *range(2, many + 1, 2)] if many > 3 else list(range(1, many + 1))


def _require(bolts: int) -> None:
    if not FEWEST <= bolts <= MOST:
        raise OutOfDomain(f"there are {bolts} bolts: this takes {FEWEST} to {MOST}", "bolts")
