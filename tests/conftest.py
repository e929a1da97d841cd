"""Settings for all tests: timings belong in the benchmark, so no example has a deadline."""

from hypothesis import settings

settings.register_profile("here", deadline=None)
settings.load_profile("here")
