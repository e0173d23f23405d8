"""The test runner: Django's own, with one closing line that says what ran."""

import unittest
from typing import Any

from django.test.runner import DiscoverRunner


class Runner(DiscoverRunner):
    """Prints `N passed, N failed, N skipped` as its last line."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self._closing = ""

    def suite_result(self, suite: unittest.TestSuite, result: Any, **kwargs: Any) -> int:
        failed = len(result.failures) + len(result.errors) + len(result.unexpectedSuccesses)
        skipped = len(result.skipped)
        passed = result.testsRun - failed - skipped
        self._closing = f"{max(passed, 0)} passed, {failed} failed, {skipped} skipped"
        return failed

    def run_tests(self, *args: Any, **kwargs: Any) -> int:
        try:
            return super().run_tests(*args, **kwargs)
        finally:
            print(self._closing or "0 passed, 0 failed, 0 skipped", flush=True)
