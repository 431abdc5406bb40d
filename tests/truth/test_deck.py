"""The least cut of a face held against a hidden truth: how often nothing of the old face is left by it."""

import numpy as np
import pytest

from tests.core.test_deck import GRID_ACROSS, GRID_ALONG, Block, face
from tests.deep import DEEP
from vallostasis.core.deck.face import faces_of
from vallostasis.core.deck.surface import least_cut
from vallostasis.core.records.rows import Place, Quantity

TRIALS = 4000 if DEEP else 200
# The gauge of these tests: its step, and what it repeats within; faces as rough as a few times that. [µm]
STEP_UM, REPEATABILITY_UM, ROUGH_UM = 0.2, 0.2, 3.0


@pytest.mark.parametrize("tilts", [False, True])
def test_what_is_named_cleans_the_face_that_is_there(tilts: bool) -> None:
    """The cut named and its ± take at least what the true face asks for, 95 of 100 times; the cut alone does not."""
    random, clean, bare = np.random.default_rng(29_112), 0, 0
    for _ in range(TRIALS):
        block = Block(tilts=tilts)
        truth = random.normal(0, ROUGH_UM, (3, 3))
        read = np.round((truth + random.normal(0, REPEATABILITY_UM, truth.shape)) / STEP_UM) * STEP_UM
        places = {Place(along_um=round(x * 1e6), across_um=round(y * 1e6)): (round(float(read[i, j]), 1),)  # type: ignore[arg-type]
                  for i, x in enumerate(GRID_ALONG) for j, y in enumerate(GRID_ACROSS)}  # fmt: skip
        block.story.survey(Quantity.DECK_FLATNESS, places, part="deck")
        found = faces_of(block.story.facts())[0]
        assert found.whole_cut is not None and found.within_m is not None
        needs = least_cut(face(truth.tolist()), None, tilts).depth_m
        clean += found.whole_cut.depth_m + found.within_m >= needs
        bare += found.whole_cut.depth_m >= needs
    error = 5 * (0.95 * 0.05 / TRIALS) ** 0.5
    assert clean / TRIALS >= 0.95 - error
    assert bare / TRIALS < clean / TRIALS, "a bare figure leaves old face more often than its ± allows"
