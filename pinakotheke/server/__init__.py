"""The server: rows, the HTTP API, jobs, import and export. No job rule lives here."""
