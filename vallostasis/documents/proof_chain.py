"""What stands on a proof of the chain over its job: how many entries, the head, and its picture for a camera."""

from dataclasses import dataclass
from uuid import UUID

from vallostasis.documents.qr_code import qr_svg


@dataclass(frozen=True, slots=True)
class ProofChain:
    """The chain as it stood when the proof was written; ``broken_at`` is an entry that is not as it was linked."""

    job_id: UUID
    entries: int
    head: str
    broken_at: int | None

    @property
    def in_groups(self) -> str:
        """The head in groups that can be read out."""
        return " ".join(self.head[at : at + 8] for at in range(0, len(self.head), 8))

    @property
    def picture(self) -> str:
        """Its picture: job, entries and head in one line of text."""
        return qr_svg(f"vallostasis:{self.job_id}:{self.entries}:{self.head}")
