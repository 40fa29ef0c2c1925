//! Numbers as people read them: always with a unit, never with more decimals than asked.

use super::{Dimension, LengthUnit, Quantity};

/// A number with at most `decimals` decimals, trailing zeros dropped, never "-0".
pub fn decimal(value: f64, decimals: usize) -> String {
    if let Some(text) = in_whole_numbers(value, decimals) {
        return text;
    }
    let mut text = format!("{value:.decimals$}");
    if text.contains('.') {
        text.truncate(text.trim_end_matches('0').trim_end_matches('.').len());
    }
    if text == "-0" { "0".into() } else { text }
}

/// What [`decimal`] comes to, worked out in whole numbers: exact, halves to the even digit as the standard library has them, and
/// several times as quick where a file says a hundred thousand places. Nothing where the numbers grow too long for it.
fn in_whole_numbers(value: f64, decimals: usize) -> Option<String> {
    const MOST_DECIMALS: usize = 12;
    if !value.is_finite() || decimals > MOST_DECIMALS {
        return None;
    }
    // The value is mantissa x 2^exponent, exactly.
    let bits = value.to_bits();
    let (stored, fraction) = ((bits >> 52) & 0x7ff, bits & ((1 << 52) - 1));
    let (mantissa, exponent) =
        if stored == 0 { (fraction, -1074) } else { (fraction | 1 << 52, i32::try_from(stored).ok()? - 1075) };
    let power = 10u64.pow(u32::try_from(decimals).ok()?);
    // At most 53 and 40 bits: there is room.
    let scaled = u128::from(mantissa) * u128::from(power);
    let rounded = match exponent {
        0.. => scaled.checked_mul(1u128.checked_shl(u32::try_from(exponent).ok()?)?)?,
        -126..0 => {
            let by = exponent.unsigned_abs();
            let (whole, rest, half) = (scaled >> by, scaled & ((1 << by) - 1), 1u128 << (by - 1));
            whole + u128::from(rest > half || (rest == half && whole % 2 == 1))
        }
        _ => 0,
    };
    let mut rest = u64::try_from(rounded).ok()?;
    // From the last digit to the first: a sign, 20 digits and a point at most.
    let mut text = [0u8; 24];
    let mut from = text.len();
    let mut put = |digit: u8| {
        from -= 1;
        text[from] = digit;
        from
    };
    let digit = |number: u64| b'0' + (number % 10) as u8;
    let mut begun = false;
    for _ in 0..decimals {
        if begun || !rest.is_multiple_of(10) {
            put(digit(rest));
            begun = true;
        }
        rest /= 10;
    }
    if begun {
        put(b'.');
    }
    let mut first = put(digit(rest));
    while rest >= 10 {
        rest /= 10;
        first = put(digit(rest));
    }
    if value < 0.0 && rounded > 0 {
        first = put(b'-');
    }
    Some(String::from_utf8_lossy(&text[first..]).into_owned())
}

/// A length in the unit with its sign: 3 decimals of a millimetre, 4 of an inch.
pub fn length_text(millimetres: f64, unit: LengthUnit) -> String {
    let decimals = if unit == LengthUnit::Mm { 3 } else { 4 };
    format!("{} {}", decimal(millimetres / unit.millimetres(), decimals), unit.sign())
}

/// An angle in degrees with its sign.
pub fn angle_text(radians: f64) -> String {
    format!("{} deg", decimal(radians.to_degrees(), 3))
}

/// Any quantity with its unit.
pub fn quantity_text(quantity: Quantity, unit: LengthUnit) -> String {
    let power = |size: i32| unit.millimetres().powi(size);
    match quantity.dimension {
        Dimension::LENGTH => length_text(quantity.value, unit),
        Dimension::ANGLE => angle_text(quantity.value),
        Dimension::NUMBER => decimal(quantity.value, 6),
        Dimension::AREA => format!("{} {}2", decimal(quantity.value / power(2), 4), unit.sign()),
        Dimension::VOLUME => format!("{} {}3", decimal(quantity.value / power(3), 4), unit.sign()),
        Dimension::MASS => format!("{} kg", decimal(quantity.value, 4)),
        _ => format!("{} (mixed units)", decimal(quantity.value, 4)),
    }
}

/// Inches to the nearest 1/`bottom`, as `2 1/2 in`; `bottom` is a power of two up to 64.
pub fn inches_fraction(millimetres: f64, bottom: u32) -> String {
    let (sign, whole, top, bottom) = split_inches(millimetres, bottom);
    format!("{sign}{} in", mixed(whole, top, bottom))
}

/// Feet and inches to the nearest 1/`bottom`, as `3 ft 4 1/2 in`.
pub fn feet_inches(millimetres: f64, bottom: u32) -> String {
    let (sign, whole, top, bottom) = split_inches(millimetres, bottom);
    let (feet, inches) = (whole / 12, whole % 12);
    match (feet, inches, top) {
        (0, ..) => format!("{sign}{} in", mixed(inches, top, bottom)),
        (_, 0, 0) => format!("{sign}{feet} ft"),
        _ => format!("{sign}{feet} ft {} in", mixed(inches, top, bottom)),
    }
}

fn split_inches(millimetres: f64, bottom: u32) -> (&'static str, u64, u64, u64) {
    let bottom = u64::from(bottom.clamp(1, 64).next_power_of_two());
    // In range: values are bounded to 1e9 mm where they are evaluated.
    let parts = (millimetres.abs() / 25.4 * bottom as f64).round() as u64;
    let (whole, mut top, mut low) = (parts / bottom, parts % bottom, bottom);
    while top > 0 && top.is_multiple_of(2) {
        top /= 2;
        low /= 2;
    }
    (if millimetres < 0.0 && parts > 0 { "-" } else { "" }, whole, top, low)
}

fn mixed(whole: u64, top: u64, bottom: u64) -> String {
    match (whole, top) {
        (_, 0) => whole.to_string(),
        (0, _) => format!("{top}/{bottom}"),
        _ => format!("{whole} {top}/{bottom}"),
    }
}
