//! Who may come in: names under which the application answers, and pages that may change something.
//! There are no accounts yet, so a page of another site, or a foreign name that is made to resolve
//! to this machine, could otherwise read and edit the studio of whoever looks at it.

use crate::problem::Problem;
use axum::extract::{Request, State};
use axum::http::{HeaderMap, HeaderName, header, uri::Authority};
use axum::middleware::Next;
use axum::response::{IntoResponse, Response};
use std::net::IpAddr;
use std::str::FromStr;
use std::sync::Arc;

/// What a browser says about where a request comes from.
const SEC_FETCH_SITE: HeaderName = HeaderName::from_static("sec-fetch-site");

/// An address under which a proxy shows the application: `https://studio.example`.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct PublicUrl {
    origin: String,
    host: String,
}

impl FromStr for PublicUrl {
    type Err = String;

    fn from_str(text: &str) -> Result<Self, String> {
        let wrong = || format!("\"{text}\" is no address; write it as in https://studio.example");
        let origin = text.trim_end_matches('/').to_ascii_lowercase();
        let (scheme, rest) = origin.split_once("://").ok_or_else(wrong)?;
        let authority: Authority = rest.parse().map_err(|_| wrong())?;
        if !matches!(scheme, "http" | "https") || authority.as_str().contains('@') {
            return Err(wrong());
        }
        let host = authority.host().to_owned();
        Ok(Self { origin, host })
    }
}

/// The names under which the application answers.
#[derive(Debug, Clone, Default)]
pub struct Doors {
    public: Vec<PublicUrl>,
}

impl Doors {
    /// This machine by number or as `localhost`, and the addresses that proxies show.
    pub fn new(public: Vec<PublicUrl>) -> Self {
        Self { public }
    }

    /// Whether a proxy shows the application.
    pub const fn has_proxy(&self) -> bool {
        !self.public.is_empty()
    }

    /// A name that resolves here later is the danger; numbers and `localhost` never do.
    fn answers_to(&self, authority: &str) -> bool {
        let Ok(authority) = authority.parse::<Authority>() else { return false };
        let host = authority.host().to_ascii_lowercase();
        let number = host.trim_start_matches('[').trim_end_matches(']');
        number.parse::<IpAddr>().is_ok()
            || host == "localhost"
            || self.public.iter().any(|p| p.host == host)
    }

    fn is_own(&self, origin: &str, host: &str) -> bool {
        let origin = origin.to_ascii_lowercase();
        let same = origin.split_once("://").is_some_and(|(_, a)| a.eq_ignore_ascii_case(host));
        same || self.public.iter().any(|p| p.origin == origin)
    }

    /// Why a request is turned away, when it is.
    fn against(&self, request: &Request) -> Option<Problem> {
        let headers = request.headers();
        let host = text(headers, &header::HOST);
        let named = request.uri().authority().map(Authority::as_str);
        let Some(name) = named.or(host) else { return Some(Problem::no_host()) };
        if !self.answers_to(name) || !host.is_none_or(|host| self.answers_to(host)) {
            return Some(Problem::misdirected());
        }
        if request.method().is_safe() {
            return None;
        }
        let elsewhere = headers.contains_key(&SEC_FETCH_SITE)
            && !matches!(text(headers, &SEC_FETCH_SITE), Some("same-origin" | "none"));
        let foreign = headers.contains_key(header::ORIGIN)
            && !text(headers, &header::ORIGIN).is_some_and(|o| self.is_own(o, name));
        (elsewhere || foreign).then(Problem::foreign)
    }
}

fn text<'a>(headers: &'a HeaderMap, name: &HeaderName) -> Option<&'a str> {
    headers.get(name).and_then(|value| value.to_str().ok())
}

/// Turns away what comes by a foreign name or from a foreign page.
pub async fn guard(State(doors): State<Arc<Doors>>, request: Request, next: Next) -> Response {
    match doors.against(&request) {
        Some(problem) => problem.into_response(),
        None => next.run(request).await,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn only_numbers_localhost_and_named_addresses_are_answered_to() {
        let doors = Doors::new(vec!["https://Studio.example/".parse().unwrap()]);
        for good in ["127.0.0.1:4880", "[::1]:4880", "localhost", "LOCALHOST:1", "studio.example"] {
            assert!(doors.answers_to(good), "{good}");
        }
        for bad in ["evil.example", "localhost.evil.example", "127.0.0.1.evil.example", "", "a b"] {
            assert!(!doors.answers_to(bad), "{bad}");
        }
        assert!(doors.is_own("https://studio.example", "127.0.0.1:4880"), "behind a proxy");
        assert!(!doors.is_own("http://studio.example", "127.0.0.1:4880"), "another scheme");
        for bad in ["studio.example", "ftp://studio.example", "https://", "https://a@b"] {
            assert!(bad.parse::<PublicUrl>().is_err(), "{bad}");
        }
    }
}
