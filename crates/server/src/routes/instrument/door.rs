//! Who of the instruments may come in.

use crate::pace::hash;
use crate::problem::Problem;
use crate::state::App;
use axum::extract::FromRequestParts;
use axum::http::header;
use axum::http::request::Parts;
use ulvek_store::{Instrument, StoreError};
use uuid::Uuid;

/// The instrument that sends, known by its token.
pub struct Sender(pub Instrument);

impl FromRequestParts<App> for Sender {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, app: &App) -> Result<Self, Problem> {
        let said = parts.headers.get(header::AUTHORIZATION).and_then(|v| v.to_str().ok());
        let token = said.and_then(|said| said.split_once(' '));
        // The scheme is written in any case. [source: RFC 9110, 11.1]
        let token = token.filter(|(scheme, _)| scheme.eq_ignore_ascii_case("bearer"));
        let token = token.map(|(_, token)| token.trim()).filter(|token| !token.is_empty());
        let Some(token) = token else {
            return Err(Problem::no_token());
        };
        let mut app = app.clone();
        let mut conn = app.reading().await?;
        let found = ulvek_store::instrument_of_token(&mut conn, hash(token)).await;
        drop(conn);
        match found {
            Ok(instrument) => Ok(Self(instrument)),
            Err(StoreError::NotFound) => {
                app.pace.hold(Uuid::nil(), 1)?;
                Err(Problem::no_token())
            }
            Err(other) => Err(other.into()),
        }
    }
}
