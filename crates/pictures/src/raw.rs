//! The full-size preview a raw file carries. Raw files of most cameras are TIFF inside (TIFF 6.0): directories of tags, one of
//! which points at a whole JPEG.
//!
//! The directories are read by hand: `kamadak-exif` does not follow those below another, where the whole pictures are, and
//! `tiff` opens no file whose first picture it cannot decode, as in most raw files.

/// The largest JPEG a TIFF-like file carries; nothing where it is none, or carries none.
pub(crate) fn preview(file: &[u8]) -> Option<&[u8]> {
    let tiff = Tiff::of(file)?;
    let mut best: Option<&[u8]> = None;
    let mut waiting = vec![tiff.long(4)?];
    let mut seen = Vec::new();
    while let Some(at) = waiting.pop() {
        if at == 0 || seen.contains(&at) || seen.len() >= MOST_DIRECTORIES {
            continue;
        }
        seen.push(at);
        let Some(directory) = tiff.directory(at) else { continue };
        let within = |start: u32, length: u32| {
            let bytes = file.get(start as usize..(start as usize).checked_add(length as usize)?)?;
            is_picture(bytes).then_some(bytes)
        };
        let of = |tag: u16| directory.entries.iter().find(|entry| entry.tag == tag).and_then(|entry| tiff.first(entry));
        let old = of(JPEG_AT).zip(of(JPEG_BYTES));
        // One strip that is compressed as JPEG is a JPEG.
        let strip = of(STRIP_AT).zip(of(STRIP_BYTES)).filter(|_| matches!(of(COMPRESSION), Some(6 | 7)));
        let found = old.into_iter().chain(strip).filter_map(|(start, length)| within(start, length));
        best = best.into_iter().chain(found).max_by_key(|bytes| bytes.len());
        for entry in directory.entries.iter().filter(|entry| entry.tag == SUB_DIRECTORIES) {
            waiting.extend(tiff.all(entry));
        }
        waiting.push(directory.next);
    }
    best
}

/// Whether some bytes are a JPEG that can be shown: baseline or progressive. Sensor data of some raw files is a lossless JPEG,
/// larger than any preview. Source: ITU-T T.81, B.1.1.3: SOF0 to SOF2; SOF3 is lossless.
fn is_picture(bytes: &[u8]) -> bool {
    if !bytes.starts_with(&[0xFF, 0xD8]) {
        return false;
    }
    let mut at = 2;
    // Segments before the frame's header: each is its marker and its own length.
    while let Some([0xFF, marker]) = bytes.get(at..at + 2) {
        match marker {
            0xC0..=0xC2 => return true,
            0xC3..=0xCF if !matches!(marker, 0xC4 | 0xC8 | 0xCC) => return false,
            0xFF => at += 1,
            0x01 | 0xD0..=0xD9 => at += 2,
            0xDA => return false,
            _ => match bytes.get(at + 2..at + 4) {
                Some(length) => at += 2 + usize::from(u16::from_be_bytes([length[0], length[1]])).max(2),
                None => return false,
            },
        }
    }
    false
}

/// What a TIFF's tags mean. Source: TIFF 6.0 and TIFF Technical Note 1 (trees of directories).
const COMPRESSION: u16 = 0x0103;
const STRIP_AT: u16 = 0x0111;
const STRIP_BYTES: u16 = 0x0117;
const SUB_DIRECTORIES: u16 = 0x014A;
const JPEG_AT: u16 = 0x0201;
const JPEG_BYTES: u16 = 0x0202;
const MOST_DIRECTORIES: usize = 40;
const MOST_ENTRIES: usize = 1000;

struct Tiff<'a> {
    file: &'a [u8],
    little: bool,
}

struct Directory {
    entries: Vec<Entry>,
    next: u32,
}

struct Entry {
    tag: u16,
    kind: u16,
    count: u32,
    /// Where its value stands.
    at: usize,
}

impl<'a> Tiff<'a> {
    fn of(file: &'a [u8]) -> Option<Self> {
        let little = match file.get(..2)? {
            b"II" => true,
            b"MM" => false,
            _ => return None,
        };
        Some(Self { file, little })
    }

    fn short(&self, at: usize) -> Option<u16> {
        let bytes: [u8; 2] = self.file.get(at..at.checked_add(2)?)?.try_into().ok()?;
        Some(if self.little { u16::from_le_bytes(bytes) } else { u16::from_be_bytes(bytes) })
    }

    fn long(&self, at: usize) -> Option<u32> {
        let bytes: [u8; 4] = self.file.get(at..at.checked_add(4)?)?.try_into().ok()?;
        Some(if self.little { u32::from_le_bytes(bytes) } else { u32::from_be_bytes(bytes) })
    }

