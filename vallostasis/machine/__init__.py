"""What ./vallo needs of the machine: packages, a private PostgreSQL, the built front end."""
