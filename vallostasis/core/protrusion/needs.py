"""What a hole with a liner in it needs until its protrusion is known and decided."""

from vallostasis.core.needs import Action, Need
from vallostasis.core.notation.lengths import metres
from vallostasis.core.protrusion.measured import hole_parts, measured_hole, protrusion_of
from vallostasis.core.protrusion.rules import HoleJudgement, MeasuredHole
from vallostasis.core.protrusion.stack import LandSlip, StackResidual, land_slips, shim_slip
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Fitting, Hole
from vallostasis.core.records.spec_card import CONSTRUCTIONS_WITH_PROTRUSION
from vallostasis.core.shapes.clock import hour_names
from vallostasis.core.surveys.fitness import nearest_limit
from vallostasis.core.surveys.survey import Survey
from vallostasis.core.trail import Phrase, Term
from vallostasis.core.uncertainty.decision import RuleKind, RuleResult, State, repeats_to_settle

# More repeats than this at one spot are not worth it. Common practice, no published source.
MOST_REPEATS = 5
# What to look for where a liner stands otherwise than its parts give. Common practice, no published source.
PROUD_CAUSES = "dirt, a burr or compound under the flange, seals pushing back, or a spacer left out under the gauge"
LOW_CAUSES = (
    "a spacer under the gauge that the card does not count, a ledge worn where it was not measured, or a gauge zero "
    "that moved"
)


def need_of_protrusion(facts: JobFacts, hole: Hole, judgement: HoleJudgement) -> Need | None:
    """Say what protrusion needs in one hole; None where it has none, is open, or is to be cut. House rule."""
    if facts.card.construction not in CONSTRUCTIONS_WITH_PROTRUSION:
        return None
    if facts.present_fitting(hole.hole_id) is None:
        return None
    measured = measured_hole(facts, hole)
    if measured.residual is not None and not measured.residual.agrees:
        return _explain(facts, hole, measured)
    if judgement.state in (State.NOT_MEASURED, State.READ_AGAIN):
        required, missing = facts.card.measuring.required_hours, protrusion_of(facts, hole).missing_hours
        hours = missing or required
        first = "Read " if len(missing) != len(required) else "Read protrusion at "
        return Need(Action.READ, Phrase(first + hour_names(hours)), Phrase(_capital(judgement.reason)), hours)
    if judgement.state is State.CANNOT_TELL:
        return _settle(protrusion_of(facts, hole), judgement)
    if judgement.state is State.IN:
        return Need(Action.NOTHING, Phrase("Nothing: it is in"), _confidence(facts, hole))
    return None


def _capital(text: str) -> str:
    return text[:1].upper() + text[1:]


def _slips_of_hole(facts: JobFacts, measured: MeasuredHole) -> tuple[LandSlip, ...]:
    """Lands that would explain why parts and reading of a hole disagree. Common practice, no published source."""
    if measured.residual is None:
        return ()
    lands = {land.name: land.raised.metres for land in facts.card.lands}
    here = lands.get(facts.card.measuring.land, 0.0)
    return land_slips(measured.residual, tuple((name, raised - here) for name, raised in lands.items()))


def _explain(facts: JobFacts, hole: Hole, measured: MeasuredHole) -> Need:
    residual = measured.residual
    assert residual is not None
    fitting = facts.present_fitting(hole.hole_id)
    terms = (Term("d", residual.residual_m), Term("U", residual.expanded_m, "within"))
    sentence = Phrase("Parts and reading disagree by {d}, more than their joint ±{U}", terms)
    hours = facts.card.measuring.required_hours
    on_a_land = _land_slip(facts, fitting, _slips_of_hole(facts, measured), sentence)
    if on_a_land is not None:
        return on_a_land
    shim = _shim_slip(facts, fitting, residual)
    if shim is not None:
        return Need(Action.FIT, sentence, shim, hours)
    side, causes = ("proud of", PROUD_CAUSES) if residual.residual_m > 0 else ("below", LOW_CAUSES)
    said = f"It stands {side} what the parts give. Look first for {causes}; then read the hole again."
    return Need(Action.EXPLAIN, sentence, Phrase(said), hours)


