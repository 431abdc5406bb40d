"""Codes, links and passwords tried in vain: whoever guesses is let try no more for a while, and all together few.

Counted in the database, so that it holds for every process that serves.
"""

from datetime import timedelta

from vallostasis.store import security_log
from vallostasis.store.rows import Conn
from vallostasis.store.security_log import SecurityKind

REMEMBERED_FOR = timedelta(minutes=10)
# Of one device, or at the password of one person; at codes and links of all devices together.
OF_ONE, OF_ALL = 5, 40
_AT_THE_DOOR = (SecurityKind.WRONG_CODE, SecurityKind.WRONG_LINK)


def may_try_a_key(conn: Conn, address: str) -> bool:
    """Whether a device may try a code or a link once more."""
    mine = security_log.count_since(conn, REMEMBERED_FOR, _AT_THE_DOOR, address=address)
    return mine < OF_ONE and security_log.count_since(conn, REMEMBERED_FOR, _AT_THE_DOOR) < OF_ALL


def may_try_a_password(conn: Conn, address: str, name: str) -> bool:
    """Whether a device may try the password of somebody once more."""
    wrong = (SecurityKind.WRONG_PASSWORD,)
    mine = security_log.count_since(conn, REMEMBERED_FOR, wrong, address=address)
    return mine < OF_ONE and security_log.count_since(conn, REMEMBERED_FOR, wrong, words=name) < OF_ONE
