"""brass-clock: serve the application, or compute on the command line."""

from __future__ import annotations

import argparse
import gc
import json
import os
import sys
import threading
from collections.abc import Sequence
from pathlib import Path
from typing import Any

import platformdirs

DEFAULT_PORT = 8421


def _cache_home() -> None:
    """Compiled steppers go to a writable cache, not beside the source."""
    os.environ.setdefault("NUMBA_CACHE_DIR", str(platformdirs.user_cache_path("brass-clock") / "compiled"))


def data_dir(given: str | None) -> Path:
    """Where user data lives: `--data`, else the platform's data directory."""
    return Path(given) if given else platformdirs.user_data_path("brass-clock")


def warm_all() -> bool:
    """Compile both steppers, or load them from the cache."""
    from brassclock.core.fire.puff import model as puff
    from brassclock.core.rise import course as yeast

    return yeast.warm() and puff.warm()


def _problem(title: str, detail: str, errors: list[dict[str, str]]) -> int:
    print(json.dumps({"title": title, "detail": detail, "errors": errors}, ensure_ascii=False), file=sys.stderr)
    return 2


def _compute(args: argparse.Namespace) -> int:
    from brassclock.core.evidence import BadRequest
    from brassclock.services import compute

    try:
        if args.file == "-":
            text = sys.stdin.read()
        else:
            text = Path(args.file).read_text("utf-8")
        compute.schema(args.kind)
        result = compute.compute(args.kind, json.loads(text))
    except compute.UnknownKind as fault:
        return _problem("Not a computation", str(fault.args[0]), [])
    except OSError as fault:
        return _problem("No such file", f"{args.file} cannot be read: {fault.strerror}.", [])
    except (ValueError, RecursionError) as fault:
        return _problem("Not JSON", f"The request cannot be read as JSON: {fault}.", [])
    except BadRequest as fault:
        errors = [{"pointer": f.pointer, "detail": f.detail} for f in fault.faults]
        return _problem("Some fields cannot be used", str(fault), errors)
    print(json.dumps(result, ensure_ascii=False, allow_nan=False))
    return 0


def _schema(args: argparse.Namespace) -> int:
    from brassclock.services import compute

    try:
        print(json.dumps(compute.schema(args.kind), indent=2))
    except compute.UnknownKind as fault:
        return _problem("Not a computation", str(fault.args[0]), [])
    return 0


def build_app(directory: Path, demo: bool) -> Any:
    """The application over the data in `directory`."""
    from brassclock.api.app import create_app
    from brassclock.demo.canteen import ensure_demo
    from brassclock.services.house import House
    from brassclock.store.engine import open_store

    house = House(open_store(directory), with_demo=demo)
    if demo:
        ensure_demo(house)
    return create_app(house)


def _warm_for_good() -> None:
    """Compile, and take what was loaded out of the collector's sight: a pass over it would hold up an answer by a third of a second."""
    warm_all()
    gc.freeze()


def _serve(args: argparse.Namespace) -> int:
    import waitress

    if not args.no_compile:
        warming = threading.Thread(target=_warm_for_good, name="warm", daemon=True)
        warming.start()
        if args.demo:  # its nights are computed one after the other: quicker once that is compiled
            warming.join()
    app = build_app(data_dir(args.data), args.demo)
    gc.freeze()
    print(f"Brass Clock is at http://127.0.0.1:{args.port}/  (stop with Ctrl-C)", flush=True)
    waitress.serve(app, host="127.0.0.1", port=args.port, threads=8, max_request_body_size=16_000_000)
    return 0


def _warm(_: argparse.Namespace) -> int:
    done = warm_all()
    print("compiled" if done else "numba is missing: the plain path stays")
    return 0


def _openapi(_: argparse.Namespace) -> int:
    import tempfile

    from brassclock.api.app import openapi_document

    with tempfile.TemporaryDirectory() as directory:
        document = openapi_document(build_app(Path(directory), demo=False))
    print(json.dumps(document, indent=1, sort_keys=True))
    return 0


def parser() -> argparse.ArgumentParser:
    """The command line."""
    top = argparse.ArgumentParser(prog="brass-clock", description=__doc__)
    commands = top.add_subparsers(dest="command", required=True)
    serve = commands.add_parser("serve", help="serve the application on 127.0.0.1")
    serve.add_argument("--demo", action="store_true", help="with the demo kitchen and its own clock")
    serve.add_argument("--port", type=int, default=DEFAULT_PORT)
    serve.add_argument("--data", metavar="DIR", help="where the data lives (default: the platform's data directory)")
    serve.add_argument("--no-compile", action="store_true", help="stay on the plain path")
    serve.set_defaults(run=_serve)
    compute = commands.add_parser("compute", help="one JSON request in, one JSON result out")
    compute.add_argument("kind")
    compute.add_argument("file", nargs="?", default="-")
    compute.set_defaults(run=_compute)
    schema = commands.add_parser("schema", help="JSON Schema of a request")
    schema.add_argument("kind")
    schema.set_defaults(run=_schema)
    commands.add_parser("warm", help="compile the steppers into the cache").set_defaults(run=_warm)
    commands.add_parser("openapi", help="print the OpenAPI document").set_defaults(run=_openapi)
    return top


def main(argv: Sequence[str] | None = None) -> int:
    """Run a command; answers its exit code."""
    _cache_home()
    args = parser().parse_args(argv)
    code: int = args.run(args)
    return code


if __name__ == "__main__":
    sys.exit(main())
