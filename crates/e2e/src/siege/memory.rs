//! What a process holds in memory, as Linux tells it.

fn line(pid: u32, name: &str) -> Option<u64> {
    let status = std::fs::read_to_string(format!("/proc/{pid}/status")).ok()?;
    status.lines().find_map(|line| line.strip_prefix(name))?.split_whitespace().next()?.parse().ok()
}

/// Now, in kilobytes; nothing where the system does not say.
pub fn held_kb(pid: u32) -> Option<u64> {
    line(pid, "VmRSS:")
}

/// The most since it began, in kilobytes; nothing where the system does not say.
pub fn most_held_kb(pid: u32) -> Option<u64> {
    line(pid, "VmHWM:")
}

/// The time it has computed, in seconds; nothing where the system does not say.
pub fn computed_s(pid: u32) -> Option<f64> {
    let stat = std::fs::read_to_string(format!("/proc/{pid}/stat")).ok()?;
    // The name in brackets may have spaces in it; after it the 12th and 13th are user and system time (proc(5)), in
    // hundredths of a second on every Linux of today.
    let mut parts = stat.rsplit_once(')')?.1.split_whitespace().skip(11);
    let mut next = || parts.next()?.parse::<f64>().ok();
    Some((next()? + next()?) / 100.0)
}
