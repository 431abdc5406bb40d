"""Bringing in what a probe touched of a block: deck and bores, held against the drawing."""

import random
from collections.abc import Sequence
from uuid import UUID

import numpy as np

from vallostasis.core.bores.probed import Probed, probed_block, read_back, written
from vallostasis.core.bores.scan_columns import METRES
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.spec_card import bank_rows
from vallostasis.devices.simulated_probe import probe_file
from vallostasis.documents.probe_file import ProbedPoint
from vallostasis.services.refused import Refused
from vallostasis.store.fact_rows import record_fact
from vallostasis.store.job_facts import lock_job_facts
from vallostasis.store.new_bore_facts import NewProbe
from vallostasis.store.rows import Conn


def bring_in_probe(
    conn: Conn, job_id: UUID, probe_id: UUID, points: Sequence[ProbedPoint], unit: str, file_name: str, by: UUID
) -> Probed:  # fmt: skip
    """Bring a probing in, every point or none; sending it again never doubles it."""
    facts = lock_job_facts(conn, job_id)
    known = next((one for one in facts.probes if one.probe_id == probe_id), None)
    if known is not None:
        return probed_of(facts, known.profile)
    _refuse_unknown_bores(facts, points)
    profile = written([one.part for one in points], np.asarray([one.xyz for one in points]) * METRES[unit])
    try:
        found = probed_of(facts, profile)
    except OutOfDomain as error:
        raise Refused(f"{str(error)[:1].upper()}{str(error)[1:]}.", "file") from None
    bore = facts.card.layout.bore.metres
    wide = next((one for one in found.bores if not 0.8 < one.diameter_m / bore < 1.2), None)
    if wide is not None:
        raise Refused(f"Bore {wide.hole} would be {wide.diameter_m * 1e3:.4g} mm, the card has {bore * 1e3:.4g} mm: "
                      "check the unit.", "unit")  # fmt: skip
    record_fact(conn, NewProbe(probe_id, job_id, "", file_name, len(points), profile), by)
    return found


def probed_of(facts: JobFacts, profile: str) -> Probed:
    """Hold what a probe touched against the drawing."""
    deck, bores = read_back(profile)
    return probed_block(deck, bores, bank_rows(facts.card.layout), facts.card.layout.bore_pitch.metres)


def _refuse_unknown_bores(facts: JobFacts, points: Sequence[ProbedPoint]) -> None:
    holes = {0, *(hole.number for hole in facts.holes)}
    for one in points:
        if one.part not in holes:
            raise Refused(f"Line {one.line}: this block has no bore {one.part}.", "file")


def simulated_probe(facts: JobFacts) -> str:
    """Write the file that a probe would, of an invented job: its cores have wandered, its bores lean a little."""
    if not facts.job.invented:
        raise Refused("Only an invented job has a hidden truth to probe: bring in the file of your machine.", "file")
    truth = random.Random(facts.job.number)
    pitch = float(facts.card.layout.bore_pitch.um)
    centres, lean = {}, {}
    for across, row in enumerate(bank_rows(facts.card.layout)):
        for at, hole in enumerate(row):
            centres[hole] = (at * pitch + truth.gauss(0, 25), across * 400_000 + truth.gauss(0, 25))
            lean[hole] = (truth.gauss(0, 1e-4), truth.gauss(0, 1e-4))
    return probe_file(centres, lean, float(facts.card.layout.bore.um) / 2, 7)
