"""The sheet as PDF."""

from functools import cache
from importlib import import_module
from pathlib import Path
from typing import Any

_STYLE = Path(__file__).resolve().parents[1] / "static" / "print" / "sheet.css"


def pdf(html: str) -> bytes:
    """A sheet's HTML as a PDF. The sheet itself may fetch nothing at all."""
    printer, fonts, style = _printer()
    nothing = printer.urls.URLFetcher(allowed_protocols=())
    page = printer.HTML(string=html, url_fetcher=nothing)
    content: bytes = page.write_pdf(stylesheets=[style], font_config=fonts)
    return content


@cache
def _printer() -> tuple[Any, Any, Any]:
    """The printer with our own style sheet; the fonts that it names lie on this disk.

    Loaded with the first sheet: it takes most of a second, and most processes print none.
    """
    printer, text = import_module("weasyprint"), import_module("weasyprint.text.fonts")
    fonts = text.FontConfiguration()
    own_files = printer.urls.URLFetcher(allowed_protocols=("file",))
    return (
        printer,
        fonts,
        printer.CSS(filename=str(_STYLE), font_config=fonts, url_fetcher=own_files),
    )
