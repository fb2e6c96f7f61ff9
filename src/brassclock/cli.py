"""brass-clock: serve the application, or compute on the command line."""

from __future__ import annotations

import argparse
import gc
import json
import os
import sys
from collections.abc import Callable, Sequence
from contextlib import suppress
from pathlib import Path
from typing import Any

import platformdirs

DEFAULT_PORT = 8421


def _cache_home() -> None:
    """Compiled steppers go to a writable cache, not beside the source."""
    os.environ.setdefault("NUMBA_CACHE_DIR", str(platformdirs.user_cache_path("brass-clock") / "compiled"))


def data_dir(given: str | None) -> Path:
    """Folder of user data: `--data`, else the platform's data directory."""
    return Path(given) if given else platformdirs.user_data_path("brass-clock")


def _problem(title: str, detail: str, errors: list[dict[str, str]]) -> int:
    print(json.dumps({"title": title, "detail": detail, "errors": errors}, ensure_ascii=False), file=sys.stderr)
    return 2


def _compute(args: argparse.Namespace) -> int:
    from brassclock.core.errors import InvalidInput
    from brassclock.services import contract as compute

    try:
        if args.file == "-":
            text = sys.stdin.read()
        else:
            text = Path(args.file).read_text("utf-8")
        compute.schema(args.kind)
        run = compute.prepared(args.kind, json.loads(text))
        if args.kind in compute.SIMULATED:
            _warmed()
        result = run()
    except compute.UnknownKind as fault:
        return _problem("Not a computation", str(fault.args[0]), [])
    except OSError as fault:
        return _problem("No such file", f"{args.file} cannot be read: {fault.strerror}.", [])
    except (ValueError, RecursionError) as fault:
        return _problem("Not JSON", f"The request cannot be read as JSON: {fault}.", [])
    except InvalidInput as fault:
        errors = [{"pointer": f.pointer, "detail": f.detail} for f in fault.faults]
        return _problem("Some fields cannot be used", str(fault), errors)
    print(json.dumps(result, ensure_ascii=False, allow_nan=False))
    return 0


def _warmed() -> None:
    """The steppers as the application has them, so that the numbers are the same. What takes long is told on the
    terminal."""
    from brassclock.services.steppers import COLD_WORDS, warm_all

    if not warm_all(lambda: print(COLD_WORDS, file=sys.stderr, flush=True)):
        print(
            "There is no compiler here: the same is computed in plain Python, with fewer bakes for its bands.",
            file=sys.stderr,
        )


def _schema(args: argparse.Namespace) -> int:
    from brassclock.services import contract as compute

    try:
        print(json.dumps(compute.schema(args.kind), indent=2))
    except compute.UnknownKind as fault:
        return _problem("Not a computation", str(fault.args[0]), [])
    return 0


def _serve(args: argparse.Namespace) -> int:
    gc.disable()  # until it is up: a fifth of a start went into collecting what is all kept
    from brassclock import lan
    from brassclock.server import serve
    from brassclock.serving import Serving

    bind = args.bind or ("0.0.0.0" if args.lan and not args.behind_proxy else "127.0.0.1")
    if not args.lan and not lan.is_loopback(bind):
        return _say(f"{bind} is reached from the network. Add --lan: then it asks for the passcode.")
    known = lan.names() if args.lan else frozenset(lan.LOOPBACK)
    return serve(
        Serving(
            data_dir(args.data),
            bind,
            args.port,
            known | {n.lower() for n in args.host},
            demo=args.demo,
            compiles=not args.no_compile,
            fresh=args.fresh,
            lan=args.lan,
            behind_proxy=args.behind_proxy,
            instruments=not args.no_instruments,
            aside=not args.no_aside,
        )
    )


