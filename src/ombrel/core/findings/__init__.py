"""What is wrong with a show, each with a way out."""

from .found import bears_on_findings, findings

__all__ = ["bears_on_findings", "findings"]