def _land_slip(facts: JobFacts, fitting: Fitting | None, slips: tuple[LandSlip, ...], sentence: Phrase) -> Need | None:
    """Say which land would explain it: the flange measured over one, or the tip on another."""
    land = facts.card.measuring.land
    thickness = next((slip for slip in slips if slip.taken_there == "flange thickness"), None)
    if thickness is not None:
        mark = facts.liner(fitting.liner_id).mark if fitting else ""
        said = (
            f"The {thickness.land} stands {{h}} above the {land}: was the flange of {mark} measured over it? "
            f"Measure it again at the {land} with a fine tip."
        )
        return Need(Action.READ_FLANGE, sentence, Phrase(said, (Term("h", thickness.raised_m),)), liner_mark=mark)
    if slips:
        said = f"The {slips[0].land} stands {{h}} above the {land}: did the tip ride on it? Read again on the {land}."
        detail = Phrase(said, (Term("h", slips[0].raised_m),))
        return Need(Action.READ, sentence, detail, facts.card.measuring.required_hours)
    return None


def _shim_slip(facts: JobFacts, fitting: Fitting | None, residual: StackResidual) -> Phrase | None:
    """Say which shim would explain the reading; one that was measured is not doubted."""
    shims = () if fitting is None else facts.shims_of(fitting.fitting_id)
    written = tuple(metres(shim.nominal_um) for shim in shims if shim.measured_um is None)
    slip = shim_slip(residual, written, tuple(size.thickness.metres for size in facts.card.shims))
    if slip is None:
        return None
    terms = (Term("w", slip.written_m, "size"), Term("s", slip.really_m, "size"))
    if slip.really_m == 0:
        return Phrase("No shim at all would explain it: take the liner out and look for the {w} one.", terms)
    return Phrase(
        "A shim of {s} where {w} is written would explain it: nobody measured it. Take it out, measure it, and record "
        "the fitting with what it is.",
        terms,
    )


def _settle(survey: Survey, judgement: HoleJudgement) -> Need:
    """Name the reading that would settle an undecided hole, or say that a finer gauge is needed."""
    unsure = [rule for rule in judgement.rules if rule.decision.state is State.CANNOT_TELL]
    reason = Phrase(_capital(judgement.reason))
    unreadable = tuple(row.place.hour for row in survey.places if row.unreadable and row.place.hour is not None)
    if not unsure and unreadable:
        return Need(Action.READ, Phrase(f"Find a way to read {hour_names(unreadable)}"), reason, unreadable)
    read = tuple(row.place.hour for row in survey.read if row.place.hour is not None)
    if survey.doubt:
        return Need(Action.READ, Phrase("Correct what stands on the moved zero, or read it again"), reason, read)
    single = next((rule for rule in unsure if rule.kind is RuleKind.READING), None)
    if single is None or single.hour is None:
        return Need(Action.READ, Phrase("Read every position once more"), reason, read)
    return _settle_reading(single, single.hour, judgement)


def _settle_reading(single: RuleResult, hour: float, judgement: HoleJudgement) -> Need:
    limit = nearest_limit(single)
    needed = None if limit is None else repeats_to_settle(single.stated, limit, single.readings)
    finer = Phrase(f"Read {single.where} again with a finer gauge")
    if needed is None:
        return Need(Action.READ, finer, Phrase(_capital(judgement.reason)), (hour,))
    more = needed - single.readings
    if more > MOST_REPEATS:
        return Need(
            Action.READ,
            finer,
            Phrase(f"{_capital(judgement.reason)}. With this one it would take {more} more readings "
                   "and a mean that stays at {v}.", (Term("v", single.value_m),)),
            (hour,),
        )  # fmt: skip
    times = "once more" if more == 1 else f"{more} more times"
    return Need(
        Action.READ,
        Phrase(f"Read {single.where} {times}"),
        Phrase(f"{_capital(judgement.reason)}. If the mean stays at {{v}}, {needed} readings settle it.",
               (Term("v", single.value_m),)),
        (hour,),
    )  # fmt: skip


def _confidence(facts: JobFacts, hole: Hole) -> Phrase:
    parts = hole_parts(facts, hole)
    if parts.prediction is None:
        return Phrase(f"Not held against its parts: {' and '.join(parts.missing)} not measured.")
    expanded = parts.prediction.stated.expanded_m
    return Phrase(
        "Every rule of the card is met; the parts give {P}, ±{U}.",
        (Term("P", parts.prediction.protrusion_m), Term("U", expanded, "within")),
    )
