//! Commands out of a stream of bytes, however it is cut up.

/// A command: two letters and what stands behind them.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Command {
    /// In capitals.
    pub name: [u8; 2],
    /// What stands between the commas.
    pub words: Vec<String>,
}

impl Command {
    /// Its numbers, up to the first that is none.
    pub fn numbers(&self) -> Vec<f64> {
        let number = |word: &String| word.trim().parse().ok().filter(|own: &f64| own.is_finite());
        self.words.iter().map_while(number).collect()
    }
}

/// Longest command, bytes: a line of many thousand places.
const LONGEST: usize = 4_000_000;

/// What has come and is no whole command yet.
#[derive(Debug, Default)]
pub(super) struct Reader {
    open: Vec<u8>,
    /// Bytes that belong to no command, or to one that is too long.
    pub lost: u64,
}

impl Reader {
    /// Takes bytes, and gives the commands that they complete.
    pub fn take(&mut self, bytes: &[u8]) -> Vec<Command> {
        let mut done = Vec::new();
        for byte in bytes {
            let is_own = self.open.first() == Some(&b'A') && self.open.get(1) != Some(&b'A');
            // A letter ends a command of numbers; the machine's own carry words.
            let starts = byte.is_ascii_alphabetic() && self.open.len() >= 2;
            let is_place = matches!(self.open.get(..2), Some(b"PA" | b"PU" | b"PD" | b"PR"));
            let own_words = is_own && !is_place;
            match byte {
                b';' | b'\n' | b'\r' => self.end(&mut done),
                _ if starts && !own_words => {
                    self.end(&mut done);
                    self.open.push(byte.to_ascii_uppercase());
                }
                b' ' | b'\t' if self.open.is_empty() => {}
                _ if self.open.len() < 2 => {
                    if byte.is_ascii_alphabetic() {
                        self.open.push(byte.to_ascii_uppercase());
                    } else {
                        self.lost += 1;
                    }
                }
                _ if self.open.len() >= LONGEST => self.lost += 1,
                _ => self.open.push(*byte),
            }
        }
        done
    }

    /// Forgets what has begun.
    pub fn clear(&mut self) {
        self.open.clear();
    }

    fn end(&mut self, done: &mut Vec<Command>) {
        let open = std::mem::take(&mut self.open);
        let Some((name, rest)) = open.split_first_chunk::<2>() else {
            self.lost += open.len() as u64;
            return;
        };
        let text = String::from_utf8_lossy(rest);
        let words = if text.trim().is_empty() {
            Vec::new()
        } else {
            text.split(',').map(|word| word.trim().to_owned()).collect()
        };
        done.push(Command { name: *name, words });
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn names(bytes: &[u8]) -> Vec<String> {
        let mut reader = Reader::default();
        let all = reader.take(bytes).into_iter();
        all.map(|own| String::from_utf8_lossy(&own.name).into_owned()).collect()
    }

    #[test]
    fn commands_end_where_the_next_begins() {
        assert_eq!(
            names(b"IN;PU;SP1;PU10,20PD30,40,50,60;\nPU;"),
            ["IN", "PU", "SP", "PU", "PD", "PU"]
        );
        assert_eq!(names(b"AC1,2,3,4,K7Q4M,1,2;AF;"), ["AC", "AF"]);
    }

    #[test]
    fn a_stream_may_be_cut_anywhere() {
        let bytes = b"IN;SP1;PU400,400;PD800,400,800,800;AC0,0,1,1,K7Q4M,1,1;AF;PU;";
        let whole = Reader::default().take(bytes);
        for cut in 0..bytes.len() {
            let mut reader = Reader::default();
            let mut parts = reader.take(&bytes[..cut]);
            parts.extend(reader.take(&bytes[cut..]));
            assert_eq!(parts, whole, "cut at {cut}");
        }
    }
}
