"""What is found when an engine is stripped, and what it leads to suspect."""
