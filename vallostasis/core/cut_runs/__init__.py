"""Counterbores as they are cut: passes counted, the ledge proved, and what runs teach."""
