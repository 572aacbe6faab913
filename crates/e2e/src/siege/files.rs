//! Hostile files: pictures and archives that promise little and unpack to much, are broken off, changed at random or of
//! something else. The server refuses them in words, holds no more memory than a large picture needs, and goes on.

use std::io::{Cursor, Write as _};

use flate2::Compression;
use flate2::write::ZlibEncoder;
use rand::seq::IndexedRandom as _;
use rand::{Rng as _, RngCore as _, SeedableRng as _};
use rand_chacha::ChaCha8Rng;
use reqwest::{Client, StatusCode};
use serde_json::Value;
use zip::write::SimpleFileOptions;

use super::Report;
use super::client::{add, demo_jobs};
use super::memory::most_held_kb;
use crate::Tolva;

/// A picture of 64 megapixels is unpacked, copied and measured in this, in kilobytes; a development build takes no more.
const MOST_KB: u64 = 2_000_000;

/// Pictures that are as they should be.
const PICTURES: [&[u8]; 2] = [
    include_bytes!("../../../pictures/tests/data/hall-with.jpg"),
    include_bytes!("../../../pictures/tests/data/target-1.jpg"),
];

/// A chunk of a PNG (PNG 3rd edition, 5.3).
fn chunk(kind: [u8; 4], data: &[u8]) -> Vec<u8> {
    let mut crc = flate2::Crc::new();
    crc.update(&kind);
    crc.update(data);
    let length = u32::try_from(data.len()).expect("small").to_be_bytes();
    [&length, kind.as_slice(), data, &crc.sum().to_be_bytes()].concat()
}

/// `count` zero bytes, compressed.
fn zeros(count: usize) -> Vec<u8> {
    let mut all = ZlibEncoder::new(Vec::new(), Compression::best());
    let part = vec![0; 1 << 20];
    let mut left = count;
    while left > 0 {
        let now = left.min(part.len());
        all.write_all(&part[..now]).expect("memory");
        left -= now;
    }
    all.finish().expect("memory")
}

/// A PNG of this size that says so and has what is given for pixels, with a chunk before them.
fn png((wide, high): (u32, u32), before: &[u8], pixels: &[u8]) -> Vec<u8> {
    let head = [&wide.to_be_bytes()[..], &high.to_be_bytes(), &[8, 2, 0, 0, 0]].concat();
    [b"\x89PNG\r\n\x1a\n".as_slice(), &chunk(*b"IHDR", &head), before, &chunk(*b"IDAT", pixels), &chunk(*b"IEND", &[])]
        .concat()
}

/// A TIFF whose one directory has an entry of very many letters, or a directory that goes on for ever.
fn tiff(rng: &mut ChaCha8Rng) -> Vec<u8> {
    let letters = rng.random_range(100_000..6_000_000_u32);
    let mut file = b"II*\0\x08\0\0\0\x01\0".to_vec();
    // 0x010F, the maker, as text (TIFF 6.0).
    file.extend([0x0f, 0x01, 0x02, 0x00]);
    file.extend(letters.to_le_bytes());
    file.extend(26_u32.to_le_bytes());
    // The next directory: none, or this one again.
    file.extend(if rng.random_bool(0.5) { 0_u32 } else { 8 }.to_le_bytes());
    let letter = rng.random_range(b' '..=b'~');
    file.resize(file.len() + letters as usize, letter);
    file
}

fn picture(rng: &mut ChaCha8Rng) -> Vec<u8> {
    let good = PICTURES.choose(rng).expect("pictures").to_vec();
    match rng.random_range(0..8) {
        // A profile that unpacks to hundreds of megabytes.
        0 => {
            let profile = [b"x\0\0".as_slice(), &zeros(rng.random_range(1..400) << 20)].concat();
            png((4, 4), &chunk(*b"iCCP", &profile), &zeros(4 * 13))
        }
        // Text that does.
        1 => {
            let text = [b"x\0\0".as_slice(), &zeros(rng.random_range(1..400) << 20)].concat();
            png((4, 4), &chunk(*b"zTXt", &text), &zeros(4 * 13))
        }
        // Pixels that do, and more than there are.
        2 => {
            png((rng.random_range(1..70_000), rng.random_range(1..70_000)), &[], &zeros(rng.random_range(1..64) << 20))
        }
        3 => tiff(rng),
        // Another size than it has.
        4 => {
            let mut file = good;
            if let Some(at) = file.windows(2).position(|two| two == [0xff, 0xc0]) {
                for byte in &mut file[at + 5..at + 9] {
                    *byte = rng.random();
                }
            }
            file
        }
        5 => good[..rng.random_range(0..good.len())].to_vec(),
        6 => {
            let mut file = good;
            for _ in 0..rng.random_range(1..200) {
                let at = rng.random_range(0..file.len());
                file[at] = rng.random();
            }
            file
        }
        _ => {
            let mut noise = vec![0; rng.random_range(0..100_000)];
            rng.fill_bytes(&mut noise);
            noise
        }
    }
}

