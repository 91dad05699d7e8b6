"""How an installation is run: settings, their check, log lines, health, figures, backups.

It knows nothing of shows: what it says and keeps is of the whole database and the whole process.
"""
