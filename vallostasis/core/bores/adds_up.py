"""Wear steps beside diameters: what lies opposite each other, and the unworn band, have to add up to what was read."""

from collections.abc import Iterator
from dataclasses import dataclass

from vallostasis.core.bores.wall import LoadWall, Wear
from vallostasis.core.notation.lengths import metres
from vallostasis.core.shapes.clock import angle_of_hour, hour_name
from vallostasis.core.surveys.places import PlaceRead
from vallostasis.core.uncertainty.budget import Estimate, Stated, stated, weighted


@dataclass(frozen=True, slots=True)
class Disagreement:
    """Two wear steps opposite each other and the diameter across them do not add up. [m]

    ``off`` is how much more the steps say than the diameter.
    """

    level: str
    depth_m: float
    hours: tuple[float, float]
    off: Stated

    @property
    def words(self) -> str:
        """Say where, and which of them may be a slip."""
        first, second = (hour_name(hour) for hour in self.hours)
        return (f"wear steps at {first} and {second}, {self.level}, and the diameter across them do not add up: was a "
                "step written down on the diameter?")  # fmt: skip


def disagreements(bore: LoadWall | None, wear: Wear, k: float) -> tuple[Disagreement, ...]:
    """Return where wear steps and diameters do not add up within their joint U. [m]

    Parameters
    ----------
    bore : LoadWall or None
        Diameters by level and axis.
    wear : Wear
        Wear steps, and the unworn band they are read from.
    k : float
        Coverage factor.

    Notes
    -----
    D(θ) = D_band(θ) + s(θ) + s(θ + 180°) at the same level, the band read across the same axis where it was. Closed
    form; joint U by GUM F.1.2.3, shared errors cancel.
    """
    if bore is None or wear.steps is None or wear.unworn is None:
        return ()
    steps = {(metres(row.place.level_um), angle_of_hour(row.place.hour)): row for row in wear.steps.read
             if row.place.level_um is not None and row.place.hour is not None}  # fmt: skip
    at = next((row for depth, row in zip(bore.table.depths_m, bore.table.cells, strict=True)
               if depth == wear.unworn_m), ())  # fmt: skip
    across = {axis: cell for axis, cell in zip(bore.table.axes_deg, at, strict=False) if cell is not None}
    return tuple(_of_bore(bore, wear.unworn, across, steps, k))


def _of_bore(
    bore: LoadWall,
    unworn: Estimate,
    across: dict[float, Estimate],
    steps: dict[tuple[float, float], PlaceRead],
    k: float,
) -> Iterator[Disagreement]:  # fmt: skip
    for depth, name, row in zip(bore.table.depths_m, bore.table.names, bore.table.cells, strict=True):
        for axis, cell in zip(bore.table.axes_deg, row, strict=True):
            one, other = steps.get((depth, axis)), steps.get((depth, axis + 180))
            if cell is None or one is None or other is None or one.estimate is None or other.estimate is None:
                continue
            parts = [(1.0, one.estimate), (1.0, other.estimate), (1.0, across.get(axis, unworn)), (-1.0, cell)]
            off = stated("wear steps less diameter", weighted(parts), k)
            if abs(off.value_m) > off.expanded_m:
                yield Disagreement(name, depth, (one.place.hour or 12.0, other.place.hour or 12.0), off)
