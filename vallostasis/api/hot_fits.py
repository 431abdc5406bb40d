"""What holds a liner hot: the press at moments of running, clamp, drag, heights, gaps to the neighbours."""

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query
from pydantic import BaseModel, Field

from vallostasis.api.budget_models import StatedView
from vallostasis.api.deps import Conn
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.trail import PhraseView
from vallostasis.core.fits.fit import Fit
from vallostasis.core.fits.hot_hold import HotHold, hot_hold
from vallostasis.core.records.fit_terms import Holder, RunningState, SeatAt
from vallostasis.core.trail import Phrase
from vallostasis.core.uncertainty.decision import State
from vallostasis.services import fits

router = APIRouter(prefix="/api/jobs/{job_id}/hot-fits", tags=["fits"], responses=ERROR_RESPONSES)

Celsius = Annotated[float | None, Query(ge=-60, le=500, allow_inf_nan=False, description="[°C]")]


class HotMomentView(BaseModel):
    """A fit at one moment of running. [m], [N], [°C]"""

    name: str
    block_c: float
    liner_c: float
    press: StatedView
    grip: State = Field(description="In: gripped; out: free.")
    level: str
    by_press_n: float
    by_clamp_n: float | None
    within_n: float
    holds: State
    height: StatedView = Field(description="How much higher it stands than cold.")
    stands: StatedView | None
    gap: StatedView | None
    gap_state: State = Field(description="Out: the sleeves touch.")


class HotHoldView(BaseModel):
    """What holds a liner hot. [m], [°C], [N]"""

    hole: int
    liner: str | None
    missing: PhraseView | None
    holder: Holder
    seat: SeatAt
    source: str
    block_material: str
    liner_material: str
    moments: list[HotMomentView]
    gone_alike_c: StatedView | None
    gone_hotter_c: StatedView | None
    hotter_k: float
    drag_n: float | None
    stands: StatedView | None
    least_m: float | None
    greatest_m: float | None
    says: list[PhraseView]


@router.get("/{hole}")
def read_hot_fit(
    job_id: UUID,
    hole: int,
    conn: Conn,
    liner: Annotated[str | None, Query(max_length=60)] = None,
    block_c: Celsius = None,
    liner_c: Celsius = None,
) -> HotHoldView:
    """What holds the liner of a hole at every moment of running on the card, and at one that is tried."""
    facts, fit, _ = fits.fit_now(conn, job_id, fits.FitAsked(hole, liner))
    card = facts.card
    tried: tuple[RunningState, ...] = ()
    if block_c is not None and liner_c is not None:
        tried = (*card.fits.running, RunningState("as tried", block_c, liner_c))
    found: HotHold | Phrase = hot_hold(facts, fit, tried) if isinstance(fit, Fit) else fit.reason
    known = found if isinstance(found, HotHold) else None
    return HotHoldView(
        hole=fit.hole.number, liner=None if fit.liner is None else fit.liner.mark,
        missing=PhraseView.of(found) if isinstance(found, Phrase) else None, holder=card.fits.holder,
        seat=card.fits.seat, source=card.fits.holding_source, block_material=card.block_material,
        liner_material=card.liner_material,
        moments=[] if known is None else [
            HotMomentView(name=one.state.name, block_c=one.state.block_c, liner_c=one.state.liner_c,
                          press=StatedView.of(one.press), grip=one.grip, level=one.level, by_press_n=one.by_press_n,
                          by_clamp_n=one.by_clamp_n, within_n=one.within_n, holds=one.holds,
                          height=StatedView.of(one.height), stands=StatedView.maybe(one.stands),
                          gap=StatedView.maybe(one.gap), gap_state=one.gap_state) for one in known.moments],
        gone_alike_c=None if known is None else StatedView.maybe(known.gone_alike_c),
        gone_hotter_c=None if known is None else StatedView.maybe(known.gone_hotter_c),
        hotter_k=0.0 if known is None else known.hotter_k, drag_n=None if known is None else known.drag_n,
        stands=None if known is None else StatedView.maybe(known.stands),
        least_m=None if known is None else known.least_m, greatest_m=None if known is None else known.greatest_m,
        says=[] if known is None else [PhraseView.of(one) for one in known.says],
    )  # fmt: skip
