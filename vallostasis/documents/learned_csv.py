"""What the shop learned as CSV (RFC 4180), one row for each figure; nothing in it is run by a spreadsheet."""

import csv
import io

from vallostasis.core.shop_log.learned import ShopLearned
from vallostasis.documents.cells import safe

HEADER = ("what", "job", "of", "figure", "unit", "from")


def learned_csv(learned: ShopLearned) -> str:
    """Write it."""
    out = io.StringIO(newline="")
    writer = csv.writer(out)
    writer.writerow(HEADER)
    for one in learned.hours:
        for of, figure in (("low", one.low), ("worst", one.worst), ("worked", f"{one.worked_h:.2f}")):
            writer.writerow(("hours", safe(one.job), of, figure, "h", ""))
    for cause, days in learned.waited_d.items():
        writer.writerow(("waited", "", cause.value, f"{days:.2f}", "d", ""))
    first = learned.first_step
    writer.writerow(("first step cleaned up", "", "", first.cleaned, "bores", first.looked))
    for rate in learned.rates:
        figure = f"{rate.per_stroke_m * 1e6:.3f}"
        writer.writerow(
            ("stones", safe(rate.job), safe(f"{rate.grit} {rate.method}"), figure, "µm a stroke", rate.rounds)
        )
    for fit in learned.fits:
        for of, metres in (("aim", fit.aim_m), ("reached", fit.reached_m)):
            writer.writerow(("press", safe(fit.job), f"hole {fit.hole}, {of}", f"{metres * 1e6:.1f}", "µm", ""))
    return out.getvalue()
