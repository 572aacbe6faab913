//! The real interface in a real browser, screen by screen. One program, so that two tests always run side by side.

mod anew;
mod colour;
mod day;
mod drills;
mod events;
mod everyone;
mod falling;
mod field;
mod frames;
mod glass;
mod keeping;
mod kit;
mod lights;
mod making;
mod offline;
mod past;
mod phone;
mod phones;
mod place;
mod proof;
mod rail;
mod set;
mod steps;
mod trust;
