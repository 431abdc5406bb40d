"""One plan for the cuts of a whole block."""
