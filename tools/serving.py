"""Run the application for a picture or a test: a server on a free port of 127.0.0.1, ended by its own id."""

from __future__ import annotations

import json
import os
import shutil
import signal
import socket
import subprocess
import sys
import time
import urllib.request
from pathlib import Path
from typing import Any

CHROMIUM_FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--autoplay-policy=no-user-gesture-required",
]
START_LIMIT_S = 90


def free_port() -> int:
    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        return int(s.getsockname()[1])


def chromium() -> str:
    """Debian's Chromium: the build without windows where there is one, which opens a page for half the work."""
    found = shutil.which("chromium-headless-shell") or shutil.which("chromium")
    if not found:
        raise RuntimeError("Chromium is missing; make browser installs it")
    return found


class Server:
    """`brass-clock serve` as a child process; `kill` is a kill -9, `start` again keeps data and port."""

    def __init__(self, data: Path, *, demo: bool, options: tuple[str, ...] = ("--no-aside",)) -> None:
        self.data, self.demo, self.port, self.options = data, demo, free_port(), list(options)
        self.process: subprocess.Popen[bytes] | None = None

    @property
    def url(self) -> str:
        return f"http://127.0.0.1:{self.port}"

    def start(self) -> Server:
        command = [sys.executable, "-m", "brassclock.cli", "serve", "--port", str(self.port), "--data", str(self.data)]
        if self.demo:
            command += ["--demo", "--no-instruments"]
        command += self.options
        self.process = subprocess.Popen(command, stdout=subprocess.DEVNULL, env=os.environ)
        deadline = time.monotonic() + START_LIMIT_S
        while time.monotonic() < deadline:
            try:
                if self.get("/api/health")["ok"]:
                    return self
            except OSError:
                time.sleep(0.2)
        self.kill()
        raise RuntimeError("the server did not come up")

    def get(self, path: str) -> Any:
        with urllib.request.urlopen(self.url + path, timeout=20) as answer:
            return json.load(answer)

    def send(self, method: str, path: str, body: Any) -> Any:
        request = urllib.request.Request(
            self.url + path, json.dumps(body).encode(), {"Content-Type": "application/json"}, method=method
        )
        with urllib.request.urlopen(request, timeout=20) as answer:
            return json.load(answer)

    def wait_compiled(self) -> None:
        """Wait until both steppers answer compiled, as long as that takes within reason."""
        deadline = time.monotonic() + START_LIMIT_S
        while time.monotonic() < deadline and not self.get("/api/health")["compiled"]:
            time.sleep(0.3)

    def kill(self) -> None:
        if self.process:
            self.process.send_signal(signal.SIGKILL)
            self.process.wait()
            self.process = None

    def __enter__(self) -> Server:
        return self.start()

    def __exit__(self, *_: object) -> None:
        self.kill()
