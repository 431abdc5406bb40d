"""What a screen and a person may do together. House rule: what both may."""

import pytest

from vallostasis.core.records.roles import Role, lesser


@pytest.mark.parametrize(
    ("one", "other", "less"),
    [
        (Role.OWNER, Role.OWNER, Role.OWNER),
        (Role.OWNER, Role.MACHINIST, Role.MACHINIST),
        (Role.READER, Role.OWNER, Role.READER),
        (Role.MACHINIST, Role.READER, Role.READER),
    ],
)
def test_whoever_comes_in_at_a_screen_may_do_what_both_may(one: Role, other: Role, less: Role) -> None:
    assert lesser(one, other) is less
    assert lesser(other, one) is less
