"""Exercises on paper: facts drawn from the seed, one thing or several asked, one slip after the other.

A slip knows its right answers and the answers that a trap leads to; no wrong answer of any seed lies nearer to the
right one than three times what would still do.
"""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace

from vallostasis.core.practice.draws import Draws
from vallostasis.core.practice.exercise import (
    NOTHING,
    Area,
    Exercise,
    Field,
    FieldKind,
    Judged,
    Move,
    Offer,
    Position,
    Scored,
    TrapMet,
    say,
    scored_length,
    scored_number,
    scored_word,
)
from vallostasis.core.practice.pictures import Fact, FactsPicture, Picture
from vallostasis.core.trail import Kind, Phrase, Step

# A wrong answer lies at least so many times farther off than what would still do. House rule.
SHOWS_BY = 3.0


@dataclass(frozen=True, slots=True)
class Wrong:
    """An answer that a trap leads to, and what a warning would have said."""

    trap: str
    value: float | str
    words: Phrase


@dataclass(frozen=True, slots=True)
class Asked:
    """One thing asked: a length [m], a number in its unit, or a choice; ``at_most`` is how far off would still do."""

    skill: str
    name: str
    label: str
    right: float | str
    at_most: float = 0.0
    unit: str = ""
    choices: tuple[str, ...] = ()
    wrong: tuple[Wrong, ...] = ()
    shown_as: Kind = "small"

    @property
    def field(self) -> Field:
        """The field it is typed in."""
        if self.choices:
            return Field(self.name, self.label, FieldKind.CHOICE, self.choices, usual=self.choices[0])
        kind = FieldKind.NUMBER if self.unit else FieldKind.LENGTH
        most = 1e6 if self.unit else 3.0
        return Field(self.name, self.label, kind, (), -most, most, self.unit)

    def is_right(self, given: float | str) -> bool:
        """Within what would still do. House rule."""
        if isinstance(self.right, str) or isinstance(given, str):
            return given == self.right
        return abs(given - self.right) <= self.at_most * (1 + 1e-9) + 1e-12

    def stepped_into(self, given: float | str) -> Wrong | None:
        """The trap whose answer was given; None for the right one and for any other."""
        if self.is_right(given):
            return None
        return next((one for one in self.wrong if self._is(given, one.value)), None)

    def _is(self, given: float | str, value: float | str) -> bool:
        if isinstance(given, str) or isinstance(value, str):
            return given == value
        return abs(given - value) <= self.at_most * (1 + 1e-9) + 1e-12

    def scored(self, given: float | str) -> Scored:
        """Score an answer."""
        if isinstance(self.right, str):
            return scored_word(self.skill, self.label, str(given), self.right)
        value = given if not isinstance(given, str) else None
        if self.unit:
            return scored_number(self.skill, self.label, value or 0.0, round(self.right, 4), self.at_most, self.unit)
        return scored_length(self.skill, self.label, value, self.right, self.at_most, self.shown_as)


@dataclass(frozen=True, slots=True)
class Slip:
    """One sheet: a sentence, facts, pictures, what is asked; the sum behind it for afterwards."""

    headline: Phrase
    facts: tuple[Fact, ...]
    asked: tuple[Asked, ...]
    pictures: tuple[Picture, ...] = ()
    steps: tuple[Step, ...] = ()
    words: Phrase = NOTHING
    say: str = ""
    caution: str = ""
    title: str = "On the slip"


@dataclass(frozen=True, slots=True)
class Slips:
    """What a seed draws: the slips in their order; ``seconds`` is what is allowed for all, nought for no clock.

    ``shows_all`` shows each of them again afterwards, not only what was missed.
    """

    slips: tuple[Slip, ...]
    seconds: float = 0.0
    clock_skill: str = "in time"
    shows_all: bool = False


