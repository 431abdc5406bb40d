"""Every setting: type, default, meaning. Read once at the start from the environment."""

import ipaddress
import os
from pathlib import Path

from pydantic import Field
from pydantic_settings import BaseSettings, SettingsConfigDict

from vallostasis.devices.targets import PRIVATE


def default_data_folder() -> Path:
    """Folder of database and logs: where the postgres user may enter when started as root."""
    if os.geteuid() == 0:
        return Path("/var/lib/vallostasis")
    return Path(os.environ.get("XDG_DATA_HOME", Path.home() / ".local" / "share")) / "vallostasis"


DEFAULT_PORT = 8420


def is_loopback(host: str) -> bool:
    """Whether an address is reached from this machine only."""
    if host == "localhost":
        return True
    try:
        address = ipaddress.ip_address(host.strip("[]"))
    except ValueError:
        return False
    # A socket open for both versions shows an IPv4 peer as ::ffff:127.0.0.1.
    return (getattr(address, "ipv4_mapped", None) or address).is_loopback


class Settings(BaseSettings):
    """Settings of one running application."""

    model_config = SettingsConfigDict(env_prefix="VALLO_", extra="ignore")

    dsn: str = Field("", description="Any other PostgreSQL to use instead of the private one, as a connection string.")
    read_dsn: str = Field(
        "", description="How a replica is reached, for the floor, search and statistics; the database itself if empty."
    )
    database_patience_s: float = Field(
        5.0, gt=0, description="How long a request waits for a connection to the database before it is told so."
    )
    data: Path = Field(default_factory=default_data_folder, description="Data folder of the private PostgreSQL.")
    web: Path = Field(
        Path(__file__).resolve().parent.parent / "web" / "dist", description="The built front end to serve."
    )
    host: str = Field(
        "127.0.0.1", description="Address to serve at. Any other than loopback lets in only devices that were paired."
    )
    port: int = Field(DEFAULT_PORT, ge=1, le=65535, description="Port to serve at.")
    largest_body_bytes: int = Field(48_000, ge=1_000, description="Largest request body that is read.")
    largest_file_bytes: int = Field(5_000_000, ge=1_000, description="Largest table of readings that is brought in.")
    largest_photo_bytes: int = Field(10_000_000, ge=1_000, description="Largest photo that is taken.")
    largest_archive_bytes: int = Field(100_000_000, ge=1_000, description="Largest job with photos brought in.")
    largest_scan_bytes: int = Field(80_000_000, ge=1_000, description="Largest scan that is taken.")

    backups: Path | None = Field(None, description="Folder for backups; beside the private database's by default.")
    backup_every_h: float = Field(24.0, gt=0, description="Hours between two backups while the application runs.")
    backups_kept: int = Field(14, ge=1, description="Backups that stay; older ones go.")
    gauge_networks: str = Field(
        ",".join(PRIVATE), description="Networks that gauges over TCP may be in, parted by commas."
    )

    tls: bool = Field(False, description="Serve over TLS with a certificate that this machine makes for itself.")
    tls_cert: Path | None = Field(None, description="Certificate chain in PEM form to serve over TLS with.")
    tls_key: Path | None = Field(None, description="Private key in PEM form that belongs to the certificate.")
    proxy_name: str = Field(
        "",
        pattern=r"^[A-Za-z0-9.\-]*(:\d{1,5})?$",
        description="Name, and port where it is not 443, at which a proxy with TLS on this machine is reached.",
    )

    @property
    def backup_folder(self) -> Path:
        """Where backups go."""
        return self.backups or self.data / "backups"

    @property
    def pairing(self) -> bool:
        """Whether devices have to be paired: always when the network can reach this address, by a proxy too."""
        return not is_loopback(self.host) or self.proxy_name != ""

    @property
    def scheme(self) -> str:
        """How a browser reaches it at its own port."""
        return "https" if self.tls or self.tls_cert is not None else "http"
