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
	Body       = MustWord[causes]("body")
	Fear       = MustWord[causes]("fear")
	LearnedOut = MustWord[causes]("learned_out")
	Dulled     = MustWord[causes]("dulled")
	Attachment = MustWord[causes]("attachment")
)

type sources struct{}

func (sources) Words() []string { return []string{"seen", "video", "told", "on record"} }

// Source is where a finding comes from: seen in person, seen on video, told by
// the owner, or on the horse's record (part 3).
type Source = Word[sources]

// The sources of a finding.
var (
	Seen     = MustWord[sources]("seen")
	OnVideo  = MustWord[sources]("video")
	Told     = MustWord[sources]("told")
	OnRecord = MustWord[sources]("on record")
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
	LookBegan    = MustWord[looks]("A.began")
	LookDone     = MustWord[looks]("A.what_is_done")
	LookBody     = MustWord[looks]("B")
	LookHistory  = MustWord[looks]("B.history")
	LookTack     = MustWord[looks]("C.tack")
	LookHorse    = MustWord[looks]("C.horse")
	LookBasics   = MustWord[looks]("D")
	LookProblem  = MustWord[looks]("E")
	LookRecovery = MustWord[looks]("E.recovery")
	LookSwap     = MustWord[looks]("E2")
)
