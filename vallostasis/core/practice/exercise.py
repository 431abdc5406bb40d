"""An exercise: what it draws, what the player may do, what he is shown, what it was worth.

An exercise is data and three functions: ``draw`` makes the hidden truth of a seed, ``position`` says what is shown
and offered after some moves, ``judged`` what they were worth. What was done is the list of moves; nothing else is
kept, and nothing is taken back.
"""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Generic, TypeVar

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.practice.draws import Draws
from vallostasis.core.practice.pictures import Picture
from vallostasis.core.trail import Kind, Phrase, Step, Term

Truth = TypeVar("Truth")
Given = Mapping[str, float | str]
MOST_MOVES = 200


class Area(StrEnum):
    """Where of the work an exercise belongs."""

    MEASURE = "measure"
    CUT = "cut"
    FIT = "fit"
    BORE = "bore"
    WHOLE = "whole job"
    OWN = "own"


class FieldKind(StrEnum):
    """What is typed in a field."""

    LENGTH = "length"
    NUMBER = "number"
    CHOICE = "choice"


@dataclass(frozen=True, slots=True)
class Move:
    """One thing the player did, with what he gave, at which second of the practice clock. [m] for lengths, [s]"""

    name: str
    given: Given = field(default_factory=dict)
    at_s: float = 0.0

    def number(self, name: str) -> float:
        """Return a number or length that was given; lengths in [m]."""
        value = self.given[name]
        if isinstance(value, str):
            raise OutOfDomain("Type a number here.", name)
        return value

    def word(self, name: str) -> str:
        """Return a choice that was made."""
        return str(self.given[name])


@dataclass(frozen=True, slots=True)
class Field:
    """Something to give with a move. Numbers and lengths lie between two values, in SI or what ``unit`` says."""

    name: str
    label: str
    kind: FieldKind = FieldKind.LENGTH
    choices: tuple[str, ...] = ()
    least: float = -1.0
    most: float = 1.0
    unit: str = ""
    usual: str = ""


def choice(name: str, label: str, choices: Sequence[str], usual: str = "") -> Field:
    """Return a field that takes one of a few words."""
    return Field(name, label, FieldKind.CHOICE, tuple(choices), usual=usual or choices[0])


def number(name: str, label: str, least: float, most: float, unit: str = "", usual: str = "") -> Field:
    """Return a field that takes a number."""
    return Field(name, label, FieldKind.NUMBER, (), least, most, unit, usual)


def length(name: str, label: str, most: float = 1.0) -> Field:
    """Return a field that takes a length as typed, with its unit or in the unit chosen. [m]"""
    return Field(name, label, FieldKind.LENGTH, (), -most, most)


@dataclass(frozen=True, slots=True)
class Offer:
    """A move that may be made now. ``caution`` is shown with it always; ``last`` ends the exercise."""

    name: str
    label: str
    fields: tuple[Field, ...] = ()
    words: str = ""
    caution: str = ""
    last: bool = False


@dataclass(frozen=True, slots=True)
class Spent:
    """What it took so far: minutes of the shop, money of the demo's currency, metal that is gone. [min], [m]"""

    minutes: float = 0.0
    money: float = 0.0
    metal_m: float = 0.0


@dataclass(frozen=True, slots=True)
class Position:
    """What is shown after some moves: a sentence, what came of each move, pictures, what may be done.

    ``rate`` is how many seconds of the practice clock pass in one, nought where it stands; ``at_s`` where it stood.
    """

    headline: Phrase
    said: tuple[Phrase, ...]
    pictures: tuple[Picture, ...]
    offers: tuple[Offer, ...]
    spent: Spent | None = None
    rate: float = 0.0
    at_s: float = 0.0

    @property
    def is_over(self) -> bool:
        """Nothing is left to do."""
        return not self.offers


@dataclass(frozen=True, slots=True)
class Scored:
    """One thing that counts: what the player found, the truth, how far off, what would still do, points."""

    skill: str
    name: str
    yours: Phrase
    truth: Phrase
    off: Phrase
    at_most: Phrase
    points: int
    of: int = 10

    @property
    def is_full(self) -> bool:
        """All its points were made."""
        return self.points == self.of


@dataclass(frozen=True, slots=True)
class TrapMet:
    """A trap that was stepped into: after which move the warning would have come, and what it would have said."""

    trap: str
    after_move: int
    words: Phrase


