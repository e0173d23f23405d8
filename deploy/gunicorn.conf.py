"""How the web process runs behind a buffering proxy: a slow client is the proxy's to wait for, never a thread's."""

import os

bind = os.environ.get("PINAKOTHEKE_BIND", "127.0.0.1:8420")
workers = int(os.environ.get("PINAKOTHEKE_WEB_PROCESSES", "2"))
threads = int(os.environ.get("PINAKOTHEKE_WEB_THREADS", "4"))
worker_class = "gthread"
timeout = 60
graceful_timeout = 30
keepalive = 65
# A process that grew by odd uploads is replaced, not all at once.
max_requests, max_requests_jitter = 5000, 500
forwarded_allow_ips = "127.0.0.1"
limit_request_line, limit_request_fields = 4094, 60
wsgi_app = "pinakotheke.server.wsgi"
preload_app = False
loglevel = "warning"
