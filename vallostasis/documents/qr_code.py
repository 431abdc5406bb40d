"""A text as a QR code in SVG, for a phone's camera."""

import io

import segno


def qr_svg(text: str) -> str:
    """Draw a text as one SVG element, black on white whatever the ground: cameras want it so."""
    out = io.BytesIO()
    code = segno.make_qr(text, error="m")
    code.save(out, kind="svg", xmldecl=False, svgns=True, omitsize=True, dark="#000", light="#fff", border=4)
    return out.getvalue().decode()
