"""What a block of worn bores needs: the options of each hole side by side, and the order of the work in words."""

from dataclasses import dataclass

from vallostasis.core.bores.decisions import cleaned_up, decision_of, had
from vallostasis.core.bores.ladder import LadderOfEngine, LadderOfHole, Rung, ladder_of_engine
from vallostasis.core.features.parts import part_with_key
from vallostasis.core.notation.lengths import Unit, format_length, metres
from vallostasis.core.records.bore_decisions import BoreChoice
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import CardUnit, LadderStep
from vallostasis.core.shapes.clock import hour_of_angle
from vallostasis.core.surveys.survey import survey_of
from vallostasis.core.uncertainty.decision import State


@dataclass(frozen=True, slots=True)
class OptionOfHole:
    """One thing a bore can be given: whether it does, what it needs, what it leaves, what cannot be undone."""

    choice: BoreChoice
    step: LadderStep | None
    title: str
    state: State
    needs: tuple[str, ...]
    leaves: tuple[str, ...]
    irreversible: str


@dataclass(frozen=True, slots=True)
class PlanStep:
    """One step of the work."""

    title: str
    words: str


@dataclass(frozen=True, slots=True)
class PlanOfBores:
    """What a block needs: in a line, why, and step by step."""

    headline: str
    words: tuple[str, ...]
    steps: tuple[PlanStep, ...]


def _small(facts: JobFacts, value_m: float) -> str:
    unit = _unit(facts)
    return f"{format_length(value_m, unit, signed=False)} {unit}"


def clock_words(angle_deg: float) -> str:
    """Say a direction as people say it: 5:40. House rule: to five minutes of the clock."""
    minutes = round(hour_of_angle(angle_deg) * 60 / 5) * 5
    hours = minutes // 60 % 12
    return f"{hours or 12}:{minutes % 60:02d}"


def options_of(facts: JobFacts, ladder: LadderOfHole) -> tuple[OptionOfHole, ...]:
    """Return everything one bore can be given, side by side. Common practice, no published source."""
    found = ladder.clean_up
    if found is None:
        return ()
    survey = ladder.wall.loads[-1].survey
    stock = facts.card.bores.hone_stock.metres or 0.0
    hone_state = found.drawn.at((ladder.wall.wear.unworn.value_m if ladder.wall.wear.unworn else 0.0) + stock)
    options = [
        OptionOfHole(
            BoreChoice.LEAVE, None, "Leave it as it is", survey.state,
            ("a concession by name and what the engine must not be asked for",) if survey.state is State.OUT else (),
            (f"the bore as it was read: {survey.reason}",), "nothing is taken off"),
        OptionOfHole(
            BoreChoice.HONE, None, f"Hone it, {_small(facts, stock)} on the diameter", hone_state,
            ("the piston that is in it, measured",),
            ("wear where the stone does not reach", *_needs_more(facts, ladder)),
            "what is honed off is gone"),
    ]  # fmt: skip
    options += [_of_step(facts, ladder, rung) for rung in ladder.rungs]
    options.append(OptionOfHole(
        BoreChoice.SLEEVE, None, "Sleeve it back to standard", State.IN if ladder.needs_sleeve else State.NOT_MEASURED,
        ("a dry sleeve, measured before its bore is cut", "wall enough for the sleeve's own bore"),
        ("a standard bore, and the ladder anew",),
        "the parent bore is gone: it is a sleeved block from then on"))  # fmt: skip
    options.append(OptionOfHole(BoreChoice.SCRAP, None, "Scrap the block", State.NOT_MEASURED, ("another block",), (),
                                "this block does not run again"))  # fmt: skip
    return tuple(options)


def _needs_more(facts: JobFacts, ladder: LadderOfHole) -> tuple[str, ...]:
    if ladder.clean_up is None:
        return ()
    least = ladder.clean_up.best.least.value_m - (facts.card.bores.hone_stock.metres or 0.0)
    unworn = ladder.wall.wear.unworn
    return () if unworn is None else (f"it would take {_small(facts, least - unworn.value_m)} on the diameter",)


