"""Practice: exercises with a hidden truth, drawn from a seed; nothing of it touches a job."""
