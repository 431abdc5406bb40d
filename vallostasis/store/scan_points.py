"""The points of scans: in by COPY in blocks, out again as CSV as they are asked for."""

from collections.abc import Iterator
from uuid import UUID

import numpy as np
from numpy.typing import NDArray

from vallostasis.store.rows import Conn

# A row for each point would weigh more than the point itself.
OF_A_BLOCK = 50_000
_DOUBLES = np.dtype("<f8")


def add_points(
    conn: Conn, scan_id: UUID, angles_deg: NDArray[np.float64], depths_m: NDArray[np.float64],
    radii_m: NDArray[np.float64],
) -> None:  # fmt: skip
    """Keep every point of a scan."""
    table = np.column_stack([angles_deg, depths_m, radii_m]).astype(_DOUBLES)
    query = "COPY scan_block (scan_id, place, points) FROM STDIN (FORMAT BINARY)"
    with conn.cursor() as cursor, cursor.copy(query) as copy:
        copy.set_types(["uuid", "int4", "bytea"])
        for place, begin in enumerate(range(0, len(table), OF_A_BLOCK)):
            copy.write_row((scan_id, place, table[begin : begin + OF_A_BLOCK].tobytes()))


def points_as_csv(conn: Conn, scan_id: UUID) -> Iterator[bytes]:
    """Hand out the points of a scan as CSV, in the order in which they came."""
    yield b"angle_deg,depth_m,radius_m\n"
    query = "SELECT points FROM scan_block WHERE scan_id = %(scan_id)s ORDER BY place"
    for (block,) in conn.execute(query, {"scan_id": scan_id}):
        rows = np.frombuffer(block, dtype=_DOUBLES).reshape(-1, 3)
        yield "".join(f"{angle!r},{depth!r},{radius!r}\n" for angle, depth, radius in rows.tolist()).encode()
