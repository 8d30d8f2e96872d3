"""The project's own PostgreSQL cluster: in a folder of the project, on loopback, on a free port, never run as root."""

from __future__ import annotations

import json
import os
import pwd
import secrets
import shutil
import socket
import subprocess
import sys
import tempfile
from pathlib import Path
from typing import Any

USER = "upper_rim"


class Trouble(Exception):
    """Something that keeps the database from running, as a sentence that says what to do."""


def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


class Cluster:
    """A cluster for one purpose (`main`, `test`) below the run folder."""

    def __init__(self, run_folder: Path, name: str) -> None:
        self.run_folder = run_folder = run_folder.resolve()
        self.run_folder.mkdir(parents=True, exist_ok=True)
        self.secrets = self._secrets()
        self.port = 0
        self._bin = _newest_server()
        self._as_postgres: list[str] = []
        self.folder = run_folder / f"postgres-{name}"
        if os.geteuid() == 0:
            self._as_postgres = ["runuser", "-u", "postgres", "--"]
            if not self._within_reach():
                self.folder = Path("/var/lib/postgresql") / f"upper-rim-{_mark(run_folder)}-{name}"
                print(
                    f"The database lies in {self.folder}: the user postgres may not enter this project folder.",
                    file=sys.stderr,
                )

    def environment(self) -> dict[str, str]:
        """What the application must know to reach the cluster."""
        return {
            "RIM_DB_HOST": "127.0.0.1",
            "RIM_DB_PORT": str(self.port),
            "RIM_DB_USER": USER,
            "RIM_DB_NAME": USER,
            "RIM_DB_PASSWORD": self.secrets["database"],
            "RIM_SECRET": self.secrets["application"],
        }

    def start(self) -> None:
        if not (self.folder / "PG_VERSION").exists():
            self._make()
        if self._control("status").returncode == 0:
            self.port = int((self.folder / "postmaster.pid").read_text().splitlines()[3])
            return
        self.port = free_port()
        options = f"-p {self.port} -c listen_addresses=127.0.0.1 -c unix_socket_directories='' -c max_connections=200"
        log = self.folder / "server.log"
        started = self._control("-o", options, "-l", str(log), "-w", "-t", "40", "start")
        if started.returncode:
            raise Trouble(f"PostgreSQL did not start. Its log is {log}; remove {self.folder} to begin anew.")
        self._create_database()

    def restart(self) -> None:
        """As after an update of the server: all connections end, and it answers at the same port again."""
        self._control("-m", "fast", "-w", "restart")

    def stop(self) -> None:
        self._control("-m", "fast", "-w", "stop")

    def remove(self) -> None:
        self.stop()
        shutil.rmtree(self.folder, ignore_errors=True)

    def _make(self) -> None:
        self.folder.mkdir(parents=True, exist_ok=True)
        os.chmod(self.folder, 0o700)
        with tempfile.NamedTemporaryFile("w", dir="/tmp", prefix="upper-rim-") as password:
            password.write(self.secrets["database"])
            password.flush()
            if self._as_postgres:
                account = pwd.getpwnam("postgres")
                os.chown(self.folder, account.pw_uid, account.pw_gid)
                os.chown(password.name, account.pw_uid, account.pw_gid)
            command = [
                str(self._bin / "initdb"),
                "-D",
                str(self.folder),
                "-U",
                USER,
                "-A",
                "scram-sha-256",
                f"--pwfile={password.name}",
                "-E",
                "UTF8",
                "--locale=C.UTF-8",
            ]
            made = subprocess.run([*self._as_postgres, *command], cwd="/", capture_output=True, text=True)
        if made.returncode:
            shutil.rmtree(self.folder, ignore_errors=True)
            raise Trouble(f"The database cluster could not be made: {made.stderr.strip().splitlines()[-1:]}")

    def _create_database(self) -> None:
        with self._server() as server:
            if server.execute("select 1 from pg_database where datname = %s", [USER]).fetchone() is None:
                server.execute(f'create database "{USER}"')

    def drop_database(self) -> None:
        """Takes the whole database away and makes an empty one."""
        with self._server() as server:
            server.execute(f'drop database if exists "{USER}" with (force)')
            server.execute(f'create database "{USER}"')

    def _server(self) -> Any:
        import psycopg

        return psycopg.connect(
            dbname="postgres",
            autocommit=True,
            host="127.0.0.1",
            port=self.port,
            user=USER,
            password=self.secrets["database"],
        )

    def _control(self, *arguments: str) -> subprocess.CompletedProcess[str]:
        command = [*self._as_postgres, str(self._bin / "pg_ctl"), "-D", str(self.folder), *arguments]
        return subprocess.run(
            command, cwd="/", stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL, stdin=subprocess.DEVNULL, text=True
        )

    def _within_reach(self) -> bool:
        return subprocess.run([*self._as_postgres, "test", "-x", str(self.run_folder)], cwd="/").returncode == 0

    def _secrets(self) -> dict[str, str]:
        kept = self.run_folder / "secrets.json"
        if not kept.exists():
            with open(os.open(kept, os.O_WRONLY | os.O_CREAT, 0o600), "w") as file:
                json.dump({"database": secrets.token_urlsafe(24), "application": secrets.token_urlsafe(48)}, file)
        return dict(json.loads(kept.read_text()))


def _newest_server() -> Path:
    found = sorted(Path("/usr/lib/postgresql").glob("*/bin/initdb"), key=lambda path: int(path.parts[-3]))
    if not found:
        raise Trouble("PostgreSQL's server is not installed: the Debian package is called postgresql.")
    return found[-1].parent


def _mark(folder: Path) -> str:
    import hashlib

    return hashlib.sha256(str(folder.resolve()).encode()).hexdigest()[:8]


def stop_with(sentence: str) -> None:
    print(sentence, file=sys.stderr)
    sys.exit(1)
