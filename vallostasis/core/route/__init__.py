"""The route of a job: its operations in order, how far each is, what holds it, what it waits for, what it re-opens."""
