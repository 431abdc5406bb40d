"""The user that the application serves as: it reads and adds, and owns nothing."""

from psycopg import sql

from vallostasis.store.rows import Conn, fetch_value

# Bookkeeping is written over; of these rows one is locked, so that two do not write a next version of it at once.
WRITTEN_OVER = ("revision", "device_seen")
LOCKED = ("spec_card", "pairing_code", "setting_master", "gauge_study", "cutter", "gauge")


def grant_application(conn: Conn, user: str, password: str | None) -> None:
    """Make the application's user where there is none, and let it read and add to whatever there is now.

    Without a password it keeps the one that it has.
    """
    name = sql.Identifier(user)
    with conn.transaction():
        if password is not None:
            known = conn.execute("SELECT 1 FROM pg_roles WHERE rolname = %(user)s", {"user": user}).fetchone()
            verb = sql.SQL("ALTER" if known else "CREATE")
            conn.execute(sql.SQL("{} ROLE {} LOGIN NOSUPERUSER NOCREATEDB NOCREATEROLE PASSWORD {}").format(
                verb, name, sql.Literal(password)))  # fmt: skip
        schema = sql.Identifier(str(fetch_value(conn, "SELECT current_schema()")))
        conn.execute(sql.SQL("GRANT USAGE ON SCHEMA {} TO {}").format(schema, name))
        conn.execute(sql.SQL("GRANT SELECT, INSERT ON ALL TABLES IN SCHEMA {} TO {}").format(schema, name))
        conn.execute(sql.SQL("GRANT USAGE, SELECT ON ALL SEQUENCES IN SCHEMA {} TO {}").format(schema, name))
        for table in (*WRITTEN_OVER, *LOCKED):
            conn.execute(sql.SQL("GRANT UPDATE ON {} TO {}").format(sql.Identifier(table), name))
