//! What stands in a revision: JSON, compressed where that helps.

use std::io::{Error, Read as _};

/// What compressed content begins with (RFC 8878, 3.1.1); JSON begins otherwise.
const ZSTD: [u8; 4] = [0x28, 0xb5, 0x2f, 0xfd];
/// Shorter than this, a text is kept as it is.
const WORTH_IT: usize = 512;
/// The compression's usual level.
const LEVEL: i32 = 3;
/// More than any document is: what unpacks to more is damaged.
const MOST_BYTES: u64 = 64 * 1024 * 1024;

pub(crate) fn pack(json: &str) -> Vec<u8> {
    let plain = || json.as_bytes().to_vec();
    if json.len() < WORTH_IT { plain() } else { zstd::encode_all(json.as_bytes(), LEVEL).unwrap_or_else(|_| plain()) }
}

pub(crate) fn is_packed(content: &[u8]) -> bool {
    content.starts_with(&ZSTD)
}

pub(crate) fn unpack(content: &[u8]) -> Result<Vec<u8>, Error> {
    if !is_packed(content) {
        return Ok(content.to_vec());
    }
    let mut json = Vec::new();
    zstd::Decoder::new(content)?.take(MOST_BYTES).read_to_end(&mut json)?;
    Ok(json)
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case::short("{}".to_owned(), false)]
    #[case::long(format!("{{\"notes\":\"{}\"}}", "ä long day ".repeat(200)), true)]
    fn what_was_packed_is_unpacked(#[case] json: String, #[case] packed: bool) {
        let content = pack(&json);
        assert_eq!((is_packed(&content), content.len() < json.len()), (packed, packed));
        assert_eq!(unpack(&content).expect("whole"), json.as_bytes());
    }

    #[test]
    fn what_broke_off_is_refused() {
        let content = pack(&"long ".repeat(500));
        assert!(unpack(&content[..content.len() - 4]).is_err());
    }
}
