"""The pages without the application behind them: a browser loads them while it is brought up.

Imports nothing but the web framework, so that they are there at once.
"""

from __future__ import annotations

from flask import Flask

from brassclock.api import guard, pages

HOSTS = guard.HOSTS


def install(flask_app: Flask, hosts: frozenset[str]) -> None:
    """Answer with the pages, to these host names alone."""
    guard.install(flask_app, hosts)
    flask_app.register_blueprint(pages.blueprint)


def pages_app(hosts: frozenset[str]) -> Flask:
    """The pages alone."""
    flask_app = Flask(__name__, static_folder=None)
    install(flask_app, hosts)
    return flask_app
