"""How each kind of fact stands on the tape, in words."""

from vallostasis.core.features.pattern import place_words
from vallostasis.core.notation.lengths import both_depth, both_size, both_small, both_temperatures
from vallostasis.core.notation.typed_lengths import as_entered
from vallostasis.core.operations.catalogue import operation_of
from vallostasis.core.records.bar_settings import BarSetting
from vallostasis.core.records.block_plans import PlannedHole
from vallostasis.core.records.bore_decisions import BoreDecision, BoreLook
from vallostasis.core.records.boring_passes import BoringPass
from vallostasis.core.records.cards_chosen import CardChosen
from vallostasis.core.records.clamping import BoltMark, BoltMarkKind, Tightening
from vallostasis.core.records.cut_runs import CutRun, RunMark, RunPass
from vallostasis.core.records.experiments import Experiment, ExperimentResult, KeptCase
from vallostasis.core.records.heat_runs import HeatMark, HeatRun
from vallostasis.core.records.honing import HoneMark, HoneMarkKind, HoneRound, HoneSetting, HoneStage
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.matchings import MatchedPlace
from vallostasis.core.records.notes import ReadingNote
from vallostasis.core.records.piston_matches import PistonMatch
from vallostasis.core.records.preparation import Inspection, PrepKind, PrepStep
from vallostasis.core.records.prices import OptionChoice
from vallostasis.core.records.probes import Probe
from vallostasis.core.records.pulls import Pull, PullMark
from vallostasis.core.records.route_marks import (
    Bill,
    ClockMark,
    Finding,
    HoldPass,
    OperationMark,
    SchoolChoice,
    Wait,
    WaitEnd,
    Waiver,
)
from vallostasis.core.records.rows import (
    Cut,
    Fitting,
    FittingOut,
    Quantity,
    Reading,
    ReadingSet,
    Setup,
    Stamp,
    Unreadable,
    ZeroCheck,
    ZeroCorrection,
    ZeroedOn,
)
from vallostasis.core.records.scans import Scan
from vallostasis.core.records.temperatures import Temperature
from vallostasis.core.shapes.clock import hour_name


def reading_words(facts: JobFacts, reading: Reading) -> str:
    """How it stands on the tape, in words."""
    quantity = facts.setup(facts.reading_set(reading.reading_set_id).setup_id).quantity
    what = "" if quantity is Quantity.PROTRUSION else quantity.value
    said = (what, place_words(reading.place), as_entered(reading.typed, reading.typed_unit))
    return " ".join(part for part in said if part)


def cut_words(_facts: JobFacts, cut: Cut) -> str:
    """How it stands on the tape, in words."""
    return f"cut to {cut.typed}"


def fitting_words(facts: JobFacts, fitting: Fitting) -> str:
    """How it stands on the tape, in words."""
    shims = " + ".join(shim.typed for shim in facts.shims_of(fitting.fitting_id))
    return f"{facts.liner(fitting.liner_id).mark} fitted" + (f" on {shims} shim" if shims else "")


def drawn_words(facts: JobFacts, out: FittingOut) -> str:
    """A liner that came out for a cut or another liner is no line beside theirs."""
    if out.because_cut_id is not None or out.because_fitting_id is not None:
        return ""
    fitting = next(one for one in facts.fittings if one.fitting_id == out.fitting_id)
    return f"{facts.liner(fitting.liner_id).mark} drawn"


def setup_words(facts: JobFacts, setup: Setup) -> str:
    """Say how something is read: with which gauge, zeroed on what, where, clamped how."""
    zero = "" if setup.zeroed_on is ZeroedOn.DATUM else f"zeroed on the {setup.zeroed_on.value} {setup.zero_typed}"
    how = (facts.newest_gauge(setup.gauge_id).name, zero, setup.land, setup.hold_down, setup.load, setup.method)
    return f"{setup.quantity.value} with {', '.join(part.strip() for part in how if part.strip())}"


