"""The sums alone, by subject, for scripts and spreadsheets: nothing is stored."""
