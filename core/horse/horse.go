// Package horse is the ground floor of the rules: the handbook's words as
// types. A word, a level or a variant that exists as a value here is one that
// the handbook knows (parts 2, 3 and 9); everything above builds on that.
package horse

import "slices"

type (
	levels   struct{}
	arousals struct{}
	faces    struct{}
	pulses   struct{}
)

func (levels) Bounds() (string, int, int)   { return "a level", 0, 10 }
func (arousals) Bounds() (string, int, int) { return "arousal", 0, 4 }
func (faces) Bounds() (string, int, int)    { return "face", 0, 4 }
func (pulses) Bounds() (string, int, int)   { return "pulses", 0, 99 }

type (
	// Level is the pressure of any aid, 0 none to 10 the most this trainer
	// would ever use with this horse (part 2).
	Level = Scale[levels]
	// Arousal runs from 0 settled to 4 explosive; 3 is over the line (part 2).
	Arousal = Scale[arousals]
	// Face is 0 forward and easy to 4 bites (part 2).
	Face = Scale[faces]
	// Pulses counts the pulses after the touch in the pulsed form (part 2).
	Pulses = Scale[pulses]
)

// LevelOf returns the level nearest to n.
func LevelOf(n int) Level { return Clamp[levels](n) }

// ArousalOf returns the arousal nearest to n.
func ArousalOf(n int) Arousal { return Clamp[arousals](n) }

// FaceOf returns the face nearest to n.
func FaceOf(n int) Face { return Clamp[faces](n) }

// PulsesOf returns the count of pulses nearest to n.
func PulsesOf(n int) Pulses { return Clamp[pulses](n) }

type answers struct{}

func (answers) Words() []string {
	return []string{"refused", "try", "tolerated", "accepted", "offered"}
}

// Answer is what the horse did, graded (part 2).
type Answer = Word[answers]

// The five answers.
var (
	Refused   = MustWord[answers]("refused")
	Try       = MustWord[answers]("try")
	Tolerated = MustWord[answers]("tolerated")
	Accepted  = MustWord[answers]("accepted")
	Offered   = MustWord[answers]("offered")
)

// Soft reports whether the answer was accepted or offered, which is what the
// rules call accepted (part 6).
func Soft(a Answer) bool { return a.Rank() >= Accepted.Rank() }

type manners struct{}

func (manners) Words() []string { return []string{"tense", "sour"} }

// Manner is how a tolerated answer was tolerated (part 2).
type Manner = Word[manners]

// The two manners of tolerating.
var (
	Tense = MustWord[manners]("tense")
	Sour  = MustWord[manners]("sour")
)

type releases struct{}

func (releases) Words() []string {
	return []string{"on the try", "late", "early", "wrong moment", "not released"}
}

// Release is when the pressure was let go (part 2).
type Release = Word[releases]

// The five moments of release.
var (
	OnTheTry    = MustWord[releases]("on the try")
	Late        = MustWord[releases]("late")
	Early       = MustWord[releases]("early")
	WrongMoment = MustWord[releases]("wrong moment")
	NotReleased = MustWord[releases]("not released")
)

type sizes struct{}

func (sizes) Words() []string { return []string{"small", "medium", "big"} }

// ReleaseSize is how big the release is (parts 2 and 6).
type ReleaseSize = Word[sizes]

// The three sizes of release.
var (
	Small  = MustWord[sizes]("small")
	Medium = MustWord[sizes]("medium")
	Big    = MustWord[sizes]("big")
)

type forms struct{}

func (forms) Words() []string { return []string{"building", "steady", "pulsed"} }

// Form is how the pressure was given (part 2).
type Form = Word[forms]

// Pulsed is the touch with even pulses until the try.
var Pulsed = MustWord[forms]("pulsed")

type aids struct{}

func (aids) Words() []string {
	return []string{"rope", "hand", "leg", "rein", "stick", "voice", "other tool"}
}

// Aid is what the pressure was given with (part 2).
type Aid = Word[aids]

type quarters struct{}

func (quarters) Words() []string { return []string{"front", "shoulder", "behind"} }

// CameFrom is from where it was come to the horse (part 2): some say no to one
// of them only.
type CameFrom = Word[quarters]

type holds struct{}

func (holds) Words() []string {
	return []string{"free", "loose line", "slack rope", "held", "tied", "ridden"}
}

// Held is how the horse was kept (part 2).
type Held = Word[holds]

// Two ways to be kept that make standing still prove little.
var (
	HeldFast = MustWord[holds]("held")
	Tied     = MustWord[holds]("tied")
	Ridden   = MustWord[holds]("ridden")
)

type enders struct{}

func (enders) Words() []string { return []string{"handler", "horse"} }

// EndedBy is who ended a hold (part 6).
type EndedBy = Word[enders]

// Who ended it.
var (
	ByHandler = MustWord[enders]("handler")
	ByHorse   = MustWord[enders]("horse")
)

type flags struct{}

func (flags) Words() []string {
	return []string{"not noticed", "outside cause", "not finished", "fed", "rear cleared"}
}

// Flag is a remark on a rep that the rules read (parts 2 and 6). "Fed" is
// food given with the rep; "rear cleared" is the lead trainer's mark that a
// rear was not at a person, the rope clear, the horse not afraid.
type Flag = Word[flags]

// The flags.
var (
	NotNoticed   = MustWord[flags]("not noticed")
	OutsideCause = MustWord[flags]("outside cause")
	Fed          = MustWord[flags]("fed")
	RearCleared  = MustWord[flags]("rear cleared")
)

