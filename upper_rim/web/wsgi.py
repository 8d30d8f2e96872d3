import os
import threading

from django.core.wsgi import get_wsgi_application

from ..collecting import collect_rarely

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "upper_rim.web.settings")
application = get_wsgi_application()

from . import wall  # noqa: E402 - models can be imported only now
from .sites.fitters import read_faces  # noqa: E402

collect_rarely()
threading.Thread(target=read_faces, daemon=True, name="faces").start()
threading.Thread(target=wall.begin, daemon=True, name="wall").start()
