"""The page for the owner, and the brief for another shop: each one HTML file that needs nothing else."""

from base64 import b64encode
from dataclasses import dataclass
from datetime import date, datetime

import jinja2

from vallostasis.core.records.rows import Job

PAGES = jinja2.Environment(loader=jinja2.PackageLoader("vallostasis.documents", "templates"), autoescape=True)


@dataclass(frozen=True, slots=True)
class HoleSquare:
    """One cylinder in plain words, and whether it is right."""

    number: int
    words: str
    is_right: bool


@dataclass(frozen=True, slots=True)
class Photo:
    """A photo of the job with its words; it goes along within the page."""

    content: bytes
    media_type: str
    words: str

    @property
    def uri(self) -> str:
        """The photo as an address that holds it."""
        return f"data:{self.media_type};base64,{b64encode(self.content).decode()}"


@dataclass(frozen=True, slots=True)
class OwnerPage:
    """What the owner reads: stage, what it waits for, when it is ready, what was found, done, not wanted."""

    job: Job
    engine: str
    written_at: datetime
    done: tuple[str, ...]
    to_come: tuple[str, ...]
    waits: tuple[tuple[str, date | None], ...]
    promised: date | None
    told: str
    holes: tuple[HoleSquare, ...]
    found: tuple[str, ...]
    declined: tuple[tuple[str, str], ...]
    photos: tuple[Photo, ...] = ()

    @property
    def share(self) -> int:
        """How much of the work is done, by its steps. [%]"""
        return round(100 * len(self.done) / max(len(self.done) + len(self.to_come), 1))


@dataclass(frozen=True, slots=True)
class BriefPage:
    """What another shop reads: the block, what was read and how it was held, what is asked, what stays as it is."""

    job: Job
    engine: str
    construction: str
    material: str
    holes: int
    surveys: tuple[tuple[str, str, str], ...]
    asked: tuple[tuple[str, str, str], ...]
    kept: tuple[str, ...]


def owner_html(page: OwnerPage) -> str:
    """Write the page for the owner."""
    return str(PAGES.get_template("owner.html").render(page=page))


def brief_html(page: BriefPage) -> str:
    """Write the brief for another shop."""
    return str(PAGES.get_template("brief.html").render(page=page))
