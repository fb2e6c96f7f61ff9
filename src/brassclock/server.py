"""The server: a port that answers at once, the application behind it once it is up, and a clean end."""

from __future__ import annotations

import signal
import socket
import sys
import threading
from typing import TYPE_CHECKING, Any

from brassclock.api.front import pages_app
from brassclock.heaps import bound_heaps
from brassclock.serving import Serving, Switch
from brassclock.store.faults import CannotOpen

if TYPE_CHECKING:
    from brassclock.running import Running

THREADS = 8  # more than cores: some wait for the disk or for their turn
CONNECTIONS = 1000
IDLE_S = 30  # a connection that says nothing for so long is closed
MOST_BODY = 210_000_000  # each route has a lower bound of its own; what is over half a megabyte waits on disk


def listening(host: str, port: int) -> socket.socket:
    """A socket that is bound. Raises CannotOpen in words when the port is taken or may not be used."""
    family = socket.AF_INET6 if ":" in host else socket.AF_INET
    found = socket.socket(family, socket.SOCK_STREAM)
    found.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        found.bind((host.strip("[]"), port))
    except OSError as fault:
        found.close()
        why = {98: "is taken by another program", 13: "may not be used by you", 99: "is no address of this machine"}
        raise CannotOpen(
            f"Port {port} on {host} {why.get(fault.errno or 0, f'cannot be used ({fault.strerror})')}. Choose "
            "another: --port 8422."
        ) from None
    found.set_inheritable(False)
    found.listen(256)
    return found


FORWARDED = {"x-forwarded-for", "x-forwarded-host", "x-forwarded-proto"}


def serve(serving: Serving) -> int:
    """Serve until the process is told to stop; the exit code. Every fault of the start is one line."""
    import logging

    import waitress

    logging.getLogger("waitress.queue").setLevel(logging.ERROR)  # it tells of every request that waits for a moment
    try:
        sock = listening(serving.host, serving.port)
    except CannotOpen as fault:
        print(fault, file=sys.stderr)
        return 1
    bound_heaps()
    signal.signal(signal.SIGTERM, _stop)
    starting = Starting(serving, Switch(pages_app(serving.names)))
    starting.start()
    for line in where(serving):
        print(line, flush=True)
    proxied: dict[str, Any] = (
        {"trusted_proxy": "127.0.0.1", "trusted_proxy_count": 1, "trusted_proxy_headers": FORWARDED}
        if serving.behind_proxy
        else {}
    )
    try:
        waitress.serve(
            starting.switch,
            sockets=[sock],
            threads=THREADS,
            connection_limit=CONNECTIONS,
            channel_timeout=IDLE_S,
            cleanup_interval=5,
            asyncore_use_poll=True,
            max_request_body_size=MOST_BODY,
            _quiet=True,
            clear_untrusted_proxy_headers=True,
            **proxied,
        )
    finally:
        running = starting.running
        if running is not None:
            running.end()
            running.send_home()
    return 1 if running is not None and running.fault is not None else 0


class Starting(threading.Thread):
    """Load the application and bring it up, beside the port that answers already."""

    def __init__(self, serving: Serving, switch: Switch) -> None:
        super().__init__(name="start", daemon=True)
        self.serving, self.switch = serving, switch
        self.running: Running | None = None  # once it is loaded

    def run(self) -> None:
        from brassclock.running import Running

        self.running = Running(self.serving, self.switch)
        self.running.start()


def where(serving: Serving) -> list[str]:
    """The application's addresses, as lines for the terminal; the way in for a tablet, or what that takes."""
    shown = f"[{serving.host}]" if ":" in serving.host else serving.host
    if not serving.lan:
        return [
            f"Brass Clock is at http://{shown}:{serving.port}/  (stop with Ctrl-C)",
            "For a tablet in the kitchen: brass-clock passcode, then the same command with --lan (docs/operations.md).",
        ]
    from brassclock.lan import addresses

    first = f"Brass Clock is at http://127.0.0.1:{serving.port}/  (stop with Ctrl-C)"
    if serving.behind_proxy:
        return [first, "  on a tablet of this network: under the name that the proxy answers to"]
    found = addresses() if serving.host == "0.0.0.0" else [serving.host]
    open_ = "  What goes over the network is not encrypted. To keep it on a tablet: TLS (docs/operations.md)."
    return [first, *(f"  on a tablet of this network: http://{a}:{serving.port}/" for a in found), open_]


def _stop(*_: Any) -> None:
    raise SystemExit(0)
