"""Sign-in over the network: who asks, what a guest and an instrument may, how often; and the token that every write
of a signed-in page carries."""

from __future__ import annotations

import hmac
import time
from hashlib import sha256
from typing import Any

from flask import Flask, Response, current_app, g, request

from brassclock.api.problem import problem
from brassclock.services.access.devices import Known, gatekeeper
from brassclock.services.app import App

COOKIE, CSRF_COOKIE, CSRF_HEADER = "brass-clock", "brass-clock-csrf", "X-CSRF-Token"
SIGNED_IN_S = 180 * 24 * 3600
OPEN = ("/api/session", "/api/health", "/api/guest/")  # asked before a sign-in; the passcode has its own waits
INTAKE = "/api/instruments/readings"
WRITES = ("POST", "PUT", "PATCH", "DELETE")
RATES = {"cook": "3000/minute", "stranger": "300/minute", "instrument": "1200/minute"}


def csrf_of(token: str) -> str:
    """The second token of a sign-in, that its page can read and a page of elsewhere cannot."""
    return hmac.new(token.encode(), b"writes of this page", sha256).hexdigest()


def me() -> Known | None:
    """The device that asks; None where nobody has to sign in, or has not."""
    found: Known | None = g.get("device")
    return found


class Rates:
    """The limits on how often each may ask, in a window that moves; loaded when it is first asked, as its library takes
    long."""

    def __init__(self) -> None:
        from limits import parse
        from limits.storage import MemoryStorage
        from limits.strategies import SlidingWindowCounterRateLimiter

        self._limiter = SlidingWindowCounterRateLimiter(MemoryStorage())
        self._rates = {kind: parse(rate) for kind, rate in RATES.items()}

    def allows(self, kind: str, who: str) -> bool:
        return self._limiter.hit(self._rates[kind], who)

    def wait_s(self, kind: str, who: str) -> int:
        stats = self._limiter.get_window_stats(self._rates[kind], who)
        return max(1, round(stats.reset_time - time.time()))


def rates() -> Rates:
    """The one of this application, loaded when it is first asked."""
    memory = current_app.extensions["brassclock"].memory
    if "rates" not in memory:
        memory["rates"] = Rates()
    found: Rates = memory["rates"]
    return found


def install(flask_app: Flask, *, lan: bool) -> None:
    """Let in over the network (`lan`) only who has signed in; an instrument sends readings and does nothing else."""
    app: App = flask_app.extensions["brassclock"]
    flask_app.extensions["lan"] = lan

    @flask_app.before_request
    def gate() -> Response | None:
        if not request.path.startswith("/api/") or request.path.startswith(OPEN):
            return _slowed("stranger", address()) if lan and request.path.startswith("/api/") else None
        if request.path == INTAKE:
            return _instrument(app)
        if not lan:
            return None
        return _cook(app)


def of_cookie(app: App) -> Known | None:
    """The device whose token is in the request's cookie; None where there is none."""
    token = request.cookies.get(COOKIE, "")
    return gatekeeper(app).who(app, token) if token else None


def _cook(app: App) -> Response | None:
    """A cook's device by its cookie, with the second token on every write."""
    known = of_cookie(app)
    if known is None or known.kind != "cook":
        return _slowed("stranger", address()) or problem(
            401, "Not signed in", "This kitchen asks for its passcode. Open the page and sign in."
        )
    token = csrf_of(request.cookies[COOKIE])
    if request.method in WRITES and not hmac.compare_digest(request.headers.get(CSRF_HEADER, ""), token):
        return problem(
            403, "Not from this page", f"A write carries {CSRF_HEADER}, as the page has it. Open the page anew."
        )
    g.device = known
    return _slowed("cook", str(known.id))


def _instrument(app: App) -> Response | None:
    """An instrument by the token that it sends."""
    scheme, _, token = request.headers.get("Authorization", "").partition(" ")
    known = gatekeeper(app).who(app, token.strip()) if scheme.lower() == "bearer" else None
    if known is None or known.kind != "instrument":
        return _slowed("stranger", address()) or problem(
            401, "No such instrument", "Send the instrument's token as “Authorization: Bearer TOKEN”."
        )
    g.device = known
    return _slowed("instrument", str(known.id))


def _slowed(kind: str, who: str) -> Response | None:
    """A refusal when that one asks too often."""
    if rates().allows(kind, who):
        return None
    wait_s = rates().wait_s(kind, who)
    return waits("Too often", f"More than {RATES[kind].replace('/', ' a ')}. Go on in {wait_s} s.", wait_s)


def waits(title: str, detail: str, wait_s: int) -> Response:
    """A 429 that says after how many seconds to ask again."""
    answer = problem(429, title, detail)
    answer.headers["Retry-After"] = str(wait_s)
    return answer


def address() -> str:
    """The address that the request comes from."""
    return request.remote_addr or "?"


def signed_in(response: Response, token: str) -> Response:
    """An answer that carries a sign-in, for this server's pages alone."""
    shared: dict[str, Any] = {"secure": request.is_secure, "samesite": "Strict", "max_age": SIGNED_IN_S, "path": "/"}
    response.set_cookie(COOKIE, token, httponly=True, **shared)
    response.set_cookie(CSRF_COOKIE, csrf_of(token), httponly=False, **shared)
    return response


def signed_out(response: Response) -> Response:
    """An answer that takes the sign-in away."""
    for name in (COOKIE, CSRF_COOKIE):
        response.delete_cookie(name, path="/", samesite="Strict")
    return response
