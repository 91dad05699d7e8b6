"""What is kept: shows, the value at each address, and the log of every change."""

import uuid

from django.conf import settings
from django.db import models
from django.db.models import Q
from django.utils import timezone

__all__ = [
    "Aside",
    "Change",
    "CueDesk",
    "CueTold",
    "CueWay",
    "EarCall",
    "EarLink",
    "Habits",
    "ListFile",
    "Overtaken",
    "PackedText",
    "Phone",
    "Point",
    "Setting",
    "Share",
    "Show",
    "Visit",
]


class _Kept(models.Manager["Show"]):
    """Shows that nobody removed."""

    def get_queryset(self) -> models.QuerySet["Show"]:
        return super().get_queryset().filter(removed_at=None)


class Show(models.Model):
    """One show on one desk profile. `revision` counts its changes; 0 is a blank show.

    `removed_at`: taken off the list, and brought back by one action; nothing of it is lost.
    `objects` are those that are not, `everything` all. `hands`: what hold something, and `fading`:
    what is on its way to where it stands (see `passing`), so that every process knows it, and a
    server that starts again goes on with it. `owner`: whose it is, who shares it with others.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    name = models.CharField(max_length=60)
    desk = models.CharField(max_length=60)
    owner = models.ForeignKey(
        settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="own_shows"
    )
    revision = models.PositiveBigIntegerField(default=0)
    made_at = models.DateTimeField(auto_now_add=True)
    removed_at = models.DateTimeField(null=True)
    hands = models.JSONField(default=list)
    fading = models.JSONField(default=list)

    objects = _Kept()
    everything = models.Manager["Show"]()

    class Meta:
        ordering = ["made_at", "name"]
        base_manager_name = "everything"

    def __str__(self) -> str:
        return self.name


class Share(models.Model):
    """That somebody else than its owner has a role in a show.

    `given`: what a volunteer rides, as [what, lowest, highest] each (see `keeping.people`); it
    follows when strips get other numbers.
    """

    class Role(models.TextChoices):
        ENGINEER = "engineer"
        ASSISTANT = "assistant"
        VOLUNTEER = "volunteer"
        ONLOOKER = "onlooker"

    show = models.ForeignKey(Show, on_delete=models.CASCADE, related_name="shares")
    person = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="shares"
    )
    role = models.CharField(max_length=9, choices=Role.choices)
    given = models.JSONField(default=list)
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["show", "made_at"]
        constraints = [
            models.UniqueConstraint(fields=["show", "person"], name="one_role_in_a_show")
        ]

    def __str__(self) -> str:
        return f"{self.person_id}: {self.role}"


class Visit(models.Model):
    """One sign-in of a person, for as long as its session lives: from where, by what, seen when."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    session = models.CharField(max_length=40, unique=True)
    person = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="visits"
    )
    address = models.CharField(max_length=45, blank=True, default="")
    agent = models.CharField(max_length=200, blank=True, default="")
    began_at = models.DateTimeField(auto_now_add=True)
    seen_at = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering = ["-seen_at"]

    def __str__(self) -> str:
        return f"{self.person_id} from {self.address}"


class Aside(models.Model):
    """What a show brought from other desks and does not fit its own, kept whole (`core.moving`).

    `revision`: of the show when it was written; strips that got other numbers since are found in
    the log.
    """

    show = models.OneToOneField(Show, on_delete=models.CASCADE, related_name="aside")
    revision = models.PositiveBigIntegerField()
    kept = models.JSONField(default=list)

    def __str__(self) -> str:
        return f"aside of {self.show_id}"


class PackedText(models.Model):
    """A text that values stand for by its digest (SHA-256): kept once, never changed."""

    digest = models.CharField(max_length=64, primary_key=True)
    text = models.TextField()

    def __str__(self) -> str:
        return self.digest


class Setting(models.Model):
    """The value at one address of a show, as on the wire (silence is null); what scenes hold by

    its digest (see `packing`).
    """

    show = models.ForeignKey(Show, on_delete=models.CASCADE, related_name="settings")
    address = models.CharField(max_length=120)
    value = models.JSONField(null=True)

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["show", "address"], name="one_value_at_an_address")
        ]

    def __str__(self) -> str:
        return f"{self.address} = {self.value!r}"


