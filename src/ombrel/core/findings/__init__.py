"""What is wrong with a show, each with a way out; and what is done of the first steps."""

from .alike import alike
from .first_steps import FirstStep, StepKey, first_steps
from .found import bears_on_findings, findings
from .scenes import faults_of_cues

__all__ = [
    "FirstStep",
    "StepKey",
    "alike",
    "bears_on_findings",
    "faults_of_cues",
    "findings",
    "first_steps",
]
