"""What was read of a part, as it stands now: places, values, form, state."""
