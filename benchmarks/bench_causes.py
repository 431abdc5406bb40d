"""The finder of causes on blocks with a hidden fault: what it names, how often, and what following its checks saves."""

import time
from collections import Counter
from typing import Any

import numpy as np

from tests.truth.finding import SURE, by_cause, minutes_following, minutes_in_orders, weighed
from tests.truth.hidden_blocks import LOOK_ALIKES, MET, alike, any_fault, hidden_block
from vallostasis.core.causes.table import HEIGHTS, SCATTER

BLOCKS = 2000
FOLLOWED = 100
ORDERS = 200


def run() -> dict[str, dict[str, Any]]:
    """Weigh drawn blocks; shares, not seconds, but for the time of one block against that of drawing it."""
    rng = np.random.default_rng(2000)
    began = time.perf_counter()
    blocks = [hidden_block(rng, any_fault(rng)) for _ in range(BLOCKS)]
    drawn = time.perf_counter()
    told = [(block, weighed(block)) for block in blocks]
    took = time.perf_counter()
    confused: dict[str, Counter[str]] = {fault: Counter() for fault in MET}
    for block, found in told:
        if block.sigmas >= 5 or block.fault == SCATTER:
            confused[block.fault][found[0].causes[0] if found else SCATTER] += 1
    own = [(block, found) for block, found in told if block.fault != SCATTER and block.sigmas >= 5]
    plain = [(block, found) for block, found in own if not any(block.fault in group for group in LOOK_ALIKES)]
    sound = [found for block, found in told if block.fault == SCATTER]
    some = [(block, found) for block, found in own if found and max(by_cause(found).values()) < SURE][:FOLLOWED]
    orders = [[HEIGHTS.checks[at] for at in rng.permutation(len(HEIGHTS.checks))] for _ in range(ORDERS)]
    fixed = np.mean([minutes_in_orders(*one, orders, at) for at, one in enumerate(some)], axis=0)
    mine = float(np.mean([minutes_following(*one, at)[0] for at, one in enumerate(some)]))
    return {
        "causes": {
            "blocks": BLOCKS,
            "named, no look-alike": round(float(np.mean([block.fault in found[0].causes if found else False
                                                         for block, found in plain])), 3),
            "named, look-alikes as one": round(float(np.mean([any(alike(one, block.fault) for one in found[0].causes)
                                                              if found else False for block, found in own])), 3),
            "false alarms": round(float(np.mean([bool(one) and one[0].causes != (SCATTER,) for one in sound])), 4),
            "minutes, against the best of 200 fixed orders": round(mine / float(fixed.min()), 3),
            "weighing a block, in drawings of one": round((took - drawn) / (drawn - began), 1),
            "confusion": {fault: dict(row.most_common()) for fault, row in confused.items()},
        }
    }  # fmt: skip
