//! What was done to a job, as a log says it.

/// What a kind of deed is called, by its code; nothing where there is no such kind.
pub fn deed_name(code: &str) -> Option<&'static str> {
    Some(match code {
        "made" => "Job made",
        "change" => "Change",
        "tick" => "Shot",
        "reading" => "Reading",
        "packed" => "Packed",
        "frame" => "Frame",
        "learnt" => "Learnt",
        "note" => "Note",
        "undone" => "Taken back",
        "redone" => "Done again",
        "set_back" => "Earlier state",
        _ => return None,
    })
}
