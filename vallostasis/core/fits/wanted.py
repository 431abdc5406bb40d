"""The press that is wanted, and which of the two parts is sized to reach it: what the card and the job say."""

from dataclasses import dataclass
from enum import StrEnum

from vallostasis.core.operations import schools
from vallostasis.core.operations.schools import side_of
from vallostasis.core.records.fit_terms import FitWindow
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.limits import Limit, SourceStatus
from vallostasis.core.records.spec_card import SpecCard

LIGHT, FIRM = "light", "firm"


class Sizing(StrEnum):
    """Which part gives way to reach the press."""

    BLOCK = "size the block"
    SLEEVE = "size the sleeve"


@dataclass(frozen=True, slots=True)
class Wanted:
    """A press that is wanted, on the diameter, and how it is known. [m]"""

    school: str
    least_m: float | None
    aim_m: float | None
    greatest_m: float | None
    source: str
    status: SourceStatus


def wanted_by_card(card: SpecCard, school: str) -> Wanted | None:
    """Return what the card wants by one school; None where it says nothing of it. House rule."""
    window: FitWindow = card.fits.light if school == LIGHT else card.fits.firm
    told: list[Limit] = [one for one in (window.aim, window.least, window.greatest) if one.length is not None]
    if not told:
        return None
    least, aim, greatest = window.least.metres, window.aim.metres, window.greatest.metres
    if aim is None and least is not None and greatest is not None:
        aim = (least + greatest) / 2
    return Wanted(school, least, aim, greatest, told[0].source, told[0].status)


def school_of_press(facts: JobFacts) -> str:
    """Return the press that a job follows: its own choice, or what its card knows. House rule."""
    chosen = FIRM if side_of(facts, schools.PRESS) == schools.FIRM else LIGHT
    if schools.PRESS not in facts.schools and wanted_by_card(facts.card, chosen) is None:
        return FIRM
    return chosen


def wanted_of(facts: JobFacts, school: str | None = None) -> Wanted | None:
    """Return the press wanted by a school, by the one that the job follows where none is named. House rule."""
    return wanted_by_card(facts.card, school or school_of_press(facts))


def sizing_of(facts: JobFacts) -> Sizing:
    """Return which part a job sizes. House rule: the school of the job."""
    return Sizing.SLEEVE if side_of(facts, schools.SIZING) == schools.SIZE_SLEEVE else Sizing.BLOCK