    fn directory(&self, at: u32) -> Option<Directory> {
        let at = at as usize;
        let count = usize::from(self.short(at)?).min(MOST_ENTRIES);
        let entry = |index: usize| {
            let at = at + 2 + index * 12;
            Some(Entry { tag: self.short(at)?, kind: self.short(at + 2)?, count: self.long(at + 4)?, at: at + 8 })
        };
        let entries = (0..count).map_while(entry).collect();
        Some(Directory { entries, next: self.long(at + 2 + count * 12).unwrap_or(0) })
    }

    /// The numbers of an entry: shorts or longs, in the entry itself where they fit.
    fn all(&self, entry: &Entry) -> Vec<u32> {
        let wide = match entry.kind {
            3 => 2,
            4 | 13 => 4,
            _ => return Vec::new(),
        };
        let count = (entry.count as usize).min(MOST_DIRECTORIES);
        let start =
            if entry.count as usize * wide <= 4 { Some(entry.at) } else { self.long(entry.at).map(|at| at as usize) };
        let one = |index: usize| {
            let at = start?.checked_add(index * wide)?;
            if wide == 2 { self.short(at).map(u32::from) } else { self.long(at) }
        };
        (0..count).map_while(one).collect()
    }

    fn first(&self, entry: &Entry) -> Option<u32> {
        (entry.count >= 1).then(|| self.all(entry).first().copied()).flatten()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// A made-up raw file: a small preview in the first directory, a whole one in a directory under it.
    fn raw(small: &[u8], whole: &[u8]) -> Vec<u8> {
        let mut file = b"II*\0\x08\0\0\0".to_vec();
        let entry = |file: &mut Vec<u8>, tag: u16, value: u32| {
            file.extend(tag.to_le_bytes());
            file.extend(4u16.to_le_bytes());
            file.extend(1u32.to_le_bytes());
            file.extend(value.to_le_bytes());
        };
        let (first, second) = (8, 8 + 2 + 3 * 12 + 4);
        let pictures = second + 2 + 3 * 12 + 4;
        file.extend(3u16.to_le_bytes());
        entry(&mut file, JPEG_AT, pictures);
        entry(&mut file, JPEG_BYTES, u32::try_from(small.len()).expect("short"));
        entry(&mut file, SUB_DIRECTORIES, second);
        // It points back at itself, as a hostile one would.
        file.extend(u32::to_le_bytes(first));
        file.extend(3u16.to_le_bytes());
        entry(&mut file, COMPRESSION, 7);
        entry(&mut file, STRIP_AT, pictures + u32::try_from(small.len()).expect("short"));
        entry(&mut file, STRIP_BYTES, u32::try_from(whole.len()).expect("short"));
        file.extend([0; 4]);
        [&file, small, whole].concat()
    }

    #[test]
    fn the_largest_one_is_taken() {
        let (small, whole) = (jpeg(0xC0, 0), jpeg(0xC2, 5));
        assert_eq!(preview(&raw(&small, &whole)), Some(&whole[..]));
        assert_eq!(preview(&raw(&small, b"no picture at all")), Some(&small[..]));
    }

    /// The sensor's own data is often one lossless JPEG, larger than any preview: it is none.
    #[test]
    fn lossless_sensor_data_is_no_preview() {
        let (small, sensor) = (jpeg(0xC0, 0), jpeg(0xC3, 400));
        assert_eq!(preview(&raw(&small, &sensor)), Some(&small[..]));
        assert!(is_picture(&jpeg(0xC1, 1)) && !is_picture(&[0xFF, 0xD8]) && !is_picture(&jpeg(0xCB, 0)));
    }

    /// The beginning of a JPEG: an application's segment, a table, and the header of its frame.
    fn jpeg(frame: u8, more: usize) -> Vec<u8> {
        let mut all = vec![0xFF, 0xD8, 0xFF, 0xE1, 0, 4, 1, 2, 0xFF, 0xC4, 0, 3, 9, 0xFF, frame, 0, 8];
        all.extend(std::iter::repeat_n(7, more));
        all
    }

    #[test]
    fn nonsense_has_none() {
        let whole = raw(&jpeg(0xC0, 1), &jpeg(0xC0, 3));
        for end in 0..whole.len() {
            let _ = preview(&whole[..end]);
        }
        assert_eq!(preview(b"MM"), None);
        assert_eq!(preview(b"a text"), None);
        assert_eq!(preview(&[]), None);
    }
}
