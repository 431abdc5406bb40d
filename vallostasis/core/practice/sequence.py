"""The order of the work: every later step that disturbs an earlier result lights up."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from vallostasis.core.practice.draws import Draws
from vallostasis.core.practice.exercise import (
    NOTHING,
    Area,
    Exercise,
    Judged,
    Move,
    Offer,
    Position,
    Scored,
    TrapMet,
    choice,
    say,
)
from vallostasis.core.practice.pictures import Card, LanePicture

MATCH, MARK, HEAT, PRESS, MAINS, DECK, LIST, BORE, HONE, GAP, WASH = (
    "read grades, match sleeves to holes", "mark fronts and holes", "heat the block", "press the sleeves",
    "check and align the mains", "skim the deck", "list what hangs on the deck", "bore to the piston",
    "hone under the plate", "gap the rings", "wash",
)  # fmt: skip
# What comes before what, by which trap, and why. Common practice, no published source.
RULES = (
    (MATCH, PRESS, "T41", "pressed before their grades were read: nobody matches what is in"),
    (MARK, HEAT, "T52", "nobody marks a hot block"),
    (HEAT, PRESS, "T11", "what was pressed cold is heated after: it lifts off its seat"),
    (PRESS, MAINS, "T11", "pressing moves the mains that were lined up"),
    (PRESS, DECK, "T11", "sleeves stand proud of the deck that was skimmed"),
    (LIST, DECK, "T48", "skimmed before anybody knew what hangs on it"),
    (PRESS, BORE, "T11", "pressing closes the bore that was cut to size"),
    (MAINS, BORE, "T11", "bored square to mains that then moved"),
    (DECK, HONE, "T11", "the plate sat on a face that was cut after"),
    (BORE, HONE, "T11", "bored over a finish"),
    (HONE, GAP, "T45", "the bore still grows after its rings were gapped"),
    (HONE, WASH, "T11", "washed, then grit again"),
    (GAP, WASH, "T11", "filings into what was washed"),
)


@dataclass(frozen=True, slots=True)
class SequenceTruth:
    """The steps of this job, as they lie on the bench."""

    steps: tuple[str, ...]

    @property
    def rules(self) -> tuple[tuple[str, str, str, str], ...]:
        """The rules between them."""
        return tuple(rule for rule in RULES if rule[0] in self.steps and rule[1] in self.steps)


def draw(of: Draws) -> SequenceTruth:
    """Draw the order in which the cards lie. House rule: all of them, so that every trap is there."""
    return SequenceTruth(of.shuffled("cards", (MATCH, MARK, HEAT, PRESS, MAINS, DECK, LIST, BORE, HONE, GAP, WASH)))


def placed(moves: Sequence[Move]) -> tuple[str, ...]:
    """Return the steps in the order they were put."""
    return tuple(move.word("step") for move in moves if move.name == "put")


def broken(truth: SequenceTruth, order: Sequence[str]) -> tuple[tuple[str, str, str, str], ...]:
    """Return the rules that an order breaks: what ought to come first comes after. By definition."""
    at = {step: place for place, step in enumerate(order)}
    return tuple(rule for rule in truth.rules if rule[0] in at and rule[1] in at and at[rule[0]] > at[rule[1]])


def position(truth: SequenceTruth, moves: Sequence[Move]) -> Position:
    """Show the lane, and what is left to put. Nothing lights up before the end."""
    order = placed(moves)
    left = tuple(step for step in truth.steps if step not in order)
    if not left:
        return Position(say("Done."), (), (), ())
    lane = LanePicture("In this order", tuple(Card(step) for step in order), left)
    offer = Offer("put", "Comes next", (choice("step", "Step", left),), last=True)
    return Position(say("Put the work in an order in which nothing undoes what was done."), (), (lane,), (offer,))


def judged(truth: SequenceTruth, moves: Sequence[Move]) -> Judged:
    """Light up every step that a later one undoes. House rule."""
    order = placed(moves)
    rules = broken(truth, order)
    lit = tuple(Card(step, tuple(rule[0] for rule in rules if rule[1] == step),
                     "; ".join(rule[3] for rule in rules if rule[1] == step)) for step in order)  # fmt: skip
    scored = tuple(_scored(rules, trap, skill) for trap, skill in SKILLS)
    head = (
        say("Nothing undoes anything.") if not rules else say(f"{len(rules)} results are undone by what comes later.")
    )
    return Judged(head, scored, tuple(_traps(order, rules)), (LanePicture("Lit up: undone by what comes later", lit),))


SKILLS = (("T11", "nothing undone"), ("T41", "matched before pressed"), ("T45", "bore frozen before rings"),
          ("T48", "list before skim"), ("T52", "marked before heat"))  # fmt: skip


def _scored(rules: Sequence[tuple[str, str, str, str]], trap: str, skill: str) -> Scored:
    mine = [rule for rule in rules if rule[2] == trap]
    return Scored(skill, skill, say(f"{len(mine)} undone"), say("0"), NOTHING, NOTHING, 0 if mine else 10)


def _traps(order: Sequence[str], rules: Sequence[tuple[str, str, str, str]]) -> Iterator[TrapMet]:
    for first, later, trap, why in rules:
        yield TrapMet(trap, order.index(first), say(f"“{first}” after “{later}”: {why}."))


SEQUENCE = Exercise(
    "sequence", Area.WHOLE, "In which order?",
    "Eleven steps of one job lie mixed on the bench. Put them in order; at the end everything lights up that a later "
    "step undoes.", 5, tuple(skill for _, skill in SKILLS), tuple(trap for trap, _ in SKILLS), draw, position, judged,
)  # fmt: skip
