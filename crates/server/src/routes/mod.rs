//! The routes. A handler extracts, calls and maps; the OpenAPI document is made from them.

pub(crate) mod air;
pub(crate) mod application;
pub(crate) mod colour;
pub(crate) mod cup;
pub(crate) mod instrument;
pub(crate) mod log;
pub(crate) mod outlook;
pub(crate) mod photograph;
pub(crate) mod picture;
pub(crate) mod seal;
pub(crate) mod season;
mod shared;
pub(crate) mod shelf;
pub(crate) mod studio;
mod view;

use air::handlers as air_of;
use application::handlers as application_of;
use colour::handlers as colour_of;
use cup::handlers as cup_of;
use instrument::handlers as instruments;
use log::{daybook, handlers as log_of};
use outlook::handlers as outlook_of;
use photograph::handlers as photographs;
use picture::handlers as pictures;
use seal::handlers as seal_of;
use season::handlers as season_of;
use season::search;
use shelf::handlers as shelf_of;
use studio::handlers as studios;

use crate::again::once_more;
use crate::bodies::{QUESTION_BYTES, Question};
use crate::formats::MAX_BYTES;
use crate::problem::Problem;
use crate::state::App;
use axum::Extension;
use axum::extract::DefaultBodyLimit;
use axum::middleware::from_fn;
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
    let questions =
        questions().layer(DefaultBodyLimit::max(QUESTION_BYTES)).layer(Extension(Question));
    let deeds = deeds().layer(DefaultBodyLimit::max(MAX_BYTES)).layer(from_fn(once_more));
    OpenApiRouter::with_openapi(Head::openapi()).merge(questions).merge(deeds)
}

/// What is computed from what is sent with it; nothing is kept.
fn questions() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(season_of::what_if))
        .routes(routes!(season_of::odds))
        .routes(routes!(season_of::ways_to))
        .routes(routes!(cup_of::cup))
        .routes(routes!(cup_of::cup_series))
        .routes(routes!(colour_of::cup_colour))
        .routes(routes!(colour_of::match_colour))
        .routes(routes!(colour_of::values))
        .routes(routes!(pictures::without_step))
        .routes(routes!(pictures::repeat_step))
        .routes(routes!(log_of::laid_preview))
        .routes(routes!(seal_of::varnish_preview))
}

/// What is kept, and what is read of it.
fn deeds() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(application_of::health))
        .routes(routes!(application_of::catalogue))
        .routes(routes!(studios::list, studios::create))
        .routes(routes!(studios::create_demo))
        .routes(routes!(studios::import))
        .routes(routes!(studios::read, studios::save, studios::delete))
        .routes(routes!(studios::restore))
        .routes(routes!(studios::undo))
        .routes(routes!(studios::redo))
        .routes(routes!(studios::export))
        .routes(routes!(outlook_of::outlook))
        .routes(routes!(outlook_of::plan_calendar))
        .routes(routes!(outlook_of::strata))
        .routes(routes!(outlook_of::spread))
        .routes(routes!(season_of::picture_cause))
        .routes(routes!(season_of::season))
        .routes(routes!(outlook_of::week))
        .routes(routes!(season_of::accept))
        .routes(routes!(season_of::undo))
        .routes(routes!(search::read, search::begin, search::stop))
        .routes(routes!(search::events))
        .routes(routes!(colour_of::place))
        .routes(routes!(colour_of::swatch))
        .routes(routes!(cup_of::scale_read, cup_of::scale_load))
        .routes(routes!(cup_of::scale_tare))
        .routes(routes!(shelf_of::read, shelf_of::save))
        .routes(routes!(shelf_of::ways))
        .routes(routes!(shelf_of::undo))
        .routes(routes!(shelf_of::redo))
        .routes(routes!(pictures::create))
        .routes(routes!(pictures::usual_steps))
        .routes(routes!(pictures::read, pictures::save, pictures::delete))
        .routes(routes!(pictures::away))
        .routes(routes!(pictures::restore))
        .routes(routes!(pictures::undo))
        .routes(routes!(pictures::redo))
        .routes(routes!(log_of::laid))
        .routes(routes!(log_of::happened))
        .routes(routes!(log_of::retold))
        .routes(routes!(log_of::search))
        .routes(routes!(daybook::daybook_of, daybook::enter))
        .routes(routes!(daybook::retold))
        .routes(routes!(log_of::table, log_of::bring))
        .routes(routes!(log_of::touched))
        .routes(routes!(log_of::retouched))
        .routes(routes!(log_of::learned))
        .routes(routes!(log_of::read))
        .routes(routes!(air_of::read, air_of::save))
        .routes(routes!(air_of::past))
        .routes(routes!(air_of::typed))
        .routes(routes!(air_of::taken_back))
        .routes(routes!(instruments::live))
        .routes(routes!(instruments::list, instruments::add))
        .routes(routes!(instruments::remove, instruments::behave))
        .routes(routes!(instruments::send))
        .routes(routes!(air_of::undo))
        .routes(routes!(air_of::redo))
        .routes(routes!(seal_of::gates))
        .routes(routes!(seal_of::gate_of))
        .routes(routes!(seal_of::varnish_save))
        .routes(routes!(seal_of::inspected))
        .routes(routes!(seal_of::trouble_found))
        .routes(routes!(photographs::add, photographs::list))
        .routes(routes!(photographs::whole))
        .routes(routes!(photographs::small))
        .routes(routes!(photographs::save))
        .routes(routes!(photographs::delete))
        .routes(routes!(photographs::restore))
        .routes(routes!(seal_of::record))
}
