"""Which liner goes into which hole."""