def _passcode(args: argparse.Namespace) -> int:
    """Set the passcode: typed twice, or the first line of standard input where that is no terminal."""
    from getpass import getpass

    from brassclock.core.errors import InvalidInput
    from brassclock.services.access.passcode import set_passcode
    from brassclock.services.app import App
    from brassclock.store.engine import open_store
    from brassclock.store.faults import CannotOpen

    if sys.stdin.isatty():
        words = getpass("The passcode, 8 characters or more: ")
        if getpass("Once more: ") != words:
            return _say("The two are not the same. Nothing was set.")
    else:
        words = sys.stdin.readline().rstrip("\n")
    try:
        set_passcode(App(open_store(data_dir(args.data)), with_demo=True), words)
    except (CannotOpen, InvalidInput) as fault:
        return _say(str(fault))
    print("The passcode is set. brass-clock serve --lan asks for it.")
    return 0


def _backup(args: argparse.Namespace) -> int:
    import sqlite3

    from brassclock.store import backup
    from brassclock.store.engine import FILE_NAME
    from brassclock.store.faults import storage_fault

    directory = data_dir(args.data)
    source = directory / FILE_NAME
    if not source.exists():
        return _say(f"There is no data in {directory}. Name its folder with --data.")
    target = Path(args.file) if args.file else backup.fresh(directory)
    try:
        print(backup.save(source, target))
    except (OSError, sqlite3.Error) as fault:
        return _say(f"{target}: {storage_fault(fault) or fault}")
    return 0


def _restore(args: argparse.Namespace) -> int:
    from brassclock.housekeeping import hold
    from brassclock.store import backup
    from brassclock.store.engine import close_store
    from brassclock.store.faults import CannotOpen
    from brassclock.store.restoring import restored

    directory = data_dir(args.data)
    known = backup.saved(directory)
    if args.list or not args.file:
        print("\n".join(str(p) for p in known) or f"There are no backups in {directory / backup.FOLDER}.")
        return 0 if args.list else _say("Name one of these to bring it back.")
    try:
        with hold(directory):
            chosen = next((p for p in known if p.name == args.file), Path(args.file))
            engine, kept = restored(directory, chosen)
            close_store(engine)
    except (CannotOpen, ValueError, OSError) as fault:
        return _say(str(fault))
    print(f"{chosen} is in place." + (f" What was there is kept as {kept}." if kept else ""))
    return 0


def _opened(directory: Path) -> Any:
    """The application over the data of a folder. Raises CannotOpen."""
    from brassclock.services.app import App
    from brassclock.store.engine import FILE_NAME, open_store
    from brassclock.store.faults import CannotOpen

    if not (directory / FILE_NAME).exists():
        raise CannotOpen(f"There is no data in {directory}. Name its folder with --data.")
    return App(open_store(directory), with_demo=True)


def _written(args: argparse.Namespace, made: Callable[[Any], tuple[str, bytes]]) -> int:
    """Write a file that is made of the data: (its usual name, its bytes)."""
    from brassclock.services.app import NotFound
    from brassclock.store.faults import CannotOpen

    try:
        name, body = made(_opened(data_dir(args.data)))
        target = Path(args.file or name)
        target.write_bytes(body)
    except (CannotOpen, NotFound, OSError) as fault:
        return _say(str(fault))
    print(f"{target}: {len(body)} bytes")
    return 0


def _export(args: argparse.Namespace) -> int:
    from brassclock.services.pages.package import package_out

    return _written(args, lambda app: package_out(app, args.kitchen))


def _report(args: argparse.Namespace) -> int:
    from brassclock.services.pages.report import report_out
    from brassclock.services.schemas.logbook import PastQuery

    def made(app: Any) -> tuple[str, bytes]:
        name, text = report_out(app, args.kitchen, PastQuery())
        return name, text.encode()

    return _written(args, made)