def set_words(facts: JobFacts, reading_set: ReadingSet) -> str:
    """How it stands on the tape, in words."""
    return f"set of {facts.setup(reading_set.setup_id).quantity.value} opened"


def temperature_words(_facts: JobFacts, taken: Temperature) -> str:
    """How it stands on the tape, in words."""
    body = taken.part or {"part": "block"}.get(taken.body, taken.body)
    return f"{body} at {both_temperatures(float(taken.celsius))}"


def look_words(facts: JobFacts, look: ZeroCheck) -> str:
    """How it stands on the tape, in words."""
    return f"zero of {facts.setup(look.setup_id).quantity.value} looked at: {look.typed}"


def correction_words(facts: JobFacts, correction: ZeroCorrection) -> str:
    """How it stands on the tape, in words."""
    of = facts.setup(facts.reading_set(correction.reading_set_id).setup_id).quantity.value
    why = f": {correction.reason}" if correction.reason else ""
    return f"zero of {of} corrected by {as_entered(correction.typed, 'µm')}{why}"


def unreadable_words(_facts: JobFacts, said: Unreadable) -> str:
    """How it stands on the tape, in words."""
    what = f"cannot be read: {said.reason}" if said.unreadable else "can be read again"
    return f"{said.quantity.value} {place_words(said.place)} {what}"


def letters_words(_facts: JobFacts, stamp: Stamp) -> str:
    """How it stands on the tape, in words."""
    return f"letters {stamp.letters}" if stamp.letters else "letters taken off"


def note_words(_facts: JobFacts, note: ReadingNote) -> str:
    """How it stands on the tape, in words."""
    return "note: " + (note.words or "a photo")


def card_words(_facts: JobFacts, choice: CardChosen) -> str:
    """How it stands on the tape, in words."""
    return f"judged by {choice.name}, version {choice.version}" + (f": {choice.reason}" if choice.reason else "")


def operation_words(_facts: JobFacts, mark: OperationMark) -> str:
    """How it stands on the tape, in words."""
    return with_more(f"{operation_of(mark.operation).title}: {mark.kind.value}", mark.words)


def clock_words(_facts: JobFacts, mark: ClockMark) -> str:
    """How it stands on the tape, in words."""
    bill = "" if mark.bill is Bill.AGREED else mark.bill.value
    return with_more(f"clock {'started' if mark.running else 'stopped'}: {operation_of(mark.operation).title}", bill)


def wait_words(_facts: JobFacts, wait: Wait) -> str:
    """How it stands on the tape, in words."""
    return f"{operation_of(wait.operation).title} waits for {wait.cause.value}: {wait.words}"


def wait_end_words(facts: JobFacts, end: WaitEnd) -> str:
    """How it stands on the tape, in words."""
    wait = next(one for one in facts.waits if one.wait_id == end.wait_id)
    return with_more(f"no longer waits for {wait.cause.value}: {wait.words}", end.words)


def hold_words(_facts: JobFacts, passed: HoldPass) -> str:
    """How it stands on the tape, in words."""
    return f"hold point passed, {passed.hold.value}: {passed.reason}"


def school_words(_facts: JobFacts, choice: SchoolChoice) -> str:
    """How it stands on the tape, in words."""
    return with_more(f"school, {choice.question}: {choice.side}", choice.reason)


def finding_words(_facts: JobFacts, finding: Finding) -> str:
    """How it stands on the tape, in words."""
    where = ""
    if finding.from_um is not None and finding.hour is not None:
        where = f" at {hour_name(finding.hour)}, {both_depth(finding.from_um)} down"
    said = f"found, {finding.kind.value}: {finding.part} {finding.word} {finding.typed}".strip() + where
    return with_more(said, finding.words)


def waiver_words(_facts: JobFacts, waiver: Waiver) -> str:
    """How it stands on the tape, in words."""
    return f"{waiver.quantity.value} {'is not read' if waiver.waived else 'is to be read after all'}: {waiver.reason}"


