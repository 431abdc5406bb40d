"""What an open hole, or one that is out, needs from its counterbore."""

from vallostasis.core.counterbore.hole_plan import HoleRefusal, plan_hole
from vallostasis.core.needs import Action, Need
from vallostasis.core.notation.lengths import metres
from vallostasis.core.protrusion.measured import depths_of, hole_parts
from vallostasis.core.protrusion.rules import HoleJudgement
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole
from vallostasis.core.records.spec_card import CONSTRUCTIONS_WITH_LEDGE, CONSTRUCTIONS_WITH_PROTRUSION
from vallostasis.core.shapes.clock import hour_names
from vallostasis.core.trail import Phrase, Term
from vallostasis.core.uncertainty.decision import RuleKind, Side, State


def need_of_counterbore(facts: JobFacts, hole: Hole, judgement: HoleJudgement) -> Need | None:
    """Say what the counterbore of one hole needs; None where it has none, or is in. House rule."""
    if facts.card.construction not in CONSTRUCTIONS_WITH_PROTRUSION:
        return None
    if facts.present_fitting(hole.hole_id) is None:
        return _open_hole(facts, hole)
    return _cut(facts, hole, judgement) if judgement.state is State.OUT else None


def _open_hole(facts: JobFacts, hole: Hole) -> Need:
    cut = facts.last_cut(hole.hole_id)
    hours = depths_of(facts, hole).missing_hours
    if hours and facts.card.construction in CONSTRUCTIONS_WITH_LEDGE:
        burr = "The stop only says how far the cutter went. Knock the burr off first, it reads shallow."
        return Need(
            Action.READ_DEPTH,
            Phrase(f"Measure the counterbore depth at {hour_names(hours)}"),
            Phrase(burr if cut else "With the depth known, the reading can be held against the parts."),
            hours,
        )
    if cut is None:
        return Need(Action.FIT, Phrase("Fit a liner"))
    return Need(
        Action.FIT,
        Phrase("Fit the liner on a {s} shim", (Term("s", metres(cut.shim_um), "size"),)),
        Phrase("The depth is measured; what stands proud is still a prediction until it is read."),
    )


def _cut(facts: JobFacts, hole: Hole, judgement: HoleJudgement) -> Need:
    unmeasured = _part_to_measure(facts, hole, judgement)
    if unmeasured is not None:
        return unmeasured
    plan = plan_hole(facts, hole)
    if isinstance(plan, HoleRefusal):
        return Need(Action.EXPLAIN, Phrase("Out, and no cut can be planned"), Phrase(plan.reason))
    outcome = plan.cut
    too_proud = any(
        rule.kind is RuleKind.READING and rule.decision.state is State.OUT and rule.side is Side.GREATEST
        for rule in judgement.rules
    )
    first = "Look for dirt or a burr under the flange first. " if too_proud else ""
    return Need(
        Action.CUT,
        Phrase("Cut to {D} from the deck, fit a {s} shim",
               (Term("D", outcome.depth_m, "size"), Term("s", outcome.shim_m, "size"))),
        Phrase(
            first + "Gives {P}, ±{stop} by the stop, ±{gauge} once measured · "
            + f"{outcome.passes.whole} passes and {{rest}}",
            (Term("P", outcome.protrusion_m), Term("stop", outcome.by_stop.expanded_m, "within"),
             Term("gauge", outcome.by_gauge.expanded_m, "within"), Term("rest", metres(outcome.passes.rest_um))),
        ),
    )  # fmt: skip


def _part_to_measure(facts: JobFacts, hole: Hole, judgement: HoleJudgement) -> Need | None:
    """A cut is planned from parts that are measured: say which one is not."""
    if facts.card.construction not in CONSTRUCTIONS_WITH_LEDGE:
        return None
    parts, fitting = hole_parts(facts, hole), facts.present_fitting(hole.hole_id)
    why = Phrase(f"Out: {judgement.reason}. A cut is planned from parts that are measured.")
    if parts.flange is None:
        mark = facts.liner(fitting.liner_id).mark if fitting else ""
        what = Phrase(f"Measure the flange of {mark} at the {facts.card.measuring.land}")
        return Need(Action.READ_FLANGE, what, why, liner_mark=mark)
    if parts.ledge is None:
        what = Phrase("Draw the liner and measure the counterbore depth")
        return Need(Action.READ_DEPTH, what, why, facts.card.measuring.required_hours)
    return None
