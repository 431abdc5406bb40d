"""What shows that a block was made ready, its ledges cut, and everything washed out again."""

from vallostasis.core.counterbore.ledge_report import report_ledge
from vallostasis.core.counterbore.preparation import preparation_of
from vallostasis.core.operations.disturbances import doings_of
from vallostasis.core.protrusion.measured import depths_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.preparation import PrepKind
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.records.rows import Hole, Quantity
from vallostasis.core.route.as_found import as_found_left
from vallostasis.core.route.shown import Evidence, by_mark, mark_of
from vallostasis.core.uncertainty.decision import State

# What makes grit, so that a wash before it has to be done again.
GRIT = (Operation.BORE_BLOCK, Operation.HONE_BLOCK, Operation.CUT, Operation.DECK, Operation.BORE, Operation.HONE,
        Operation.ALIGN)  # fmt: skip


def clean(facts: JobFacts) -> Evidence:
    """Marked by hand, or every step of it written down; and the deck read for flatness where the card asks for it.

    House rule.
    """
    shown = by_mark(facts, Operation.CLEAN, None)
    ready = preparation_of(facts)
    if shown.state is State.NOT_MEASURED:
        if ready.uncleaned:
            begun = any(one.kind in (PrepKind.SCRAPED, PrepKind.BOLT_HOLES, PrepKind.DOWELS) for one in ready.steps)
            return Evidence(State.NOT_MEASURED, ", ".join(ready.uncleaned) if begun else "not done yet")
        at, by = ready.newest(PrepKind.SCRAPED, PrepKind.BOLT_HOLES, PrepKind.DOWELS)
        passes = f"{ready.scraped} scrape passes, {ready.bolt_holes} bolt holes chased, {ready.dowels} dowels drawn"
        shown = Evidence(State.IN, passes, at, by)
    unread = [one for one in as_found_left(facts) if one.quantity is Quantity.DECK_FLATNESS]
    if shown.is_done and unread:
        return Evidence(State.NOT_MEASURED, "deck flatness not read", shown.at, shown.by)
    return shown


def plug(facts: JobFacts) -> Evidence:
    """Marked by hand, or the plugs of every place counted in. House rule."""
    shown, ready = by_mark(facts, Operation.PLUG, None), preparation_of(facts)
    if shown.state is not State.NOT_MEASURED:
        return shown
    if ready.unplugged:
        begun = any(one.kind is PrepKind.PLUGS_IN for one in ready.steps)
        words = f"plugs of {', '.join(ready.unplugged)} not counted in" if begun else "not done yet"
        return Evidence(State.NOT_MEASURED, words)
    at, by = ready.newest(PrepKind.PLUGS_IN)
    return Evidence(State.IN, f"{sum(one.went_in for one in ready.plugs)} plugs in", at, by)


def cut_of(facts: JobFacts, hole: Hole) -> Evidence:
    """Cut recorded, its ledge read all round since, and no position that tells of a burr or a worn spot."""
    cut = facts.last_cut(hole.hole_id)
    if cut is None:
        return Evidence(State.NOT_MEASURED, "not cut yet")
    depths = depths_of(facts, hole)
    if depths.missing or not depths.read:
        return Evidence(State.NOT_MEASURED, "cut, ledge not read all round since", cut.cut_at, cut.cut_by)
    report = report_ledge(facts, hole)
    if report is not None and (report.uneven or report.worn_hours or report.proud_hours):
        return Evidence(State.CANNOT_TELL, "the ledge is no plane: read it again", cut.cut_at, cut.cut_by)
    return Evidence(State.IN, f"cut to {cut.typed}, ledge read", cut.cut_at, cut.cut_by)


def wash(facts: JobFacts) -> Evidence:
    """Marked, as many plugs out as went in, and no grit made since. House rule."""
    mark, marked = mark_of(facts, Operation.WASH, None), by_mark(facts, Operation.WASH, None)
    if mark is None or not marked.is_done:
        return marked
    since = [one for one in doings_of(facts) if one.operation in GRIT and one.at > mark.done_at]
    if since:
        return Evidence(State.READ_AGAIN, f"{since[-1].words} since: wash it again", marked.at, marked.by)
    missing = preparation_of(facts).plugs_missing
    return Evidence(State.OUT, missing, marked.at, marked.by) if missing else marked
