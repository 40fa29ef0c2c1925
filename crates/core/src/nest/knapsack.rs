//! The most valuable pattern of one bar: a bounded knapsack by branch and bound.

use crate::quantity::tolerance::{NOTHING, ROUNDING};

/// Items in order of value for their size, best first.
pub struct Item {
    /// Which piece.
    pub piece: usize,
    /// Its size in micrometres, its kerf in.
    pub size: i64,
    /// Its value.
    pub value: f64,
    /// How many there are.
    pub most: usize,
}

/// The best filling found.
pub struct Filling {
    /// How many of each item, by its place in the list.
    pub counts: Vec<usize>,
    /// Their value.
    pub value: f64,
    /// No filling is worth more.
    pub bound: f64,
}

/// Sorts items for [`fill`].
pub fn sort(items: &mut [Item]) {
    items.sort_by(|one, two| {
        let (a, b) = (one.value / one.size as f64, two.value / two.size as f64);
        b.total_cmp(&a).then(two.size.cmp(&one.size))
    });
}

/// Steps after which the search gives the best so far with a bound.
const MOST_STEPS: usize = 60_000;

/// Fills a room. Items must be sorted.
pub fn fill(items: &[Item], room: i64) -> Filling {
    let count = items.len();
    let mut smallest = vec![i64::MAX; count + 1];
    for at in (0..count).rev() {
        smallest[at] = smallest[at + 1].min(items[at].size);
    }
    let mut counts = vec![0usize; count];
    let mut best = Filling { counts: vec![0; count], value: 0.0, bound: 0.0 };
    // An upper bound of what the items from `from` on add to a room, by filling with the best and a part of one.
    let relaxed = |from: usize, mut room: i64| {
        let mut value = 0.0;
        for item in &items[from..] {
            let whole = ((room / item.size) as usize).min(item.most);
            value += whole as f64 * item.value;
            room -= whole as i64 * item.size;
            if whole < item.most {
                value += room as f64 / item.size as f64 * item.value;
                break;
            }
        }
        value
    };
    let root = relaxed(0, room);
    let mut steps = 0;
    let mut at = 0;
    let mut left = room;
    let mut value = 0.0;
    let mut open = f64::NEG_INFINITY;
    'search: loop {
        // Down: as many of each as go in.
        while at < count && left >= smallest[at] {
            steps += 1;
            if steps > MOST_STEPS {
                open = root;
                break 'search;
            }
            if value + relaxed(at, left) <= best.value + ROUNDING {
                break;
            }
            let take = ((left / items[at].size) as usize).min(items[at].most);
            counts[at] = take;
            left -= take as i64 * items[at].size;
            value += take as f64 * items[at].value;
            at += 1;
        }
        if value > best.value + NOTHING {
            best.value = value;
            best.counts.clone_from(&counts);
        }
        // Back: one fewer of the last that was taken.
        loop {
            if at == 0 {
                break 'search;
            }
            at -= 1;
            if counts[at] > 0 {
                counts[at] -= 1;
                left += items[at].size;
                value -= items[at].value;
                at += 1;
                break;
            }
        }
    }
    best.bound = if open > f64::NEG_INFINITY { open.max(best.value) } else { best.value };
    best
}