def _import(args: argparse.Namespace) -> int:
    from brassclock.core.errors import InvalidInput
    from brassclock.housekeeping import hold
    from brassclock.services.app import NotFound
    from brassclock.services.pages.bringing import kitchen_of_package, package_in
    from brassclock.store.faults import CannotOpen

    directory = data_dir(args.data)
    try:
        packed = Path(args.file).read_bytes()
        with hold(directory):
            app = _opened(directory)
            kitchen = kitchen_of_package(app, packed) if args.kitchen is None else args.kitchen
            found = package_in(app, kitchen, packed)
    except (CannotOpen, NotFound, OSError, InvalidInput) as fault:
        return _say(str(fault))
    for what, counts in (("added", found.added), ("there already", found.there)):
        print(f"{what}: " + (", ".join(f"{n} {table}" for table, n in counts.items()) or "nothing"))
    for row in found.refused:
        print(f"refused: {row.table}, line {row.line}: {row.detail}", file=sys.stderr)
    print(f"kitchen {kitchen}, package {found.id}; {found.refused_count} lines refused")
    return 0


def _end_with_parent() -> None:
    """End when standard input does: whoever started this is gone."""
    import threading

    def wait() -> None:
        sys.stdin.buffer.read()
        os._exit(0)

    threading.Thread(target=wait, daemon=True).start()


def _simulate(args: argparse.Namespace) -> int:
    """Stand in for a kitchen's instruments until it is ended."""
    from brassclock.simulate.run import Run, Sender, report
    from brassclock.simulate.things import USUAL_ROOM_C, Fault, Probes, Scale

    token = args.token or os.environ.get("BRASS_CLOCK_TOKEN", "")
    if not token:
        return _say("An instrument has a token: add one in the Kitchen room under Instruments, then --token TOKEN.")
    try:
        faults = [Fault.parse(f) for f in args.fault]
        room = [float(c) for c in args.room.split(",")] if args.room else list(USUAL_ROOM_C)
    except ValueError as fault:
        return _say(str(fault))
    hours = room if len(room) == 24 else [room[0]] * 24
    probes = Probes(args.seed, hours, args.fridge, args.dough, args.plate, faults)
    scale = Scale(seed=args.seed) if args.scale else None
    run = Run(Sender(args.url.rstrip("/"), token), probes, scale, args.every, report)
    if args.with_parent:
        _end_with_parent()
    with suppress(KeyboardInterrupt):
        run.go(args.seconds)
    print(f"{run.sender.taken} readings were taken.", flush=True)
    return 0


def _say(words: str) -> int:
    print(words, file=sys.stderr)
    return 1


def _warm(_: argparse.Namespace) -> int:
    from brassclock.services.steppers import warm_all

    done = warm_all()
    print("compiled" if done else "numba is missing: the plain path stays")
    return 0


def _openapi(_: argparse.Namespace) -> int:
    from brassclock.api.app import openapi_document

    print(json.dumps(openapi_document(), indent=1, sort_keys=True))
    return 0


def _port(text: str) -> int:
    if not (text.isascii() and text.isdigit() and 1 <= int(text[:6]) <= 65535):
        raise argparse.ArgumentTypeError(f"{text[:20]} is no port. Give a number from 1 to 65535, as 8421.")
    return int(text)