class Change(models.Model):
    """One entry of the log, never altered. `old` and `new`: the values by address.

    `edit_id` comes from whoever asked, so that a move sent twice counts once. `gesture`: entries
    of one movement of the hand share it. `turns`: the gesture that an undo or redo turned back.
    `renumbered`: new names of strips by their old ones, where they have other numbers since.
    """

    class Kind(models.TextChoices):
        EDIT = "edit"
        UNDO = "undo"
        REDO = "redo"

    show = models.ForeignKey(Show, on_delete=models.CASCADE, related_name="changes")
    revision = models.PositiveBigIntegerField()
    edit_id = models.UUIDField()
    author = models.ForeignKey(
        settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+"
    )
    kind = models.CharField(max_length=4, choices=Kind.choices, default=Kind.EDIT)
    gesture = models.CharField(max_length=60)
    turns = models.CharField(max_length=60, blank=True, default="")
    says = models.CharField(max_length=200)
    old = models.JSONField()
    new = models.JSONField()
    renumbered = models.JSONField(default=dict)
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["show", "revision"]
        # undo asks for what a person did last, and for all of one gesture
        indexes = [
            models.Index(fields=["show", "author", "-revision"], name="ones_own_changes"),
            models.Index(fields=["show", "author", "gesture"], name="a_persons_gesture"),
        ]
        constraints = [
            models.UniqueConstraint(fields=["show", "revision"], name="one_change_a_revision"),
            models.UniqueConstraint(fields=["show", "edit_id"], name="an_edit_counts_once"),
            models.CheckConstraint(
                condition=Q(kind="edit") | ~Q(turns=""), name="undo_and_redo_name_what_they_turn"
            ),
            models.CheckConstraint(condition=Q(revision__gt=0), name="revisions_start_at_one"),
        ]

    def __str__(self) -> str:
        return f"{self.revision}: {self.says}"


class Overtaken(models.Model):
    """An edit that counts by a later one: an earlier place of the same hand, which waited until the

    hand was elsewhere. `revision`: of the change that did for it.
    """

    show = models.ForeignKey(Show, on_delete=models.CASCADE, related_name="+")
    edit_id = models.UUIDField()
    revision = models.PositiveBigIntegerField()

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["show", "edit_id"], name="overtaken_counts_once")
        ]

    def __str__(self) -> str:
        return f"{self.edit_id} by {self.revision}"


class Point(models.Model):
    """A revision of a show that somebody kept under a name, to compare with and to go back to."""

    show = models.ForeignKey(Show, on_delete=models.CASCADE, related_name="points")
    revision = models.PositiveBigIntegerField()
    name = models.CharField(max_length=60)
    author = models.ForeignKey(
        settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+"
    )
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-revision", "-made_at"]
        constraints = [
            models.UniqueConstraint(fields=["show", "name"], name="a_points_name_is_its_own")
        ]

    def __str__(self) -> str:
        return self.name


class ListFile(models.Model):
    """A file that somebody is about to take lines from: looked at as often as they like, read once.

    It is kept for a day, and then only what was taken of it remains.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    show = models.ForeignKey(Show, on_delete=models.CASCADE, related_name="list_files")
    author = models.ForeignKey(
        settings.AUTH_USER_MODEL, null=True, on_delete=models.CASCADE, related_name="+"
    )
    name = models.CharField(max_length=200)
    content = models.BinaryField()
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        indexes = [models.Index(fields=["made_at"], name="list_files_by_age")]

    def __str__(self) -> str:
        return self.name


class Habits(models.Model):
    """How one person likes to be told things: theme, size of text, clock, keys; as on the wire."""

    person = models.OneToOneField(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, primary_key=True, related_name="+"
    )
    values = models.JSONField(default=dict)

    def __str__(self) -> str:
        return f"habits of {self.person}"


class EarLink(models.Model):
    """A personal link to some mixes of a show, for a performer's phone.

    `token_hash`: SHA-256 of the token, which nobody keeps; a link that was renewed has another.
    `mixes`: as addresses, which follow when strips get other numbers. `ends_at`: None for no end.
    `code_hash`: of a short code that does for the link until `code_ends_at`, by the server's key.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    show = models.ForeignKey(Show, on_delete=models.CASCADE, related_name="ear_links")
    who = models.CharField(max_length=60)
    mixes = models.JSONField(default=list)
    token_hash = models.CharField(max_length=64, unique=True)
    made_at = models.DateTimeField(auto_now_add=True)
    ends_at = models.DateTimeField(null=True)
    revoked_at = models.DateTimeField(null=True)
    code_hash = models.CharField(max_length=128, default="")
    code_ends_at = models.DateTimeField(null=True, db_index=True)

    class Meta:
        ordering = ["show", "made_at"]

    def __str__(self) -> str:
        return f"link of {self.who}"

    @property
    def is_over(self) -> bool:
        """Whether it was revoked, or its time has come."""
        over = self.ends_at is not None and self.ends_at <= timezone.now()
        return over or self.revoked_at is not None


