"""A list of changes that must not go unnoticed, and what tries them one by one."""
