//! What people handle.

/// Above this one person does not lift alone, kg: HSE's guideline filter at best posture; local law decides.
pub const ONE_PERSON: f64 = 25.0;