def parser() -> argparse.ArgumentParser:
    """The command line."""
    top = argparse.ArgumentParser(prog="brass-clock", description=__doc__)
    commands = top.add_subparsers(dest="command", required=True)
    serve = commands.add_parser("serve", help="serve the application on 127.0.0.1")
    serve.add_argument("--demo", action="store_true", help="with the demo kitchen and its own clock")
    serve.add_argument("--port", type=_port, default=DEFAULT_PORT)
    serve.add_argument(
        "--host", action="append", default=[], metavar="NAME", help="another name that browsers may use for this server"
    )
    serve.add_argument(
        "--bind", metavar="ADDRESS", help="the address it listens on (default: this machine alone; all with --lan)"
    )
    serve.add_argument("--lan", action="store_true", help="also for others in the network, who sign in by the passcode")
    serve.add_argument("--behind-proxy", action="store_true", help="a proxy of this machine does TLS and says who asks")
    serve.add_argument("--fresh", action="store_true", help="begin anew where the data file is missing beside backups")
    serve.add_argument("--data", metavar="DIR", help="where the data lives (default: the platform's data directory)")
    serve.add_argument("--no-instruments", action="store_true", help="without the stand-in for the demo's instruments")
    serve.add_argument("--no-aside", action="store_true", help="compute long questions in this process too")
    serve.add_argument("--no-compile", action="store_true", help="stay on the plain path")
    serve.set_defaults(run=_serve)
    code = commands.add_parser("passcode", help="set the passcode that serve --lan asks for")
    code.add_argument("--data", metavar="DIR")
    code.set_defaults(run=_passcode)
    compute = commands.add_parser("compute", help="one JSON request in, one JSON result out")
    compute.add_argument("kind")
    compute.add_argument("file", nargs="?", default="-")
    compute.set_defaults(run=_compute)
    schema = commands.add_parser("schema", help="JSON Schema of a request")
    schema.add_argument("kind")
    schema.set_defaults(run=_schema)
    keep = commands.add_parser("backup", help="copy the data, also while it is in use")
    keep.add_argument("file", nargs="?", help="where to (default: the backups beside the data)")
    keep.add_argument("--data", metavar="DIR")
    keep.set_defaults(run=_backup)
    back = commands.add_parser("restore", help="put a backup in the data's place; what was there is kept")
    back.add_argument("file", nargs="?", help="a backup's name or path")
    back.add_argument("--list", action="store_true", help="name the backups, newest first")
    back.add_argument("--data", metavar="DIR")
    back.set_defaults(run=_restore)
    out = commands.add_parser("export", help="write a kitchen as a Data Package: a zip of CSV files")
    out.add_argument("file", nargs="?", help="where to (default: kitchen-DATE.zip here)")
    out.add_argument("--kitchen", type=int, default=1, metavar="ID")
    out.add_argument("--data", metavar="DIR")
    out.set_defaults(run=_export)
    told = commands.add_parser("report", help="write the past bakes as one page of HTML, to print or to send")
    told.add_argument("file", nargs="?", help="where to (default: bakes-DATE.html here)")
    told.add_argument("--kitchen", type=int, default=1, metavar="ID")
    told.add_argument("--data", metavar="DIR")
    told.set_defaults(run=_report)
    brought = commands.add_parser("import", help="bring a package into a kitchen; what is there already stays")
    brought.add_argument("file")
    brought.add_argument("--kitchen", type=int, metavar="ID", help="which one (default: a new kitchen)")
    brought.add_argument("--data", metavar="DIR")
    brought.set_defaults(run=_import)
    stand_in = commands.add_parser("simulate", help="stand in for a kitchen's instruments")
    stand_in.add_argument("--url", default=f"http://127.0.0.1:{DEFAULT_PORT}", help="where the kitchen is")
    stand_in.add_argument("--token", help="the instrument's (default: the environment's BRASS_CLOCK_TOKEN)")
    stand_in.add_argument("--every", type=float, default=10.0, metavar="S", help="seconds between two looks")
    stand_in.add_argument("--for", dest="seconds", type=float, metavar="S", help="end after so many seconds")
    stand_in.add_argument("--seed", type=int, default=1)
    stand_in.add_argument("--room", metavar="C", help="the room's air: one figure, or 24 by the hour with commas")
    stand_in.add_argument("--fridge", type=float, default=4.0, metavar="C")
    stand_in.add_argument("--dough", type=float, default=26.0, metavar="C")
    stand_in.add_argument("--plate", type=float, default=250.0, metavar="C")
    stand_in.add_argument("--scale", action="store_true", help="with a scale, into whose bowl what is wanted is poured")
    stand_in.add_argument(
        "--fault", action="append", default=[], metavar="CHANNEL:KIND@HOURS", help="as room:stuck@1.5; more than one"
    )
    stand_in.add_argument("--with-parent", action="store_true", help="end when standard input does")
    stand_in.set_defaults(run=_simulate)
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
