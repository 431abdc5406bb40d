"""Labels of a job: each hole, each liner, each piston, each shim that lies under one."""

from dataclasses import dataclass
from enum import StrEnum
from uuid import UUID

from vallostasis.core.notation.lengths import both_size
from vallostasis.core.pistons.match import match_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import FittedShim, Hole
from vallostasis.documents.labels import Label
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn


class LabelOf(StrEnum):
    """What a label is put on."""

    HOLE = "hole"
    LINER = "liner"
    PISTON = "piston"
    SHIM = "shim"


@dataclass(frozen=True, slots=True)
class PartLabel:
    """A label with what it is of: the kind, and a key by which it is asked for."""

    of: LabelOf
    key: str
    label: Label


def labels_of(conn: Conn, job_id: UUID, base: str) -> tuple[PartLabel, ...]:
    """Return every label of a job; the codes open its pages at the address given."""
    facts = load_job_facts(conn, job_id)
    url = f"{base.rstrip('/')}/jobs/{job_id}"
    return (*_holes(facts, url), *_liners(facts, url), *_pistons(facts, url), *_shims(facts, url))


def chosen(labels: tuple[PartLabel, ...], keys: list[str]) -> tuple[PartLabel, ...]:
    """Return the labels that are asked for, in their own order; all where none is named."""
    unknown = set(keys) - {one.key for one in labels}
    if unknown:
        raise Refused(f"There is no label {min(unknown)} in this job any more: load the page again.", "key",
                      RefusalCode.STALE)  # fmt: skip
    return tuple(one for one in labels if not keys or one.key in keys)


def _job_line(facts: JobFacts) -> str:
    return f"Job {facts.job.number}, {facts.job.name}"


def _front(facts: JobFacts) -> str:
    return f"12 h: {facts.card.layout.twelve_o_clock}"


def _holes(facts: JobFacts, url: str) -> list[PartLabel]:
    numbering = facts.card.layout.numbering
    return [
        PartLabel(LabelOf.HOLE, f"hole-{hole.number}", Label(
            f"Hole {hole.number}", (_job_line(facts), numbering, _front(facts)), f"{url}/home/{hole.number}"))
        for hole in facts.holes
    ]  # fmt: skip


def _liners(facts: JobFacts, url: str) -> list[PartLabel]:
    labels = []
    for liner in facts.liners:
        hole = facts.hole_of_liner(liner.liner_id)
        where = f"belongs to hole {hole.number}" if hole else "in no hole yet"
        made = " ".join(part for part in (liner.make, liner.batch) if part)
        lines = (_job_line(facts), where, _front(facts), *((made,) if made else ()))
        to = f"{url}/home/{hole.number}" if hole else f"{url}/liners?liner={liner.mark}"
        labels.append(PartLabel(LabelOf.LINER, f"liner-{liner.mark}", Label(f"Liner {liner.mark}", lines, to)))
    return labels


def _pistons(facts: JobFacts, url: str) -> list[PartLabel]:
    labels = []
    for hole in facts.holes:
        match = match_of(facts, hole)
        if match is None:
            continue
        lines = (_job_line(facts), f"belongs to hole {hole.number}", f"faces {match.faces}", match.run.value)
        labels.append(PartLabel(LabelOf.PISTON, f"piston-{hole.number}",
                                Label(f"Piston {match.mark}", lines, f"{url}/pistons")))  # fmt: skip
    return labels


def _shims(facts: JobFacts, url: str) -> list[PartLabel]:
    labels = []
    for hole in facts.holes:
        fitting = facts.present_fitting(hole.hole_id)
        for shim in facts.shims_of(fitting.fitting_id) if fitting else ():
            labels.append(_shim(facts, url, hole, shim))
    return labels


def _shim(facts: JobFacts, url: str, hole: Hole, shim: FittedShim) -> PartLabel:
    measured = "not measured" if shim.measured_um is None else f"measured {both_size(shim.measured_um)}"
    lines = (_job_line(facts), f"under hole {hole.number}, {shim.side_up}", measured)
    label = Label(f"Shim {shim.typed}", lines, f"{url}/home/{hole.number}")
    return PartLabel(LabelOf.SHIM, f"shim-{hole.number}-{shim.place}", label)
