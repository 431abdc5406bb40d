"""How far an operation is, from what is recorded: readings, cuts, fittings, checks, and marks for what leaves no trace.

An operation is done where its state is in. States stand in the order of computation of a hole: read again before out.
"""

from collections.abc import Callable

from vallostasis.core.bores.decisions import contradictions
from vallostasis.core.clamping.progress import TightState, tightenings_of
from vallostasis.core.features.parts import parts_of
from vallostasis.core.honing.now import HoneState, hone_now
from vallostasis.core.honing.rounds import rounds_of
from vallostasis.core.mains.line import line_of
from vallostasis.core.operations import schools
from vallostasis.core.operations.catalogue import OPERATIONS, Scope
from vallostasis.core.operations.disturbances import doings_of, warmth_words
from vallostasis.core.operations.drops_seen import COLD_WITHIN_K, cold_again_of, warm_block_of
from vallostasis.core.operations.schools import side_of
from vallostasis.core.protrusion.measured import deciding_bore, judge_job, protrusion_of
from vallostasis.core.records.clamping import Clamp
from vallostasis.core.records.honing import HoneAim
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import FindingKind, MarkKind, Operation
from vallostasis.core.records.rows import Hole, Quantity, ReadingSet
from vallostasis.core.records.spec_card import CONSTRUCTIONS_WITH_PROTRUSION, sheet_of
from vallostasis.core.route.as_found import as_found_left
from vallostasis.core.route.cutting_evidence import clean, cut_of, plug, wash
from vallostasis.core.route.plan import is_to_be_cut, plan_of
from vallostasis.core.route.shown import Evidence, by_mark, holes_words, mark_of, of_survey, worst_of
from vallostasis.core.surveys.set_budget import standing_temperatures
from vallostasis.core.surveys.survey import Survey, survey_of
from vallostasis.core.uncertainty.decision import State


def evidence_of(facts: JobFacts, operation: Operation, hole: Hole | None) -> Evidence:
    """Say how far an operation is, of the block or of one hole.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    operation : Operation
        The operation.
    hole : Hole or None
        The hole, None for an operation of the block.

    Returns
    -------
    Evidence
        House rules: what shows that an operation is done stands with each function.
    """
    own = _OF_HOLE.get(operation)
    if own is not None and hole is not None:
        return own(facts, hole)
    block = _OF_BLOCK.get(operation)
    return block(facts) if block is not None else by_mark(facts, operation, hole)


def _take_in(facts: JobFacts) -> Evidence:
    """Card, customer and complaint are there."""
    missing = [name for name in ("customer", "complaint") if not getattr(facts.job, name).strip()]
    if missing:
        return Evidence(State.NOT_MEASURED, f"{' and '.join(missing)} not written down")
    return Evidence(State.IN, "taken in", facts.job.opened_at)


def _decide(facts: JobFacts) -> Evidence:
    """Marked, and nothing found since that contradicts what was agreed."""
    marked, against = by_mark(facts, Operation.DECIDE, None), contradictions(facts)
    if against and marked.is_done:
        return Evidence(State.READ_AGAIN, "; ".join(one.words for one in against), marked.at, marked.by)
    return marked


def _strip(facts: JobFacts) -> Evidence:
    """Marked, and something written down for every hole: how it was, or how its gasket was."""
    marked = by_mark(facts, Operation.STRIP, None)
    if not marked.is_done:
        return marked
    kinds = (FindingKind.CONDITION, FindingKind.GASKET)
    known = {one.hole_id for one in facts.standing(facts.findings) if one.kind in kinds}
    missing = [str(hole.number) for hole in facts.holes if hole.hole_id not in known]
    if missing:
        return Evidence(State.NOT_MEASURED, f"nothing written down of {holes_words(missing)}", marked.at, marked.by)
    return marked


def _measure(facts: JobFacts) -> Evidence:
    """Every survey that the card asks for as found has its places read, or is waived by name."""
    left = as_found_left(facts)
    if left:
        first = left[0]
        more = f" and {len(left) - 1} more" if len(left) > 1 else ""
        return Evidence(State.NOT_MEASURED, f"{first.quantity.value}, {first.title}{more} not read as found")
    times = [one.taken_at for one in facts.readings[:1]]
    return Evidence(State.IN, "read, or waived by name", times[0] if times else None)


def _order(facts: JobFacts) -> Evidence:
    waits = [one for one in facts.standing(facts.waits) if one.operation is Operation.ORDER]
    open_waits = [one for one in waits if one.wait_id not in facts.standing_wait_ends]
    if open_waits:
        return Evidence(State.NOT_MEASURED, f"waits for {open_waits[0].words}")
    ends = [facts.standing_wait_ends[one.wait_id].ended for one in waits]
    return Evidence(State.IN, "parts are here", max(ends, default=None))


