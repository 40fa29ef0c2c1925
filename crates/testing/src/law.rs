//! How many cases a law is tried with, and from which number they come: the same ones with every run.

use proptest::prelude::ProptestConfig;

/// The usual number of cases, or `STEELK_CASES` for the long run. The seed is `PROPTEST_RNG_SEED`, set for the workspace.
pub fn cases(usual: u32) -> ProptestConfig {
    let cases = std::env::var("STEELK_CASES").ok().and_then(|text| text.parse().ok()).unwrap_or(usual);
    ProptestConfig {
        cases,
        failure_persistence: None,
        max_global_rejects: cases * 20 + 1024,
        ..ProptestConfig::default()
    }
}
