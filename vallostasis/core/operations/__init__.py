"""What is done to an engine: operations, the schools that differ about them, and what each disturbs."""
