"""The endpoints of each subject of the register, and those that belong to the shop or the job as a whole."""

from fastapi import APIRouter

from vallostasis.api import (
    backups,
    block_plans,
    bore_decisions,
    bores,
    boring,
    cabinet,
    calendar,
    causes,
    changes,
    clamping,
    conversions,
    counterbore,
    cut_runs,
    cutters,
    deck,
    documents,
    features,
    findings,
    fits,
    gauge_links,
    gauge_studies,
    heat,
    heat_runs,
    honing,
    hot_fits,
    hours,
    imports,
    jobs,
    labels,
    lands,
    mains,
    matching,
    money,
    notes,
    options,
    orders,
    pistons,
    practice,
    preparation,
    probes,
    pulls,
    route,
    scans,
    shelf,
    shop,
    shop_log,
    spec_cards,
    surveys,
    swaps,
    verification,
    walls,
)
from vallostasis.api.compute import block_plan as compute_block_plan
from vallostasis.api.compute import bores as compute_bores
from vallostasis.api.compute import boring as compute_boring
from vallostasis.api.compute import causes as compute_causes
from vallostasis.api.compute import conversions as compute_conversions
from vallostasis.api.compute import counterbore as compute_counterbore
from vallostasis.api.compute import fits as compute_fits
from vallostasis.api.compute import gauges as compute_gauges
from vallostasis.api.compute import heat as compute_heat
from vallostasis.api.compute import learned_cutter as compute_learned_cutter
from vallostasis.api.compute import matching as compute_matching
from vallostasis.api.compute import moist_air as compute_moist_air
from vallostasis.api.compute import notation as compute_notation
from vallostasis.api.compute import protrusion as compute_protrusion
from vallostasis.api.compute import swaps as compute_swaps
from vallostasis.api.compute import thermal as compute_thermal
from vallostasis.api.compute import uncertainty as compute_uncertainty
from vallostasis.api.compute import walls as compute_walls

# What a subject of the register answers over HTTP. One that only has features is read by the surveys, as all are.
OF_SUBJECT: dict[str, tuple[APIRouter, ...]] = {
    "protrusion": (compute_protrusion.router,),
    "counterbore": (
        counterbore.router,
        preparation.router,
        block_plans.router,
        cut_runs.router,
        cutters.router,
        shelf.router,
        compute_block_plan.router,
        compute_learned_cutter.router,
        compute_counterbore.router,
    ),
    "bores": (
        bores.router,
        walls.router,
        bore_decisions.router,
        scans.router,
        probes.router,
        compute_bores.router,
        compute_walls.router,
    ),
    "fits": (fits.router, hot_fits.router, pulls.router, compute_fits.router),
    "heat": (heat.router, heat.shop_router, heat_runs.router, compute_heat.router, compute_moist_air.router),
    "clamping": (clamping.router,),
    "pistons": (pistons.router,),
    "honing": (honing.router,),
    "boring": (boring.router, compute_boring.router),
    "mains": (mains.router,),
    "conversions": (conversions.router, compute_conversions.router),
    "deck": (deck.router,),
    "matching": (
        matching.router,
        swaps.router,
        options.router,
        options.shop_router,
        compute_matching.router,
        causes.router,
        causes.shop_router,
        compute_swaps.router,
        compute_causes.router,
        lands.router,
    ),
    "findings": (findings.router,),
    "route": (route.router,),
    "calendar": (calendar.router,),
    "hours": (hours.router,),
    "money": (money.router,),
    "orders": (orders.router,),
    "shop_log": (shop_log.router,),
}
OF_ALL: tuple[APIRouter, ...] = tuple(
    module.router
    for module in (changes, jobs, spec_cards, shop, gauge_links, compute_notation, compute_uncertainty,
                   compute_thermal, compute_gauges, documents, imports, labels, notes, surveys, features, cabinet,
                   gauge_studies, verification, backups, practice)
)  # fmt: skip
