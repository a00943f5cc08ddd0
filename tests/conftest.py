"""Shared settings of all tests: derandomised properties, a file database, the evaluator's fresh memory."""

import os
import signal

os.environ.setdefault("DJANGO_ALLOW_ASYNC_UNSAFE", "true")

import pytest
from hypothesis import HealthCheck, settings

settings.register_profile(
    "izett", derandomize=True, max_examples=40, deadline=None, suppress_health_check=[HealthCheck.too_slow]
)
settings.load_profile("izett")
# Tests that run in the background are deaf to Ctrl-C, and so would be the servers that they start.
signal.signal(signal.SIGINT, signal.default_int_handler)


def pytest_collection_finish():
    """Collect as the server does, seldom: what the evaluator remembers need not be gone through."""
    from studio.collector import settle

    settle()


@pytest.fixture(scope="session")
def evaluator():
    from izett.catalogue import catalogue
    from izett.recipe.evaluator import Evaluator

    return Evaluator(catalogue())


@pytest.fixture
def middling():
    """A body of middling size with few measures."""
    return {
        "bust_girth": 92.0,
        "waist_girth": 74.0,
        "hip_girth": 98.0,
        "height": 168.0,
        "high_bust_girth": 87.0,
        "underbust_girth": 78.0,
    }
