"""Settings. Everything a deployment changes is an environment variable; the defaults serve one machine."""

import sys
from pathlib import Path

import environ

env = environ.Env()
BASE_DIR = Path(__file__).resolve().parents[2]
VAR_DIR = Path(env.str("PINAKOTHEKE_VAR", default=str(BASE_DIR / "var")))
TESTING = "test" in sys.argv[1:2]

DEBUG = env.bool("PINAKOTHEKE_DEBUG", default=False)
DEMO = env.bool("PINAKOTHEKE_DEMO", default=False)
"""Offer one button that enters the demo household."""
ALLOWED_HOSTS = env.list("PINAKOTHEKE_HOSTS", default=["localhost", "127.0.0.1", "[::1]", "testserver"])
CSRF_TRUSTED_ORIGINS = env.list("PINAKOTHEKE_ORIGINS", default=[])


def _secret_key() -> str:
    """The deployment's key, or one made at the first start and kept beside the database."""
    given = env.str("PINAKOTHEKE_SECRET_KEY", default="")
    if given:
        return str(given)
    path = VAR_DIR / "secret-key"
    if not path.exists():
        from django.core.management.utils import get_random_secret_key

        VAR_DIR.mkdir(parents=True, exist_ok=True)
        path.write_text(get_random_secret_key(), "utf-8")
        path.chmod(0o600)
    return path.read_text("utf-8")


SECRET_KEY = _secret_key()

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "django_tasks",
    "django_tasks_db",
    "ninja",
    "pinakotheke.server",
]
MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    # Before WhiteNoise, which answers for the page itself.
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.middleware.gzip.GZipMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "pinakotheke.server.api.errors.problems_only",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
]
ROOT_URLCONF = "pinakotheke.server.urls"
WSGI_APPLICATION = "pinakotheke.server.wsgi.application"
TEMPLATES = [{"BACKEND": "django.template.backends.django.DjangoTemplates", "APP_DIRS": True}]

_ON_DISK = "PRAGMA journal_mode=WAL; PRAGMA synchronous=NORMAL; PRAGMA foreign_keys=ON;"
_FOR_TESTS = "PRAGMA journal_mode=DELETE; PRAGMA synchronous=OFF; PRAGMA foreign_keys=ON;"
_RAM_DISK = Path("/dev/shm") if Path("/dev/shm").is_dir() else VAR_DIR
DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": VAR_DIR / "pinakotheke.sqlite3",
        "OPTIONS": {
            "timeout": 20,
            "transaction_mode": "IMMEDIATE",
            "init_command": _FOR_TESTS if TESTING else _ON_DISK,
        },
        # A file, since an in-memory database shares one connection among the live server's threads.
        "TEST": {"NAME": _RAM_DISK / f"pinakotheke-test-{BASE_DIR.name}.sqlite3"},
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

TASKS = {
    "default": {
        "BACKEND": env.str("PINAKOTHEKE_TASKS", default="django_tasks_db.DatabaseBackend"),
        "QUEUES": [],
        "ENQUEUE_ON_COMMIT": True,
    }
}
MEDIA_ROOT = VAR_DIR / ("test-media" if TESTING else "media")
"""Photographs; served only to members of their household, never as plain files."""
SOLVE_EFFORT = env.float("PINAKOTHEKE_EFFORT", default=1.0)
"""How hard a solve searches; 1 takes a few seconds."""

AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator"},
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
]
SESSION_COOKIE_SAMESITE = "Lax"
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = env.bool("PINAKOTHEKE_HTTPS", default=False)
DATA_UPLOAD_MAX_MEMORY_SIZE = 2_000_000
"""Of a request but its files, bytes."""

LANGUAGE_CODE = "en"
USE_TZ = True
TIME_ZONE = "UTC"
STATIC_URL = "/static/"
WEB_DIR = Path(__file__).parent / "static"
WHITENOISE_ROOT = WEB_DIR
WHITENOISE_INDEX_FILE = True
WHITENOISE_IMMUTABLE_FILE_TEST = r"^/assets/.+-[\w-]{8}\.\w+$"
WHITENOISE_AUTOREFRESH = DEBUG or TESTING
WHITENOISE_USE_FINDERS = True

TEST_RUNNER = "pinakotheke.server.testing.Runner"
if TESTING:
    DEMO = True
    PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
    TASKS["default"]["BACKEND"] = "django_tasks.backends.immediate.ImmediateBackend"
    SOLVE_EFFORT = 0.1

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
    "loggers": {
        "django.request": {"level": "CRITICAL" if TESTING else "ERROR"},
        "django.security.csrf": {"level": "CRITICAL" if TESTING else "WARNING"},
    },
}
