"""What an exercise draws from its seed: whole numbers by name, the same on every machine.

Each draw is a digest of the exercise, the seed and the name of what is drawn, so that no draw moves another, and no
library's generator has to stay as it is. SHA-256: FIPS 180-4.
"""

from collections.abc import Sequence
from hashlib import sha256
from typing import TypeVar

from vallostasis.core.errors import OutOfDomain

One = TypeVar("One")
# A seed fits a whole number of the database and is read out easily.
MOST_SEED = 999_999
NM = 1e-9


class Draws:
    """Draws of one seed of one exercise."""

    def __init__(self, exercise: str, seed: int) -> None:
        if not 0 <= seed <= MOST_SEED:
            raise OutOfDomain(f"A seed is a whole number from 0 to {MOST_SEED}.", "seed")
        self._of = f"{exercise}/{seed}/"

    def whole(self, name: str, least: int, most: int, step: int = 1) -> int:
        """Return a whole number between two, both of them met, on a grid that begins at the least. By definition."""
        drawn = int.from_bytes(sha256((self._of + name).encode()).digest()[:16], "big")
        return least + step * (drawn % ((most - least) // step + 1))

    def nm(self, name: str, least_um: int, most_um: int) -> int:
        """Return a length on the grid of whole nanometres; ends are given in whole micrometres. [nm] House rule."""
        return self.whole(name, least_um * 1000, most_um * 1000)

    def pick(self, name: str, options: Sequence[One]) -> One:
        """Return one of a few. House rule."""
        return options[self.whole(name, 0, len(options) - 1)]

    def sign(self, name: str) -> int:
        """Return one or minus one."""
        return self.pick(name, (-1, 1))

    def shuffled(self, name: str, items: Sequence[One]) -> tuple[One, ...]:
        """Return all of them in an order of the seed. House rule."""
        order = sorted(range(len(items)), key=lambda at: self.whole(f"{name}/{at}", 0, 2**62))
        return tuple(items[at] for at in order)
