"""What a decision says of heights to come, against hidden blocks: its ± and its chance, for every option."""

from dataclasses import replace

import numpy as np
import pytest

from tests.core.card import wet_card
from tests.core.facts import Story
from tests.deep import DEEP
from vallostasis.core.matching.of_job import BlockMatching, MatchWishes, matching_of
from vallostasis.core.options.sunk import OptionKind, SunkHole, options_for
from vallostasis.core.records.prices import PriceList
from vallostasis.core.records.rows import Quantity

BLOCKS = 600 if DEEP else 60
HOLES = 3
Row = tuple[str, float, float, float, float, bool]
KINDS = ("match", OptionKind.LEAVE.value, OptionKind.SKIM.value)


@pytest.fixture(scope="module")
def drawn() -> list[Row]:
    """Rows of option, height that is told, its ±, its chance, and what became of it: the truth, and whether it is in.

    The story's gauge is graduated in 2 and repeats within 2.5: what a reading shows is the truth, a share of the step
    evenly, a repeat and the zero's own; ledges and flanges are level, so that a plane has nothing to add.
    """
    rng, rows = np.random.default_rng(1812), []
    for _ in range(BLOCKS):
        card = wet_card()
        # Without shims on the card nothing is cut: the plan of the block has its own drawn blocks.
        layout = replace(card.layout, holes=HOLES, heads=((1, 2, 3),))
        story = Story(holes=HOLES, card=replace(card, shims=(), layout=layout))
        zero = {q: _one(rng) for q in (Quantity.COUNTERBORE_DEPTH, Quantity.FLANGE_THICKNESS, Quantity.PROTRUSION)}
        depth = rng.uniform(8_870, 8_930, HOLES)
        flange = rng.uniform(8_950, 9_000, HOLES + 1)

        def read(quantity: Quantity, size: float, offset: dict[Quantity, float] = zero) -> tuple[float, ...]:
            return tuple(round(size + offset[quantity] + _one(rng), 3) for _ in range(4))

        liners = [story.liner(f"L{at}") for at in range(HOLES + 1)]
        for at, liner in enumerate(liners):
            story.read(Quantity.FLANGE_THICKNESS, liner, read(Quantity.FLANGE_THICKNESS, flange[at]))
        for at, hole in enumerate(story.hole_rows):
            story.read(Quantity.COUNTERBORE_DEPTH, hole.hole_id, read(Quantity.COUNTERBORE_DEPTH, depth[at]))
            story.fit(at + 1, liners[at])
        facts = story.facts()
        found = matching_of(facts, MatchWishes(cuts=False))
        assert isinstance(found, BlockMatching)
        for at, hole_then in enumerate(found.holes):
            true = flange[int(hole_then.then[1:])] - depth[at]
            rows.append(("match", hole_then.stands.value_m * 1e6, hole_then.stands.expanded_m * 1e6,
                         hole_then.chance, true, 50 <= true <= 125))  # fmt: skip
        laid = options_for(facts, facts.holes[0], PriceList())
        assert isinstance(laid, SunkHole)
        feed = rng.normal(0, 5)
        for option in laid.options:
            if option.kind not in (OptionKind.LEAVE, OptionKind.SKIM):
                continue
            for at, row in enumerate(option.holes):
                true = flange[at] - depth[at] + option.skim_m * 1e6 + (feed if option.skim_m else 0.0)
                rows.append((option.kind.value, row.value.value_m * 1e6, row.value.expanded_m * 1e6, row.chance,
                             true, 50 <= true <= 125))  # fmt: skip
    return rows


def _one(rng: np.random.Generator) -> float:
    """What one reading, or one zero, is off by: half a step evenly and a repeat."""
    return float(rng.uniform(-1, 1) + rng.normal(0, 2.5))


def test_the_band_and_the_chance_that_are_stated_hold(drawn: list[Row]) -> None:
    """k = 2 covers 95.4 % of what is normal; holes of a block share their zeros, so that a block counts for one.

    The chance over all, and among those that are open: the share that is truly in against the mean of what was said.
    """
    for kind in KINDS:
        rows = [row[1:] for row in drawn if row[0] == kind]
        assert len(rows) > BLOCKS
        inside = np.mean([abs(told - true) <= u for told, u, _, true, _ in rows])
        assert inside >= 0.93 - 2 * np.sqrt(0.954 * 0.046 / BLOCKS), kind
        said, came = np.array([row[2] for row in rows]), np.array([row[4] for row in rows], dtype=float)
        assert said.mean() == pytest.approx(came.mean(), abs=0.05), kind
        close = (said > 0.05) & (said < 0.95)
        assert said[close].mean() == pytest.approx(came[close].mean(), abs=1.25 / np.sqrt(close.sum())), kind
