// Package arena is the session as it happens: the advice after each entry of the
// track (part 6), in the column of each school (part 4), when a session may start,
// and what it came to. Nothing here reads a clock: time is an argument, in
// milliseconds since 1970, UTC.
//
// A session is opened by Run with a catalogue, the house rules and an Input; Add
// takes in entries, and Advise says one thing to do next. The rules stand in their
// order in one list (rules.go), each a function of the session; what the session
// knows is kept in parts that can be read alone: the clock and the block (clock.go),
// how calm the horse is (line.go), how far each ask is (rungs.go), places of rest
// (places.go), what ends it (ending.go). What a school says otherwise is its column
// (schools.go). Asking for advice changes nothing.
package arena
