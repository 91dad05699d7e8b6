"""What a machine is called, in a line."""

import os
from pathlib import Path

__all__ = ["machine"]


def machine():
    cpu = Path("/proc/cpuinfo").read_text()
    name = next((line.split(":")[1].strip() for line in cpu.splitlines() if "model name" in line),
                "unknown")  # fmt: skip
    return f"{name}, {os.cpu_count()} cores"
