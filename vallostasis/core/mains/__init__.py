"""The main bores: sizes in three directions, before and after, in one line, and whether they are align-honed."""
