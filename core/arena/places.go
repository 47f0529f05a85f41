package arena

// places is where work and rest were, for the school of a relief place.
type places struct {
	settled    int // easy asks given while it is over the line
	workSpells int // since it last came near
	approached int64
	workAt     worked
	workAway   worked
}

// worked is the level of the last work at a place.
type worked struct {
	noted bool
	level int
}

// approach notes that the horse came near, to rest or to work.
func (p *places) approach(now int64) { p.workSpells, p.approached = 0, now }
