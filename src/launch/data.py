"""Backups, bringing one back, and erasing: the only commands that take data away, and they ask."""

import json
import os
from datetime import datetime
from pathlib import Path

from launch import packages, server
from launch.cluster import APP, DATABASE, OWNER, Cluster
from launch.places import VAR, Stop, say, show

_LAST = VAR / "backup.last"
_COMING = "zesty_coming"
_MAGIC = b"PGDMP"


def backup(cluster: Cluster, file: Path) -> None:
    """All data into one file, photos and sheets included; never over a file that is there."""
    if file.exists():
        raise Stop(f"{file} is there already; give another name.")
    if not file.parent.is_dir():
        raise Stop(f"There is no folder {file.parent}.")
    part = file.with_name(f"{file.name}.part")
    say(f"Backing up to {file} …")
    try:
        cluster.tool("pg_dump", "-Fc", "-f", str(part), DATABASE, meanwhile=lambda: _grown(part))
        part.chmod(0o600)
        part.replace(file)
    finally:
        part.unlink(missing_ok=True)
    now = datetime.now().astimezone().isoformat(timespec="seconds")
    said = {"file": str(file), "at": now, "bytes": file.stat().st_size}
    _LAST.write_text(json.dumps(said))
    show(str(file))


def _grown(part: Path) -> None:
    if part.exists():
        say(f"  {part.stat().st_size / 1e6:.1f} MB so far …")


def last_backup() -> str:
    """The last backup in a few words."""
    try:
        said = json.loads(_LAST.read_text())
    except (OSError, ValueError):
        return "none yet; ./zesty backup FILE makes one"
    return f"{said['at']}, {said['file']} ({said['bytes'] / 1e6:.1f} MB)"


def restore(cluster: Cluster, file: Path, *, over: bool) -> None:
    """Bring a backup back. Data that people wrote stand in its way unless they say so by name.

    It comes into a database of its own first: where it can't be read, what was there stays.
    """
    _check_file(file)
    held = holds(cluster)
    if held and not over:
        raise Stop(
            f"There are data here that people wrote ({held}). ./zesty restore {file} --over puts the "
            "backup in their place: it asks for the workshop's name, and backs up first."
        )
    if held:
        _ask_for_name(cluster)
        backup(cluster, _backup_file("before-restore"))
    say(f"Bringing back {file} …")
    cluster.sql(f"DROP DATABASE IF EXISTS {_COMING}", "postgres")
    cluster.tool("createdb", _COMING)
    try:
        cluster.tool(
            "pg_restore", "--no-owner", "--no-acl", "--exit-on-error", "-d", _COMING, str(file),
            meanwhile=lambda: say("  still reading …"),
        )  # fmt: skip
        _looks_like_ours(cluster, _COMING)
        _migrate(cluster, _COMING)
    except Stop:
        cluster.sql(f"DROP DATABASE IF EXISTS {_COMING} WITH (FORCE)", "postgres")
        raise
    cluster.change_places(_COMING)
    say("Brought back. ./zesty start serves it.")


def _check_file(file: Path) -> None:
    try:
        with file.open("rb") as opened:
            begins = opened.read(len(_MAGIC))
    except OSError as error:
        raise Stop(f"{file} cannot be read: {error.strerror}.") from None
    if begins != _MAGIC:
        raise Stop(f"{file} is no backup of ours; ./zesty backup FILE makes one.")


def _looks_like_ours(cluster: Cluster, database: str) -> None:
    if not cluster.sql("SELECT to_regclass('bench_entry')", database):
        raise Stop("The file is a backup of something else; what was here stays.")


def _migrate(cluster: Cluster, database: str) -> None:
    env = server.environment(cluster.url(OWNER, database), own=True)
    server.asked(["prepare", "--empty", "--app-role", APP], env)


def holds(cluster: Cluster) -> str:
    """What people wrote here, in a few words; empty where there is nothing but an untouched demo."""
    if not cluster.sql("SELECT to_regclass('people_workshop')"):
        return ""
    return _asked(cluster, "holds")


def _asked(cluster: Cluster, *words: str) -> str:
    return server.asked([*words], server.environment(cluster.url(), own=True))


def erase(cluster: Cluster) -> None:
    """Take a workshop away for good: asked by its name, backed up first."""
    name = _ask_for_name(cluster)
    backup(cluster, _backup_file("before-erasing"))
    say(_asked(cluster, "erase_workshop", name))


def _ask_for_name(cluster: Cluster) -> str:
    names = cluster.sql("SELECT name FROM people_workshop ORDER BY id").splitlines()
    if not names:
        raise Stop("There is no workshop here.")
    say(f"Here are: {', '.join(names)}.")
    say("This takes away what people wrote. Type the workshop's whole name to go on:")
    try:
        typed = input().strip()
    except EOFError:
        typed = ""
    if typed not in names:
        raise Stop(f"“{typed}” is no workshop here; nothing was taken away.")
    return typed


def _backup_file(why: str) -> Path:
    folder = VAR / "backups"
    folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    return folder / f"{why}-{datetime.now():%Y%m%d-%H%M%S}.zsb"


def size(cluster: Cluster) -> str:
    """How much the data take."""
    return cluster.sql(f"SELECT pg_size_pretty(pg_database_size('{DATABASE}'))")


def prepare_for_data() -> None:
    """What the commands above need on the machine."""
    packages.prepare(tests=False)
    if os.environ.get("DATABASE_URL"):
        raise Stop(
            "DATABASE_URL names a server of yours: its data are backed up, brought back and erased "
            "with that server's own tools."
        )
