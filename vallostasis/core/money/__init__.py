"""Money: what a job will cost in two sheets, what it did cost, and what a finding does to what was agreed."""
