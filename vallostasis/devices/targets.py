"""Which machines a gauge may be at: of this machine's own networks, unless the owner allows others."""

import ipaddress
import socket
from collections.abc import Sequence
from urllib.parse import urlsplit

Network = ipaddress.IPv4Network | ipaddress.IPv6Network
# RFC 1918, RFC 4193, loopback and link-local addresses.
PRIVATE = ("127.0.0.0/8", "10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "169.254.0.0/16",
           "::1/128", "fc00::/7", "fe80::/10")  # fmt: skip


class NotAllowed(OSError):
    """A line leads somewhere that the owner did not allow."""


def networks(texts: Sequence[str]) -> tuple[Network, ...]:
    """Read networks as they are written, such as 192.168.4.0/24."""
    return tuple(ipaddress.ip_network(text) for text in texts)


def refuse_outside(url: str, allowed: Sequence[Network]) -> None:
    """Raise NotAllowed where a line over TCP leads outside; a cable leads nowhere."""
    parts = urlsplit(url)
    if parts.scheme != "socket":
        return
    for *_, address in socket.getaddrinfo(parts.hostname, parts.port, type=socket.SOCK_STREAM):
        found = ipaddress.ip_address(str(address[0]).partition("%")[0])
        if not any(found in network for network in allowed if network.version == found.version):
            raise NotAllowed(
                f"{found} is in none of the networks that gauges may be in: the owner sets them by VALLO_GAUGE_NETWORKS"
            )
