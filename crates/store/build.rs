//! A migration that is added is built in.
//!
//! The dependencies of this script are those that SQLx's macros have on the machine that builds. Asked for with the same
//! features as in the program itself, each of them is built once instead of twice.

fn main() {
    println!("cargo::rerun-if-changed=migrations");
}
