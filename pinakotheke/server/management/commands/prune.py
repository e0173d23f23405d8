"""`manage.py prune`: clear away what nobody asks for any more. A worker does it every hour."""

from typing import Any

from django.core.management.base import BaseCommand, CommandParser

from pinakotheke.server.tidying import tidy


class Command(BaseCommand):
    """See the module."""

    help = "Clear away old sessions, tasks, guesses, invitations and visitors' copies; the log only where asked."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument(
            "--log-years", type=int, default=None, help="entries of the log older than so many years too"
        )

    def handle(self, *args: Any, log_years: int | None = None, **options: Any) -> None:
        for what, many in tidy(log_years).items():
            self.stdout.write(f"{what}: {many}")
