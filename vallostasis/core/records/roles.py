"""What somebody may do in the shop: the owner everything, a machinist all work, a reader one proof. House rule."""

from enum import StrEnum


class Role(StrEnum):
    """What a device or a person may do."""

    OWNER = "owner"
    MACHINIST = "machinist"
    READER = "reader"


_FROM_MOST = (Role.OWNER, Role.MACHINIST, Role.READER)


def lesser(one: Role, other: Role) -> Role:
    """Return the role that may do less: whoever comes in at a screen may do what both may. House rule."""
    return max(one, other, key=_FROM_MOST.index)
