//! Colours of cups, mixes for a colour, and values of a reference picture. Nothing of it is stored.

use super::wire::{ColourAsk, ColourOut, MatchAsk, MatchOut, ValueOut, ValuesAsk};
use crate::compute::Lane;
use crate::extract::{Body, Key};
use crate::photograph::points;
use crate::problem::Problem;
use crate::routes::view::{Of, answer, asked};
use crate::state::App;
use axum::extract::State;
use axum::response::Response;
use ulvek_core::colour::values_of;
use ulvek_store::Rendition;

/// What a coat of a cup looks like, dry: over white, over black, on the picture, and over values of an
/// underpainting, coat by coat.
#[utoipa::path(post, operation_id = "cup_colour", path = "/api/pictures/{id}/colour", tag = "computed",
    params(("id" = Uuid, Path)), request_body = ColourAsk, responses((status = 200, body = ColourOut)))]
pub async fn cup_colour(
    State(app): State<App>,
    Key(id): Key,
    Body(ask): Body<ColourAsk>,
) -> Result<Response, Problem> {
    let question = asked(&format!("colour {id}"), &ask)?;
    answer(&app, (Of::Picture(id), Lane::Quick), question, move |scene| {
        let p = scene.loaded.place_of(id)?;
        Ok(ColourOut::of(scene.loaded.studio.cup_colours(p, &ask.read())?))
    })
    .await
}

/// The mixes of the shelf that come nearest to a colour, to another material, or to no cast.
#[utoipa::path(post, operation_id = "match_colour", path = "/api/pictures/{id}/colour/match", tag = "computed",
    params(("id" = Uuid, Path)), request_body = MatchAsk, responses((status = 200, body = MatchOut)))]
pub async fn match_colour(
    State(app): State<App>,
    Key(id): Key,
    Body(ask): Body<MatchAsk>,
) -> Result<Response, Problem> {
    let question = asked(&format!("match {id}"), &ask)?;
    let Some(look) = ask.read() else {
        let why = "say one thing to look for: a colour, a material, or no cast";
        return Err(Problem::refused("colour", why));
    };
    answer(&app, (Of::Picture(id), Lane::Quick), question, move |scene| {
        let p = scene.loaded.place_of(id)?;
        Ok(MatchOut::of(&scene.loaded.studio.find_mix(p, &look)?))
    })
    .await
}

/// Mixes from a dark to a light one: evenly spaced in lightness, or with the values of a photograph, each
/// with its share of the area and so how much of it to mix.
#[utoipa::path(post, operation_id = "value_string", path = "/api/pictures/{id}/colour/values", tag = "computed",
    params(("id" = Uuid, Path)), request_body = ValuesAsk, responses((status = 200, body = [ValueOut])))]
pub async fn values(
    State(app): State<App>,
    Key(id): Key,
    Body(ask): Body<ValuesAsk>,
) -> Result<Response, Problem> {
    let question = asked(&format!("values {id}"), &ask)?;
    let small = match ask.photograph {
        Some(photograph) => {
            let mut conn = app.pool.acquire().await?;
            let small = Rendition::Small;
            Some(ulvek_store::load_rendition(&mut conn, photograph, small).await?)
        }
        None => None,
    };
    answer(&app, (Of::Picture(id), Lane::Quick), question, move |scene| {
        let p = scene.loaded.place_of(id)?;
        let read =
            |small: Vec<u8>| points(&small).map(|points| values_of(points.into_iter(), ask.count));
        let patches = small.map(read).transpose();
        let patches = patches.map_err(|e| Problem::refused("photograph", e.to_string()))?;
        let string = scene.loaded.studio.value_string(p, &ask.read(patches))?;
        Ok(string.iter().map(ValueOut::of).collect::<Vec<_>>())
    })
    .await
}
