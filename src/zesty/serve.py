"""One web server: waitress on the socket that the launcher made.

It reads every request whole before a thread sees it, so that half-sent ones hold nobody up.
"""

import os
import socket
import sys

from waitress.server import create_server

from zesty.elements import watch
from zesty.wsgi import application

THREADS = 4
_MOST_CONNECTIONS = 1000
_IDLE_S = 30
_LARGEST_REQUEST = 25_000_000


def main(listener: int, beats: int) -> None:
    """Serve until killed."""
    shared = socket.socket(fileno=listener)
    shared.setblocking(False)
    watch.begin(beats)
    proxy = os.environ.get("ZESTY_PROXY")
    trust = {
        "trusted_proxy": proxy,
        "trusted_proxy_count": 1,
        "trusted_proxy_headers": "x-forwarded-for x-forwarded-proto",
        "clear_untrusted_proxy_headers": True,
    }
    create_server(
        application,
        sockets=[shared],
        threads=THREADS,
        connection_limit=_MOST_CONNECTIONS,
        channel_timeout=_IDLE_S,
        max_request_body_size=_LARGEST_REQUEST,
        max_request_header_size=65536,
        asyncore_use_poll=True,
        ident="",
        **(trust if proxy else {"clear_untrusted_proxy_headers": False}),
    ).run()


if __name__ == "__main__":
    main(*map(int, sys.argv[1:3]))
