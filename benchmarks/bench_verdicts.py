"""How often a verdict is wrong on generated blocks: what is really there is drawn, read by a drawn gauge, and judged.

Every block has six liners, drawn so that most holes stand near a limit of one rule or another. The gauge has a zero
of its own, set once; in a third of the blocks it is found moved afterwards and corrected.
"""

from collections import Counter
from dataclasses import replace
from typing import Any

import numpy as np

from tests.core.card import limit
from tests.core.facts import Story
from tests.truth.draw import Face, Gauge, read_face, story, wet_card
from vallostasis.core.gauges.zero_checks import Drift
from vallostasis.core.protrusion.measured import judge_job
from vallostasis.core.records.rows import Quantity
from vallostasis.core.uncertainty.decision import RuleKind, RuleResult, State

SEED, BLOCKS, HOLES = 20261127, 2000, 6
HOURS = (12.0, 3.0, 6.0, 9.0)
HEADS = ((1, 2, 3), (4, 5, 6))
LARGEST_FALSE_IN = 2.5
KINDS = {
    RuleKind.READING: "position",
    RuleKind.VARIATION: "variation round",
    RuleKind.NEIGHBOUR: "neighbour",
    RuleKind.HEAD_AVERAGE: "head average",
}
Called = Counter[tuple[str, bool, State]]


def run() -> dict[str, dict[str, Any]]:
    rng = np.random.default_rng(SEED)
    called: Called = Counter()
    for number in range(BLOCKS):
        _judge(rng, moved=number % 3 == 0, called=called)
    figures: dict[str, dict[str, Any]] = {}
    print(f"verdicts of {BLOCKS} blocks, seed {SEED}:      really in: in / ? / out       really out: in / ? / out")
    for what in (*KINDS.values(), "hole"):
        print(f"{what:44} {_row(called, what, True)}       {_row(called, what, False)}")
        out = sum(called[what, False, state] for state in State)
        wrong = 100 * called[what, False, State.IN] / out
        figures[f"really out, called in: {what}, of {out}"] = {
            "value": round(wrong, 2), "unit": "%", "aim": f"≤ {LARGEST_FALSE_IN}", "ok": wrong <= LARGEST_FALSE_IN,
        }  # fmt: skip
    decided = sum(called["hole", truth, state] for truth in (True, False) for state in (State.IN, State.OUT))
    share = round(100 * decided / (BLOCKS * HOLES), 1)
    figures["holes decided at once"] = {"value": share, "unit": "%", "aim": "none", "ok": True}
    return figures


def _row(called: Called, what: str, truth: bool) -> str:
    return " ".join(f"{called[what, truth, state]:7}" for state in (State.IN, State.CANNOT_TELL, State.OUT))


def _judge(rng: np.random.Generator, *, moved: bool, called: Called) -> None:
    gauge = Gauge(rng, 1.0, float(rng.choice([1.0, 2.0, 3.0]))).zeroed()
    card = wet_card(HOLES, HEADS)
    limits = replace(card.limits, head_average_least=limit("0.085"), head_average_greatest=limit("0.110"))
    told = story(gauge, replace(card, limits=limits), HOLES)
    faces = [Face(rng.normal(97, 16), *rng.normal(0, 8, 2), {float(rng.choice(HOURS)): rng.normal(0, 8)})
             for _ in range(HOLES)]  # fmt: skip
    _read(told, gauge, faces, moved)
    for number, hole in enumerate(judge_job(told.facts()).holes, start=1):
        right = True
        for rule in hole.rules:
            if rule.kind in KINDS:
                held = _holds(rule, number, faces)
                called[KINDS[rule.kind], held, rule.decision.state] += 1
                right &= held
        called["hole", right, hole.state] += 1


def _read(told: Story, gauge: Gauge, faces: list[Face], moved: bool) -> None:
    jump = int(gauge.rng.integers(0, HOLES)) if moved else HOLES
    for number, face in enumerate(faces, start=1):
        if number - 1 == jump:
            gauge.moved_um = float(gauge.rng.uniform(-12, 12))
        read_face(told, gauge, Quantity.PROTRUSION, told.fit(number, told.liner(f"L{number}")), face, HOURS)
    if moved:
        told.correct(told.look_at_zero(Quantity.PROTRUSION, gauge.shown(0.0)), Drift.SOMEWHERE)


def _holds(rule: RuleResult, number: int, faces: list[Face]) -> bool:
    """Whether what is really there is within the limits of a rule."""
    heights = {hole: [face.at(hour) for hour in HOURS] for hole, face in enumerate(faces, start=1)}
    centre = {hole: float(np.mean(one)) for hole, one in heights.items()}
    if rule.kind is RuleKind.READING:
        assert rule.hour is not None
        truth = faces[number - 1].at(rule.hour)
    elif rule.kind is RuleKind.VARIATION:
        truth = max(heights[number]) - min(heights[number])
    elif rule.kind is RuleKind.NEIGHBOUR:
        truth = abs(centre[number] - centre[int(rule.where.split()[-1])])
    else:
        truth = float(np.mean([centre[hole] for head in HEADS if number in head for hole in head]))
    least = -np.inf if rule.least_m is None else rule.least_m * 1e6
    greatest = np.inf if rule.greatest_m is None else rule.greatest_m * 1e6
    return bool(least <= truth <= greatest)
