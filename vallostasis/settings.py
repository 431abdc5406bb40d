"""Every setting: type, default, meaning. Read once at the start from the environment."""

import os
from pathlib import Path

from pydantic import Field
from pydantic_settings import BaseSettings, SettingsConfigDict


def default_data_folder() -> Path:
    """Folder of database and logs: where the postgres user may enter when started as root."""
    if os.geteuid() == 0:
        return Path("/var/lib/vallostasis")
    return Path(os.environ.get("XDG_DATA_HOME", Path.home() / ".local" / "share")) / "vallostasis"


class Settings(BaseSettings):
    """Settings of one running application."""

    model_config = SettingsConfigDict(env_prefix="VALLO_", extra="ignore")

    dsn: str = Field("", description="Any other PostgreSQL to use instead of the private one, as a connection string.")
    data: Path = Field(default_factory=default_data_folder, description="Data folder of the private PostgreSQL.")
    web: Path = Field(
        Path(__file__).resolve().parent.parent / "web" / "dist", description="The built front end to serve."
    )
    largest_body_bytes: int = Field(48_000, ge=1_000, description="Largest request body that is read.")
