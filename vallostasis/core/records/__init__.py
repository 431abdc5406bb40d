"""What is written down about a job: rows, gauges, temperatures, spec cards, and what of it holds now."""
