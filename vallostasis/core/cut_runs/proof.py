"""Proof of a ledge that was cut: burr, square, depth, width, stop against gauge; and what follows from it."""

from dataclasses import dataclass
from enum import StrEnum

from vallostasis.core.counterbore.hole_plan import depth_window
from vallostasis.core.counterbore.ledge_report import report_ledge
from vallostasis.core.counterbore.passes import Passes, count_passes
from vallostasis.core.cut_runs.run import RunNow, runs_of
from vallostasis.core.notation.lengths import metres, micrometres
from vallostasis.core.protrusion.measured import depths_of, ledge_of
from vallostasis.core.records.cut_runs import RunMarkKind
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.rows import Cut, Hole
from vallostasis.core.trail import Phrase, Term
from vallostasis.core.uncertainty.budget import Source, Stated, difference_of, estimate, stated
from vallostasis.core.uncertainty.decision import State, decide


class ProofKind(StrEnum):
    """What is looked at on a ledge that was cut. Common practice, no published source."""

    BURR = "burr knocked off"
    SQUARE = "square"
    DEPTH = "depth"
    WIDTH = "width"
    STOP_AND_GAUGE = "stop against gauge"


@dataclass(frozen=True, slots=True)
class ProofRow:
    """One thing looked at, how it is, and why."""

    kind: ProofKind
    state: State
    words: Phrase


@dataclass(frozen=True, slots=True)
class LedgeProof:
    """What is proved of the ledge of a hole since its last cut.

    ``further`` are passes still to cut where it is short; ``over_m`` how much too deep it is, and then the hole and its
    neighbours are planned anew. [m]
    """

    rows: tuple[ProofRow, ...]
    depth: Stated | None
    required_m: float
    further: Passes | None
    over_m: float

    @property
    def proved(self) -> bool:
        """Whether every row is in."""
        return all(row.state is State.IN for row in self.rows)


@once
def ledge_proof(facts: JobFacts, hole: Hole) -> LedgeProof | None:
    """Say what is proved of a ledge since it was cut.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    hole : Hole
        The hole.

    Returns
    -------
    LedgeProof or None
        None where it was not cut. Lengths in m.

    Notes
    -----
    A burr reads shallow, so it comes off first; four positions or more; the shim laid in shows whether the counterbore
    is wide enough: common practice, no published source. The depth is held against what the liner needs to stand in its
    window, guarded by its U.
    """
    cut = facts.last_cut(hole.hole_id)
    if cut is None:
        return None
    run = next((one for one in reversed(runs_of(facts, hole)) if one.run.event < cut.event), None)
    depth = _depth(facts, hole)
    least, greatest = depth_window(facts, hole)
    required = metres(cut.depth_um)
    rows = (
        _burr(run),
        _square(facts, hole),
        _depth_row(facts, depth, least, greatest),
        _width(run),
        _stop_and_gauge(facts, hole, cut, depth),
    )
    further, over = None, 0.0
    decided = None if depth is None else decide(depth.value_m, depth.expanded_m, least, greatest).state
    if depth is not None and decided is not State.IN:
        short = required - depth.value_m
        if least is not None and depth.value_m - depth.expanded_m < least:
            further = count_passes(micrometres(max(0.0, short)), facts.card.cutter.graduation.um)
        elif greatest is not None and depth.value_m + depth.expanded_m > greatest:
            over = -short
    return LedgeProof(rows, depth, required, further, over)


def _depth(facts: JobFacts, hole: Hole) -> Stated | None:
    """Depth of the ledge that the flange rests on, once it is read at every required position. [m]"""
    ledge, survey = ledge_of(facts, hole), depths_of(facts, hole)
    return None if ledge is None or survey.missing else ledge.depth


def _burr(run: RunNow | None) -> ProofRow:
    if run is None:
        return ProofRow(ProofKind.BURR, State.CANNOT_TELL, Phrase("cut without a run: nobody was asked"))
    said = any(one.kind is RunMarkKind.DEBURRED for one in run.marks)
    words = "knocked off with a stone" if said else "not said: a burr reads shallow, so it is cut too deep"
    return ProofRow(ProofKind.BURR, State.IN if said else State.NOT_MEASURED, Phrase(words))


def _square(facts: JobFacts, hole: Hole) -> ProofRow:
    survey, report = depths_of(facts, hole), report_ledge(facts, hole)
    if report is None or survey.missing:
        return ProofRow(ProofKind.SQUARE, State.NOT_MEASURED, Phrase("read it at four positions or more"))
    tilt = report.squareness
    terms = (Term("t", tilt.value_m), Term("U", tilt.expanded_m, "within"))
    if report.uneven or report.worn_hours or report.proud_hours:
        return ProofRow(ProofKind.SQUARE, State.CANNOT_TELL, Phrase("no plane: a burr, dirt or a low spot"))
    limit = facts.card.limits.variation_round.metres
    state = State.IN if limit is None else decide(tilt.value_m, tilt.expanded_m, None, limit).state
    return ProofRow(ProofKind.SQUARE, state, Phrase("{t} ±{U} from high to low", terms))


