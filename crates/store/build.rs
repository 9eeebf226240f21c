//! The migrations are part of the binary.
fn main() {
    println!("cargo:rerun-if-changed=migrations");
}
