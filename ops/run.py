"""Runs Upper Rim on this machine: the database, the web processes and one worker, until Ctrl-C. Called by ./start."""

from __future__ import annotations

import argparse
import json
import os
import shutil
import signal
import socket
import subprocess
import sys
import time
import urllib.error
import urllib.request
from pathlib import Path

from database import Cluster, Trouble, stop_with

ROOT = Path(__file__).resolve().parent.parent
DEMO_NAME, DEMO_PASSWORD = "designer", "ferry-and-fern"


def main() -> None:
    parser = argparse.ArgumentParser(
        prog="./start", description="Sets up and runs Upper Rim with its demo, until Ctrl-C."
    )
    parser.add_argument("--port", type=int, default=8700, help="where the studio answers (default: 8700)")
    parser.add_argument("--fresh", action="store_true", help="throw the database away and begin with a new demo")
    parser.add_argument("--workers", type=int, default=1, help="how many do the work in the background (default: 1)")
    parser.add_argument("--account", metavar="NAME", help="make an account of that name and print its password")
    parser.add_argument("--no-demo", action="store_true", help="without demo sites and demo account")
    chosen = parser.parse_args()
    run_folder = Path(os.environ.get("RIM_RUN_FOLDER", ROOT / ".run"))
    if chosen.account and _runs(run_folder):
        _add_account(run_folder, chosen.account)
        return
    if _is_taken(chosen.port):
        stop_with(
            f"Port {chosen.port} is taken by another program. Choose another one: ./start --port {chosen.port + 1}"
        )
    try:
        cluster = Cluster(run_folder, "main")
        cluster.start()
    except Trouble as trouble:
        stop_with(str(trouble))
    children: dict[str, subprocess.Popen[bytes]] = {}
    stopping = False

    def stop(*_: object) -> None:
        nonlocal stopping
        stopping = True

    signal.signal(signal.SIGINT, stop)
    signal.signal(signal.SIGTERM, stop)
    try:
        environment = _environment(cluster, run_folder)
        if chosen.fresh:
            cluster.drop_database()
            shutil.rmtree(run_folder / "editions", ignore_errors=True)
        _manage(environment, "migrate", "--verbosity", "0")
        if not chosen.no_demo:
            _manage(environment, "load_demo", "--name", DEMO_NAME, "--password", DEMO_PASSWORD)
        if chosen.account:
            _manage(environment, "make_account", chosen.account)
        commands = {
            "web": [
                sys.executable,
                "-m",
                "gunicorn",
                "upper_rim.web.wsgi",
                "--bind",
                f"127.0.0.1:{chosen.port}",
                "--config",
                "python:upper_rim.web.serving",
                "--no-control-socket",
            ],
            **{f"worker {at + 1}": [sys.executable, "manage.py", "work"] for at in range(max(1, chosen.workers))},
        }
        for name, command in commands.items():
            children[name] = _begin(command, environment)
        _note_processes(run_folder, children)
        _wait_until_answered(chosen.port, children["web"])
        _tell(chosen.port, with_demo=not chosen.no_demo)
        while not stopping:
            time.sleep(0.3)
            for name, child in list(children.items()):
                if child.poll() is not None and not stopping:
                    print(f"The {name} process ended ({child.returncode}); it is started again.", flush=True)
                    time.sleep(1)
                    children[name] = _begin(commands[name], environment)
                    _note_processes(run_folder, children)
    finally:
        for child in children.values():
            child.terminate()
        for child in children.values():
            try:
                child.wait(timeout=20)
            except subprocess.TimeoutExpired:
                child.kill()
        cluster.stop()
        print("Stopped.", flush=True)


def _environment(cluster: Cluster, run_folder: Path) -> dict[str, str]:
    return {
        **os.environ,
        **cluster.environment(),
        "RIM_RUN_FOLDER": str(run_folder),
        "DJANGO_SETTINGS_MODULE": "upper_rim.web.settings",
        "PYTHONPATH": str(ROOT),
    }


def _runs(run_folder: Path) -> bool:
    """Whether the application of this folder is running."""
    try:
        web = int(json.loads((run_folder / "processes.json").read_text())["web"])
        return b"gunicorn" in Path(f"/proc/{web}/cmdline").read_bytes()
    except (OSError, ValueError, KeyError):
        return False


def _add_account(run_folder: Path, name: str) -> None:
    """An account for the application that runs already."""
    try:
        cluster = Cluster(run_folder, "main")
        cluster.start()
    except Trouble as trouble:
        stop_with(str(trouble))
    _manage(_environment(cluster, run_folder), "make_account", name)


def _begin(command: list[str], environment: dict[str, str]) -> subprocess.Popen[bytes]:
    """In a session of its own: Ctrl-C reaches this process only, which stops the others in order."""
    return subprocess.Popen(command, cwd=ROOT, env=environment, start_new_session=True)


def _note_processes(run_folder: Path, children: dict[str, subprocess.Popen[bytes]]) -> None:
    """Ids of the running processes, for whoever looks after them."""
    (run_folder / "processes.json").write_text(json.dumps({name: child.pid for name, child in children.items()}))


def _manage(environment: dict[str, str], *arguments: str) -> None:
    done = subprocess.run([sys.executable, "manage.py", *arguments], cwd=ROOT, env=environment)
    if done.returncode:
        raise SystemExit(f"`manage.py {arguments[0]}` failed; what it says above tells why.")


def _is_taken(port: int) -> bool:
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind(("127.0.0.1", port))
        except OSError:
            return True
    return False


def _wait_until_answered(port: int, web: subprocess.Popen[bytes]) -> None:
    for _ in range(150):
        if web.poll() is not None:
            raise SystemExit("The web processes did not start; what they say above tells why.")
        try:
            urllib.request.urlopen(f"http://localhost:{port}/account/sign-in/", timeout=5)
            return
        except (urllib.error.URLError, OSError):
            time.sleep(0.1)
    raise SystemExit("The web processes do not answer.")


def _tell(port: int, with_demo: bool) -> None:
    print(f"\nUpper Rim runs.\n\n  Studio   http://localhost:{port}/")
    if with_demo:
        print(f"  Sign in  {DEMO_NAME} / {DEMO_PASSWORD}   (a second designer: colleague / {DEMO_PASSWORD})")
        print(f"  Demo     http://ostrey.localhost:{port}/   http://quillwort.localhost:{port}/")
    else:
        print("  Accounts are made with ./start --account NAME")
    print("\nCtrl-C stops it.\n", flush=True)


if __name__ == "__main__":
    main()
