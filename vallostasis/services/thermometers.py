"""Thermometers that talk: setting them up, and what they say now."""

from dataclasses import dataclass

from vallostasis.core.notation.gauge_line import compile_pattern
from vallostasis.devices.gauge_link import LinkNow, LinkSettings, is_gauge_address
from vallostasis.devices.link_board import LinkBoard
from vallostasis.services.refused import Refused, typed_at
from vallostasis.store import thermometers
from vallostasis.store.rows import Conn
from vallostasis.store.thermometers import ThermometerRow


@dataclass(frozen=True, slots=True)
class TalkingThermometer:
    """A thermometer as set up, and how it stands now."""

    row: ThermometerRow
    now: LinkNow


def list_thermometers(conn: Conn, board: LinkBoard) -> list[TalkingThermometer]:
    """Return every thermometer and what it says now; lines not open yet are opened."""
    found, rows = [], thermometers.list_thermometers(conn)
    board.keep_thermometers({row.thermometer_id for row in rows})
    for row in rows:
        board.set_up(row.thermometer_id, LinkSettings(row.url, row.line_pattern, "°C", row.simulated))
        now = board.now(row.thermometer_id)
        assert now is not None
        found.append(TalkingThermometer(row, now))
    return found


def set_up_thermometer(conn: Conn, name: str, lies_on: str, url: str, line_pattern: str, simulated: bool) -> None:
    """Read a thermometer from this address from now on."""
    address = url.strip()
    if not is_gauge_address(address):
        raise Refused(
            "A thermometer is at a cable such as /dev/ttyUSB1, or at a line such as socket://127.0.0.1:8433.", "url"
        )
    with typed_at("line_pattern"):
        compile_pattern(line_pattern)
    thermometers.add_thermometer(conn, name, lies_on, address, line_pattern.strip(), simulated)
