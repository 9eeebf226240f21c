//! Colours of cups, mixes for a colour, and values of a reference picture. Nothing of it is stored.

use super::wire::{
    ColourAsk, ColourOut, MatchAsk, MatchOut, Place, Places, SpotOut, SwatchOut, ValueOut,
    ValuesAsk,
};
use crate::compute::Lane;
use crate::extract::{Asked, Body, Raw};
use crate::photograph::{develop, points, spots};
use crate::problem::Problem;
use crate::resolved::{InPhotograph, InPicture};
use crate::routes::view::{answer, asked};
use crate::state::App;
use axum::Json;
use axum::extract::State;
use axum::response::Response;
use ulvek_core::colour::{read_swatch, values_of};
use ulvek_store::{Rendition, Wanted};

/// What a coat of a cup looks like, dry: over white, over black, on the picture, and over values of an
/// underpainting, coat by coat.
#[utoipa::path(post, operation_id = "cup_colour", path = "/api/pictures/{id}/colour", tag = "computed",
    params(("id" = Uuid, Path)), request_body = ColourAsk, responses((status = 200, body = ColourOut)))]
pub async fn cup_colour(
    State(mut app): State<App>,
    InPicture { id, studio }: InPicture,
    Body(ask): Body<ColourAsk>,
) -> Result<Response, Problem> {
    let question = asked(&format!("colour {id}"), &ask)?;
    answer(&mut app, (studio, Lane::Quick), question, move |scene| {
        let p = scene.loaded.place_of(id)?;
        Ok(ColourOut::of(scene.loaded.studio.cup_colours(p, &ask.read())?))
    })
    .await
}

/// The mixes of the shelf that come nearest to a colour, to another material, or to no cast.
#[utoipa::path(post, operation_id = "match_colour", path = "/api/pictures/{id}/colour/match", tag = "computed",
    params(("id" = Uuid, Path)), request_body = MatchAsk, responses((status = 200, body = MatchOut)))]
pub async fn match_colour(
    State(mut app): State<App>,
    InPicture { id, studio }: InPicture,
    Body(ask): Body<MatchAsk>,
) -> Result<Response, Problem> {
    let question = asked(&format!("match {id}"), &ask)?;
    let Some(look) = ask.read() else {
        let why = "say one thing to look for: a colour, a material, or no cast";
        return Err(Problem::refused("colour", why));
    };
    answer(&mut app, (studio, Lane::Quick), question, move |scene| {
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
    State(mut app): State<App>,
    InPicture { id, studio }: InPicture,
    Body(ask): Body<ValuesAsk>,
) -> Result<Response, Problem> {
    let question = asked(&format!("values {id}"), &ask)?;
    let small = match ask.photograph {
        Some(photograph) => {
            let mut conn = app.reading().await?;
            let there = Wanted::There;
            let of = ulvek_store::find_photograph(&mut conn, photograph, there).await;
            if !of.is_ok_and(|of| of.studio == studio) {
                let why = "the studio has no such photograph";
                return Err(Problem::refused("photograph", why));
            }
            let small = Rendition::Small;
            let small = ulvek_store::load_rendition(&mut conn, photograph, small).await?;
            conn.commit().await?;
            Some(small)
        }
        None => None,
    };
    answer(&mut app, (studio, Lane::Quick), question, move |scene| {
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

/// The colour of one place of a photograph that is kept.
#[utoipa::path(get, operation_id = "photograph_colour", path = "/api/photographs/{id}/colour", tag = "computed",
    params(("id" = Uuid, Path), ("at" = String, Query, description = "share of the width and of the height, `0.31,0.5`")),
    responses((status = 200, body = SpotOut)))]
pub async fn place(
    State(mut app): State<App>,
    InPhotograph { id, .. }: InPhotograph,
    Asked(asked): Asked<Place>,
) -> Result<Json<SpotOut>, Problem> {
    let at = asked.read()?;
    let mut conn = app.reading().await?;
    let small = ulvek_store::load_rendition(&mut conn, id, Rendition::Small).await?;
    conn.commit().await?;
    let [spot] = app
        .aside(move || spots(&small, [at]))
        .await?
        .map_err(|e| Problem::refused("", e.to_string()))?;
    let spot = spot.ok_or_else(|| Problem::refused("at", "nothing of the photograph is there"))?;
    Ok(Json(SpotOut::of(&spot)))
}

/// A paint read from a photograph of its swatch over a card: the bytes of a JPEG, PNG or WebP file, and
/// four or five places on it, each a share of its width and of its height. The bare halves set exposure and white
/// balance. Nothing of it is kept.
#[utoipa::path(post, operation_id = "swatch_read", path = "/api/swatches/read", tag = "computed",
    params(("white" = String, Query, description = "the bare white half, `0.31,0.5`"),
           ("black" = String, Query, description = "the bare black half"),
           ("over_white" = String, Query, description = "the paint over the white half"),
           ("over_black" = String, Query, description = "the paint over the black half"),
           ("tint" = Option<String>, Query, description = "the paint in white, where it hides")),
    request_body(content = String, content_type = "application/octet-stream"),
    responses((status = 200, body = SwatchOut)))]
pub async fn swatch(
    State(mut app): State<App>,
    Asked(places): Asked<Places>,
    Raw(bytes): Raw,
) -> Result<Json<SwatchOut>, Problem> {
    let (at, tint) = places.read()?;
    let turn = app.darkroom.place(bytes.len()).await?;
    let found = app
        .aside(move || {
            let found = develop(&bytes).and_then(|kept| {
                // Without a tint its place is read as another is, and left.
                let [a, b, c, d] = at;
                spots(&kept.whole, [a, b, c, d, tint.unwrap_or(a)])
            });
            drop(turn);
            found
        })
        .await?
        .map_err(|e| Problem::refused("", e.to_string()))?;
    let [Some(white), Some(black), Some(over_white), Some(over_black), Some(tinted)] = &found
    else {
        return Err(Problem::refused("", "a place lies beside the photograph"));
    };
    let tinted = tint.map(|_| tinted);
    Ok(Json(SwatchOut::of(&read_swatch([white, black], [over_white, over_black], tinted)?)))
}
