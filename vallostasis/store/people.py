"""People who read, cut and sign."""

from uuid import UUID

from vallostasis.core.records.rows import Person
from vallostasis.store.rows import Conn, fetch_all, fetch_one


def list_people(conn: Conn) -> tuple[Person, ...]:
    """Return everybody, in the order in which they were added."""
    return fetch_all(conn, Person, "SELECT person_id, name FROM person ORDER BY added_at, name")


def add_person(conn: Conn, name: str) -> Person:
    """Add somebody by name; the database refuses a name twice."""
    query = "INSERT INTO person (name) VALUES (%(name)s) RETURNING person_id, name"
    return fetch_one(conn, Person, query, {"name": name}, "person")


def get_person(conn: Conn, person_id: UUID) -> Person:
    """Return one person; raise NotFound if there is nobody with that id."""
    query = "SELECT person_id, name FROM person WHERE person_id = %(person_id)s"
    return fetch_one(conn, Person, query, {"person_id": person_id}, "person")