type bodyItems struct{}

func (bodyItems) Words() []string {
	return []string{"mouth", "back", "belly", "saddle fit", "feet legs", "hind leg", "balance", "eyes", "skin", "weight"}
}

// BodyItem is a part of section B (part 3).
type BodyItem = Word[bodyItems]

// The items that single rules look for; the hind leg is the one that snatches
// or locks.
var (
	Mouth     = MustWord[bodyItems]("mouth")
	Back      = MustWord[bodyItems]("back")
	Belly     = MustWord[bodyItems]("belly")
	SaddleFit = MustWord[bodyItems]("saddle fit")
	FeetLegs  = MustWord[bodyItems]("feet legs")
	HindLeg   = MustWord[bodyItems]("hind leg")
	Balance   = MustWord[bodyItems]("balance")
	Eyes      = MustWord[bodyItems]("eyes")
)

type bodyStates struct{}

func (bodyStates) Words() []string {
	return []string{"not looked at", "clear", "suspect", "in treatment", "cleared"}
}

// BodyState is what is known of a body item (part 3, B).
type BodyState = Word[bodyStates]

// The states of a body item.
var (
	NotLookedAt = MustWord[bodyStates]("not looked at")
	Clear       = MustWord[bodyStates]("clear")
	Suspect     = MustWord[bodyStates]("suspect")
	InTreatment = MustWord[bodyStates]("in treatment")
	Cleared     = MustWord[bodyStates]("cleared")
)

type schools struct{}

func (schools) Words() []string {
	return []string{"build and release", "relief place", "wait it out", "ask and listen", "doses"}
}

// School is one of the five ways of working (part 4).
type School = Word[schools]

// The five schools.
var (
	BuildAndRelease = MustWord[schools]("build and release")
	ReliefPlace     = MustWord[schools]("relief place")
	WaitItOut       = MustWord[schools]("wait it out")
	AskAndListen    = MustWord[schools]("ask and listen")
	Doses           = MustWord[schools]("doses")
)

type problems struct{}

func (problems) Words() []string {
	return []string{
		"loading", "sour", "bridling", "saddling", "girth", "feet", "bucking", "rushing", "planting", "crowding",
		"aggression", "new thing", "mounting", "tension", "tracks", "heavy",
	}
}

// Problem is a problem behaviour taken on (part 1).
type Problem = Word[problems]

// The problems that single rules look for.
var (
	Loading    = MustWord[problems]("loading")
	Bridling   = MustWord[problems]("bridling")
	Saddling   = MustWord[problems]("saddling")
	Girth      = MustWord[problems]("girth")
	Crowding   = MustWord[problems]("crowding")
	Aggression = MustWord[problems]("aggression")
)

type cares struct{}

func (cares) Words() []string {
	return []string{"ordinary care", "extra care", "high care", "specialist only"}
}

// Care is the risk grade (part 3).
type Care = Word[cares]

// The four grades of care.
var (
	OrdinaryCare   = MustWord[cares]("ordinary care")
	ExtraCare      = MustWord[cares]("extra care")
	HighCare       = MustWord[cares]("high care")
	SpecialistOnly = MustWord[cares]("specialist only")
)

type experiences struct{}

func (experiences) Words() []string {
	return []string{"beginner", "improving", "sound", "professional"}
}

// Experience is a handler's (part 3, H).
type Experience = Word[experiences]

// Beginner is the handler with no firm levels on the horse; with an improving
// one it does not match a horse of high energy.
var (
	Beginner  = MustWord[experiences]("beginner")
	Improving = MustWord[experiences]("improving")
)

type stepStates struct{}

func (stepStates) Words() []string {
	return []string{"untried", "tried", "tolerated", "met", "kept", "slipped"}
}

// StepState is how far an ask has come (part 5).
type StepState = Word[stepStates]

// The states of a step.
var (
	Untried       = MustWord[stepStates]("untried")
	Tried         = MustWord[stepStates]("tried")
	StepTolerated = MustWord[stepStates]("tolerated")
	Met           = MustWord[stepStates]("met")
	Kept          = MustWord[stepStates]("kept")
	Slipped       = MustWord[stepStates]("slipped")
)

type minds struct{}

func (minds) Words() []string { return []string{"calm", "tight", "scared", "angry"} }

// Mind is the handler's own state at readiness (part 6).
type Mind = Word[minds]

// The handler's states that the rules read.
var (
	Calm   = MustWord[minds]("calm")
	Tight  = MustWord[minds]("tight")
	Scared = MustWord[minds]("scared")
	Angry  = MustWord[minds]("angry")
)

type stops struct{}

func (stops) Words() []string {
	return []string{
		"injury to horse", "injury to person", "pain", "lameness", "wound", "exhaustion",
		"heat", "ice", "storm", "handler angry", "handler frightened", "handler hurt",
		"must be held to be mounted", "ears back at the block, mouth open or a hind leg unweighted",
	}
}

// AtTheBlock reports whether a stop reason is one of mounting: nobody gets on
// (part 9).
func AtTheBlock(s Stop) bool { return s.Rank() > 12 }

// BeforeWork reports whether a stop reason can be seen before anything is asked:
// the weather, the body, or at the block.
func BeforeWork(s Stop) bool {
	return AtTheBlock(s) || slices.Contains([]string{"heat", "ice", "storm", "lameness", "wound", "pain"}, s.String())
}

// Stop is a reason that ends the session at once (parts 6 and 9).
type Stop = Word[stops]
