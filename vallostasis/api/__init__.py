"""HTTP: one router for each subject, with its models."""