class Phone(models.Model):
    """One device that opened a link: a hand of its own, with its own undo.

    `person`: whom the log names; nobody signs in by it. `cookie_hash`: SHA-256 of its cookie.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    link = models.ForeignKey(EarLink, on_delete=models.CASCADE, related_name="phones")
    person = models.OneToOneField(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+"
    )
    cookie_hash = models.CharField(max_length=64, unique=True)
    made_at = models.DateTimeField(auto_now_add=True)

    def __str__(self) -> str:
        return str(self.person)


class EarCall(models.Model):
    """A performer's call to the desk, until somebody there says that it was seen. No part of the

    show's undo.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    phone = models.ForeignKey(Phone, on_delete=models.CASCADE, related_name="calls")
    mix = models.CharField(max_length=60)
    text = models.CharField(max_length=80)
    made_at = models.DateTimeField(auto_now_add=True)
    seen_at = models.DateTimeField(null=True)
    seen_by = models.ForeignKey(
        settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+"
    )

    class Meta:
        constraints = [
            models.UniqueConstraint(
                fields=["phone"], condition=Q(seen_at=None), name="one_open_call_a_phone"
            )
        ]

    def __str__(self) -> str:
        return f"{self.phone_id}: {self.text}"


class CueDesk(models.Model):
    """Whether cues from outside do something in a show. `mode`: armed; or each is told with what it

    would do. `by`: who said so last; `once_ms`: within which the same counts once.
    """

    class Mode(models.TextChoices):
        REHEARSE = "rehearse"
        ARMED = "armed"

    show = models.OneToOneField(
        Show, on_delete=models.CASCADE, primary_key=True, related_name="cue_desk"
    )
    mode = models.CharField(max_length=8, choices=Mode.choices, default=Mode.REHEARSE)
    by = models.CharField(max_length=150, blank=True, default="")
    at = models.DateTimeField(null=True)
    once_ms = models.PositiveIntegerField(default=200)

    def __str__(self) -> str:
        return f"cues of {self.show_id}: {self.mode}"


class CueWay(models.Model):
    """A way by which cues come to a show: a port that listens while `on`.

    `senders`: addresses and networks that may send; none: this machine alone. `answers`: senders
    are told what became of it (OSC). `trouble`: why it does not listen, though it is on.
    """

    class Kind(models.TextChoices):
        OSC_UDP = "osc_udp"
        OSC_TCP = "osc_tcp"
        MIDI_TCP = "midi_tcp"

    show = models.ForeignKey(Show, on_delete=models.CASCADE, related_name="cue_ways")
    kind = models.CharField(max_length=8, choices=Kind.choices)
    on = models.BooleanField(default=False)
    host = models.CharField(max_length=45)
    port = models.PositiveIntegerField()
    senders = models.JSONField(default=list)
    answers = models.BooleanField(default=False)
    trouble = models.CharField(max_length=200, blank=True, default="")
    heard_by = models.CharField(max_length=40, blank=True, default="")
    heard_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["show", "kind"]
        constraints = [models.UniqueConstraint(fields=["show", "kind"], name="one_way_of_a_kind")]

    def __str__(self) -> str:
        return f"{self.kind} at {self.host}:{self.port}"


class CueTold(models.Model):
    """A message from outside, and what became of it; the newest of a show are kept.

    `what`: "done", "rehearsed", "refused", "unknown", or "dropped" before it was read, of which
    `times` came within a second; `edit_id`: of the change that it made, whose `revision` stands
    beside it; `ms`: from its arrival until it was done.
    """

    show = models.ForeignKey(Show, on_delete=models.CASCADE, related_name="cues_told")
    at = models.DateTimeField()
    way = models.CharField(max_length=8)
    sender = models.CharField(max_length=60)
    came = models.CharField(max_length=200)
    what = models.CharField(max_length=9)
    says = models.CharField(max_length=300)
    note = models.BooleanField(default=False)
    edit_id = models.UUIDField(null=True)
    revision = models.PositiveBigIntegerField(null=True)
    ms = models.FloatField(default=0.0)
    times = models.PositiveIntegerField(default=1)

    class Meta:
        ordering = ["-pk"]
        indexes = [models.Index(fields=["show", "-id"], name="cues_told_newest")]

    def __str__(self) -> str:
        return f"{self.came}: {self.says}"
