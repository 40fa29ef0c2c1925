//! SIGKILL in the middle of many saves, fifty times: what was acknowledged is there, and the file is sound.

mod common;

use std::sync::Arc;
use std::sync::atomic::{AtomicI64, Ordering};
use std::time::{Duration, Instant};

use common::*;
use serde_json::json;
use steelk_store::Store;

#[test]
fn acknowledged_saves_survive_fifty_kills() {
    let folder = tempfile::tempdir().unwrap();
    let database = folder.path().join("steelk.db");
    {
        let mut store = Store::open(&database, steelk_server::marks::marks_of).unwrap();
        let job = store.add_job("TS-104", "Trolley", None).unwrap();
        store.add_piece(job.id, &demo_piece().to_string(), "made").unwrap();
    }
    let mut version = 1;
    let mut saves_in_all = 0;
    for round in 0..50u64 {
        let mut server = Server::start(folder.path(), false);
        let url = format!("{}/api/pieces/1", server.url);
        // The newest save that the server acknowledged: version and the title it carried.
        let acknowledged = Arc::new(AtomicI64::new(version));
        let seen = Arc::clone(&acknowledged);
        let first = version;
        let saver = std::thread::spawn(move || {
            let mut document = demo_piece();
            let mut at = first;
            loop {
                document["title"] = json!(format!("save {}", at + 1));
                let body = json!({"version": at, "document": document, "note": "many"}).to_string().into_bytes();
                match ask("PUT", &url, &[], Some(body)) {
                    Ok(reply) if reply.status == 200 => {
                        at = reply.json()["version"].as_i64().unwrap();
                        seen.store(at, Ordering::SeqCst);
                    }
                    Ok(reply) => panic!("a save was refused: {}", String::from_utf8_lossy(&reply.body)),
                    Err(_) => return,
                }
            }
        });
        // A different moment every round, from the first save to well into the stream.
        std::thread::sleep(Duration::from_millis(5 + (round * 7) % 60));
        // Every other time there have been saves for sure, however busy the machine is.
        let until = Instant::now() + Duration::from_secs(10);
        while round % 2 == 1 && acknowledged.load(Ordering::SeqCst) < first + 3 && Instant::now() < until {
            std::thread::sleep(Duration::from_millis(1));
        }
        server.kill();
        saver.join().unwrap();
        let acknowledged = acknowledged.load(Ordering::SeqCst);
        let store = Store::open(&database, steelk_server::marks::marks_of).unwrap();
        assert_eq!(store.integrity().unwrap(), "ok", "round {round}");
        let piece = store.piece(1).unwrap();
        // One more may have been written whose answer was lost on the way.
        assert!(
            (acknowledged..=acknowledged + 1).contains(&piece.version),
            "round {round}: acknowledged {acknowledged}, found {}",
            piece.version
        );
        for number in version.max(2)..=acknowledged {
            let kept = store.revision(1, number).unwrap();
            assert!(
                kept.contains(&format!("\"save {number}\"")),
                "round {round}: revision {number} is not what was saved"
            );
        }
        saves_in_all += acknowledged - version;
        version = piece.version;
    }
    assert!(saves_in_all > 50, "only {saves_in_all} saves were acknowledged in all: the kills came before any work");
}
