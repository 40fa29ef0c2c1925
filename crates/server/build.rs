//! The front end is embedded from `web/dist`; a checkout that has not built it yet still compiles, and says so in the
//! browser.

fn main() {
    let dist = std::path::Path::new("../../web/dist");
    if std::fs::create_dir_all(dist).is_err() {
        println!("cargo::warning=web/dist could not be made; the front end will be missing");
    }
    println!("cargo::rerun-if-changed=../../web/dist");
    println!("cargo::rerun-if-changed=../../demo");
}
