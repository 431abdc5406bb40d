"""What does not add up: which cause explains it, and the cheapest check that tells."""