def _worked_and_read(facts: JobFacts, operation: Operation, hole: Hole, *surveys: Survey) -> Evidence:
    """Marked as done, and what shows it read since: what was read before is disturbed by it."""
    return _read_since(by_mark(facts, operation, hole), *surveys)


def _read_since(worked: Evidence, *surveys: Survey) -> Evidence:
    return worst_of([*(of_survey(one) for one in surveys), worked]) if worked.is_done else worked


def _honed(facts: JobFacts, operation: Operation, hole: Hole, aim: HoneAim) -> Evidence:
    """Marked by hand, or rounds on record that brought it to its size."""
    marked, rounds = by_mark(facts, operation, hole), rounds_of(facts, hole, aim)
    last = next((one.stopped for one in reversed(rounds) if one.stopped is not None), None)
    if marked.at is not None or last is None:
        return marked
    now = hone_now(facts, hole, aim)
    if now.state is not HoneState.DONE:
        return Evidence(State.NOT_MEASURED, f"{len(rounds)} rounds of the hone so far: {now.state.value}")
    return Evidence(State.IN, f"{len(rounds)} rounds of the hone", last.noted_at, last.noted_by)


def _tightened(facts: JobFacts, operation: Operation, clamp: Clamp) -> Evidence:
    """Marked by hand, or bolts on record that all held when they were tried once more."""
    marked, found = by_mark(facts, operation, None), tightenings_of(facts, clamp)
    if marked.at is not None or not found:
        return marked
    newest = found[-1]
    if not newest.was_tight:
        return Evidence(
            State.NOT_MEASURED, f"bolt by bolt: {newest.state.value}, round {newest.turn} of {newest.rounds}"
        )
    return Evidence(State.IN, f"{len(newest.begun.order)} bolts on record", newest.at, newest.by)


def _caps(facts: JobFacts) -> Evidence:
    return _tightened(facts, Operation.CAPS, Clamp.CAPS)


def _plate(facts: JobFacts) -> Evidence:
    """As above; a plate that came off again before anything was honed under it does not count."""
    found = tightenings_of(facts, Clamp.PLATE)
    off = bool(found) and found[-1].state is TightState.OFF
    honed = [one.at for one in doings_of(facts) if one.operation is Operation.HONE]
    if off and not any(one.at is not None and at > one.at for one in found for at in honed):
        return by_mark(facts, Operation.PLATE, None)
    return _tightened(facts, Operation.PLATE, Clamp.PLATE)


def _survey_of_hole(facts: JobFacts, quantity: Quantity, hole: Hole) -> Survey:
    part = next(one for one in parts_of(facts, quantity) if one.hole == hole.number)
    return survey_of(facts, quantity, part)


def _bore_block(facts: JobFacts, hole: Hole) -> Evidence:
    return _worked_and_read(facts, Operation.BORE_BLOCK, hole, _survey_of_hole(facts, Quantity.BLOCK_BORE, hole))


def _hone_block(facts: JobFacts, hole: Hole) -> Evidence:
    """Honed, the bore read since, and its sleeve tried in it where the card asks for that."""
    surveys = [_survey_of_hole(facts, Quantity.BLOCK_BORE, hole)]
    if sheet_of(facts.card, Quantity.TRIAL_FIT) is not None:
        surveys.append(_survey_of_hole(facts, Quantity.TRIAL_FIT, hole))
    return _read_since(_honed(facts, Operation.HONE_BLOCK, hole, HoneAim.SLEEVE), *surveys)


def is_made_ready(facts: JobFacts, hole: Hole) -> bool:
    """Whether a hole was logged as ready since it was last cut or fitted: each liner that goes in wants its own look.

    House rule: by the order in which it was recorded.
    """
    mark = mark_of(facts, Operation.FIT_PREP, hole)
    since = [one.event for one in facts.standing_cuts(hole.hole_id)]
    since += [one.event for one in facts.standing_fittings(hole.hole_id)]
    return mark is not None and mark.kind is MarkKind.DONE and mark.event > max(since, default=0)


def _fit_prep(facts: JobFacts, hole: Hole) -> Evidence:
    """Marked since the last cut: chips of a later one are not wiped out yet."""
    if is_to_be_cut(facts, hole):
        return Evidence(State.NOT_MEASURED, "to be cut first")
    marked = by_mark(facts, Operation.FIT_PREP, hole)
    cut = facts.last_cut(hole.hole_id)
    if marked.is_done and cut is not None and marked.at is not None and marked.at < cut.cut_at:
        return Evidence(State.READ_AGAIN, "cut since: make it ready again", marked.at, marked.by)
    return marked


