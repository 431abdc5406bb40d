"""The proof sheet: one page for the screen, which is also what is printed as PDF."""

import itertools
from base64 import b64encode
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime
from functools import cache
from importlib.resources import files

import jinja2

from vallostasis import __version__
from vallostasis.core.bores.plate import why_not_as_build
from vallostasis.core.clamping.progress import progress_of
from vallostasis.core.conversions.conversion import conversion_of, is_converted
from vallostasis.core.features.catalogue import feature_of
from vallostasis.core.hole_now import HoleNow, hole_now
from vallostasis.core.mains.align import align_decision
from vallostasis.core.mains.line import line_of
from vallostasis.core.mains.sizes import mains_of
from vallostasis.core.notation.lengths import (
    METRIC_UNITS,
    Unit,
    both_temperatures,
    both_torques,
    format_length,
    format_uncertainty,
    metres,
)
from vallostasis.core.notation.typed_lengths import as_entered
from vallostasis.core.pistons.match import matches_of
from vallostasis.core.protrusion.rules import BlockJudgement
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.notes import ReadingNote
from vallostasis.core.records.rows import Cut, Fitting, Hole, Quantity, Reading, ReadingSet, Setup
from vallostasis.core.records.spec_card import Limit, SpecCard, typed_with_unit
from vallostasis.core.shapes.clock import hour_name
from vallostasis.core.surveys.survey import mean_of_set
from vallostasis.core.uncertainty.budget import Stated
from vallostasis.core.uncertainty.decision import RuleKind, State
from vallostasis.documents.phrases import said
from vallostasis.documents.proof_bores import proof_bores
from vallostasis.documents.proof_boring import proof_boring
from vallostasis.documents.proof_chain import ProofChain
from vallostasis.documents.proof_fits import proof_fits
from vallostasis.documents.proof_honing import proof_honing
from vallostasis.documents.proof_route import proof_route
from vallostasis.documents.proof_surveys import proof_surveys
from vallostasis.documents.track_drawing import TrackMark, track_svg


@dataclass(frozen=True, slots=True)
class ProofReading:
    """One reading of a set as printed."""

    reading: Reading
    struck: str
    notes: tuple[ReadingNote, ...]


@dataclass(frozen=True, slots=True)
class ProofSet:
    """One set of a hole as printed: circumstances, gauge, readings, mean."""

    reading_set: ReadingSet
    setup: Setup
    gauge: str
    readings: tuple[ProofReading, ...]
    mean: Stated | None
    counts: bool


@dataclass(frozen=True, slots=True)
class ProofFitting:
    """One fitting of a hole as printed, before and after a cut alike."""

    fitting: Fitting
    liner: str
    shims: str
    present: bool
    sets: tuple[ProofSet, ...]


@dataclass(frozen=True, slots=True)
class ProofHole:
    """Everything the proof says of one hole."""

    now: HoleNow
    drawing: str
    fittings: tuple[ProofFitting, ...]
    cuts: tuple[Cut, ...]


