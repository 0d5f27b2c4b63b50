// AssemblyScript, compiled by `npm run kernels`. Stored 24-bit frames as one array a channel, full scale at 1.

const VALUE: usize = 8;
/** A sample is read with the byte before it. */
const BEFORE: usize = 16;
const BYTES_AT: usize = 1024 + BEFORE;

let samplesAt: usize = 0;
let room: usize = 0;

/** Makes room for so many bytes, and so many frames of so many channels. */
export function open(bytes: i32, frames: i32, channels: i32): void {
  room = (frames as usize) * VALUE;
  samplesAt = (BYTES_AT + (bytes as usize) + 15) & ~15;
  const end = samplesAt + room * (channels as usize);
  const pages = ((end + 65535) >> 16) as i32;
  if (pages > memory.size()) memory.grow(pages - memory.size());
}

/** Where the stored bytes go. */
export function bytesPlace(): usize {
  return BYTES_AT;
}

/** Where the samples come out, channel by channel. */
export function samplesPlace(): usize {
  return samplesAt;
}

/** Turns so many frames of a channel, which stand `stride` bytes apart, into samples. */
export function decode(channel: i32, frames: i32, stride: i32): void {
  let at = BYTES_AT + (channel as usize) * 3 - 1;
  let to = samplesAt + (channel as usize) * room;
  const end = to + (frames as usize) * VALUE;
  // The three bytes fill the top of 32 bits, so that the sign comes out right by itself.
  for (; to < end; to += VALUE, at += stride as usize) store<f64>(to, ((load<i32>(at) & ~0xff) as f64) * (1.0 / 2147483648.0));
}
