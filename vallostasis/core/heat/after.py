"""After a drop: how long it is held down, what its height did as it cooled, and what that says of the school.

References
----------
.. [1] GUM 5.1.2 (JCGM 100:2008): a difference of two readings of one gauge at one place.
.. [2] ISO 1: between seat and deck block and liner grow each by its own expansion.
"""

from dataclasses import dataclass
from enum import StrEnum
from math import exp, log, sqrt

from vallostasis.core.fits.going_in import liner_length_m
from vallostasis.core.fits.hot import height_change
from vallostasis.core.fits.hot_hold import grows_of
from vallostasis.core.heat.live import LiveWindow, spreads_learned
from vallostasis.core.heat.planner import HELD_K, HeatFit
from vallostasis.core.heat.run import DropNow
from vallostasis.core.notation.lengths import metres
from vallostasis.core.records.fit_terms import SeatAt
from vallostasis.core.records.heat_runs import HEIGHTS, HeatMarkKind
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.trail import Phrase, Term

# A depth gauge read again at one place of a clean deck, as a standard deviation. [m] Common practice.
HEIGHT_OFF_M = 3e-6
COVERAGE = 2.0


@dataclass(frozen=True, slots=True)
class HoldDown:
    """How long it is held: how warm the block is now, when it comes within 5 K of the room. [°C], [s]

    ``reads`` are those of the block that this is worked out from.
    """

    block_c: float
    air_c: float
    until_s: float
    reads: int
    is_cold: bool


class Settles(StrEnum):
    """What heights after a drop say."""

    NOT_TOLD = "not told yet"
    STAYED = "stayed on its seat"
    LIFTED = "lifted off its seat"
    SANK = "went down as it cooled"


@dataclass(frozen=True, slots=True)
class Heights:
    """Heights at one place after a drop, and what they say. [m]

    ``grew_m`` is what both grow apart between the first and the cold one, ``lifted_m`` what is left of the difference;
    ``pressed_m`` how far a second press took it down; each within ``within_m``.
    """

    warm_m: float | None
    cold_m: float | None
    again_m: float | None
    grew_m: float | None
    lifted_m: float | None
    pressed_m: float | None
    within_m: float
    settles: Settles
    says: Phrase


def hold_down(fit: HeatFit, now: DropNow, live: LiveWindow, now_s: float) -> HoldDown:
    """Say how long a liner is held down.

    Parameters
    ----------
    fit : HeatFit
        The fit.
    now : DropNow
        The drop.
    live : LiveWindow
        Its window.
    now_s : float
        Seconds since the liner left the cold. [s]

    Returns
    -------
    HoldDown
        Exponential by all readings of the block so far, closed form; cold within 5 K: common practice. [s], [°C]
    """
    reads = now.warmths(HeatMarkKind.BLOCK_READ)
    # A liner that sits in it hardly cools a block: readings after entering count here as well.
    spreads = spreads_learned(fit.sizes, live.planned, live.air_c, (), reads)
    away = spreads.block_c - live.air_c
    until = spreads.block_s * log(abs(away) / HELD_K) if abs(away) > HELD_K else 0.0
    block_c = live.air_c + away * exp(-now_s / spreads.block_s)
    last = reads[-1].celsius if reads else None
    is_cold = abs((block_c if last is None else last) - live.air_c) <= HELD_K
    return HoldDown(block_c, live.air_c, until, len(reads), is_cold)


def heights_of(facts: JobFacts, now: DropNow, air_c: float) -> Heights:
    """Say what the heights of a liner after its drop show.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    now : DropNow
        The drop.
    air_c : float
        Of the room. [°C]

    Returns
    -------
    Heights
        Differences of one gauge at one place [1]_, the growth between seat and deck taken off [2]_ of the module. [m]
    """
    warm, cold, again = (_height(now, kind) for kind in HEIGHTS)
    within = COVERAGE * sqrt(2) * HEIGHT_OFF_M
    grew = _grew(facts, now, air_c)
    lifted = None if warm is None or cold is None or grew is None else cold - warm - grew
    pressed = None if cold is None or again is None else cold - again
    settles = _settles(lifted, pressed, within)
    terms = tuple(Term(name, value) for name, value in (("l", lifted), ("p", pressed)) if value is not None)
    return Heights(warm, cold, again, grew, lifted, pressed, within, settles,
                   Phrase(_words(settles, lifted, pressed, warm, cold), terms))  # fmt: skip


def _settles(lifted: float | None, pressed: float | None, within: float) -> Settles:
    if pressed is not None:
        return Settles.LIFTED if pressed > within else Settles.STAYED
    if lifted is None:
        return Settles.NOT_TOLD
    if lifted < -within:
        return Settles.SANK
    return Settles.LIFTED if lifted > within else Settles.NOT_TOLD if lifted > 0.5 * within else Settles.STAYED


def _words(settles: Settles, lifted: float | None, pressed: float | None, warm: float | None,
           cold: float | None) -> str:  # fmt: skip
    if settles is Settles.NOT_TOLD:
        if warm is None:
            return "Read the height at one place at once: what it does as it cools settles the school for this engine."
        if cold is None:
            return "Read the same place again once block and room are within 5 K, then press once more and read again."
        return "Too near to tell: press once more with the clamp or press, and read the same place again."
    if settles is Settles.SANK:
        return "It went down by {l} beyond what both grow apart: it was not home yet when it was read at once."
    moved = "a second press took it down by {p}" if pressed is not None else "it rose by {l} as the block cooled"
    if settles is Settles.LIFTED:
        return f"The block lifted it off its seat: {moved}. On this engine press cold, or hold it down until cold."
    if pressed is None:
        return "It stayed on its seat as the block cooled: {l} is within what the gauge repeats."
    return "It stayed on its seat: a second press moved it {p}. Hot and held down is good enough on this engine."


def _height(now: DropNow, kind: HeatMarkKind) -> float | None:
    mark = now.last(kind)
    return None if mark is None or mark.height_um is None else metres(mark.height_um)


def _grew(facts: JobFacts, now: DropNow, air_c: float) -> float | None:
    """How much higher it stands cold than as it was read at once, seat and all. [m] ISO 1 [2]_ of the module."""
    warm = now.last(HeatMarkKind.HEIGHT_WARM)
    if warm is None:
        return None
    reads = [one for one in now.warmths(HeatMarkKind.BLOCK_READ) if one.seconds <= now.seconds(warm.noted_at)]
    block_c = reads[-1].celsius if reads else float(now.run.block_c)
    grows, stands = grows_of(facts), stands_m(facts)
    # Once it is home a thin liner comes to the temperature of its block.
    return height_change(stands, grows, air_c, air_c) - height_change(stands, grows, block_c, block_c)


def stands_m(facts: JobFacts) -> float:
    """Return how far below the deck a liner is seated. [m] By its card: seat depth, else flange or length."""
    card = facts.card
    depth = card.fits.seat_depth.metres
    if depth is not None:
        return depth
    return card.seat.flange_nominal.metres or 0.0 if card.fits.seat is SeatAt.TOP else liner_length_m(card) or 0.0