def _depth_row(facts: JobFacts, depth: Stated | None, least: float | None, greatest: float | None) -> ProofRow:
    if depth is None:
        return ProofRow(ProofKind.DEPTH, State.NOT_MEASURED, Phrase("not read all round since it was cut"))
    terms = [Term("D", depth.value_m, "size"), Term("U", depth.expanded_m, "within")]
    if least is None or greatest is None:
        return ProofRow(
            ProofKind.DEPTH, State.CANNOT_TELL, Phrase("{D} ±{U}; the flange is not measured", tuple(terms))
        )
    terms += [Term("a", least, "size"), Term("b", greatest, "size")]
    state = decide(depth.value_m, depth.expanded_m, least, greatest, facts.card.acceptance).state
    return ProofRow(ProofKind.DEPTH, state, Phrase("{D} ±{U}, allowed {a} to {b}", tuple(terms)))


def _width(run: RunNow | None) -> ProofRow:
    if run is None:
        return ProofRow(ProofKind.WIDTH, State.CANNOT_TELL, Phrase("cut without a run: lay the shim in"))
    said = any(one.kind is RunMarkKind.WIDTH for one in run.marks)
    words = "the shim lies flat in it" if said else "lay the shim in: it must lie flat, clear of the wall"
    return ProofRow(ProofKind.WIDTH, State.IN if said else State.NOT_MEASURED, Phrase(words))


def _stop_and_gauge(facts: JobFacts, hole: Hole, cut: Cut, depth: Stated | None) -> ProofRow:
    """Hold what was counted from touch-off against the change by the gauge at the same positions.

    The depth before is that of the highest spot, which the cutter touched; the ledge after is one plane.
    """
    check = cross_check(facts, hole, cut, depth)
    if check is None:
        return ProofRow(
            ProofKind.STOP_AND_GAUGE, State.NOT_MEASURED, Phrase("read before and after at the same places")
        )
    terms = (Term("d", check.off.value_m), Term("U", check.off.expanded_m, "within"), Term("c", check.counted_m),
             Term("w", check.sunk_m))  # fmt: skip
    if abs(check.off.value_m) > check.off.expanded_m:
        words = "{d} ±{U} deeper by the gauge than {c} counted: a graduation, a burr or a slipped collar"
        return ProofRow(ProofKind.STOP_AND_GAUGE, State.CANNOT_TELL, Phrase(words, terms))
    words = "{d} ±{U} between them over {c}; the place touched stood {w} below nominal"
    if check.nothing_sunk:
        words += ": the ledge had not sunk there, look elsewhere for a low liner"
    return ProofRow(ProofKind.STOP_AND_GAUGE, State.IN, Phrase(words, terms))


@dataclass(frozen=True, slots=True)
class StopAgainstGauge:
    """Change by the gauge less what was counted, and how far the place touched stood below nominal. [m]"""

    off: Stated
    counted_m: float
    sunk_m: float
    nothing_sunk: bool


def cross_check(facts: JobFacts, hole: Hole, cut: Cut, depth: Stated | None) -> StopAgainstGauge | None:
    """Hold the depth by the stop against the depth by the gauge. [m]

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    hole : Hole
        The hole.
    cut : Cut
        Its cut.
    depth : Stated or None
        Depth of the new ledge by the gauge. [m]

    Returns
    -------
    StopAgainstGauge or None
        None while one of the two was not read.

    Notes
    -----
    New depth by the gauge − nominal depth − count from touch-off is how far the place touched stood from nominal, sunk
    positive; nought within its U means that the ledge had not sunk there: common practice, no published source.
    """
    after = ledge_of(facts, hole)
    nominal = facts.card.seat.counterbore_nominal.metres
    if depth is None or after is None:
        return None
    counted = metres(cut.touch_off_um)
    planned = metres(cut.depth_um)
    stop = Source("stop of the cutter", metres(cut.stop_u_um), basis="recorded with the cut", error=cut.cut_id)
    off = stated(
        "gauge less count", difference_of(after.estimate, estimate(planned, (stop,))), facts.card.coverage_factor
    )
    sunk = 0.0 if nominal is None else depth.value_m - nominal - counted
    nothing = nominal is not None and abs(sunk) <= depth.expanded_m
    return StopAgainstGauge(off, counted, sunk, nothing)