def _heat(facts: JobFacts) -> Evidence:
    """Marked, and the block written down as warm: what was taken of it cold says nothing of the oven."""
    marked = by_mark(facts, Operation.HEAT, None)
    warm = warm_block_of(facts)
    if warm is not None:
        return Evidence(State.IN, f"block {warm.celsius} °C as a liner dropped", warm.noted_at, warm.noted_by)
    if marked.is_done and not _was_read_warm(facts):
        return Evidence(State.NOT_MEASURED, "temperature of the block not written down", marked.at, marked.by)
    return marked


def _was_read_warm(facts: JobFacts) -> bool:
    """Whether a temperature of the block was taken that is more than 5 K above that of the room."""
    room = standing_temperatures(facts, "room")
    room_c = float(room[-1].celsius) if room else float(facts.room.mean_c)
    return any(float(one.celsius) > room_c + COLD_WITHIN_K for one in standing_temperatures(facts, "part"))


def _fit(facts: JobFacts, hole: Hole) -> Evidence:
    if is_to_be_cut(facts, hole):
        return Evidence(State.NOT_MEASURED, "to be cut first, then fitted again")
    fitting = facts.present_fitting(hole.hole_id)
    if fitting is None or facts.came_with_engine(fitting):
        return Evidence(State.NOT_MEASURED, "not fitted yet")
    mark = facts.liner(fitting.liner_id).mark
    return Evidence(State.IN, f"{mark} fitted", fitting.fitted_at, fitting.fitted_by)


def _soak(facts: JobFacts) -> Evidence:
    """Marked, and the block no more than 5 K from the room by the last temperatures taken of both."""
    marked = by_mark(facts, Operation.SOAK, None)
    dropped = cold_again_of(facts)
    if dropped is not None:
        return Evidence(State.IN, "let go within 5 K of the room", dropped.noted_at, dropped.noted_by)
    if not marked.is_done:
        return marked
    heated = [one.at for one in doings_of(facts) if one.operation is Operation.HEAT]
    room = standing_temperatures(facts, "room")
    # What was taken of the block before it was heated says nothing of how far it has come down.
    block = [one for one in standing_temperatures(facts, "part") if not heated or one.taken_at > heated[-1]]
    if not block or not room:
        return Evidence(State.NOT_MEASURED, "temperatures of block and room not written down", marked.at, marked.by)
    block_c, room_c = float(block[-1].celsius), float(room[-1].celsius)
    if abs(block_c - room_c) > COLD_WITHIN_K:
        return Evidence(State.OUT, warmth_words(block_c, room_c), marked.at, marked.by)
    return marked


def _seat(facts: JobFacts, hole: Hole) -> Evidence:
    """Protrusion is in; where liners are left proud, proud of the deck all round until it is decked."""
    if facts.card.construction not in CONSTRUCTIONS_WITH_PROTRUSION:
        return by_mark(facts, Operation.SEAT, hole)
    survey = protrusion_of(facts, hole)
    judged = next(one for one in judge_job(facts).holes if one.hole == hole.number)
    times = [one.taken_at for row in survey.read for one in row.readings]
    at = max(times, default=None)
    proud = side_of(facts, schools.HEIGHT) == schools.LEFT_PROUD
    decked = any(one.operation is Operation.DECK for one in doings_of(facts))
    if proud and not decked and judged.state in (State.OUT, State.IN, State.CANNOT_TELL) and not survey.missing:
        least = min((row.stated.value_m - row.stated.expanded_m for row in survey.read if row.stated), default=0.0)
        if least > 0:
            return Evidence(State.IN, "proud of the deck all round, to be decked", at)
        return Evidence(State.OUT, "not proud of the deck all round: nothing is left to deck", at)
    return Evidence(judged.state, judged.reason, at)


def _deck(facts: JobFacts) -> Evidence:
    """Marked, and the deck read flat since where the card asks for it."""
    marked = by_mark(facts, Operation.DECK, None)
    if not marked.is_done or sheet_of(facts.card, Quantity.DECK_FLATNESS) is None:
        return marked
    return worst_of([*_surveys(facts, Quantity.DECK_FLATNESS), marked])


def _surveys(facts: JobFacts, quantity: Quantity) -> list[Evidence]:
    return [of_survey(survey_of(facts, quantity, part)) for part in parts_of(facts, quantity)]


