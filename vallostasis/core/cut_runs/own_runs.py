"""The finished runs of a job as they teach about its cutter."""

from vallostasis.core.counterbore.learned import HoleCut
from vallostasis.core.cut_runs.run import RunNow, RunState, pass_times, runs_of
from vallostasis.core.notation.lengths import metres
from vallostasis.core.protrusion.stack import ledge_from_depths
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole, Quantity
from vallostasis.core.records.values import value_used_um
from vallostasis.core.shapes.clock import angle_of_hour
from vallostasis.core.uncertainty.budget import exactly


def finished_runs(facts: JobFacts) -> tuple[tuple[Hole, RunNow, HoleCut], ...]:
    """Return the finished runs of a job whose ledge was read all round since, with what each teaches. [m], [s]

    The change is that by the gauge from the spot touched to the ledge that the flange rests on. House rule.
    """
    found = []
    for hole in facts.holes:
        for run in runs_of(facts, hole):
            taught = _taught(facts, hole, run)
            if taught is not None:
                found.append((hole, run, taught))
    return tuple(found)


def _taught(facts: JobFacts, hole: Hole, run: RunNow) -> HoleCut | None:
    if run.state is not RunState.FINISHED or run.count == 0:
        return None
    cut = next((one for one in facts.standing_cuts(hole.hole_id) if one.event > run.run.event), None)
    if cut is None:
        return None
    sets = [one for one in facts.sets_of(Quantity.COUNTERBORE_DEPTH) if one.after_cut_id == cut.cut_id]
    read = {reading.hour: metres(value_used_um(facts, one, reading)) for one in sets[-1:]
            for reading in facts.standing_readings(one) if reading.hour is not None}  # fmt: skip
    if not set(facts.card.measuring.required_hours) <= set(read):
        return None
    hours = [hour for hour in read if hour is not None]
    ledge = ledge_from_depths([exactly(read[hour]) for hour in hours], [angle_of_hour(hour) for hour in hours], 2.0)
    change = ledge.depth_m - metres(run.run.start_um)
    # What a last part pass took counts as that part of a graduation.
    passes = float(run.cut_um / run.run.graduation_um) if run.measured is None else float(run.count)
    off = ledge.depth_m - metres(run.run.depth_um)
    return HoleCut(passes, change, off, tuple(pass_times(run)))
