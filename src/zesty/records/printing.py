"""The sheet as PDF."""

from functools import cache
from pathlib import Path

from weasyprint import CSS, HTML
from weasyprint.text.fonts import FontConfiguration
from weasyprint.urls import URLFetcher

_STYLE = Path(__file__).resolve().parents[1] / "static" / "print" / "sheet.css"


def pdf(html: str) -> bytes:
    """A sheet's HTML as a PDF. The sheet itself may fetch nothing at all."""
    fonts, style = _style()
    nothing = URLFetcher(allowed_protocols=())
    return HTML(string=html, url_fetcher=nothing).write_pdf(stylesheets=[style], font_config=fonts)


@cache
def _style() -> tuple[FontConfiguration, CSS]:
    """Our own style sheet; the fonts that it names lie on this disk."""
    fonts = FontConfiguration()
    own_files = URLFetcher(allowed_protocols=("file",))
    return fonts, CSS(filename=str(_STYLE), font_config=fonts, url_fetcher=own_files)