def prepared_words(_facts: JobFacts, step: PrepStep) -> str:
    """How it stands on the tape, in words."""
    where = {PrepKind.SCRAPED: "with the", PrepKind.PLUGS_IN: "of the", PrepKind.PLUGS_OUT: "of the"}.get(step.kind, "")
    return with_more(f"{step.count} {step.kind.value} {where} {step.place}".strip(), step.words)


def bore_decision_words(_facts: JobFacts, decided: BoreDecision) -> str:
    """How it stands on the tape, in words."""
    step = "" if decided.oversize_um is None else f", +{both_small(decided.oversize_um)}"
    said = f"decided: {decided.choice.value}{step}"
    accepted = f"; accepted by name: {decided.concession}" if decided.concession else ""
    return with_more(said + accepted, decided.reason)


def probe_words(_facts: JobFacts, probe: Probe) -> str:
    """How it stands on the tape, in words."""
    return f"probed at {probe.points} points, {probe.file_name}".rstrip(", ")


def scan_words(_facts: JobFacts, scan: Scan) -> str:
    """How it stands on the tape, in words."""
    return with_more(f"scan of {scan.points} points, {scan.file_name}".rstrip(", "), scan.load)


def bore_look_words(_facts: JobFacts, look: BoreLook) -> str:
    """How it stands on the tape, in words."""
    return with_more(f"looked at, cut to +{both_small(look.oversize_um)}: {look.outcome.value}", look.words)


def bar_setting_words(_facts: JobFacts, setting: BarSetting) -> str:
    """How it stands on the tape, in words."""
    gaps = [one for one in (setting.gap_12_um, setting.gap_3_um, setting.gap_6_um, setting.gap_9_um) if one is not None]
    felt = f", gaps {', '.join(both_small(one) for one in gaps)}" if gaps else ""
    return with_more(f"bar set on the {setting.datum.value}{felt}", setting.words)


def boring_pass_words(_facts: JobFacts, made: BoringPass) -> str:
    """How it stands on the tape, in words."""
    read = "" if made.diameter_um is None else f", reads {both_size(made.diameter_um)}"
    return with_more(f"{made.kind.value}, dial {both_small(made.dial_um)} a side{read}", made.words)


def hone_setting_words(_facts: JobFacts, setting: HoneSetting) -> str:
    """How it stands on the tape, in words."""
    stones = f"{setting.rough_grit} and {setting.fine_grit} grit"
    return with_more(f"hone set to the {setting.aim.value}: {stones}, {setting.method.value}", setting.words)


def hone_round_words(_facts: JobFacts, made: HoneRound) -> str:
    """How it stands on the tape, in words."""
    stones = "brush" if made.stage is HoneStage.BRUSH else f"{made.stage.value}, {made.grit} grit"
    return f"round begun: {stones}, {made.method.value}"


def hone_mark_words(_facts: JobFacts, mark: HoneMark) -> str:
    """How it stands on the tape, in words."""
    said = f"stopped after {mark.strokes} double strokes" if mark.kind is HoneMarkKind.STOPPED else mark.kind.value
    return with_more(said, mark.words)


def piston_match_words(_facts: JobFacts, match: PistonMatch) -> str:
    """How it stands on the tape, in words."""
    faces = f", faces {match.faces}" if match.faces else ""
    return with_more(f"piston {match.mark} matched{faces}: {match.run.value}, pin {match.pin.value}", match.words)


def tightening_words(_facts: JobFacts, begun: Tightening) -> str:
    """How it stands on the tape, in words."""
    over = "" if begun.from_hole is None else f" over holes {begun.from_hole} to {begun.to_hole}"
    return with_more(f"{begun.clamp.value}{over} begun, {begun.stages[-1]} N·m at last", begun.words)


def bolt_words(_facts: JobFacts, mark: BoltMark) -> str:
    """How it stands on the tape, in words."""
    bolt = mark.kind.value if mark.kind is BoltMarkKind.OFF else f"bolt {mark.bolt} {mark.kind.value}"
    return with_more(bolt if mark.torque_nm is None else f"{bolt} at {mark.torque_nm} N·m", mark.words)


