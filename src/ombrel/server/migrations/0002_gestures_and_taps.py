"""An index for undo; and shows from before keep their sends tapped where they were."""

import re
from typing import Any

from django.conf import settings
from django.db import migrations, models

SEND = re.compile(r"(channel/\d+/send/mix/\d+)/(?:level|on|pan)")


def name_the_tap(apps: Any, schema_editor: Any) -> None:
    """A send that named no tap was tapped before the fader; the default is now behind the mute."""
    setting = apps.get_model("server", "Setting")
    for show in apps.get_model("server", "Show").objects.all():
        addresses = set(setting.objects.filter(show=show).values_list("address", flat=True))
        sends = {found[1] for found in map(SEND.fullmatch, addresses) if found}
        setting.objects.bulk_create(
            setting(show=show, address=f"{send}/tap", value="before_fader")
            for send in sorted(sends)
            if f"{send}/tap" not in addresses
        )


class Migration(migrations.Migration):
    dependencies = [
        ("server", "0001_first"),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]
    operations = [
        migrations.AddIndex(
            model_name="change",
            index=models.Index(fields=["show", "author", "gesture"], name="a_persons_gesture"),
        ),
        migrations.RunPython(name_the_tap, migrations.RunPython.noop),
    ]
