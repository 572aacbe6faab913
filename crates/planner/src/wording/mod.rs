//! A plan put into words: sentences and labels in the person's units.

pub(crate) mod changes;
pub(crate) mod fixes;
pub(crate) mod options;