def planned_words(_facts: JobFacts, planned: PlannedHole) -> str:
    """How it stands on the tape, in words."""
    if planned.depth_um is None or planned.shim_um is None:
        return f"planned by “{planned.rule}”: left as it is"
    return f"planned by “{planned.rule}”: cut to {both_size(planned.depth_um)}, {both_size(planned.shim_um)} shim"


def matched_words(facts: JobFacts, matched: MatchedPlace) -> str:
    """How it stands on the tape, in words."""
    goes = f"{facts.liner(matched.liner_id).mark} is to go here"
    return goes if matched.shim_um is None else f"{goes}, the hole cut for a {both_size(matched.shim_um)} shim first"


def option_words(_facts: JobFacts, choice: OptionChoice) -> str:
    """How it stands on the tape, in words."""
    return with_more(f"decided: {choice.option}", choice.reason)


def experiment_words(_facts: JobFacts, one: Experiment) -> str:
    """How it stands on the tape, in words."""
    return with_more(f"tried: {one.change}", f"expected: {one.expected}")


def experiment_result_words(facts: JobFacts, result: ExperimentResult) -> str:
    """How it stands on the tape, in words."""
    change = next(one.change for one in facts.experiments if one.experiment_id == result.experiment_id)
    read = "" if result.value_um is None else f"{result.typed} {result.typed_unit}"
    return f"came of “{change}”: {', '.join(filter(None, (read, result.words))) or 'nothing'}"


def kept_case_words(_facts: JobFacts, case: KeptCase) -> str:
    """How it stands on the tape, in words."""
    return f"case kept, {case.symptom}: it was {case.cause}"


def pull_words(facts: JobFacts, pull: Pull) -> str:
    """How it stands on the tape, in words."""
    return f"{facts.liner(pull.liner_id).mark} on its way in, {pull.slides.value}, with {pull.tool or 'the hands'}"


def pull_mark_words(_facts: JobFacts, mark: PullMark) -> str:
    """How it stands on the tape, in words."""
    force = "" if mark.force_kn is None else f", {mark.force_kn} kN"
    return with_more(f"{mark.kind.value} {mark.typed}".strip() + force, mark.words)


def heat_run_words(facts: JobFacts, run: HeatRun) -> str:
    """How it stands on the tape, in words."""
    return f"{facts.liner(run.liner_id).mark} is to drop, block {run.block_c} °C, liner {run.liner_c} °C"


def heat_mark_words(_facts: JobFacts, mark: HeatMark) -> str:
    """How it stands on the tape, in words: what thermometers said by the seconds is no line of its own."""
    if mark.was_taken_by_itself:
        return ""
    read = f" {mark.celsius} °C" if mark.celsius is not None else f" {mark.typed}" if mark.typed else ""
    return with_more(f"{mark.kind.value}{read}", mark.words)


def run_words(_facts: JobFacts, run: CutRun) -> str:
    """How it stands on the tape, in words."""
    return f"run begun to {both_size(run.depth_um)} with {run.cutter or 'the cutter'}"


def pass_words(_facts: JobFacts, one: RunPass) -> str:
    """How it stands on the tape, in words."""
    return f"pass {one.number} ended at {one.stop_hour:g} h"


def run_mark_words(_facts: JobFacts, mark: RunMark) -> str:
    """How it stands on the tape, in words."""
    return with_more(f"{mark.kind.value} {mark.typed}".strip(), mark.words)


def inspection_words(_facts: JobFacts, look: Inspection) -> str:
    """How it stands on the tape, in words."""
    return with_more(f"{look.kind.value}: {look.outcome.value} {look.typed}".strip(), look.words)


def with_more(said: str, more: str) -> str:
    """How it stands on the tape, in words."""
    return f"{said}, {more}" if more else said
