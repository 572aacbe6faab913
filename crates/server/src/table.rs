//! Tables that others read: CSV (RFC 4180).

use tolva_format::harmless;

/// A table of these rows, the first of which names the columns. No cell is a formula to a program that opens it.
pub fn csv<Row: IntoIterator<Item: AsRef<str>>>(rows: impl IntoIterator<Item = Row>) -> String {
    let mut writer = csv::WriterBuilder::new().terminator(csv::Terminator::CRLF).from_writer(Vec::new());
    for row in rows {
        // Writing to memory cannot fail.
        let _ = writer.write_record(row.into_iter().map(|cell| harmless(cell.as_ref()).into_owned()));
    }
    String::from_utf8(writer.into_inner().unwrap_or_default()).unwrap_or_default()
}
