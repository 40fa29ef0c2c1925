//! The random documents of core's tests.

#[path = "../../../core/tests/common/bars.rs"]
pub mod bars;
#[path = "../../../core/tests/common/trials.rs"]
#[allow(dead_code)]
pub mod trials;
