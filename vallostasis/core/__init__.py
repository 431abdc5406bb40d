"""The rules of the job: pure functions on SI values, no interface, no database, no clock."""
