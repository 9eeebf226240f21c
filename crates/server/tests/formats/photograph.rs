//! Photographs as painters and others bring them.

use exif::experimental::Writer;
use exif::{Field, In, Rational, Tag, Value};
use image::{DynamicImage, ImageFormat, Rgb, RgbImage};
use std::io::Cursor;
use ulvek_server::photograph::{PhotographError, Taken, develop};

/// 48 x 24 pixels: the left half red, the right half blue.
fn picture() -> DynamicImage {
    let colour = |x: u32| if x < 24 { Rgb([220, 20, 20]) } else { Rgb([20, 20, 220]) };
    DynamicImage::ImageRgb8(RgbImage::from_fn(48, 24, |x, _| colour(x)))
}

fn encoded(format: ImageFormat) -> Vec<u8> {
    let mut out = Cursor::new(Vec::new());
    picture().write_to(&mut out, format).unwrap();
    out.into_inner()
}

/// A JPEG turned by a camera, with the place and the time it was taken.
fn from_a_camera(orientation: u16) -> Vec<u8> {
    let field = |tag, value| Field { tag, ifd_num: In::PRIMARY, value };
    let degree = |n| Rational { num: n, denom: 1 };
    let fields = [
        field(Tag::Orientation, Value::Short(vec![orientation])),
        field(Tag::DateTimeOriginal, Value::Ascii(vec![b"2027:01:12 15:30:00".to_vec()])),
        field(Tag::GPSLatitudeRef, Value::Ascii(vec![b"N".to_vec()])),
        field(Tag::GPSLatitude, Value::Rational(vec![degree(59), degree(8), degree(7)])),
        field(Tag::ImageDescription, Value::Ascii(vec![b"SECRET HARBOUR".to_vec()])),
    ];
    let mut writer = Writer::new();
    fields.iter().for_each(|f| writer.push_field(f));
    let mut tiff = Cursor::new(Vec::new());
    writer.write(&mut tiff, false).unwrap();
    let mut app1 = b"Exif\0\0".to_vec();
    app1.extend(tiff.into_inner());
    let plain = encoded(ImageFormat::Jpeg);
    let length = u16::try_from(app1.len() + 2).unwrap().to_be_bytes();
    [&plain[..2], &[0xFF, 0xE1], &length, &app1, &plain[2..]].concat()
}

#[test]
fn each_format_is_taken_by_its_content_and_kept_as_jpeg() {
    for format in [ImageFormat::Jpeg, ImageFormat::Png, ImageFormat::WebP] {
        let kept = develop(&encoded(format)).unwrap();
        assert_eq!(kept.size, (48, 24), "{format:?}");
        assert_eq!(image::guess_format(&kept.whole).unwrap(), ImageFormat::Jpeg);
        assert_eq!(kept.taken, None);
    }
}

#[test]
fn it_is_turned_upright_and_place_and_words_are_gone() {
    // EXIF 2.32, 4.6.4 A: orientation 6 is turned by 90 degrees clockwise to be shown.
    let brought = from_a_camera(6);
    let find = |bytes: &[u8], text: &[u8]| bytes.windows(text.len()).any(|w| w == text);
    assert!(find(&brought, b"SECRET HARBOUR"), "it was in the file that came");
    let kept = develop(&brought).unwrap();
    assert_eq!(kept.size, (24, 48));
    let upright = image::load_from_memory(&kept.whole).unwrap().to_rgb8();
    let (top, bottom) = (upright.get_pixel(12, 4), upright.get_pixel(12, 44));
    assert!(top[0] > 180 && bottom[2] > 180, "red was left and is on top now: {top:?} {bottom:?}");
    for bytes in [&kept.whole, &kept.small] {
        assert!(!find(bytes, b"Exif") && !find(bytes, b"SECRET"));
    }
    let Some(Taken::Local(at)) = kept.taken else { panic!("{:?}", kept.taken) };
    assert_eq!(at.to_string(), "2027-01-12 15:30:00");
}

/// CRC-32 of PNG chunks (ISO 3309), bit by bit.
fn crc(bytes: &[u8]) -> u32 {
    !bytes.iter().fold(!0u32, |crc, byte| {
        (0..8)
            .fold(crc ^ u32::from(*byte), |c, _| (c >> 1) ^ (0xEDB8_8320 & (c & 1).wrapping_neg()))
    })
}

#[test]
fn a_picture_of_too_many_pixels_is_refused_before_it_is_unpacked() {
    let mut bomb = encoded(ImageFormat::Png);
    bomb[16..20].copy_from_slice(&20_000u32.to_be_bytes());
    bomb[20..24].copy_from_slice(&20_000u32.to_be_bytes());
    let sum = crc(&bomb[12..29]);
    bomb[29..33].copy_from_slice(&sum.to_be_bytes());
    assert_eq!(develop(&bomb), Err(PhotographError::TooLarge(20_000, 20_000)));
}

#[test]
fn what_is_cut_off_is_refused_whatever_its_format() {
    for format in [ImageFormat::Jpeg, ImageFormat::Png, ImageFormat::WebP] {
        let whole = encoded(format);
        for keep in [whole.len() / 2, whole.len() - 8] {
            let cut = develop(&whole[..keep]);
            assert_eq!(cut, Err(PhotographError::Damaged), "{format:?} to {keep} bytes");
        }
    }
    assert_eq!(develop(&[]), Err(PhotographError::Empty));
}

#[test]
fn what_is_no_picture_is_told_apart_by_its_content() {
    let said = |bytes: &[u8]| develop(bytes).unwrap_err().to_string();
    assert!(said(b"MZ\x90\0\x03 a program called photo.jpg").ends_with(": it is a program"));
    let svg = b"<?xml version=\"1.0\"?><svg xmlns=\"http://www.w3.org/2000/svg\"><script>x</script></svg>";
    assert!(said(svg).contains("SVG drawing"));
    assert!(said(b"GIF89a and more").starts_with("the file is not a JPEG, PNG or WebP picture"));
    // A web page behind the first bytes of a JPEG.
    assert_eq!(develop(b"\xFF\xD8\xFF<html>"), Err(PhotographError::Damaged));
}
