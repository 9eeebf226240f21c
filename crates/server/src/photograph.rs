//! Photographs that a painter brings: checked by their content, turned upright, freed of everything
//! that is not picture, and kept in two sizes.
//!
//! Whatever comes in is decoded and written anew as JPEG, so that nothing of the original file is
//! left but pixels and their colour profile: no place, no camera, no second file behind the first.

use chrono::{DateTime, FixedOffset, NaiveDate, NaiveDateTime};
use image::codecs::jpeg::JpegEncoder;
use image::error::ImageError;
use image::{
    DynamicImage, ExtendedColorType, ImageDecoder, ImageEncoder, ImageFormat, ImageReader, Limits,
    RgbImage,
};
use std::io::Cursor;
use thiserror::Error;
use ulvek_core::colour::Spot;
use ulvek_core::mix::Swatch;

/// Longest side that is decoded [px]. [practice]
const LONGEST_SIDE: u32 = 16_000;
/// Most pixels that are decoded: 64 million, a large camera's. [practice]
const MOST_PIXELS: u64 = 64_000_000;
/// Memory a decoder may take [bytes]: the most pixels at 16 bits and four channels. [practice]
const MOST_MEMORY: u64 = MOST_PIXELS * 8;
/// Longest side that is kept [px]: a small picture at some 300 dots per inch. [practice]
const KEPT_SIDE: u32 = 4000;
/// Longest side of the small one [px]. [practice]
const SMALL_SIDE: u32 = 720;
/// JPEG qualities, of 100: the first that is small enough is taken. [practice] no loss that is seen
/// with the first
const QUALITIES: [u8; 4] = [90, 80, 65, 50];
/// The most that is kept of one photograph [bytes]: two thirds of what MariaDB takes in one packet.
const MOST_KEPT: usize = 10 * 1024 * 1024;
/// Largest colour profile that is kept [bytes]. [practice] those of cameras have a few kilobytes
const LARGEST_PROFILE: usize = 256 * 1024;
/// Where a profile says what colours it is of [bytes]. [source: ICC.1:2022, 7.2, table 17]
const PROFILE_OF: std::ops::Range<usize> = 16..20;

/// Why a file is not taken as a photograph.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
pub enum PhotographError {
    /// Nothing in it.
    #[error("the file is empty")]
    Empty,
    /// Not one of the three formats, whatever it is called.
    #[error("the file is not a JPEG, PNG or WebP picture, whatever its name says{0}")]
    NotAPicture(&'static str),
    /// Too many pixels.
    #[error(
        "the picture is {0} x {1} pixels; at most {LONGEST_SIDE} on a side and 64 million in all are read"
    )]
    TooLarge(u32, u32),
    /// It ends too early or is damaged.
    #[error("the picture ends too early or is damaged: nothing of it was kept")]
    Damaged,
}

/// When a camera says that it took a photograph.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Taken {
    /// By the camera's clock, which knows no time zone.
    Local(NaiveDateTime),
    /// With its offset.
    At(DateTime<FixedOffset>),
}

/// A photograph as it is kept.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Developed {
    /// Width and height [px].
    pub size: (u32, u32),
    /// The whole photograph, JPEG.
    pub whole: Vec<u8>,
    /// The same, small.
    pub small: Vec<u8>,
    /// When its camera says it was taken.
    pub taken: Option<Taken>,
}