def _of_step(facts: JobFacts, ladder: LadderOfHole, rung: Rung) -> OptionOfHole:
    found = ladder.clean_up
    assert found is not None
    needs = [f"pistons and rings: {had(rung.step)}"]
    if rung.drawn is not State.IN and found.best.move_m > 0:
        way = clock_words(found.best.move_deg)
        needs.append(f"the centre moved {_small(facts, found.best.move_m)} towards {way}")
    leaves = []
    if rung.wall is not None:
        leaves.append(f"a wall of {_small(facts, rung.wall.left.value_m)} at {clock_words(rung.wall.angle_deg)}")
        if rung.wall.rebores is not None:
            leaves.append(f"{rung.wall.rebores} re-bore{'s' if rung.wall.rebores != 1 else ''}")
    if rung.state is State.OUT:
        leaves.append("wear, or too little wall")
    title = f"Bore to +{rung.step.oversize.typed}"
    return OptionOfHole(BoreChoice.OVERSIZE, rung.step, title, rung.state, tuple(needs), tuple(leaves),
                        "the smaller steps are gone")  # fmt: skip


def plan_of_bores(facts: JobFacts) -> PlanOfBores:
    """Say what the block needs: which bore first, to what size, what follows. Common practice, no published source."""
    engine = ladder_of_engine(facts)
    if all(cleaned_up(facts, hole) for hole in facts.holes):
        return _all_at_their_step(facts)
    if engine.worst is None:
        unread = ", ".join(str(one) for one in engine.unread)
        words = f"Bore {unread} was" if len(engine.unread) == 1 else f"Bores {unread} were"
        return PlanOfBores("Read the bores first", (f"{words} not read: nothing can be told of them.",), ())
    if not facts.card.bores.ladder:
        return PlanOfBores("Write the ladder on the card", ("The card has no step to bore to.",), ())
    # The smallest step that is not ruled out is tried on the worst bore: only then is anything known for sure.
    step = engine.try_first
    if step is None:
        numbers = ", ".join(str(one) for one in engine.sleeves)
        return PlanOfBores(f"Sleeve bore {numbers}", ("No step of the ladder clears it with wall enough.",), ())
    return PlanOfBores(_headline(facts, engine, step), tuple(_why(facts, engine, step)),
                       tuple(_order(facts, engine, step)))  # fmt: skip


def _all_at_their_step(facts: JobFacts) -> PlanOfBores:
    """Nothing is left to bore: every one was seen bright all round at its step. By the newest look of each."""
    said = [f"Bore {hole.number} at +{format_length(metres(made.oversize_um), _unit(facts), signed=False)}"
            for hole in facts.holes
            if (made := decision_of(facts, hole)) is not None and made.oversize_um is not None]  # fmt: skip
    words = f"{', '.join(said)}. What the ladder shows now is what the next re-bore would take."
    return PlanOfBores("Bored to its step, bright all round", (words,), ())


def _headline(facts: JobFacts, engine: LadderOfEngine, step: LadderStep) -> str:
    worst = engine.worst
    assert worst is not None
    rung = next(one for one in worst.rungs if one.step == step)
    stock = engine.terms.hone_stock_m
    bored = format_length(step.oversize.metres - stock, _unit(facts), signed=False)
    said = f"Bore number {worst.hole.number} first, to +{bored}, {_small(facts, stock)} left to hone"
    if worst.clean_up is not None and rung.drawn is not State.IN and worst.clean_up.best.move_m > 0:
        move = worst.clean_up.best
        said += f", centre {_small(facts, move.move_m)} towards {clock_words(move.move_deg)}"
    return said


def _unit(facts: JobFacts) -> Unit:
    return "thou" if facts.card.unit is CardUnit.INCH else "µm"


