"""What is typed on a spec card."""
