"""What a bore needs until it is known and decided: of a hole that has no protrusion it is the state of the hole."""

from vallostasis.core.needs import Action, Need
from vallostasis.core.protrusion.measured import deciding_bore
from vallostasis.core.protrusion.rules import HoleJudgement
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole
from vallostasis.core.records.spec_card import CONSTRUCTIONS_WITH_PROTRUSION
from vallostasis.core.surveys.survey import Survey
from vallostasis.core.trail import Phrase, Term
from vallostasis.core.uncertainty.decision import RuleResult, State

# What can be done about a bore that is out, told where it is. Common practice, no published source.
READ_FIRST = "Read it once more before anything is cut: dirt, a bruise or a gauge that hung reads the same way."


def need_of_bore(facts: JobFacts, hole: Hole, judgement: HoleJudgement) -> Need | None:
    """Say what the bore of a hole needs where it is what the hole is judged by. House rule."""
    if facts.card.construction in CONSTRUCTIONS_WITH_PROTRUSION:
        return None
    return need_of_survey(deciding_bore(facts, hole), judgement.state)


def need_of_survey(survey: Survey, state: State) -> Need:
    """Say what one bore needs next: places to read, what would settle it, or what is out and by how much. [m]"""
    what, key = survey.feature.quantity, survey.part.key

    def read(sentence: str, detail: Phrase) -> Need:
        return Need(Action.READ_SURVEY, Phrase(sentence), detail, quantity=what, part=key)

    if survey.part.target is None:
        return Need(Action.NOTHING, Phrase(_capital(survey.part.why_not)))
    if survey.missing or state in (State.NOT_MEASURED, State.READ_AGAIN):
        left, all_of = len(survey.missing), len(survey.places)
        places = "one place" if left == 1 else f"{left} places"
        words = "Measure" if left in (0, all_of) else f"Read the {places} left of"
        levels, axes = len(survey.pattern.levels), len(survey.pattern.axes_deg)
        return read(f"{words} the {what.value}", Phrase(f"{levels} levels, {axes} axes; {survey.reason}."))
    if not survey.rules and not survey.relative and not survey.doubt:
        write = Phrase(f"Write the limits of the {what.value} on the card")
        return Need(Action.NOTHING, write, Phrase("Every place is read, and no limit decides it."))
    worst = _worst(survey)
    if state is State.OUT and worst is not None:
        return read(f"Read the {what.value} again at {worst.where or 'every place'}", _out(worst))
    if state is State.CANNOT_TELL:
        return read(f"Read the {what.value} once more", Phrase(f"{_capital(survey.reason)}."))
    return Need(Action.NOTHING, Phrase("Nothing: it is in"), Phrase("Every rule of the card is met."))


def _worst(survey: Survey) -> RuleResult | None:
    """The rule that is out by the most. By definition."""
    out = [rule for rule in survey.rules if rule.decision.state is State.OUT]
    return max(out, key=_beyond, default=None)


def _beyond(rule: RuleResult) -> float:
    """How far a value lies beyond its limit. [m] By definition."""
    beyond = [0.0]
    if rule.least_m is not None:
        beyond.append(rule.least_m - rule.value_m)
    if rule.greatest_m is not None:
        beyond.append(rule.value_m - rule.greatest_m)
    return max(beyond)


def _out(rule: RuleResult) -> Phrase:
    return Phrase(f"{_capital(rule.kind.value)} is beyond its limit by {{off}}. {READ_FIRST}",
                  (Term("off", _beyond(rule)),))  # fmt: skip


def _capital(text: str) -> str:
    return text[:1].upper() + text[1:]
