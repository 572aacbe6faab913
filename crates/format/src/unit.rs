//! The units of the format: each stands at the end of its field's name.

/// The unit of a field, which its name ends with; none for what has none.
pub(crate) fn unit_of(field: &str) -> &'static str {
    const UNITS: [(&str, &str); 22] = [
        ("stops", "stops"),
        ("_deg", "degrees"),
        ("_percent", "%"),
        ("_eighths", ""),
        ("_mired", "mired"),
        ("_mm", "mm"),
        ("_cm", "cm"),
        ("_m2", "m²"),
        ("metres_per_s", "m/s"),
        ("frames_per_s", "frames a second"),
        ("_kg", "kg"),
        ("_hz", "Hz"),
        ("_px", "pixels"),
        ("_ft", "ft"),
        ("_lux", "lx"),
        ("lux_at_1_m", "lx"),
        ("_iso", ""),
        ("_m", "m"),
        ("_s", "s"),
        ("_full", "pops"),
        ("full_pops", "pops"),
        ("kelvin", "K"),
    ];
    let counted = ["units", "frames", "rows", "channels", "groups", "burst_frames"];
    if let Some(counted) = counted.iter().find(|counted| **counted == field) {
        return if *counted == "burst_frames" { "frames" } else { counted };
    }
    UNITS.iter().find(|(ending, _)| field.ends_with(ending)).map_or("", |(_, unit)| unit)
}
