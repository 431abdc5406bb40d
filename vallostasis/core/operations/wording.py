"""What is said of an operation that follows the school of a job: what to write down, what can hurt. Common practice."""

from vallostasis.core.operations import schools
from vallostasis.core.operations.catalogue import OPERATIONS
from vallostasis.core.operations.schools import side_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import Operation

HONING = (Operation.HONE_BLOCK, Operation.HONE)
DUST = "Dry honing throws iron dust: dust mask on, extraction running."
COMPOUND = (
    "Compound goes on the liner above the seat, never in the hole, where it makes a false bottom; it cures before it "
    "is loaded. Gloves, and air in the room."
)


def asks_of(facts: JobFacts, operation: Operation) -> str:
    """Return what is to be written beside the mark of an operation. Common practice, no published source."""
    if operation is Operation.CAPS and side_of(facts, schools.CAPS) == schools.FIXTURE_CAPS:
        return "which caps the fixture needs, their torque"
    return OPERATIONS[operation].asks


def cautions_of(facts: JobFacts, operation: Operation) -> tuple[str, ...]:
    """Return what can hurt at an operation as this job does it. Common practice, no published source."""
    own = OPERATIONS[operation].caution
    if operation in HONING and side_of(facts, schools.STONES) == schools.DRY_STONES:
        return (*own, DUST)
    if operation is Operation.FIT and side_of(facts, schools.COMPOUND) == schools.WITH_COMPOUND:
        return (*own, COMPOUND)
    return own
