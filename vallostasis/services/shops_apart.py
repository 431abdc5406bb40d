"""Making room for one more shop in a database that several share."""

from vallostasis.machine.postgres import MachineError
from vallostasis.store import shops_apart
from vallostasis.store.backups import connected


def bring_shop_up(dsn: str, name: str) -> str:
    """Make a shop's schema, or bring it up to this version; return what to say."""
    if not dsn:
        raise MachineError("Name the database by VALLO_DSN, as somebody who may make users and schemas.")
    try:
        with connected(dsn) as conn:
            made = shops_apart.bring_shop_up(conn, name, dsn)
    except ValueError as error:
        raise MachineError(str(error)) from None
    if not made.is_new:
        return f"{made.schema} is up to this version."
    return f"{made.schema} is there. Start its application with this, told this once:\n  VALLO_DSN='{made.dsn}'"
