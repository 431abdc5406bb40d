"""The cutter of a job: how truly it stops, and how long a pass takes, as marked or as own runs taught."""

from dataclasses import dataclass

from vallostasis.core.counterbore.cut_plan import CutterTrust
from vallostasis.core.counterbore.learned import HoleCut, LearnedCutter, as_learned, learn
from vallostasis.core.notation.lengths import metres
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once

# One pass with its reset, while nobody knows better. Common practice, no published source. [s]
USUAL_PASS_S = 60.0


def cutter_trust(facts: JobFacts) -> CutterTrust:
    """How truly the cutter of a job stops. [m]

    From the card, where 5 % of graduations is common practice; from five finished runs of that cutter in that material
    on as the shop's own runs taught.
    """
    cutter = facts.card.cutter
    marked = CutterTrust(cutter.graduation.metres, cutter.stop_accuracy.metres, cutter.graduation_error_percent / 100)
    return as_learned(marked, learned_of(facts))


@dataclass(frozen=True, slots=True)
class PassTime:
    """How long a pass takes, and from how many runs that is known; none where it is common practice. [s]"""

    seconds: float
    runs: int

    @property
    def hours(self) -> float:
        """The same in hours, by definition of the hour. [h]"""
        return self.seconds / 3600


def a_pass_of(facts: JobFacts) -> PassTime:
    """Time of one pass with its reset: as own runs taught from five on, else a minute. [s] Common practice."""
    learned = learned_of(facts).pass_s
    if learned is None or not learned.is_enough:
        return PassTime(USUAL_PASS_S, 0)
    return PassTime(learned.value, learned.n)


@once
def learned_of(facts: JobFacts) -> LearnedCutter:
    """What runs taught of the cutter of a job in the material of its block. [m], [s] By ``learn``; GUM G.3.2."""
    name, material = facts.card.cutter.name.casefold(), facts.card.block_material
    return learn(
        [
            HoleCut(float(one.passes), metres(one.change_um), metres(one.off_um), one.pass_s)
            for one in facts.lessons
            if one.cutter.casefold() == name and one.material == material
        ]
    )
