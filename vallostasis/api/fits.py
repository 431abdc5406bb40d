"""Fits: a liner held against its hole before anything is forced, and all of them on the deck."""

from typing import Annotated, Literal
from uuid import UUID

from fastapi import APIRouter, Query

from vallostasis.api.deps import Conn
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.fit_models import FitsView, FitView, WantedView, fit_on_deck, fit_view
from vallostasis.core.conversions.conversion import is_converted
from vallostasis.core.fits.going_in import Friction
from vallostasis.core.fits.insertion import DRY, OILED, PULL_FRICTION, PUSH_N
from vallostasis.core.fits.wanted import wanted_of
from vallostasis.services import fits

router = APIRouter(prefix="/api/jobs/{job_id}/fits", tags=["fits"], responses=ERROR_RESPONSES)

Factor = Annotated[float, Query(ge=0.01, le=1, allow_inf_nan=False, description="[1]")]


@router.get("")
def read_fits(job_id: UUID, conn: Conn) -> FitsView:
    """The fit of every hole: the press on each axis of the level that decides."""
    facts, found = fits.fits_now(conn, job_id)
    return FitsView(wanted=WantedView.of(wanted_of(facts)), fits=[fit_on_deck(facts, one) for one in found],
                    is_conversion=is_converted(facts))  # fmt: skip


@router.get("/{hole}")
def read_fit(
    job_id: UUID,
    hole: int,
    conn: Conn,
    liner: Annotated[str | None, Query(max_length=60, description="Its own, or the one tried, where not said.")] = None,
    school: Annotated[Literal["light", "firm"] | None, Query(description="The job's own where not said.")] = None,
    aim_m: Annotated[float | None, Query(ge=-0.001, le=0.001, allow_inf_nan=False, description="What if. [m]")] = None,
    pull_least: Factor = PULL_FRICTION[0],
    pull_greatest: Factor = PULL_FRICTION[1],
    dry: Factor = DRY,
    oiled: Factor = OILED,
    push_n: Annotated[float, Query(ge=1, le=10_000, allow_inf_nan=False, description="[N]")] = PUSH_N,
) -> FitView:
    """One liner in one hole, level by level; friction, push and aim as somebody tries them."""
    friction = Friction(min(pull_least, pull_greatest), max(pull_least, pull_greatest), dry, oiled, push_n)
    facts, found, offered = fits.fit_now(conn, job_id, fits.FitAsked(hole, liner, school))
    shown = fit_view(facts, found, offered, friction, aim_m)
    return shown.model_copy(update={"is_conversion": is_converted(facts)})