def _bore(facts: JobFacts, hole: Hole) -> Evidence:
    """Marked, and the bore read all over since: it is smaller than its limits by the stock that is left."""
    marked = by_mark(facts, Operation.BORE, hole)
    bore = deciding_bore(facts, hole)
    if not marked.is_done or bore.disturbed is not None:
        return marked if not marked.is_done else of_survey(bore)
    if bore.missing or bore.doubt or not bore.read:
        return Evidence(State.NOT_MEASURED, "bored, not read all over since", marked.at, marked.by)
    return marked


def _hone(facts: JobFacts, hole: Hole) -> Evidence:
    """Honed, and the bore in its limits by what was read since."""
    return _read_since(_honed(facts, Operation.HONE, hole, HoneAim.PISTON), deciding_bore(facts, hole))


def _free(facts: JobFacts, hole: Hole) -> Evidence:
    """A reading of the bore without the plate, taken after it was honed."""
    honed = [one.at for one in doings_of(facts) if one.operation is Operation.HONE and one.hole == hole.number]
    for quantity in (Quantity.LINER_BORE, Quantity.BLOCK_BORE):
        for one in facts.sets_of(quantity):
            if not facts.setup(one.setup_id).load.startswith("free") or not _is_of_hole(facts, one, hole):
                continue
            times = [reading.taken_at for reading in facts.standing_readings(one)]
            if honed and times and min(times) > honed[-1]:
                return Evidence(State.IN, "read without the plate", max(times))
    return Evidence(State.NOT_MEASURED, "not read without the plate since it was honed")


def _is_of_hole(facts: JobFacts, reading_set: ReadingSet, hole: Hole) -> bool:
    if reading_set.fitting_id is None:
        return reading_set.hole_id == hole.hole_id
    return any(one.fitting_id == reading_set.fitting_id and one.hole_id == hole.hole_id for one in facts.fittings)


def _mains(facts: JobFacts) -> Evidence:
    """Sizes in, and the line too where the card asks for it."""
    return worst_of([*_surveys(facts, Quantity.MAIN_BORE), *_line(facts)])


def _line(facts: JobFacts) -> list[Evidence]:
    if sheet_of(facts.card, Quantity.MAIN_LINE) is None:
        return []
    line = line_of(facts)
    words = {State.IN: "in line", State.OUT: "off the line", State.NOT_MEASURED: "line not swept"}
    return [Evidence(line.state, words.get(line.state, "line cannot be told"))]


def _align(facts: JobFacts) -> Evidence:
    return worst_of([by_mark(facts, Operation.ALIGN, None), *_surveys(facts, Quantity.MAIN_BORE), *_line(facts)])


def _pistons(facts: JobFacts, hole: Hole) -> Evidence:
    """Marked on the part, and clearance and ring gap read where the card asks for them."""
    asked = [one for one in OPERATIONS[Operation.PISTONS].proves if sheet_of(facts.card, one) is not None]
    return _worked_and_read(facts, Operation.PISTONS, hole, *(_survey_of_hole(facts, one, hole) for one in asked))


_OF_HOLE: dict[Operation, Callable[[JobFacts, Hole], Evidence]] = {
    Operation.BORE_BLOCK: _bore_block,
    Operation.HONE_BLOCK: _hone_block,
    Operation.CUT: cut_of,
    Operation.FIT_PREP: _fit_prep,
    Operation.FIT: _fit,
    Operation.SEAT: _seat,
    Operation.BORE: _bore,
    Operation.HONE: _hone,
    Operation.FREE: _free,
    Operation.PISTONS: _pistons,
}
_OF_BLOCK: dict[Operation, Callable[[JobFacts], Evidence]] = {
    Operation.TAKE_IN: _take_in,
    Operation.STRIP: _strip,
    Operation.MEASURE: _measure,
    Operation.DECIDE: _decide,
    Operation.ORDER: _order,
    Operation.CAPS: _caps,
    Operation.PLATE: _plate,
    Operation.CLEAN: clean,
    Operation.PLUG: plug,
    Operation.HEAT: _heat,
    Operation.SOAK: _soak,
    Operation.DECK: _deck,
    Operation.MAINS: _mains,
    Operation.ALIGN: _align,
    Operation.WASH: wash,
}


def evidence_of_route(facts: JobFacts) -> dict[tuple[Operation, int | None], Evidence]:
    """Return how far every operation of a route is, by hole where that is its scope, but the proof itself."""
    found: dict[tuple[Operation, int | None], Evidence] = {}
    for leg in plan_of(facts):
        if leg.operation is Operation.PROVE:
            continue
        if OPERATIONS[leg.operation].scope is Scope.BLOCK:
            found[leg.operation, None] = evidence_of(facts, leg.operation, None)
        for hole in leg.holes:
            found[leg.operation, hole.number] = evidence_of(facts, leg.operation, hole)
    return found
