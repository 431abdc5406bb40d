"""The plan of a block: by three rules side by side, and chosen."""

from typing import Annotated, Literal
from uuid import UUID

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.block_plan_models import BlockPlansView
from vallostasis.api.deps import Conn, LengthText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.readings import Done
from vallostasis.core.block_plans.plan import PlanRule
from vallostasis.core.block_plans.problem import LockKind
from vallostasis.core.notation.lengths import Unit
from vallostasis.services import block_plans
from vallostasis.services.block_plans import HoleWished, Wished

router = APIRouter(prefix="/api/jobs/{job_id}/block-plan", tags=["counterbore"], responses=ERROR_RESPONSES)


class HoleWishBody(BaseModel):
    """What is decided of a hole before the plan is made."""

    hole: int
    lock: LockKind = LockKind.FREE
    shim: LengthText = Field("", description="Cut it on that shim, where it is cut.")
    target: LengthText = Field("", description="Protrusion that it is aimed at; empty for that of the card.")


class WishesBody(BaseModel):
    """Wishes for the plan of a block; nothing is recorded of them until a plan is chosen."""

    holes: Annotated[list[HoleWishBody], Field(max_length=16)] = []
    undecided_too: bool = Field(False, description="“Only those outside” takes those that cannot be told as well.")
    bare_unit: Unit = "mm"

    @property
    def wished(self) -> Wished:
        """What was wished."""
        holes = tuple(HoleWished(one.hole, one.lock, one.shim, one.target) for one in self.holes)
        return Wished(holes, self.undecided_too, self.bare_unit)


class ChoosePlanBody(WishesBody):
    """The plan that is chosen: its rule, and the face that depths are counted from."""

    rule: PlanRule
    datum: Literal["deck", "touch-off"] = "deck"
    person_id: UUID


@router.get("")
def read_block_plan(job_id: UUID, conn: Conn) -> BlockPlansView:
    """Plan the block by each of the three rules, with the wishes of the plan that was chosen."""
    return BlockPlansView.of(block_plans.plans_now(conn, job_id))


@router.post("/try")
def try_block_plan(job_id: UUID, body: WishesBody, conn: Conn) -> BlockPlansView:
    """Plan the block as wished; nothing is recorded."""
    return BlockPlansView.of(block_plans.plans_now(conn, job_id, body.wished))


@router.post("", status_code=201)
def choose_block_plan(job_id: UUID, body: ChoosePlanBody, conn: Conn) -> Done:
    """Choose a plan; it is a version of its own, by the name of the person."""
    block_plans.choose_plan(conn, job_id, body.rule, body.datum, body.wished, body.person_id)
    return Done(job_id=job_id)
