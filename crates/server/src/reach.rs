//! From where the server can be reached, and under which host names.

use std::net::IpAddr;

/// Under which names the server answers: a page elsewhere could point a name of its own at this machine, and would then be taken
/// for one of ours.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Reach {
    open: bool,
    names: Vec<String>,
}

impl Reach {
    /// Of an address that is listened on, with the names that this machine has on its network.
    pub fn new(bind: IpAddr, names: &[String]) -> Reach {
        Reach { open: !bind.is_loopback(), names: names.iter().map(|name| name.to_ascii_lowercase()).collect() }
    }

    /// Whether others than this machine itself can reach it.
    pub fn is_open(&self) -> bool {
        self.open
    }

    /// Whether a request's `Host` is one of ours.
    pub fn knows(&self, host: &str) -> bool {
        let name = host.rsplit_once(':').map_or(host, |(name, port)| if port.ends_with(']') { host } else { name });
        if matches!(name, "127.0.0.1" | "localhost" | "[::1]") {
            return true;
        }
        // A plain address cannot be pointed elsewhere as a name can.
        let plain = name.trim_start_matches('[').trim_end_matches(']').parse::<IpAddr>().is_ok();
        self.open && (plain || self.names.contains(&name.to_ascii_lowercase()))
    }

    /// Under what it answers, in words.
    pub fn words(&self) -> String {
        if !self.open {
            return "on 127.0.0.1 only".into();
        }
        let names: String = self.names.iter().map(|name| format!(", {name}")).collect();
        format!("under its address as a number{names} (other names: `steelk serve --name NAME`)")
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn only_names_that_are_ours_are_known() {
        let here = Reach::new(IpAddr::from([127, 0, 0, 1]), &[]);
        for (host, known) in [
            ("127.0.0.1:7420", true),
            ("localhost", true),
            ("[::1]:7420", true),
            ("10.0.0.7:7420", false),
            ("shop", false),
            ("", false),
        ] {
            assert_eq!(here.knows(host), known, "{host}");
        }
        let open = Reach::new(IpAddr::from([0, 0, 0, 0]), &["Shop.example".into()]);
        for (host, known) in [
            ("10.0.0.7:7420", true),
            ("[fe80::1]:80", true),
            ("shop.EXAMPLE:7420", true),
            ("rebound.example", false),
            ("localhost:7420", true),
        ] {
            assert_eq!(open.knows(host), known, "{host}");
        }
    }
}
