"""What else could be done about a hole, side by side, with what it costs."""
