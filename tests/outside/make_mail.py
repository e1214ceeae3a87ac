"""Writes a mail as Python's own library does: HTML beside plain text, a picture within, and files that came with it."""
import sys
from email.message import EmailMessage
from email.utils import format_datetime
from datetime import datetime, timezone
from pathlib import Path

mail = EmailMessage()
mail["Subject"] = "Größe der Pfähle, 桟橋"
mail["From"] = "Maj Sund <maj@vennholm.example>"
mail["To"] = "ines@vennholm.example, Oke Lindvar <oke@vennholm.example>"
mail["Date"] = format_datetime(datetime(2026, 11, 26, 9, 30, tzinfo=timezone.utc))
mail.set_content("Die Liste liegt bei.\n", cte="quoted-printable")
mail.add_alternative("<p>Die <b>Liste</b> liegt bei.</p>", subtype="html")
for name in sys.argv[2:]:
    path = Path(name)
    mail.add_attachment(path.read_bytes(), maintype="application", subtype="octet-stream", filename=path.name)
forwarded = EmailMessage()
forwarded["Subject"] = "forwarded"
forwarded.set_content("within")
mail.add_attachment(forwarded)
Path(sys.argv[1]).write_bytes(bytes(mail))
