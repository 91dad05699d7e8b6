"""The track plan: what is recorded on which track, found and proven; and the way back."""

from .none import NoPlan, WouldDo, no_plan
from .overview import recording
from .planning import PlanTold, TrackPlan, carried_name, given_moves, plan_tracks
from .playback import lay_playback, listen_channels, playback_told, switch_playback
from .recorded import carries_wish, takes, track_names
from .sheet import track_sheet
from .ways import has_recorder, hold_back, mix_holds, recorder_of, set_up, track_socket, way_of
from .wishes import Wish, add_wishes, move_wish, name_of_source, remove_wishes, wishes

__all__ = [
    "NoPlan",
    "PlanTold",
    "TrackPlan",
    "Wish",
    "WouldDo",
    "add_wishes",
    "carried_name",
    "carries_wish",
    "given_moves",
    "has_recorder",
    "hold_back",
    "lay_playback",
    "listen_channels",
    "mix_holds",
    "move_wish",
    "name_of_source",
    "no_plan",
    "plan_tracks",
    "playback_told",
    "recorder_of",
    "recording",
    "remove_wishes",
    "set_up",
    "switch_playback",
    "takes",
    "track_names",
    "track_sheet",
    "track_socket",
    "way_of",
    "wishes",
]