def position(truth: Slips, moves: Sequence[Move]) -> Position:
    """Show the slip that is next. House rule: one after the other, none taken back."""
    if len(moves) >= len(truth.slips):
        return Position(say("Answered."), (), (), ())
    slip = truth.slips[len(moves)]
    many = len(truth.slips)
    head = slip.headline if many == 1 else Phrase(f"{len(moves) + 1} of {many}. {slip.headline.text}",
                                                   slip.headline.terms)  # fmt: skip
    sheet = FactsPicture(slip.title, slip.facts, slip.say)
    shown = (sheet, *slip.pictures) if slip.facts or slip.say else slip.pictures
    offer = Offer("answer", "That is it" if len(moves) + 1 == many else "Next", tuple(one.field for one in slip.asked),
                  caution=slip.caution, last=True)  # fmt: skip
    at_s = moves[-1].at_s if moves else 0.0
    allowed = (say(f"{truth.seconds:.0f} s are allowed for all {many}."),) if truth.seconds else ()
    return Position(head, allowed, shown, (offer,), rate=1.0 if truth.seconds else 0.0, at_s=at_s)


def judged(truth: Slips, moves: Sequence[Move]) -> Judged:
    """Hold every answer against its slip."""
    scored, traps = list(_scored(truth, moves)), tuple(_traps(truth, moves))
    if truth.seconds:
        took = moves[-1].at_s
        scored.append(Scored(truth.clock_skill, "time", say(f"{took:.0f} s"), NOTHING, NOTHING,
                             say(f"{truth.seconds:.0f} s"), 10 if took <= truth.seconds else 0))  # fmt: skip
    missed = [one for one in scored if not one.is_full]
    head = say("Every one right.") if not missed else say(f"Not yet: {missed[0].skill}.")
    pictures = tuple(
        picture
        for at, (slip, move) in enumerate(zip(truth.slips, moves, strict=True), start=1)
        if truth.shows_all or len(truth.slips) == 1 or not _is_right(slip, move)
        for picture in (_looked_at_again(slip, move, at if len(truth.slips) > 1 else 0), *slip.pictures)
    )
    steps = tuple(step for slip in truth.slips for step in slip.steps)
    words = tuple(slip.words for slip in truth.slips if slip.words.text)
    return Judged(head, tuple(scored), traps, pictures, steps, words)


def _is_right(slip: Slip, move: Move) -> bool:
    return all(one.is_right(move.given[one.name]) for one in slip.asked)


def _looked_at_again(slip: Slip, move: Move, number: int) -> FactsPicture:
    """The sheet with what was answered and what is right; its number where there are several."""
    title = f"{number}: {slip.headline.text}" if number else slip.title
    return FactsPicture(title, (*slip.facts, *_answers(slip, move)))


def _answers(slip: Slip, move: Move) -> Iterator[Fact]:
    for one in slip.asked:
        scored = one.scored(move.given[one.name])
        yield Fact(f"yours: {one.label}", scored.yours, "yours" if scored.is_full else "wrong")
        yield Fact(f"right: {one.label}", scored.truth, "truth")


def _scored(truth: Slips, moves: Sequence[Move]) -> Iterator[Scored]:
    many = len(truth.slips)
    for at, (slip, move) in enumerate(zip(truth.slips, moves, strict=True), start=1):
        for one in slip.asked:
            scored = one.scored(move.given[one.name])
            name = one.skill if one.choices else scored.name
            yield replace(scored, name=name if many == 1 else f"{at}: {name}")


def _traps(truth: Slips, moves: Sequence[Move]) -> Iterator[TrapMet]:
    for at, (slip, move) in enumerate(zip(truth.slips, moves, strict=True)):
        for one in slip.asked:
            wrong = one.stepped_into(move.given[one.name])
            if wrong is not None and wrong.trap:
                yield TrapMet(wrong.trap, at, wrong.words)


def slips_exercise(name: str, area: Area, title: str, task: str, minutes: int, draw: Callable[[Draws], Slips]
                   ) -> Exercise[Slips]:  # fmt: skip
    """Return an exercise of slips; its skills and traps are those of what it asks."""
    sample = draw(Draws(name, 0))
    asked = [one for slip in sample.slips for one in slip.asked]
    skills = tuple(dict.fromkeys([one.skill for one in asked] + ([sample.clock_skill] if sample.seconds else [])))
    traps = tuple(dict.fromkeys(wrong.trap for one in asked for wrong in one.wrong if wrong.trap))
    return Exercise(name, area, title, task, minutes, skills, traps, draw, position, judged)
