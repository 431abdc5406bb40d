"""Playing the pulls of an invented job into the store, each mark at the time at which it was made."""

from datetime import UTC, datetime, timedelta
from uuid import UUID, uuid4

from vallostasis.core.records.fit_terms import StopRule
from vallostasis.core.records.pulls import FIRST, Slides, ToolKind
from vallostasis.demo.narrow_boat_brindle import PullPlay
from vallostasis.services import pulls
from vallostasis.store.rows import Conn

TOOLS = (
    pulls.ToolTyped("Screw puller", ToolKind.PULLER, 15, "2", False, "two bars over the deck, nut on a thrust race"),
    pulls.ToolTyped("Arbor press", ToolKind.PRESS, 60, "", True, "gauge in kN, block on blocks"),
)


def load_press_tools(conn: Conn, people: dict[str, UUID]) -> None:
    """Write down the shop's puller and press."""
    for tool in TOOLS:
        pulls.save_press_tool(conn, tool, people["Ines"])


def play_pull(conn: Conn, job_id: UUID, people: dict[str, UUID], play: PullPlay) -> None:
    """Pull a liner home as it went."""
    by, pull_id = people[play.cranks], uuid4()
    began = datetime.now(UTC) - timedelta(hours=play.ago_h)
    pulls.begin_pull(conn, job_id, pulls.PullBegun(
        pull_id, play.hole, play.liner, play.tool, Slides.OILED, StopRule.AT_CONTACT, play.cranks, play.watches,
        hold_reason="the card was agreed by telephone"), by)  # fmt: skip
    for kind in FIRST:
        pulls.note_on_pull(conn, job_id, pull_id, pulls.PullNoted(uuid4(), kind, taken_at=began), by)
    for mark in play.marks:
        pulls.note_on_pull(conn, job_id, pull_id, pulls.PullNoted(
            uuid4(), mark.kind, mark.to_go_mm, mark.force_kn, mark.words, "mm", True,
            began + timedelta(seconds=mark.after_s)), by)  # fmt: skip
    pulls.bring_home(conn, job_id, pull_id, by)
