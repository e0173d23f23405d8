"""A server as `deploy/` sets it up, in a folder of its own: nginx before gunicorn, a worker beside; and who asks it."""

import os
import re
import signal
import socket
import subprocess
import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any
from uuid import uuid4

import requests

ROOT = Path(__file__).parents[2]
PASSWORD = "a-long-enough-one"
LINE = "width 1846 1849 1843; height 2412; depth 612; opening 1250 x 2030; nibs 296 300"


class Server:
    """The processes and the address people ask."""

    def __init__(self, data: Path, *, demo: bool = False, tries: int = 100_000) -> None:
        self.data, self.port, self.inner = data, _free_port(), _free_port()
        # Limits are held against in `guessers` and in the tests; here they would stand before what is measured.
        rates = {"PINAKOTHEKE_RATES": str(tries)} if tries else {}
        self.environment = {
            **os.environ, "PINAKOTHEKE_VAR": str(data), "PINAKOTHEKE_PROXIES": "1", "PINAKOTHEKE_DEMO": str(int(demo)),
            "PINAKOTHEKE_BIND": f"127.0.0.1:{self.inner}", "PINAKOTHEKE_LOG": "json", **rates,
        }  # fmt: skip
        self.web = self.worker = self.proxy = None  # type: subprocess.Popen[bytes] | None
        self.url = f"http://127.0.0.1:{self.port}"

    def manage(self, *command: str) -> None:
        """A command of `manage.py`."""
        subprocess.run([sys.executable, "manage.py", *command], cwd=ROOT, env=self.environment, check=True)

    def start_web(self) -> None:
        """gunicorn, by the shipped configuration."""
        self.web = self._start(sys.executable, "-m", "gunicorn", "--config", "deploy/gunicorn.conf.py")

    def start_worker(self) -> None:
        """A worker, as the unit starts it."""
        self.worker = self._start("nice", "-n", "10", sys.executable, "manage.py", "worker", "--interval", "0.2")

    def start_proxy(self) -> None:
        """nginx, by the shipped configuration without TLS."""
        site = (ROOT / "deploy" / "nginx.conf").read_text("utf-8")
        site = re.sub(r"server \{\s+listen 80;.*?\n\}\n", "", site, flags=re.DOTALL)
        site = re.sub(r"\n\s+(ssl_\w+ [^;]+|listen \[[^;]+);", "", site)
        site = site.replace("443 ssl http2", f"127.0.0.1:{self.port}").replace(
            "127.0.0.1:8420", f"127.0.0.1:{self.inner}"
        )
        site = site.replace("/etc/nginx/pinakotheke-proxy.conf", str(ROOT / "deploy" / "proxy.conf"))
        # All who ask come from one address here; in a deployment each has their own.
        site = re.sub(r"limit_conn pinakotheke_conn \d+", "limit_conn pinakotheke_conn 4000", site)
        site = site.replace("rate=30r/m", "rate=100r/s")
        conf = self.data / "nginx.conf"
        runs_as = "user root;" if os.geteuid() == 0 else ""  # the folder is of whoever runs this
        files = f"pid {self.data}/nginx.pid; error_log {self.data}/nginx.log;"
        events = "worker_processes 1; events { worker_connections 4096; }"
        conf.write_text(
            f"daemon off; {runs_as} {files} {events}\nhttp {{ client_body_temp_path {self.data}/body;\n{site} }}"
        )
        self.proxy = self._start("/usr/sbin/nginx", "-c", str(conf))

    def _start(self, *command: str) -> "subprocess.Popen[bytes]":
        log = (self.data / "log.txt").open("ab")
        return subprocess.Popen(command, cwd=ROOT, env=self.environment, stdout=log, stderr=log, start_new_session=True)

    def wait(self) -> None:
        """Until it answers."""
        for _ in range(600):
            try:
                if requests.get(f"{self.url}/health", timeout=2).status_code == 200:
                    return
            except requests.RequestException:
                pass
            time.sleep(0.1)
        raise RuntimeError((self.data / "log.txt").read_text()[-2000:])

    @staticmethod
    def kill(process: "subprocess.Popen[bytes] | None") -> None:
        """At once, with all it started, as a power cut would."""
        if process is not None:
            os.killpg(process.pid, signal.SIGKILL)
            process.wait()

    def memory_mb(self) -> float:
        """Resident memory of the web processes, the largest."""
        assert self.web is not None
        said = subprocess.run(
            ["ps", "-o", "rss=", "--ppid", str(self.web.pid)], capture_output=True, text=True, check=False
        )
        return max((int(kb) for kb in said.stdout.split()), default=0) / 1024


@contextmanager
def server(**options: Any) -> Iterator[Server]:
    """A server that runs, and is gone afterwards."""
    with TemporaryDirectory() as folder:
        one = Server(Path(folder), **options)
        one.manage("migrate", "--verbosity", "0")
        if options.get("demo"):
            one.manage("demo", "--prepare-only")
        one.start_web()
        one.start_worker()
        one.start_proxy()
        try:
            one.wait()
            yield one
        finally:
            for process in (one.proxy, one.web, one.worker):
                if process is not None and process.poll() is None:
                    one.kill(process)


class Person:
    """Somebody with a browser: a session, the token, a key for each request that makes something."""

    def __init__(self, url: str, name: str = "") -> None:
        self.url, self.http = url, requests.Session()
        self.get("/session")
        if name:
            answer = self.post("/session/register", {"name": name, "password": PASSWORD})
            assert answer.status_code == 200, answer.text

    def send(
        self, method: str, path: str, data: Any = None, *, key: str = "", timeout: float = 70
    ) -> requests.Response:
        """A request under `/api`."""
        headers = {"X-CSRFToken": self.http.cookies.get("csrftoken") or ""}
        if method == "POST":
            headers["Idempotency-Key"] = key or uuid4().hex
        return self.http.request(method, f"{self.url}/api{path}", json=data, headers=headers, timeout=timeout)

    def get(self, path: str) -> requests.Response:
        """Read."""
        return self.send("GET", path)

    def post(self, path: str, data: Any = None, **how: Any) -> requests.Response:
        """Make."""
        return self.send("POST", path, data, **how)

    def closet(self, things: str = "9 shirts; 5 jumpers; 12 socks") -> dict[str, int]:
        """A household with a measured closet of things: the ids of both."""
        home = self.post("/households", {"name": "Attic"}).json()["id"]
        space = self.post(f"/households/{home}/spaces", {"name": "Closet"}).json()["id"]
        self.post(f"/spaces/{space}/call-out", {"line": LINE, "version": 1})
        self.post(f"/spaces/{space}/things", {"line": things})
        return {"household_id": home, "space_id": space}


def _free_port() -> int:
    with socket.socket() as asked:
        asked.bind(("127.0.0.1", 0))
        return int(asked.getsockname()[1])
