//! The routes. A handler extracts, calls and maps; the OpenAPI document is made from them.

mod air;
mod catalogue;
mod computed;
mod cup;
mod health;
mod photographs;
mod pictures;
mod record;
mod scale;
mod seal;
pub(crate) mod seal_wire;
mod search;
mod season;
pub(crate) mod season_wire;
mod shelf;
mod studios;
mod view;
mod week;
mod wire;

use crate::problem::Problem;
use crate::state::App;
use utoipa::OpenApi;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// The head of the OpenAPI document; paths come from the handlers.
#[derive(OpenApi)]
#[openapi(
    info(
        title = "Ulvek",
        description = "When each coat is dry, what goes into the cup, when to work, when to varnish. \
                   Times are RFC 3339, lengths and temperatures in the unit of the name, shares \
                   fractions of 1. Every error is a problem document (RFC 9457). Every edit names \
                   the version it was made on; a stale one answers 409 with both versions."
    ),
    components(schemas(Problem))
)]
struct Head;

/// Every route of the API with its description.
pub fn api() -> OpenApiRouter<App> {
    OpenApiRouter::with_openapi(Head::openapi())
        .routes(routes!(health::health))
        .routes(routes!(catalogue::catalogue))
        .routes(routes!(studios::list, studios::create))
        .routes(routes!(studios::create_demo))
        .routes(routes!(studios::import))
        .routes(routes!(studios::read, studios::save, studios::delete))
        .routes(routes!(studios::restore))
        .routes(routes!(studios::undo))
        .routes(routes!(studios::redo))
        .routes(routes!(studios::export))
        .routes(routes!(computed::outlook))
        .routes(routes!(computed::plan_calendar))
        .routes(routes!(computed::strata))
        .routes(routes!(season::season))
        .routes(routes!(season::what_if))
        .routes(routes!(week::week))
        .routes(routes!(season::odds))
        .routes(routes!(season::ways_to))
        .routes(routes!(season::accept))
        .routes(routes!(season::undo))
        .routes(routes!(search::read, search::begin, search::stop))
        .routes(routes!(search::events))
        .routes(routes!(cup::cup))
        .routes(routes!(cup::cup_series))
        .routes(routes!(scale::read, scale::load))
        .routes(routes!(scale::tare))
        .routes(routes!(shelf::read, shelf::save))
        .routes(routes!(shelf::undo))
        .routes(routes!(shelf::redo))
        .routes(routes!(pictures::create))
        .routes(routes!(pictures::read, pictures::save, pictures::delete))
        .routes(routes!(pictures::restore))
        .routes(routes!(pictures::undo))
        .routes(routes!(pictures::redo))
        .routes(routes!(pictures::laid))
        .routes(routes!(air::read, air::save))
        .routes(routes!(seal::gates))
        .routes(routes!(seal::gate_of))
        .routes(routes!(seal::varnish_preview))
        .routes(routes!(seal::varnish_save))
        .routes(routes!(seal::inspected))
        .routes(routes!(seal::trouble_found))
        .routes(routes!(photographs::add, photographs::list))
        .routes(routes!(photographs::whole))
        .routes(routes!(photographs::small))
        .routes(routes!(photographs::save))
        .routes(routes!(photographs::delete))
        .routes(routes!(photographs::restore))
        .routes(routes!(record::record))
}
