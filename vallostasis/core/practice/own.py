"""An exercise of the shop's own: the heights of a past job, its names removed, and what the shop wants learned of it.

A seed renumbers the holes and asks for three of them; what was read stays as it was read.
"""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from statistics import mean
from typing import Any

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.practice.draws import NM, Draws
from vallostasis.core.practice.exercise import Area, Exercise, say, shown
from vallostasis.core.practice.pictures import Fact, HolePart, HolesPicture
from vallostasis.core.practice.slips import Asked, Slip, Slips, Wrong, judged, position
from vallostasis.core.protrusion.measured import protrusion_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.shapes.clock import hour_name
from vallostasis.core.trail import Phrase, Step, Term

FEWEST_HOLES, FEWEST_READINGS, ASKED = 3, 2, 3
IN, OUT, CANNOT_TELL = "in", "out", "cannot tell"
MEAN, VERDICT = "mean of what was read", "judged with its ±"
# A mean worked out by head and rounded. House rule.
WITHIN_M = 2e-6


@dataclass(frozen=True, slots=True)
class OwnHole:
    """What was read of one hole, by clock. [h], [nm]"""

    hours: tuple[float, ...]
    values_nm: tuple[int, ...]


@dataclass(frozen=True, slots=True)
class OwnExercise:
    """What the shop wrote, and the readings it stands on; ``within_nm`` is the ± of one of them. [nm]"""

    title: str
    words: str
    lesson: str
    within_nm: int
    least_nm: int
    greatest_nm: int
    holes: tuple[OwnHole, ...]


def from_job(facts: JobFacts, title: str, words: str, lesson: str) -> OwnExercise:
    """Take the heights of a job for an exercise; nothing else of it comes along.

    Raises
    ------
    OutOfDomain
        Where too few holes were read, the card has no limits, or a text names the job or somebody in it.

    House rule.
    """
    for field, text in (("title", title), ("words", words), ("lesson", lesson)):
        name = named_in(text, names_of(facts))
        if name:
            raise OutOfDomain(f"“{name}” is a name of that job: say it without names.", field)
    holes, within = [], 0.0
    limits: tuple[float | None, float | None] = (None, None)
    for hole in facts.holes:
        read = [one for one in protrusion_of(facts, hole).places if one.stated is not None and one.rule is not None]
        if len(read) < FEWEST_READINGS:
            continue
        hours = tuple(one.place.hour or 0.0 for one in read)
        holes.append(OwnHole(hours, tuple(round((one.value_m or 0.0) / NM) for one in read)))
        within = max(within, *(one.stated.expanded_m for one in read if one.stated is not None))
        limits = next(((one.rule.least_m, one.rule.greatest_m) for one in read if one.rule is not None), limits)
    if len(holes) < FEWEST_HOLES:
        raise OutOfDomain(f"Heights of {FEWEST_HOLES} holes at least are needed: choose another job.", "job_id")
    if limits[0] is None or limits[1] is None:
        raise OutOfDomain("Its card has no limits for the height: choose another job.", "job_id")
    return OwnExercise(title, words, lesson, round(within / NM), round(limits[0] / NM), round(limits[1] / NM),
                       tuple(holes))  # fmt: skip


def names_of(facts: JobFacts) -> tuple[str, ...]:
    """Return every name by which a job could be known again. By definition of its records."""
    job = facts.job
    makes = (text for liner in facts.liners for text in (liner.make, liner.batch))
    return tuple(one for one in (job.name, job.number, job.customer, job.serial, facts.card.engine, facts.card.name,
                                 *makes) if len(one.strip()) > 2)  # fmt: skip


def named_in(text: str, names: Iterable[str]) -> str:
    """Return the first name that a text holds, whole or one of its longer words; empty where it holds none."""
    words = {word.strip(".,:;!?()“”\"'").casefold() for word in text.split()}
    for name in names:
        parts = [part for part in name.casefold().split() if len(part) > 3]
        if name.casefold() in text.casefold() or any(part in words for part in parts):
            return name
    return ""


def of_row(row: Mapping[str, Any]) -> OwnExercise:
    """Read an exercise back as it was kept. By definition of its fields."""
    holes = tuple(OwnHole(tuple(one["hours"]), tuple(one["values_nm"])) for one in row["holes"])
    return OwnExercise(row["title"], row["words"], row["lesson"], row["within_nm"], row["least_nm"], row["greatest_nm"],
                       holes)  # fmt: skip


def exercise_of(name: str, own: OwnExercise) -> Exercise[Slips]:
    """Return the exercise that can be played."""
    return Exercise(name, Area.OWN, own.title, own.words, 4, (MEAN, VERDICT), (), lambda of: _draw(of, own), position,
                    judged)  # fmt: skip


def _draw(of: Draws, own: OwnExercise) -> Slips:
    order = of.shuffled("holes", own.holes)
    parts = tuple(HolePart(at, round(mean(hole.values_nm)) * NM, "not read") for at, hole in enumerate(order, start=1))
    row = HolesPicture("The block, holes numbered anew: means", tuple(
        HolePart(one.hole, None if one.hole <= ASKED else one.value_m, "not read") for one in parts),
        own.least_nm * NM, own.greatest_nm * NM)  # fmt: skip
    slips = tuple(_slip(own, at, hole, row) for at, hole in enumerate(order[:ASKED], start=1))
    lesson = slips[-1]
    last = Slip(lesson.headline, lesson.facts, lesson.asked, lesson.pictures, lesson.steps, Phrase(own.lesson),
                title=lesson.title)  # fmt: skip
    return Slips((*slips[:-1], last), shows_all=True)


def verdict_of(values_nm: Sequence[int], within_nm: int, least_nm: int, greatest_nm: int) -> str:
    """Say how readings stand to their limits: in and out only beyond their ±. [nm] House rule of every verdict."""
    if any(value + within_nm < least_nm or value - within_nm > greatest_nm for value in values_nm):
        return OUT
    if all(least_nm <= value - within_nm and value + within_nm <= greatest_nm for value in values_nm):
        return IN
    return CANNOT_TELL


def _slip(own: OwnExercise, at: int, hole: OwnHole, row: HolesPicture) -> Slip:
    middle = mean(hole.values_nm)
    right = verdict_of(hole.values_nm, own.within_nm, own.least_nm, own.greatest_nm)
    bare = verdict_of(hole.values_nm, 0, own.least_nm, own.greatest_nm)
    wrong = () if bare == right else (Wrong("", bare, say("Its ± was left out.")),)
    facts = (
        *(Fact(f"at {hour_name(hour)}", shown(value * NM))
          for hour, value in zip(hole.hours, hole.values_nm, strict=True)),
        Fact("each good to", Phrase("±{u}", (Term("u", own.within_nm * NM, "within"),))),
        Fact("allowed", say("{a} to {b}", a=own.least_nm * NM, b=own.greatest_nm * NM), "truth"),
    )  # fmt: skip
    terms = tuple(Term(hour_name(hour), value * NM) for hour, value in zip(hole.hours, hole.values_nm, strict=True))
    step = Step(f"hole {at}", "Σ readings / n", terms, Term("mean", middle * NM), "by definition")
    return Slip(say(f"Hole {at}: its mean, and how it stands."), facts, (
        Asked(MEAN, "mean", "Mean", middle * NM, WITHIN_M),
        Asked(VERDICT, "stands", "It stands", right, choices=(IN, OUT, CANNOT_TELL), wrong=wrong)),
        (row,), (step,), title=f"Hole {at}, cold and held down")  # fmt: skip
