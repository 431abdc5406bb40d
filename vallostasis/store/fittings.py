"""Liners, what is fitted where, and the cuts of the ledges."""

from decimal import Decimal
from uuid import UUID

from vallostasis.core.records import Cut, FittedShim, Fitting, FittingOut, Liner
from vallostasis.store.rows import Conn, fetch_all, fetch_one

HOLES_OF_JOB = "SELECT h.hole_id FROM hole h JOIN block b USING (block_id) WHERE b.job_id = %(job_id)s"


def list_liners(conn: Conn, job_id: UUID) -> tuple[Liner, ...]:
    """Return the liners of a job by mark."""
    query = "SELECT liner_id, mark, make, batch FROM liner WHERE job_id = %(job_id)s ORDER BY length(mark), mark"
    return fetch_all(conn, Liner, query, {"job_id": job_id})


def add_liner(conn: Conn, job_id: UUID, mark: str, make: str, batch: str) -> Liner:
    """Add a liner; the database refuses a mark twice in one job."""
    query = """
        INSERT INTO liner (job_id, mark, make, batch)
        VALUES (%(job_id)s, %(mark)s, %(make)s, %(batch)s)
        RETURNING liner_id, mark, make, batch
    """
    return fetch_one(conn, Liner, query, {"job_id": job_id, "mark": mark, "make": make, "batch": batch}, "liner")


def list_fittings(conn: Conn, job_id: UUID) -> tuple[Fitting, ...]:
    """Return all fittings of a job, oldest first."""
    query = f"""
        SELECT f.fitting_id, f.hole_id, f.liner_id, f.fitted_at, p.name AS fitted_by, f.event
          FROM fitting f JOIN person p ON p.person_id = f.fitted_by
         WHERE f.hole_id IN ({HOLES_OF_JOB})
         ORDER BY f.event
    """
    return fetch_all(conn, Fitting, query, {"job_id": job_id})


def list_fitting_shims(conn: Conn, job_id: UUID) -> tuple[FittedShim, ...]:
    """Return all shims of all fittings of a job, from the ledge upwards."""
    query = f"""
        SELECT s.fitting_id, s.place, s.nominal_um, s.measured_um, s.typed, s.side_up
          FROM fitting_shim s JOIN fitting f USING (fitting_id)
         WHERE f.hole_id IN ({HOLES_OF_JOB})
         ORDER BY s.fitting_id, s.place
    """
    return fetch_all(conn, FittedShim, query, {"job_id": job_id})


def list_fitting_outs(conn: Conn, job_id: UUID) -> tuple[FittingOut, ...]:
    """Return when and why liners came out."""
    query = f"""
        SELECT o.fitting_id, o.because_cut_id, o.because_fitting_id, o.out_at, p.name AS out_by, o.event
          FROM fitting_out o JOIN fitting f USING (fitting_id) JOIN person p ON p.person_id = o.out_by
         WHERE f.hole_id IN ({HOLES_OF_JOB})
         ORDER BY o.event
    """
    return fetch_all(conn, FittingOut, query, {"job_id": job_id})


def add_fitting(conn: Conn, fitting_id: UUID, hole_id: UUID, liner_id: UUID, fitted_by: UUID) -> None:
    """Record that a liner went into a hole."""
    conn.execute(
        """
        INSERT INTO fitting (fitting_id, hole_id, liner_id, fitted_by)
        VALUES (%(fitting_id)s, %(hole_id)s, %(liner_id)s, %(fitted_by)s)
        """,
        {"fitting_id": fitting_id, "hole_id": hole_id, "liner_id": liner_id, "fitted_by": fitted_by},
    )


def add_fitting_shim(conn: Conn, shim: FittedShim) -> None:
    """Record one shim under a fitted liner."""
    conn.execute(
        """
        INSERT INTO fitting_shim (fitting_id, place, nominal_um, measured_um, typed, side_up)
        VALUES (%(fitting_id)s, %(place)s, %(nominal_um)s, %(measured_um)s, %(typed)s, %(side_up)s)
        """,
        {
            "fitting_id": shim.fitting_id,
            "place": shim.place,
            "nominal_um": shim.nominal_um,
            "measured_um": shim.measured_um,
            "typed": shim.typed,
            "side_up": shim.side_up,
        },
    )


def add_fitting_out(
    conn: Conn, fitting_id: UUID, out_by: UUID, because_cut_id: UUID | None, because_fitting_id: UUID | None
) -> None:
    """Record that a liner came out, and for which cut or which other fitting."""
    conn.execute(
        """
        INSERT INTO fitting_out (fitting_id, because_cut_id, because_fitting_id, out_by)
        VALUES (%(fitting_id)s, %(because_cut_id)s, %(because_fitting_id)s, %(out_by)s)
        """,
        {
            "fitting_id": fitting_id,
            "because_cut_id": because_cut_id,
            "because_fitting_id": because_fitting_id,
            "out_by": out_by,
        },
    )


def list_cuts(conn: Conn, job_id: UUID) -> tuple[Cut, ...]:
    """Return all cuts of a job, oldest first."""
    query = f"""
        SELECT c.cut_id, c.hole_id, c.depth_um, c.typed, c.touch_off_um, c.passes, c.shim_um, c.stop_u_um, c.note,
               c.cut_at, p.name AS cut_by, c.event
          FROM cut c JOIN person p ON p.person_id = c.cut_by
         WHERE c.hole_id IN ({HOLES_OF_JOB})
         ORDER BY c.event
    """
    return fetch_all(conn, Cut, query, {"job_id": job_id})


def add_cut(
    conn: Conn,
    cut_id: UUID,
    hole_id: UUID,
    depth_um: Decimal,
    typed: str,
    touch_off_um: Decimal,
    passes: int,
    shim_um: Decimal,
    stop_u_um: Decimal,
    note: str,
    cut_by: UUID,
) -> None:
    """Record a cut."""
    conn.execute(
        """
        INSERT INTO cut (cut_id, hole_id, depth_um, typed, touch_off_um, passes, shim_um, stop_u_um, note, cut_by)
        VALUES (%(cut_id)s, %(hole_id)s, %(depth_um)s, %(typed)s, %(touch_off_um)s, %(passes)s, %(shim_um)s,
                %(stop_u_um)s, %(note)s, %(cut_by)s)
        """,
        {
            "cut_id": cut_id,
            "hole_id": hole_id,
            "depth_um": depth_um,
            "typed": typed,
            "touch_off_um": touch_off_um,
            "passes": passes,
            "shim_um": shim_um,
            "stop_u_um": stop_u_um,
            "note": note,
            "cut_by": cut_by,
        },
    )
