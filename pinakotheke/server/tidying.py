"""What goes after a time: sessions, answers kept for repeats, tasks that are done, visitors' copies, old log entries."""

from datetime import timedelta
from io import StringIO

from django.conf import settings
from django.core.management import call_command
from django.utils import timezone

from . import models
from .actions.demo import clear_expired
from .once import forget_answers

GUESSES_KEPT, TASKS_KEPT, WORKERS_KEPT, IMPORTS_KEPT = (timedelta(days=n) for n in (30, 7, 1, 7))


def tidy(log_years: int | None = None) -> dict[str, int]:
    """Clear away what nobody asks for any more; how many rows of each. The log is kept, unless a deployment says for how
    many years.
    """
    now = timezone.now()
    call_command("clearsessions")
    if "DatabaseBackend" in settings.TASKS["default"]["BACKEND"]:
        call_command("prune_db_task_results", min_age_days=TASKS_KEPT.days, verbosity=0)
    call_command("axes_reset_logs", age=GUESSES_KEPT.days, stdout=StringIO())
    years = log_years if log_years is not None else settings.LOG_YEARS
    old = now - timedelta(days=365 * years)
    return {
        "answers": forget_answers(),
        "invitations": models.Invitation.objects.filter(expires__lt=now).delete()[0],
        "workers": models.Worker.objects.filter(heard__lt=now - WORKERS_KEPT).delete()[0],
        "house files": models.HouseImport.objects.filter(at__lt=now - IMPORTS_KEPT).delete()[0],
        "log entries": models.LogEntry.objects.filter(at__lt=old).delete()[0] if years else 0,
        "visitors": clear_expired(),
    }
