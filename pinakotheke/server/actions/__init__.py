"""One mutation, one action: who may, is it valid, one transaction, one log entry. The API and the commands use
these and nothing else to change a row.
"""
