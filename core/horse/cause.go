package horse

type causes struct{}

func (causes) Words() []string {
	return []string{
		"body", "fear", "untaught", "learned_out", "dulled", "sharpened", "attachment", "tack", "handler", "management",
	}
}

// Cause is one of the ten causes behind a behaviour (part 3).
type Cause = Word[causes]

// The causes that single rules look for.
var (
	Body       = word[causes]("body")
	Fear       = word[causes]("fear")
	LearnedOut = word[causes]("learned_out")
	Dulled     = word[causes]("dulled")
	Attachment = word[causes]("attachment")
)

type sources struct{}

func (sources) Words() []string { return []string{"seen", "video", "told", "on record"} }

// Source is where a finding comes from: seen in person, seen on video, told by
// the owner, or on the horse's record (part 3).
type Source = Word[sources]

// The sources of a finding.
var (
	Seen     = word[sources]("seen")
	OnVideo  = word[sources]("video")
	Told     = word[sources]("told")
	OnRecord = word[sources]("on record")
)

type looks struct{}

func (looks) Words() []string {
	return []string{
		"A.began", "A.history", "A.what_is_done", "A.with_whom", "A.where", "B", "B.history", "C.tack", "C.horse",
		"C.person", "D", "E", "E.recovery", "E2", "F.pressure_off", "F.curiosity", "G.days_off", "G.place", "G.stable",
	}
}

// Look is a part of a section that is looked at, or skipped, as one (part 3).
// The words stand in the order of the sections.
type Look = Word[looks]

// The looks that are read from what is noted there.
var (
	LookBegan    = word[looks]("A.began")
	LookDone     = word[looks]("A.what_is_done")
	LookBody     = word[looks]("B")
	LookHistory  = word[looks]("B.history")
	LookTack     = word[looks]("C.tack")
	LookHorse    = word[looks]("C.horse")
	LookBasics   = word[looks]("D")
	LookProblem  = word[looks]("E")
	LookRecovery = word[looks]("E.recovery")
	LookSwap     = word[looks]("E2")
)
