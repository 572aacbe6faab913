//! Whether a JPEG can hold as many pixels as it says: each block of eight by eight takes the shortest code of its tables twice
//! at least (ITU-T T.81, F.1.2). One that cannot would be taken as a picture that is mostly grey.

/// The least that the blocks of a sequential JPEG take, and what there is for them, in bits; nothing for any other, whose scans
/// may leave most blocks out.
pub fn needed_and_there(file: &[u8]) -> Option<(u64, u64)> {
    let two = |at: usize| Some(u64::from(u16::from_be_bytes([*file.get(at)?, *file.get(at + 1)?])));
    let (mut at, mut blocks) = (2, None);
    // Of tables for a block's mean, and for the rest of it.
    let mut shortest = [u64::MAX; 2];
    loop {
        if *file.get(at)? != 0xff {
            return None;
        }
        let kind = *file.get(at + 1)?;
        if kind == 0xff {
            // Bytes that only fill.
            at += 1;
            continue;
        }
        let length = usize::try_from(two(at + 2)?).ok()?;
        let data = file.get(at + 4..at + 2 + length)?;
        match kind {
            0xc0 | 0xc1 => blocks = blocks_of(data),
            0xc4 => shortest_codes(data, &mut shortest),
            0xda => {
                let there = u64::try_from(file.len() - at - 2 - length).ok()? * 8;
                let each = shortest.iter().map(|bits| if *bits == u64::MAX { 1 } else { *bits }).sum::<u64>();
                return blocks.map(|blocks: u64| (blocks.saturating_mul(each), there));
            }
            _ => {}
        }
        at += 2 + length;
    }
}

/// How many blocks a frame header asks for.
fn blocks_of(header: &[u8]) -> Option<u64> {
    let side = |at: usize| Some(u64::from(u16::from_be_bytes([*header.get(at)?, *header.get(at + 1)?])));
    let (high, wide) = (side(1)?, side(3)?);
    let samplings: Vec<(u64, u64)> =
        header.get(6..)?.chunks_exact(3).map(|one| (u64::from(one[1] >> 4), u64::from(one[1] & 15))).collect();
    let most_across = samplings.iter().map(|one| one.0).max().filter(|most| *most > 0)?;
    let most_down = samplings.iter().map(|one| one.1).max().filter(|most| *most > 0)?;
    let each = samplings.iter().map(|(across, down)| {
        let along = |pixels: u64, own: u64, most: u64| (pixels * own).div_ceil(8 * most);
        along(wide, *across, most_across) * along(high, *down, most_down)
    });
    Some(each.sum())
}

/// The shortest codes of some tables: a byte of kind and place, sixteen counts by length, then what each code stands for.
fn shortest_codes(mut tables: &[u8], shortest: &mut [u64; 2]) {
    while let [place, rest @ ..] = tables {
        let Some((counts, rest)) = rest.split_at_checked(16) else { return };
        let found = (1..).zip(counts).find(|(_, count)| **count > 0).map(|(length, _)| length);
        if let (Some(found), Some(kind)) = (found, shortest.get_mut(usize::from(place >> 4))) {
            *kind = (*kind).min(found);
        }
        let all: usize = counts.iter().map(|count| usize::from(*count)).sum();
        tables = rest.get(all..).unwrap_or_default();
    }
}
