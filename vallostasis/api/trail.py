"""Arithmetic trails and sentences with numbers, as they go over the wire."""

from pydantic import BaseModel, Field

from vallostasis.core.trail import Kind, Phrase, Step, Term


class TermView(BaseModel):
    """One number of a step or sentence; ``kind`` says how it is shown."""

    symbol: str
    value: float = Field(description="Length [m], angle [deg], count or share [1], as kind says.")
    kind: Kind
    note: str

    @classmethod
    def of(cls, term: Term) -> "TermView":
        """Show a term."""
        return cls(symbol=term.symbol, value=term.value, kind=term.kind, note=term.note)


class StepView(BaseModel):
    """One line of arithmetic."""

    what: str
    formula: str
    terms: list[TermView]
    result: TermView
    source: str

    @classmethod
    def of(cls, step: Step) -> "StepView":
        """Show a step."""
        return cls(
            what=step.what,
            formula=step.formula,
            terms=[TermView.of(term) for term in step.terms],
            result=TermView.of(step.result),
            source=step.source,
        )


class PhraseView(BaseModel):
    """A sentence; each {symbol} in it stands for the term of that symbol."""

    text: str
    terms: list[TermView]

    @classmethod
    def of(cls, phrase: Phrase) -> "PhraseView":
        """Show a sentence."""
        return cls(text=phrase.text, terms=[TermView.of(term) for term in phrase.terms])
