"""The counterbore cutters of the shop, what their runs teach, and the switch that ends a pass."""

from datetime import date, datetime
from typing import Annotated, Literal
from uuid import UUID

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.deps import Conn, LengthText, LongText, Name, ShortText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.gauge_links import Board
from vallostasis.core.counterbore.learned import ENOUGH_HOLES, Learned
from vallostasis.core.notation.lengths import Unit, metres
from vallostasis.core.records.cut_runs import CutterService
from vallostasis.devices.gauge_link import LinkState
from vallostasis.services import cutters
from vallostasis.store import cutters as cutter_rows

router = APIRouter(prefix="/api", tags=["counterbore"], responses=ERROR_RESPONSES)


class CutterBody(BaseModel):
    """The card of a cutter as typed."""

    name: Name
    graduation: LengthText
    stop_accuracy: LengthText
    graduation_error_percent: Annotated[float, Field(ge=0, le=50, allow_inf_nan=False)] = 5.0
    bit: ShortText = ""
    bit_projection: LengthText = ""
    oil: ShortText = ""
    collars: ShortText = ""
    stop_set: ShortText = ""
    torque_nm: Annotated[float, Field(ge=0, le=2000, allow_inf_nan=False)] | None = None
    bore_least: LengthText = ""
    bore_greatest: LengthText = ""
    vacuum_every: Annotated[int, Field(ge=1, le=1000)] = 10
    note: LongText = ""
    bare_unit: Unit = "mm"
    confirmed: bool = False
    based_on_version: int = 0
    person_id: UUID


class CutterServiceBody(BaseModel):
    """What was done to a cutter."""

    kind: Literal["sharpened", "serviced", "part exchanged", "checked"]
    words: ShortText = ""
    done_on: date
    person_id: UUID


class LearnedView(BaseModel):
    """A learned figure with its ± and on how many runs it stands."""

    value: float
    within: float
    n: int
    is_enough: bool

    @classmethod
    def of(cls, one: Learned | None) -> "LearnedView | None":
        """Show a figure; nothing while there is none."""
        return None if one is None else cls(value=one.value, within=one.within, n=one.n, is_enough=one.is_enough)


class OwnRunView(BaseModel):
    """A finished run as a point: passes against the change by the gauge. [m]"""

    job: str
    hole: int
    passes: float
    change_m: float
    off_m: float


class LearnedCutterView(BaseModel):
    """What the runs of a cutter in one material teach. [m], [s]"""

    material: str
    graduation_m: LearnedView | None
    setting_m: LearnedView | None
    setting_prediction_m: float | None
    pass_s: LearnedView | None
    pass_low_s: float | None
    pass_high_s: float | None
    runs: list[OwnRunView]


class CutterServiceView(BaseModel):
    """What was done to a cutter."""

    kind: str
    words: str
    done_on: date
    noted_by: str


class CutterView(BaseModel):
    """A cutter: its card, services, and what its runs teach. [m], [N·m]"""

    cutter_id: UUID
    name: str
    version: int
    bit: str
    bit_projection_m: float | None
    oil: str
    collars: str
    stop_set: str
    graduation_m: float
    stop_accuracy_m: float
    graduation_error_percent: float
    torque_nm: float | None
    bore_least_m: float | None
    bore_greatest_m: float | None
    vacuum_every: int
    note: str
    saved_at: datetime
    saved_by: str
    services: list[CutterServiceView]
    learned: list[LearnedCutterView]
    enough: int = Field(ENOUGH_HOLES, description="Runs from which on the learned figure replaces that of the card.")


class PassSwitchView(BaseModel):
    """How the line of the switch stands, and how often it was pressed since it was opened."""

    simulated: bool
    state: LinkState
    message: str
    taps: int


class PassSwitchBody(BaseModel):
    """Where the switch sends its lines."""

    url: ShortText


class SwitchTold(BaseModel):
    """The switch was told."""

    told: bool = True


@router.get("/cutters")
def list_cutters(conn: Conn) -> list[CutterView]:
    """Every cutter of the shop with its card, services, and what its runs teach."""
    services = cutter_rows.list_services(conn)
    return [_view(one, [s for s in services if s.cutter_id == one.card.cutter_id]) for one in cutters.list_known(conn)]


def _view(known: cutters.CutterKnown, services: list[CutterService]) -> CutterView:
    card = known.card
    return CutterView(
        cutter_id=card.cutter_id,
        name=card.name,
        version=card.version,
        bit=card.bit,
        bit_projection_m=None if card.bit_projection_um is None else metres(card.bit_projection_um),
        oil=card.oil,
        collars=card.collars,
        stop_set=card.stop_set,
        graduation_m=metres(card.graduation_um),
        stop_accuracy_m=metres(card.stop_accuracy_um),
        graduation_error_percent=float(card.graduation_error_percent),
        torque_nm=None if card.torque_nm is None else float(card.torque_nm),
        bore_least_m=None if card.bore_least_um is None else metres(card.bore_least_um),
        bore_greatest_m=None if card.bore_greatest_um is None else metres(card.bore_greatest_um),
        vacuum_every=card.vacuum_every,
        note=card.note,
        saved_at=card.saved_at,
        saved_by=card.saved_by,
        services=[CutterServiceView(kind=s.kind, words=s.words, done_on=s.done_on, noted_by=s.noted_by)
                  for s in services],
        learned=[
            LearnedCutterView(
                material=material,
                graduation_m=LearnedView.of(learned.graduation_m),
                setting_m=LearnedView.of(learned.setting_m),
                setting_prediction_m=learned.setting_prediction_m,
                pass_s=LearnedView.of(learned.pass_s),
                pass_low_s=learned.pass_low_s,
                pass_high_s=learned.pass_high_s,
                runs=[OwnRunView(job=r.job, hole=r.hole, passes=float(r.passes), change_m=metres(r.change_um),
                                 off_m=metres(r.off_um)) for r in runs],
            )
            for material, learned, runs in known.learned
        ],
    )  # fmt: skip


@router.post("/cutters", status_code=201)
def save_cutter(body: CutterBody, conn: Conn) -> list[CutterView]:
    """Save the card of a cutter as its next version."""
    typed = cutters.CutterTyped(**body.model_dump(exclude={"person_id", "based_on_version"}))
    cutters.save_cutter(conn, typed, body.based_on_version, body.person_id)
    return list_cutters(conn)


@router.post("/cutters/{cutter_id}/services", status_code=201)
def serve_cutter(cutter_id: UUID, body: CutterServiceBody, conn: Conn) -> list[CutterView]:
    """Write down what was done to a cutter."""
    cutters.serve_cutter(conn, cutter_id, body.kind, body.words, body.done_on, body.person_id)
    return list_cutters(conn)


@router.get("/pass-switch")
def read_pass_switch(conn: Conn, board: Board) -> PassSwitchView | None:
    """How the switch that ends a pass stands; null where none is set up."""
    found = cutters.switch_now(conn, board)
    if found is None:
        return None
    simulated, now = found
    return PassSwitchView(simulated=simulated, state=now.state, message=now.message, taps=now.taps)


@router.post("/pass-switch", status_code=201)
def set_up_pass_switch(body: PassSwitchBody, conn: Conn, board: Board) -> SwitchTold:
    """Listen to a switch at an address from now on: a line ``pass`` ends a pass."""
    cutters.set_up_switch(conn, board, body.url)
    return SwitchTold()


@router.post("/pass-switch/press", status_code=201)
def press_pass_switch(conn: Conn, board: Board) -> SwitchTold:
    """Press the simulated switch."""
    cutters.press_switch(conn, board)
    return SwitchTold()