def _why(facts: JobFacts, engine: LadderOfEngine, step: LadderStep) -> list[str]:
    worst = engine.worst
    assert worst is not None
    found = worst.clean_up
    assert found is not None
    best, drawn = found.best, found.drawn
    over = _small(facts, best.most.value_m - engine.standard_m)
    said = [f"With the hone it needs {over} ±{_small(facts, best.most.expanded_m)} of {step.oversize.typed}; on the "
            f"drawn centre {_small(facts, drawn.most.value_m - engine.standard_m)}."]  # fmt: skip
    marks = dict.fromkeys(point.mark for point in best.points if point.mark is not None)
    for mark in marks:
        said.append(f"The {mark.finding.word} {mark.letter} decides.")
    if engine.step != step:
        said.append(f"Whether +{step.oversize.typed} clears it cannot be told before it is cut.")
    said += [f"Bore {worst.hole.number}: {doubt}." for doubt in found.doubts]
    if engine.unread:
        said.append(f"Not read yet: {', '.join(str(one) for one in engine.unread)}; one of them may be worse.")
    said.append(_piston_words(facts, worst, step))
    cost = _cost(facts, worst, step)
    return [*said, *([cost] if cost else [])]


def _piston_words(facts: JobFacts, worst: LadderOfHole, step: LadderStep) -> str:
    part = part_with_key(facts, Quantity.PISTON_SKIRT, f"piston-{worst.hole.number}")
    survey = None if part is None else survey_of(facts, Quantity.PISTON_SKIRT, part)
    if survey is None or survey.form is None:
        return f"Its +{step.oversize.typed} piston is not measured: no bore is cut to a round size before it is."
    skirt = survey.form.greatest_m
    finish = next(one.finish_m for one in worst.rungs if one.step == step)
    size: Unit = "inch" if _unit(facts) == "thou" else "mm"
    return (f"Its piston is measured: skirt {format_length(skirt, size, signed=False)}, "
            f"{_small(facts, finish - skirt)} less than +{step.oversize.typed}.")  # fmt: skip


def _cost(facts: JobFacts, worst: LadderOfHole, step: LadderStep) -> str:
    """What the round size costs in re-bores."""
    rung = next(one for one in worst.rungs if one.step == step)
    rebore = facts.card.bores.rebore.metres
    if rung.wall is None or worst.exact is None or rebore is None:
        return ""
    spent = (worst.exact.left.value_m - rung.wall.left.value_m) / (rebore / 2)
    if spent < 0.05:
        return ""
    return f"The round size costs {spent:.1f} of a re-bore more than boring to just what it needs."


def _order(facts: JobFacts, engine: LadderOfEngine, step: LadderStep) -> list[PlanStep]:
    worst = engine.worst
    assert worst is not None
    bored = format_length(step.oversize.metres - engine.terms.hone_stock_m, _unit(facts), signed=False)
    others = [one.hole.number for one in engine.holes if one is not worst]
    after = next((one for one in _ladder(facts) if one.oversize.um > step.oversize.um), None)
    numbers = " and ".join([", ".join(str(one) for one in others[:-1]), str(others[-1])] if len(others) > 1
                           else [str(one) for one in others])  # fmt: skip
    bright = f"bright all round: {numbers} to +{bored}, hone to +{step.oversize.typed}" if others else "bright: hone it"
    dark = "dark patch left: sleeve it" if after is None else (
        f"dark patch left: {'all' if facts.card.bores.all_alike and others else f'bore {worst.hole.number}'} to "
        f"+{after.oversize.typed}, {had(after)}")  # fmt: skip
    done = "seen bright all round" if cleaned_up(facts, worst.hole) else "light round the wall"
    return [PlanStep(f"Bore {worst.hole.number} to +{bored}", _headline(facts, engine, step).partition("hone, ")[2]
                     or "on its drawn centre"),
            PlanStep("Look", done), PlanStep(bright, ""), PlanStep(dark, "")]  # fmt: skip


def _ladder(facts: JobFacts) -> list[LadderStep]:
    return sorted(facts.card.bores.ladder, key=lambda one: one.oversize.um)
