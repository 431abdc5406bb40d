"""What hands felt against what was expected: a liner that should have dropped and had to be driven has a reason.

Causes and their order are common practice, no published source: first what this run itself shows, then what it cannot.
"""

from dataclasses import dataclass

from vallostasis.core.heat.live import LiveWindow
from vallostasis.core.heat.planner import Drops, drops
from vallostasis.core.heat.run import DropNow
from vallostasis.core.records.heat_runs import HeatMarkKind
from vallostasis.core.trail import Phrase, Term

# How it went for each feel: harder has the greater number.
HARDNESS = {HeatMarkKind.DROPPED: 0, HeatMarkKind.PUSHED: 1, HeatMarkKind.DROVE: 2, HeatMarkKind.STUCK: 3}
# A part this much off what was planned is said. [K] House rule.
OFF_PLAN_K = 3.0
# Later than planned by more is said. [s] House rule.
LATE_S = 2.0
WHAT_NOBODY_SAW = (
    "Was it square as it entered? A liner one degree off touches on two sides, whatever its clearance.",
    "Edge of the hole, chamfer and lead-in: feel for a burr, look for a bright line on the liner.",
    "Read hole and outside again once both are at room temperature: sizes read warm, oval, or at another depth.",
    "Had both soaked through? A face that is warm says little of the wall behind it.",
)


@dataclass(frozen=True, slots=True)
class Felt:
    """How a liner went in, what was expected at that moment [s], [m], and where to look where it went harder.

    ``clear`` is the lower edge of the band, its likely course and its upper edge.
    """

    kind: HeatMarkKind
    at_s: float
    clear: tuple[float, float, float]
    expected: Drops
    is_harder: bool
    says: Phrase
    looks: tuple[str, ...]


def felt_of(now: DropNow, live: LiveWindow) -> Felt | None:
    """Say how a liner went in against what was expected of it.

    Parameters
    ----------
    now : DropNow
        The drop.
    live : LiveWindow
        Its window, by all that was read until it entered.

    Returns
    -------
    Felt or None
        None until it is felt. Common practice, no published source.
    """
    mark = now.last(*HARDNESS)
    if mark is None:
        return None
    at_s = now.seconds(mark.noted_at)
    clear = live.window.at(at_s)
    low, _, high = clear
    wanted = float(now.run.wanted_um) * 1e-6
    expected, hard = drops(low, wanted), HARDNESS[mark.kind]
    easiest = 0 if high > 0 else 2
    hardest = {Drops.FREELY: 0, Drops.PUSH: 1, Drops.GRABS: 3}[expected]
    terms = (Term("low", low), Term("high", high))
    if hard > hardest:
        text = f"It was {mark.kind.value} with {{low}} to {{high}} clear: it should have gone in more easily."
    elif hard < easiest:
        text = (
            f"It {mark.kind.value} where the sum has {{low}} to {{high}}: hole or liner is not the size that was read."
        )
    else:
        word = "dropped" if mark.kind is HeatMarkKind.DROPPED else f"was {mark.kind.value}"
        text = f"It {word} with {{low}} to {{high}} clear: as expected."
    is_harder = hard > hardest
    looks = (*_seen(now, live, at_s), *WHAT_NOBODY_SAW) if is_harder else _seen(now, live, at_s) if hard else ()
    return Felt(mark.kind, at_s, clear, expected, is_harder, Phrase(text, terms), looks)


def _seen(now: DropNow, live: LiveWindow, at_s: float) -> tuple[str, ...]:
    """What this run itself shows of why it went hard. [s], [K] Common practice."""
    run, found = now.run, []
    late = live.enter_s - float(run.enter_s)
    if late > LATE_S:
        found.append(f"It entered {late:.0f} s later than planned.")
    stayed = at_s - live.enter_s - float(run.home_s)
    if stayed > LATE_S:
        found.append(f"It took {stayed:.0f} s longer than planned from entering to home: the gap closes by the second.")
    home_by = live.window.home_by_s
    if home_by is not None and at_s > home_by:
        found.append(f"Home {at_s - home_by:.0f} s after the window had closed.")
    colder = float(run.block_c) - live.spreads.block_c
    if live.block_reads and colder > OFF_PLAN_K:
        found.append(f"The block was {colder:.0f} K colder than planned as the liner came out.")
    warmer = live.spreads.liner_c - float(run.liner_c)
    if live.liner_reads and warmer > OFF_PLAN_K:
        found.append(f"The liner was {warmer:.0f} K warmer than planned as it came out.")
    if not live.block_reads or not live.liner_reads:
        part = "block" if not live.block_reads else "liner"
        found.append(f"Nobody read the {part}: its temperature is the one that was planned.")
    if not any(one.kind is HeatMarkKind.WIPED for one in now.marks):
        found.append("It was not wiped: frost takes from the gap on both sides.")
    return tuple(found)
