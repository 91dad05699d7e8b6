"""What each route of the API and each message of a screen takes: one table, and nothing beside it.

A route that is not in the table is refused to everybody: who adds one says who may ask it.
"""

from typing import Final, Literal

from ombrel.core import Act

from ..messages import from_screen

__all__ = ["MESSAGES", "ROUTES", "Need"]

# "person": whoever is signed in, of themselves; "administrator": of accounts; else what a role in
# the show that the path names must reach (`core.may`)
Need = Literal["person", "administrator"] | Act

ROUTES: Final[dict[str, Need]] = {
    "GET me": "person",
    "PATCH me/habits": "person",
    "POST me/password": "person",
    "GET me/visits": "person",
    "DELETE me/visits": "person",
    "DELETE me/visits/{visit_id}": "person",
    "GET accounts": "administrator",
    "POST accounts": "administrator",
    "PATCH accounts/{account_id}": "administrator",
    "POST accounts/{account_id}/password": "administrator",
    "POST accounts/{account_id}/unlock": "administrator",
    "POST accounts/{account_id}/sign-out": "administrator",
    "POST accounts/{account_id}/hand-over": "administrator",
    "GET backups": "administrator",
    "POST backups": "administrator",
    "GET shows": "person",
    "POST shows": "person",
    "POST shows/file": "person",
    "GET shows/opening/{opening_id}": "person",
    "DELETE shows/opening/{opening_id}": "person",
    "GET samples": "person",
    "GET samples/{name}": "person",
    "PATCH shows/{show_id}": "engineer",
    "DELETE shows/{show_id}": "engineer",
    "POST shows/{show_id}/copy": "engineer",
    "POST shows/{show_id}/back": "engineer",
    "GET shows/{show_id}/desk": "look",
    "GET shows/{show_id}/file": "engineer",
    "POST shows/{show_id}/elsewhere/look": "engineer",
    "POST shows/{show_id}/elsewhere": "engineer",
    "GET shows/{show_id}/history": "look",
    "GET shows/{show_id}/compared": "look",
    "GET shows/{show_id}/last": "look",
    "GET shows/{show_id}/scenes/compared": "look",
    "GET shows/{show_id}/fittings/compared": "look",
    "POST shows/{show_id}/points": "engineer",
    "DELETE shows/{show_id}/points/{point_id}": "engineer",
    "GET shows/{show_id}/links": "engineer",
    "POST shows/{show_id}/links": "engineer",
    "POST shows/{show_id}/links/renew": "engineer",
    "POST shows/{show_id}/links/all": "engineer",
    "POST shows/{show_id}/links/codes": "engineer",
    "POST shows/{show_id}/links/end": "engineer",
    "POST shows/{show_id}/links/{link_id}/{turn}": "engineer",
    "POST shows/{show_id}/lists": "engineer",
    "POST shows/{show_id}/lists/{file_id}": "engineer",
    "POST shows/{show_id}/lists/{file_id}/take": "engineer",
    "GET shows/{show_id}/paper": "look",
    "GET shows/{show_id}/paper/{name}": "look",
    "POST shows/{show_id}/paper/{key}/pdf": "look",
    "GET shows/{show_id}/pdf/{job_id}": "look",
    "DELETE shows/{show_id}/pdf/{job_id}": "look",
    "GET shows/{show_id}/pdf/{job_id}/file": "look",
    "GET shows/{show_id}/people": "look",
    "POST shows/{show_id}/people": "own",
    "PATCH shows/{show_id}/people/{share_id}": "own",
    "DELETE shows/{show_id}/people/{share_id}": "own",
    "POST shows/{show_id}/people/{share_id}/given": "engineer",
    "DELETE shows/{show_id}/people/{share_id}/given": "engineer",
    "POST shows/{show_id}/owner": "own",
}

MESSAGES: Final[dict[type, Act]] = {
    from_screen.Hello: "look",
    from_screen.Watch: "look",
    from_screen.Ping: "look",
    from_screen.LetGo: "look",
    from_screen.Kept: "look",
    from_screen.Draw: "look",
    from_screen.Find: "look",
    from_screen.Try: "look",
    # what an edit changes is judged at the door, address by address
    from_screen.Do: "assist",
    from_screen.Turn: "assist",
    from_screen.SeenCall: "assist",
    from_screen.FeedLine: "assist",
    from_screen.SwapCables: "assist",
    from_screen.StraightCables: "assist",
    from_screen.Talk: "engineer",
    from_screen.RunRecorder: "engineer",
    from_screen.PlanTracks: "engineer",
    from_screen.ArmCues: "engineer",
    from_screen.SetCueWay: "engineer",
    from_screen.SetCueOnce: "engineer",
    from_screen.UndoCue: "engineer",
    from_screen.RunMachine: "engineer",
}
