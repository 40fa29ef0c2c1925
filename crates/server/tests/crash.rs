//! SIGKILL in the middle of many saves, fifty times: what was acknowledged is there, and the file is sound.

use std::sync::Arc;
use std::sync::atomic::{AtomicI64, Ordering};
use std::time::{Duration, Instant};

use serde_json::json;
use steelk_store::Store;
use steelk_testing::server::*;

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

/// A folder's jobs: how many there are of each number, each with how many pieces.
fn jobs_of(store: &Store) -> Vec<(String, usize)> {
    store.jobs().unwrap().into_iter().map(|job| (job.number, store.pieces(job.id).unwrap().len())).collect()
}

/// SIGKILL while jobs are brought in and copied, backups are written, and a demo is laid out for the first time: every
/// job is whole or not there, what was acknowledged is there, and a backup is whole or no backup.
///
/// `make test` does ten rounds; the long run is `STEELK_CASES=200`.
#[test]
fn whole_jobs_and_copies_survive_kills() {
    let rounds: u64 = std::env::var("STEELK_CASES").ok().and_then(|text| text.parse().ok()).unwrap_or(10);
    let (mut imports, mut copies, mut backups, mut half_begun) = (0, 0, 0, 0);
    let (mut with_demo, mut without_demo) = (0, 0);
    for round in 0..rounds {
        let folder = tempfile::tempdir().unwrap();
        let database = folder.path().join("steelk.db");
        let open = || Store::open(&database, steelk_server::marks::marks_of).unwrap();
        // The first start of a demo, killed somewhere in it.
        let mut starting = std::process::Command::new(env!("CARGO_BIN_EXE_steelk"))
            .args(["serve", "--demo", "--port", "0", "--log", "error", "--data"])
            .arg(folder.path())
            .stdout(std::process::Stdio::null())
            .spawn()
            .unwrap();
        // From before its first page to after its last job, on a quick machine and on a slow one.
        let most = if round % 2 == 0 { 30_000 } else { 120_000 };
        std::thread::sleep(Duration::from_micros(1000 + (round * 7919) % most));
        starting.kill().unwrap();
        starting.wait().unwrap();
        let laid = if database.exists() { jobs_of(&open()) } else { Vec::new() };
        let whole = [("TS-104".to_string(), 11), ("TS-107".to_string(), 3)];
        assert!(laid.is_empty() || laid == whole, "round {round}: a demo half laid out: {laid:?}");
        if laid.is_empty() {
            without_demo += 1
        } else {
            with_demo += 1
        }

        let mut server = Server::start(folder.path(), true);
        let file = get(&format!("{}/api/jobs/1/job.json?revisions=true", server.url)).body;
        let begun = |what: &'static str| {
            let (url, file) = (server.url.clone(), file.clone());
            std::thread::spawn(move || {
                let mut acknowledged = 0;
                loop {
                    let answer = match what {
                        "import" => ask("POST", &format!("{url}/api/import"), &[], Some(file.clone())),
                        _ => ask("POST", &format!("{url}/api/jobs/2/copy"), &[], Some(b"{}".to_vec())),
                    };
                    match answer {
                        Ok(answer) if answer.status == 201 => acknowledged += 1,
                        Ok(answer) => panic!("{what}: {}", answer.text()),
                        Err(_) => return acknowledged,
                    }
                }
            })
        };
        let (bringing, copying) = (begun("import"), begun("copy"));
        let backup = folder.path().join("backup.db");
        let mut saving = std::process::Command::new(env!("CARGO_BIN_EXE_steelk"))
            .arg("backup")
            .arg(&backup)
            .arg("--data")
            .arg(folder.path())
            .stdout(std::process::Stdio::null())
            .spawn()
            .unwrap();
        std::thread::sleep(Duration::from_micros(500 + (round * 6101) % if round % 2 == 0 { 20_000 } else { 200_000 }));
        saving.kill().unwrap();
        saving.wait().unwrap();
        std::thread::sleep(Duration::from_millis(20 + (round * 37) % 300));
        server.kill();
        let (brought, copied) = (bringing.join().unwrap(), copying.join().unwrap());
        let store = open();
        assert_eq!(store.integrity().unwrap(), "ok", "round {round}");
        let all = jobs_of(&store);
        for (number, pieces) in &all {
            assert_eq!(
                *pieces,
                if number.starts_with("TS-104") { 11 } else { 3 },
                "round {round}: half of {number}: {all:?}"
            );
        }
        let count = |wanted: &str| all.iter().filter(|(number, _)| number == wanted).count();
        // One of each may have been written whose answer was lost on the way.
        assert!(
            (brought..=brought + 1).contains(&(count("TS-104") - 1)),
            "round {round}: {brought} brought in, found {all:?}"
        );
        assert!((copied..=copied + 1).contains(&count("TS-107 copy")), "round {round}: {copied} copied, found {all:?}");
        if backup.exists() {
            let kept = Store::open_to_read(&backup, steelk_server::marks::marks_of).unwrap();
            assert_eq!(kept.integrity().unwrap(), "ok", "round {round}");
            assert!(jobs_of(&kept).iter().all(|job| all.contains(job)), "round {round}");
            backups += 1;
        }
        half_begun += usize::from(backup.with_extension("part").exists());
        imports += brought;
        copies += copied;
    }
    println!(
        "{rounds} rounds: demo laid out in {with_demo}, not in {without_demo}; {imports} imports and {copies} copies acknowledged; \
         {backups} backups whole, {half_begun} killed in the midst"
    );
    assert!(imports + copies > 0, "the kills came before any work");
}
