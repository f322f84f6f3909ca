//! Builds again when the front end or a migration has changed.

fn main() {
    println!("cargo::rerun-if-changed=../../web/dist");
    println!("cargo::rerun-if-changed=migrations");
}