def proof_html(
    facts: JobFacts, judgement: BlockJudgement, unit: Unit, printed_at: datetime, chain: ProofChain | None = None
) -> str:
    """Write the proof sheet of a job as one HTML page with its style inside."""
    metric = unit in METRIC_UNITS
    holes = tuple(_proof_hole(facts, hole) for hole in facts.holes)
    states = [hole.state for hole in judgement.holes]
    return str(
        _template().render(
            facts=facts,
            card=facts.card,
            limits=_card_limits(facts),
            holes=holes,
            heads=judgement.heads,
            surveys=proof_surveys(facts),
            bores=proof_bores(facts),
            boring=proof_boring(facts),
            honing=proof_honing(facts),
            clamping=tuple(
                (one, why_not_as_build(facts.card, one))
                for one in (progress_of(facts, begun) for begun in facts.standing(facts.tightenings))
            ),
            mains=mains_of(facts) if facts.sets_of(Quantity.MAIN_BORE) else (),
            line=line_of(facts),
            align=align_decision(facts),
            pistons=tuple(one for one in matches_of(facts) if one.match or one.by_sizes or one.by_feeler),
            fits=proof_fits(facts),
            conversion=conversion_of(facts) if is_converted(facts) else None,
            said=lambda phrase: said(phrase, unit),
            route=proof_route(facts),
            fine=lambda value: format_length(value, unit, 1 if metric else 2, signed=False),
            size_fine=lambda value: format_length(value, "mm" if metric else "inch", 4 if metric else 5, signed=False),
            counts={state.value: states.count(state) for state in State if state in states},
            small=lambda value, *near: format_length(value, unit, limits_m=tuple(n for n in near if n is not None)),
            plain=lambda value: format_length(value, unit, signed=False),
            within=lambda value: format_uncertainty(value, unit),
            size=lambda value: format_length(value, "mm" if metric else "inch", signed=False),
            signed=(RuleKind.READING, RuleKind.PARTS),
            unit=unit,
            size_unit="mm" if metric else "inch",
            metres=metres,
            as_entered=as_entered,
            hour_name=hour_name,
            printed_at=printed_at,
            when=_local_time,
            printed=lambda readings: _lines(readings, unit),
            torque=lambda newton_metres: both_torques(float(newton_metres)),
            warmth=lambda celsius: both_temperatures(float(celsius)),
            version=__version__,
            chain=chain,
            fonts=_fonts(),
        )
    )


def _lines(readings: tuple[ProofReading, ...], unit: Unit) -> list[tuple[bool, list[str]]]:
    """Write readings a line each with tab stops, runs of standing and of struck ones together.

    A printer lays out a text of many lines much faster than as many boxes.
    """
    runs = itertools.groupby(readings, key=lambda one: bool(one.struck))
    return [(struck, [line for one in run for line in _line(one, unit)]) for struck, run in runs]


def _line(one: ProofReading, unit: Unit) -> tuple[str, ...]:
    reading = one.reading
    number = format_length(metres(reading.value_um), unit)
    clock = "" if reading.hour is None else hour_name(reading.hour)
    cells = (clock, number, as_entered(reading.typed, reading.typed_unit), reading.taken_by,
             _local_time(reading.taken_at, seconds=True), "", reading.taken_with)  # fmt: skip
    photos = [f"(photo {note.photo_sha256[:8]})" if note.photo_sha256 else "" for note in one.notes]
    notes = [f"{note.words} {photo}".strip() for note, photo in zip(one.notes, photos, strict=True)]
    more = [f"struck: {one.struck}", *notes] if one.struck else notes
    return ("\t".join(cells), *(f"\t\t{words}" for words in more))


def _local_time(when: datetime, seconds: bool = False) -> str:
    """Write when something was, by the clock of this place."""
    return when.astimezone().strftime("%Y-%m-%d %H:%M:%S" if seconds else "%Y-%m-%d %H:%M")


@cache
def _fonts() -> tuple[tuple[int, str], ...]:
    """Weights of the typeface with their files, to stand inside the page: a saved proof looks the same anywhere."""
    folder = files("vallostasis.documents") / "fonts"
    weights = (400, 700)
    return tuple(
        (weight, b64encode((folder / f"atkinson-hyperlegible-next-{weight}.woff2").read_bytes()).decode())
        for weight in weights
    )


@cache
def _template() -> jinja2.Template:
    environment = jinja2.Environment(
        loader=jinja2.PackageLoader("vallostasis.documents", "templates"), autoescape=True, trim_blocks=True,
        lstrip_blocks=True, undefined=jinja2.StrictUndefined,
    )  # fmt: skip
    return environment.get_template("proof.html")


