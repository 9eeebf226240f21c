//! Where on a picture something lies.

/// A place of a picture: [`REST`], or that of a section (one more than the first step that names it).
pub type PlaceId = usize;

/// What is in no section that is named.
pub const REST: PlaceId = 0;

/// Whether two coats at these places meet: one lies all over, or both lie on the same section.
pub const fn meet(a: PlaceId, b: PlaceId) -> bool {
    a == REST || b == REST || a == b
}
