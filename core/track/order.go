package track

import (
	"cmp"
	"slices"
)

// Order sorts a track by time, then device, then the device's own count.
func Order(track []Entry) {
	slices.SortStableFunc(track, Before)
}

// Before compares the places of two entries on a track.
func Before(a, b Entry) int {
	return cmp.Or(cmp.Compare(a.At, b.At), cmp.Compare(a.Device, b.Device), cmp.Compare(a.Seq, b.Seq))
}

// standing tells for each entry whether it stands: not undone, or its undo
// undone in turn.
func standing(track []Entry) []bool {
	undos := map[string][]int{}
	for i, e := range track {
		if e.Kind == KindUndo {
			undos[e.Replaces] = append(undos[e.Replaces], i)
		}
	}
	const (
		_ = iota // not judged yet
		judging
		good
		void
	)
	state := make([]int8, len(track))
	var stands func(i int) bool
	stands = func(i int) bool {
		switch state[i] {
		case judging, void:
			return false
		case good:
			return true
		}
		state[i] = judging
		for _, u := range undos[track[i].ID] {
			if stands(u) {
				state[i] = void
				return false
			}
		}
		state[i] = good
		return true
	}
	all := make([]bool, len(track))
	for i := range track {
		all[i] = stands(i)
	}
	return all
}

// Recent lists the newest n entries that stand, corrections among them, newest
// first; undo and shown advice are left out. It is what undo goes back over.
func Recent(track []Entry, n int) []Entry {
	stands := standing(track)
	var recent []Entry
	for i, e := range slices.Backward(track) {
		if stands[i] && e.Kind != KindUndo && e.Kind != KindAdvice && len(recent) < n {
			recent = append(recent, e)
		}
	}
	return recent
}

// Live resolves undo and correction: what is left of the track, in its order,
// each corrected entry standing at the original's place with the newest
// correction's content. An undo of an undo brings the entry back. A
// correction whose original is not there yet waits.
func Live(track []Entry) []Entry {
	byID := make(map[string]int, len(track))
	for i, e := range track {
		byID[e.ID] = i
	}
	stands := standing(track)
	corrected := map[string]Entry{}
	for i, e := range track {
		if e.Replaces == "" || e.Kind == KindUndo || !stands[i] {
			continue
		}
		root, hops := i, 0
		for track[root].Replaces != "" && hops <= len(track) {
			next, there := byID[track[root].Replaces]
			if !there {
				break
			}
			root, hops = next, hops+1
		}
		if root != i && track[root].Replaces == "" {
			corrected[track[root].ID] = e
		}
	}
	var live []Entry
	for i, e := range track {
		if e.Kind == KindUndo || e.Replaces != "" || !stands[i] {
			continue
		}
		if c, ok := corrected[e.ID]; ok {
			c.ID, c.At, c.Device, c.Seq, c.Replaces = e.ID, e.At, e.Device, e.Seq, ""
			e = c
		}
		live = append(live, e)
	}
	return live
}

// Is reports whether two live entries are the same one with the same content;
// content never changes but by a correction, which is another value.
func (e Entry) Is(o Entry) bool {
	return e.ID == o.ID && e.Kind == o.Kind && e.Rep == o.Rep && e.Mark == o.Mark && e.Shown == o.Shown && e.Dose == o.Dose &&
		e.Offer == o.Offer && e.Spell == o.Spell && e.Burst == o.Burst && e.Interruption == o.Interruption && e.Memory == o.Memory
}
