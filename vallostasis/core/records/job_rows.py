"""The rows that a job is made of, kind by kind."""

from dataclasses import dataclass

from vallostasis.core.records.bar_settings import BarSetting
from vallostasis.core.records.block_plans import PlannedHole
from vallostasis.core.records.bore_decisions import BoreDecision, BoreLook
from vallostasis.core.records.boring_passes import BoringPass
from vallostasis.core.records.brought_in import BroughtIn
from vallostasis.core.records.calendar import Pin, Promise, WaitMoved
from vallostasis.core.records.cards_chosen import CardChosen
from vallostasis.core.records.clamping import BoltMark, Tightening
from vallostasis.core.records.cut_runs import CutRun, Lesson, RunMark, RunPass
from vallostasis.core.records.estimates import Declined, Estimate, EstimateAnswer, EstimateLine, PartCost
from vallostasis.core.records.experiments import Experiment, ExperimentResult, KeptCase
from vallostasis.core.records.filings import Filing
from vallostasis.core.records.gauges import GaugeVersion, MasterReading, SettingMaster
from vallostasis.core.records.heat_runs import HeatMark, HeatRun
from vallostasis.core.records.honing import HoneMark, HoneRound, HoneSetting
from vallostasis.core.records.matchings import MatchedPlace
from vallostasis.core.records.notes import ReadingNote
from vallostasis.core.records.orders import Order, OrderMove
from vallostasis.core.records.piston_matches import PistonMatch
from vallostasis.core.records.preparation import Inspection, PrepStep
from vallostasis.core.records.prices import OptionChoice
from vallostasis.core.records.printings import Printing
from vallostasis.core.records.probes import Probe
from vallostasis.core.records.pulls import Pull, PullMark
from vallostasis.core.records.route_marks import (
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
    CardVersion,
    Cut,
    FittedShim,
    Fitting,
    FittingOut,
    Hole,
    Job,
    Liner,
    Reading,
    ReadingSet,
    Setup,
    Stamp,
    Strike,
    Unreadable,
    ZeroCheck,
    ZeroCorrection,
)
from vallostasis.core.records.scans import Scan
from vallostasis.core.records.shelf import ShimLot
from vallostasis.core.records.spec_card import SpecCard
from vallostasis.core.records.temperatures import Material, RoomAssumed, Temperature


@dataclass(frozen=True)
class JobRows:
    """All rows of one job, each list in the order in which it was recorded."""

    job: Job
    card_version: CardVersion
    card: SpecCard
    holes: tuple[Hole, ...]
    liners: tuple[Liner, ...]
    fittings: tuple[Fitting, ...]
    fitting_shims: tuple[FittedShim, ...]
    fitting_outs: tuple[FittingOut, ...]
    cuts: tuple[Cut, ...]
    setups: tuple[Setup, ...]
    sets: tuple[ReadingSet, ...]
    readings: tuple[Reading, ...]
    strikes: tuple[Strike, ...]
    corrections: tuple[ZeroCorrection, ...]
    unreadables: tuple[Unreadable, ...]
    gauge_versions: tuple[GaugeVersion, ...]
    notes: tuple[ReadingNote, ...] = ()
    zero_checks: tuple[ZeroCheck, ...] = ()
    temperatures: tuple[Temperature, ...] = ()
    stamps: tuple[Stamp, ...] = ()
    masters: tuple[SettingMaster, ...] = ()
    materials: tuple[Material, ...] = ()
    master_readings: tuple[MasterReading, ...] = ()
    room: RoomAssumed = RoomAssumed()
    cards_chosen: tuple[CardChosen, ...] = ()
    operation_marks: tuple[OperationMark, ...] = ()
    clock_marks: tuple[ClockMark, ...] = ()
    estimates: tuple[Estimate, ...] = ()
    estimate_lines: tuple[EstimateLine, ...] = ()
    estimate_answers: tuple[EstimateAnswer, ...] = ()
    declined: tuple[Declined, ...] = ()
    part_costs: tuple[PartCost, ...] = ()
    orders: tuple[Order, ...] = ()
    order_moves: tuple[OrderMove, ...] = ()
    promises: tuple[Promise, ...] = ()
    filings: tuple[Filing, ...] = ()
    brought_in: tuple[BroughtIn, ...] = ()
    printings: tuple[Printing, ...] = ()
    pins: tuple[Pin, ...] = ()
    waits_moved: tuple[WaitMoved, ...] = ()
    waits: tuple[Wait, ...] = ()
    wait_ends: tuple[WaitEnd, ...] = ()
    hold_passes: tuple[HoldPass, ...] = ()
    school_choices: tuple[SchoolChoice, ...] = ()
    findings: tuple[Finding, ...] = ()
    waivers: tuple[Waiver, ...] = ()
    prep_steps: tuple[PrepStep, ...] = ()
    inspections: tuple[Inspection, ...] = ()
    planned_holes: tuple[PlannedHole, ...] = ()
    matched_places: tuple[MatchedPlace, ...] = ()
    option_choices: tuple[OptionChoice, ...] = ()
    experiments: tuple[Experiment, ...] = ()
    experiment_results: tuple[ExperimentResult, ...] = ()
    kept_cases: tuple[KeptCase, ...] = ()
    cut_runs: tuple[CutRun, ...] = ()
    run_passes: tuple[RunPass, ...] = ()
    run_marks: tuple[RunMark, ...] = ()
    bore_decisions: tuple[BoreDecision, ...] = ()
    bore_looks: tuple[BoreLook, ...] = ()
    boring_passes: tuple[BoringPass, ...] = ()
    hone_settings: tuple[HoneSetting, ...] = ()
    hone_rounds: tuple[HoneRound, ...] = ()
    hone_marks: tuple[HoneMark, ...] = ()
    piston_matches: tuple[PistonMatch, ...] = ()
    tightenings: tuple[Tightening, ...] = ()
    bolt_marks: tuple[BoltMark, ...] = ()
    bar_settings: tuple[BarSetting, ...] = ()
    scans: tuple[Scan, ...] = ()
    pulls: tuple[Pull, ...] = ()
    pull_marks: tuple[PullMark, ...] = ()
    heat_runs: tuple[HeatRun, ...] = ()
    heat_marks: tuple[HeatMark, ...] = ()
    probes: tuple[Probe, ...] = ()
    lessons: tuple[Lesson, ...] = ()
    shelf: tuple[ShimLot, ...] = ()