/// Reads a file that is said to be a photograph.
///
/// # Errors
/// [`PhotographError`], before more memory is taken than a sound picture needs.
pub fn develop(bytes: &[u8]) -> Result<Developed, PhotographError> {
    if bytes.is_empty() {
        return Err(PhotographError::Empty);
    }
    let format = match image::guess_format(bytes) {
        Ok(f @ (ImageFormat::Jpeg | ImageFormat::Png | ImageFormat::WebP)) => f,
        _ => return Err(PhotographError::NotAPicture(looks_like(bytes))),
    };
    let mut reader = ImageReader::with_format(Cursor::new(bytes), format);
    // The sides are checked by themselves below, with their numbers in the answer.
    let mut limits = Limits::no_limits();
    limits.max_alloc = Some(MOST_MEMORY);
    reader.limits(limits);
    let mut decoder = reader.into_decoder().map_err(damaged)?;
    let (width, height) = decoder.dimensions();
    if width.max(height) > LONGEST_SIDE || u64::from(width) * u64::from(height) > MOST_PIXELS {
        return Err(PhotographError::TooLarge(width, height));
    }
    if format == ImageFormat::Jpeg && !ends(bytes) {
        return Err(PhotographError::Damaged);
    }
    let orientation = decoder.orientation().map_err(damaged)?;
    let exif = decoder.exif_metadata().ok().flatten();
    // It is kept in colour: the profile of a grey or a printed picture would spoil it.
    let profile = decoder
        .icc_profile()
        .ok()
        .flatten()
        .filter(|p| p.len() <= LARGEST_PROFILE && p.get(PROFILE_OF) == Some(b"RGB "));
    let mut picture = DynamicImage::from_decoder(decoder).map_err(damaged)?;
    picture.apply_orientation(orientation);
    if picture.width().max(picture.height()) > KEPT_SIDE {
        picture = picture.thumbnail(KEPT_SIDE, KEPT_SIDE);
    }
    let small = if picture.width().max(picture.height()) > SMALL_SIDE {
        picture.thumbnail(SMALL_SIDE, SMALL_SIDE)
    } else {
        picture.clone()
    };
    let (whole, size) = within(picture, profile.as_deref(), MOST_KEPT)?;
    let (small, _) = within(small, profile.as_deref(), MOST_KEPT)?;
    Ok(Developed { size, whole, small, taken: exif.and_then(taken) })
}

/// The points of a photograph that is kept, as colours of a screen.
///
/// # Errors
/// [`PhotographError`] when it cannot be read.
pub fn points(kept: &[u8]) -> Result<Vec<Swatch>, PhotographError> {
    let read = image::load_from_memory_with_format(kept, ImageFormat::Jpeg).map_err(damaged)?;
    Ok(read.into_rgb8().pixels().map(|p| Swatch(p.0)).collect())
}

/// Radius of a spot beside the longer side of a photograph [-]. [practice] a fingertip on a phone
const SPOT: f64 = 0.012;

/// Round spots of a photograph that is kept, each at a share of its width and of its height.
///
/// # Errors
/// [`PhotographError`] when it cannot be read.
pub fn spots<const N: usize>(
    kept: &[u8],
    at: [(f64, f64); N],
) -> Result<[Option<Spot>; N], PhotographError> {
    let read = image::load_from_memory_with_format(kept, ImageFormat::Jpeg).map_err(damaged)?;
    let read = read.into_rgb8();
    let (width, height) = (f64::from(read.width()), f64::from(read.height()));
    let radius = (width.max(height) * SPOT).max(1.0);
    Ok(at.map(|(x, y)| {
        let (x, y) = (x * width, y * height);
        let side = |from: f64, to: f64| (from.floor().max(0.0) as u32, from.max(to).ceil() as u32);
        let (left, right) = side(x - radius, (x + radius).min(width));
        let (top, bottom) = side(y - radius, (y + radius).min(height));
        let mut inside = Vec::new();
        for py in top..bottom.min(read.height()) {
            for px in left..right.min(read.width()) {
                let (dx, dy) = (f64::from(px) + 0.5 - x, f64::from(py) + 0.5 - y);
                if dx.hypot(dy) <= radius {
                    inside.push(Swatch(read.get_pixel(px, py).0));
                }
            }
        }
        Spot::of(&inside)
    }))
}

/// A JPEG and its size [px] that takes at most `most` bytes: coarser first, then smaller.
fn within(
    picture: DynamicImage,
    profile: Option<&[u8]>,
    most: usize,
) -> Result<(Vec<u8>, (u32, u32)), PhotographError> {
    let mut rgb = picture.into_rgb8();
    loop {
        for quality in QUALITIES {
            let bytes = jpeg(&rgb, quality, profile)?;
            if bytes.len() <= most || rgb.width().max(rgb.height()) <= 1 {
                return Ok((bytes, rgb.dimensions()));
            }
        }
        let half = (rgb.width().div_ceil(2), rgb.height().div_ceil(2));
        rgb = image::imageops::thumbnail(&rgb, half.0, half.1);
    }
}

fn damaged(error: ImageError) -> PhotographError {
    tracing::debug!(%error, "a photograph was refused");
    PhotographError::Damaged
}

