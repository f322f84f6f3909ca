//! Where machines are reached.

use crate::error::{Faults, InputError, Remedy};

/// Says what is wrong with an address, unless it is empty.
pub(crate) fn check_address(address: &str, faults: &mut Faults) {
    if address.is_empty() || is_address(address) {
        return;
    }
    let shown: String = address.chars().take(60).collect();
    faults.add(InputError::plain(
        "address",
        format!("“{shown}” is no address"),
        Remedy::advice(
            "Write the machine’s name or number, a colon and its port, such as 192.168.1.20:9100",
        ),
    ));
}

/// True for a name or number of up to 120 letters, digits, dots and hyphens, and a port.
fn is_address(text: &str) -> bool {
    let Some((host, port)) = text.rsplit_once(':') else { return false };
    let is_plain = |c: char| c.is_ascii_alphanumeric() || matches!(c, '.' | '-');
    let is_six = host.starts_with('[') && host.ends_with(']');
    let named = if is_six { &host[1..host.len() - 1] } else { host };
    (1..=120).contains(&named.len())
        && named.chars().all(|c| is_plain(c) || (is_six && c == ':'))
        && port.parse::<u16>().is_ok_and(|port| port > 0)
}

#[cfg(test)]
mod tests {
    use super::is_address;

    #[test]
    fn an_address_is_a_name_and_a_port() {
        for own in ["127.0.0.1:4890", "cutter.local:9100", "[::1]:9100", "a:1"] {
            assert!(is_address(own), "{own}");
        }
        for own in
            ["", ":9100", "cutter", "cutter:0", "cutter:99999", "a b:1", "http://x:1", "::1:9100"]
        {
            assert!(!is_address(own), "{own}");
        }
    }
}