/// An archive that is none: very many small arrays, very much text, frames without pictures, the same picture for all.
fn archive(rng: &mut ChaCha8Rng) -> Vec<u8> {
    let mut out = zip::ZipWriter::new(Cursor::new(Vec::new()));
    let many = rng.random_range(1..3_000_000);
    let frames = match rng.random_range(0..4) {
        0 => format!("{{\"format\":\"tolva-frames\",\"frames\":[{}0]}}", "[],".repeat(many)),
        1 => format!("{{\"format\":\"tolva-frames\",\"frames\":[{}", "[".repeat(many.min(200_000))),
        2 => format!("{{\"format\":\"tolva-frames\",\"frames\":[{{\"name\":\"{}\"}}]}}", "n".repeat(many * 10)),
        _ => format!("{{\"format\":\"tolva-frames\",\"frames\":[{}{{}}]}}", "{},".repeat(many.min(100_000))),
    };
    let job = demo_jobs().remove(0).to_string();
    let files = [("job.json", job.as_bytes()), ("frames.json", frames.as_bytes()), ("pictures/x.jpg", PICTURES[0])];
    for (name, bytes) in files {
        if rng.random_bool(0.9) {
            out.start_file(name, SimpleFileOptions::default()).expect("memory");
            out.write_all(bytes).expect("memory");
        }
    }
    let mut file = out.finish().expect("memory").into_inner();
    if rng.random_bool(0.3) {
        let at = rng.random_range(0..file.len());
        file[at] = rng.random();
    }
    file
}

/// Sends `count` hostile files; reports server errors, unreadable frames and the peak of the server's memory.
pub async fn hostile_files(seed: u64, count: usize) -> Report {
    let mut rng = ChaCha8Rng::seed_from_u64(seed);
    let tolva = Tolva::empty();
    let client = Client::new();
    let job = demo_jobs().remove(0);
    let id = add(&client, &tolva, &job).await;
    let setup = job["setups"][0]["id"].as_str().expect("an id");
    let mut faults = Vec::new();
    for number in 0..count {
        let (path, body) = if rng.random_bool(0.3) {
            ("api/v1/jobs/archive".to_owned(), archive(&mut rng))
        } else {
            (format!("api/v1/jobs/{id}/setups/{setup}/frames?name=x"), picture(&mut rng))
        };
        let bytes = body.len();
        let request = client.post(tolva.url(&path)).header("content-type", "application/octet-stream").body(body);
        match request.send().await {
            Ok(answer) if !answer.status().is_server_error() => {}
            Ok(answer) => {
                faults.push(format!("seed {seed}, file {number}: {} to {bytes} bytes at {path}", answer.status()));
            }
            Err(error) => {
                faults.push(format!("seed {seed}, file {number}: {bytes} bytes at {path}: {error}"));
                break;
            }
        }
    }
    let list = client.get(tolva.url(&format!("api/v1/jobs/{id}/frames"))).send().await;
    let listed = match list {
        Ok(answer) if answer.status() == StatusCode::OK => answer.json::<Value>().await.unwrap_or_default(),
        other => {
            faults.push(format!("seed {seed}: the frames are not listed after them: {other:?}"));
            Value::Null
        }
    };
    let unreadable = listed["unreadable"].as_array().map_or(0, Vec::len);
    if unreadable > 0 {
        faults.push(format!("seed {seed}: {unreadable} frames were kept that cannot be read"));
    }
    let height = most_held_kb(tolva.pid());
    if height.is_some_and(|height| height > MOST_KB) {
        faults.push(format!("seed {seed}: it held {height:?} kB: at most {MOST_KB}"));
    }
    let taken = listed["frames"].as_array().map_or(0, Vec::len);
    Report::of(format!("{count} hostile files, {taken} taken as frames, at most {height:?} kB held"), faults)
}
