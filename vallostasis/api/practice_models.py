"""What practice sends: exercises, an attempt with its pictures and offers, its score and the traps met."""

from typing import Annotated, Self
from uuid import UUID

from pydantic import BaseModel, Field

from vallostasis.api.trail import PhraseView, StepView
from vallostasis.core.practice.exercise import Area, FieldKind, Judged, Offer, Position, Scored, TrapMet
from vallostasis.core.practice.pictures import (
    CutPicture,
    DialPicture,
    DropPicture,
    FactsPicture,
    HolesPicture,
    LanePicture,
    PlotPicture,
    RingPicture,
    WallPicture,
)
from vallostasis.core.practice.traps import BY_NUMBER
from vallostasis.services.practice import AttemptNow, PracticeNow

PictureView = Annotated[
    DialPicture
    | RingPicture
    | PlotPicture
    | HolesPicture
    | FactsPicture
    | CutPicture
    | DropPicture
    | WallPicture
    | LanePicture,
    Field(discriminator="kind"),
]


class MoveField(BaseModel):
    """Something to give with a move."""

    name: str
    label: str
    kind: FieldKind
    choices: list[str]
    unit: str
    usual: str


class OfferView(BaseModel):
    """A move that may be made now; a caution is shown with it always."""

    name: str
    label: str
    fields: list[MoveField]
    words: str
    caution: str
    last: bool

    @classmethod
    def of(cls, one: Offer) -> Self:
        """Show it."""
        fields = [MoveField(name=of.name, label=of.label, kind=of.kind, choices=list(of.choices), unit=of.unit,
                            usual=of.usual) for of in one.fields]  # fmt: skip
        return cls(name=one.name, label=one.label, fields=fields, words=one.words, caution=one.caution, last=one.last)


class SpentView(BaseModel):
    """What it took so far. [min], [m]"""

    minutes: float
    money: float
    metal_m: float


class PositionView(BaseModel):
    """What is shown, what came of each move, what may be done."""

    headline: PhraseView
    said: list[PhraseView]
    pictures: list[PictureView]
    offers: list[OfferView]
    spent: SpentView | None
    rate: float
    at_s: float

    @classmethod
    def of(cls, one: Position) -> Self:
        """Show it."""
        spent = None if one.spent is None else SpentView(
            minutes=one.spent.minutes, money=one.spent.money, metal_m=one.spent.metal_m)  # fmt: skip
        return cls(headline=PhraseView.of(one.headline), said=[PhraseView.of(said) for said in one.said],
                   pictures=list(one.pictures), offers=[OfferView.of(offer) for offer in one.offers],
                   spent=spent, rate=one.rate, at_s=one.at_s)  # fmt: skip


class ScoredView(BaseModel):
    """One thing that counts, with its points."""

    skill: str
    name: str
    yours: PhraseView
    truth: PhraseView
    off: PhraseView
    at_most: PhraseView
    points: int
    of: int

    @classmethod
    def show(cls, one: Scored) -> Self:
        """Show it."""
        return cls(skill=one.skill, name=one.name, yours=PhraseView.of(one.yours), truth=PhraseView.of(one.truth),
                   off=PhraseView.of(one.off), at_most=PhraseView.of(one.at_most), points=one.points,
                   of=one.of)  # fmt: skip


class TrapMetView(BaseModel):
    """A trap that was stepped into; the warning would have come after a move, and have said these words."""

    trap: str
    name: str
    check: str
    after_move: int
    words: PhraseView

    @classmethod
    def of(cls, met: TrapMet) -> Self:
        """Show it."""
        known = BY_NUMBER[met.trap]
        return cls(trap=met.trap, name=known.name, check=known.check, after_move=met.after_move,
                   words=PhraseView.of(met.words))  # fmt: skip


class JudgedView(BaseModel):
    """What an exercise came to, the truth drawn over what was done."""

    headline: PhraseView
    points: int
    of: int
    scored: list[ScoredView]
    traps: list[TrapMetView]
    pictures: list[PictureView]
    steps: list[StepView]
    words: list[PhraseView]

    @classmethod
    def show(cls, one: Judged) -> Self:
        """Show it."""
        traps = [TrapMetView.of(met) for met in one.traps]
        return cls(headline=PhraseView.of(one.headline), points=one.points, of=one.of,
                   scored=[ScoredView.show(scored) for scored in one.scored], traps=traps,
                   pictures=list(one.pictures), steps=[StepView.of(step) for step in one.steps],
                   words=[PhraseView.of(words) for words in one.words])  # fmt: skip


class AttemptView(BaseModel):
    """An attempt as it stands."""

    attempt_id: UUID
    exercise: str
    title: str
    task: str
    area: Area
    seed: int
    person: str
    moves: int
    position: PositionView
    judged: JudgedView | None

    @classmethod
    def of(cls, now: AttemptNow) -> Self:
        """Show it."""
        return cls(attempt_id=now.attempt.attempt_id, exercise=now.exercise.name, title=now.exercise.title,
                   task=now.exercise.task, area=now.exercise.area, seed=now.attempt.seed, person=now.attempt.person,
                   moves=now.moves, position=PositionView.of(now.position),
                   judged=None if now.judged is None else JudgedView.show(now.judged))  # fmt: skip


class SkillView(BaseModel):
    """A skill, and its last results, oldest first."""

    name: str
    last: list[bool]
    is_sure: bool


class ExerciseView(BaseModel):
    """An exercise, and how a person stands in it."""

    name: str
    area: Area
    title: str
    task: str
    minutes: int
    traps: list[str]
    tried: int
    best: int | None
    best_of: int | None
    skills: list[SkillView]


class NextView(BaseModel):
    """The exercise to take next, and why."""

    exercise: str
    title: str
    why: str


class PracticeView(BaseModel):
    """Every exercise; which traps were met and never again since; what comes next."""

    exercises: list[ExerciseView]
    next: NextView

    @classmethod
    def of(cls, now: PracticeNow) -> Self:
        """Show it."""
        rows = []
        for one in now.exercises:
            results = [result for result in now.results if result.exercise == one.name]
            best = max(results, key=lambda result: result.points, default=None)
            skills = [SkillView(name=skill.name, last=list(skill.last), is_sure=skill.is_sure)
                      for skill in now.skills if skill.exercise == one.name]  # fmt: skip
            rows.append(ExerciseView(
                name=one.name, area=one.area, title=one.title, task=one.task, minutes=one.minutes,
                traps=list(one.traps), tried=len(results), best=None if best is None else best.points,
                best_of=None if best is None else best.of, skills=skills))  # fmt: skip
        titles = {one.name: one.title for one in now.exercises}
        following = NextView(exercise=now.next.exercise, title=titles[now.next.exercise], why=now.next.why)
        return cls(exercises=rows, next=following)
