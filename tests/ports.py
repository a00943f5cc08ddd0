"""A place for servers of tests and benchmarks to listen."""

import socket


def free_port() -> int:
    """A port that nobody listens on: other runs on this machine may be under way."""
    with socket.socket() as one:
        one.bind(("127.0.0.1", 0))
        return int(one.getsockname()[1])