/// What a file that is no picture looks like, where that helps.
fn looks_like(bytes: &[u8]) -> &'static str {
    let head = &bytes[..bytes.len().min(1024)];
    let text = String::from_utf8_lossy(head).to_lowercase();
    if text.contains("<svg") {
        ": it is an SVG drawing, which can carry programs"
    } else if head.starts_with(b"MZ") || head.starts_with(b"\x7fELF") || head.starts_with(b"#!") {
        ": it is a program"
    } else if head.starts_with(b"%PDF") {
        ": it is a PDF"
    } else if head.get(4..8) == Some(b"ftyp") {
        ": it is a HEIC or a film; save it as JPEG first"
    } else {
        ""
    }
}

/// Whether the scans of a JPEG come to their end: a decoder fills up what is cut off with grey.
fn ends(bytes: &[u8]) -> bool {
    // Segments up to the first scan are skipped by their length: a thumbnail in one of them has an
    // end of its own.
    let mut at = 2;
    while let Some([0xFF, marker, high, low]) = bytes.get(at..at + 4) {
        if *marker == 0xDA {
            return bytes[at..].windows(2).any(|pair| pair == [0xFF, 0xD9]);
        }
        at += 2 + usize::from(u16::from_be_bytes([*high, *low]));
    }
    false
}

fn jpeg(rgb: &RgbImage, quality: u8, profile: Option<&[u8]>) -> Result<Vec<u8>, PhotographError> {
    let mut out = Vec::new();
    let mut encoder = JpegEncoder::new_with_quality(&mut out, quality);
    if let Some(profile) = profile {
        // A profile that cannot be written is left out: the colours are sRGB's then.
        let _ = encoder.set_icc_profile(profile.to_vec());
    }
    encoder
        .write_image(rgb.as_raw(), rgb.width(), rgb.height(), ExtendedColorType::Rgb8)
        .map_err(damaged)?;
    Ok(out)
}

/// When EXIF data say that the photograph was taken.
fn taken(exif: Vec<u8>) -> Option<Taken> {
    let exif = exif::Reader::new().read_raw(exif).ok()?;
    let field = |tag| exif.get_field(tag, exif::In::PRIMARY);
    let exif::Value::Ascii(ref texts) = field(exif::Tag::DateTimeOriginal)?.value else {
        return None;
    };
    let mut at = exif::DateTime::from_ascii(texts.first()?).ok()?;
    if let Some(exif::Value::Ascii(offset)) = field(exif::Tag::OffsetTimeOriginal).map(|f| &f.value)
    {
        at.parse_offset(offset.first()?).ok()?;
    }
    let local = NaiveDate::from_ymd_opt(at.year.into(), at.month.into(), at.day.into())?
        .and_hms_opt(at.hour.into(), at.minute.into(), at.second.into())?;
    match at.offset {
        None => Some(Taken::Local(local)),
        Some(minutes) => {
            let zone = FixedOffset::east_opt(i32::from(minutes) * 60)?;
            local.and_local_timezone(zone).single().map(Taken::At)
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn only_a_profile_of_colours_stays_with_the_colours() {
        let kept = |of: &[u8; 4]| {
            let mut profile = vec![0; 132];
            profile[PROFILE_OF].copy_from_slice(of);
            let sent = jpeg(&RgbImage::new(8, 8), 90, Some(&profile)).unwrap();
            let whole = develop(&sent).unwrap().whole;
            let mut decoder = image::ImageReader::new(std::io::Cursor::new(whole))
                .with_guessed_format()
                .unwrap()
                .into_decoder()
                .unwrap();
            image::ImageDecoder::icc_profile(&mut decoder).unwrap().is_some()
        };
        assert!(kept(b"RGB "));
        assert!(!kept(b"GRAY") && !kept(b"CMYK"));
    }

    #[test]
    fn what_would_be_too_large_is_kept_coarser_and_then_smaller() {
        // Noise hardly packs: 128 x 96 pixels of it.
        let noise = RgbImage::from_fn(128, 96, |x, y| {
            let n = (x * 7919 + y * 104_729).wrapping_mul(2_654_435_761);
            image::Rgb([n as u8, (n >> 8) as u8, (n >> 16) as u8])
        });
        let of = |most| within(DynamicImage::ImageRgb8(noise.clone()), None, most).unwrap();
        let (fine, size) = of(usize::MAX);
        assert_eq!(size, (128, 96));
        let (coarse, size) = of(fine.len() - 1);
        assert!(coarse.len() < fine.len() && size == (128, 96));
        let (tiny, size) = of(fine.len() / 8);
        assert!(tiny.len() <= fine.len() / 8 && size.0 < 128, "{size:?}");
    }
}
