"""PostgreSQL: plain SQL, one module for each aggregate; rows come back as the core's own types."""
