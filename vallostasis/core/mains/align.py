"""Whether the mains are align-honed, and why: what calls for it, what would settle it, what it brings with it.

Common practice, no published source: a main that is small, out of round or off the line is honed; one that is big wants
its cap cut first. The crank comes nearer to the deck by about half of what comes off above.
"""

from dataclasses import dataclass
from enum import StrEnum

from vallostasis.core.mains.line import line_of
from vallostasis.core.mains.sizes import Lies, MainNow, mains_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity
from vallostasis.core.trail import Phrase, Term
from vallostasis.core.uncertainty.decision import State


class Align(StrEnum):
    """What is to be done to the line of the mains."""

    LEAVE = "leave them"
    HONE = "align-hone"
    CUT_CAPS = "cut the caps, then align-hone"
    CANNOT_TELL = "cannot tell yet"


@dataclass(frozen=True, slots=True)
class AlignDecision:
    """What is to be done, each reason, and what comes with it. ``take_m`` is what the hone takes at the most. [m]"""

    what: Align
    reasons: tuple[Phrase, ...]
    open_points: tuple[Phrase, ...]
    take_m: float | None
    brings: Phrase | None


def align_decision(facts: JobFacts) -> AlignDecision:
    """Say whether the mains are align-honed.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.

    Returns
    -------
    AlignDecision
        Any one reason is enough. ``take_m`` is from the tightest direction to the middle of the limits. [m]

    Notes
    -----
    House rule on common practice: what cannot be told is no reason, and keeps "leave them" from being said.
    """
    mains, line = mains_of(facts), line_of(facts)
    reasons = [one for main in mains for one in _of_main(main)]
    if line.state is State.OUT:
        reasons.append(line.says)
    wait = [one for main in mains for one in _to_be_read(main)]
    if (line.rows == () and line.missing) or line.state is State.CANNOT_TELL:
        wait.append(line.says)
    big = any(main.lies is Lies.BIG for main in mains)
    what = Align.CUT_CAPS if big else Align.HONE if reasons else Align.CANNOT_TELL if wait else Align.LEAVE
    take = _take(mains) if what is Align.HONE else None
    return AlignDecision(what, tuple(reasons), tuple(wait), take, _brings(take))


def _of_main(main: MainNow) -> list[Phrase]:
    number = Term("n", _number(main), "count")
    if main.lies is Lies.SMALL:
        return [Phrase("Main bore {n} is {s} too small.", (number, Term("s", main.small_m)))]
    if main.lies is Lies.BIG:
        return [Phrase("Main bore {n} is {b} too big: that is not the mirror of too small.",
                       (number, Term("b", main.big_m)))]  # fmt: skip
    if main.lies is Lies.OUT_OF_ROUND and main.out_of_round is not None:
        terms = (number, Term("o", main.out_of_round.value_m), Term("u", main.out_of_round.expanded_m, "within"))
        return [Phrase("Main bore {n} is {o} ±{u} out of round.", terms)]
    return []


def _to_be_read(main: MainNow) -> list[Phrase]:
    number = Term("n", _number(main), "count")
    if main.lies is Lies.READ_AGAIN:
        done = ", ".join(dict.fromkeys(one.words for one in main.between))
        return [Phrase(f"Read main bore {{n}} again: {done or 'the block was worked on'} since.", (number,))]
    if main.lies is Lies.NOT_MEASURED:
        return [Phrase("Read main bore {n}, upright and on both diagonals.", (number,))]
    if main.lies is Lies.CANNOT_TELL:
        return [Phrase("Main bore {n} lies too near to a limit to tell: read it again, or with a finer gauge.",
                       (number,))]  # fmt: skip
    return []


def _number(main: MainNow) -> int:
    return int(main.part.key.rpartition("-")[2])


def _take(mains: tuple[MainNow, ...]) -> float | None:
    """From the tightest direction of all to the middle of the limits. [m]"""
    wanted = [(main.least_m + main.greatest_m) / 2 - main.tightest_m for main in mains
              if main.least_m is not None and main.greatest_m is not None and main.tightest_m is not None]  # fmt: skip
    return max(wanted, default=None)


def _brings(take_m: float | None) -> Phrase | None:
    if take_m is None or take_m <= 0:
        return None
    return Phrase("The hone takes up to {t} on the diameter: the crank comes up to {h} nearer to the deck, compression "
                  "and timing with it.", (Term("t", take_m), Term("h", take_m / 2)))  # fmt: skip


def line_is_out(facts: JobFacts) -> bool:
    """Whether the line of the mains was read and is out. By ``line_of``."""
    return bool(facts.sets_of(Quantity.MAIN_LINE)) and line_of(facts).state is State.OUT