@dataclass(frozen=True, slots=True)
class Judged:
    """What the moves were worth, with the truth drawn over them, the sums, and the traps met."""

    headline: Phrase
    scored: tuple[Scored, ...]
    traps: tuple[TrapMet, ...]
    pictures: tuple[Picture, ...]
    steps: tuple[Step, ...] = ()
    words: tuple[Phrase, ...] = ()

    @property
    def points(self) -> int:
        """Points made."""
        return sum(one.points for one in self.scored)

    @property
    def of(self) -> int:
        """Points that could be made."""
        return sum(one.of for one in self.scored)

    @property
    def is_full(self) -> bool:
        """Everything right, no trap met."""
        return self.points == self.of and not self.traps


@dataclass(frozen=True)
class Exercise(Generic[Truth]):
    """One exercise; ``skills`` are what it scores, ``traps`` the mistakes that can be made in it."""

    name: str
    area: Area
    title: str
    task: str
    minutes: int
    skills: tuple[str, ...]
    traps: tuple[str, ...]
    draw: Callable[[Draws], Truth]
    position: Callable[[Truth, Sequence[Move]], Position]
    judged: Callable[[Truth, Sequence[Move]], Judged]

    def truth(self, seed: int) -> Truth:
        """Return the hidden truth of a seed."""
        return self.draw(Draws(self.name, seed))


def check_move(position: Position, move: Move, made: int) -> None:
    """Refuse a move that is not offered, or that is given what its fields do not take.

    Raises
    ------
    OutOfDomain
        Naming the field.
    """
    if made >= MOST_MOVES:
        raise OutOfDomain(f"More than {MOST_MOVES} moves: end this exercise and begin another.", "name")
    offer = next((one for one in position.offers if one.name == move.name), None)
    if offer is None:
        raise OutOfDomain("This cannot be done now: choose one of what is offered.", "name")
    for one in offer.fields:
        if one.name not in move.given:
            raise OutOfDomain("This is needed: fill it in.", one.name)
        _check(one, move)
    known = {one.name for one in offer.fields}
    for name in move.given:
        if name not in known:
            raise OutOfDomain("This is not asked here.", name)


def _check(one: Field, move: Move) -> None:
    if one.kind is FieldKind.CHOICE:
        if move.word(one.name) not in one.choices:
            raise OutOfDomain(f"Choose one of: {', '.join(one.choices)}.", one.name)
        return
    value = move.number(one.name)
    if not one.least <= value <= one.most:
        far = "This is farther than anything here: check the number and its unit."
        within = f"Type a number from {one.least:g} to {one.most:g}."
        raise OutOfDomain(far if one.kind is FieldKind.LENGTH else within, one.name)


def say(text: str, **lengths_m: float) -> Phrase:
    """Return a sentence with small lengths in it. [m]"""
    return Phrase(text, tuple(Term(name, value) for name, value in lengths_m.items()))


def shown(value: float, kind: Kind = "small") -> Phrase:
    """Return one number as a sentence. SI, as its kind says."""
    return Phrase("{x}", (Term("x", value, kind),))


NOTHING = Phrase("")


def scored_length(skill: str, name: str, yours_m: float | None, truth_m: float, at_most_m: float,
                  kind: Kind = "small") -> Scored:  # fmt: skip
    """Score a length: all points within what would still do, none beyond. [m] House rule."""
    if yours_m is None:
        return Scored(skill, name, Phrase("not given"), shown(truth_m, kind), NOTHING, shown(at_most_m, "within"), 0)
    off = abs(yours_m - truth_m)
    # A nanometre of grace: what was typed is rounded, and at the limit is within it.
    right = off <= at_most_m + 1e-9
    return Scored(skill, name, shown(yours_m, kind), shown(truth_m, kind), shown(off), shown(at_most_m, "within"),
                  10 if right else 0)  # fmt: skip


def scored_word(skill: str, name: str, yours: str, truth: str, right: bool | None = None) -> Scored:
    """Score a choice: all points for the right one."""
    is_right = yours == truth if right is None else right
    return Scored(skill, name, Phrase(yours or "not given"), Phrase(truth), NOTHING, NOTHING, 10 if is_right else 0)


def scored_number(skill: str, name: str, yours: float, truth: float, at_most: float, unit: str) -> Scored:
    """Score a number in a unit of its own. House rule."""
    off = abs(yours - truth)
    # A count that has to be right needs no word of how far off would still do.
    within = Phrase(f"{at_most:g} {unit}") if at_most >= 0.5 else NOTHING
    return Scored(skill, name, Phrase(f"{yours:g} {unit}"), Phrase(f"{truth:g} {unit}"), Phrase(f"{off:.3g} {unit}"),
                  within, 10 if off <= at_most * (1 + 1e-9) else 0)  # fmt: skip
