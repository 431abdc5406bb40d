"""What a person is sure of, what not yet, and which exercise comes next: by what was missed. No certificate.

House rule: sure after three in a row without a miss; the last eight are shown.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from vallostasis.core.practice.exercise import Exercise

SURE_AFTER, SHOWN = 3, 8


@dataclass(frozen=True, slots=True)
class Result:
    """What one exercise came to: its skills, each right or missed; the traps stepped into."""

    exercise: str
    seed: int
    points: int
    of: int
    skills: Mapping[str, bool]
    traps: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Skill:
    """How a skill of an exercise stands: the last results, oldest first."""

    exercise: str
    name: str
    last: tuple[bool, ...]

    @property
    def is_sure(self) -> bool:
        """Right three times in a row."""
        return len(self.last) >= SURE_AFTER and all(self.last[-SURE_AFTER:])


@dataclass(frozen=True, slots=True)
class Next:
    """The exercise to take next, and why."""

    exercise: str
    why: str


def skills_of(results: Sequence[Result], exercises: Sequence[Exercise[Any]]) -> tuple[Skill, ...]:
    """Say how each skill of each exercise stands; results come oldest first."""
    return tuple(
        Skill(one.name, skill, tuple(result.skills[skill] for result in results
                                     if result.exercise == one.name and skill in result.skills)[-SHOWN:])
        for one in exercises
        for skill in one.skills
    )  # fmt: skip


def next_exercise(results: Sequence[Result], exercises: Sequence[Exercise[Any]]) -> Next:
    """Choose what comes next: what was missed most of late, else what was never tried, else what is not yet sure."""
    skills = skills_of(results, exercises)
    missed = [skill for skill in skills if skill.last and not skill.last[-1]]
    if missed:
        worst = max(missed, key=lambda skill: sum(not right for right in skill.last[-SURE_AFTER:]))
        return Next(worst.exercise, f"missed last time: {worst.name}")
    untried = next((one for one in exercises if not any(result.exercise == one.name for result in results)), None)
    if untried is not None:
        return Next(untried.name, "not tried yet")
    unsure = next((skill for skill in skills if not skill.is_sure), None)
    if unsure is not None:
        return Next(unsure.exercise, f"not yet three times right: {unsure.name}")
    return Next(exercises[0].name, "everything is sure: keep your hand in")
