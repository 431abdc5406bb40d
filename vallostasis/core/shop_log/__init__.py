"""What the shop learns from its own jobs: hours, waiting, bores, stones, fits, and the life of a block."""
