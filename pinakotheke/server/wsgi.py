"""WSGI entry point for gunicorn."""

import os
from importlib import import_module
from threading import Thread

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "pinakotheke.server.settings")
application = get_wsgi_application()
# It takes a second to import, and whoever walks round a design first should not wait for it.
Thread(target=import_module, args=("trimesh",), daemon=True).start()