def _card_limits(facts: JobFacts) -> list[tuple[str, str, bool, Limit]]:
    limits, seat = facts.card.limits, facts.card.seat
    named = [
        ("Least protrusion without shim", limits.least_without_shim),
        ("Greatest protrusion without shim", limits.greatest_without_shim),
        ("Least protrusion with shim", limits.least_with_shim),
        ("Greatest protrusion with shim", limits.greatest_with_shim),
        ("Target with shim", limits.target_with_shim),
        ("Greatest variation round one liner", limits.variation_round),
        ("Greatest difference between neighbours under one head", limits.neighbour_difference),
        ("Least average under one head", limits.head_average_least),
        ("Greatest average under one head", limits.head_average_greatest),
        ("Least ledge left", seat.ledge_least),
        ("Least clean-up cut", seat.cleanup_least),
    ]
    return [
        (
            name,
            typed_with_unit(limit.length, facts.card.unit, is_size=limit is seat.ledge_least),
            limit is seat.ledge_least,
            limit,
        )
        for name, limit in named
        if limit.length is not None
    ] + list(_feature_limits(facts.card))


def _feature_limits(card: SpecCard) -> Iterator[tuple[str, str, bool, Limit]]:
    for sheet in card.features:
        for words in ("nominal", "least", "greatest", "out of round", "taper"):
            limit: Limit = getattr(sheet, words.replace(" ", "_"))
            if limit.length is not None:
                is_size = feature_of(sheet.quantity).is_size and words in ("nominal", "least", "greatest")
                typed = typed_with_unit(limit.length, card.unit, is_size=is_size)
                yield f"{sheet.quantity.value.capitalize()}: {words}", typed, is_size, limit


def _proof_hole(facts: JobFacts, hole: Hole) -> ProofHole:
    now = hole_now(facts, hole)
    marks = tuple(
        TrackMark(row.place.hour, row.stated.value_m, row.state or State.IN)
        for row in now.survey.read
        if row.place.hour is not None and row.stated is not None
    )
    return ProofHole(
        now=now,
        drawing=track_svg(str(hole.number), marks, now.limits.least_m, now.limits.greatest_m),
        fittings=tuple(_proof_fitting(facts, fitting) for fitting in facts.standing_fittings(hole.hole_id)),
        cuts=tuple(facts.standing_cuts(hole.hole_id)),
    )


def _proof_fitting(facts: JobFacts, fitting: Fitting) -> ProofFitting:
    shims = " + ".join(
        f"{shim.typed}{f' (measured {shim.measured_um.normalize():f} µm)' if shim.measured_um is not None else ''}, "
        f"{shim.side_up}"
        for shim in facts.shims_of(fitting.fitting_id)
    )
    present = not facts.is_out(fitting.fitting_id)
    sets = [s for s in facts.sets_of(Quantity.PROTRUSION) if s.fitting_id == fitting.fitting_id]
    return ProofFitting(
        fitting,
        facts.liner(fitting.liner_id).mark,
        shims,
        present,
        tuple(_proof_set(facts, s, counts=present and s is sets[-1]) for s in sets),
    )


def _proof_set(facts: JobFacts, reading_set: ReadingSet, *, counts: bool) -> ProofSet:
    gauge = facts.gauge_version(reading_set.gauge_version_id)
    rows = []
    for reading in facts.readings_by_set.get(reading_set.reading_set_id, ()):
        strike = facts.struck.get(reading.reading_id)
        notes = tuple(facts.standing_notes.get(reading.reading_id, ()))
        rows.append(ProofReading(reading, (strike.reason or "struck") if strike else "", notes))
    setup = facts.setup(reading_set.setup_id)
    return ProofSet(
        reading_set,
        setup,
        f"{gauge.name}, version {gauge.version}: graduation {gauge.resolution_um.normalize():f} µm, "
        f"repeatability {gauge.repeatability_um.normalize():f} µm",
        tuple(rows),
        mean_of_set(facts, reading_set),
        counts,
    )
