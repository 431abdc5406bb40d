"""What a user can ask for: load, compute with the core, save."""
