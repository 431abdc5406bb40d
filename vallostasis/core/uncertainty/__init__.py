"""Every ±: budgets, what a reading carries, extremes, and the one rule that decides."""
